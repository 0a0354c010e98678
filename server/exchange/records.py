"""The records of a workroom as JSON, out and in: format ``entretoile-records/1``. What comes in is added; what is here already, by
its id, stays as it is.

The schema is docs/formats/entretoile-records-1.schema.json; what comes in is checked against it, and then field by field by the
same readers as typed input. Photos travel in the one file that holds the whole workroom.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, field
from functools import lru_cache, partial
from pathlib import Path
from typing import Any
from uuid import UUID

from django.conf import settings
from django.db import transaction
from jsonschema import Draft202012Validator

from api.patches import apply_changes
from api.problems import ApiError, Refused
from journal.commands import entry_readers
from journal.models import LogEntry
from measuring.models import ReadingRow
from piecing.errors import PiecingError
from piecing.lengths import Length, Measure, Style
from piecing.units.method import Cuts
from projects.models import Project
from records.commands import put_test, test_readers
from setups.commands import leave_day_out, put_set_up, set_up_readers, use_set_up
from setups.models import SetUp
from timing.commands import put_free, put_time
from timing.models import FreeTime, FreshBlade, WorkTime
from workrooms.models import Workroom
from workrooms.once import change

__all__ = ["FORMAT", "RecordsRefused", "TakenIn", "records_exported", "records_schema", "take_records"]

FORMAT = "entretoile-records/1"
_SCHEMA = Path(settings.HOME) / "docs" / "formats" / "entretoile-records-1.schema.json"
_SET_UP = tuple(set_up_readers(Measure.INCHES))
_TEST = tuple(test_readers(Measure.INCHES))
_ENTRY = tuple(entry_readers(Measure.INCHES))


class RecordsRefused(ApiError):
    """``values`` hold the path of what is wrong."""

    status = 422
    code = "records_refused"
    title = "These records cannot be taken in"


@lru_cache(maxsize=1)
def records_schema() -> dict[str, Any]:
    loaded: dict[str, Any] = json.loads(_SCHEMA.read_text("utf-8"))
    return loaded


def _plain(value: Any) -> Any:
    """Lengths as exact inches with their mark, so that they mean the same in either measure; days and times as text."""
    if isinstance(value, Length):
        return f'{value.rational}"'
    if isinstance(value, Cuts):
        return {name: _plain(size) for name, size in value.items()}
    return value.isoformat()[:10] if hasattr(value, "isoformat") else value


def _rows_data(rows: Iterable[Any], fields: Iterable[str], **more: Callable[[Any], Any]) -> list[dict[str, Any]]:
    return [
        {"id": str(r.pk), **{f: _plain(getattr(r, f)) for f in fields}, **{f: tell(r) for f, tell in more.items()}}
        for r in rows
    ]


def records_exported(room: Workroom) -> dict[str, Any]:
    """All of them, the oldest first. What was taken out stays behind."""
    set_ups = room.set_ups.filter(deleted_at=None).order_by("began", "made_at")
    tests = ReadingRow.objects.filter(test_of__workroom=room, test_of__deleted_at=None, deleted_at=None)
    times = room.times.filter(deleted_at=None, minutes__isnull=False, project__deleted_at=None).select_related(
        "project"
    )
    log = room.log.filter(deleted_at=None).select_related("project").order_by("day", "made_at")
    return {
        "format": FORMAT,
        "set_ups": _rows_data(set_ups, _SET_UP, in_use=lambda r: r.in_use, came_from=lambda r: _key(r.came_from_id)),
        "tests": _rows_data(tests.order_by("day", "order"), _TEST, set_up=lambda r: _key(r.test_of_id)),
        "days_out": [d.isoformat() for d in room.days_out.values_list("day", flat=True)],
        "minutes": _rows_data(
            times.order_by("began"),
            ("stage", "day", "count", "usual", "note"),
            minutes=lambda r: round(r.minutes, 2),
            project=lambda r: r.project.name,
        ),
        "blades": _rows_data(room.blades.filter(deleted_at=None).order_by("day"), ("day", "cuts_before")),
        "free": _rows_data(
            room.free_times.filter(deleted_at=None),
            ("weekday",),
            begins=lambda r: r.begins.strftime("%H:%M"),
            ends=lambda r: r.ends.strftime("%H:%M"),
        ),
        "log": _rows_data(
            log,
            _ENTRY,
            of=lambda r: r.of,
            said=lambda r: r.said,
            project=lambda r: r.project.name if r.project else None,
        ),
    }


def _key(key: UUID | None) -> str | None:
    return None if key is None else str(key)


@dataclass
class TakenIn:
    """How many of each were added, how many were here already, and which could not be taken, each with its reason."""

    added: dict[str, int] = field(default_factory=dict)
    known: int = 0
    refused: list[str] = field(default_factory=list)


@change
def take_records(room: Workroom, data: Any) -> TakenIn:
    """Adds what is not here. Raises ``RecordsRefused`` for what is no such file; of single rows it is told."""
    wrong = next(
        iter(sorted(Draft202012Validator(records_schema()).iter_errors(data), key=lambda e: list(map(str, e.path)))),
        None,
    )
    if wrong is not None:
        path = " / ".join(str(p) for p in wrong.absolute_path) or "the file"
        raise RecordsRefused(
            f"At {path}: {wrong.message[:200]}. Give a file of the format {FORMAT}, as it was saved here.",
            {"path": path},
        )
    taken = TakenIn()
    style = Style(Measure(room.measure))
    projects = {p.name: p for p in room.projects.filter(deleted_at=None)}
    in_use = room.set_ups.filter(deleted_at=None, in_use=True).first()
    for name, rows in _steps(room, data, projects, style):
        for n, row in enumerate(rows, 1):
            try:
                with transaction.atomic():
                    new = row()
            except Refused as found:
                taken.refused.append(f"{name} {n}: {' '.join(e.said.text(style) for e in found.errors)}")
            except PiecingError as found:
                taken.refused.append(f"{name} {n}: {found.said.text(style)}")
            except ApiError as found:
                taken.refused.append(f"{name} {n}: {found.detail}")
            else:
                taken.known += not new
                taken.added[name] = taken.added.get(name, 0) + new
    now = in_use or _set_up_in_use(room, data)
    if now is not None:
        use_set_up(room, now.pk)
    return taken


def _set_up_in_use(room: Workroom, data: dict[str, Any]) -> SetUp | None:
    """The set-up that was in use where the file comes from."""
    keys = [s["id"] for s in data.get("set_ups", []) if s.get("in_use")]
    return room.set_ups.filter(pk__in=keys, deleted_at=None).first()


_Step = Callable[[], bool]
"""Takes one row in; whether it was new."""


def _fields(held: dict[str, Any], names: Iterable[str]) -> dict[str, Any]:
    """Those that say anything."""
    return {f: held[f] for f in names if held.get(f) not in (None, "")}


@dataclass(frozen=True)
class _Taker:
    """Takes one record of each kind in, under its own key."""

    room: Workroom
    projects: dict[str, Project]
    style: Style

    def set_up(self, held: dict[str, Any], key: UUID) -> None:
        before = held.get("came_from")
        known = before is not None and self.room.set_ups.filter(pk=before, deleted_at=None).exists()
        told = {f: held[f] for f in _SET_UP if f in held and (held[f] is not None or f == "guide")}
        put_set_up(self.room, key, told, {}, UUID(before) if known else None)

    def test(self, held: dict[str, Any], key: UUID) -> None:
        put_test(self.room, UUID(held["set_up"]), key, {f: held[f] for f in _TEST if f in held}, {})

    def minutes(self, held: dict[str, Any], key: UUID) -> None:
        project = self.projects.get(held["project"])
        told = {**_fields(held, ("stage", "day", "count", "note")), "minutes": str(held["minutes"])}
        put_time(self.room, key, told, {}, project.pk if project else None)
        if held.get("usual"):
            WorkTime.objects.filter(pk=key).update(usual=held["usual"])

    def blade(self, held: dict[str, Any], key: UUID) -> None:
        FreshBlade.objects.create(pk=key, workroom=self.room, day=held["day"], cuts_before=held.get("cuts_before", 0))

    def free(self, held: dict[str, Any], key: UUID) -> None:
        put_free(self.room, key, _fields(held, ("begins", "ends")) | {"weekday": held["weekday"]}, {})

    def entry(self, held: dict[str, Any], key: UUID) -> None:
        row = LogEntry(pk=key, workroom=self.room, project=self.projects.get(held.get("project") or ""))
        apply_changes(row, entry_readers(self.style.measure), _fields(held, _ENTRY), {}, self.style.measure)
        row.of, row.said = held.get("of", ""), held.get("said", [])
        row.save(force_insert=True)

    def day_out(self, day: str) -> bool:
        """Whether it was not left out before."""
        new = not self.room.days_out.filter(day=day).exists()
        leave_day_out(self.room, day)
        return new


def _once(model: Any, held: dict[str, Any], take: Callable[[dict[str, Any], UUID], object]) -> bool:
    """Whether it was taken in: one that is there already stays as it is."""
    key = UUID(held["id"])
    if model.objects.filter(pk=key).exists():
        return False
    take(held, key)
    return True


def _steps(
    room: Workroom, data: dict[str, Any], projects: dict[str, Project], style: Style
) -> Iterator[tuple[str, list[_Step]]]:
    """What to take in, kind by kind: what others refer to comes first."""
    taker = _Taker(room, projects, style)
    kinds: tuple[tuple[str, Any, Callable[[dict[str, Any], UUID], object]], ...] = (
        ("set_ups", SetUp, taker.set_up),
        ("tests", ReadingRow, taker.test),
        ("minutes", WorkTime, taker.minutes),
        ("blades", FreshBlade, taker.blade),
        ("free", FreeTime, taker.free),
        ("log", LogEntry, taker.entry),
    )
    for name, model, take in kinds:
        yield name, [partial(_once, model, held, take) for held in data.get(name, [])]
        if name == "tests":
            yield "days_out", [partial(taker.day_out, day) for day in data.get("days_out", [])]
