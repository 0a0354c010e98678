"""Sizes made round after a project came to be measured otherwise: 88.9 mm becomes 90, as long as nothing is cut.

Blocks are rounded part by part, so that their units are round too; the units that stand in the plan because of them follow.
"""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from typing import Any
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

__all__ = ["round_sizes", "sizes_off", "unround_sizes"]

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
    """Every size that does not read round becomes the nearest that does; ``unround_sizes`` is the undo. Raises ``Refused`` once
    cloth is cut or measured."""
    project = get_project(room, key)
    if is_under_way(project):
        raise Refused([NothingToCut("Cloth is cut or measured already: the sizes stay as they are.")])
    measure, quilt = Measure(project.measure), quilt_of(project)
    changed: list[list[str]] = []
    for block, finished in list(_blocks(project, measure)):
        changed.append(["block", str(block.pk), "finished", _text(block.finished), _text(finished)])
        block.finished = finished
        block.save(update_fields=["finished"])
    for unit in _units(project):
        for field in _OF_UNIT:
            size = getattr(unit, field)
            if size is not None and size > ZERO and not reads_round(size, measure):
                changed.append(["unit", str(unit.pk), field, _text(size), _text(round_size(size, measure))])
                setattr(unit, field, round_size(size, measure))
        unit.save()
    if quilt.begun:
        for field in _OF_QUILT:
            size = getattr(quilt, field)
            if size > ZERO and not reads_round(size, measure):
                changed.append(["quilt", "", field, _text(size), _text(round_size(size, measure))])
                setattr(quilt, field, round_size(size, measure))
        for n, border in enumerate(quilt.borders):
            size = Length.of(Fraction(border["width"]))
            if not reads_round(size, measure):
                changed.append(["border", str(n), "width", border["width"], _text(round_size(size, measure))])
                border["width"] = _text(round_size(size, measure))
    quilt.unrounded = changed
    quilt.save()
    return _followed(room, key)


def _text(size: Length) -> str:
    return str(size.rational)


def _followed(room: Workroom, key: UUID) -> Project:
    project = get_project(room, key)
    follow_blocks(project)
    touch(project)
    return get_project(room, key)


@change
def unround_sizes(room: Workroom, key: UUID) -> Project:
    """The sizes as they were before they were made round, but for those that were changed since."""
    project = get_project(room, key)
    quilt = quilt_of(project)
    rows: dict[str, dict[str, Any]] = {
        "block": {str(b.pk): b for b in blocks_of(project)},
        "unit": {str(u.pk): u for u in _units(project)},
        "quilt": {"": quilt},
    }
    for of, name, field, then, since in quilt.unrounded:
        if of == "border":
            if int(name) < len(quilt.borders) and quilt.borders[int(name)][field] == since:
                quilt.borders[int(name)][field] = then
            continue
        row = rows[of].get(name)
        if row is not None and _text(getattr(row, field)) == since:
            setattr(row, field, Length.of(Fraction(then)))
            row.save()
    quilt.unrounded = []
    quilt.save()
    return _followed(room, key)
