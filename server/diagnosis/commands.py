"""Changes to readings and to diagnoses kept. One function, one transaction."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db.models import Max
from django.utils import timezone
from django.utils.dateparse import parse_datetime

from api.patches import apply_changes
from api.problems import NotHere, Refused
from api.readers import note_reader, one_of_reader
from blocks.models import Block
from measuring.models import ReadingRow
from measuring.translate import reading_of, reading_readers
from piecing.diagnosis.names import landings
from piecing.diagnosis.reading_kinds import PLAIN, SIDED, ReadingKind
from piecing.errors import CountOutOfRange, DayImpossible, PiecingError, UnknownChoice
from piecing.lengths import Length
from projects.commands import touch
from projects.models import PlannedUnit
from setups.selectors import in_use
from workrooms.once import change

from .models import TURNED_OUT, SavedDiagnosis
from .selectors import summary_of
from .subjects import Subject

__all__ = [
    "MOST",
    "SAVED_READERS",
    "change_saved",
    "delete_reading",
    "put_lost",
    "put_reading",
    "restore_reading",
    "save_diagnosis",
    "settle",
    "take_saved",
]

_GONE = "This reading is not here. It may have been deleted in another window."
MOST = 5_000
"""Readings of one project."""


SAVED_READERS = {"turned_out": one_of_reader(TURNED_OUT, "outcome"), "later": note_reader(400)}


@change
def put_reading(subject: Subject, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]) -> Subject:
    """Write a new reading or change one; sending the same one twice leaves one."""
    style = subject.style
    row = ReadingRow.objects.filter(pk=key).first()
    if row is not None and (not subject.owns(row) or row.deleted_at is not None):
        raise NotHere(_GONE)
    new = row is None
    held = ReadingRow.objects.filter(project=subject.project)
    if new and held.filter(deleted_at=None).count() >= MOST:
        raise Refused([CountOutOfRange("A project holds {most} readings at most.", most=MOST)], style)
    if row is None:
        order = (held.aggregate(last=Max("order"))["last"] or 0) + 1
        row = ReadingRow(pk=key, project=subject.project, block=subject.block, unit=subject.unit, order=order)
        _by_machine(subject, row)
    lands = str(changes.get("lands", ""))
    try:
        fields = {k: v for k, v in changes.items() if k != "lands"}
        wanted = {"kind": None, **fields} if new else fields
        moved = new or bool(set(fields) - {"value", "whole", "confirmed", "note"})
        apply_changes(row, reading_readers(style.measure), wanted, {} if new else seen, style.measure)
        settle(subject, row, lands, anew=moved)
    except PiecingError as refusal:
        raise Refused([refusal.at("value")], style) from None
    row.save(force_insert=new)
    touch(subject.project)
    return subject


@change
def put_lost(subject: Subject, key: UUID, fields: Mapping[str, Any]) -> None:
    """A reading that comes from elsewhere and whose place is no longer in the block: kept, shown, and not used."""
    order = (ReadingRow.objects.filter(project=subject.project).aggregate(last=Max("order"))["last"] or 0) + 1
    row = ReadingRow(pk=key, project=subject.project, block=subject.block, unit=subject.unit, order=order, mark="?")
    measure = subject.style.measure
    apply_changes(row, reading_readers(measure), {k: v for k, v in fields.items() if k != "lands"}, {}, measure)
    row.save(force_insert=True)


def settle(subject: Subject, row: ReadingRow, lands: str, *, anew: bool = True) -> None:
    """The side that was picked, the batch of a unit's kind, and what lies there now. Raises what the core refuses."""
    kind = ReadingKind(row.kind)
    if kind in PLAIN:
        row.value = None
    if kind is not ReadingKind.ROW:
        row.count = 0
    if kind is not ReadingKind.STRIP_TEST:
        row.whole = None
    if lands and row.value is not None and kind in SIDED:
        row.value = abs(row.value) * _sign(kind, lands) if row.value.sign else Length.of(0)
    model = subject.scene.model
    if not anew:
        reading_of(row)
        return
    if subject.unit is not None and not (row.at_unit or row.seam or row.feature):
        row.batch = model.places.batches[0].key
        if kind is ReadingKind.ROW and not row.count:
            row.count = len(model.places.cells)
    row.mark = ""
    found = subject.scene.checked(reading_of(row))
    row.mark, row.batch = found.mark, found.batch
    row.wanted = subject.scene.wanted_value(found)


