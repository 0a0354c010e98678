"""One batch made on the engine, and what the trimmed unit then shows. Source: docs/theory, section 3.

Nothing here uses a closed form: sizes, hands, tips, crossings and grain are read off the sewn cloth.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from math import atan2, degrees, hypot

from ..errors import PlanError
from ..geometry.plane import Line, Point, Polygon, sides_of, stretch_inside
from ..geometry.sewing import Needle, Piece, trim
from . import kind_of, method_for
from .design import Design, has_hand
from .method import Making, Method
from .spec import UnitSpec

__all__ = ["SIDES", "Crossing", "Made", "Tip", "orient", "simulate_unit"]

SIDES = ("bottom", "right", "top", "left")
"""The sides of a trim box, in the order of its outline."""
_SAME = 1e-6
"""Inches within which two simulated points are one."""
_PEEK = 1e-5
"""Inches beside a corner at which the cloth's reach is looked at."""
_STRAIGHT = 2.0
"""Degrees off the weave within which an edge counts as straight grain."""


@dataclass(frozen=True, slots=True)
class Crossing:
    """Where a seam runs out of the trimmed unit: on which side, how far from that side's left or lower end."""

    seam: str
    side: str
    at: float


@dataclass(frozen=True, slots=True)
class Tip:
    """A point inside the unit where patches meet, and its distance to each raw edge."""

    at: Point
    left: float
    right: float
    bottom: float
    top: float

    @property
    def nearest(self) -> tuple[str, float]:
        """The side that a tip is nearest to, and how far from it in inches."""
        return min(
            (("left", self.left), ("right", self.right), ("bottom", self.bottom), ("top", self.top)), key=lambda d: d[1]
        )


@dataclass(frozen=True, slots=True)
class Made:
    """``raw`` is a unit as drawn, lower left corner at the origin; ``trimmed`` is it trimmed, likewise.

    ``as_drawn`` and ``mirrored`` count the hands of a batch (a unit without a hand is as drawn).
    """

    making: Making
    raw: Piece
    box: Polygon
    trimmed: Piece
    as_drawn: int
    mirrored: int
    crossings: tuple[Crossing, ...]
    tips: tuple[Tip, ...]
    bias: dict[str, float]
    """Share of each side that lies off the straight grain."""

    @property
    def room(self) -> dict[str, float]:
        """How far each side of the trim target could move out and still lie on cloth all along."""
        return {name: _room(self.raw, side) for name, side in zip(SIDES, sides_of(self.box), strict=True)}

    @property
    def kept(self) -> float:
        """Square inches of cloth in one trimmed unit, allowances included."""
        return self.trimmed.cloth


def _shows(piece: Piece, design: Design, corner: Point) -> bool:
    """Whether each part's middle, counted from the finished lower left corner, has its fabric."""
    return all(piece.fabric_at((corner[0] + x, corner[1] + y)) == role for (x, y), role in design.probes)


def orient(piece: Piece, spec: UnitSpec, allowance: float) -> tuple[Piece, bool]:
    """The unit turned as drawn, or, if it is of the other hand, as the mirror image is drawn; and whether as drawn."""
    kind = kind_of(spec.kind)
    design = kind.design(spec)
    mirrored = design.mirrored()
    other: Piece | None = None
    for turn in (0, 90, 180, 270):
        candidate = piece.turned(turn) if turn else piece
        x, y = kind.box(spec, candidate, allowance)[0]
        corner = (x + allowance, y + allowance)
        if _shows(candidate, design, corner):
            return candidate.at_origin(), True
        if other is None and _shows(candidate, mirrored, corner):
            other = candidate
    if other is not None:
        return other.at_origin(), False
    raise PlanError("This way does not give the picture that was asked for. That is a fault of the program.")


