"""Reads of the log: everything that was put down of the work, the newest first, and one project as a whole."""

from __future__ import annotations

import unicodedata
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from datetime import date
from uuid import UUID

from django.db.models import Q
from django.utils import timezone

from api.problems import NotHere, Refused
from blocks.quilt import quilt_view
from blocks.selectors import blocks_of
from blocks.translate import colourways_of, find_in, pattern_of
from cutting.translate import now_of
from diagnosis.models import TURNED_OUT, SavedDiagnosis
from measuring.models import ReadingRow
from measuring.selectors import plan_of
from piecing.blocks.pattern import laid
from piecing.drawings.block import block_picture
from piecing.errors import PiecingError
from piecing.geometry.drawing import Drawing
from piecing.handling.spoiled import WHY_WORDS, Why
from piecing.lengths import Area, Length, Style
from piecing.messages import Message
from piecing.timing import STAGE_WORDS, Minutes
from piecing.units import kind_of
from progress.models import Done
from projects.models import PlannedUnit, Project
from projects.translate import style_of
from setups.selectors import name_of, set_ups
from timing.selectors import minutes_by_stage
from workrooms.models import Workroom

from .models import LogEntry, Photo

__all__ = ["LogPage", "LogRow", "Story", "TrialAsked", "get_photo", "log_of", "story_of", "trial_asked"]

PER_PAGE = 30
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
        return _folded(" ".join([self.title, *self.lines, self.text, name, self.day.isoformat(), *captions]))


@dataclass(frozen=True)
class LogPage:
    rows: list[LogRow]
    count: int
    page: int
    pages: int
    projects: list[Project]


def _folded(text: str) -> str:
    """Without capitals and accents."""
    plain = unicodedata.normalize("NFKD", text.casefold())
    return "".join(c for c in plain if not unicodedata.combining(c)).replace("⁄", "/").replace("″", "")


