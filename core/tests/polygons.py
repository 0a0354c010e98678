"""Simulated quilters whose readings come from polygons: units cut out of cloth with their design on them, clipped along wavering
lines of stitching, measured with a ruler's marks.

Written from the craft alone. Nothing of the diagnosis is used but the names of places (which unit, which seam runs where):
designs, turning, stitching, folding and measuring are done here on shapely geometry, with scatter of another shape
(mixtures with heavy tails, uniform readings) and other figures than the diagnosis assumes.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from math import hypot, pi, sqrt

import numpy as np
from shapely import affinity
from shapely.geometry import LineString, Point, Polygon

from piecing.blocks.library import library_pattern
from piecing.blocks.pattern import layout_of
from piecing.diagnosis.equations import RawSizes, raw_sizes
from piecing.diagnosis.model import BlockModel, model_of
from piecing.diagnosis.places import PlacedUnit
from piecing.diagnosis.placing import block_geometry
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.lengths import Length, inches
from piecing.planning.plan import plan
from piecing.planning.unit_plan import Choices
from piecing.units import methods_of

__all__ = ["BLOCKS", "Ruler", "Sewn", "Table", "Truth", "Ways", "sewn", "table"]

K = ReadingKind
S = 0.25
_WAY = {"left": (-1.0, 0.0), "right": (1.0, 0.0), "bottom": (0.0, -1.0), "top": (0.0, 1.0)}
BLOCKS = (
    ("pinwheel", "8"),
    ("goose_pair", "11/2"),
    ("sawtooth_star", "12"),
    ("lantern", "21/2"),
    ("wake", "11/2"),
    ("hourglass_star", "9"),
    ("broken_dishes", "8"),
    ("paws", "14"),
)


@dataclass(frozen=True)
class Table:
    """A block on the table."""

    name: str
    model: BlockModel
    raw: dict[int, RawSizes]


def table(name: str, finished: str) -> Table:
    model = model_of(block_geometry(layout_of(library_pattern(name)), inches(finished)), inches("1/4"))
    raw = {
        b.number: raw_sizes(plan(Choices(b.spec, methods_of(b.kind)[0].name)))
        for b in model.places.batches
        if not b.plain
    }
    return Table(name, model, raw)


@dataclass(frozen=True)
class Ways:
    """How these hands vary: ``scatter`` and ``cutting`` times the usual; a share of seams that slip by 1/16; of readings that
    are wrong; what the ruler is off by; the mark it shows."""

    scatter: float = 1.0
    cutting: float = 1.0
    slipping: float = 0.0
    wrong: float = 0.0
    ruler: float = 0.0
    mark: float = 1 / 32
    same_unit: bool = False


@dataclass(frozen=True)
class Truth:
    """What is wrong, inches. Those of units are of batch ``batch``; ``fold`` is what each seam swallows, ``scant`` whether the
    stitching is moved in to pay for it."""

    batch: int = 0
    seam: float = 0.0
    start: float = 0.0
    end: float = 0.0
    fold: float = 1 / 48
    scant: bool = True
    trim: float = 0.0
    shift: float = 0.0
    tip: float = 0.0
    cut: float = 0.0
    stretch: float = 0.0

    def of(self, cause: str) -> float:
        return float(getattr(self, cause))


@dataclass
class _Unit:
    """As trimmed: width and height as it lies, its design moved by (dx, dy) and turned, about its middle."""

    width: float
    height: float
    dx: float
    dy: float
    angle: float
    clear: float
    stretched: float


@dataclass
class _Seam:
    """Stitching distance from the raw edge at five points along it, and the fold."""

    at: np.ndarray
    fold: float

    def taken(self, t: float) -> float:
        return float(np.interp(t, np.linspace(0, 1, 5), self.at)) + self.fold / 2


@dataclass
class Ruler:
    """Reads to its marks; ``off`` is common to all, and the hand wavers by less than a hundredth."""

    rng: np.random.Generator
    mark: float
    off: float
    wrong: float

    def read(self, true: float, *, from_edge: bool = True) -> Length:
        seen = true + (self.off if from_edge else 0.0) + float(self.rng.uniform(-0.011, 0.011))
        if self.wrong and self.rng.random() < self.wrong:
            seen += float(self.rng.choice((-1, 1)) * self.rng.choice((1 / 8, 1 / 4, 1 / 2, 1.0)))
        marks = round(seen / self.mark)
        return Length.near((max(1, marks) if from_edge else marks) * self.mark)


def _turned(direction: tuple[float, float], cell: PlacedUnit) -> tuple[float, float]:
    """A direction on the unit as made, as it points once it lies in the block: mirrored, then turned clockwise by quarters."""
    x, y = direction
    if cell.orientation.mirrored:
        x = -x
    for _ in range(cell.orientation.turn):
        x, y = y, -x
    return x, y


@dataclass
class Sewn:
    """One block by one pair of hands."""

    table: Table
    truth: Truth
    ways: Ways
    rng: np.random.Generator
    units: list[_Unit] = field(default_factory=list)
    seams: list[_Seam] = field(default_factory=list)

    @property
    def ruler(self) -> Ruler:
        return Ruler(self.rng, self.ways.mark, self.ways.ruler, self.ways.wrong)

    def vary(self, by: float) -> float:
        """Mostly small, now and then twice as much."""
        wide = 2.0 if self.rng.random() < 0.1 else 0.85
        return float(self.rng.normal(0, by * wide * self.ways.scatter))

    def unit(self, cell: PlacedUnit) -> _Unit:
        t, mine = self.truth, cell.batch == self.truth.batch
        batch = self.table.model.places.batches[cell.batch]
        trim = t.trim if mine else 0.0
        pulled = t.stretch if mine else 0.0
        w, h = cell.width + 2 * S + trim, cell.height + 2 * S + trim
        dx, dy = self.vary(0.006), self.vary(0.006)
        if mine and batch.slips:
            x, y = _turned(batch.slips[0], cell)
            dx, dy = dx + t.shift * x, dy + t.shift * y
        clear = self.vary(0.008) + (t.tip if mine and batch.tip is None else 0.0)
        if mine and batch.tip is not None:
            x, y = _turned(batch.tip, cell)
            dx, dy = dx - t.tip * x, dy - t.tip * y
        # Two legs of a goose are pulled alike: it grows all round. Others grow along one diagonal, half of it on each side.
        long = hypot(w, h)
        return _Unit(
            w + pulled * w / long / 2 + self.vary(0.009),
            h + pulled * h / long / 2 + self.vary(0.009),
            dx,
            dy,
            self.vary(0.006) / long * 2,
            clear,
            pulled,
        )

    def seam(self) -> _Seam:
        t = self.truth
        mean = S + t.seam - (t.fold / 2 if t.scant else 0.0) + self.vary(0.008)
        if self.ways.slipping and self.rng.random() < self.ways.slipping:
            mean += float(self.rng.choice((-1, 1))) / 16
        first, last = t.start + self.vary(0.008), t.end + self.vary(0.008)
        middle = self.vary(0.005)
        course = [first, (first + middle) / 2, middle, (middle + last) / 2, last]
        return _Seam(mean + np.array(course) + self.rng.normal(0, 0.003, 5), t.fold + self.vary(0.003))

    def corner(self, cell: PlacedUnit) -> tuple[float, float]:
        """The unit's raw lower left corner lies at the origin when it is measured by itself."""
        return self.units[cell.number].width, self.units[cell.number].height

    def cloth(self, cell: PlacedUnit, u: _Unit) -> tuple[Polygon, tuple[float, float]]:
        """The trimmed unit as a polygon about its own middle."""
        w, h = u.width / 2, u.height / 2
        return Polygon([(-w, -h), (w, -h), (w, h), (-w, h)]), (cell.width / 2, cell.height / 2)

    def stitched(self, cell: PlacedUnit, u: _Unit, side: str) -> LineString:
        """The line of stitching (and half the fold) along one side, in the unit's own place, from its lower or left end."""
        number = cell.seam(side)
        assert number is not None
        line = self.table.model.places.seams[number]
        left, bottom, right, top = cell.box
        ends = {
            "left": ((left, bottom), (left, top)),
            "right": ((right, bottom), (right, top)),
            "bottom": ((left, bottom), (right, bottom)),
            "top": ((left, top), (right, top)),
        }[side]
        points = []
        for share in np.linspace(-0.2, 1.2, 29):
            p = tuple(a + (b - a) * share for a, b in zip(*ends, strict=True))
            along = hypot(p[0] - line.start[0], p[1] - line.start[1]) / line.length
            taken = self.seams[number].taken(min(max(along, 0.0), 1.0))
            x, y = p[0] - (left + right) / 2, p[1] - (bottom + top) / 2
            w, h = u.width / 2, u.height / 2
            points.append(
                {"left": (-w + taken, y), "right": (w - taken, y), "bottom": (x, -h + taken), "top": (x, h - taken)}[
                    side
                ]
            )
        return LineString(points)

    def diagonal(self, cell: PlacedUnit, u: _Unit, down: str, across: str) -> LineString:
        """The seam that should run into a corner, drawn long, where the design really lies."""
        sx, sy = (1 if across == "right" else -1), (1 if down == "top" else -1)
        cx, cy = sx * cell.width / 2, sy * cell.height / 2
        line = LineString([(cx - sx * 1.0, cy - sy * 1.0), (cx + sx * 1.5, cy + sy * 1.5)])
        return affinity.translate(affinity.rotate(line, u.angle * 180 / pi, origin=(0, 0)), u.dx, u.dy)

    def tip(self, cell: PlacedUnit, u: _Unit, at: tuple[float, float], side: str) -> Point:
        x, y = at[0] - (cell.box[0] + cell.box[2]) / 2, at[1] - (cell.box[1] + cell.box[3]) / 2
        p = affinity.translate(affinity.rotate(Point(x, y), u.angle * 180 / pi, origin=(0, 0)), u.dx, u.dy)
        ox, oy = {"left": (-1, 0), "right": (1, 0), "bottom": (0, -1), "top": (0, 1)}[side]
        # Where the trimmed edge was meant to be, and where it is, differ by half of what the unit is too large: the clearance
        # is set by the ruler on the tip, not on the other edge.
        extra = {"left": u.width - cell.width - 2 * S, "right": u.width - cell.width - 2 * S}.get(
            side, u.height - cell.height - 2 * S
        )
        return Point(p.x + ox * (extra / 2 - u.clear), p.y + oy * (extra / 2 - u.clear))

    def chord(self, cell: PlacedUnit, level: float, *, upright: bool, skip: str = "") -> float:
        """What one sees of a unit along a line across it: its cloth, less what lies beyond the stitching on both sides."""
        u = self.units[cell.number]
        shape, _ = self.cloth(cell, u)
        x, y = (cell.box[0] + cell.box[2]) / 2, (cell.box[1] + cell.box[3]) / 2
        at = level - (x if upright else y)
        ray = LineString([(at, -99), (at, 99)] if upright else [(-99, at), (99, at)])
        low, high = (shape.bounds[1], shape.bounds[3]) if upright else (shape.bounds[0], shape.bounds[2])
        for side in ("bottom", "top") if upright else ("left", "right"):
            if cell.seam(side) is None or side == skip:
                continue
            met = self.stitched(cell, u, side).intersection(ray)
            value = met.y if upright else met.x
            low, high = (value, high) if side in ("bottom", "left") else (low, value)
        return float(high - low)

    def length(self, upright: bool, track: int, edge: str) -> float:
        places = self.table.model.places
        pattern = places.layout.pattern
        part = places.width / float(pattern.width)
        sizes = [float(t) * part for t in (pattern.columns if upright else pattern.rows)]
        near, far = sum(sizes[:track]), sum(sizes[: track + 1])
        share = {"left": 0.002, "top": 0.002, "middle": 0.503, "right": 0.998, "bottom": 0.998}[edge]
        at = near + (far - near) * share
        level = at if upright else places.height - at
        total = 0.0
        for cell in places.cells:
            low, high = (cell.box[0], cell.box[2]) if upright else (cell.box[1], cell.box[3])
            if low < level < high:
                total += self.chord(cell, level, upright=upright)
        return total

    def crossing(self, feature: object) -> float:
        """The step, by adding up what one sees on each side of the seam up to the crossing."""
        places = self.table.model.places
        f = feature
        line = places.seams[f.seam]  # type: ignore[attr-defined]
        sums = []
        for side in ("right", "left") if line.upright else ("bottom", "top"):
            beside = [c for c in places.cells if c.seam(side) == f.seam]  # type: ignore[attr-defined]
            beside.sort(key=lambda c: -c.box[3] if line.upright else c.box[0])
            total, limit = 0.0, (-f.at[1] if line.upright else f.at[0])  # type: ignore[attr-defined]
            inside = 0.002 if side in ("right", "bottom") else -0.002
            for k, c in enumerate(beside):
                if (-c.box[1] if line.upright else c.box[2]) > limit + 1e-6:
                    break
                level = line.start[0] - inside if line.upright else line.start[1] + inside
                first = ("top" if line.upright else "left") if k == 0 else ""
                total += self.chord(c, level, upright=line.upright, skip=first)
            sums.append(total)
        return sums[0] - sums[1]

    def feature(self, key: str) -> float:
        model = self.table.model
        f = model.features[model.find(key) or 0]
        if f.kind.value in ("row", "column"):
            return self.length(f.kind.value == "column", f.row, f.edge)
        cell = model.places.cells[f.cell]
        u = self.units[f.cell]
        if f.kind.value == "edge_tip":
            tip = self.tip(cell, u, f.at, f.edge)
            line = self.stitched(cell, u, f.edge)
            off = line.distance(tip)
            inward = {
                "left": tip.x > line.interpolate(0.5, normalized=True).x,
                "right": tip.x < line.interpolate(0.5, normalized=True).x,
                "bottom": tip.y > line.interpolate(0.5, normalized=True).y,
                "top": tip.y < line.interpolate(0.5, normalized=True).y,
            }[f.edge]
            return float(off if inward else -off)
        if f.kind.value == "corner_tip":
            down, across = f.edge.split()
            diagonal = self.diagonal(cell, u, down, across)
            upright, level = self.stitched(cell, u, across), self.stitched(cell, u, down)
            corner = upright.intersection(level)
            met = diagonal.intersection(level)
            inward = 1 if across == "left" else -1
            # Along the level seam from the corner inward; beyond it, the diagonal met the upright seam first.
            return float((met.x - corner.x) * inward) * -1.0
        return self.crossing(f)

    def taken(self, r: Reading) -> Reading:
        """The reading asked for, as this ruler shows it."""
        if r.kind is K.STRIP_TEST:
            e = float(np.mean([self.seam().taken(0.5) for _ in range(2)]))
            strips = 1.5 + self.rng.normal(0, 0.007 * self.ways.scatter, 3)
            while True:
                middle = self.ruler.read(float(strips[1]) - 2 * e)
                whole = self.ruler.read(float(strips.sum()) - 4 * e)
                if whole > middle * 3:
                    return replace(r, value=middle, whole=whole)
                # A misreading that no three strips give is refused, and she looks again.
        return replace(
            r,
            value=self.ruler.read(self.true(r), from_edge=r.kind not in (K.MISS, K.TIP_GAP, K.CORNER_GAP, K.CROSSING)),
        )

    def true(self, r: Reading) -> float:
        """What a perfect ruler would show."""
        places = self.table.model.places
        if r.feature:
            return self.feature(r.feature)
        if r.kind is K.STITCH:
            seam = self.seams[places.seam(r.seam) or 0] if r.seam else self.seam()
            return float(seam.at[{"start": 0, "middle": 2, "end": 4}[r.spot]])
        cell = places.unit(r.unit) if r.unit else None
        if cell is None:
            alike = [c for c in places.cells if places.batches[c.batch].key == r.batch]
            cell = alike[0]
            u = self.units[cell.number] if self.ways.same_unit else self.unit(cell)
        else:
            u = self.units[cell.number]
        wide = r.kind in (K.WIDTH, K.RAW_WIDTH)
        if r.kind in (K.CUT, K.RAW_WIDTH, K.RAW_HEIGHT):
            return self.raw(r, cell, wide)
        if r.kind in (K.WIDTH, K.HEIGHT):
            return u.width if wide != cell.orientation.across else u.height
        if r.kind is K.CLEARANCE:
            tips = [t for t in places.edge_tips if t.cell == cell.number]
            named = _WAY.get(r.corner)
            wanted = None if named is None else named if r.unit else _turned(named, cell)
            pointed = [t for t in tips if wanted is None or np.allclose(_WAY[t.side], wanted)]
            edge = pointed[int(self.rng.integers(len(pointed)))]
            p = self.tip(cell, u, edge.at, edge.side)
            away = {
                "left": p.x + u.width / 2,
                "right": u.width / 2 - p.x,
                "bottom": p.y + u.height / 2,
                "top": u.height / 2 - p.y,
            }
            return float(away[edge.side])
        if r.kind is K.MISS:
            return self.miss(cell, u, r.corner)
        # Pulled along one diagonal, that one takes all of it and the other none.
        base = hypot(u.width, u.height) - u.stretched / 2
        way = places.batches[cell.batch].strains[0][0] if places.batches[cell.batch].strains else (1.0, 1.0)
        x, y = _turned(way, cell) if r.unit else way
        if places.batches[cell.batch].kind == "flying_goose":
            return base + u.stretched / 2
        return base + (u.stretched if (x * y > 0) == (r.kind is K.DIAGONAL_RISING) else 0.0)

    def raw(self, r: Reading, cell: PlacedUnit, wide: bool) -> float:
        """By the craft's table: a diagonal seam costs r2 e, two of them twice that; a goose twice across, once up."""
        t, mine = self.truth, cell.batch == self.truth.batch
        batch = self.table.model.places.batches[cell.batch]
        planned = plan(Choices(batch.spec, methods_of(batch.kind)[0].name))
        sizes = [float(v) for v in planned.cuts.values()]
        off = (t.cut if mine else 0.0) + self.vary(0.012) * self.ways.cutting
        if r.kind is K.CUT:
            return sizes[0] + off
        e = self.seam().taken(0.5)
        grown = (t.stretch if mine else 0.0) / (2 * sqrt(2))
        if batch.kind == "flying_goose":
            return (sizes[0] + off - 2 * sqrt(2) * e if wide else sizes[1] + off - sqrt(2) * e) + grown
        seams = 2 if batch.kind == "quarter_square_triangle" else 1
        return sizes[0] + off - seams * sqrt(2) * e + grown

    def miss(self, cell: PlacedUnit, u: _Unit, corner: str) -> float:
        """How far the diagonal, drawn out, passes the unit's raw corner, square to it."""
        down, across = corner.split()
        x = u.width / 2 * (1 if across == "right" else -1)
        y = u.height / 2 * (1 if down == "top" else -1)
        line = self.diagonal(cell, u, down, across)
        (ax, ay), (bx, by) = line.coords
        cross = ((bx - ax) * (y - ay) - (by - ay) * (x - ax)) / hypot(bx - ax, by - ay)
        sx, sy = (1 if across == "right" else -1), (1 if down == "top" else -1)
        return float(cross * sx * sy)


def sewn(t: Table, truth: Truth, ways: Ways, rng: np.random.Generator) -> Sewn:
    made = Sewn(t, truth, ways, rng)
    made.units = [made.unit(c) for c in t.model.places.cells]
    made.seams = [made.seam() for _ in t.model.places.seams]
    return made
