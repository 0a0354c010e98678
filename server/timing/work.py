"""The work of a project in usual minutes: what one thing of each kind takes at each stage, what is done, and what is left."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from api.problems import Refused
from blocks.quilt import sizes_of
from blocks.selectors import blocks_of
from blocks.translate import apart_in, find_in, joining_of, pattern_of
from cutting.translate import now_of
from measuring.selectors import plan_of
from piecing.blocks.boxes import with_finished
from piecing.errors import PiecingError
from piecing.messages import Message
from piecing.quilts.seams import quilt_join_length, quilt_parts
from piecing.timing import (
    Chore,
    Rhythm,
    WorkStage,
    block_minutes,
    due_of,
    piece_minutes,
    quilt_minutes,
    unit_minutes,
)
from piecing.units import kind_of
from progress.models import Done
from progress.selectors import blocks_counted, lot_steps, tally_of_unit
from progress.subject import QUILT, BenchSubject, SubjectKind, block_subject, unit_subject
from projects.models import PlannedUnit, Project

from .models import Schedule

__all__ = ["ProjectWork", "WorkThing", "chores_of", "cut_so_far", "done_since", "work_of"]


@dataclass(frozen=True)
class WorkThing:
    """One kind of what is worked: ``said`` what it is called, ``wanted`` how many, usual ``minutes`` for one by stage, and how many are
    ``through`` each."""

    of: str
    said: Message
    wanted: int
    minutes: Mapping[WorkStage, float]
    through: Mapping[WorkStage, int]
    of_blocks: Mapping[str, int]

    def to_do(self, stage: WorkStage) -> int:
        return max(0, self.wanted - self.through.get(stage, 0))


@dataclass(frozen=True)
class ProjectWork:
    """Everything of a project that takes time: pieces, units, blocks, the quilt; ``counts`` blocks by key, in order."""

    things: tuple[WorkThing, ...]
    counts: Mapping[str, int]

    def thing(self, of: str) -> WorkThing | None:
        return next((t for t in self.things if t.of == of), None)

    def to_do(self) -> dict[WorkStage, float]:
        """Usual minutes of what is left, by stage."""
        found = dict.fromkeys(WorkStage, 0.0)
        for thing in self.things:
            for stage, each in thing.minutes.items():
                found[stage] += each * thing.to_do(stage)
        return found


def cut_so_far(project: Project) -> int:
    """Sound pieces on all piles."""
    return sum(p.have for p in now_of(project))


def work_of(project: Project) -> ProjectWork:
    """What there is to do; things that cannot be planned yet are left out."""
    counted = blocks_counted(project)
    things = [*_pieces(project), *_units(project), *_blocks(project), *_quilt(project)]
    return ProjectWork(tuple(things), {str(b.key): b.wanted for b in counted})


def _pieces(project: Project) -> Iterator[WorkThing]:
    wanted = [p for p in now_of(project) if p.wanted]
    have = sum(min(p.have, p.wanted) for p in wanted)
    count = sum(p.wanted for p in wanted)
    if count:
        cut = {WorkStage.CUT: piece_minutes(1)}
        yield WorkThing("pieces", Message("pieces"), count, cut, {WorkStage.CUT: have}, {})


def _units(project: Project) -> Iterator[WorkThing]:
    for unit in project.units.filter(deleted_at=None).prefetch_related("lots"):
        unit.project = project
        tally = tally_of_unit(unit)
        try:
            minutes = unit_minutes(plan_of(unit))
        except PiecingError:
            continue
        if not minutes or not tally.to_make:
            continue
        through = {WorkStage.SEW: tally.sewn, WorkStage.PRESS: tally.pressed, WorkStage.TRIM: tally.trimmed}
        wanted = {k: int(drawn) + int(mirrored) for k, (_, drawn, mirrored) in unit.of_blocks.items()}
        yield WorkThing(unit_subject(unit.pk), _unit_said(unit), tally.to_make, minutes, through, wanted)


def _unit_said(unit: PlannedUnit) -> Message:
    return Message("{many} finishing {size}", many=kind_of(unit.kind).many, size=unit.finished)


def _blocks(project: Project) -> Iterator[WorkThing]:
    counted = {b.key: b for b in blocks_counted(project)}
    find = find_in(project.workroom)
    for block in blocks_of(project):
        known = counted[block.pk]
        try:
            whole = pattern_of(block, find).complete()
            pattern = with_finished(whole, apart_in(block, whole))
            each = block_minutes(pattern, block.finished, project.seam_allowance, joining_of(block, pattern))
        except PiecingError:
            continue
        if known.wanted:
            said = Message("blocks of {name}", name=known.name)
            minutes, through = {WorkStage.JOIN: each}, {WorkStage.JOIN: known.joined}
            yield WorkThing(
                block_subject(block.pk), said, known.wanted, minutes, through, {str(block.pk): known.wanted}
            )


def _quilt(project: Project) -> Iterator[WorkThing]:
    sizes = sizes_of(project)
    if sizes is None:
        return
    each = quilt_minutes(quilt_parts(sizes), quilt_join_length(sizes))
    done = project.lots.filter(subject=QUILT, joined=True).exists()
    yield WorkThing(QUILT, Message("the quilt"), 1, {WorkStage.QUILT: each}, {WorkStage.QUILT: int(done)}, {})


def chores_of(project: Project, work: ProjectWork, schedule: Schedule | None) -> list[Chore]:
    """What is left as chores, by what is due when; a block at a time where blocks are due one after the other. What is done is
    counted for the earliest."""
    rhythm = Rhythm(schedule.rhythm) if schedule else Rhythm.NONE
    first = schedule.first if schedule else None
    blocks = [key for key, count in work.counts.items() for _ in range(count)]
    by_block = rhythm in (Rhythm.BLOCK_WEEK, Rhythm.BLOCK_MONTH) and len(blocks) > 1
    found = []
    for thing in work.things:
        for stage, usual in thing.minutes.items():
            for batch, count in _batches(thing, stage, blocks if by_block else []):
                due = due_of(rhythm, first, stage, batch, len(blocks))
                found.append(Chore(stage, thing.of, thing.said, count, usual, due, batch, str(project.pk)))
    return found


def _batches(thing: WorkThing, stage: WorkStage, blocks: list[str]) -> Iterable[tuple[int, int]]:
    """How many are left of each block's share."""
    if not blocks or stage is WorkStage.QUILT:
        return [(len(blocks), thing.to_do(stage))] if thing.to_do(stage) else []
    of_each = {key: blocks.count(key) for key in set(blocks)}
    share = [
        thing.of_blocks.get(key, 0) / of_each[key] if thing.of_blocks else thing.wanted / len(blocks) for key in blocks
    ]
    # Whole things: rounded so that they add up, what the blocks do not want with the last.
    found, due, given = [], 0.0, 0
    through = thing.through.get(stage, 0)
    for n, each in enumerate(share):
        due += each
        until = thing.wanted if n == len(share) - 1 else round(due)
        count = until - max(given, min(through, until))
        if count > 0:
            found.append((n, count))
        given = until
    return found


