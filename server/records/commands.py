"""Changes to seam tests. One function, one transaction."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any
from uuid import UUID

from django.db.models import Max
from django.utils import timezone

from api.patches import Reader, apply_changes
from api.problems import NotHere, Refused
from api.readers import maybe_length_reader, note_reader, one_of_reader
from measuring.models import ReadingRow
from measuring.translate import SPOTS, reading_of
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.errors import CountOutOfRange, PiecingError
from piecing.lengths import Measure, Style
from piecing.planning.checks import check_allowance
from piecing.planning.seam import StripTest
from setups.commands import day_reader
from setups.models import SetUp
from setups.selectors import get_set_up
from workrooms.models import Workroom
from workrooms.once import change

__all__ = ["delete_test", "new_row", "put_test", "restore_test", "room_left", "settle", "test_readers"]

MOST = 10_000
"""Seam tests of a workroom."""
_GONE = "This test is not here. It may have been deleted in another window."
TEST_KINDS = [ReadingKind.STRIP_TEST.value, ReadingKind.STITCH.value]


def test_readers(measure: Measure) -> dict[str, Reader]:
    """One for each field as it is typed: ``value`` is the middle strip, or raw edge to stitching; ``wanted`` how wide the strips
    were to be cut."""
    day = day_reader()
    return {
        "kind": one_of_reader(TEST_KINDS, "kind of test"),
        "value": maybe_length_reader(measure),
        "whole": maybe_length_reader(measure),
        "wanted": maybe_length_reader(measure),
        "guide": maybe_length_reader(measure),
        "spot": one_of_reader(SPOTS, "spot on a seam"),
        "day": Reader(lambda v: day(v).isoformat()),
        "note": note_reader(200),
    }


@change
def put_test(room: Workroom, set_up: UUID, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]) -> None:
    """A seam test taken down or corrected; sending the same one twice leaves one."""
    machine = get_set_up(room, set_up)
    style = Style(Measure(room.measure))
    row = ReadingRow.objects.filter(pk=key).first()
    if row is not None and (row.test_of_id != machine.pk or row.deleted_at is not None):
        raise NotHere(_GONE)
    new = row is None
    if row is None:
        room_left(room, style)
        row = new_row(machine, key)
        changes, seen = {"kind": None, **changes}, {}
    apply_changes(row, test_readers(style.measure), changes, seen, style.measure)
    try:
        settle(row, machine)
    except PiecingError as refusal:
        raise Refused([refusal.at("value")], style) from None
    row.save(force_insert=new)


def new_row(machine: SetUp, key: UUID) -> ReadingRow:
    """Of today, with the guide where it stands; not saved."""
    last = ReadingRow.objects.filter(test_of=machine).aggregate(last=Max("order"))["last"] or 0
    return ReadingRow(
        pk=key,
        test_of=machine,
        set_up=machine,
        guide=machine.guide,
        order=last + 1,
        day=timezone.localdate().isoformat(),
    )


def room_left(room: Workroom, style: Style, more: int = 1) -> None:
    """Raises ``Refused`` where so many more would be too many."""
    if ReadingRow.objects.filter(test_of__workroom=room, deleted_at=None).count() + more > MOST:
        raise Refused([CountOutOfRange("A workroom holds {most} seam tests at most.", most=f"{MOST:,}")], style)


def settle(row: ReadingRow, machine: SetUp) -> None:
    """Raises what the core refuses of a seam."""
    if row.kind == ReadingKind.STITCH.value:
        row.whole = None
        row.wanted = machine.workroom.seam_allowance
    reading = reading_of(row)
    if reading.value is not None and reading.whole is not None:
        check_allowance(StripTest(reading.value, reading.whole).take_up)
    elif reading.value is not None:
        check_allowance(reading.value)


def _stamp(room: Workroom, set_up: UUID, key: UUID, *, deleted: bool) -> None:
    row = ReadingRow.objects.filter(pk=key, test_of=get_set_up(room, set_up)).first()
    if row is None:
        raise NotHere(_GONE)
    row.deleted_at = timezone.now() if deleted else None
    row.save(update_fields=["deleted_at"])


@change
def delete_test(room: Workroom, set_up: UUID, key: UUID) -> None:
    """Hidden, not erased: ``restore_test`` is the undo."""
    _stamp(room, set_up, key, deleted=True)


@change
def restore_test(room: Workroom, set_up: UUID, key: UUID) -> None:
    _stamp(room, set_up, key, deleted=False)
