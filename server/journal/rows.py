"""What is told of the work, from everything that says something of it: entries, units made again, diagnoses, machines, projects.

Entries may be thousands: they are looked through as lines, and only those that are shown are read whole.
"""

from __future__ import annotations

import unicodedata
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from datetime import date
from uuid import UUID

from django.db.models import Q
from django.utils import timezone

from diagnosis.models import TURNED_OUT, SavedDiagnosis
from piecing.days import day_words
from piecing.handling.spoiled import WHY_WORDS, Why
from piecing.lengths import Area, Style
from piecing.messages import Message
from piecing.timing import Minutes
from piecing.units import kind_of
from progress.models import Done
from projects.models import Project
from projects.translate import style_of
from setups.selectors import name_of, set_ups
from workrooms.models import Workroom

from .models import LogEntry, Photo

__all__ = ["SOURCES", "EntryLine", "LogRow", "entry_lines", "entry_rows", "folded", "other_rows"]

SOURCES = ("trial", "note", "learned", "remade", "diagnosis", "set_up", "finished")


@dataclass(frozen=True)
class LogRow:
    """One thing that was put down: ``title`` and ``lines`` as it was said, ``text`` in her own words. ``why`` something was made again."""

    kind: str
    key: UUID
    day: date
    project: Project | None
    title: str
    lines: list[str] = field(default_factory=list)
    text: str = ""
    why: str = ""
    photos: list[Photo] = field(default_factory=list)
    unit: UUID | None = None
    cuts: dict[str, str] = field(default_factory=dict)

    def words(self) -> str:
        """All of it, to be searched."""
        name = self.project.name if self.project else ""
        captions = (p.caption for p in self.photos)
        return folded(
            " ".join([self.title, *self.lines, self.text, name, self.day.isoformat(), day_words(self.day), *captions])
        )


@dataclass(frozen=True, slots=True)
class EntryLine:
    """An entry by its day and key, with all its words."""

    day: date
    key: UUID
    words: str


def folded(text: str) -> str:
    """Without capitals and accents."""
    plain = unicodedata.normalize("NFKD", text.casefold())
    return "".join(c for c in plain if not unicodedata.combining(c)).replace("⁄", "/").replace("″", "")


_OWN = ("trial", "note", "learned")
_TITLES = {"note": "Note", "learned": "Learned"}


def entry_lines(room: Workroom, project: UUID | None, kind: str, *, words: bool) -> list[EntryLine]:
    """Entries of a project or of all, of a kind or of all; their ``words`` only where they are looked through. Two queries."""
    if kind not in ("", *_OWN):
        return []
    rows = room.log.filter(Q(project=None) | Q(project__deleted_at=None), deleted_at=None).order_by()
    rows = rows.filter(**({"project": project} if project else {}), **({"kind": kind} if kind else {}))
    if not words:
        return [EntryLine(day, key, "") for day, key in rows.values_list("day", "pk")]
    captions: dict[UUID, str] = {}
    for entry, caption in (
        Photo.objects.filter(entry__workroom=room, deleted_at=None).exclude(caption="").values_list("entry", "caption")
    ):
        captions[entry] = f"{captions.get(entry, '')} {caption}"
    return [
        EntryLine(
            day,
            key,
            folded(
                f"{day} {day_words(day)} {_TITLES.get(what, '')} {of} {' '.join(said)} {text} {name or ''} {captions.get(key, '')}"
            ),
        )
        for day, key, what, of, said, text, name in rows.values_list(
            "day", "pk", "kind", "of", "said", "text", "project__name"
        )
    ]


def entry_rows(room: Workroom, keys: Sequence[UUID]) -> dict[UUID, LogRow]:
    """Entries whole, with their photos, by key. Two queries."""
    photos: dict[UUID, list[Photo]] = {}
    for p in Photo.objects.filter(entry__in=keys, deleted_at=None).defer("image"):
        photos.setdefault(p.entry_id, []).append(p)
    return {e.pk: _entry(e, photos.get(e.pk, [])) for e in room.log.filter(pk__in=keys).select_related("project")}


def other_rows(room: Workroom, project: UUID | None, kind: str) -> Iterator[LogRow]:
    """What comes into the log by itself. Four queries."""
    live, mine = Q(project__deleted_at=None), Q(project=project) if project else Q()
    if kind in ("", "remade"):
        made = Done.objects.filter(live, mine, project__workroom=room, stage="spoiled", undone=False, count__gt=0)
        yield from map(_remade, made.select_related("project", "unit"))
    if kind in ("", "diagnosis"):
        yield from _diagnoses(room, project)
    if kind in ("", "set_up") and not project:
        for s in set_ups(room):
            yield LogRow("set_up", s.pk, s.began, None, f"{name_of(s)}: in use from then on", text=s.note)
    if kind in ("", "finished"):
        for p in room.projects.filter(deleted_at=None, archived_at__isnull=False):
            if project in (None, p.pk) and p.archived_at is not None:
                yield LogRow("finished", p.pk, timezone.localtime(p.archived_at).date(), p, f"{p.name}: put away")


def _entry(e: LogEntry, photos: list[Photo]) -> LogRow:
    style = style_of(e.project) if e.project else Style()
    cuts = {name: style.text(size) for name, size in e.cuts.items()}
    title = e.of if e.kind == "trial" else _TITLES[e.kind]
    return LogRow(e.kind, e.pk, e.day, e.project, title, list(e.said), e.text, "", photos, e.unit_id, cuts)


def _remade(row: Done) -> LogRow:
    unit = row.unit
    assert unit is not None
    style = style_of(row.project)
    said = Message(
        "Made again: {n, plural, one {one {one}} other {# {many}}} finishing {size}",
        n=row.count,
        one=kind_of(unit.kind).title.lower(),
        many=kind_of(unit.kind).many,
        size=unit.finished,
    )
    lines = []
    if row.lost:
        cloth = [f"{Area.near(v).set_in(style)} of {name}" for name, v in row.lost.get("cloth", {}).items()]
        lines.append(f"It takes {', '.join(cloth)}, and usually {Minutes(row.lost['minutes'])}.")
    why = WHY_WORDS[Why(row.why)] if row.why else ""
    title = f"{said.text(style)}: {why}" if why else said.text(style)
    day = timezone.localtime(row.at).date()
    return LogRow("remade", row.pk, day, row.project, title, lines, row.note, row.why)


def _diagnoses(room: Workroom, project: UUID | None) -> Iterator[LogRow]:
    outcomes = dict(TURNED_OUT)
    rows = SavedDiagnosis.objects.filter(deleted_at=None).select_related("block__project", "unit__project")
    rows = rows.filter(Q(block__project__workroom=room) | Q(unit__project__workroom=room))
    for row in rows:
        subject = row.block or row.unit
        of = subject.project if subject else None
        if of is None or of.deleted_at is not None or (project and of.pk != project):
            continue
        headline = str(row.said.get("headline", ""))
        lines = [f"How it turned out: {outcomes.get(row.turned_out, '')}."]
        yield LogRow(
            "diagnosis",
            row.pk,
            timezone.localtime(row.saved_at).date(),
            of,
            headline[:1].upper() + headline[1:],
            lines,
            row.later,
        )
