"""Small half-square triangles that fall off flipped corners: kept in the stock, and used where a unit of their size is wanted."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from uuid import UUID

from django.db.models import Max
from django.utils import timezone

from api.problems import NotHere, Refused
from measuring.selectors import plan_or_refuse
from piecing.cutting import ClothKind
from piecing.errors import CountOutOfRange, PiecingError
from piecing.lengths import inches
from piecing.messages import Message
from piecing.units import kind_of
from projects.commands import touch
from projects.models import Fabric, PlannedUnit, Project
from projects.selectors import get_project, get_unit
from projects.translate import finished_of, style_of
from workrooms.models import Workroom
from workrooms.once import change

from .models import Stock
from .translate import live_stock

__all__ = ["SpareStock", "UnitsThere", "keep_spares", "spares_of_unit", "use_spares"]


@dataclass(frozen=True, slots=True)
class UnitsThere:
    """Units in stock that trim to the one that is planned; ``use`` is how many of them are wanted here."""

    stock: UUID
    said: Message
    use: int


@dataclass(frozen=True)
class SpareStock:
    """``leaves`` says what falls off the unit and is not kept yet, or nothing; ``there`` is what would do for it."""

    leaves: Message | None
    there: tuple[UnitsThere, ...]


def spares_of_unit(room: Workroom, key: UUID) -> SpareStock:
    """What falls off a planned unit, and what lies in its project's stock that would do in its place."""
    unit = get_unit(room, key)
    return SpareStock(_leaves(unit), tuple(_there(unit)))


def _leaves(unit: PlannedUnit) -> Message | None:
    try:
        made = plan_or_refuse(unit)
    except (PiecingError, Refused):
        return None
    count = sum(s.count for s in made.spares) - unit.spares_kept
    if count <= 0:
        return None
    return Message(
        "{n, plural, one {One small half-square triangle falls} other {# small half-square triangles fall}} off these corners.",
        n=count,
    )


def _there(unit: PlannedUnit) -> Iterator[UnitsThere]:
    short = unit.count + unit.mirrored - unit.ready
    if unit.kind != "half_square_triangle" or short <= 0:
        return
    names = {f.role: f.name for f in unit.project.fabrics.all()}
    wanted = {names.get(role, role) for role in unit.part_fabrics}
    target = finished_of(unit) + unit.project.seam_allowance * 2
    for row in live_stock(unit.project).filter(kind=ClothKind.HALF_SQUARE).select_related("fabric"):
        assert row.fabric is not None
        if {row.fabric.name, row.other} == wanted and row.across >= target and row.count:
            said = Message(
                "{n, plural, one {One half-square unit} other {# half-square units}} of {one} and {other} in stock, {raw} raw, "
                "{n, plural, one {trims} other {trim}} to {target}.",
                n=row.count,
                one=row.fabric.name,
                other=row.other,
                raw=row.across.round_down(inches("1/16")),
                target=target,
            )
            yield UnitsThere(row.pk, said, min(row.count, short))


@change
def keep_spares(room: Workroom, key: UUID) -> Project:
    """The small units that fall off go to the stock of the first of their two fabrics."""
    unit = get_unit(room, key)
    project = unit.project
    if _leaves(unit) is None:
        raise Refused([CountOutOfRange("Nothing falls off this unit that is not kept already.")])
    fabrics = {f.role: f for f in Fabric.objects.filter(project=project)}
    position = live_stock(project).aggregate(last=Max("position"))["last"] or 0
    name = f"from {kind_of(unit.kind).many} finishing {style_of(project).text(finished_of(unit))}"
    before, kept = unit.spares_kept, 0
    for spare in plan_or_refuse(unit).spares:
        kept += spare.count
        fresh = min(spare.count, kept - before)
        one, other = (fabrics.get(role) for role in spare.fabrics)
        if one is None or other is None or fresh <= 0:
            continue
        position += 1
        Stock.objects.create(
            workroom=room,
            fabric=one,
            other=other.name,
            kind=ClothKind.HALF_SQUARE.value,
            across=spare.raw.round_down(inches("1/32")),
            along=spare.raw.round_down(inches("1/32")),
            count=fresh,
            name=name,
            position=position,
        )
    PlannedUnit.objects.filter(pk=unit.pk).update(spares_kept=kept)
    touch(project)
    return get_project(room, project.pk)


@change
def use_spares(room: Workroom, key: UUID, stock: UUID) -> Project:
    """Units from the stock are made already: so many fewer are cut and sewn, and they leave the stock."""
    unit = get_unit(room, key)
    found = next((t for t in _there(unit) if t.stock == stock), None)
    if found is None:
        raise NotHere("There are no such units in the stock by now. They may have been used or put on the shelf.")
    row = Stock.objects.get(pk=stock)
    row.count -= found.use
    row.deleted_at = None if row.count else timezone.now()
    row.save(update_fields=["count", "deleted_at"])
    PlannedUnit.objects.filter(pk=unit.pk).update(ready=unit.ready + found.use)
    touch(unit.project)
    return get_project(room, unit.project_id)
