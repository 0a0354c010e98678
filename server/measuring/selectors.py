"""Reads of readings, and what they say of the quilter's own seam."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from contextlib import suppress
from dataclasses import dataclass
from datetime import date, datetime
from math import hypot, sqrt
from typing import Protocol
from uuid import UUID

from django.db.models import Q, QuerySet
from django.utils import timezone

from api.problems import Refused
from piecing.diagnosis.causes import SCATTER
from piecing.diagnosis.equations import CUT_SCATTER, HAND_NOISE
from piecing.diagnosis.habits import FEWEST, Figure, Habit, Off, figure_of
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading, moved
from piecing.diagnosis.record import SeamHands, aged, record_of, seam_hands
from piecing.errors import PiecingError
from piecing.lengths import Length
from piecing.planning.plan import plan
from piecing.planning.room import QuilterRecord
from piecing.planning.schools import School
from piecing.planning.unit_plan import UnitPlan
from piecing.records import days_between
from projects.models import PlannedUnit, Project
from projects.translate import choices_of, style_of
from setups.models import SetUp
from setups.selectors import days_out, in_use
from workrooms.models import Workroom

from .models import ReadingRow

__all__ = [
    "NEWEST_SEAMS",
    "DatedOff",
    "SeamRow",
    "day_of",
    "habit_figure",
    "offs_of",
    "own_seams",
    "plan_of",
    "plan_or_refuse",
    "pool_of",
    "reading_noise",
    "record_for",
    "seam_readings",
    "seams_of",
]

NEWEST_SEAMS = 200
"""Seam readings behind a record: older ones are of other needles and other days."""


def pool_of(project: Project) -> QuerySet[ReadingRow]:
    """Everything read in a project, in the order typed. One query."""
    return project.readings.filter(deleted_at=None)


@dataclass(frozen=True, slots=True)
class SeamRow:
    """What is kept of a seam reading or strip test that a record needs: the set-up it was taken by, and that one's machine."""

    pk: UUID
    kind: str
    value: Length | None
    whole: Length | None
    spot: str
    day: str
    taken_at: datetime
    guide: Length | None
    set_up: UUID | None
    machine: str | None

    def reading(self, day: str = "", apart: float = 0.0) -> Reading:
        """To the core. Raises what it refuses."""
        return Reading(ReadingKind(self.kind), self.value, spot=self.spot, whole=self.whole, day=day, apart=apart)


_OF_SEAMS = ("pk", "kind", "value", "whole", "spot", "day", "taken_at", "guide", "set_up", "set_up__machine")


def seams_of(room: Workroom, allowance: Length, *, but: Project | None = None) -> list[SeamRow]:
    """The newest seam readings and strip tests taken at this allowance, wherever, the oldest first, without those of days left
    out; ``but`` in a project whose readings are weighed by themselves. Two queries."""
    of_projects = Q(project__workroom=room, project__deleted_at=None, project__seam_allowance=str(allowance.rational))
    of_tests = Q(test_of__workroom=room, test_of__deleted_at=None)
    rows = (
        ReadingRow.objects.filter(deleted_at=None, kind__in=_SEAMS)
        .filter(of_projects | of_tests if allowance == room.seam_allowance else of_projects)
        .order_by("-taken_at", "-order")
    )
    if but is not None:
        rows = rows.exclude(project=but)
    out = days_out(room)
    found = [SeamRow(*values) for values in rows.values_list(*_OF_SEAMS)[:NEWEST_SEAMS]]
    return [r for r in reversed(found) if day_of(r) not in out]


class _Dated(Protocol):
    @property
    def day(self) -> str: ...
    @property
    def taken_at(self) -> datetime: ...


def day_of(row: _Dated) -> date:
    """The day it was read on: as it is written down, else the day it was typed."""
    with suppress(ValueError):
        return date.fromisoformat(row.day)
    return timezone.localtime(row.taken_at).date()


def seam_readings(rows: Sequence[SeamRow], now: SetUp | None) -> list[Reading]:
    """Core readings of rows, each with its day, how far apart that lies from today and the machine as it is set up ``now``, and
    moved by as much as the guide was moved since."""
    today = timezone.localdate()
    found = []
    for row in rows:
        day = day_of(row)
        same = now is None or row.set_up in (None, now.pk)
        machine = same or row.set_up is None or (now is not None and row.machine == now.machine)
        apart = round(aged(days_between(day, today), same_set_up=same, same_machine=machine), 5)
        reading = row.reading(day.isoformat(), apart)
        if machine and now is not None and now.guide is not None and row.guide is not None:
            reading = moved(reading, now.guide - row.guide)
        found.append(reading)
    return found


