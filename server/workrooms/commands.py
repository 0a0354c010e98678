"""Changes to a workroom's settings and rulers. One function, one transaction."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db.models import Max
from django.utils import timezone

from api.patches import Reader, apply_changes
from api.problems import NotHere, Refused
from api.readers import (
    allowance_reader,
    length_reader,
    maybe_whole_reader,
    name_reader,
    one_of_reader,
    step_reader,
    yes_no_reader,
)
from piecing.errors import RulerImpossible
from piecing.lengths import Measure, Style, usual
from piecing.trimming import starting_set

from .models import CUTTERS, MEASURES, OwnedRuler, Workroom
from .once import change
from .selectors import current_workroom, find_ruler, get_ruler, ruler_of, rulers_of

__all__ = ["change_workroom", "delete_ruler", "put_ruler", "restore_ruler", "ruler_readers", "workroom_readers"]


@change
def change_workroom(changes: Mapping[str, Any], seen: Mapping[str, Any]) -> Workroom:
    """Set fields of the current workroom; see ``api.patches`` for conflicts."""
    room = current_workroom()
    before = Measure(room.measure)
    measure = Measure(changes["measure"]) if changes.get("measure") in ("in", "mm") else before
    fields = apply_changes(room, workroom_readers(measure), changes, seen, measure)
    if measure is not before:
        fields += _in_another_measure(room, before, measure, set(fields))
    if fields:
        room.save(update_fields=fields)
    return room


def _in_another_measure(room: Workroom, before: Measure, now: Measure, given: set[str]) -> list[str]:
    """What stood as is usual in the one measure becomes what is usual in the other, and so do the rulers; what was set
    otherwise stays as it is."""
    changed = []
    for field in ("seam_allowance", "ruler_step", "reading_step"):
        if field not in given and getattr(room, field) == getattr(usual(before), field):
            setattr(room, field, getattr(usual(now), field))
            changed.append(field)
    rows = list(rulers_of(room))
    if [ruler_of(r) for r in rows] == list(starting_set(before)):
        for row, ruler in zip(rows, starting_set(now), strict=True):
            row.width, row.height = ruler.width, ruler.height
            row.save(update_fields=["width", "height"])
    return changed


def workroom_readers(measure: Measure) -> dict[str, Reader]:
    return {
        "name": name_reader(120),
        "measure": one_of_reader(MEASURES, "measure"),
        "ruler_step": step_reader(measure),
        "reading_step": step_reader(measure),
        "seam_allowance": allowance_reader(measure),
        "cutter": one_of_reader(CUTTERS, "hand"),
        "needle_hours": maybe_whole_reader(200, "Hours of sewing"),
        "blade_cuts": maybe_whole_reader(99_999, "A number of cuts"),
    }


def ruler_readers(measure: Measure) -> dict[str, Reader]:
    return {
        "name": name_reader(60),
        "width": length_reader(measure),
        "height": length_reader(measure),
        "corner_diagonal": yes_no_reader,
        "border": length_reader(measure),
        "slotted": yes_no_reader,
        "grooved": yes_no_reader,
        "goose": yes_no_reader,
    }


@change
def put_ruler(room: Workroom, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]) -> Workroom:
    """Write a new ruler or change one; sending the same one twice leaves one."""
    measure = Measure(room.measure)
    row = find_ruler(room, key)
    if row is None:
        last = room.rulers.aggregate(last=Max("position"))["last"]
        row = OwnedRuler(pk=key, workroom=room, position=0 if last is None else last + 1)
        changes, seen = {"name": "", "width": "", "height": "", **changes}, {}
    elif row.deleted_at is not None:
        raise NotHere("This ruler was removed in another window. Undo that there, or add it again.")
    new = row._state.adding
    apply_changes(row, ruler_readers(measure), changes, seen, measure)
    try:
        ruler_of(row)
    except RulerImpossible as refusal:
        raise Refused([refusal], Style(measure)) from None
    row.save(force_insert=new)
    return room


def _stamp(room: Workroom, key: UUID, deleted_at: datetime | None) -> Workroom:
    row = get_ruler(room, key)
    row.deleted_at = deleted_at
    row.save(update_fields=["deleted_at"])
    return room


@change
def delete_ruler(room: Workroom, key: UUID) -> Workroom:
    """Hidden, not erased: ``restore_ruler`` is the undo."""
    return _stamp(room, key, timezone.now())


@change
def restore_ruler(room: Workroom, key: UUID) -> Workroom:
    return _stamp(room, key, None)
