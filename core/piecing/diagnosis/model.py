"""Lengths, tips and crossings of a block as linear functions of the errors of its units and seams.

Every error is inches from true. Of a unit: trimmed width and height, the design moved across and up, turned (inches at
its corner), and its tips' clearance. Of a seam: the mean stitching distance, what it strays by at its start, middle and
end, and its fold. To first order, which is exact for lengths along raw edges, every figure of the block is a sum of
these. Source: docs/theory, section 14.2.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property, lru_cache
from math import hypot

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_array

from ..geometry.plane import Point
from ..lengths import Length
from .places import OUTWARD, BlockGeometry, CornerTip, EdgeTip, PlacedUnit, SeamLine

__all__ = [
    "OF_SEAM",
    "OF_UNIT",
    "OPEN_FOLD",
    "BlockModel",
    "Feature",
    "FeatureKind",
    "Response",
    "Responses",
    "across",
    "clearance",
    "course_shares",
    "miss",
    "model_of",
]

Vector = NDArray[np.float64]
Response = dict[int, float]
"""How a figure answers to the errors that reach it: inches an inch, by their numbers."""

OF_UNIT = ("width", "height", "across", "up", "turn", "tip")
OF_SEAM = ("mean", "start", "middle", "end", "fold")
OPEN_FOLD = 0.5
"""How much of a full fold a seam has that is pressed open: each fabric is turned once, and neither lies over the other."""
_INSIDE = 1e-5
"""How far inside a row its edges are measured, as a share of its height."""


class FeatureKind(StrEnum):
    """What can be measured on a joined block. Rows have a top and a bottom edge and a middle, columns a left and a right one."""

    ROW = "row"
    COLUMN = "column"
    EDGE_TIP = "edge_tip"
    CORNER_TIP = "corner_tip"
    CROSSING = "crossing"


@dataclass(frozen=True, slots=True)
class Feature:
    """One figure of the block: ``nominal`` inches when all is true; ``at`` is where it is read on the drawing.

    ``row`` and ``edge`` tell which row or column and which of its edges; ``cell`` and ``seam`` which unit and seam.
    """

    kind: FeatureKind
    key: str
    nominal: float
    at: Point
    row: int = -1
    edge: str = ""
    cell: int = -1
    seam: int = -1
    nth: int = 0
    """Which crossing along its seam, from 1."""


@dataclass(frozen=True, eq=False)
class BlockModel:
    """``matrix`` (features, errors), sparse, turns errors into deviations of the features, all in inches: a figure answers to the
    few units and seams that it runs across."""

    places: BlockGeometry
    allowance: Length
    features: tuple[Feature, ...]
    matrix: csr_array

    folds: tuple[float, ...] = ()
    """For each seam how much of a full fold it has: one when pressed to a side, half when pressed open."""

    @property
    def errors(self) -> int:
        """How many single errors there are: so many of each unit, so many of each seam."""
        return len(OF_UNIT) * len(self.places.cells) + len(OF_SEAM) * len(self.places.seams)

    def response(self, n: int) -> Vector:
        """(errors,): how feature ``n`` answers to every error."""
        row = np.zeros(self.errors)
        within = slice(self.matrix.indptr[n], self.matrix.indptr[n + 1])
        row[self.matrix.indices[within]] = self.matrix.data[within]
        return row

    @cached_property
    def reached(self) -> NDArray[np.int64]:
        """The numbers of the errors that any feature answers to."""
        return np.unique(self.matrix.indices).astype(np.int64)

    def of_unit(self, cell: int, what: str) -> int:
        """The column of one error of one unit."""
        return len(OF_UNIT) * cell + OF_UNIT.index(what)

    def of_seam(self, seam: int, what: str) -> int:
        """The column of one error of one seam."""
        return len(OF_UNIT) * len(self.places.cells) + len(OF_SEAM) * seam + OF_SEAM.index(what)

    def find(self, key: str) -> int | None:
        """The number of a feature by its key."""
        return self._by_key.get(key)

    @cached_property
    def _by_key(self) -> dict[str, int]:
        return {f.key: n for n, f in enumerate(self.features)}

    def mark_of(self, n: int) -> str:
        """What a feature is made of: while it stays, a reading of that feature belongs there."""
        f, places = self.features[n], self.places
        if f.kind in (FeatureKind.ROW, FeatureKind.COLUMN):
            upright = f.kind is FeatureKind.COLUMN
            level = f.at[0] if upright else f.at[1]
            units = places.crossing(level, upright)
            return f"{f.nominal:.4f}: " + "; ".join(f"{c.key} {places.mark(c)}" for c in units)
        if f.kind is FeatureKind.CROSSING:
            return places.seam_mark(f.seam)
        return places.mark(places.cells[f.cell])

    def deviations(self, errors: NDArray[np.floating]) -> Vector:
        """(features,) from (errors,), or (samples, features) from (samples, errors); many samples are kept in single
        precision, which is finer than any ruler."""
        matrix = self._single if errors.dtype == np.float32 else self.matrix
        return np.asarray((matrix @ errors.T).T)

    @cached_property
    def _single(self) -> csr_array:
        return self.matrix.astype(np.float32)


def course_shares(t: float) -> tuple[float, float, float]:
    """How much of what a seam strays by at its start, middle and end it strays by at ``t`` of its length: straight in between."""
    return (1 - 2 * t, 2 * t, 0.0) if t < 0.5 else (0.0, 2 - 2 * t, 2 * t - 1)


class Responses:
    """Collects features with their responses."""

    def __init__(self, places: BlockGeometry, folds: tuple[float, ...] = ()) -> None:
        self.places = places
        self.folds = folds or (1.0,) * len(places.seams)
        self.size = len(OF_UNIT) * len(places.cells) + len(OF_SEAM) * len(places.seams)
        self.features: list[Feature] = []
        self.responses: list[tuple[NDArray[np.int32], Vector]] = []

    def add(self, feature: Feature, response: Response) -> None:
        """A feature with how it answers to every error."""
        self.features.append(feature)
        count = len(response)
        numbers = np.fromiter(response.keys(), np.int32, count)
        self.responses.append((numbers, np.fromiter(response.values(), np.float64, count)))

    @property
    def matrix(self) -> csr_array:
        """(features, errors)."""
        ends = np.cumsum([0, *(len(numbers) for numbers, _ in self.responses)])
        numbers = np.concatenate([np.zeros(0, np.int32), *(n for n, _ in self.responses)])
        values = np.concatenate([np.zeros(0), *(v for _, v in self.responses)])
        return csr_array((values, numbers, ends.astype(np.int32)), shape=(len(self.features), self.size))

    def dense(self, row: Response) -> Vector:
        """The same answer, shape (errors,)."""
        found = np.zeros(self.size)
        for n, by in row.items():
            found[n] = by
        return found

    def unit(self, row: Response, cell: int, what: str, by: float) -> None:
        """Adds what an error of a unit moves a feature by, in inches an inch."""
        n = len(OF_UNIT) * cell + OF_UNIT.index(what)
        row[n] = row.get(n, 0.0) + by

    def take_up(self, row: Response, seam: int, at: Point, by: float) -> None:
        """``by`` times what the seam takes up where it passes ``at``: its mean, its course, half its fold."""
        base = len(OF_UNIT) * len(self.places.cells) + len(OF_SEAM) * seam
        start, middle, end = course_shares(min(1.0, max(0.0, self.places.seams[seam].along(at))))
        for n, share in enumerate((1.0, start, middle, end, self.folds[seam] / 2), base):
            if share:
                row[n] = row.get(n, 0.0) + by * share


@lru_cache(maxsize=64)
def model_of(places: BlockGeometry, allowance: Length, folds: tuple[float, ...] = ()) -> BlockModel:
    """The whole linear model of a block sewn with this seam allowance; ``folds`` as in ``BlockModel``, all one if not given."""
    rows = Responses(places, folds)
    for upright in (False, True):
        _lengths(rows, allowance, upright)
    for edge in places.edge_tips:
        _edge_tip(rows, edge)
    for corner in places.corner_tips:
        _corner_tip(rows, corner)
    for n, line in enumerate(places.seams):
        _crossings(rows, n, line)
    return BlockModel(places, allowance, tuple(rows.features), rows.matrix, rows.folds)


def _lengths(rows: Responses, allowance: Length, upright: bool) -> None:
    """Every row along its upper and lower edge, every column along its left and right one, raw edge to raw edge."""
    places = rows.places
    pattern, part = places.layout.pattern, float(places.layout.part(places.finished))
    tracks = pattern.columns if upright else pattern.rows
    start = 0.0 if upright else places.height
    whole = (places.height if upright else places.width) + 2 * float(allowance)
    for n, track in enumerate(tracks):
        size = float(track) * part
        near, far = (start, start + size) if upright else (start, start - size)
        middle = (near + far) / 2
        for edge, at in (
            ("left" if upright else "top", near),
            ("middle", middle),
            ("right" if upright else "bottom", far),
        ):
            level = at + (far - near if edge == "middle" else near + far - 2 * at) * _INSIDE
            row: Response = {}
            for cell in places.crossing(level, upright):
                across(rows, row, cell, level, upright)
            kind = FeatureKind.COLUMN if upright else FeatureKind.ROW
            spot = (level, places.height) if upright else (places.width, level)
            rows.add(Feature(kind, f"{kind} {n + 1}, {edge}", whole, spot, n, edge), row)
        start = far


def across(rows: Responses, row: Response, cell: PlacedUnit, level: float, upright: bool, skip: str = "") -> None:
    """What a unit adds to a length along a line: its width less what the seams on both its sides take up there."""
    rows.unit(row, cell.number, "height" if upright else "width", 1.0)
    for side in ("top", "bottom") if upright else ("left", "right"):
        seam = cell.seam(side)
        if seam is not None and side != skip:
            rows.take_up(row, seam, _on(cell, side, level, upright), -1.0)


def _on(cell: PlacedUnit, side: str, level: float, upright: bool) -> Point:
    left, bottom, right, top = cell.box
    if upright:
        return level, top if side == "top" else bottom
    return (left if side == "left" else right), level


def _edge_tip(rows: Responses, tip: EdgeTip) -> None:
    """gap = t - e: the clearance, less what the seam takes up at the tip; the design moved outward brings it nearer."""
    cell = rows.places.cells[tip.cell]
    seam = cell.seam(tip.side)
    if seam is None:
        return
    row: Response = {}
    clearance(rows, row, tip)
    rows.take_up(row, seam, tip.at, -1.0)
    key = f"tip {cell.key} {tip.side}"
    rows.add(Feature(FeatureKind.EDGE_TIP, key, 0.0, tip.at, cell.row, tip.side, tip.cell, seam), row)


def clearance(rows: Responses, row: Response, tip: EdgeTip) -> None:
    """What is left above a tip: less by what the design lies nearer to that edge; where there are tips on several sides, they
    have a clearance of their own, since the unit may be trimmed larger or smaller around all of them."""
    cell = rows.places.cells[tip.cell]
    if rows.places.batches[cell.batch].tip is None:
        rows.unit(row, tip.cell, "tip", 1.0)
    out = OUTWARD[tip.side]
    rows.unit(row, tip.cell, "across", -out[0])
    rows.unit(row, tip.cell, "up", -out[1])


def _corner_tip(rows: Responses, tip: CornerTip) -> None:
    """gap = (e_x - e_y) + r2 o, along the seam; o is how far the diagonal misses the unit's corner.

    Counted from the corner inward, the diagonal runs where (inward across) - (inward up) is what the design was moved,
    turned and left over by trimming; the two seams' corner lies at (e_x, e_y).
    """
    cell = rows.places.cells[tip.cell]
    upright, level = cell.seam(tip.across), cell.seam(tip.down)
    if upright is None or level is None:
        return
    row: Response = {}
    rows.take_up(row, upright, tip.at, 1.0)
    rows.take_up(row, level, tip.at, -1.0)
    miss(rows, row, cell, tip, 1.0)
    key = f"diagonal {cell.key} {tip.down} {tip.across}"
    rows.add(
        Feature(FeatureKind.CORNER_TIP, key, 0.0, tip.at, cell.row, f"{tip.down} {tip.across}", tip.cell, upright), row
    )


def miss(rows: Responses, row: Response, cell: PlacedUnit, tip: CornerTip, by: float) -> None:
    """``by`` times r2 o: the design's own part in a corner tip."""
    ax, ay = -OUTWARD[tip.across][0], -OUTWARD[tip.down][1]
    rx, ry = tip.at[0] - cell.middle[0], tip.at[1] - cell.middle[1]
    reach = hypot(rx, ry)
    rows.unit(row, cell.number, "across", -by * ax)
    rows.unit(row, cell.number, "up", by * ay)
    rows.unit(row, cell.number, "turn", by * (ax * ry + ay * rx) / reach)
    rows.unit(row, cell.number, "width", -by / 2)
    rows.unit(row, cell.number, "height", by / 2)


