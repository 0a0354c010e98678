"""Changes to minutes, free time and planned evenings. One function, one transaction."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime, time, timedelta
from typing import Any
from uuid import UUID

from django.db.models import Model
from django.utils import timezone

from api.patches import apply_changes
from api.problems import ApiError, NotHere, Refused
from blocks.selectors import get_block
from piecing.days import read_day
from piecing.errors import CountOutOfRange, DayImpossible, PiecingError, TimeNotUnderstood
from piecing.lengths import Measure, Style
from piecing.timing import Weekly, WorkStage
from progress.models import Done
from progress.subject import block_subject, unit_subject
from projects.models import Project
from projects.selectors import get_project, get_unit
from setups.commands import day_reader
from setups.selectors import in_use
from workrooms.models import Workroom
from workrooms.once import change

from .calendars import busy_in, wall_clock
from .evenings import plan_of_room, told_of
from .models import Busy, FreeTime, FreshBlade, KeptSitting, Schedule, WorkTime
from .readers import free_readers, moment_reader, schedule_readers, time_readers
from .selectors import cuts_made
from .work import cut_so_far, done_since, work_of

__all__ = [
    "MOST_FREE",
    "MOST_TIMES",
    "begin_clock",
    "change_schedule",
    "delete_blade",
    "delete_free",
    "delete_time",
    "keep_plan",
    "leave_calendar",
    "put_blade",
    "put_busy_day",
    "put_free",
    "put_time",
    "restore_free",
    "restore_time",
    "stop_clock",
    "take_calendar",
]

_FORGOTTEN = timedelta(hours=4)
"""A clock that ran longer was left running: what was put down last says when one stopped."""
_SLIP = timedelta(seconds=20)
MOST_TIMES, MOST_FREE = 20_000, 50


def _style(room: Workroom) -> Style:
    return Style(Measure(room.measure))


def _read_moment(room: Workroom, text: str, field: str) -> datetime:
    try:
        at = moment_reader().read(text)
    except PiecingError as refusal:
        raise Refused([refusal.at(field)], _style(room)) from None
    return at or timezone.now()


@change
def begin_clock(room: Workroom, key: UUID, project: UUID, stage: str, began: str) -> None:
    """The clock runs for a stage of a project from now on; one that runs is stopped. Begun twice, it runs once."""
    if WorkTime.objects.filter(pk=key).exists():
        return
    at, of = _read_moment(room, began, "began"), get_project(room, project)
    for running in room.times.filter(ended=None, deleted_at=None):
        _stop(running, at)
    _room_left(room)
    WorkTime.objects.create(
        pk=key,
        workroom=room,
        project=of,
        stage=stage,
        began=at,
        set_up=in_use(room),
        cut_before=cut_so_far(of) if stage == WorkStage.CUT.value else 0,
    )


def _room_left(room: Workroom) -> None:
    if room.times.filter(deleted_at=None).count() >= MOST_TIMES:
        refusal = CountOutOfRange("A workroom holds {most} stretches of work at most.", most=f"{MOST_TIMES:,}")
        raise Refused([refusal], _style(room))


@change
def stop_clock(room: Workroom, key: UUID, ended: str) -> None:
    """It stops, and what was put down since it began is counted. Stopped twice, the first time stands."""
    row = room.times.filter(pk=key).select_related("project").first()
    if row is None:
        raise NotHere("This clock is not here. It may have been taken away in another window.")
    if row.ended is None:
        _stop(row, _read_moment(room, ended, "ended"))


def _stop(row: WorkTime, at: datetime) -> None:
    """A clock that was set back, or left running over night, does not say how long it was: then the minutes are left open, or taken
    to what was put down last."""
    row.ended = max(at, row.began)
    ran = at - row.began
    if _SLIP <= ran <= _FORGOTTEN:
        row.minutes = ran.total_seconds() / 60
    elif ran > _FORGOTTEN:
        last = Done.objects.filter(project=row.project, at__gte=row.made_at, undone=False).order_by("-at").first()
        worked = (last.at - row.made_at) if last else timedelta(0)
        row.minutes = worked.total_seconds() / 60 if timedelta(minutes=1) <= worked <= _FORGOTTEN else None
    count, usual = done_since(row.project, WorkStage(row.stage), row.made_at, row.cut_before)
    row.count, row.usual = count or None, usual or None
    if timedelta(0) <= ran < _SLIP and not count:
        # Begun by a slip of the thumb: nobody is asked how long it was.
        row.deleted_at = row.ended
    row.save()


@change
def put_time(
    room: Workroom,
    key: UUID,
    changes: Mapping[str, Any],
    seen: Mapping[str, Any],
    project: UUID | None = None,
    subject: tuple[str, UUID] | None = None,
) -> None:
    """Minutes typed by hand, of a unit, a block, or the project as a whole; or those of the clock put right."""
    style = _style(room)
    row = WorkTime.objects.filter(pk=key).select_related("project").first()
    if row is not None and (row.workroom_id != room.pk or row.deleted_at is not None):
        raise NotHere("These minutes are not here. They may have been taken away in another window.")
    new = row is None
    if row is None:
        if project is None:
            raise NotHere("Say which project these minutes belong to.")
        _room_left(room)
        row = WorkTime(pk=key, workroom=room, project=get_project(room, project), set_up=in_use(room))
        row.began = row.ended = timezone.now()
        _say_of(room, row, subject)
        changes, seen = {"stage": None, "minutes": None, **changes}, {}
    before, stage = row.count, row.stage
    fields = apply_changes(row, time_readers(), changes, seen, style.measure)
    if new and row.minutes is None:
        raise Refused([TimeNotUnderstood("Give minutes, such as 35, or 1:20.", field="minutes")], style)
    if row.ended is None and "minutes" in fields and row.minutes is not None:
        row.ended = row.began + timedelta(minutes=row.minutes)
    if "count" in fields or "stage" in fields:
        row.usual = _usual(row, None if "stage" in fields and not new and row.stage != stage else before)
    row.save(force_insert=new)


def _say_of(room: Workroom, row: WorkTime, subject: tuple[str, UUID] | None) -> None:
    if subject is None:
        return
    kind, key = subject
    found = get_unit(room, key) if kind == "units" else get_block(room, key)
    if found.project_id != row.project.pk:
        raise NotHere("This belongs to another project.")
    setattr(row, kind[:-1], found)


def _usual(row: WorkTime, before: int | None) -> float | None:
    """What so many usually take: as they are planned now, or in proportion to what was counted before."""
    if row.count is None:
        return None
    if row.usual and before and not row.unit_id and not row.block_id:
        return row.usual * row.count / before
    work, stage = work_of(row.project), WorkStage(row.stage)
    things = [t for t in work.things if stage in t.minutes]
    of = unit_subject(row.unit_id) if row.unit_id else block_subject(row.block_id) if row.block_id else ""
    mine = [t for t in things if t.of == of] or things
    wanted = sum(t.wanted for t in mine)
    return row.count * sum(t.minutes[stage] * t.wanted for t in mine) / wanted if wanted else None


def _stamp(rows: Any, key: UUID, *, deleted: bool) -> None:
    row: Model | None = rows.filter(pk=key).first()
    if row is None:
        raise NotHere("This is not here. It may have been taken away in another window.")
    row.deleted_at = timezone.now() if deleted else None  # type: ignore[attr-defined]
    row.save(update_fields=["deleted_at"])


@change
def delete_time(room: Workroom, key: UUID) -> None:
    """Hidden, not erased: ``restore_time`` is the undo. One that ran is stopped by it."""
    row = room.times.filter(pk=key, ended=None).first()
    if row is not None:
        row.ended = timezone.now()
        row.save(update_fields=["ended"])
    _stamp(room.times, key, deleted=True)


@change
def restore_time(room: Workroom, key: UUID) -> None:
    _stamp(room.times, key, deleted=False)


@change
def put_blade(room: Workroom, key: UUID, day: str) -> None:
    """A fresh blade was put in. The same one twice is one."""
    try:
        on = day_reader()(day)
    except DayImpossible as refusal:
        raise Refused([refusal.at("day")], _style(room)) from None
    FreshBlade.objects.update_or_create(
        pk=key,
        workroom=room,
        defaults={"day": on, "deleted_at": None},
        create_defaults={"day": on, "cuts_before": cuts_made(room)},
    )


@change
def delete_blade(room: Workroom, key: UUID) -> None:
    _stamp(room.blades, key, deleted=True)


@change
def put_free(room: Workroom, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]) -> None:
    """A time of the week that is usually free; sending the same one twice leaves one."""
    style = _style(room)
    row = FreeTime.objects.filter(pk=key).first()
    if row is not None and (row.workroom_id != room.pk or row.deleted_at is not None):
        raise NotHere("This time is not here. It may have been taken away in another window.")
    new = row is None
    if row is None:
        if room.free_times.filter(deleted_at=None).count() >= MOST_FREE:
            raise Refused([CountOutOfRange("A week holds {most} free times at most.", most=MOST_FREE)], style)
        row = FreeTime(pk=key, workroom=room)
        changes, seen = {"weekday": "", "begins": "", "ends": "", **changes}, {}
    apply_changes(row, free_readers(), changes, seen, style.measure)
    try:
        Weekly(row.weekday, row.begins, row.ends)
    except PiecingError as refusal:
        raise Refused([refusal], style) from None
    row.save(force_insert=new)


@change
def delete_free(room: Workroom, key: UUID) -> None:
    _stamp(room.free_times, key, deleted=True)


@change
def restore_free(room: Workroom, key: UUID) -> None:
    _stamp(room.free_times, key, deleted=False)


@change
def take_calendar(room: Workroom, name: str, text: str) -> int:
    """When a calendar says one is busy, in place of what the calendar of that name said before; returns how many times. Raises
    ``Refused``."""
    own = {str(pk) for pk in room.sittings.values_list("pk", flat=True)}
    try:
        found = busy_in(text, own, timezone.localdate())
    except PiecingError as refusal:
        raise Refused([refusal.at("text")], _style(room)) from None
    room.busy.filter(source=name).delete()
    Busy.objects.bulk_create(
        Busy(workroom=room, source=name, begins=wall_clock(s.begins), ends=wall_clock(s.ends)) for s in found
    )
    return len(found)


@change
def leave_calendar(room: Workroom, name: str) -> None:
    """What a calendar said counts no longer; it can be taken in again."""
    room.busy.filter(source=name).delete()


@change
def put_busy_day(room: Workroom, day: str, busy: bool) -> None:
    """A single day that is not free, or is again."""
    try:
        on = read_day(day, timezone.localdate(), to_come=True)
    except DayImpossible as refusal:
        raise Refused([refusal.at("day")], _style(room)) from None
    begins, ends = (datetime.combine(d, time()) for d in (on, on + timedelta(days=1)))
    room.busy.filter(source="", begins=wall_clock(begins)).delete()
    if busy:
        Busy.objects.create(workroom=room, begins=wall_clock(begins), ends=wall_clock(ends))


@change
def change_schedule(room: Workroom, project: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]) -> Project:
    """Whether a project is planned into the evenings, and by what days it has to be done."""
    of = get_project(room, project)
    row = Schedule.objects.filter(project=of).first() or Schedule(project=of)
    apply_changes(row, schedule_readers(), changes, seen, Measure(room.measure))
    row.save()
    return of


class NothingToKeep(ApiError):
    status = 422
    code = "nothing_to_keep"
    title = "There is no plan to keep"


@change
def keep_plan(room: Workroom) -> None:
    """The plan as it stands is the one that is kept. An evening that was kept before is the same one, changed; one that is planned no
    longer is cancelled."""
    sheet = plan_of_room(room)
    if not sheet.plan.sittings:
        raise NothingToKeep("No evening is planned: say when you are usually free, and which project is to be planned.")
    now = timezone.now()
    kept = {row.begins: row for row in room.sittings.all()}
    told = told_of(sheet)
    under_way = [r for r in kept.values() if r.begins < wall_clock(sheet.now) < r.ends and not r.cancelled]
    for sitting, tasks in zip(sheet.plan.sittings, told, strict=True):
        if under_way and sitting.begins == sheet.now:
            # One sits at it now: this evening stays as it was kept.
            continue
        begins, ends = wall_clock(sitting.begins), wall_clock(sitting.ends)
        row = kept.pop(begins, None)
        if row is None:
            KeptSitting.objects.create(workroom=room, begins=begins, ends=ends, tasks=tasks, kept_at=now)
            continue
        if (row.ends, row.tasks, row.cancelled) != (ends, tasks, False):
            row.sequence += 1
        row.ends, row.tasks, row.cancelled, row.kept_at = ends, tasks, False, now
        row.save()
    for row in kept.values():
        if row.begins > wall_clock(sheet.now) and not row.cancelled:
            row.cancelled, row.sequence, row.kept_at = True, row.sequence + 1, now
            row.save()
