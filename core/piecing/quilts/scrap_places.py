"""Places that scraps are laid in: one unit's fabric each, and which of them touch.

Source: docs/theory, section 12.9.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..blocks.pattern import carried_box
from ..errors import ScrapsImpossible
from ..lengths import Length
from .choices import Setting, block_spots
from .laid import Laid
from .sizes import QuiltSizes

__all__ = ["MOST_PLACES", "ScrapPlace", "cell_box", "named_scrap", "neighbours", "scrap_places"]

MOST_PLACES = 1_200
_NEAR = 1e-6


@dataclass(frozen=True, slots=True)
class ScrapPlace:
    """One unit that takes a scrap: its block's spot, its cell there, and its box (left, bottom, right, top; inches)."""

    spot: int
    cell: int
    box: tuple[float, float, float, float]
    name: str


def scrap_places(q: QuiltSizes, laid: Sequence[Laid], role: str) -> tuple[ScrapPlace, ...]:
    """The units of a quilt whose fabrics have the role, or one of two roles, in reading order. On point, boxes lie on the turned lattice.

    Raises ``ScrapsImpossible`` when there is none, or more than 1,200.
    """
    c, found = q.choices, []
    wide, high, sash = float(c.block_width), float(c.block_height), float(c.sash)
    for n, (x, y) in enumerate(block_spots(c)):
        if c.setting is Setting.ON_POINT:
            left, top = (x - y) / 2 * (wide + sash), -(x + y) / 2 * (wide + sash)
        else:
            drop = high / 2 if c.setting is Setting.STAGGERED and x % 2 else 0.0
            left, top = x * (wide + sash), -y * (high + sash) - drop
        part = float(laid[n].layout.part(c.block_width))
        for k, cell in enumerate(laid[n].layout.cells):
            if set(role) & set(cell.unit.part_fabrics):
                a, b, w, h = _box_of(laid[n], k)
                name = f"block {n + 1}, unit {k + 1}"
                found.append(
                    ScrapPlace(
                        n, k, (left + a * part, top - (b + h) * part, left + (a + w) * part, top - b * part), name
                    )
                )
    if not 1 <= len(found) <= MOST_PLACES:
        raise ScrapsImpossible(
            "No unit of this quilt holds role {role}. Choose one that the blocks have."
            if not found
            else "Scraps are laid out over {most} units at most; this quilt has {given}.",
            field="role",
            role=named_scrap(role),
            most=f"{MOST_PLACES:,}",
            given=f"{len(found):,}",
        )
    return tuple(found)


def _box_of(laid: Laid, k: int) -> tuple[float, float, float, float]:
    """The box of a unit once its block is mirrored and turned, in parts."""
    p = laid.layout.pattern
    x, y, w, h = carried_box(laid.layout.cells[k], p.width, p.height, laid.orientation)
    return float(x), float(y), float(w), float(h)


def cell_box(laid: Laid, cell: int, finished: Length) -> tuple[float, float, float, float]:
    """Left, bottom, width, height of one unit of a block as it lies, in inches from the block's lower left corner."""
    part = float(laid.layout.part(finished))
    x, y, w, h = _box_of(laid, cell)
    p = laid.layout.pattern
    high = float(p.width if laid.orientation.across else p.height)
    return x * part, (high - y - h) * part, w * part, h * part


def neighbours(
    places: Sequence[ScrapPlace], *, corners: bool = False, reach: float = 0.0
) -> tuple[tuple[int, int], ...]:
    """Pairs that share part of a side, or face each other no further than ``reach`` inches apart: across a sash. With ``corners``
    those that touch at a corner too."""
    found = []
    far = reach + _NEAR
    by_left = sorted(range(len(places)), key=lambda n: places[n].box[0])
    for i, a in enumerate(by_left):
        l1, b1, r1, t1 = places[a].box
        for b in by_left[i + 1 :]:
            l2, b2, r2, t2 = places[b].box
            if l2 > r1 + far:
                break
            across, up = min(r1, r2) - max(l1, l2), min(t1, t2) - max(b1, b2)
            beside = max(across, up) > _NEAR and min(across, up) > -far
            if beside or (corners and -far < min(across, up) and max(across, up) < _NEAR):
                found.append((min(a, b), max(a, b)))
    return tuple(sorted(found))


def named_scrap(scrap: str) -> str:
    """The fabrics of a scrap as they are called."""
    return " and ".join(scrap.upper())
