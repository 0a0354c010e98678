"""Cut, lay together, sew, open with a fold, cut apart, trim: the craft's own operations on flat cloth.

A ``Piece`` is what lies on the table, right side up: patches one sees (``faces``), cloth folded away beneath
(``under``), and the seams that show. A ``Stack`` is two pieces right sides together, the upper one face down and hence
drawn mirrored, with the stitches that hold them. ``Stack.opened`` folds the upper one back along a stitch. Every method
of making a unit is a short script of these. Source: docs/theory, section 3.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field, replace

from .plane import Line, Point, Polygon, area, bounds, clip, holds, rectangle, rotated, stretch_inside

__all__ = [
    "Needle",
    "Patch",
    "Piece",
    "SewnSeam",
    "Stack",
    "Stitch",
    "Stitching",
    "joined",
    "laid_on",
    "oblong",
    "square",
    "trim",
    "turned_over",
]

_ON_FOLD = 1e-7
"""Inches; corners made by clipping lie this near to the line that made them."""


@dataclass(frozen=True, slots=True)
class Stitching:
    """One seam as sewn: distance from the raw edge at its start and end, and the fold it is pressed with (inches)."""

    start: float
    end: float
    fold: float = 0.0

    @property
    def take_up(self) -> tuple[float, float]:
        """What it takes from each side at its two ends: stitching and half the fold, in inches."""
        return self.start + self.fold / 2, self.end + self.fold / 2


@dataclass(frozen=True)
class Needle:
    """How each seam is sewn: all alike, but for those named in ``special``.

    ``off_line`` tells, by name, how far a seam sewn on a drawn line strays from it (toward the raw edge; start, end).
    """

    usual: Stitching
    special: dict[str, Stitching] = field(default_factory=dict)
    off_line: dict[str, tuple[float, float]] = field(default_factory=dict)

    @classmethod
    def of(cls, stitch: float, fold: float = 0.0) -> Needle:
        """A needle that sews every seam alike, ``stitch`` and ``fold`` in inches."""
        return cls(Stitching(stitch, stitch, fold))

    def at(self, name: str) -> Stitching:
        """How a named seam is sewn; the usual way when nothing else is said of it."""
        return self.special.get(name, self.usual)


@dataclass(frozen=True, slots=True)
class Patch:
    """One convex bit of one fabric: its outline, and the direction of its straight grain."""

    outline: Polygon
    fabric: str
    grain: Point = (1.0, 0.0)


@dataclass(frozen=True, slots=True)
class SewnSeam:
    """Where a seam shows on the right side: the fold line, from its first to its last point."""

    start: Point
    end: Point
    name: str = ""

    @property
    def line(self) -> Line:
        """The seam as a line on the face."""
        return Line(self.start, self.end)


@dataclass(frozen=True, slots=True)
class Piece:
    faces: tuple[Patch, ...]
    under: tuple[Patch, ...] = ()
    seams: tuple[SewnSeam, ...] = ()

    @property
    def cloth(self) -> float:
        """Square inches of fabric in it, seen and folded away."""
        return sum(abs(area(p.outline)) for p in self.faces + self.under)

    @property
    def extent(self) -> tuple[float, float, float, float]:
        """Left, bottom, right, top of what one sees."""
        return bounds(p.outline for p in self.faces)

    def mapped(self, point: Callable[[Point], Point], *, mirrored: bool = False) -> Piece:
        """Moved by a rigid motion of points; outlines stay anticlockwise."""
        origin = point((0.0, 0.0))

        def moved(p: Patch) -> Patch:
            outline = tuple(point(q) for q in (reversed(p.outline) if mirrored else p.outline))
            tip = point(p.grain)
            return Patch(outline, p.fabric, (tip[0] - origin[0], tip[1] - origin[1]))

        seams = tuple(SewnSeam(point(s.start), point(s.end), s.name) for s in self.seams)
        return Piece(tuple(map(moved, self.faces)), tuple(map(moved, self.under)), seams)

    def shifted(self, dx: float, dy: float) -> Piece:
        """Moved by so many inches."""
        return self.mapped(lambda p: (p[0] + dx, p[1] + dy))

    def turned(self, degrees: float) -> Piece:
        """Turned anticlockwise about the middle of what one sees."""
        left, bottom, right, top = self.extent
        about = ((left + right) / 2, (bottom + top) / 2)
        return self.mapped(lambda p: rotated(p, degrees, about))

    def at_origin(self) -> Piece:
        """Moved so that its lower left corner is at nought."""
        left, bottom, _, _ = self.extent
        return self.shifted(-left, -bottom)

    def fabric_at(self, p: Point) -> str | None:
        """Which fabric one sees at a point; None beside the piece."""
        return next((f.fabric for f in self.faces if holds(f.outline, p)), None)

    def cut(self, along: Line) -> tuple[Piece, Piece]:
        """What lies left and right of one straight cut."""
        return _left_of(self, along), _left_of(self, along.reversed())


def oblong(width: float, height: float, fabric: str) -> Piece:
    """A rectangle cut on the straight grain, its corner at the origin."""
    return Piece((Patch(rectangle(width, height), fabric),))


def square(side: float, fabric: str) -> Piece:
    """A square of cloth of this side, in inches, its lower left corner at nought."""
    return oblong(side, side, fabric)


def turned_over(piece: Piece, over: Line) -> Piece:
    """The piece turned over along ``over``: as it lies face down on another one."""
    return piece.mapped(over.mirror, mirrored=True)


def laid_on(piece: Piece, edge: Line, onto: Line, meet: float = 0.0) -> Piece:
    """The piece laid face down so that its ``edge`` runs along ``onto``, cloth on the same side.

    Both edges have the cloth on their left. The end of ``edge`` comes to ``meet`` inches along ``onto``: a piece that is
    turned over runs its edge backwards.
    """
    ox, oy = onto.direction
    there = onto.at(meet)

    def place(p: Point) -> Point:
        along, inside = edge.along(p) - edge.along(edge.end), edge.side(p)
        return there[0] - ox * along - oy * inside, there[1] - oy * along + ox * inside

    return piece.mapped(place, mirrored=True)


def _kept(patches: tuple[Patch, ...], line: Line) -> tuple[Patch, ...]:
    kept = []
    for p in patches:
        outline = clip(p.outline, line)
        if outline is p.outline:
            kept.append(p)
        elif outline:
            kept.append(Patch(outline, p.fabric, p.grain))
    return tuple(kept)


def _segment_kept(start: Point, end: Point, line: Line) -> tuple[Point, Point] | None:
    a, b = line.side(start), line.side(end)
    if a <= _ON_FOLD and b <= _ON_FOLD:
        return None
    meet = a / (a - b) if (a < 0) != (b < 0) else 0.0
    at = (start[0] + meet * (end[0] - start[0]), start[1] + meet * (end[1] - start[1]))
    return (at if a < 0 else start), (at if b < 0 else end)


def _left_of(piece: Piece, line: Line) -> Piece:
    seams = ((s.name, _segment_kept(s.start, s.end, line)) for s in piece.seams)
    kept = tuple(SewnSeam(*ends, name) for name, ends in seams if ends)
    return Piece(_kept(piece.faces, line), _kept(piece.under, line), kept)


def trim(piece: Piece, *lines: Line) -> tuple[Piece, float]:
    """Cut away what lies right of each line; returns the rest and the square inches that fell off."""
    rest = piece
    for line in lines:
        rest = _left_of(rest, line)
    return rest, piece.cloth - rest.cloth


@dataclass(frozen=True, slots=True)
class Stitch:
    """A line of stitching; the cloth that stays lies on its left, raw edge and allowance on its right."""

    name: str
    line: Line
    fold: float


@dataclass(frozen=True, slots=True)
class Stack:
    """Two pieces right sides together; ``upper`` is drawn as it lies, face down."""

    lower: Piece
    upper: Piece
    stitches: tuple[Stitch, ...] = ()

    def sewn(self, name: str, raw_edge: Line, needle: Needle) -> Stack:
        """Stitched along a raw edge, or along a line to be cut on; the cloth that stays lies on its left."""
        s = needle.at(name)
        return self._with(Stitch(name, raw_edge.shifted(s.start, s.end), s.fold))

    def sewn_on(self, name: str, line: Line, needle: Needle) -> Stack:
        """Stitched on a drawn line, half a fold toward the right, so that the fold comes to lie on the line."""
        fold = needle.at(name).fold
        start, end = needle.off_line.get(name, (0.0, 0.0))
        return self._with(Stitch(name, line.shifted(-fold / 2 - start, -fold / 2 - end), fold))

    def _with(self, stitch: Stitch) -> Stack:
        return replace(self, stitches=(*self.stitches, stitch))

    def cut(self, along: Line) -> tuple[Stack, Stack]:
        """Both layers cut; each part keeps the stitches in it."""
        return self._left_of(along), self._left_of(along.reversed())

    def _left_of(self, line: Line) -> Stack:
        kept = ((s, _segment_kept(s.line.start, s.line.end, line)) for s in self.stitches)
        stitches = tuple(Stitch(s.name, Line(*ends), s.fold) for s, ends in kept if ends)
        return Stack(_left_of(self.lower, line), _left_of(self.upper, line), stitches)

    def opened(self, name: str | None = None) -> Piece:
        """The upper piece folded back along the stitch of that name (the only one, when none is given).

        Other stitches that stray into it are picked out, as one does at the table.
        """
        stitch = next(s for s in self.stitches if name in (None, s.name))
        fold = stitch.line.shifted(stitch.fold / 2)
        stays, opens = _left_of(self.lower, fold), turned_over(_left_of(self.upper, fold), fold)
        away = fold.reversed()
        allowance = tuple(p for layer in (self.lower, self.upper) for p in _kept(layer.faces + layer.under, away))
        return Piece(
            stays.faces + opens.faces,
            stays.under + opens.under + allowance,
            (*stays.seams, *opens.seams, *_seam_along(fold, stays, opens, stitch.name)),
        )

    def sewn_length(self, stitch: Stitch) -> float:
        """Inches of thread line that really lie in both layers."""
        stretches = [stretch_inside(stitch.line, p.outline) for p in self.upper.faces + self.upper.under]
        found = [s for s in stretches if s]
        return max(high for _, high in found) - min(low for low, _ in found) if found else 0.0


def _seam_along(fold: Line, stays: Piece, opens: Piece, name: str) -> tuple[SewnSeam, ...]:
    """The stretch of the fold where visible cloth of both pieces meets."""
    ends = []
    for piece in (stays, opens):
        on = [fold.along(p) for f in piece.faces for p in f.outline if abs(fold.side(p)) < _ON_FOLD]
        if len(on) < 2:
            return ()
        ends.append((min(on), max(on)))
    low, high = max(ends[0][0], ends[1][0]), min(ends[0][1], ends[1][1])
    return (SewnSeam(fold.at(low), fold.at(high), name),) if high - low > _ON_FOLD else ()


def joined(lower: Piece, upper: Piece, raw_edge: Line, name: str, needle: Needle) -> Piece:
    """``upper``, already laid face down on ``lower``, sewn along a raw edge and opened."""
    return Stack(lower, upper).sewn(name, raw_edge, needle).opened()
