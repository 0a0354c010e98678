"""Reads of evenings: what is left of projects, how long it takes her, the free time it is laid into, what is late or behind."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Any
from uuid import UUID

from django.db.models import Count, Max, Min
from django.utils import timezone

from piecing.messages import Message
from piecing.timing import (
    Chore,
    Late,
    Minutes,
    Pace,
    PaceForecast,
    Plan,
    Stretch,
    Weekly,
    WorkStage,
    behind_said,
    free_stretches,
    in_order,
    plan_sittings,
    task_said,
    time_for,
)
from projects.models import Project
from projects.translate import style_of
from workrooms.models import Workroom

from .calendars import AHEAD, moment, wall_clock
from .models import FreeTime, KeptSitting, Schedule
from .selectors import minutes_by_stage, paces_of
from .work import ProjectWork, chores_of, work_of

__all__ = [
    "EveningSheet",
    "ProjectTime",
    "RoomPlan",
    "SittingSaid",
    "evenings_of",
    "plan_of_room",
    "project_time",
    "sitting_texts",
    "told_of",
]

_ROUND = timedelta(minutes=5)


@dataclass(frozen=True)
class ProjectTime:
    """What is left of a project, how long it takes her, and what is due when. ``spent`` are minutes put down for it by stage."""

    project: Project
    schedule: Schedule
    left: dict[WorkStage, float]
    forecast: PaceForecast
    sure: str
    lates: list[Late]
    spent: dict[str, float]


def _schedule(project: Project) -> Schedule:
    return Schedule.objects.filter(project=project).first() or Schedule(project=project)


def _project_time(
    project: Project, work: ProjectWork, paces: Mapping[WorkStage, Pace], lates: list[Late]
) -> ProjectTime:
    usual = {s: m for s, m in work.to_do().items() if m}
    left = {s: m * paces[s].factor for s, m in usual.items()}
    spent = {s.value: m for s, m in minutes_by_stage(project).items()}
    # As sure as the stage that most of the time goes to.
    most = max(left, key=lambda s: left[s], default=None)
    sure = paces[most].sure if most is not None else "open"
    return ProjectTime(project, _schedule(project), left, time_for(usual, paces), sure, lates, spent)


def project_time(room: Workroom, project: Project) -> ProjectTime:
    """How long the rest of one project takes, and whether it is in time if it is planned."""
    schedule = _schedule(project)
    if schedule.planned:
        for told in evenings_of(room).projects:
            if told.project.pk == project.pk:
                return told
    return _project_time(project, work_of(project), paces_of(room), [])


@dataclass(frozen=True)
class RoomPlan:
    """The plan of all projects that are planned, laid into the free time; ``slow`` if everything goes slowly. ``works`` by project."""

    now: datetime
    plan: Plan
    slow: Plan
    chores: list[Chore]
    paces: dict[WorkStage, Pace]
    works: dict[UUID, tuple[Project, ProjectWork]]


def plan_of_room(room: Workroom, since: datetime | None = None) -> RoomPlan:
    """Worked out from what is done by now, and what is free from now on, or from ``since``."""
    now = since or _soon(timezone.localtime().replace(tzinfo=None))
    paces = paces_of(room)
    planned = room.projects.filter(deleted_at=None, archived_at=None, schedule__planned=True).select_related("schedule")
    works = {p.pk: (p, work_of(p)) for p in planned}
    chores = in_order(c for p, work in works.values() for c in chores_of(p, work, p.schedule))
    weekly = [Weekly(f.weekday, f.begins, f.ends) for f in room.free_times.filter(deleted_at=None)]
    taken = [Stretch(moment(b.begins), moment(b.ends)) for b in room.busy.filter(ends__gt=wall_clock(now))]
    free = free_stretches(weekly, taken, now, (now + AHEAD).date()) if weekly else []
    return RoomPlan(
        now, plan_sittings(chores, free, paces), plan_sittings(chores, free, paces, slow=1.0), chores, paces, works
    )


def _soon(at: datetime) -> datetime:
    """The next five minutes by the clock."""
    return datetime.min + -(-(at - datetime.min) // _ROUND) * _ROUND


def lates_of(sheet: RoomPlan, project: Project) -> list[Late]:
    """Each day on which something of a project is due, and when it would be done."""
    found = []
    mine = [c for c in sheet.chores if c.project == str(project.pk) and c.due]
    for due in sorted({c.due for c in mine if c.due}):
        these = [c for c in mine if c.due == due]
        done, slow = _last(sheet.plan, these), _last(sheet.slow, these)
        found.append(Late(due, done, slow))
    return found


def _last(plan: Plan, chores: list[Chore]) -> date | None:
    """When the last of them is done; None when one finds no time."""
    days = [plan.done.get(c) for c in chores]
    return None if None in days else max((d for d in days if d), default=None)


def told_of(sheet: RoomPlan) -> list[list[dict[str, Any]]]:
    """The tasks of each sitting as they are kept, with how many are through the stage when it is over."""
    through: dict[tuple[str, str, WorkStage], int] = {}
    found = []
    for sitting in sheet.plan.sittings:
        tasks = []
        for task in sitting.tasks:
            chore = task.chore
            project, work = sheet.works[UUID(chore.project)]
            thing = work.thing(chore.of)
            key = (chore.project, chore.of, chore.stage)
            before = through.get(key, min(thing.through.get(chore.stage, 0), thing.wanted) if thing else 0)
            through[key] = before + task.count
            tasks.append(
                {
                    "project": str(project.pk),
                    "of": chore.of,
                    "stage": chore.stage.value,
                    "said": chore.said.text(style_of(project)),
                    "count": task.count,
                    "minutes": round(task.minutes, 1),
                    "until": through[key],
                }
            )
        found.append(tasks)
    return found


@dataclass(frozen=True)
class SittingSaid:
    """An evening, and each of its tasks in words with the project it belongs to."""

    begins: datetime
    ends: datetime
    tasks: list[dict[str, Any]]


@dataclass(frozen=True)
class CalendarSource:
    """A calendar that was taken in, or a day that was typed."""

    name: str
    count: int
    begins: str
    until: str


@dataclass(frozen=True)
class EveningSheet:
    """``others`` are projects that could be planned; ``kept`` evenings that are still to come by the plan that was kept, ``behind`` what it would
    have done by now."""

    now: datetime
    free: list[FreeTime]
    sources: list[CalendarSource]
    days: list[str]
    projects: list[ProjectTime]
    others: list[Project]
    sittings: list[SittingSaid]
    left: bool
    kept: int
    same: bool
    behind: list[Message]


def evenings_of(room: Workroom) -> EveningSheet:
    """Some dozen queries, and a plan of every unit that is planned."""
    sheet = plan_of_room(room)
    told = told_of(sheet)
    kept = list(room.sittings.filter(cancelled=False))
    ahead = [k for k in kept if k.begins >= wall_clock(sheet.now)]
    others = room.projects.filter(deleted_at=None, archived_at=None).exclude(pk__in=list(sheet.works))
    return EveningSheet(
        sheet.now,
        list(room.free_times.filter(deleted_at=None)),
        _sources(room),
        list(room.busy.filter(source="", ends__gt=wall_clock(sheet.now)).values_list("begins", flat=True)),
        [_project_time(p, work, sheet.paces, lates_of(sheet, p)) for p, work in sheet.works.values()],
        list(others),
        [SittingSaid(s.begins, s.ends, t) for s, t in zip(sheet.plan.sittings, told, strict=True)],
        bool(sheet.plan.left),
        len(ahead),
        _same(room, sheet, told, kept),
        _behind(sheet, kept),
    )


Evening = tuple[str, list[tuple[str, str, int]]]
"""When it begins, and what is done in it."""


def _same(room: Workroom, sheet: RoomPlan, told: list[list[dict[str, Any]]], kept: list[KeptSitting]) -> bool:
    """Whether keeping the plan would change nothing. An evening at which one sits stays as it was kept; that time goes by makes no other
    plan of it, and none of those after it."""
    now, planned = wall_clock(sheet.now), _evenings(sheet, told)
    ahead = [(k.begins, _tasks(k.tasks)) for k in kept if k.begins >= now]
    under_way = next((k for k in kept if k.begins < now <= k.ends), None)
    if under_way is None:
        return ahead == planned
    if ahead == [e for e in planned if e[0] != now]:
        return True
    here = timezone.get_current_timezone()
    keeping = [_soon(k.kept_at.astimezone(here).replace(tzinfo=None)) for k in kept if k.begins >= now]
    since = max([moment(under_way.begins), *keeping])
    then = plan_of_room(room, since)
    return ahead == [e for e in _evenings(then, told_of(then)) if e[0] >= now]


def _evenings(sheet: RoomPlan, told: list[list[dict[str, Any]]]) -> list[Evening]:
    return [(wall_clock(s.begins), _tasks(t)) for s, t in zip(sheet.plan.sittings, told, strict=True)]


def _tasks(tasks: list[dict[str, Any]]) -> list[tuple[str, str, int]]:
    """What tells one plan of an evening from another: a minute more or less does not."""
    return [(t["of"], t["stage"], t["count"]) for t in tasks]


def _sources(room: Workroom) -> list[CalendarSource]:
    rows = (
        room.busy.exclude(source="")
        .order_by("source")
        .values_list("source")
        .annotate(Count("pk"), Min("begins"), Max("ends"))
    )
    return [CalendarSource(*row) for row in rows]


def _behind(sheet: RoomPlan, kept: list[KeptSitting]) -> list[Message]:
    """Of the plan kept last, what should be through by now and is not."""
    newest = max((k.kept_at for k in kept), default=None)
    until: dict[tuple[str, str, str], tuple[int, str]] = {}
    for row in kept:
        if row.kept_at != newest or row.ends > wall_clock(sheet.now):
            continue
        for t in row.tasks:
            key = (t["project"], t["of"], t["stage"])
            until[key] = max(until.get(key, (0, "")), (t["until"], t["said"]))
    found = []
    for (project, of, stage), (wanted, said) in until.items():
        held = sheet.works.get(UUID(project))
        thing = held[1].thing(of) if held else None
        if thing is None:
            continue
        through = thing.through.get(WorkStage(stage), 0)
        if through < min(wanted, thing.wanted):
            found.append(behind_said(WorkStage(stage), said, min(wanted, thing.wanted), through))
    return found


def sitting_texts(rows: list[KeptSitting]) -> dict[UUID, tuple[str, str]]:
    """Summary and description of each kept sitting for a calendar."""
    names = dict(Project.objects.filter(pk__in={t["project"] for r in rows for t in r.tasks}).values_list("pk", "name"))
    found = {}
    for row in rows:
        lines = [
            f"{task_said(WorkStage(t['stage']), t['said'], t['count'])} ({Minutes(t['minutes'])}), {names.get(UUID(t['project']), '')}"
            for t in row.tasks
        ]
        first = names.get(UUID(row.tasks[0]["project"]), "") if row.tasks else ""
        stages = list(dict.fromkeys(t["stage"] for t in row.tasks))
        found[row.pk] = (f"{first}: {', '.join(stages)}" if first else "Quilting", "\n".join(lines))
    return found
