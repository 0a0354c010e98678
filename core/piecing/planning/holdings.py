"""Pieces at hand: squares from a precut pack, strips, scraps. How many units they give, and how large those can be.

All lengths in inches. Source: docs/theory, section 11.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from ..errors import HoldingNotUnderstood, PiecingError
from ..lengths import Length, Measure, parse_length
from ..units import method_for
from ..units.method import Cuts
from .plan import pieces_of, plan
from .room import QuilterRecord
from .schools import School, record_margin
from .unit_plan import MOST_UNITS, Choices, CutPiece, UnitPlan

__all__ = ["Holding", "largest_unit", "parse_holdings", "units_from"]

_MOST_KINDS = 40


@dataclass(frozen=True, slots=True)
class Holding:
    """``count`` pieces of one size, of each fabric wanted; None when there are plenty."""

    width: Length
    height: Length
    count: int | None = None

    def gives(self, piece: CutPiece) -> int:
        """How many such pieces one of these gives, cut in a plain grid, the better way round."""
        return max(self._grid(piece.width, piece.height), self._grid(piece.height, piece.width))

    def _grid(self, width: Length, height: Length) -> int:
        return width.whole_into(self.width) * height.whole_into(self.height)


_ONE = re.compile(
    r"^(?:(?P<count>[0-9]{1,5})\s*(?:of|pieces? of|×|\*)\s+)?(?P<width>.+?)\s*(?:x|×|by)\s*(?P<height>.+)$", re.I
)


def parse_holdings(text: str, measure: Measure = Measure.INCHES) -> tuple[Holding, ...]:
    """Read a list such as ``12 of 10 x 10; 5 x 5; 2 1/2 by 42``, parted by semicolons or lines.

    Raises ``HoldingNotUnderstood``, and what ``parse_length`` raises.
    """
    found = []
    for part in (p.strip() for p in re.split(r"[;\n]", text)):
        if not part:
            continue
        match = _ONE.match(part)
        if not match:
            raise HoldingNotUnderstood(
                "“{part}” could not be read as pieces at hand. Write them like 12 of 10 x 10; 5 x 5.",
                field="at_hand",
                part=part[:40],
            )
        width, height = (parse_length(match[side], measure) for side in ("width", "height"))
        if min(width, height).sign <= 0 or match["count"] == "0":
            raise HoldingNotUnderstood("“{part}” is nothing to cut from.", field="at_hand", part=part[:40])
        found.append(Holding(width, height, int(match["count"]) if match["count"] else None))
    if len(found) > _MOST_KINDS:
        raise HoldingNotUnderstood("Give {most} sizes at most.", field="at_hand", most=_MOST_KINDS)
    return tuple(found)


def units_from(unit: UnitPlan, holdings: Sequence[Holding]) -> int:
    """How many of these units the holdings give, the largest pieces placed first; 0 when a piece fits nowhere."""
    by_size = sorted(holdings, key=lambda h: float(h.width) * float(h.height))
    ledger = _ledger(unit, by_size)
    low, high = 0, MOST_UNITS // unit.batch.units
    while low < high:
        middle = (low + high + 1) // 2
        if all(_have_room(pieces, middle, by_size) for pieces in ledger):
            low = middle
        else:
            high = middle - 1
    return low * unit.batch.units


@dataclass(frozen=True, slots=True)
class _Need:
    """``bits`` of a piece for each batch, ``gives`` of them from each piece, ``grid`` pieces from each holding."""

    bits: int
    gives: int
    grid: tuple[int, ...]


def _ledger(unit: UnitPlan, holdings: Sequence[Holding]) -> list[list[_Need]]:
    """For each fabric what one batch needs of it, the largest pieces first."""
    wanted = unit.pieces_for(replace(unit.choices, count=unit.batch.units, mirrored=0), 1)
    roles: dict[str, list[_Need]] = {}
    for p in sorted(wanted, key=lambda p: -float(p.width) * float(p.height)):
        need = _Need(p.count * p.gives - p.left_over, p.gives, tuple(h.gives(p) for h in holdings))
        roles.setdefault(p.role, []).append(need)
    return list(roles.values())


def _have_room(pieces: Sequence[_Need], batches: int, holdings: Sequence[Holding]) -> bool:
    """Whether every piece of one fabric finds a place: smallest holdings first, each used for one kind of piece."""
    left = [h.count for h in holdings]
    for piece in pieces:
        wanted = -(-piece.bits * batches // piece.gives)
        for n, each in enumerate(piece.grid):
            here = left[n]
            if each == 0 or wanted <= 0:
                continue
            if here is None:
                wanted = 0
                continue
            used = min(here, -(-wanted // each))
            left[n] = here - used
            wanted -= used * each
        if wanted > 0:
            return False
    return True


def largest_unit(choices: Choices, holding: Holding, record: QuilterRecord | None = None) -> UnitPlan | None:
    """The largest unit of this kind, method and school whose every piece fits in one holding; None when none does.

    Sizes go by the ruler's step; height keeps its ratio to the width.
    """
    spec, step = choices.spec, choices.ruler_step
    ratio = spec.height.rational / spec.width.rational
    usual = _school_as_margin(choices, record)

    def at(k: int) -> Choices:
        return replace(usual, spec=spec.sized(step * k, step * k * ratio), cuts=Cuts(), count=1, mirrored=0)

    def fits(k: int) -> bool:
        sized = at(k)
        return all(holding.gives(p) for p in pieces_of(sized))

    low, high = _bracket(at, holding, step.whole_times(max(holding.width, holding.height) * 3))
    while low < high:
        middle = (low + high + 1) // 2
        if fits(middle):
            low = middle
        else:
            high = middle - 1
    try:
        return plan(at(low)) if low else None
    except PiecingError:
        return None


def _bracket(at: Callable[[int], Choices], holding: Holding, most: int) -> tuple[int, int]:
    """Steps between which the answer lies: every piece grows evenly with the unit, but for rounding up."""
    limits = sorted((float(holding.width), float(holding.height)))

    def sides(k: int) -> list[float]:
        return [x for p in pieces_of(at(k)) for x in sorted((float(p.width), float(p.height)))]

    small, large = sides(1), sides(most)
    slopes = [(b - a) / (most - 1) for a, b in zip(small, large, strict=True)]
    reach = [
        1 + (limits[n % 2] - a) / slope for n, (a, slope) in enumerate(zip(small, slopes, strict=True)) if slope > 0
    ]
    guess = int(min(reach, default=most))
    return max(0, min(guess, most) - 3), min(most, max(guess + 3, 0))


def _school_as_margin(choices: Choices, record: QuilterRecord | None) -> Choices:
    """One's records asked once, as the margin they come to: it does not change with the size."""
    if choices.school is not School.RECORDS or record is None:
        return choices
    method = method_for(choices.spec.kind, choices.method)
    margin = record_margin(method, choices.spec, choices.seam_allowance, record, choices.ruler_step)
    return replace(choices, school=School.OWN_MARGIN, own_margin=margin)
