"""Sizes made round after a project came to be measured otherwise: 88.9 mm becomes 90, as long as nothing is cut.

Blocks are rounded part by part, so that their units are round too; the units that stand in the plan because of them follow.
"""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from uuid import UUID

from api.problems import Refused
from piecing.errors import NothingToCut
from piecing.lengths import ZERO, Length, Measure, reads_round, round_size
from piecing.messages import Message
from piecing.units import kind_of
from projects.commands import touch
from projects.models import PlannedUnit, Project
from projects.selectors import get_project, is_under_way
from projects.translate import finished_of
from workrooms.models import Workroom
from workrooms.once import change

from .following import follow_blocks
from .models import Block
from .quilt import quilt_of
from .selectors import blocks_of
from .translate import find_in, pattern_of

__all__ = ["round_sizes", "sizes_off"]

_OF_UNIT = ("finished", "block_finished", "height", "strip", *(f"corner_{n}" for n in range(4)))
_OF_QUILT = ("sash", "binding_strip", "backing_over", "usable", "oversize")


def sizes_off(project: Project) -> list[Message]:
    """What does not read round in the project's measure, and what it would become; empty once cloth is cut or measured."""
    if is_under_way(project):
        return []
    measure = Measure(project.measure)
    found = [
        Message(
            "{name} finishes {now}; {then} is round.", name=str(b.pattern.get("name", "")), now=b.finished, then=then
        )
        for b, then in _blocks(project, measure)
    ]
    for u in _units(project):
        now = finished_of(u)
        if not reads_round(now, measure):
            found.append(
                Message(
                    "{kind} finishes {now}; {then} is round.",
                    kind=kind_of(u.kind).title,
                    now=now,
                    then=round_size(now, measure),
                )
            )
    for size, then in _of_quilt(project, measure):
        found.append(Message("In the quilt {now} stands; {then} is round.", now=size, then=then))
    return found


def _blocks(project: Project, measure: Measure) -> Iterator[tuple[Block, Length]]:
    """Blocks that are not round, and what they become: every part of theirs round."""
    find = find_in(project.workroom)
    for block in blocks_of(project):
        parts = pattern_of(block, find).width
        part = block.finished * (1 / parts)
        if not (reads_round(block.finished, measure) and reads_round(part, measure)):
            yield block, round_size(part, measure) * parts


def _units(project: Project) -> list[PlannedUnit]:
    """Those planned by hand."""
    return [u for u in project.units.filter(deleted_at=None) if not u.of_blocks]


def _of_quilt(project: Project, measure: Measure) -> list[tuple[Length, Length]]:
    quilt = quilt_of(project)
    if not quilt.begun:
        return []
    sizes = [getattr(quilt, f) for f in _OF_QUILT] + [Length.of(Fraction(b["width"])) for b in quilt.borders]
    return [(s, round_size(s, measure)) for s in dict.fromkeys(sizes) if s > ZERO and not reads_round(s, measure)]


@change
def round_sizes(room: Workroom, key: UUID) -> Project:
    """Every size that does not read round becomes the nearest that does. Raises ``Refused`` once cloth is cut or measured."""
    project = get_project(room, key)
    if is_under_way(project):
        raise Refused([NothingToCut("Cloth is cut or measured already: the sizes stay as they are.")])
    measure = Measure(project.measure)
    for block, finished in list(_blocks(project, measure)):
        block.finished = finished
        block.save(update_fields=["finished"])
    for unit in _units(project):
        for field in _OF_UNIT:
            size = getattr(unit, field)
            if size is not None and size > ZERO and not reads_round(size, measure):
                setattr(unit, field, round_size(size, measure))
        unit.save()
    quilt = quilt_of(project)
    if quilt.begun:
        for field in _OF_QUILT:
            size = getattr(quilt, field)
            if size > ZERO and not reads_round(size, measure):
                setattr(quilt, field, round_size(size, measure))
        quilt.borders = [
            {**b, "width": str(w.rational if reads_round(w, measure) else round_size(w, measure).rational)}
            for b in quilt.borders
            for w in [Length.of(Fraction(b["width"]))]
        ]
        quilt.save()
    follow_blocks(get_project(room, key))
    touch(project)
    return get_project(room, key)
