"""Rows to core values."""

from __future__ import annotations

from piecing.lengths import Length, Measure, Style
from piecing.planning.plan import finished_unit
from piecing.planning.schools import School
from piecing.planning.unit_plan import Choices, still_to_make
from piecing.prints import Direction
from piecing.units import UnitSpec, kind_of

from .models import PlannedUnit, Project

__all__ = ["choices_of", "directions_of", "finished_of", "spec_of", "style_of"]


def style_of(project: Project) -> Style:
    return Style(Measure(project.measure))


def finished_of(unit: PlannedUnit) -> Length:
    """The unit's finished size, from the unit itself or from the block it stands in."""
    return finished_unit(unit.block_finished, unit.units_across) if unit.size_basis == "block" else unit.finished


def spec_of(unit: PlannedUnit) -> UnitSpec:
    width = finished_of(unit)
    height = kind_of(unit.kind).default_height(width) if unit.height is None else unit.height
    corners = (unit.corner_0, unit.corner_1, unit.corner_2, unit.corner_3)
    return UnitSpec(unit.kind, width, height, tuple(unit.part_fabrics), corners, unit.strip)


def choices_of(unit: PlannedUnit) -> Choices:
    """What is planned of a unit: those still to make, or all of them when every one is there, for the sizes' sake."""
    project = unit.project
    count, mirrored = still_to_make(unit.count, unit.mirrored, unit.ready, unit.spoiled)
    if not count + mirrored:
        count, mirrored = unit.count, unit.mirrored
    return Choices(
        spec=spec_of(unit),
        method=unit.method,
        school=School(unit.school),
        count=count,
        mirrored=mirrored,
        seam_allowance=project.seam_allowance,
        stitch=project.stitch,
        fold=project.fold,
        ruler_step=project.ruler_step,
        own_margin=unit.own_margin,
        cuts=unit.cuts,
    )


def directions_of(project: Project) -> dict[str, Direction]:
    """How the print of each fabric runs, by its role."""
    return {f.role: Direction(f.direction) for f in project.fabrics.all()}
