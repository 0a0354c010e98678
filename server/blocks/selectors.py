"""Reads of blocks: the layout with all that is to be said of it, joining, pressing, the quilt, counts and scraps."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Any
from uuid import UUID

from api.problems import NotHere, Refused
from piecing.blocks.file_format import pattern_data, pattern_from
from piecing.blocks.pattern import BlockPlacement, Layout, Pattern, Place, laid
from piecing.blocks.sizing import BlockSizes, parts_text, sizes
from piecing.drawings.block import block_picture
from piecing.errors import PiecingError
from piecing.geometry.drawing import Drawing
from piecing.joining.order import check_sewable
from piecing.lengths import Length, parse_length
from piecing.units import kind_of
from projects.models import Project
from projects.selectors import get_project
from projects.translate import style_of
from workrooms.models import Workroom

from .edits import Asked, edited
from .models import Block
from .translate import (
    find_in,
    pattern_of,
)

__all__ = ["LaidBlock", "blocks_of", "get_block", "look_at", "viewed"]

_GONE = "There is no such block here. It may have been removed in another window."


def blocks_of(project: Project) -> list[Block]:
    return list(project.blocks.filter(deleted_at=None))


def get_block(room: Workroom, key: UUID, *, deleted: bool = False) -> Block:
    found = Block.objects.select_related("project").filter(pk=key, project__workroom=room, project__deleted_at=None)
    block = (found if deleted else found.filter(deleted_at=None)).first()
    if block is None:
        raise NotHere(_GONE)
    return block


@dataclass(frozen=True)
class SpotView:
    """One place of the grid: its box as shares of the picture, and what lies there."""

    column: int
    row: int
    across: int
    down: int
    box: tuple[float, float, float, float]
    place: Place | None
    size: tuple[Length, Length]

    @property
    def content(self) -> str:
        if self.place is None:
            return ""
        held = self.place.content
        return held.key if isinstance(held, BlockPlacement) else held.kind

    @property
    def name(self) -> str:
        held = self.place.content if self.place else None
        return held.pattern.name if isinstance(held, BlockPlacement) else ""

    @property
    def part_fabrics(self) -> list[str]:
        held = self.place.content if self.place else None
        if isinstance(held, BlockPlacement):
            now = dict(held.fabrics)
            return [now.get(r, r) for r in held.pattern.roles]
        return [] if held is None else list(held.part_fabrics)

    @property
    def parts(self) -> list[str]:
        """Of a unit the names of its parts; of a block in the block the letters of its own fabrics."""
        held = self.place.content if self.place else None
        if isinstance(held, BlockPlacement):
            return list(held.pattern.roles)
        return [] if held is None else list(kind_of(held.kind).parts)

    @property
    def corners(self) -> list[str]:
        held = self.place.content if self.place else None
        return [] if held is None or isinstance(held, BlockPlacement) else [str(c) for c in held.corners]

    @property
    def strip(self) -> str:
        held = self.place.content if self.place else None
        return "" if held is None or isinstance(held, BlockPlacement) else str(held.strip)

    @property
    def turn(self) -> int:
        return self.place.orientation.turn if self.place else 0

    @property
    def mirrored(self) -> bool:
        return self.place.orientation.mirrored if self.place else False


@dataclass(frozen=True)
class LaidBlock:
    """A layout with its picture, its places, its sizes, and what can be sewn of it."""

    pattern: dict[str, Any]
    name: str
    columns: str
    rows: str
    picture: Drawing
    spots: tuple[SpotView, ...]
    empty: tuple[str, ...]
    roles: tuple[str, ...]
    sizes: BlockSizes
    cannot: PiecingError | None


def viewed(pattern: Pattern, finished: Length, project: Project) -> LaidBlock:
    """All that is shown of a layout; the last few hundred are remembered, since most stay as they are while one changes."""
    return _viewed(pattern, finished, project.seam_allowance, project.ruler_step)


@lru_cache(maxsize=256)
def _viewed(pattern: Pattern, finished: Length, allowance: Length, step: Length) -> LaidBlock:
    layout = laid(pattern)
    sized = sizes(layout, finished, allowance, step)
    return LaidBlock(
        pattern=pattern_data(pattern),
        name=pattern.name,
        columns=parts_text(pattern.columns),
        rows=parts_text(pattern.rows),
        picture=block_picture(layout, finished),
        spots=tuple(_spots(layout, finished)),
        empty=tuple(f"row {r + 1}, column {c + 1}" for c, r in pattern.empty),
        roles=pattern.roles,
        sizes=sized,
        cannot=_cannot(pattern),
    )


def _cannot(pattern: Pattern) -> PiecingError | None:
    try:
        check_sewable(pattern)
    except PiecingError as refusal:
        return refusal
    return None


def _spots(layout: Layout, finished: Length) -> list[SpotView]:
    pattern, part = layout.pattern, layout.part(finished)
    shown: list[tuple[int, int, int, int, tuple[Any, ...], Place | None]] = [
        (p.column, p.row, p.across, p.down, pattern.box(p), p) for p in pattern.places
    ]
    for c, r in pattern.empty:
        left, top = pattern.edges[0][c], pattern.edges[1][r]
        shown.append((c, r, 1, 1, (left, top, pattern.columns[c], pattern.rows[r]), None))
    found = []
    for c, r, across, down, (left, top, wide, high), place in sorted(shown, key=lambda s: (s[1], s[0])):
        w, h = pattern.width, pattern.height
        box = (float(left / w), float(top / h), float(wide / w), float(high / h))
        found.append(SpotView(c, r, across, down, box, place, (part * wide, part * high)))
    return found


def look_at(room: Workroom, project_key: UUID, body: Mapping[str, Any]) -> LaidBlock:
    """A layout as sent, changed if a change is asked for. Nothing is saved. Raises ``Refused``."""
    project = get_project(room, project_key)
    style, find, key = style_of(project), find_in(room), str(body.get("block") or "")
    try:
        finished = parse_length(str(body["finished"]), style.measure)
    except PiecingError as refusal:
        raise Refused([refusal.at("finished")], style) from None
    try:
        pattern = pattern_from(body["pattern"], find, key)
        if body.get("edit"):
            pattern = edited(pattern, body["edit"], Asked(find, key, finished, style.measure))
        return viewed(pattern, finished, project)
    except PiecingError as refusal:
        raise Refused([refusal.at("finished" if refusal.code == "size_out_of_range" else "layout")], style) from None


def block_and_pattern(room: Workroom, key: UUID) -> tuple[Block, Project, Pattern]:
    block = get_block(room, key)
    project = get_project(room, block.project_id)
    return block, project, pattern_of(block, find_in(room))
