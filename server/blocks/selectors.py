"""Reads of blocks: the layout with all that is to be said of it, joining, pressing, the quilt, counts and scraps."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from common.problems import NotHere, Refused
from measuring.selectors import record_for
from piecing.blocks.counting import Counted, counted, ordered_plans
from piecing.blocks.joining import Order, Ordering, Step, orders, steps
from piecing.blocks.library import library_data, library_keys, library_pattern
from piecing.blocks.looking import Alternative, Finding, alternatives, compared, finding_picture
from piecing.blocks.pattern import BlockHere, Layout, Pattern, Place, laid
from piecing.blocks.pictures import apart_picture, block_picture, side_by_side
from piecing.blocks.pressing import PressingMap, Wishes, pressing_map
from piecing.blocks.pressing_check import Drawn, checked
from piecing.blocks.pressing_picture import back_picture, direction_said
from piecing.blocks.quilt import QuiltSizes, Setting, block_spots, quilt_sizes
from piecing.blocks.quilt_picture import Laid, block_middles, quilt_picture
from piecing.blocks.scraps import ScrapPlace, cell_box, scrap_places
from piecing.blocks.sizing import BlockSizes, parts_text, sizes
from piecing.blocks.written import Find, pattern_data, pattern_from
from piecing.errors import PiecingError
from piecing.geometry.drawing import Drawing
from piecing.geometry.plane import rotated
from piecing.lengths import Area, Length, parse_length
from piecing.units import kind_of
from projects.models import Project
from projects.selectors import get_project
from projects.translate import style_of
from workrooms.models import Workroom

from .edits import Asked, edited
from .models import Block, OwnBlock, Quilt
from .translate import (
    LIES,
    Way,
    find_in,
    makings_of,
    orders_of,
    pattern_of,
    quilt_choices,
    spares_of,
    values_of,
    ways_of,
    whats_laid,
)

__all__ = [
    "BlockView",
    "Counts",
    "QuiltView",
    "blocks_of",
    "counts_of",
    "find_of_turned",
    "get_block",
    "joined_view",
    "library_of",
    "look_at",
    "other_ways",
    "pressed_view",
    "quilt_of",
    "quilt_view",
    "scrap_boxes",
    "scrap_setting",
    "viewed",
]

_GONE = "There is no such block here. It may have been removed in another window."


def blocks_of(project: Project) -> list[Block]:
    return list(project.blocks.filter(deleted_at=None))


def get_block(room: Workroom, key: UUID, *, deleted: bool = False) -> Block:
    found = Block.objects.select_related("project").filter(pk=key, project__workroom=room, project__deleted_at=None)
    block = (found if deleted else found.filter(deleted_at=None)).first()
    if block is None:
        raise NotHere(_GONE)
    return block


def quilt_of(project: Project) -> Quilt:
    """The project's quilt, as usual when none was kept yet."""
    return Quilt.objects.filter(project=project).first() or Quilt(project=project)


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
        return held.key if isinstance(held, BlockHere) else held.kind

    @property
    def name(self) -> str:
        held = self.place.content if self.place else None
        return held.pattern.name if isinstance(held, BlockHere) else ""

    @property
    def ring(self) -> list[str]:
        held = self.place.content if self.place else None
        return [] if held is None or isinstance(held, BlockHere) else list(held.ring)

    @property
    def parts(self) -> list[str]:
        held = self.place.content if self.place else None
        return [] if held is None or isinstance(held, BlockHere) else list(kind_of(held.kind).parts)

    @property
    def corners(self) -> list[str]:
        held = self.place.content if self.place else None
        return [] if held is None or isinstance(held, BlockHere) else [str(c) for c in held.corners]

    @property
    def strip(self) -> str:
        held = self.place.content if self.place else None
        return "" if held is None or isinstance(held, BlockHere) else str(held.strip)

    @property
    def turn(self) -> int:
        return self.place.lie.turn if self.place else 0

    @property
    def mirrored(self) -> bool:
        return self.place.lie.mirrored if self.place else False


@dataclass(frozen=True)
class BlockView:
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


