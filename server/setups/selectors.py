"""Reads of machine set-ups."""

from __future__ import annotations

from datetime import date
from uuid import UUID

from django.db.models import QuerySet

from api.problems import NotHere
from workrooms.models import Workroom

from .models import SetUp

__all__ = ["days_out", "get_set_up", "in_use", "name_of", "set_ups"]


def set_ups(room: Workroom) -> QuerySet[SetUp]:
    """One query, the newest first."""
    return room.set_ups.filter(deleted_at=None)


def in_use(room: Workroom) -> SetUp | None:
    """The machine as it is set up now. One query."""
    return set_ups(room).filter(in_use=True).first()


def get_set_up(room: Workroom, key: UUID) -> SetUp:
    """Raises ``NotHere``."""
    row = room.set_ups.filter(pk=key, deleted_at=None).first()
    if row is None:
        raise NotHere("This set-up is not here. It may have been taken away in another window.")
    return row


def days_out(room: Workroom) -> set[date]:
    """Days whose readings are left out. One query."""
    return set(room.days_out.values_list("day", flat=True))


def name_of(row: SetUp) -> str:
    """The machine, and what tells this set-up from others of it."""
    foot, needle = row.foot and f"{row.foot} foot", row.needle and f"needle {row.needle}"
    return ", ".join(part for part in (row.machine, foot, needle) if part)