def record_for(room: Workroom, allowance: Length, *, but: Project | None = None) -> QuilterRecord | None:
    """The quilter's own seam and cutting, as the machine is set up now; of a project whose readings are weighed by themselves, as it
    was set up when the newest of them was taken. Five queries."""
    rows = seams_of(room, allowance, but=but)
    if not rows:
        return None
    readings = seam_readings(rows, _sewn_with(but) or in_use(room))
    cutting = habit_figure(room, Habit.CUTTING)
    known = cutting is not None and cutting.worth >= FEWEST
    # Cloth is cut by it: of what the readings leave open the unsteadier end.
    sd = max(cutting.spread_high, FINEST_CUTTING) if cutting is not None and known else CUT_SCATTER
    return record_of(allowance, readings, room.reading_step, cut_sd=sd)


def own_seams(room: Workroom, *, but: Collection[UUID] = ()) -> SeamHands | None:
    """What is known of her seams at the workroom's allowance, as the machine is set up now; ``but`` by some readings. Four queries."""
    rows = [r for r in seams_of(room, room.seam_allowance) if r.pk not in but]
    return seam_hands(room.seam_allowance, seam_readings(rows, in_use(room)), room.reading_step)


def _sewn_with(project: Project | None) -> SetUp | None:
    if project is None:
        return None
    newest = project.readings.filter(deleted_at=None, set_up__deleted_at=None, set_up__isnull=False)
    row = newest.select_related("set_up").order_by("-order").first()
    return row.set_up if row is not None else None


def habit_figure(room: Workroom, habit: Habit, *, but: Collection[UUID] = ()) -> Figure | None:
    """How pieces were cut, or units trimmed, beside what was wanted; ``but`` by some readings. Two queries."""
    offs = [o for o in offs_of(room, habit) if o.reading not in but]
    return figure_of(
        [Off(o.off, o.age, o.marks) for o in offs], noise=reading_noise(room.reading_step), assumed=_ASSUMED[habit]
    )


_SEAMS = [ReadingKind.STITCH.value, ReadingKind.STRIP_TEST.value]
_ASSUMED = {Habit.CUTTING: CUT_SCATTER, Habit.TRIMMING: SCATTER["width"]}
_OF_HABIT = {
    Habit.CUTTING: [ReadingKind.CUT.value, ReadingKind.STRIP_TEST.value],
    Habit.TRIMMING: [ReadingKind.WIDTH.value, ReadingKind.HEIGHT.value],
}


@dataclass(frozen=True, slots=True)
class DatedOff:
    """How far off what was wanted a reading lay, inches, on which day and how many days ago, by which set-up; ``marks`` as in ``Off``."""

    reading: UUID
    off: float
    day: date
    age: int
    set_up: UUID | None
    marks: float


def offs_of(room: Workroom, habit: Habit) -> list[DatedOff]:
    """Newest readings of cutting or trimming that know what was wanted, oldest first, without days left out. Two queries."""
    out, today = days_out(room), timezone.localdate()
    rows = (
        ReadingRow.objects.filter(deleted_at=None, kind__in=_OF_HABIT[habit], wanted__isnull=False)
        .filter(
            Q(project__workroom=room, project__deleted_at=None) | Q(test_of__workroom=room, test_of__deleted_at=None)
        )
        .order_by("-taken_at", "-order")
        .values_list("pk", "value", "whole", "wanted", "set_up", "day", "taken_at", named=True)[:NEWEST_SEAMS]
    )
    found = []
    for row in reversed(rows):
        day = day_of(row)
        if day in out or row.value is None or row.wanted is None:
            continue
        read = row.whole - row.value * 2 if row.whole is not None else row.value
        off = float(read - row.wanted)
        if abs(off) < _SLIP:
            marks = 1.0 if row.whole is None else 5.0
            found.append(DatedOff(row.pk, off, day, days_between(day, today), row.set_up, marks))
    return found


_SLIP = 0.25
"""Inches: a reading further off is a slip of the pen or another piece, no habit."""
FINEST_CUTTING = 1 / 256
"""Inches: nobody's cuts scatter less, whatever few readings say."""


def reading_noise(step: Length) -> float:
    """Standard deviation that one reading adds, inches: the mark chosen, and laying the ruler."""
    return hypot(float(step) / sqrt(12), HAND_NOISE)


def plan_of(unit: PlannedUnit) -> UnitPlan:
    """The unit's plan. Raises what the core refuses: a plan that stood can be refused later, when the records it rests on are gone."""
    choices = choices_of(unit)
    record = record_for(unit.project.workroom, choices.seam_allowance) if choices.school is School.RECORDS else None
    return plan(choices, record)


def plan_or_refuse(unit: PlannedUnit) -> UnitPlan:
    """The same where nothing can be said without it: core refusals come out in the project's measure."""
    try:
        return plan_of(unit)
    except PiecingError as refusal:
        raise Refused([refusal], style_of(unit.project)) from None
