"""What a project's blocks and quilt take."""

from __future__ import annotations

from dataclasses import dataclass, replace

from measuring.selectors import plan_of, record_for
from piecing.blocks.counting import Counted, ordered_plans, unit_counts
from piecing.errors import PiecingError
from piecing.lengths import Area
from piecing.planning.schools import School
from projects.models import Project
from projects.translate import spec_of
from workrooms.models import Workroom

from .models import Quilt
from .quilt import quilt_of
from .selectors import blocks_of
from .translate import find_in, makings_of, orders_of, scrap_units_of, spares_of

__all__ = ["Counts", "counts_of"]


def _as_planned(counted_unit: Counted, project: Project) -> Counted:
    """With the way, the oversize and the cuts that it has in the plan."""
    for row in project.units.all():
        if row.of_blocks and spec_of(row) == counted_unit.unit.spec:
            row.project = project
            making = replace(counted_unit, method=row.method, school=School(row.school))
            try:
                return replace(making, plan=plan_of(row), refusal=None)
            except PiecingError as refusal:
                return replace(making, plan=None, refusal=refusal)
    return counted_unit


@dataclass(frozen=True)
class Counts:
    quilt: Quilt
    units: tuple[Counted, ...]
    blocks: int
    total: int
    refusal: PiecingError | None
    cloth: Area


def counts_of(room: Workroom, project: Project) -> Counts:
    """Every unit of every block of a project, planned."""
    quilt, find = quilt_of(project), find_in(room)
    try:
        blocks = blocks_of(project)
        ordered = orders_of(blocks, find)
        scraps = scrap_units_of(quilt, project, blocks, find)
        units = unit_counts(ordered, [f.role for f in project.fabrics.all()], scraps)
        planned = ordered_plans(
            units,
            makings_of(quilt),
            spares_of(quilt),
            seam_allowance=project.seam_allowance,
            stitch=project.stitch,
            fold=project.fold,
            ruler_step=project.ruler_step,
            record=record_for(room, project.seam_allowance),
        )
    except PiecingError as refusal:
        return Counts(quilt, (), 0, 0, refusal, Area.sum(()))
    planned = tuple(_as_planned(c, project) for c in planned)
    number = sum(w.count for o in ordered for w in o.colourways)
    cloth = Area.sum(c.plan.cloth for c in planned if c.plan)
    return Counts(quilt, planned, number, sum(u.total for u in units), None, cloth)
