"""A project as a whole: facts, pictures, and what was put down on the way."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date

from django.utils import timezone

from blocks.quilt import quilt_view
from blocks.selectors import blocks_of
from blocks.translate import colourways_of, find_in, pattern_of
from cutting.translate import now_of
from measuring.models import ReadingRow
from measuring.selectors import plan_of
from piecing.blocks.pattern import layout_of
from piecing.drawings.block import block_picture
from piecing.errors import PiecingError
from piecing.geometry.drawing import Drawing
from piecing.lengths import Area, Style
from piecing.messages import Message
from piecing.timing import STAGE_WORDS, Minutes
from piecing.units import kind_of
from projects.models import PlannedUnit, Project
from projects.translate import style_of
from timing.selectors import minutes_by_stage
from workrooms.models import Workroom

from .rows import LogRow, entry_lines, entry_rows, other_rows

__all__ = ["Story", "story_of"]


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
    sheet = quilt_view(project)
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
    fact("Measured", _measured_lines(project))
    entries = entry_rows(room, [e.key for e in entry_lines(room, project.pk, "", words=False)])
    rows = sorted([*entries.values(), *other_rows(room, project.pk, "")], key=lambda r: (r.day, str(r.key)))
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
            picture = block_picture(layout_of(pattern), block.finished)
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
    except PiecingError:
        return said
    sizes = ", ".join(f"{planned.method.size_name(n)} {style.pretty(s)}" for n, s in planned.cuts.items())
    return (
        f"{said}: {planned.method.title}, {sizes}; {unit.spoiled} made again"
        if unit.spoiled
        else f"{said}: {planned.method.title}, {sizes}"
    )


def _measured_lines(project: Project) -> list[str]:
    count = ReadingRow.objects.filter(project=project, deleted_at=None).count()
    return [str(Message("{n, plural, one {one reading} other {# readings}}", n=count))] if count else []
