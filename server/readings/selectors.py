"""Reads of readings, and what they say against the plan."""

from __future__ import annotations

from dataclasses import dataclass, replace
from uuid import UUID

from django.db.models import QuerySet

from common.problems import NotHere, Refused
from piecing.diagnosis import Comparison, Reading, ReadingKind, compare, record_from
from piecing.diagnosis.readings import target_of
from piecing.errors import PiecingError
from piecing.ladder import Ladder, ladders
from piecing.lengths import Length, inches
from piecing.oversize import QuilterRecord, School
from piecing.planning import SeamCost, UnitPlan, plan, seam_cost
from projects.models import PlannedUnit
from projects.translate import choices_of, style_of
from workrooms.models import Workroom

from .models import ReadingRow
from .translate import reading_of

__all__ = [
    "Check",
    "CheckedReading",
    "check_of",
    "find_reading",
    "get_reading",
    "plan_of",
    "readings_of",
    "record_for",
    "rows_of",
]

_GONE = "This reading is not here. It may have been deleted in another window."
_RUNG = {ReadingKind.UNIT_WIDTH: "trimmed", ReadingKind.UNIT_HEIGHT: "trimmed", ReadingKind.RAW_SIZE: "raw"}
_DIMENSIONS = {
    ReadingKind.UNIT_WIDTH: ("size", "width"),
    ReadingKind.UNIT_HEIGHT: ("size", "height"),
    ReadingKind.RAW_SIZE: ("size", "width", "half"),
}


def rows_of(unit: PlannedUnit) -> QuerySet[ReadingRow]:
    """One query, in the order typed."""
    return unit.readings.filter(deleted_at=None)


def readings_of(unit: PlannedUnit) -> list[Reading]:
    return [reading_of(r) for r in rows_of(unit)]


def find_reading(unit: PlannedUnit, key: UUID) -> ReadingRow | None:
    """The unit's reading of that key, deleted or not; None when there is none. Raises ``NotHere`` for another unit's."""
    row = ReadingRow.objects.filter(pk=key).first()
    if row is not None and row.unit_id != unit.pk:
        raise NotHere(_GONE)
    return row


def get_reading(unit: PlannedUnit, key: UUID) -> ReadingRow:
    row = find_reading(unit, key)
    if row is None:
        raise NotHere(_GONE)
    return row


def record_for(room: Workroom, allowance: Length) -> QuilterRecord | None:
    """The quilter's own seam, from every seam reading and strip test taken at this allowance. One query."""
    rows = ReadingRow.objects.filter(
        unit__project__workroom=room,
        unit__project__deleted_at=None,
        unit__project__seam_allowance=str(allowance.rational),
        deleted_at=None,
        kind__in=[ReadingKind.STITCH_DISTANCE.value, ReadingKind.STRIP_TEST.value],
    )
    readings = [reading_of(r) for r in rows]
    if not readings:
        return None
    return record_from(allowance, readings)


def plan_of(unit: PlannedUnit) -> UnitPlan:
    """The unit's plan; core refusals come out in the project's measure."""
    choices = choices_of(unit)
    record = record_for(unit.project.workroom, choices.seam_allowance) if choices.school is School.RECORDS else None
    try:
        return plan(choices, record)
    except PiecingError as refusal:
        raise Refused([refusal], style_of(unit.project)) from None


@dataclass(frozen=True, slots=True)
class CheckedReading:
    """A reading row, its comparison, and where it stands on which ladder (None when it is no unit's size)."""

    row: ReadingRow
    comparison: Comparison
    dimension: str | None
    rung: str | None
    at: float | None


@dataclass(frozen=True, slots=True)
class Target:
    """What a reading of this kind should be."""

    kind: str
    target: Length
    row_units: int | None


@dataclass(frozen=True, slots=True)
class Check:
    plan: UnitPlan
    ladders: tuple[Ladder, ...]
    readings: tuple[CheckedReading, ...]
    targets: tuple[Target, ...]
    seam_cost: SeamCost


def check_of(unit: PlannedUnit) -> Check:
    """Every reading beside its target, and the targets still to be read against."""
    planned = plan_of(unit)
    rows = list(rows_of(unit))
    taken: dict[str, list[Length]] = {}
    for row in rows:
        for dimension in _DIMENSIONS.get(ReadingKind(row.kind), ()):
            taken.setdefault(dimension, []).append(row.value)
    scales = ladders(planned, style_of(unit.project).measure, taken)

    def checked(row: ReadingRow) -> CheckedReading:
        kind = ReadingKind(row.kind)
        scale = next((s for s in scales if s.dimension in _DIMENSIONS.get(kind, ())), None)
        comparison = compare(reading_of(row), planned)
        if scale is None:
            return CheckedReading(row, comparison, None, None, None)
        return CheckedReading(row, comparison, scale.dimension, _RUNG[kind], scale.place(row.value).at)

    return Check(
        planned,
        scales,
        tuple(checked(r) for r in rows),
        _targets(planned, max(2, unit.units_across)),
        seam_cost(unit.units_across, style_of(unit.project).hair),
    )


def _targets(planned: UnitPlan, across: int) -> tuple[Target, ...]:
    sample = Reading(ReadingKind.STRIP_TEST, inches(1), whole=inches("7/2"))
    blanks = [
        replace(sample, kind=kind, row_units=across if kind is ReadingKind.ROW_LENGTH else None) for kind in ReadingKind
    ]
    return tuple(Target(b.kind.value, target_of(b, planned), b.row_units) for b in blanks)
