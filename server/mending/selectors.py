"""The diagnosis of a unit's readings."""

from __future__ import annotations

from piecing.diagnosis import Diagnosis, diagnose
from piecing.planning import UnitPlan
from projects.models import PlannedUnit
from readings.selectors import plan_of, readings_of

__all__ = ["diagnosis_of"]


def diagnosis_of(unit: PlannedUnit) -> tuple[UnitPlan, Diagnosis]:
    planned = plan_of(unit)
    return planned, diagnose(planned, readings_of(unit), resolution=unit.project.reading_step)
