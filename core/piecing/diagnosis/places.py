"""Where units, seams, tips and crossings of a block lie: what the errors act on.

Coordinates are inches of the finished block, x from the left and y upward from the lower edge.
Source: docs/theory, section 14.1.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from math import hypot

from ..blocks.geometry import cell_middle, inner_seams, lying
from ..blocks.pattern import UPRIGHT, Cell, Layout, Orientation
from ..errors import PatternNotUnderstood
from ..geometry.plane import Point
from ..joining.order import orders
from ..joining.seams import block_seams
from ..lengths import Length
from ..units import UnitSpec, kind_of

__all__ = [
    "SIDES",
    "BlockGeometry",
    "CornerTip",
    "EdgeTip",
    "PlacedUnit",
    "SeamGroup",
    "SeamLine",
    "UnitBatch",
    "batch_name",
    "block_geometry",
]

SIDES = ("left", "right", "bottom", "top")
OUTWARD: dict[str, Point] = {"left": (-1, 0), "right": (1, 0), "bottom": (0, -1), "top": (0, 1)}
_NEAR = 1e-4


_MOST_UNITS = 2_500
"""A quilt laid by hand may hold more."""


@dataclass(frozen=True, slots=True)
class SeamLine:
    """A joining seam from its start to its end; upright ones run from top to bottom, level ones from left to right. ``line`` names the
    row or column that it is sewn in, if it is in one."""

    name: str
    start: Point
    end: Point
    line: str = ""

    @property
    def upright(self) -> bool:
        """Whether it runs from top to bottom."""
        return abs(self.end[0] - self.start[0]) < _NEAR

    @property
    def length(self) -> float:
        """Its finished length in inches."""
        return hypot(self.end[0] - self.start[0], self.end[1] - self.start[1])

    def along(self, p: Point) -> float:
        """How far along the seam a point lies, from 0 at its start to 1 at its end."""
        dx, dy = self.end[0] - self.start[0], self.end[1] - self.start[1]
        return ((p[0] - self.start[0]) * dx + (p[1] - self.start[1]) * dy) / (dx * dx + dy * dy)


@dataclass(frozen=True, slots=True)
class SeamGroup:
    """Joining seams that are sewn one after another, by their numbers, and ``where`` they are: within the rows, between them, of one."""

    where: str
    seams: tuple[int, ...]

    @property
    def name(self) -> str:
        """What they are called together."""
        return f"the seams {self.where}"


@dataclass(frozen=True, slots=True)
class PlacedUnit:
    """One unit where it lies: its finished box, its batch, and the joining seam on each side (None at the outer edge).

    ``key`` is the name it keeps: column, row, and which unit within that place, such as "c3r1" or "c3r1u2". ``lie`` is how
    it lies in the block, with all blocks around it taken in.
    """

    number: int
    key: str
    name: str
    box: tuple[float, float, float, float]
    batch: int
    seams: tuple[int | None, int | None, int | None, int | None]
    """Left, right, bottom, top."""
    orientation: Orientation
    row: int
    column: int

    @property
    def middle(self) -> Point:
        """Its middle, in inches from the lower left of the block."""
        left, bottom, right, top = self.box
        return (left + right) / 2, (bottom + top) / 2

    @property
    def width(self) -> float:
        """Its finished width in inches, as it lies."""
        return self.box[2] - self.box[0]

    @property
    def height(self) -> float:
        """Its finished height in inches, as it lies."""
        return self.box[3] - self.box[1]

    def seam(self, side: str) -> int | None:
        """The number of the joining seam at a side (left, right, bottom, top); ``None`` at the rim."""
        return self.seams[SIDES.index(side)]

    def toward(self, own: Point) -> Point:
        """A direction of the unit as it is made, as it points in the block."""
        return lying(own, self.orientation)

    def as_made(self, direction: Point) -> Point:
        """A direction in the block, as it points in the unit as it is made."""
        return lying(direction, self.orientation.undone)


@dataclass(frozen=True, slots=True)
class EdgeTip:
    """A tip that should just touch the seam on one side of its unit."""

    cell: int
    side: str
    at: Point


@dataclass(frozen=True, slots=True)
class CornerTip:
    """A diagonal that should run into a corner of its unit; ``across`` and ``down`` are the sides that meet there."""

    cell: int
    across: str
    down: str
    at: Point


@dataclass(frozen=True, slots=True)
class UnitBatch:
    """Units made alike: one kind, one size. Directions are those of the unit as it is made, before it is turned.

    ``key`` is the name it keeps: kind and finished size. ``slips`` are the ways in which the design may lie off its box
    after trimming, each a unit vector; ``tip`` points at the side with the one tip, None when there is none or several.
    ``strains`` are the ways in which its bias stretches, each the unit vectors that it is pulled along by equal shares.
    """

    number: int
    key: str
    spec: UnitSpec
    count: int
    tips: bool
    corners: bool
    plain: bool
    slips: tuple[Point, ...]
    tip: Point | None
    strains: tuple[tuple[Point, ...], ...]

    @property
    def kind(self) -> str:
        """The kind of unit all of them are."""
        return self.spec.kind

    @property
    def sized(self) -> str:
        """How they came to their size: plain squares are not trimmed after they were cut."""
        return "cut" if self.plain else "trimmed"


@dataclass(frozen=True)
class BlockGeometry:
    layout: Layout
    finished: Length
    cells: tuple[PlacedUnit, ...]
    seams: tuple[SeamLine, ...]
    batches: tuple[UnitBatch, ...]
    edge_tips: tuple[EdgeTip, ...]
    corner_tips: tuple[CornerTip, ...]

    @property
    def width(self) -> float:
        """The finished width in inches."""
        return float(self.finished)

    @property
    def height(self) -> float:
        """The finished height in inches, by the proportions of the layout."""
        p = self.layout.pattern
        return float(self.finished) * float(p.height / p.width)

    def unit(self, key: str) -> PlacedUnit | None:
        """By the name it keeps; None when this block has no such place."""
        return self._by_key.get(key)

    def seam(self, name: str) -> int | None:
        """The number of a seam by its lasting name; ``None`` when the block has it no more."""
        return self._by_name.get(name)

    def batch(self, key: str) -> UnitBatch | None:
        """The batch with this lasting key; ``None`` when the block has it no more."""
        return next((b for b in self.batches if b.key == key), None)

    def mark(self, unit: PlacedUnit) -> str:
        """What lies there: kind, size and how it lies. A reading belongs to a place as long as this stays."""
        return f"{self.batches[unit.batch].key} {unit.orientation.turn}{'m' if unit.orientation.mirrored else ''}"

    def seam_mark(self, seam: int) -> str:
        """What a seam joins: the places beside it with what lies in them."""
        beside = sorted((c for side in SIDES for c in self.beside(seam, side)), key=lambda c: c.number)
        return "; ".join(f"{c.key} {self.mark(c)}" for c in beside)

    @cached_property
    def seam_groups(self) -> tuple[SeamGroup, ...]:
        """Two seams or more, and never all of them."""
        level, upright = (tuple(n for n, s in enumerate(self.seams) if s.upright is way) for way in (False, True))
        across = all(self.seams[n].length > self.width - _NEAR for n in level)
        down = all(self.seams[n].length > self.height - _NEAR for n in upright)
        where = ("that lie across", "that stand upright")
        if across and not down:
            where = ("between the rows", "within the rows")
        elif down and not across:
            where = ("within the columns", "between the columns")
        groups = {level: where[0], upright: where[1]}
        lines: dict[str, list[int]] = {}
        for n, s in enumerate(self.seams):
            if s.line:
                lines.setdefault(s.line, []).append(n)
        for line, found in lines.items():
            groups.setdefault(tuple(found), f"of {line}")
        return tuple(SeamGroup(w, seams) for seams, w in groups.items() if 1 < len(seams) < len(self.seams))

    def beside(self, seam: int, side: str) -> tuple[PlacedUnit, ...]:
        """The units that have a seam on their ``side``, in their own order."""
        return self._beside.get((seam, side), ())

    @cached_property
    def edge_tips_of(self) -> Mapping[int, tuple[EdgeTip, ...]]:
        """The tips of each unit, by its number; those that have none are not in it."""
        found: dict[int, tuple[EdgeTip, ...]] = {}
        for t in self.edge_tips:
            found[t.cell] = (*found.get(t.cell, ()), t)
        return found

    @cached_property
    def corner_tips_of(self) -> Mapping[int, tuple[CornerTip, ...]]:
        """The corners of each unit that a diagonal runs into, by its number; those that have none are not in it."""
        found: dict[int, tuple[CornerTip, ...]] = {}
        for t in self.corner_tips:
            found[t.cell] = (*found.get(t.cell, ()), t)
        return found

    @cached_property
    def _by_key(self) -> Mapping[str, PlacedUnit]:
        return {c.key: c for c in reversed(self.cells)}

    @cached_property
    def _by_name(self) -> Mapping[str, int]:
        return {s.name: n for n, s in enumerate(self.seams)}

    @cached_property
    def _beside(self) -> Mapping[tuple[int, str], tuple[PlacedUnit, ...]]:
        found: dict[tuple[int, str], list[PlacedUnit]] = {}
        for c in self.cells:
            for seam, side in zip(c.seams, SIDES, strict=True):
                if seam is not None:
                    found.setdefault((seam, side), []).append(c)
        return {k: tuple(v) for k, v in found.items()}

    def crossing(self, at: float, upright: bool) -> tuple[PlacedUnit, ...]:
        """The units that a straight line through the block runs through, in its order."""
        low, high = (0, 2) if upright else (1, 3)
        found = [c for c in self.cells if c.box[low] < at < c.box[high]]
        return tuple(sorted(found, key=lambda c: -c.box[3] if upright else c.box[0]))


@lru_cache(maxsize=64)
def block_geometry(layout: Layout, finished: Length) -> BlockGeometry:
    """Everything the errors act on. Raises ``LayoutIncomplete``, ``CannotBeSewn``, and ``PatternNotUnderstood`` for more units than can
    be judged at once.
    """
    if len(layout.cells) > _MOST_UNITS:
        raise PatternNotUnderstood(
            "There are {n} of its units, and {most} at once can be judged. Measure its blocks one by one.",
            field="layout",
            n=f"{len(layout.cells):,}",
            most=f"{_MOST_UNITS:,}",
        )
    part = layout.part(finished)
    scale = float(part)
    order = orders(layout.pattern)[0].order
    lines = tuple(
        _turned_true(
            SeamLine(s.name, (s.start[0] * scale, s.start[1] * scale), (s.end[0] * scale, s.end[1] * scale), s.line)
        )
        for s in block_seams(layout.pattern, order)
        if not s.inner
    )
    keys: dict[tuple[str, Length, Length], int] = {}
    cells: list[PlacedUnit] = []
    specs: list[UnitSpec] = []
    edge_tips: list[EdgeTip] = []
    corner_tips: list[CornerTip] = []
    by_level = _by_level(lines)
    held = Counter[int]()
    for n, cell in enumerate(layout.cells):
        x, y = cell_middle(layout, cell, scale)
        w, h = float(cell.width) * scale / 2, float(cell.height) * scale / 2
        box = (x - w, y - h, x + w, y + h)
        spec = cell.spec(part)
        batch = keys.setdefault((spec.kind, spec.width, spec.height), len(specs))
        if batch == len(specs):
            specs.append(spec)
        ends = [
            ((s.start[0] + x, s.start[1] + y), (s.end[0] + x, s.end[1] + y))
            for s in inner_seams(spec, cell.orientation)
        ]
        edges, corners = _tips(box, ends)
        edge_tips += [EdgeTip(n, side, at) for side, at in edges]
        corner_tips += [CornerTip(n, a, d, at) for a, d, at in corners]
        held[cell.place] += 1
        cells.append(_placed(layout, n, cell, held[cell.place], box, batch, by_level))
    batches = tuple(
        _batch(
            b,
            spec,
            sum(c.batch == b for c in cells),
            any(cells[t.cell].batch == b for t in edge_tips),
            any(cells[t.cell].batch == b for t in corner_tips),
        )
        for b, spec in enumerate(specs)
    )
    return BlockGeometry(
        layout, finished, tuple(cells), _named_apart(lines), batches, tuple(edge_tips), tuple(corner_tips)
    )


Lines = Mapping[tuple[bool, int], tuple[tuple[int, SeamLine], ...]]
"""Seams with their numbers, by which way they run and how far across the block, in hundredths."""


def _by_level(lines: tuple[SeamLine, ...]) -> Lines:
    found: dict[tuple[bool, int], list[tuple[int, SeamLine]]] = {}
    for n, s in enumerate(lines):
        found.setdefault((s.upright, round(s.start[0 if s.upright else 1] * 100)), []).append((n, s))
    return {k: tuple(v) for k, v in found.items()}


def _placed(
    layout: Layout,
    n: int,
    cell: Cell,
    which: int,
    box: tuple[float, float, float, float],
    batch: int,
    lines: Lines,
) -> PlacedUnit:
    """``which`` unit of its place it is, from 1."""
    place = layout.pattern.places[cell.place]
    left, right, bottom, top = (_seam_on(lines, box, side) for side in SIDES)
    return PlacedUnit(
        n,
        f"c{place.column + 1}r{place.row + 1}" + (f"u{which}" if cell.nested else ""),
        f"{place.name}, unit {which}" if cell.nested else place.name,
        box,
        batch,
        (left, right, bottom, top),
        cell.orientation,
        place.row,
        place.column,
    )


def _named_apart(lines: tuple[SeamLine, ...]) -> tuple[SeamLine, ...]:
    """No two seams share a name."""
    seen: dict[str, int] = {}
    found = []
    for line in lines:
        seen[line.name] = seen.get(line.name, 0) + 1
        again = seen[line.name]
        found.append(line if again == 1 else replace(line, name=f"{line.name}, part {again}"))
    return tuple(found)


def _turned_true(line: SeamLine) -> SeamLine:
    """Upright seams start at the top, level ones at the left, whichever way their block lies."""
    back = line.start[1] < line.end[1] - _NEAR if line.upright else line.start[0] > line.end[0] + _NEAR
    return replace(line, start=line.end, end=line.start) if back else line


def _seam_on(lines: Lines, box: tuple[float, float, float, float], side: str) -> int | None:
    left, bottom, right, top = box
    x = {"left": left, "right": right}.get(side)
    y = {"bottom": bottom, "top": top}.get(side)
    middle = (x if x is not None else (left + right) / 2, y if y is not None else (bottom + top) / 2)
    level = round((x if x is not None else middle[1]) * 100)
    near = (held for k in (level - 1, level, level + 1) for held in lines.get((x is not None, k), ()))
    for n, s in sorted(near, key=lambda held: held[0]):
        off = middle[0] - s.start[0] if s.upright else middle[1] - s.start[1]
        if abs(off) < _NEAR and -_NEAR < s.along(middle) < 1 + _NEAR:
            return n
    return None


def _side_of(box: tuple[float, float, float, float], p: Point) -> tuple[str, ...]:
    """The sides of a box that a point lies on."""
    left, bottom, right, top = box
    on = {"left": p[0] - left, "right": p[0] - right, "bottom": p[1] - bottom, "top": p[1] - top}
    return tuple(side for side in SIDES if abs(on[side]) < _NEAR)


def _tips(
    box: tuple[float, float, float, float], ends: list[tuple[Point, Point]]
) -> tuple[list[tuple[str, Point]], list[tuple[str, str, Point]]]:
    """Points where two seams meet in the middle of a side, and corners that a diagonal runs into."""
    met: dict[tuple[int, int], list[Point]] = {}
    edges: list[tuple[str, Point]] = []
    corners: list[tuple[str, str, Point]] = []
    for start, end in ends:
        slope = abs(abs(end[0] - start[0]) - abs(end[1] - start[1])) < _NEAR
        for p in (start, end):
            on = _side_of(box, p)
            if len(on) == 2 and slope:
                corner = (on[0], on[1], p)
                if not any(c[:2] == corner[:2] for c in corners):
                    corners.append(corner)
            elif len(on) == 1:
                met.setdefault((round(p[0] * 1000), round(p[1] * 1000)), []).append(p)
    for points in met.values():
        if len(points) >= 2:
            edges.append((_side_of(box, points[0])[0], points[0]))
    return edges, corners


def _batch(number: int, spec: UnitSpec, count: int, tips: bool, corners: bool) -> UnitBatch:
    w, h = float(spec.width), float(spec.height)
    ends = [(s.start, s.end) for s in inner_seams(spec, UPRIGHT)]
    edges, _ = _tips((-w / 2, -h / 2, w / 2, h / 2), ends)
    sides = {side for side, _ in edges}
    tip = OUTWARD[sides.pop()] if len(sides) == 1 else None
    plain = len(kind_of(spec.kind).parts) == 1
    return UnitBatch(
        number,
        f"{spec.kind} {spec.width.rational} x {spec.height.rational}",
        spec,
        count,
        tips,
        corners,
        plain,
        _slips(ends, tips, tip),
        tip,
        () if plain else _strains(ends, tip, w, h),
    )


def _directions(ends: list[tuple[Point, Point]]) -> list[Point]:
    """The different ways in which sloping seams run, the first one first."""
    found: list[Point] = []
    for (x1, y1), (x2, y2) in ends:
        length = hypot(x2 - x1, y2 - y1)
        dx, dy = (x2 - x1) / length, (y2 - y1) / length
        if min(abs(dx), abs(dy)) > 0.1 and all(abs(dx * py - dy * px) > _NEAR for px, py in found):
            found.append((dx, dy))
    return found


def _slips(ends: list[tuple[Point, Point]], tips: bool, tip: Point | None) -> tuple[Point, ...]:
    """Along the base for a unit with one tip (toward the tip it is the clearance that is off), both ways for one with tips
    on several sides, else square to each diagonal."""
    if tip is not None:
        return ((-tip[1], tip[0]),)
    if tips:
        return ((1.0, 0.0), (0.0, 1.0))
    return tuple((-dy, dx) for dx, dy in _directions(ends)[:2])


def _strains(ends: list[tuple[Point, Point]], tip: Point | None, w: float, h: float) -> tuple[tuple[Point, ...], ...]:
    """Along its one sloping seam, or along both at once for a unit that is the same left and right; a unit whose cloth is on
    the bias from corner to corner either way may be drawn along either."""
    ways = _directions(ends)
    if tip is not None:
        return (tuple(ways[:2]),)
    if len(ways) == 1:
        return ((ways[0],),)
    long = hypot(w, h)
    return (((w / long, h / long),), ((w / long, -h / long),))


_RANKS = {2: ("larger ", "smaller "), 3: ("largest ", "middle ", "smallest ")}


def batch_name(places: BlockGeometry, batch: int) -> str:
    """Units of one batch in words; told apart by size when several batches are of one kind."""
    b = places.batches[batch]
    alike = sorted(
        (o for o in places.batches if o.kind == b.kind),
        key=lambda o: (-float(o.spec.width) * float(o.spec.height), o.number),
    )
    rank = alike.index(b)
    which = (
        "" if len(alike) == 1 else _RANKS.get(len(alike), tuple(f"{n + 1}. size of " for n in range(len(alike))))[rank]
    )
    return which + kind_of(b.kind).many
