"""Reads of the log: everything that was put down of the work, the newest first and searched; trial pieces; photos."""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID

from api.problems import NotHere
from measuring.selectors import plan_or_refuse
from piecing.lengths import Length
from piecing.messages import Message
from projects.models import PlannedUnit, Project
from workrooms.models import Workroom

from .models import Photo
from .rows import EntryLine, LogRow, entry_lines, entry_rows, folded, other_rows

__all__ = ["LogPage", "TrialAsked", "get_photo", "log_of", "trial_asked"]

PER_PAGE = 30


@dataclass(frozen=True)
class LogPage:
    rows: list[LogRow]
    count: int
    page: int
    pages: int
    projects: list[Project]


def log_of(room: Workroom, asked: str = "", project: UUID | None = None, kind: str = "", page: int = 1) -> LogPage:
    """Rows in which every word asked for occurs. A dozen queries."""
    words = folded(asked).split()

    def holds(text: str) -> bool:
        return all(w in text for w in words)

    lines = entry_lines(room, project, kind, words=bool(words))
    others = (r for r in other_rows(room, project, kind) if not words or holds(r.words()))
    found: list[EntryLine | LogRow] = [*(e for e in lines if holds(e.words)), *others]
    found.sort(key=lambda r: (r.day, str(r.key)), reverse=True)
    pages = max(1, -(-len(found) // PER_PAGE))
    page = min(max(1, page), pages)
    shown = found[(page - 1) * PER_PAGE : page * PER_PAGE]
    whole = entry_rows(room, [r.key for r in shown if isinstance(r, EntryLine)])
    rows = [whole[r.key] if isinstance(r, EntryLine) else r for r in shown]
    return LogPage(rows, len(found), page, pages, list(room.projects.filter(deleted_at=None)))


@dataclass(frozen=True)
class TrialSize:
    name: str
    title: str
    planned: Length


@dataclass(frozen=True)
class TrialAsked:
    """Sizes to cut as they are planned, and what a piece of them should measure before it is trimmed."""

    title: Message
    sizes: list[TrialSize]
    width: Length
    height: Length
    square: bool


def trial_asked(unit: PlannedUnit) -> TrialAsked:
    """Raises ``Refused`` where the unit cannot be planned."""
    planned = plan_or_refuse(unit)
    sizes = [
        TrialSize(name, planned.method.size_name(name), size)
        for name, size in planned.cuts.items()
        if name not in planned.method.templated
    ]
    title = Message("{kind} finishing {size}", kind=planned.kind.title, size=planned.spec.size)
    return TrialAsked(title, sizes, planned.raw_width, planned.raw_height, planned.spec.is_square)


def get_photo(room: Workroom, key: UUID) -> Photo:
    """Raises ``NotHere``."""
    row = Photo.objects.filter(pk=key, entry__workroom=room).first()
    if row is None:
        raise NotHere("This photo is not here.")
    return row
