"""Putting down what is done at the bench, and taking it back. One function, one transaction.

Everything put down has a name of its own, made where it was tapped: sent twice it is there once, and taken back it takes back
that and nothing that somebody else put down.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any
from uuid import UUID

from django.db.models import F

from api.patches import Reader, apply_changes
from api.problems import NotHere, Refused
from api.readers import note_reader, one_of_reader, whole_reader
from blocks.selectors import get_block
from measuring.selectors import plan_of, plan_or_refuse
from piecing.errors import MoreThanMade, PiecingError, UnknownChoice
from piecing.handling.lots import MOST_IN_A_LOT
from piecing.handling.progress import check_count, how_far
from piecing.handling.spoiled import cloth_again
from piecing.handling.steps import BenchStage
from piecing.lengths import Measure
from piecing.timing import unit_minutes
from piecing.units import kind_of
from projects.commands import touch
from projects.models import PlannedUnit, Project
from projects.selectors import get_project, get_unit
from projects.translate import style_of
from workrooms.models import Workroom
from workrooms.once import change

from .models import COUNTED, MARKINGS, WHYS, Done, Lot
from .selectors import bench_of, block_bench, handling_of, lot_steps, tally_of_unit
from .subject import QUILT, BenchSubject, SubjectKind, block_subject, unit_subject
from .translate import made_as

__all__ = ["change_handling", "handling_readers", "put_done", "say_why", "take_back", "why_readers"]

_MOST_AT_ONCE = 10_000


def handling_readers() -> dict[str, Reader]:
    """What may be chosen of how a unit is worked."""

    def goes(value: Any) -> int | None:
        return None if value in (None, "", "0", 0) else int(whole_reader(MOST_IN_A_LOT, "A lot").read(value))

    return {
        "marking": one_of_reader(MARKINGS, "way of marking"),
        "lot_goes": Reader(goes),
    }


@change
def change_handling(room: Workroom, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]) -> Project:
    """How a unit is marked, and how large its lots are; lots that were begun stay as they are."""
    owner, name = _of(room, "units", key)
    project = get_project(room, owner)
    row = handling_of(project, name)
    apply_changes(row, handling_readers(), changes, seen, Measure(project.measure))
    row.save()
    touch(project)
    return get_project(room, project.pk)


def _of(room: Workroom, subject: str, key: UUID) -> tuple[UUID, str]:
    """The project it belongs to, and the name that its lots stand under."""
    if subject == "units":
        unit = get_unit(room, key)
        return unit.project_id, unit_subject(unit.pk)
    if subject == "blocks":
        block = get_block(room, key)
        return block.project_id, block_subject(block.pk)
    raise NotHere("Units and blocks are worked at the bench.")


@change
def put_done(room: Workroom, key: UUID, done: UUID, body: Mapping[str, Any]) -> Project:
    """A step of a lot, or units counted as trimmed or spoiled, under the name ``done``. Put down again, nothing changes; one that
    was taken back counts again."""
    project = get_project(room, key)
    known = Done.objects.filter(pk=done).first()
    if known is not None:
        if known.project_id != project.pk:
            raise NotHere("This belongs to another project.")
        if known.undone:
            _count(known, known.count)
            known.undone = False
            known.save(update_fields=["undone"])
            _settle(project, known.lot)
    elif body["stage"] in COUNTED:
        unit = get_unit(room, body["of"])
        row = Done(pk=done, project=project, unit=unit, stage=body["stage"], count=body["count"])
        _count(row, row.count)
        row.lost = _lost(unit, body["count"]) if body["stage"] == "spoiled" and body["count"] > 0 else {}
        row.why, row.note = body.get("why", ""), body.get("note", "")
        row.save(force_insert=True)
    else:
        lot, steps = _lot(room, project, body)
        Done.objects.create(pk=done, project=project, lot=lot, stage=steps[body["step"]].value, step=body["step"])
        _settle(project, lot, steps)
    touch(project)
    return get_project(room, key)


@change
def take_back(room: Workroom, key: UUID, done: UUID) -> Project:
    """What was put down under this name counts no longer. Taken back twice, nothing changes."""
    project = get_project(room, key)
    row = Done.objects.filter(pk=done, project=project).first()
    if row is None:
        raise NotHere("Nothing was put down under this name. It may have been taken back with its lot.")
    if not row.undone:
        _count(row, -row.count)
        row.undone = True
        row.save(update_fields=["undone"])
        _settle(project, row.lot)
    touch(project)
    return get_project(room, key)


def _lost(unit: PlannedUnit, count: int) -> dict[str, Any]:
    """Cloth and minutes that units made again take, by the plan as it is today; nothing where there is none."""
    try:
        planned = plan_of(unit)
    except PiecingError:
        return {}
    names = {f.role: f.name for f in unit.project.fabrics.all()}
    cloth = {names.get(role, role): round(float(area.value), 2) for role, area in cloth_again(planned, count).items()}
    return {"cloth": cloth, "minutes": round(count * sum(unit_minutes(planned).values()), 1)}


@change
def say_why(room: Workroom, key: UUID, done: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]) -> None:
    """Why units were spoiled, now or later, or never."""
    project = get_project(room, key)
    row = Done.objects.filter(pk=done, project=project, stage="spoiled", undone=False).first()
    if row is None:
        raise NotHere("Nothing is put down as spoiled under this name. It may have been taken back.")
    apply_changes(row, why_readers(), changes, seen, Measure(project.measure))
    row.save(update_fields=["why", "note"])


def why_readers() -> dict[str, Reader]:
    """Why something is made again: one of the usual reasons, and words."""
    return {"why": one_of_reader([("", ""), *WHYS], "reason"), "note": note_reader(200)}


def _count(row: Done, by: int) -> None:
    """Counts units of a kind up or down. Refused above what was made, and below what is there."""
    if not by or row.unit is None:
        return
    unit = PlannedUnit.objects.select_related("project").get(pk=row.unit.pk)
    tally = tally_of_unit(unit)
    now = getattr(unit, row.stage)
    there = tally.sewn if row.stage == "trimmed" else max(sum(lot.units for lot in unit.lots.all()), unit.trimmed)
    if row.stage == "spoiled" and len(kind_of(unit.kind).parts) == 1:
        there = tally.wanted + unit.spoiled
    try:
        if not -_MOST_AT_ONCE <= by <= _MOST_AT_ONCE:
            raise MoreThanMade("Count {most} at most at once.", field="count", most=f"{_MOST_AT_ONCE:,}")
        if by > 0 or now + by < 0:
            check_count(row.stage, by, now, there)
    except PiecingError as refusal:
        raise Refused([refusal], style_of(unit.project)) from None
    PlannedUnit.objects.filter(pk=unit.pk).update(**{row.stage: F(row.stage) + by})


def _lot(room: Workroom, project: Project, body: Mapping[str, Any]) -> tuple[Lot, dict[str, BenchStage]]:
    """The lot that a step belongs to, begun now if it was not; and the stage of each of its steps."""
    subject, number = _subject(room, project, body), body["lot"]
    lot = project.lots.filter(subject=subject, number=number).first()
    try:
        steps = lot_steps(project, subject, lot)
    except PiecingError as refusal:
        raise Refused([refusal], style_of(project)) from None
    if body["step"] not in steps:
        raise Refused(
            [
                UnknownChoice(
                    "This step is not in the plan any more: it was changed meanwhile. Look at the steps as they are now; what was "
                    "put down before stays.",
                    field="step",
                )
            ]
        )
    return lot or _begin_lot(room, project, subject, number), steps


def _subject(room: Workroom, project: Project, body: Mapping[str, Any]) -> str:
    if body["subject"] == "quilt":
        return QUILT
    owner, subject = _of(room, body["subject"], body["of"])
    if owner != project.pk:
        raise NotHere("This belongs to another project.")
    return subject


def _begin_lot(room: Workroom, project: Project, subject: str, number: int) -> Lot:
    """A lot as it stands on the screen, from now on under its number."""
    match BenchSubject.kept(subject):
        case BenchSubject(SubjectKind.UNIT, UUID() as key):
            unit = get_unit(room, key)
            planned = plan_or_refuse(unit)
            coming = bench_of(unit, planned).runs[0].lots
            made = made_as(planned)
            more: dict[str, Any] = {"unit": unit}
        case BenchSubject(SubjectKind.BLOCK, UUID() as key):
            coming, made = block_bench(room, key).lots, {}
            more = {"block_id": key}
        case _:
            return Lot.objects.create(project=project, subject=subject, number=1, goes=1, units=1)
    lot = next((v for v in coming if v.number == number), None)
    if lot is None:
        raise NotHere(
            f"There is no lot {number} to begin: as many as are wanted are made or begun. Plan more, or put down a spoiled one."
        )
    return Lot.objects.create(
        project=project, subject=subject, number=number, goes=lot.goes, units=lot.units, made_as=made, **more
    )


def _settle(project: Project, lot: Lot | None, steps: dict[str, BenchStage] | None = None) -> None:
    """Says of a lot how far it is; one of which nothing is done any more is gone, as if it had not been begun."""
    if lot is None:
        return
    done = set(Done.objects.filter(lot=lot, undone=False).values_list("step", flat=True))
    if not done:
        lot.delete()
        return
    try:
        far = how_far(steps or lot_steps(project, lot.subject, lot), done)
    except (PiecingError, Refused):
        return
    lot.sewn, lot.pressed, lot.joined = far.sewn, far.pressed, far.whole
    lot.save(update_fields=["sewn", "pressed", "joined"])
