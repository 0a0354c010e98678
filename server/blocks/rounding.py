"""Sizes made round after a project came to be measured otherwise: 88.9 mm becomes 90, as long as nothing is cut.

Blocks are rounded part by part, so that their units are round too; the units that stand in the plan because of them follow.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
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
from workrooms.models import Workroom
from workrooms.once import change

from .following import follow_blocks
from .quilt import quilt_of
from .selectors import blocks_of
from .translate import find_in, pattern_of

__all__ = ["round_sizes", "sizes_off", "unround_sizes"]

_OF_UNIT = ("height", "strip", *(f"corner_{n}" for n in range(4)))
_OF_QUILT = ("sash", "binding_strip", "backing_over", "usable", "oversize")


@dataclass(frozen=True, slots=True)
class _Off:
    """A size that does not read round: of what, its key and field, what it is and what it becomes, and what it is called."""

    of: str
    key: str
    field: str
    now: Length
    then: Length
    called: str = ""


def sizes_off(project: Project) -> list[Message]:
    """What does not read round in the project's measure, and what it would become; empty once cloth is cut or measured."""
    return [
        Message("{what} finishes {now}; {then} is round.", what=o.called, now=o.now, then=o.then)
        if o.field in ("finished", "block_finished")
        else Message("In {what} {now} stands; {then} is round.", what=o.called, now=o.now, then=o.then)
        for o in ([] if is_under_way(project) else _off(project))
    ]


def _off(project: Project) -> Iterator[_Off]:
    """Everything that does not read round. A block, and a unit given by its block, is rounded part by part."""
    measure, find, quilt = Measure(project.measure), find_in(project.workroom), quilt_of(project)
    for b in blocks_of(project):
        then = _by_parts(b.finished, pattern_of(b, find).width, measure)
        if then != b.finished:
            yield _Off("block", str(b.pk), "finished", b.finished, then, str(b.pattern.get("name", "")))
    for u in _units(project):
        called = kind_of(u.kind).title
        if u.size_basis == "block":
            then = _by_parts(u.block_finished, Fraction(u.units_across), measure)
            if then != u.block_finished:
                yield _Off("unit", str(u.pk), "block_finished", u.block_finished, then, f"Block of {called}")
        fields = _OF_UNIT if u.size_basis == "block" else ("finished", *_OF_UNIT)
        yield from _of_row(u, "unit", str(u.pk), fields, called, measure)
    if quilt.begun:
        yield from _of_row(quilt, "quilt", "", _OF_QUILT, "the quilt", measure)
        for n, border in enumerate(quilt.borders):
            now = Length.of(Fraction(border["width"]))
            if not reads_round(now, measure):
                yield _Off("border", str(n), "width", now, round_size(now, measure), f"border {n + 1}")


def _by_parts(size: Length, parts: Fraction, measure: Measure) -> Length:
    part = size * (1 / parts)
    fine = reads_round(size, measure) and reads_round(part, measure)
    return size if fine else round_size(part, measure) * parts


def _of_row(row: Any, of: str, key: str, fields: Iterable[str], called: str, measure: Measure) -> Iterator[_Off]:
    for field in fields:
        now = getattr(row, field)
        if now is not None and now > ZERO and not reads_round(now, measure):
            yield _Off(of, key, field, now, round_size(now, measure), called)


def _units(project: Project) -> list[PlannedUnit]:
    """Those planned by hand."""
    return [u for u in project.units.filter(deleted_at=None) if not u.of_blocks]


@change
def round_sizes(room: Workroom, key: UUID) -> Project:
    """Every size that does not read round becomes the nearest that does; ``unround_sizes`` is the undo. Raises ``Refused`` once
    cloth is cut or measured."""
    project = get_project(room, key)
    if is_under_way(project):
        raise Refused([NothingToCut("Cloth is cut or measured already: the sizes stay as they are.")])
    changes = [[o.of, o.key, o.field, _text(o.now), _text(o.then)] for o in _off(project)]
    return _set(room, project, changes, changes)


@change
def unround_sizes(room: Workroom, key: UUID) -> Project:
    """The sizes as they were before they were made round, but for those that were changed since."""
    project = get_project(room, key)
    back = [[of, name, field, since, then] for of, name, field, then, since in quilt_of(project).unrounded]
    return _set(room, project, back, [])


def _text(size: Length) -> str:
    return str(size.rational)


def _set(room: Workroom, project: Project, changes: list[list[str]], kept: list[list[str]]) -> Project:
    """Sets each field that still is what it was to what it becomes, and keeps what is needed to take it back."""
    quilt = quilt_of(project)
    rows: dict[str, dict[str, Any]] = {
        "block": {str(b.pk): b for b in blocks_of(project)},
        "unit": {str(u.pk): u for u in _units(project)},
        "quilt": {"": quilt},
    }
    for of, name, field, now, then in changes:
        if of == "border":
            if int(name) < len(quilt.borders) and Fraction(quilt.borders[int(name)][field]) == Fraction(now):
                quilt.borders[int(name)][field] = then
            continue
        row = rows[of].get(name)
        if row is not None and _text(getattr(row, field)) == now:
            setattr(row, field, Length.of(Fraction(then)))
            row.save()
    quilt.unrounded = kept
    quilt.save()
    follow_blocks(get_project(room, project.pk))
    touch(project)
    return get_project(room, project.pk)
