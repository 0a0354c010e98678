"""The list of projects: a line for each, page by page, and every picture once."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from django.core.paginator import Paginator
from django.db.models import Prefetch

from piecing.drawings.unit import design_picture
from piecing.geometry.drawing import Drawing
from piecing.handling.progress import to_make_of
from piecing.messages import Listing, Message
from piecing.units import UnitSpec, kind_of
from workrooms.models import Workroom

from .models import Fabric, PlannedUnit, Project
from .translate import spec_of

__all__ = ["PER_PAGE", "ProjectLine", "ProjectPage", "page_of"]

PER_PAGE = 30
_PICTURES = 4


@dataclass(frozen=True)
class ProjectLine:
    """A project in the list: what is planned in it in words, which of the page's pictures show it, and how many of its sewn units
    are trimmed."""

    project: Project
    said: Message
    pictures: tuple[int, ...]
    fabrics: tuple[Fabric, ...]
    trimmed: int
    to_trim: int


@dataclass(frozen=True)
class ProjectPage:
    """``others`` is how many there are on the other side: archived ones when these are not, and the other way round."""

    lines: tuple[ProjectLine, ...]
    pictures: tuple[Drawing, ...]
    page: int
    pages: int
    count: int
    others: int


def page_of(room: Workroom, page: int = 1, *, archived: bool = False) -> ProjectPage:
    """One page, newest change first, in a fixed number of queries; the last page for a number beyond it."""
    live = room.projects.filter(deleted_at=None)
    found = live.filter(archived_at__isnull=not archived).prefetch_related(
        Prefetch("units", PlannedUnit.objects.filter(deleted_at=None)), "fabrics"
    )
    shown = Paginator(found, PER_PAGE).get_page(page)
    pictures: dict[UnitSpec, int] = {}
    lines = tuple(_line(p, pictures) for p in shown)
    count = shown.paginator.count
    return ProjectPage(
        lines, tuple(map(_picture, pictures)), shown.number, shown.paginator.num_pages, count, live.count() - count
    )


def _line(project: Project, pictures: dict[UnitSpec, int]) -> ProjectLine:
    units = list(project.units.all())
    keys = tuple(pictures.setdefault(spec_of(unit), len(pictures)) for unit in units[:_PICTURES])
    fabrics = tuple(project.fabrics.all())
    told = Listing([_count_said(u) for u in units]) if units else "No unit planned yet"
    names = Listing([f.name for f in fabrics]) if fabrics else "no fabric yet"
    sewn = [u for u in units if len(kind_of(u.kind).parts) > 1]
    to_make = [to_make_of(u.count + u.mirrored, u.ready, u.spoiled) for u in sewn]
    trimmed = sum(min(u.trimmed, n) for u, n in zip(sewn, to_make, strict=True))
    said = Message("{told}; in {names}.", told=told, names=names)
    return ProjectLine(project, said, keys, fabrics, trimmed, sum(to_make))


@lru_cache(maxsize=512)
def _picture(spec: UnitSpec) -> Drawing:
    return design_picture(kind_of(spec.kind).design(spec), Message(""))


def _count_said(unit: PlannedUnit) -> Message:
    kind, n = kind_of(unit.kind), unit.count + unit.mirrored
    return Message("{n, plural, one {one {one}} other {# {many}}}", n=n, one=kind.title.lower(), many=kind.many)
