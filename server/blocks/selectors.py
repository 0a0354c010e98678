"""Reads of blocks: the layout with all that is to be said of it, joining, pressing, the quilt, counts and scraps."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Any
from uuid import UUID

from api.looked_up import looked_up_once
from api.problems import NotHere, Refused
from piecing.blocks.file_format import pattern_data, pattern_from
from piecing.blocks.pattern import (
    UPRIGHT,
    BlockPlacement,
    Layout,
    Orientation,
    Pattern,
    Place,
    UnitPlacement,
    layout_of,
)
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

__all__ = ["LaidBlock", "blocks_of", "get_block", "layout_view", "look_at"]

_GONE = "There is no such block here. It may have been removed in another window."


@looked_up_once
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
    """One place of the grid: its box as shares of the picture, and which of the things that lie in the layout lies there."""

    column: int
    row: int
    across: int
    down: int
    box: tuple[float, float, float, float]
    lies: int


@dataclass(frozen=True)
class LyingView:
    """A unit or a block as it lies in one place or in many alike; an empty place is one without content."""

    held: UnitPlacement | BlockPlacement | None
    orientation: Orientation
    size: tuple[Length, Length]

    @property
    def _unit(self) -> UnitPlacement | None:
        return self.held if isinstance(self.held, UnitPlacement) else None

    @property
    def _block(self) -> BlockPlacement | None:
        return self.held if isinstance(self.held, BlockPlacement) else None

    @property
    def content(self) -> str:
        if self._block is not None:
            return self._block.key
        return self._unit.kind if self._unit else ""

    @property
    def name(self) -> str:
        return self._block.pattern.name if self._block else ""

    @property
    def part_fabrics(self) -> list[str]:
        if self._block is not None:
            now = dict(self._block.fabrics)
            return [now.get(r, r) for r in self._block.pattern.roles]
        return list(self._unit.part_fabrics) if self._unit else []

    @property
    def parts(self) -> list[str]:
        """Of a unit the names of its parts; of a block in the block the letters of its own fabrics."""
        if self._block is not None:
            return list(self._block.pattern.roles)
        return list(kind_of(self._unit.kind).parts) if self._unit else []

    @property
    def corners(self) -> list[str]:
        return [str(c) for c in self._unit.corners] if self._unit else []

    @property
    def strip(self) -> str:
        return str(self._unit.strip) if self._unit else ""

    @property
    def turn(self) -> int:
        return self.orientation.turn

    @property
    def mirrored(self) -> bool:
        return self.orientation.mirrored


@dataclass(frozen=True, eq=False)
class LaidBlock:
    """A layout with its picture, its places, its sizes, and what can be sewn of it. One is kept for each layout, and like none other."""

    pattern: dict[str, Any]
    name: str
    columns: str
    rows: str
    picture: Drawing
    spots: tuple[SpotView, ...]
    lying: tuple[LyingView, ...]
    empty: tuple[str, ...]
    roles: tuple[str, ...]
    sizes: BlockSizes
    cannot: PiecingError | None


def layout_view(pattern: Pattern, finished: Length, project: Project) -> LaidBlock:
    """All that is shown of a layout; the last few hundred are remembered, since most stay as they are while one changes."""
    return _view(pattern, finished, project.seam_allowance, project.ruler_step)


@lru_cache(maxsize=256)
def _view(pattern: Pattern, finished: Length, allowance: Length, step: Length) -> LaidBlock:
    layout = layout_of(pattern)
    sized = sizes(layout, finished, allowance, step)
    spots, lying = _spots(layout, finished)
    return LaidBlock(
        pattern=pattern_data(pattern),
        name=pattern.name,
        columns=parts_text(pattern.columns),
        rows=parts_text(pattern.rows),
        picture=block_picture(layout, finished),
        spots=spots,
        lying=lying,
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


def _spots(layout: Layout, finished: Length) -> tuple[tuple[SpotView, ...], tuple[LyingView, ...]]:
    """The places, and what lies in them, said once however often it does."""
    pattern, part = layout.pattern, layout.part(finished)
    shown: list[tuple[int, int, int, int, tuple[Any, ...], Place | None]] = [
        (p.column, p.row, p.across, p.down, pattern.box(p), p) for p in pattern.places
    ]
    for c, r in pattern.empty:
        left, top = pattern.edges[0][c], pattern.edges[1][r]
        shown.append((c, r, 1, 1, (left, top, pattern.columns[c], pattern.rows[r]), None))
    found: list[SpotView] = []
    lying: dict[LyingView, int] = {}
    for c, r, across, down, (left, top, wide, high), place in sorted(shown, key=lambda s: (s[1], s[0])):
        w, h = pattern.width, pattern.height
        box = (
            round(float(left / w), 6),
            round(float(top / h), 6),
            round(float(wide / w), 6),
            round(float(high / h), 6),
        )
        held, orientation = (place.content, place.orientation) if place else (None, UPRIGHT)
        there = LyingView(held, orientation, (part * wide, part * high))
        found.append(SpotView(c, r, across, down, box, lying.setdefault(there, len(lying))))
    return tuple(found), tuple(lying)


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
            asked = Asked(find, key, finished, style.measure)
            pattern, finished = edited(pattern, body["edit"], asked), asked.finished
        return layout_view(pattern, finished, project)
    except PiecingError as refusal:
        raise Refused([refusal.at("finished" if refusal.code == "size_out_of_range" else "layout")], style) from None


def block_and_pattern(room: Workroom, key: UUID) -> tuple[Block, Project, Pattern]:
    block = get_block(room, key)
    project = get_project(room, block.project_id)
    return block, project, pattern_of(block, find_in(room))
