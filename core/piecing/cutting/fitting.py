"""What a stock is enough for: whether pieces fit it, how many blocks it gives, which other way of making would fit.

Source: docs/theory, section 13.5.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from ..errors import PiecingError
from ..messages import Message
from ..planning.plan import plan
from ..planning.schools import School
from ..planning.unit_plan import Choices, UnitPlan
from ..units import methods_of
from ..units.method import Cuts
from .plan import Goal, cutting_plan, shelf_cloths
from .stock import Cloth, WantedPiece

__all__ = ["BlocksGiven", "Suggestion", "blocks_given", "fits", "most_blocks", "suggestions"]

_SCHOOLS = (School.LITTLE, School.EXACT)


def fits(pieces: Sequence[WantedPiece], cloths: Sequence[Cloth], seconds: float = 0.5) -> bool:
    """Whether a plan without anything missing was found: first the plain one, then the better one."""
    for fabric in sorted({p.fabric for p in pieces if p.count}):
        wanted = [p for p in pieces if p.fabric == fabric and p.count]
        there = [c for c in cloths if c.fabric == fabric and c.count]
        if float(sum(float(p.area.value) for p in wanted)) > sum(float(c.area.value) * c.count for c in there):
            return False
        if shelf_cloths(wanted, there) is None and cutting_plan(wanted, there, Goal.LEAST, seconds).missing:
            return False
    return True


def most_blocks(pieces_for: Callable[[int], Sequence[WantedPiece]], cloths: Sequence[Cloth], limit: int = 500) -> int:
    """The most blocks whose pieces fit: doubled until they do not, then halved in between."""
    low, high = 0, 1
    while high <= limit and fits(pieces_for(high), cloths):
        low, high = high, high * 2
    while high - low > 1:
        middle = (low + high) // 2
        if middle <= limit and fits(pieces_for(middle), cloths):
            low = middle
        else:
            high = middle
    return low


@dataclass(frozen=True, slots=True)
class BlocksGiven:
    """How many blocks a stock gives: ``least`` at the smallest its cloths may be, ``most`` at the largest."""

    name: str
    least: int
    most: int

    @property
    def said(self) -> Message:
        """In words, with what to do where cloth was not measured."""
        if self.least == self.most:
            return Message(
                "{n, plural, =0 {No block} one {One block} other {# blocks}} of {name}, if it is all used for them.",
                n=self.least,
                name=self.name,
            )
        return Message(
            "{least} to {most} blocks of {name}, if it is all used for them: measure each cloth that is “up to” before cutting "
            "the last.",
            least=self.least,
            most=self.most,
            name=self.name,
        )


def blocks_given(name: str, pieces_for: Callable[[int], Sequence[WantedPiece]], cloths: Sequence[Cloth]) -> BlocksGiven:
    """How many blocks of one kind all the cloth gives, and how many if every cloth is as wide as it may be."""
    if not pieces_for(1):
        return BlocksGiven(name, 0, 0)
    least = most_blocks(pieces_for, cloths)
    unsure = any(c.across_most and c.across_most > c.across for c in cloths)
    return BlocksGiven(
        name, least, max(least, most_blocks(pieces_for, [c.at_most for c in cloths])) if unsure else least
    )


@dataclass(frozen=True, slots=True)
class Suggestion:
    """Made this way instead, everything fits."""

    unit: int
    kind: str
    method: str
    school: School


def suggestions(
    plans: Sequence[UnitPlan],
    pieces_of: Callable[[Sequence[UnitPlan]], Sequence[WantedPiece]],
    cloths: Sequence[Cloth],
    most: int = 3,
) -> tuple[Suggestion, ...]:
    """Other methods and schools, one unit changed at a time, with which nothing is missing; at most so many."""
    found: list[Suggestion] = []
    for n, unit in enumerate(plans):
        for choices in _others(unit.choices):
            if len(found) >= most:
                return tuple(found)
            try:
                other = plan(choices)
            except PiecingError:
                continue
            if fits(pieces_of([*plans[:n], other, *plans[n + 1 :]]), cloths, 0.3):
                found.append(Suggestion(n, unit.spec.kind, choices.method, choices.school))
    return tuple(found)


def _others(now: Choices) -> list[Choices]:
    ways = [(m.name, s) for m in methods_of(now.spec.kind) for s in _SCHOOLS]
    return [replace(now, method=m, school=s, cuts=Cuts()) for m, s in ways if (m, s) != (now.method, now.school)]