def _crossings(rows: Responses, n: int, line: SeamLine) -> None:
    """Where seams run into this one from both sides: how far the one lies beyond the other, along the seam."""
    sides = ("right", "left") if line.upright else ("bottom", "top")
    found: list[dict[int, tuple[int, PlacedUnit, Response]]] = []
    for side in sides:
        cells = _beside(rows.places, n, side, line)
        ends: dict[int, tuple[int, PlacedUnit, Response]] = {}
        sum_of: Response = {}
        for k, cell in enumerate(cells[:-1]):
            first = ("top" if line.upright else "left") if k == 0 else ""
            across(rows, sum_of, cell, _level(cells[0], line), line.upright, first)
            ends[round(_near_end(cells[k + 1], line) * 1000)] = (k + 1, cell, dict(sum_of))
        found.append(ends)
    for at in sorted(found[0].keys() & found[1].keys()):
        (nth, cell, row), (_, _, other) = found[0][at], found[1][at]
        for error, by in other.items():
            row[error] = row.get(error, 0.0) - by
        spot = (
            (line.start[0], line.start[1] - at / 1000) if line.upright else (line.start[0] + at / 1000, line.start[1])
        )
        rows.add(
            Feature(
                FeatureKind.CROSSING,
                f"crossing {nth} of {line.name}",
                0.0,
                spot,
                cell.row,
                "",
                cell.number,
                n,
                nth,
            ),
            row,
        )


def _beside(places: BlockGeometry, seam: int, side: str, line: SeamLine) -> list[PlacedUnit]:
    """The units along one side of a seam (the seam is on their ``side``), from its start."""
    return sorted(places.beside(seam, side), key=lambda c: _near_end(c, line))


def _near_end(cell: PlacedUnit, line: SeamLine) -> float:
    """How far from the seam's start a unit beside it begins."""
    return line.start[1] - cell.box[3] if line.upright else cell.box[0] - line.start[0]


def _level(cell: PlacedUnit, line: SeamLine) -> float:
    """Just inside the units, beside the seam."""
    x, y = cell.middle
    if line.upright:
        return line.start[0] + (x - line.start[0]) * _INSIDE
    return line.start[1] + (y - line.start[1]) * _INSIDE
