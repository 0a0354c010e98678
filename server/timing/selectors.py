"""Reads of minutes: her pace at each stage, the clock, what was put down, and quiet notes."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from typing import Any
from uuid import UUID

from django.db.models import Count, Min, Sum
from django.utils import timezone

from cutting.models import CutPile
from piecing.messages import Message
from piecing.timing import (
    Pace,
    Timed,
    WorkStage,
    blade_said,
    needle_said,
    pace_of,
)
from progress.models import Lot
from progress.subject import BenchSubject
from projects.models import PlannedUnit, Project
from setups.models import SetUp
from setups.selectors import days_out, in_use
from workrooms.models import Workroom

from .models import FreshBlade, WorkTime
from .work import work_of

__all__ = [
    "StagePace",
    "TimeSheet",
    "cuts_made",
    "minutes_by_stage",
    "paces_of",
    "reminders_of",
    "running_of",
    "times_of",
]

NEWEST = 40
"""Stretches that are listed; all of them are in the sheet to download."""
_CUTS_TO_TRIM = 4
_SEWN = [WorkStage.SEW.value, WorkStage.JOIN.value, WorkStage.QUILT.value]


def _live(room: Workroom) -> Any:
    return room.times.filter(deleted_at=None)


def paces_of(room: Workroom) -> dict[WorkStage, Pace]:
    """Her own pace at each stage, bad days left out. Two queries."""
    out, today = days_out(room), timezone.localdate()
    rows = (
        _live(room).filter(minutes__isnull=False, usual__isnull=False).values_list("stage", "began", "minutes", "usual")
    )
    found: dict[WorkStage, list[Timed]] = {s: [] for s in WorkStage}
    for stage, began, minutes, usual in rows:
        day = timezone.localtime(began).date()
        if day not in out:
            found[WorkStage(stage)].append(Timed(minutes, usual, (today - day).days))
    return {stage: pace_of(told) for stage, told in found.items()}


@dataclass(frozen=True)
class StagePace:
    """A stage: her pace, and all minutes that were put down for it."""

    stage: WorkStage
    pace: Pace
    minutes: float
    stretches: int


@dataclass(frozen=True)
class TimeSheet:
    running: WorkTime | None
    stages: list[StagePace]
    rows: list[WorkTime]
    count: int
    reminders: list[Message]
    blade: FreshBlade | None
    today: date
    projects: list[Project]


def running_of(room: Workroom) -> WorkTime | None:
    """The clock that runs. One query."""
    found: WorkTime | None = _live(room).filter(ended=None).select_related("project", "unit", "block").first()
    return found


def times_of(room: Workroom) -> TimeSheet:
    """A dozen queries."""
    paces = paces_of(room)
    sums = {
        s: (m or 0.0, n)
        for s, m, n in _live(room).order_by().values_list("stage").annotate(Sum("minutes"), Count("pk"))
    }
    rows = list(_live(room).filter(ended__isnull=False).select_related("project", "unit", "block")[:NEWEST])
    running = running_of(room)
    stages = [StagePace(s, paces[s], *sums.get(s.value, (0.0, 0))) for s in WorkStage]
    blade = room.blades.filter(deleted_at=None).first()
    count = sum(n for _, n in sums.values()) - bool(running)
    projects = list(room.projects.filter(deleted_at=None, archived_at=None))
    notes = reminders_of(room, paces, blade)
    return TimeSheet(running, stages, rows, count, notes, blade, timezone.localdate(), projects)


def cuts_made(room: Workroom) -> int:
    """Pieces cut, and four cuts for each unit trimmed, in all projects. Two queries."""
    pieces = CutPile.objects.filter(project__workroom=room).aggregate(n=Sum("cut"))["n"] or 0
    trimmed = PlannedUnit.objects.filter(project__workroom=room).aggregate(n=Sum("trimmed"))["n"] or 0
    return int(pieces) + _CUTS_TO_TRIM * int(trimmed)


def reminders_of(room: Workroom, paces: Mapping[WorkStage, Pace], blade: FreshBlade | None) -> list[Message]:
    """Quiet notes: a needle or a blade that has done what it was given. Nothing of a blade of which nobody said when it was put in."""
    current, found = in_use(room), []
    if current is not None and room.needle_hours:
        found.append(needle_said(_needle_minutes(room, current, paces), room.needle_hours))
    if blade is not None:
        found.append(blade_said(cuts_made(room) - blade.cuts_before, room.blade_cuts))
    return [said for said in found if said is not None]


def _needle_minutes(room: Workroom, current: SetUp, paces: Mapping[WorkStage, Pace]) -> float:
    """Minutes that this needle has sewn: those that were timed, and at her pace what was put down as sewn beyond them. A set-up that
    was changed in something else keeps its needle."""
    chain = [current]
    while (before := chain[-1].came_from) and (before.machine, before.needle) == (current.machine, current.needle):
        chain.append(before)
    timed = _live(room).filter(set_up__in=chain, stage__in=_SEWN).aggregate(m=Sum("minutes"), u=Sum("usual"))
    since = chain[-1].began
    lots = (
        Lot.objects.filter(project__workroom=room, sewn=True, unit__isnull=False)
        .annotate(first=Min("done__at"))
        .filter(first__date__gte=since)
        .values_list("unit", "units")
    )
    made: dict[UUID | None, int] = {}
    for unit, units in lots:
        made[unit] = made.get(unit, 0) + units
    usual = 0.0
    for project in Project.objects.filter(units__in=list(made)).distinct():
        work = work_of(project)
        usual += sum(
            t.minutes[WorkStage.SEW] * made.get(BenchSubject.kept(t.of).key, 0)
            for t in work.things
            if WorkStage.SEW in t.minutes
        )
    beyond = max(0.0, usual - (timed["u"] or 0.0)) * paces[WorkStage.SEW].factor
    return float(timed["m"] or 0.0) + beyond


def minutes_by_stage(project: Project) -> dict[WorkStage, float]:
    """Minutes put down for a project, in the order of the work. One query."""
    rows = project.times.filter(deleted_at=None, minutes__isnull=False).order_by().values_list("stage")
    found = dict(rows.annotate(Sum("minutes")))
    return {s: found[s.value] for s in WorkStage if found.get(s.value)}
