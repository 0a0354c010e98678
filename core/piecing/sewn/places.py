"""Where units, seams, tips and crossings of a block lie: what the errors act on.

Coordinates are inches of the finished block, x from the left and y upward from the lower edge.
Source: docs/theory.md, section 14.1.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from math import hypot

from ..blocks.joining import orders
from ..blocks.pattern import Layout
from ..blocks.pictures import cell_middle, inner_seams
from ..blocks.seams import block_seams
from ..geometry.plane import Point
from ..lengths import Length
from ..units import UnitSpec, kind_of

__all__ = ["SIDES", "Batch", "CornerTip", "EdgeTip", "Here", "Line", "Places", "batch_name", "places_of"]

SIDES = ("left", "right", "bottom", "top")
OUTWARD: dict[str, Point] = {"left": (-1, 0), "right": (1, 0), "bottom": (0, -1), "top": (0, 1)}
_NEAR = 1e-4


@dataclass(frozen=True, slots=True)
class Line:
    """A joining seam from its start to its end; upright ones run from top to bottom, level ones from left to right."""

    name: str
    start: Point
    end: Point

    @property
    def upright(self) -> bool:
        return abs(self.end[0] - self.start[0]) < _NEAR

    @property
    def length(self) -> float:
        return hypot(self.end[0] - self.start[0], self.end[1] - self.start[1])

    def along(self, p: Point) -> float:
        """How far along the seam a point lies, from 0 at its start to 1 at its end."""
        dx, dy = self.end[0] - self.start[0], self.end[1] - self.start[1]
        return ((p[0] - self.start[0]) * dx + (p[1] - self.start[1]) * dy) / (dx * dx + dy * dy)


@dataclass(frozen=True, slots=True)
class Here:
    """One unit where it lies: its finished box, its batch, and the joining seam on each side (None at the outer edge)."""

    number: int
    name: str
    box: tuple[float, float, float, float]
    batch: int
    seams: tuple[int | None, int | None, int | None, int | None]
    """Left, right, bottom, top."""
    shift: Point
    """Unit vector in the block along which a slipped trim moves the design of this batch."""
    row: int
    column: int

    @property
    def middle(self) -> Point:
        left, bottom, right, top = self.box
        return (left + right) / 2, (bottom + top) / 2

    @property
    def width(self) -> float:
        return self.box[2] - self.box[0]

    @property
    def height(self) -> float:
        return self.box[3] - self.box[1]

    def seam(self, side: str) -> int | None:
        return self.seams[SIDES.index(side)]


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
class Batch:
    """Units made alike: one kind, one size."""

    number: int
    spec: UnitSpec
    count: int
    tips: bool
    corners: bool
    plain: bool

    @property
    def kind(self) -> str:
        return self.spec.kind


@dataclass(frozen=True)
class Places:
    layout: Layout
    finished: Length
    cells: tuple[Here, ...]
    seams: tuple[Line, ...]
    batches: tuple[Batch, ...]
    edge_tips: tuple[EdgeTip, ...]
    corner_tips: tuple[CornerTip, ...]

    @property
    def width(self) -> float:
        return float(self.finished)

    @property
    def height(self) -> float:
        p = self.layout.pattern
        return float(self.finished) * float(p.height / p.width)

    def crossing(self, at: float, upright: bool) -> tuple[Here, ...]:
        """The units that a straight line through the block runs through, in its order."""
        low, high = (0, 2) if upright else (1, 3)
        found = [c for c in self.cells if c.box[low] < at < c.box[high]]
        return tuple(sorted(found, key=lambda c: -c.box[3] if upright else c.box[0]))


@lru_cache(maxsize=64)
def places_of(layout: Layout, finished: Length) -> Places:
    """Everything the errors act on. Raises ``LayoutIncomplete``, ``CannotBeSewn``."""
    part = layout.part(finished)
    scale = float(part)
    order = orders(layout.pattern)[0].order
    lines = tuple(
        _turned_true(Line(s.name, (s.start[0] * scale, s.start[1] * scale), (s.end[0] * scale, s.end[1] * scale)))
        for s in block_seams(layout.pattern, order)
        if not s.inner
    )
    keys: dict[tuple[str, Length, Length], int] = {}
    cells: list[Here] = []
    specs: list[UnitSpec] = []
    edge_tips: list[EdgeTip] = []
    corner_tips: list[CornerTip] = []
    for n, cell in enumerate(layout.cells):
        x, y = cell_middle(layout, cell, scale)
        w, h = float(cell.width) * scale / 2, float(cell.height) * scale / 2
        box = (x - w, y - h, x + w, y + h)
        spec = cell.spec(part)
        key = (spec.kind, spec.width, spec.height)
        if key not in keys:
            keys[key] = len(specs)
            specs.append(spec)
        ends = [tuple((p[0] + x, p[1] + y) for p in (s.start, s.end)) for s in inner_seams(spec, cell.lie)]
        edges, corners = _tips(box, ends)
        edge_tips += [EdgeTip(n, side, at) for side, at in edges]
        corner_tips += [CornerTip(n, a, d, at) for a, d, at in corners]
        place = layout.pattern.places[cell.place]
        seams = tuple(_seam_on(lines, box, side) for side in SIDES)
        name = (
            place.name
            if not cell.nested
            else f"{place.name}, unit {1 + sum(c.place == cell.place for c in layout.cells[:n])}"
        )
        cells.append(
            Here(n, name, box, keys[key], seams, _slip(ends, bool(edges), cell.lie.across), place.row, place.column)  # type: ignore[arg-type]
        )
    batches = tuple(
        Batch(
            b,
            spec,
            sum(c.batch == b for c in cells),
            any(cells[t.cell].batch == b for t in edge_tips),
            any(cells[t.cell].batch == b for t in corner_tips),
            len(kind_of(spec.kind).parts) == 1,
        )
        for b, spec in enumerate(specs)
    )
    return Places(layout, finished, tuple(cells), lines, batches, tuple(edge_tips), tuple(corner_tips))


def _turned_true(line: Line) -> Line:
    """Upright seams start at the top, level ones at the left, whichever way their block lies."""
    back = line.start[1] < line.end[1] - _NEAR if line.upright else line.start[0] > line.end[0] + _NEAR
    return Line(line.name, line.end, line.start) if back else line


def _seam_on(lines: tuple[Line, ...], box: tuple[float, float, float, float], side: str) -> int | None:
    left, bottom, right, top = box
    x = {"left": left, "right": right}.get(side)
    y = {"bottom": bottom, "top": top}.get(side)
    middle = (x if x is not None else (left + right) / 2, y if y is not None else (bottom + top) / 2)
    for n, s in enumerate(lines):
        if s.upright != (x is not None):
            continue
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
    box: tuple[float, float, float, float], ends: list[tuple[Point, ...]]
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


def _slip(ends: list[tuple[Point, ...]], tips: bool, across: bool) -> Point:
    """Along a side for units with a tip in mid-edge, square to the first diagonal for others."""
    if tips or not ends:
        return (0.0, 1.0) if across else (1.0, 0.0)
    (x1, y1), (x2, y2) = ends[0]
    length = hypot(x2 - x1, y2 - y1)
    return (-(y2 - y1) / length, (x2 - x1) / length)


_MANY = {
    "half_square_triangle": "half-square triangles",
    "quarter_square_triangle": "hourglasses",
    "split_quarter_square_triangle": "split hourglasses",
    "flying_goose": "flying geese",
    "corner_triangle": "corner-triangle units",
    "strip_split_square": "strip-split squares",
    "square_in_square": "squares in squares",
    "banded_hourglass": "banded hourglasses",
    "pieced_half": "pieced halves",
    "four_patch": "four-patches",
    "plain_square": "plain squares",
    "rectangle": "rectangles",
    "strip": "strips",
}
_RANKS = {2: ("larger ", "smaller "), 3: ("largest ", "middle ", "smallest ")}


def batch_name(places: Places, batch: int) -> str:
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
    return which + _MANY.get(b.kind, b.kind.replace("_", " "))
