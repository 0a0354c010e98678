"""Changes to the cloth that is there. One function, one transaction."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any
from uuid import UUID

from django.db.models import Max
from django.utils import timezone

from api.patches import Reader, apply_changes
from api.problems import NotHere, Refused
from api.readers import length_reader, maybe_length_reader, note_reader, one_of_reader, whole_reader
from piecing.cutting import Cloth, ClothKind
from piecing.cutting.stock import usual_size
from piecing.errors import ClothImpossible, PiecingError
from piecing.lengths import Measure, Style
from projects.commands import touch
from projects.models import Project
from projects.selectors import get_fabric, get_project
from projects.translate import style_of
from workrooms.models import Workroom
from workrooms.once import change

from .models import KINDS, Stock
from .translate import (
    kind_asked,
    live_stock,
)

__all__ = ["MOST_STOCK", "as_can_be", "check_stock", "delete_stock", "put_stock", "restore_stock", "stock_readers"]

MOST_STOCK = 400


def stock_readers(measure: Measure) -> dict[str, Reader]:
    return {
        "kind": one_of_reader(KINDS, "kind of cloth"),
        "across": length_reader(measure),
        "along": length_reader(measure),
        "across_most": maybe_length_reader(measure),
        "count": whole_reader(2_000, "The number of cloths", least=0),
        "name": note_reader(80),
        "other": note_reader(80),
    }


@change
def put_stock(
    room: Workroom, fabric_key: UUID, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]
) -> Project:
    """A cloth entered or changed; its key is made by the caller."""
    fabric = get_fabric(room, fabric_key)
    project, style = fabric.project, style_of(fabric.project)
    row = Stock.objects.filter(pk=key).first()
    if row is not None and (row.fabric is None or row.fabric.project_id != project.pk):
        raise NotHere("This cloth is on the shelf or reserved for another project by now.")
    if row is None:
        if live_stock(project).count() >= MOST_STOCK:
            raise Refused([ClothImpossible("A project holds {most} cloths at most.", most=MOST_STOCK)])
        last = Stock.objects.filter(fabric__project=project).aggregate(last=Max("position"))["last"] or 0
        across, along = usual_size(kind_asked(changes), style.measure)
        row = Stock(pk=key, workroom=room, fabric=fabric, position=last + 1, across=across, along=along)
        row._state.adding = True
    row.fabric = fabric
    apply_changes(row, stock_readers(style.measure), changes, seen, style.measure)
    check_stock(row, style.measure)
    row.save()
    touch(project)
    return get_project(room, project.pk)


def check_stock(row: Stock, measure: Measure) -> None:
    """Raises ``Refused`` for what cannot be."""
    try:
        as_can_be(row)
    except PiecingError as refusal:
        raise Refused([refusal], Style(measure)) from None


def as_can_be(row: Stock) -> Stock:
    """What is cut or sewn already is known by one side. Raises ``ClothImpossible``."""
    if not ClothKind(row.kind).is_cloth:
        row.along, row.across_most = row.across, None
    Cloth("", "", row.across, row.along, ClothKind(row.kind), row.count, row.name, row.across_most)
    return row


def _get(room: Workroom, key: UUID) -> Stock:
    row = Stock.objects.select_related("fabric__project").filter(pk=key, fabric__project__workroom=room).first()
    if row is None:
        raise NotHere("There is no such cloth here. It may have been removed in another window.")
    return row


@change
def delete_stock(room: Workroom, key: UUID) -> Project:
    """Hidden, not erased: ``restore_stock`` is the undo."""
    return _stamp(_get(room, key), room, timezone.now())


@change
def restore_stock(room: Workroom, key: UUID) -> Project:
    return _stamp(_get(room, key), room, None)


def _stamp(row: Stock, room: Workroom, at: Any) -> Project:
    row.deleted_at = at
    row.save(update_fields=["deleted_at"])
    assert row.fabric is not None
    touch(row.fabric.project)
    return get_project(room, row.fabric.project_id)