def log_of(room: Workroom, asked: str = "", project: UUID | None = None, kind: str = "", page: int = 1) -> LogPage:
    """Rows in which every word asked for occurs. A dozen queries."""
    rows = _rows(room, project, kind)
    words = _folded(asked).split()
    found = sorted(
        (r for r in rows if not words or all(w in r.words() for w in words)),
        key=lambda r: (r.day, str(r.key)),
        reverse=True,
    )
    pages = max(1, -(-len(found) // PER_PAGE))
    page = min(max(1, page), pages)
    projects = list(room.projects.filter(deleted_at=None))
    return LogPage(found[(page - 1) * PER_PAGE : page * PER_PAGE], len(found), page, pages, projects)


def _rows(room: Workroom, project: UUID | None, kind: str) -> Iterator[LogRow]:
    live = Q(project__deleted_at=None)
    mine = Q(project=project) if project else Q()
    yield from _entries(
        room.log.filter(Q(project=None) | live, mine, **({"kind": kind} if kind in SOURCES[:3] else {})), kind
    )
    if kind in ("", "remade"):
        yield from map(_remade, Done.objects.filter(live, mine, project__workroom=room, stage="spoiled", undone=False, count__gt=0)
                       .select_related("project", "unit"))  # fmt: skip
    if kind in ("", "diagnosis"):
        yield from _diagnoses(room, project)
    if kind in ("", "set_up") and not project:
        for s in set_ups(room):
            yield LogRow("set_up", s.pk, s.began, None, f"{name_of(s)}: in use from then on", text=s.note)
    if kind in ("", "finished"):
        for p in room.projects.filter(deleted_at=None, archived_at__isnull=False):
            if project in (None, p.pk) and p.archived_at is not None:
                yield LogRow("finished", p.pk, timezone.localtime(p.archived_at).date(), p, f"{p.name}: put away")


def _entries(entries: Iterable[LogEntry] | None, kind: str) -> Iterator[LogRow]:
    if entries is None or kind not in ("", *SOURCES[:3]):
        return
    rows = entries.filter(deleted_at=None).select_related("project")  # type: ignore[attr-defined]
    photos: dict[UUID, list[Photo]] = {}
    for p in Photo.objects.filter(entry__in=rows, deleted_at=None).defer("image"):
        photos.setdefault(p.entry_id, []).append(p)
    for e in rows:
        yield _entry(e, photos.get(e.pk, []))


def _entry(e: LogEntry, photos: list[Photo]) -> LogRow:
    style = style_of(e.project) if e.project else Style()
    cuts = {name: style.text(size) for name, size in e.cuts.items()}
    title = {"trial": e.of, "note": "Note", "learned": "Learned"}[e.kind]
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
    planned = plan_of(unit)
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


@dataclass(frozen=True)
class StoryBlock:
    said: Message
    picture: Drawing


@dataclass(frozen=True)
class Story:
    """A project as a whole, to print or keep. ``facts`` are lines under a heading each."""

    project: Project
    begun: date
    ended: date | None
    blocks: list[StoryBlock]
    quilt: Drawing | None
    facts: list[tuple[str, list[str]]]
    rows: list[LogRow]


def story_of(room: Workroom, project: Project) -> Story:
    """Facts, pictures, and what was put down on the way, the oldest first. Some dozen queries."""
    style = style_of(project)
    sheet = quilt_view(project, find_in(room))
    facts: list[tuple[str, list[str]]] = []

    def fact(heading: str, lines: Sequence[str]) -> None:
        if lines:
            facts.append((heading, list(lines)))

    if sheet.sizes is not None:
        size = Message("{w} by {h}", w=sheet.sizes.width, h=sheet.sizes.height).text(style)
        fact("Quilt", [f"{size}, {sheet.counted} blocks"])
    fact("Fabrics", [_cloth_said(name, area, style) for name, area in _cloth(project)])
    fact("Units", [_unit_said(u, style) for u in project.units.filter(deleted_at=None)])
    fact("Minutes", [f"{STAGE_WORDS[s]}: {Minutes(m)}" for s, m in minutes_by_stage(project).items()])
    fact("Measured", _measured(project))
    rows = sorted(_rows(room, project.pk, ""), key=lambda r: (r.day, str(r.key)))
    ended = timezone.localtime(project.archived_at).date() if project.archived_at else None
    return Story(
        project,
        timezone.localtime(project.created_at).date(),
        ended,
        list(_blocks(project)),
        sheet.picture,
        facts,
        [r for r in rows if r.kind != "finished"],
    )


def _blocks(project: Project) -> Iterator[StoryBlock]:
    find = find_in(project.workroom)
    for block in blocks_of(project):
        try:
            pattern = pattern_of(block, find)
            picture = block_picture(laid(pattern), block.finished)
        except PiecingError:
            continue
        n = sum(w.count for w in colourways_of(block))
        yield StoryBlock(Message("{n} {name}, finishing {size}", n=n, name=pattern.name, size=block.finished), picture)


def _cloth(project: Project) -> list[tuple[str, float]]:
    """Square inches cut of each fabric, spoiled pieces among them."""
    names = {f.role: f.name for f in project.fabrics.all()}
    found = dict.fromkeys(names.values(), 0.0)
    for p in now_of(project):
        name = names.get(p.entry.fabric)
        if name is not None:
            found[name] += p.entry.cut * float(p.entry.width) * float(p.entry.height)
    return list(found.items())


def _cloth_said(name: str, area: float, style: Style) -> str:
    return f"{name}: {Area.near(area).set_in(style)} cut" if area else name


def _unit_said(unit: PlannedUnit, style: Style) -> str:
    kind = kind_of(unit.kind)
    said = Message(
        "{n} {many} finishing {size}", n=unit.count + unit.mirrored, many=kind.many, size=unit.finished
    ).text(style)
    if len(kind.parts) == 1:
        return said
    try:
        planned = plan_of(unit)
    except Refused:
        return said
    sizes = ", ".join(f"{planned.method.size_name(n)} {style.pretty(s)}" for n, s in planned.cuts.items())
    return (
        f"{said}: {planned.method.title}, {sizes}; {unit.spoiled} made again"
        if unit.spoiled
        else f"{said}: {planned.method.title}, {sizes}"
    )


def _measured(project: Project) -> list[str]:
    count = ReadingRow.objects.filter(project=project, deleted_at=None).count()
    return [str(Message("{n, plural, one {one reading} other {# readings}}", n=count))] if count else []
