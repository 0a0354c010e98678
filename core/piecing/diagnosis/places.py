"""Where units, seams, tips and crossings of a block lie: what the errors act on.

Coordinates are inches of the finished block, x from the left and y upward from the lower edge.
Source: docs/theory, section 14.1.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property
from math import hypot

from ..blocks.geometry import lying
from ..blocks.pattern import Layout, Orientation
from ..geometry.plane import Point
from ..lengths import Length
from ..units import UnitSpec, kind_of

__all__ = [
    "OUTWARD",
    "SIDES",
    "BlockGeometry",
    "CornerTip",
    "EdgeTip",
    "PlacedUnit",
    "SeamGroup",
    "SeamLine",
    "UnitBatch",
    "batch_name",
]

SIDES = ("left", "right", "bottom", "top")
OUTWARD: dict[str, Point] = {"left": (-1, 0), "right": (1, 0), "bottom": (0, -1), "top": (0, 1)}
NEAR = 1e-4


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
        return abs(self.end[0] - self.start[0]) < NEAR

    @property
    def length(self) -> float:
        """Its finished length in inches."""
        return hypot(self.end[0] - self.start[0], self.end[1] - self.start[1])

    def spot_said(self, spot: str) -> str:
        """A spot along it (start, middle, end) as it lies on the table: which of its ends, or its middle."""
        first, last = ("upper end", "lower end") if self.upright else ("left end", "right end")
        return {"start": first, "end": last}.get(spot, "middle")

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

    def side_as_made(self, side: str) -> str:
        """A side of it as it lies (left, right, bottom, top): which one that is on the unit as it is made."""
        x, y = self.as_made(OUTWARD[side])
        return max(OUTWARD, key=lambda s: OUTWARD[s][0] * x + OUTWARD[s][1] * y)


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
    def several_tips(self) -> bool:
        """Whether tips point at several of its sides: its size and what lies outside them cannot both be put right by trimming."""
        return self.tips and self.tip is None

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

    def batch_of(self, unit: str, batch: str) -> str:
        """The key of the batch that something was read of: of one unit by its name, or of any of a ``batch``."""
        placed = self.unit(unit) if unit else None
        return batch if placed is None else self.batches[placed.batch].key

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
        across = all(self.seams[n].length > self.width - NEAR for n in level)
        down = all(self.seams[n].length > self.height - NEAR for n in upright)
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

    def tip_sides(self, batch: UnitBatch) -> tuple[str, ...]:
        """The sides that tips of a batch point at, as its units are made."""
        first = next((c for c in self.cells if c.batch == batch.number), None)
        tips = self.edge_tips_of.get(first.number, ()) if first else ()
        return tuple(sorted(first.side_as_made(t.side) for t in tips)) if first else ()

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
