"""Pieces that lots under way have taken from the piles, and where fewer are put down as cut."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass

from measuring.selectors import plan_of
from piecing.cutting.ledger import Pile, PileKey
from piecing.errors import PiecingError
from projects.models import Project

from .translate import made_as, plan_as

__all__ = ["Short", "short_of", "taken_of"]


@dataclass(frozen=True, slots=True)
class Short:
    """A pile of which lots have taken more than is put down as cut: ``cut`` as it is put down, ``short`` by how many."""

    letter: str
    fabric: str
    cut: int
    spoiled: int
    short: int


def taken_of(project: Project) -> Counter[PileKey]:
    """Pieces by pile that the lots begun take, each by the plan that it was begun with."""
    found: Counter[PileKey] = Counter()
    for unit in project.units.filter(deleted_at=None).prefetch_related("lots"):
        lots = list(unit.lots.all())
        if not lots:
            continue
        unit.project = project
        try:
            planned = plan_of(unit)
            for lot in lots:
                then = planned if lot.made_as == made_as(planned) else plan_as(planned, lot.made_as)
                for p in then.pieces_for(then.choices, lot.goes):
                    found[p.role, p.width, p.height, p.gives] += p.count
        except PiecingError:
            continue
    return found


def short_of(project: Project, piles: Iterable[Pile]) -> tuple[Short, ...]:
    """Piles that should be put down as cut further than they are; ``piles`` as they stand now."""
    taken = taken_of(project)
    if not taken:
        return ()
    return tuple(
        Short(p.entry.letter, p.entry.fabric, p.entry.cut, p.entry.spoiled, taken[p.entry.key] - p.have)
        for p in piles
        if taken[p.entry.key] > p.have
    )