def viewed(pattern: Pattern, finished: Length, project: Project) -> BlockView:
    layout = laid(pattern)
    sized = sizes(layout, finished, project.seam_allowance, project.ruler_step)
    return BlockView(
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
        orders(pattern)
    except PiecingError as refusal:
        return refusal
    return None


def _spots(layout: Layout, finished: Length) -> list[SpotView]:
    pattern, part = layout.pattern, layout.part(finished)
    shown: list[tuple[int, int, int, int, tuple[Any, ...], Place | None]] = [
        (p.column, p.row, p.across, p.down, pattern.box(p), p) for p in pattern.places
    ]
    for c, r in pattern.empty:
        left, top = sum(pattern.columns[:c]), sum(pattern.rows[:r])
        shown.append((c, r, 1, 1, (left, top, pattern.columns[c], pattern.rows[r]), None))
    found = []
    for c, r, across, down, (left, top, wide, high), place in sorted(shown, key=lambda s: (s[1], s[0])):
        w, h = pattern.width, pattern.height
        box = (float(left / w), float(top / h), float(wide / w), float(high / h))
        found.append(SpotView(c, r, across, down, box, place, (part * wide, part * high)))
    return found


def look_at(room: Workroom, project_key: UUID, body: Mapping[str, Any]) -> BlockView:
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


@dataclass(frozen=True)
class LibraryBlock:
    key: str
    own: bool
    pattern: dict[str, Any]
    name: str
    columns: int
    rows: int
    picture: Drawing
    kinds: tuple[str, ...]


def library_of(room: Workroom) -> list[LibraryBlock]:
    """What comes with the program, then what was kept."""
    found = [_library_block(k, library_pattern(k), dict(library_data(k) or {}), own=False) for k in library_keys()]
    find = find_in(room)
    for row in OwnBlock.objects.filter(workroom=room, deleted_at=None):
        try:
            found.append(
                _library_block(str(row.pk), pattern_from(row.pattern, find, str(row.pk)), row.pattern, own=True)
            )
        except PiecingError:  # what it held is gone for good: it is left out, not in the way of the others
            continue
    return found


def _library_block(key: str, pattern: Pattern, data: dict[str, Any], *, own: bool) -> LibraryBlock:
    layout = laid(pattern)
    kinds = tuple(sorted({c.unit.kind for c in layout.cells}))
    picture = block_picture(layout, Length.of(10))
    return LibraryBlock(key, own, data, pattern.name, len(pattern.columns), len(pattern.rows), picture, kinds)


def _block_layout(room: Workroom, key: UUID) -> tuple[Block, Project, Pattern]:
    block = get_block(room, key)
    project = get_project(room, block.project_id)
    return block, project, pattern_of(block, find_in(room))


@dataclass(frozen=True)
class OtherWays:
    apart: Drawing
    many: Drawing
    alternatives: tuple[Alternative, ...]


def other_ways(room: Workroom, key: UUID, across: int, every_second: str, spot: tuple[int, int] | None) -> OtherWays:
    """A saved block taken apart, several side by side, and the other looks of one place."""
    block, project, pattern = _block_layout(room, key)
    layout = laid(pattern)
    try:
        many = side_by_side(layout, block.finished, across, across, LIES[every_second])
        apart = apart_picture(layout, block.finished, project.seam_allowance)
    except PiecingError as refusal:
        raise Refused([refusal], style_of(project)) from None
    return OtherWays(apart, many, alternatives(pattern, spot, block.finished) if spot else ())


@dataclass(frozen=True)
class TurnedFound:
    finding: Finding
    picture: Drawing
    view: BlockView


def find_of_turned(room: Workroom, key: UUID, seen: Any) -> TurnedFound:
    """What lies on the table against what the saved block is meant to be."""
    block, project, meant = _block_layout(room, key)
    try:
        pattern = pattern_from(seen, find_in(room), str(key))
        finding = compared(meant, pattern)
        return TurnedFound(
            finding, finding_picture(pattern, finding, block.finished), viewed(pattern, block.finished, project)
        )
    except PiecingError as refusal:
        raise Refused([refusal.at("seen")], style_of(project)) from None


@dataclass(frozen=True)
class JoinedView:
    orders: tuple[Ordering, ...]
    order: Order
    steps: tuple[Step, ...]
    sizes: BlockSizes


def joined_view(room: Workroom, key: UUID) -> JoinedView:
    block, project, pattern = _block_layout(room, key)
    try:
        known = orders(pattern)
        order = next((o.order for o in known if o.order == block.order), known[0].order)
        layout = laid(pattern)
        sized = sizes(layout, block.finished, project.seam_allowance, project.ruler_step)
        return JoinedView(known, order, steps(layout, order, block.finished, project.seam_allowance), sized)
    except PiecingError as refusal:
        raise Refused([refusal], style_of(project)) from None


@dataclass(frozen=True, slots=True)
class SeamWay:
    name: str
    way: str


@dataclass(frozen=True, slots=True)
class CrossingView:
    x: float
    y: float
    left: float
    top: float
    spun: bool
    plain: bool


@dataclass(frozen=True)
class PressedView:
    """``sound`` is the word of the separate checker."""

    map: PressingMap
    order: Order
    front: Drawing
    back: Drawing
    second: Drawing | None
    seams: tuple[SeamWay, ...]
    sound: bool
    crossings: tuple[CrossingView, ...]
    wishes: dict[str, Any]


def pressed_view(room: Workroom, key: UUID) -> PressedView:
    """The pressing map of a saved block, found and then checked by another route."""
    block, project, pattern = _block_layout(room, key)
    wishes = {"to_dark": True, "from_bulk": True, "layers": None, "repeats": False, "spun": [], **block.pressing}
    try:
        known = orders(pattern)
        order = next((o.order for o in known if o.order == block.order), known[0].order)
        asked = Wishes(
            wishes["to_dark"],
            wishes["from_bulk"],
            wishes["layers"],
            tuple((x, y) for x, y in wishes["spun"]),
            wishes["repeats"],
        )
        found = pressing_map(pattern, order, values_of(project), asked)
    except PiecingError as refusal:
        raise Refused([refusal], style_of(project)) from None
    back = back_picture(pattern, found.pressed, block.finished, project.seam_allowance)
    second = back_picture(pattern, found.second, block.finished, project.seam_allowance) if found.second else None
    seams = tuple(SeamWay(p.seam.name, str(direction_said(p))) for p in found.pressed)
    front = block_picture(laid(pattern), block.finished)
    return PressedView(
        found, order, front, back, second, seams, _sound(found), tuple(_crossings(pattern, found, asked)), wishes
    )


def _sound(found: PressingMap) -> bool:
    """Whether the separate checker, shown the drawing, finds as many meetings nested as the model claims.

    A spun crossing nests as well: its seams go round it.
    """

    def points(arrow: tuple[float, float] | None) -> complex | None:
        return None if arrow is None else complex(*arrow)

    drawn = [
        Drawn(complex(*p.seam.start), complex(*p.seam.end), points(p.arrow), points(p.last_arrow), p.seam.level)
        for p in found.pressed
    ]
    verdict = checked(drawn)
    return verdict.nested == found.nested and len(verdict.loose) == found.pairs - found.nested


def _crossings(pattern: Pattern, found: PressingMap, wishes: Wishes) -> Iterator[CrossingView]:
    """Where seams run in from both sides: the point, its place on the back as shares, whether spun, whether four meet."""
    wide, high = float(pattern.width), float(pattern.height)
    for m in found.crossings:
        if m.left and m.right:
            x, y = m.at
            spun = any(abs(x - a) + abs(y - b) < 1e-3 for a, b in wishes.spun)
            joins = [any(not found.pressed[k].seam.inner for k in side) for side in (m.left, m.right, (m.on,))]
            plain = all(joins)
            yield CrossingView(x, y, 1 - x / wide, 1 - y / high, spun, plain)


@dataclass(frozen=True)
class QuiltView:
    quilt: Quilt
    sizes: QuiltSizes | None
    picture: Drawing | None
    refusal: PiecingError | None
    counted: int
    left_out: tuple[str, ...]
    cloth: Area


def quilt_view(project: Project, find: Find) -> QuiltView:
    """The quilt as it is set; why it cannot be drawn, when it cannot."""
    quilt, blocks = quilt_of(project), blocks_of(project)
    try:
        choices = quilt_choices(quilt, project, blocks, find)
        sized = quilt_sizes(choices)
        ways = ways_of(blocks, find)
        counted_blocks = sum(w.count for w in ways)
        used = {w.block.pk for w in ways}
        left_out = tuple(str(b.pattern.get("name", "")) for b in blocks if b.pk not in used)
        picture = quilt_picture(sized, whats_laid(quilt, choices, ways, block_spots(choices))) if ways else None
        return QuiltView(quilt, sized, picture, None, counted_blocks, left_out, Area.sum(p.area for p in sized.pieces))
    except PiecingError as refusal:
        return QuiltView(quilt, None, None, refusal, 0, (), Area.sum(()))


@dataclass(frozen=True)
class Counts:
    quilt: Quilt
    units: tuple[Counted, ...]
    blocks: int
    total: int
    refusal: PiecingError | None
    cloth: Area


def counts_of(room: Workroom, project: Project) -> Counts:
    """Every unit of every block of a project, planned."""
    quilt, find = quilt_of(project), find_in(room)
    try:
        ordered = orders_of(blocks_of(project), find)
        units = counted(ordered, [f.role for f in project.fabrics.all()])
        planned = ordered_plans(
            units,
            makings_of(quilt),
            spares_of(quilt),
            seam_allowance=project.seam_allowance,
            stitch=project.stitch,
            fold=project.fold,
            ruler_step=project.ruler_step,
            record=record_for(room, project.seam_allowance),
        )
    except PiecingError as refusal:
        return Counts(quilt, (), 0, 0, refusal, Area.sum(()))
    blocks = sum(w.count for o in ordered for w in o.colourways)
    cloth = Area.sum(c.plan.cloth for c in planned if c.plan)
    return Counts(quilt, planned, blocks, sum(u.total for u in units), None, cloth)


@dataclass(frozen=True)
class ScrapSetting:
    """What scraps are laid out on: the quilt, what lies where, and the places for one role."""

    quilt: Quilt
    sizes: QuiltSizes
    laid: list[Laid]
    places: tuple[ScrapPlace, ...]


def scrap_setting(project: Project, find: Find, role: str) -> ScrapSetting:
    """Raises what the quilt and the scraps refuse."""
    quilt, blocks = quilt_of(project), blocks_of(project)
    choices = quilt_choices(quilt, project, blocks, find)
    sized = quilt_sizes(choices)
    ways: list[Way] = ways_of(blocks, find)
    bare = Quilt(spread=quilt.spread, every_second=quilt.every_second)
    lying = whats_laid(bare, choices, ways, block_spots(choices)) if ways else []
    return ScrapSetting(quilt, sized, lying, scrap_places(sized, lying, role) if ways else ())


@dataclass(frozen=True, slots=True)
class ScrapBox:
    name: str
    box: tuple[float, float, float, float]


def scrap_boxes(setting: ScrapSetting) -> list[ScrapBox]:
    """Where each place lies in the quilt's picture: its middle, with a box about it that fits inside."""
    q, middles = setting.sizes, block_middles(setting.sizes)
    wide, high = float(q.width), float(q.height)
    inset = ((wide - float(q.centre_width)) / 2, (high - float(q.centre_height)) / 2)
    tilted = q.choices.setting is Setting.ON_POINT
    size = (float(q.choices.block_width), float(q.choices.block_height))
    found = []
    for p in setting.places:
        left, bottom, w, h = cell_box(setting.laid[p.spot], p.cell, q.choices.block_width)
        x, y = left + w / 2 - size[0] / 2, bottom + h / 2 - size[1] / 2
        if tilted:
            (x, y), w, h = rotated((x, y), 45), w * 0.7, h * 0.7
        mx, my = middles[p.spot]
        x, y = inset[0] + mx + x, inset[1] + my + y
        found.append(ScrapBox(p.name, ((x - w / 2) / wide, 1 - (y + h / 2) / high, w / wide, h / high)))
    return found
