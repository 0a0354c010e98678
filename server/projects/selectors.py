"""Reads of projects. Deleted ones are hidden everywhere except to ``restore``."""

from __future__ import annotations

from uuid import UUID

from django.db.models import Prefetch, QuerySet

from api.problems import NotHere
from workrooms.models import Workroom

from .models import Fabric, PlannedUnit, Project

__all__ = ["get_fabric", "get_project", "get_unit", "is_under_way"]

_GONE = "There is nothing here. It may have been deleted in another window."


def _whole(found: QuerySet[Project]) -> QuerySet[Project]:
    """With the units still there, each knowing its project, and the fabrics: three queries."""
    return found.prefetch_related(Prefetch("units", PlannedUnit.objects.filter(deleted_at=None)), "fabrics")


def get_project(room: Workroom, key: UUID, *, deleted: bool = False, whole: bool = True) -> Project:
    """Not ``whole``: its units and fabrics are looked up when they are asked for, which a change of them wants."""
    found = room.projects.filter(pk=key)
    found = _whole(found) if whole else found
    project = (found if deleted else found.filter(deleted_at=None)).first()
    if project is None:
        raise NotHere(_GONE)
    return project


def is_under_way(project: Project) -> bool:
    """Whether anything was cut, sewn or measured: then another measure only reads differently, and no size changes."""
    ticked = getattr(getattr(project, "cut_plan", None), "done", None)
    return bool(
        ticked
        or project.piles.filter(cut__gt=0).exists()
        or project.readings.filter(deleted_at=None).exists()
        or project.lots.exists()
    )


def get_unit(room: Workroom, key: UUID, *, deleted: bool = False) -> PlannedUnit:
    found = PlannedUnit.objects.select_related("project").filter(pk=key, project__workroom=room)
    unit = (found if deleted else found.filter(deleted_at=None)).filter(project__deleted_at=None).first()
    if unit is None:
        raise NotHere(_GONE)
    return unit


def get_fabric(room: Workroom, key: UUID, *, deleted: bool = False) -> Fabric:
    found = (
        (Fabric.every if deleted else Fabric.objects).select_related("project").filter(pk=key, project__workroom=room)
    )
    fabric = found.filter(project__deleted_at=None).first()
    if fabric is None:
        raise NotHere(_GONE)
    return fabric