def done_since(project: Project, stage: WorkStage, since: datetime, cut_before: int) -> tuple[int, float]:
    """How many things were put down at a stage since a moment, and the minutes they usually take."""
    work = work_of(project)
    if stage is WorkStage.CUT:
        pieces = max(0, cut_so_far(project) - cut_before)
        return pieces, piece_minutes(pieces)
    rows = Done.objects.filter(project=project, at__gte=since, undone=False).select_related("lot")
    things = usual = 0.0
    steps: dict[UUID, list[WorkStage]] = {}
    for row in rows:
        if stage is WorkStage.TRIM and row.stage == "trimmed":
            thing = work.thing(unit_subject(row.unit_id)) if row.unit_id else None
            things += row.count
            usual += row.count * thing.minutes.get(stage, 0.0) if thing else 0.0
            continue
        lot = row.lot
        if lot is None or _stage_of(lot.subject, row.stage) is not stage:
            continue
        if lot.pk not in steps:
            try:
                steps[lot.pk] = [_stage_of(lot.subject, s) for s in lot_steps(project, lot.subject, lot).values()]
            except (PiecingError, Refused):
                steps[lot.pk] = []
        of_stage = steps[lot.pk].count(stage)
        thing = work.thing(lot.subject)
        if not of_stage or thing is None:
            continue
        things += lot.units / of_stage
        usual += lot.units * thing.minutes.get(stage, 0.0) / of_stage
    return round(things), usual


def _stage_of(subject: str, stage: str) -> WorkStage:
    """The stage that takes the minutes: pressing within a block or the quilt is part of joining it."""
    match BenchSubject.kept(subject).kind:
        case SubjectKind.QUILT:
            return WorkStage.QUILT
        case SubjectKind.UNIT:
            return WorkStage(stage)
    return WorkStage.JOIN
