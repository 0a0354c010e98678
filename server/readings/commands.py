"""Changes to readings. One function, one transaction."""

from __future__ import annotations

import re
from collections.abc import Mapping
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import transaction
from django.db.models import Max
from django.utils import timezone

from common.patches import Reader, apply_changes
from common.problems import NotHere, Refused
from common.readers import length_reader, maybe_length_reader, note_reader, one_of_reader
from piecing.diagnosis import ReadingKind
from piecing.errors import CountOutOfRange, PiecingError
from piecing.lengths import Measure
from projects.models import PlannedUnit
from projects.selectors import get_unit
from projects.translate import style_of
from workrooms.models import Workroom

from .models import ReadingRow
from .selectors import find_reading, get_reading
from .translate import reading_of

__all__ = ["delete_reading", "put_reading", "reading_readers", "restore_reading"]


def _count(value: Any) -> int | None:
    text = "" if value is None else str(value).strip()
    if not text:
        return None
    if not re.fullmatch(r"[0-9]{1,4}", text):
        raise CountOutOfRange("The number of units is a whole number, such as 4.", given=text[:20])
    return int(text)


def reading_readers(measure: Measure) -> dict[str, Reader]:
    return {
        "kind": one_of_reader([k.value for k in ReadingKind], "kind of reading"),
        "value": length_reader(measure),
        "row_units": _count,
        "whole": maybe_length_reader(measure),
        "note": note_reader(200),
    }


def _clear_what_does_not_belong(row: ReadingRow) -> None:
    if row.kind != ReadingKind.ROW_LENGTH:
        row.row_units = None
    if row.kind != ReadingKind.STRIP_TEST:
        row.whole = None


def next_order(unit: PlannedUnit) -> int:
    return (unit.readings.aggregate(last=Max("order"))["last"] or 0) + 1


@transaction.atomic
def put_reading(
    room: Workroom, unit_key: UUID, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]
) -> ReadingRow:
    """Write a new reading or change one; sending the same one twice leaves one."""
    unit = get_unit(room, unit_key)
    style = style_of(unit.project)
    row = find_reading(unit, key)
    new = row is None
    if row is not None and row.deleted_at is not None:
        raise NotHere("This reading was deleted in another window. Undo that there, or take it down again.")
    row = row or ReadingRow(pk=key, unit=unit, order=next_order(unit), note="")
    try:
        wanted = {"kind": None, "value": "", **changes} if new else changes
        apply_changes(row, reading_readers(style.measure), wanted, {} if new else seen, style.measure)
        _clear_what_does_not_belong(row)
        reading_of(row)
    except PiecingError as refusal:
        raise Refused([refusal.at("value")], style) from None
    row.save(force_insert=new)
    return row


def _stamp(room: Workroom, unit_key: UUID, key: UUID, deleted_at: datetime | None) -> ReadingRow:
    row = get_reading(get_unit(room, unit_key), key)
    row.deleted_at = deleted_at
    row.save(update_fields=["deleted_at"])
    return row


@transaction.atomic
def delete_reading(room: Workroom, unit_key: UUID, key: UUID) -> ReadingRow:
    """Hidden, not erased: ``restore_reading`` is the undo."""
    return _stamp(room, unit_key, key, timezone.now())


@transaction.atomic
def restore_reading(room: Workroom, unit_key: UUID, key: UUID) -> ReadingRow:
    return _stamp(room, unit_key, key, None)
