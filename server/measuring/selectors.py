"""Reads of readings, and what they say of the quilter's own seam."""

from __future__ import annotations

from django.db.models import QuerySet

from api.problems import Refused
from piecing.diagnosis.readings import Reading, ReadingKind
from piecing.diagnosis.record import record_of
from piecing.errors import PiecingError
from piecing.lengths import Length
from piecing.planning.plan import plan
from piecing.planning.room import QuilterRecord
from piecing.planning.schools import School
from piecing.planning.unit_plan import UnitPlan
from projects.models import PlannedUnit, Project
from projects.translate import choices_of, style_of
from workrooms.models import Workroom

from .models import ReadingRow
from .translate import reading_of

__all__ = ["NEWEST_SEAMS", "plan_of", "pool_of", "record_for"]

NEWEST_SEAMS = 200
"""Seam readings behind a record: older ones are of other needles and other days."""


def pool_of(project: Project) -> QuerySet[ReadingRow]:
    """Everything read in a project, in the order typed. One query."""
    return project.readings.filter(deleted_at=None)


def record_for(room: Workroom, allowance: Length, *, but: Project | None = None) -> QuilterRecord | None:
    """The quilter's own seam, from every seam reading and strip test taken at this allowance, wherever; ``but`` in a project
    whose readings are weighed by themselves. One query."""
    rows = ReadingRow.objects.filter(
        project__workroom=room,
        project__deleted_at=None,
        project__seam_allowance=str(allowance.rational),
        deleted_at=None,
        kind__in=[ReadingKind.STITCH.value, ReadingKind.STRIP_TEST.value],
    ).order_by("-taken_at", "-order")
    if but is not None:
        rows = rows.exclude(project=but)
    readings: list[Reading] = [reading_of(r) for r in reversed(rows[:NEWEST_SEAMS])]
    return record_of(allowance, readings) if readings else None


def plan_of(unit: PlannedUnit) -> UnitPlan:
    """The unit's plan; core refusals come out in the project's measure."""
    choices = choices_of(unit)
    record = record_for(unit.project.workroom, choices.seam_allowance) if choices.school is School.RECORDS else None
    try:
        return plan(choices, record)
    except PiecingError as refusal:
        raise Refused([refusal], style_of(unit.project)) from None
