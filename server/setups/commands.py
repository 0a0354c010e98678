"""Changes to machine set-ups and days left out. One function, one transaction."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date, timedelta
from typing import Any
from uuid import UUID

from django.utils import timezone

from api.patches import Reader, apply_changes
from api.problems import NotHere, Refused
from api.readers import maybe_length_reader, name_reader, note_reader, one_of_reader, step_reader, yes_no_reader
from piecing.days import day_words, read_day
from piecing.errors import DayImpossible
from piecing.lengths import Measure, Style, usual
from workrooms.models import Workroom
from workrooms.once import change

from .models import PRESSINGS, DayOut, SetUp
from .selectors import get_set_up

__all__ = [
    "day_reader",
    "delete_set_up",
    "leave_day_out",
    "put_set_up",
    "restore_set_up",
    "set_up_readers",
    "take_day_back",
    "use_set_up",
]

_WORDS = {"foot": 60, "plate": 60, "needle": 60, "thread": 60, "stitch_length": 20, "needle_position": 30, "note": 200}
_CARRIED = ("machine", *_WORDS, "guide", "guide_step", "pressing", "starch")
_FIRST = date(1990, 1, 1)


def day_reader() -> Reader:
    """A day that has come. Clocks differ: tomorrow's is taken."""

    def read(value: Any) -> date:
        day = read_day(str(value), timezone.localdate())
        if day > timezone.localdate() + timedelta(days=1):
            raise DayImpossible("{day} has not come yet. Give the day on which it was read.", day=day_words(day))
        if day < _FIRST:
            raise DayImpossible("{day} is too long ago. Give the day on which it was read.", day=day_words(day))
        return day

    return Reader(read)


def set_up_readers(measure: Measure) -> dict[str, Reader]:
    """One for each field as it is typed."""
    return {
        "machine": name_reader(60),
        **{f: note_reader(longest) for f, longest in _WORDS.items()},
        "guide": maybe_length_reader(measure),
        "guide_step": step_reader(measure),
        "pressing": one_of_reader(PRESSINGS, "way of pressing"),
        "starch": yes_no_reader,
        "began": day_reader(),
    }


@change
def put_set_up(
    room: Workroom, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any], came_from: UUID | None = None
) -> SetUp:
    """A new set-up, like the one it ``came_from`` but for the changes, and in use from now on; or one that is there corrected.
    Sending the same one twice leaves one."""
    measure = Measure(room.measure)
    row = SetUp.objects.filter(pk=key).first()
    if row is not None and (row.workroom_id != room.pk or row.deleted_at is not None):
        raise NotHere("This set-up is not here. It may have been taken away in another window.")
    if row is not None:
        apply_changes(row, set_up_readers(measure), changes, seen, measure)
        row.save()
        return row
    old = get_set_up(room, came_from) if came_from else None
    row = SetUp(pk=key, workroom=room, came_from=old, began=timezone.localdate())
    row.guide_step = _step(measure)
    if old is not None:
        for field in _CARRIED:
            setattr(row, field, getattr(old, field))
    wanted = changes if old is not None else {"machine": "", **changes}
    apply_changes(row, set_up_readers(measure), wanted, {}, measure)
    if row.guide is None:
        row.guide = room.seam_allowance
    room.set_ups.filter(in_use=True, deleted_at=None).update(in_use=False)
    row.in_use = True
    row.save(force_insert=True)
    return row


def _step(measure: Measure) -> str:
    """What a guide moves by where nothing else is said: half a reading's step."""
    return str((usual(measure).reading_step / 2).rational)


@change
def use_set_up(room: Workroom, key: UUID) -> SetUp:
    """This one from now on, and no other."""
    row = get_set_up(room, key)
    room.set_ups.filter(in_use=True, deleted_at=None).exclude(pk=row.pk).update(in_use=False)
    row.in_use = True
    row.save(update_fields=["in_use"])
    return row


@change
def delete_set_up(room: Workroom, key: UUID) -> SetUp:
    """Hidden with its tests, not erased: ``restore_set_up`` is the undo. The one it came from is in use again; that this one was, it
    remembers."""
    row = get_set_up(room, key)
    row.deleted_at = timezone.now()
    row.save(update_fields=["deleted_at"])
    before = row.came_from
    if row.in_use and before is not None and before.deleted_at is None:
        before.in_use = True
        before.save(update_fields=["in_use"])
    return row


@change
def restore_set_up(room: Workroom, key: UUID) -> SetUp:
    row = room.set_ups.filter(pk=key).first()
    if row is None:
        raise NotHere("This set-up is not here.")
    if row.deleted_at is None:
        return row
    if row.in_use:
        room.set_ups.filter(in_use=True, deleted_at=None).update(in_use=False)
    row.deleted_at = None
    row.save(update_fields=["deleted_at"])
    return row


def _day(room: Workroom, text: str) -> date:
    try:
        day: date = day_reader()(text)
    except DayImpossible as refusal:
        raise Refused([refusal.at("day")], Style(Measure(room.measure))) from None
    return day


@change
def leave_day_out(room: Workroom, day: str) -> None:
    DayOut.objects.get_or_create(workroom=room, day=_day(room, day))


@change
def take_day_back(room: Workroom, day: str) -> None:
    DayOut.objects.filter(workroom=room, day=_day(room, day)).delete()