def simulate_unit(method: Method, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Made:
    """Make a batch and look at it. Results for a needle without special seams are remembered."""
    if needle.special or needle.off_line:
        return _simulate(method, spec, cuts, allowance, needle)
    usual = needle.usual
    return _simulate_once(
        method.kind, method.name, spec, tuple(sorted(cuts.items())), allowance, usual.start, usual.fold
    )


@lru_cache(maxsize=256)
def _simulate_once(
    kind: str,
    name: str,
    spec: UnitSpec,
    cuts: tuple[tuple[str, float], ...],
    allowance: float,
    stitch: float,
    fold: float,
) -> Made:
    return _simulate(method_for(kind, name), spec, dict(cuts), allowance, Needle.of(stitch, fold))


def _simulate(method: Method, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Made:
    kind = kind_of(spec.kind)
    design = kind.design(spec)
    making = method.make(spec, cuts, allowance, needle)
    turned = [orient(u, spec, allowance) for u in making.units]
    as_drawn = [u for u, drawn in turned if drawn]
    raw = as_drawn[0] if as_drawn else turned[0][0]
    box = kind.box(spec, raw, allowance)
    (x, y), sides = box[0], sides_of(box)
    trimmed = trim(raw, *sides)[0].shifted(-x, -y)
    width, height = box[2][0] - x, box[2][1] - y
    here = sides_of(((0.0, 0.0), (width, 0.0), (width, height), (0.0, height)))
    counted = len(as_drawn) if has_hand(design) else len(turned)
    return Made(
        making,
        raw,
        box,
        trimmed,
        counted,
        len(turned) - counted,
        _crossings(trimmed, here),
        _tips(trimmed, width, height),
        _bias(trimmed, here),
    )


def _crossings(unit: Piece, sides: tuple[Line, ...]) -> tuple[Crossing, ...]:
    found = []
    for seam in unit.seams:
        for end in (seam.start, seam.end):
            for name, side in zip(SIDES, sides, strict=True):
                if abs(side.side(end)) < _SAME:
                    at = end[0] if name in ("bottom", "top") else end[1]
                    found.append(Crossing(seam.name, name, at))
    return tuple(sorted(found, key=lambda c: (c.side, c.at, c.seam)))


def _tips(unit: Piece, width: float, height: float) -> tuple[Tip, ...]:
    """Corners of patches inside the unit where two seams that are not one line meet."""
    seen: list[Tip] = []
    for corner in (p for f in unit.faces for p in f.outline):
        tip = Tip(corner, corner[0], width - corner[0], corner[1], height - corner[1])
        known = any(hypot(corner[0] - t.at[0], corner[1] - t.at[1]) < _SAME for t in seen)
        if tip.nearest[1] > _SAME and not known and _bends(unit, corner):
            seen.append(tip)
    return tuple(sorted(seen, key=lambda t: (round(t.at[1], 6), round(t.at[0], 6))))


def _bends(unit: Piece, p: Point) -> bool:
    """Whether seams in two directions touch the point."""
    headings = set()
    for seam in unit.seams:
        line = seam.line
        if abs(line.side(p)) < _SAME and -_SAME <= line.along(p) <= line.along(seam.end) + _SAME:
            dx, dy = line.direction
            headings.add(round(degrees(atan2(dy, dx)) % 180) % 180)
    return len(headings) > 1


def _bias(unit: Piece, sides: tuple[Line, ...]) -> dict[str, float]:
    found = {}
    for name, side in zip(SIDES, sides, strict=True):
        sx, sy = side.direction
        length = 0.0
        for patch in unit.faces:
            gx, gy = patch.grain
            off = degrees(atan2(abs(sx * gy - sy * gx), abs(sx * gx + sy * gy)))
            if min(off, 90 - off) > _STRAIGHT:
                on = [side.along(p) for p in patch.outline if abs(side.side(p)) < _SAME]
                length += max(on, default=0.0) - min(on, default=0.0)
        found[name] = length / side.along(side.end)
    return found


def _room(unit: Piece, side: Line) -> float:
    """The least reach of cloth outward from a side, looked at where any patch has a corner."""
    length = side.along(side.end)
    corners = sorted({0.0, length, *(side.along(p) for f in unit.faces for p in f.outline)})
    looks = [
        x for a, b in pairwise(corners) if 0 <= a < b <= length for x in (a + _PEEK, b - _PEEK) if b - a > 2 * _PEEK
    ]
    return min(_reach(unit, side, x) for x in looks)


def _reach(unit: Piece, side: Line, along: float) -> float:
    """How far cloth reaches outward from one point of a side without a gap."""
    dx, dy = side.direction
    start = side.at(along)
    ray = Line(start, (start[0] + dy, start[1] - dx))
    stretches = sorted(s for f in unit.faces if (s := stretch_inside(ray, f.outline)))
    reach = 0.0
    for low, high in stretches:
        if low <= reach + _SAME:
            reach = max(reach, high)
    return reach if any(low <= _SAME and high >= -_SAME for low, high in stretches) else -_short(stretches)


def _short(stretches: list[tuple[float, float]]) -> float:
    """How far inside the side the cloth ends, when it does not reach it."""
    return -max((high for _, high in stretches if high < 0), default=0.0)
