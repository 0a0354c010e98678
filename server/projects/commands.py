"""Changes to projects. One function, one transaction."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any
from uuid import UUID

from django.db import models, transaction
from django.utils import timezone

from common.patches import apply_changes
from common.problems import Refused
from piecing.errors import NoMarginGiven, PlanError, RecordsTooFew, SeamError
from piecing.lengths import Measure, Style, inches
from piecing.planning import plan
from workrooms.models import Workroom

from .models import Fabric, PlannedUnit, Project
from .readers import fabric_readers, project_readers, unit_readers
from .selectors import get_fabric, get_project, get_unit
from .translate import choices_of, style_of

__all__ = [
    "archive_project",
    "change_fabric",
    "change_project",
    "change_unit",
    "create_project",
    "delete_project",
    "duplicate_project",
    "restore_project",
]

_FIRST_FABRICS = (("a", "Dark", "#1f3a5f", "dark"), ("b", "Light", "#d9e0e4", "light"))


def _free_name(room: Workroom, wanted: str) -> str:
    taken = set(room.projects.filter(deleted_at=None).values_list("name", flat=True))
    if wanted not in taken:
        return wanted
    return next(f"{wanted} {n}" for n in range(2, len(taken) + 3) if f"{wanted} {n}" not in taken)


@transaction.atomic
def create_project(room: Workroom, key: UUID, name: str | None) -> Project:
    """A project with one unit, started from the workroom's settings. Asking twice with one key gives one project."""
    existing = room.projects.filter(pk=key).first()
    if existing is not None:
        return get_project(room, key, deleted=True)
    project = Project.objects.create(
        pk=key,
        workroom=room,
        name=_free_name(room, (name or "New project").strip()[:100] or "New project"),
        measure=room.measure,
        seam_allowance=room.seam_allowance,
        ruler_step=room.ruler_step,
        reading_step=room.reading_step,
    )
    PlannedUnit.objects.create(project=project, finished=inches("7/2"), block_finished=inches("21/2"), count=4)
    Fabric.objects.bulk_create(
        Fabric(project=project, role=r, name=n, colour=c, value=v) for r, n, c, v in _FIRST_FABRICS
    )
    return get_project(room, key)


@transaction.atomic
def duplicate_project(room: Workroom, source: UUID, key: UUID) -> Project:
    """The plan over again under a new name; readings stay with the work they were taken from."""
    if room.projects.filter(pk=key).exists():
        return get_project(room, key, deleted=True)
    project = get_project(room, source)
    units, fabrics = list(project.units.all()), list(project.fabrics.all())
    project.pk, project._state.adding = key, True
    project.name, project.archived_at = _free_name(room, f"{project.name[:100]}, again"), None
    project.save()
    for unit in units:
        unit._state.adding, unit.project = True, project
        unit.id = PlannedUnit._meta.get_field("id").get_default()
        unit.save()
    for fabric in fabrics:
        fabric._state.adding, fabric.project = True, project
        fabric.id = Fabric._meta.get_field("id").get_default()
        fabric.save()
    return get_project(room, key)


def _stamp(room: Workroom, key: UUID, field: str, on: bool, *, deleted: bool = False) -> Project:
    project = get_project(room, key, deleted=deleted)
    setattr(project, field, timezone.now() if on else None)
    project.save(update_fields=[field])
    return project


@transaction.atomic
def archive_project(room: Workroom, key: UUID, archived: bool) -> Project:
    return _stamp(room, key, "archived_at", archived)


@transaction.atomic
def delete_project(room: Workroom, key: UUID) -> Project:
    """Hidden, not erased: ``restore_project`` is the undo."""
    return _stamp(room, key, "deleted_at", True, deleted=True)


@transaction.atomic
def restore_project(room: Workroom, key: UUID) -> Project:
    return _stamp(room, key, "deleted_at", False, deleted=True)


def _touch(project: Project) -> None:
    Project.objects.filter(pk=project.pk).update(updated_at=timezone.now())


def _save(row: models.Model, fields: list[str]) -> None:
    if fields:
        row.save(update_fields=fields)


def _refusal(unit: PlannedUnit) -> PlanError | SeamError | None:
    """Why this unit cannot be planned. A school that still waits for its margin or its records is kept as chosen."""
    try:
        plan(choices_of(unit))
    except (NoMarginGiven, RecordsTooFew):
        return None
    except (PlanError, SeamError) as refusal:
        return refusal
    return None


def _check(units: Iterable[PlannedUnit], project: Project, style: Style) -> None:
    """A change is kept only if every unit can still be planned."""
    refusals = []
    for unit in units:
        unit.project = project
        refusal = _refusal(unit)
        if refusal:
            refusals.append(refusal)
    if refusals:
        raise Refused(refusals, style)


@transaction.atomic
def change_project(room: Workroom, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]) -> Project:
    project = get_project(room, key)
    measure = Measure(changes["measure"]) if changes.get("measure") in ("in", "mm") else Measure(project.measure)
    fields = apply_changes(project, project_readers(measure), changes, seen, measure)
    if set(fields) & {"seam_allowance", "stitch", "fold", "ruler_step"}:
        _check(project.units.all(), project, Style(measure))
    _save(project, [*fields, "updated_at"] if fields else [])
    return get_project(room, key)


@transaction.atomic
def change_unit(room: Workroom, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]) -> Project:
    unit = get_unit(room, key)
    style = style_of(unit.project)
    fields = apply_changes(unit, unit_readers(style.measure), changes, seen, style.measure)
    if set(fields) - {"count"}:
        _check([unit], unit.project, style)
    _save(unit, fields)
    _touch(unit.project)
    return get_project(room, unit.project_id)


@transaction.atomic
def change_fabric(room: Workroom, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]) -> Project:
    fabric = get_fabric(room, key)
    _save(fabric, apply_changes(fabric, fabric_readers(), changes, seen, Measure(fabric.project.measure)))
    _touch(fabric.project)
    return get_project(room, fabric.project_id)