def _by_machine(subject: Subject, row: ReadingRow) -> None:
    """What the machine is set up like as it is read."""
    now = in_use(subject.project.workroom)
    if now is not None:
        row.set_up, row.guide = now, now.guide


def _sign(kind: ReadingKind, lands: str) -> int:
    known = {x.code: x.sign for x in landings(kind)}
    if lands not in known:
        raise UnknownChoice("Say on which side it lies: {known}.", field="lands", known=" or ".join(known))
    return known[lands]


def _stamp(subject: Subject, key: UUID, deleted_at: datetime | None) -> Subject:
    row = ReadingRow.objects.filter(pk=key, project=subject.project).first()
    if row is None or not subject.owns(row):
        raise NotHere(_GONE)
    row.deleted_at = deleted_at
    row.save(update_fields=["deleted_at"])
    touch(subject.project)
    return subject


@change
def delete_reading(subject: Subject, key: UUID) -> Subject:
    """Hidden, not erased: ``restore_reading`` is the undo."""
    return _stamp(subject, key, timezone.now())


@change
def restore_reading(subject: Subject, key: UUID) -> Subject:
    return _stamp(subject, key, None)


@change
def save_diagnosis(subject: Subject, key: UUID) -> Subject:
    """The diagnosis as it stands, in sentences; asking twice with one key keeps one."""
    if not SavedDiagnosis.objects.filter(pk=key).exists():
        SavedDiagnosis.objects.create(pk=key, block=subject.block, unit=subject.unit, said=summary_of(subject))
    touch(subject.project)
    return subject


_NOTHING_SAID: dict[str, Any] = {
    "status": "unsettled",
    "headline": "",
    "sure": 0.0,
    "leading": "",
    "causes": [],
    "readings": [],
    "faults": [],
    "this_block": [],
    "the_batch": [],
}


@change
def take_saved(
    saved: Iterable[Mapping[str, Any]], *, block: Block | None = None, unit: PlannedUnit | None = None
) -> None:
    """Diagnoses that come with an imported project; what a sentence is missing is taken as nothing said. Raises ``DayImpossible`` for
    one kept at a time that never was."""
    for s in saved:
        said = {f: s["said"].get(f, empty) for f, empty in _NOTHING_SAID.items()}
        row = SavedDiagnosis.objects.create(
            block=block, unit=unit, said=said, turned_out=s.get("turned_out", ""), later=s.get("later", "")
        )
        at = str(s.get("saved_at") or s.get("kept_at") or "")
        try:
            when = parse_datetime(at)
        except ValueError:
            raise DayImpossible(
                "“{given}” never was. A diagnosis was kept at a time that there is.", given=at
            ) from None
        if when is not None:
            SavedDiagnosis.objects.filter(pk=row.pk).update(saved_at=when)


@change
def change_saved(subject: Subject, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]) -> Subject:
    """What turned out later; ``deleted`` takes it away, or brings it back."""
    row = SavedDiagnosis.objects.filter(pk=key, block=subject.block, unit=subject.unit).first()
    if row is None:
        raise NotHere("This diagnosis is not kept here.")
    if "deleted" in changes:
        row.deleted_at = timezone.now() if changes["deleted"] else None
    some = {k: v for k, v in changes.items() if k != "deleted"}
    apply_changes(row, SAVED_READERS, some, {k: v for k, v in seen.items() if k != "deleted"}, subject.style.measure)
    row.save()
    touch(subject.project)
    return subject
