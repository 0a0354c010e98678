"""Pictures as plain data: marks, dimensions and an outline, in inches with y downward as screens have it.

Everything in a ``Drawing`` comes out of the engine; a screen only strokes and fills by ``role``.

Roles: ``face`` (cloth, with its fabric role), ``under`` (allowance peeping out), ``back`` (wrong side of a
cloth), ``seam`` (fold line seen on the right side), ``stitch`` (sewing line), ``blade`` (where to cut),
``tip`` (a point to look at), ``clearance`` (its distance to the edge), ``target`` (the size to come), ``finished`` (what neighbours leave visible), ``fresh`` (a cut just made),
``ruler``, ``ruler-line`` and ``ruler-diagonal``; of a block as sewn: ``patch`` (cloth without an outline), ``joined`` (one
unit's outline) and ``fault-point``.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from ..messages import Message
from .plane import Line, Point, Polygon, rotated
from .sewing import Piece

__all__ = ["Dimension", "Drawing", "DrawnMark", "Sketch", "Stamp"]


@dataclass(frozen=True, slots=True)
class DrawnMark:
    role: str
    points: Polygon
    closed: bool = True
    fabric: str = ""


@dataclass(frozen=True, slots=True)
class Stamp:
    """Marks about a middle, set down ``at`` several places, each turned by ``turn`` degrees anticlockwise as one sees it. Its marks
    lie beside each other, none over another."""

    marks: tuple[DrawnMark, ...]
    at: tuple[Point, ...]
    turn: float = 0.0

    def set_down(self) -> Iterator[DrawnMark]:
        """Every mark where it comes to lie."""
        for x, y in self.at:
            for m in self.marks:
                points = tuple((x + px, y + py) for px, py in (rotated(p, -self.turn) for p in m.points))
                yield DrawnMark(m.role, points, m.closed, m.fabric)


@dataclass(frozen=True, slots=True)
class Dimension:
    """A measured distance: its two ends, where its label stands, and the label."""

    start: Point
    end: Point
    at: Point
    label: Message


@dataclass(frozen=True, slots=True)
class Drawing:
    """``left, top, width, height`` is the window in inches; ``alt`` says the picture in words. ``stamps`` lie over ``marks``."""

    window: tuple[float, float, float, float]
    marks: tuple[DrawnMark, ...]
    dimensions: tuple[Dimension, ...]
    alt: Message
    stamps: tuple[Stamp, ...] = ()

    @property
    def all_marks(self) -> tuple[DrawnMark, ...]:
        """Every mark where it lies, those of the stamps too."""
        return (*self.marks, *(m for s in self.stamps for m in s.set_down()))


class Sketch:
    """Collects marks with y upward, hands out a ``Drawing`` with y downward."""

    def __init__(self) -> None:
        self._marks: list[DrawnMark] = []
        self._dimensions: list[Dimension] = []
        self._stamps: list[Stamp] = []

    def polygon(self, role: str, outline: Polygon, fabric: str = "") -> Sketch:
        """Adds a filled outline, corners in inches with y upward."""
        self._marks.append(DrawnMark(role, _down(outline), True, fabric))
        return self

    def mark(self, role: str, at: Point) -> Sketch:
        """A single point."""
        self._marks.append(DrawnMark(role, _down((at,)), False))
        return self

    def line(self, role: str, start: Point, end: Point) -> Sketch:
        """Adds a line, ends in inches with y upward."""
        self._marks.append(DrawnMark(role, _down((start, end)), False))
        return self

    def piece(self, piece: Piece, *, seams: bool = True) -> Sketch:
        """Adds a sewn piece: what lies under, its faces and, if wanted, its seams."""
        for patch in piece.under:
            self.polygon("under", patch.outline, patch.fabric)
        for patch in piece.faces:
            self.polygon("face", patch.outline, patch.fabric)
        for seam in piece.seams if seams else ():
            self.line("seam", seam.start, seam.end)
        return self

    def stretch(self, role: str, line: Line, beyond: float) -> Sketch:
        """A line drawn ``beyond`` inches past both its ends."""
        (x1, y1), (x2, y2), (dx, dy) = line.start, line.end, line.direction
        return self.line(role, (x1 - dx * beyond, y1 - dy * beyond), (x2 + dx * beyond, y2 + dy * beyond))

    def stamp(self, drawn: Sketch, at: Iterable[Point], turn: float = 0.0) -> Sketch:
        """Sets what another sketch drew about its middle down at each point, y upward, turned by degrees anticlockwise."""
        self._stamps.append(Stamp(tuple(drawn._marks), _down(at), turn))
        return self

    def dimension(self, start: Point, end: Point, at: Point, label: Message) -> Sketch:
        """Adds a measured distance; ``at`` is where its figure stands."""
        down = _down((start, end, at))
        self._dimensions.append(Dimension(down[0], down[1], down[2], label))
        return self

    def to_drawing(self, window: tuple[float, float, float, float], alt: Message) -> Drawing:
        """``window`` is left, bottom, right, top."""
        left, bottom, right, top = window
        return Drawing(
            (left, -top, right - left, top - bottom),
            tuple(self._marks),
            tuple(self._dimensions),
            alt,
            tuple(self._stamps),
        )


def _down(points: Iterable[Point]) -> Polygon:
    return tuple((x, -y) for x, y in points)
