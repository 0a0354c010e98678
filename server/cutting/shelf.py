"""The shelf: cloth, triangles and units of the workroom that no project has reserved, and how they come and go.

A cloth hangs from the fabric of one project, or lies on the shelf; so two projects never count the same one.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from contextlib import suppress
from typing import Any
from uuid import UUID

from django.db.models import Max, Q, QuerySet
from django.utils import timezone

from api.patches import apply_changes
from api.problems import NotHere, Refused
from api.readers import name_reader
from piecing.cutting.stock import usual_size
from piecing.errors import ClothImpossible, CountOutOfRange
from piecing.lengths import Measure
from projects.commands import touch
from projects.models import Fabric, Project
from projects.selectors import get_fabric, get_project
from workrooms.models import Workroom
from workrooms.once import change

from .models import Stock
from .stock_commands import MOST_STOCK, check_stock, stock_readers
from .translate import kind_asked

__all__ = [
    "cloth_to_take",
    "delete_shelved",
    "on_shelf",
    "put_on_shelf",
    "rescue_cloth",
    "restore_shelved",
    "shelf_readers",
    "shelve",
    "take_off_shelf",
]

_COLOUR = "#8a8f94"


def on_shelf(room: Workroom) -> QuerySet[Stock]:
    """What no project has reserved; what a deleted project had is free too."""
    free = Q(fabric=None) | Q(fabric__project__deleted_at__isnull=False, fabric__deleted_at=None)
    return Stock.objects.filter(free, workroom=room, deleted_at=None, count__gt=0).select_related("fabric__project")


def shelf_readers(measure: Measure) -> dict[str, Any]:
    """What a cloth on the shelf takes: its fabric by name, and all that one in a project takes."""
    return {"cloth": name_reader(80), **stock_readers(measure)}


@change
def put_on_shelf(room: Workroom, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]) -> Workroom:
    """A cloth entered on the shelf, or changed there; its key is made by the caller."""
    measure = Measure(room.measure)
    row = Stock.objects.filter(pk=key).first()
    if row is not None and (row.workroom_id != room.pk or not on_shelf(room).filter(pk=key).exists()):
        raise NotHere("This cloth is reserved for a project by now. Change it there.")
    if row is None:
        if on_shelf(room).count() >= MOST_STOCK:
            raise Refused([ClothImpossible("The shelf holds {most} cloths at most.", most=MOST_STOCK)])
        kind = kind_asked(changes)
        across, along = usual_size(kind, measure)
        row = Stock(pk=key, workroom=room, cloth="Cloth", colour=_COLOUR, across=across, along=along, kind=kind.value)
        row.position = _next_position(room)
        row._state.adding = True
    if "cloth" in apply_changes(row, shelf_readers(measure), changes, seen, measure):
        alike = Fabric.objects.filter(project__workroom=room, name__iexact=row.cloth).first()
        row.colour = alike.colour if alike else _COLOUR
    check_stock(row, measure)
    row.save()
    return room


def _next_position(room: Workroom) -> int:
    return int(Stock.objects.filter(workroom=room).aggregate(last=Max("position"))["last"] or 0) + 1


def _free(room: Workroom, key: UUID) -> Stock:
    row = on_shelf(room).filter(pk=key).first()
    if row is None:
        holder = Stock.objects.filter(pk=key, workroom=room, deleted_at=None).select_related("fabric__project").first()
        if holder is not None and holder.fabric is not None:
            raise Refused(
                [
                    ClothImpossible(
                        "This cloth was reserved for {project} meanwhile. Put it back there first, or take another one.",
                        project=holder.fabric.project.name,
                    )
                ]
            )
        raise NotHere("There is no such cloth on the shelf. It may have been used up or taken away in another window.")
    return row


@change
def delete_shelved(room: Workroom, key: UUID) -> Workroom:
    """Hidden, not erased: ``restore_shelved`` is the undo."""
    row = _free(room, key)
    row.deleted_at = timezone.now()
    row.save(update_fields=["deleted_at"])
    return room


@change
def restore_shelved(room: Workroom, key: UUID) -> Workroom:
    Stock.objects.filter(pk=key, workroom=room, fabric=None).update(deleted_at=None)
    return room


@change
def shelve(room: Workroom, key: UUID, count: int, rest: UUID) -> Project:
    """So many of a project's cloths back on the shelf; fewer than there are leave the others, which keep their key, and lie there
    under ``rest``."""
    row = (
        Stock.objects.select_related("fabric__project")
        .filter(pk=key, workroom=room, fabric__isnull=False, deleted_at=None)
        .first()
    )
    if row is None or row.fabric is None:
        raise NotHere("There is no such cloth here. It may have been removed in another window.")
    fabric, project = row.fabric, row.fabric.project
    moved = _parted(row, count, rest)
    moved.cloth, moved.colour, moved.fabric = fabric.name, fabric.colour, None
    moved.save()
    touch(project)
    return get_project(room, project.pk)


@change
def take_off_shelf(room: Workroom, fabric_key: UUID, key: UUID, count: int, rest: UUID) -> Project:
    """So many of the cloths on the shelf reserved for a fabric of a project; fewer than there are come under the key ``rest``."""
    fabric = get_fabric(room, fabric_key)
    row = _free(room, key)
    if row.fabric is not None:
        row.cloth, row.colour = row.fabric.name, row.fabric.colour
    moved = _parted(row, count, rest)
    moved.fabric = fabric
    moved.position = _next_position(room)
    moved.save()
    touch(fabric.project)
    return get_project(room, fabric.project_id)


def _parted(row: Stock, count: int, rest: UUID) -> Stock:
    """The row itself for all of them, else another one with so many, taken off it. Raises ``Refused`` for more than there are."""
    if not 1 <= count <= row.count:
        raise Refused(
            [
                CountOutOfRange(
                    "There {n, plural, one {is one} other {are #}} of this. Take between 1 and {n}.",
                    field="count",
                    n=row.count,
                )
            ]
        )
    if count == row.count:
        return row
    row.count -= count
    row.save()
    row.pk, row.count = rest, count
    row._state.adding = True
    return row


def cloth_to_take(room: Workroom, names: Iterable[str]) -> set[str]:
    """Of cloths named in a project's file, those that come with it: all but what another project here has reserved. What lies on
    the shelf under such a name is the same cloth, and leaves it. Called within a change."""
    keys = {}
    for name in names:
        with suppress(ValueError):
            keys[UUID(name)] = name
    here = Stock.objects.filter(pk__in=keys, workroom=room, deleted_at=None)
    shelved = set(on_shelf(room).filter(pk__in=keys).values_list("pk", flat=True))
    held = set(here.values_list("pk", flat=True)) - shelved
    here.filter(pk__in=shelved).update(deleted_at=timezone.now())
    return set(names) - {keys[k] for k in held}


def rescue_cloth() -> None:
    """Before deleted projects and fabrics are let go of for good: their cloth is still there, and goes to the shelf."""
    gone = Q(fabric__project__deleted_at__isnull=False) | Q(fabric__deleted_at__isnull=False)
    for row in Stock.objects.filter(gone, deleted_at=None).select_related("fabric"):
        assert row.fabric is not None
        row.cloth, row.colour, row.fabric = row.fabric.name, row.fabric.colour, None
        row.save()
