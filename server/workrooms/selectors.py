"""Reads of workrooms and their rulers."""

from __future__ import annotations

from uuid import UUID

from django.db import transaction
from django.db.models import QuerySet

from api.problems import NotHere
from piecing.lengths import Measure
from piecing.trimming import Ruler, starting_set

from .models import OwnedRuler, Workroom

__all__ = ["current_workroom", "find_ruler", "get_ruler", "owned_rulers", "ruler_of", "rulers_of"]


def current_workroom() -> Workroom:
    """The one workroom of this computer, made on first use, with a starting set of rulers. One query."""
    return _first() or _begin_workroom()


def _first() -> Workroom | None:
    return Workroom.objects.order_by("pk").first()


@transaction.atomic
def _begin_workroom() -> Workroom:
    """Looked for once more where nobody else writes: a page that opens for the first time asks several things at once, and each
    would begin a workroom of its own."""
    room = _first()
    if room is not None:
        return room
    room = Workroom.objects.create()
    for position, r in enumerate(starting_set(Measure(room.measure))):
        OwnedRuler.objects.create(
            workroom=room,
            position=position,
            name=r.name,
            width=r.width,
            height=r.height,
            corner_diagonal=r.corner_diagonal,
        )
    return room


def rulers_of(room: Workroom) -> QuerySet[OwnedRuler]:
    """One query, in the order they were added."""
    return room.rulers.filter(deleted_at=None)


def ruler_of(row: OwnedRuler) -> Ruler:
    return Ruler(row.name, row.width, row.height, row.corner_diagonal, row.border, row.slotted, row.grooved, row.goose)


def owned_rulers(room: Workroom) -> tuple[Ruler, ...]:
    return tuple(ruler_of(r) for r in rulers_of(room))


def find_ruler(room: Workroom, key: UUID) -> OwnedRuler | None:
    return room.rulers.filter(pk=key).first()


def get_ruler(room: Workroom, key: UUID) -> OwnedRuler:
    row = find_ruler(room, key)
    if row is None:
        raise NotHere("This ruler is not here. It may have been removed in another window.")
    return row
