"""What hands do between the piles and the unit, one act after another, in terms that a quilter can follow at the table.

An act names what lies there by what one sees (its fabrics, its shape, where its right angle or its fabrics lie) and says
what to do in words that have one meaning each. The sentences of a step are made from its act and from nothing else; whoever
follows the acts alone makes the unit (``core/tests/follower.py`` does). Directions are as one looks down on the table.
Source: docs/theory, section 3.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum
from math import atan2, degrees, hypot

from ..geometry.plane import Line, Point, Polygon, area, centroid, sides_of
from ..geometry.sewing import Patch, Piece, Stack

__all__ = [
    "Act",
    "Align",
    "Apart",
    "Bit",
    "Cutting",
    "Form",
    "LayCorner",
    "LayPage",
    "LayStack",
    "MarkLines",
    "Moment",
    "Opening",
    "Sewing",
    "Take",
    "Thing",
    "Track",
    "TrimSquare",
    "Where",
    "Which",
    "form_of",
    "lies",
    "turned_over_template",
    "where_to",
]

_SAME = 1e-5
"""Inches within which two sizes are one."""
_APART = 0.05
"""A fabric counts as lying to one side when its middle is so much of the piece's size off the piece's."""


class Where(StrEnum):
    """A direction on the table."""

    RIGHT = "right"
    UPPER_RIGHT = "upper right"
    TOP = "top"
    UPPER_LEFT = "upper left"
    LEFT = "left"
    LOWER_LEFT = "lower left"
    BOTTOM = "bottom"
    LOWER_RIGHT = "lower right"


class Form(StrEnum):
    """The shape of a piece as it was cut."""

    SQUARE = "square"
    OBLONG = "rectangle"
    STRIP = "strip"
    HALF = "half"
    """Half of a square cut once on the diagonal."""
    QUARTER = "quarter"
    """Quarter of a square cut on both diagonals."""
    TEMPLATE = "template"
    PIECED = "pieced"


@dataclass(frozen=True, slots=True)
class Bit:
    """A piece as it comes from a pile: its cut size by name (``by`` names its other side), its fabric role and shape; ``mirrored``
    when it was cut round its template turned over."""

    name: str
    by: str
    form: Form
    fabric: str
    mirrored: bool = False


@dataclass(frozen=True, slots=True)
class Thing:
    """Something on the table. ``bit`` is a piece as cut, ``number`` the result of an earlier act; ``lies`` says where its right
    angle, tip or fabrics lie, ``edge`` which fabrics its edge to be sewn shows."""

    form: Form
    fabrics: tuple[str, ...]
    lies: tuple[tuple[str, str], ...] = ()
    bit: Bit | None = None
    number: int = 0
    edge: tuple[str, ...] = ()
    long_side: bool = False

    @property
    def pieced(self) -> bool:
        """Whether it has a seam in it."""
        return self.form is Form.PIECED


class Align(StrEnum):
    """How two edges are laid on each other."""

    ENDS = "ends"
    MIDDLES = "middles"
    LOWER = "lower end"
    UPPER = "upper end"
    BEYOND = "beyond"


@dataclass(frozen=True, slots=True)
class Take:
    """From the piles: which bits, and how many of each for one go."""

    bits: tuple[tuple[Bit, int], ...]


class Which(StrEnum):
    """Which lines are drawn, or cut: rising from lower left to upper right, falling, or both."""

    RISING = "rising"
    FALLING = "falling"
    BOTH = "both"


@dataclass(frozen=True, slots=True)
class MarkLines:
    """On the wrong side of ``on``, from corner to corner. ``over_seam`` when the line crosses the seam that is in it."""

    on: Thing
    which: Which
    over_seam: bool = False


@dataclass(frozen=True, slots=True)
class LayStack:
    """Two squares right sides together, edges flush; ``upper`` face down, ``lies`` as it lies there."""

    lower: Thing
    upper: Thing
    nested: bool = False


@dataclass(frozen=True, slots=True)
class LayPage:
    """``left`` and ``right`` lie side by side, right sides up; the right one is turned over onto the left one like a page, and their
    facing edges are sewn. ``beyond`` is how far, in inches, the right one's edge reaches past the lower end of the left one's."""

    left: Thing
    right: Thing
    align: Align
    beyond: float = 0.0
    crossing: bool = False


@dataclass(frozen=True, slots=True)
class LayCorner:
    """``upper`` squares face down on the corners ``at`` of ``lower``, edges flush with it."""

    lower: Thing
    upper: Thing
    at: tuple[Where, ...]


class Track(StrEnum):
    """Where a seam is sewn."""

    BESIDE = "beside"
    """Both sides of the drawn line, an allowance away."""
    EDGE = "edge"
    """Along the edges laid together."""
    ON = "on"
    """On the drawn line, or a thread outside it."""
    ROUND = "round"
    """Along all four sides."""


@dataclass(frozen=True, slots=True)
class Sewing:
    """One seam, or the seams of one line; ``which`` of the lines. ``outside`` is where the corner lies that is cut off."""

    name: str
    how: Track
    which: Which | None = None
    outside: Where | None = None


class Cutting(StrEnum):
    """Which way things are cut apart after sewing."""

    LINE = "line"
    BOTH = "both diagonals"
    EIGHT = "quarters, then diagonals"
    OFF = "off the corner"
    ACROSS = "across"
    TRUE = "true the edge"


@dataclass(frozen=True, slots=True)
class Apart:
    """Along drawn lines, an allowance outside the seam (off the corner), across at a strip's width, or an edge trued an allowance
    beyond the inner corner; of a ``thing`` so cut comes what is numbered ``into``."""

    how: Cutting
    which: Which | None = None
    thing: Thing | None = None
    into: int = 0


@dataclass(frozen=True, slots=True)
class Opening:
    """``things`` come out, ``each`` of them how often; the seams are set closed and opened."""

    seam: str
    out: tuple[tuple[Thing, int], ...]


@dataclass(frozen=True, slots=True)
class TrimSquare:
    """A unit on the way, trimmed to a square of ``side`` inches about its middle; ``raw`` is what it measures. ``side`` None: only
    measured."""

    thing: Thing
    raw: float
    side: float | None
    into: int = 0


Act = Take | MarkLines | LayStack | LayPage | LayCorner | Sewing | Apart | Opening | TrimSquare


@dataclass(frozen=True, slots=True)
class Moment:
    """An act, how often it is done in one go, and what lies on the table then: ``before`` side by side, or the ``stack``, or what
    came out, with lines drawn, cuts to make, where to begin sewing, and the ``edges`` that come together, cloth
    on their left."""

    key: str
    act: Act
    times: int = 1
    before: tuple[Piece, ...] = ()
    stack: Stack | None = None
    after: tuple[Piece, ...] = ()
    drawn: tuple[Line, ...] = ()
    blades: tuple[Line, ...] = ()
    begin: Point | None = None
    edges: tuple[Line, ...] = ()


_ROUND = tuple(Where)


def where_to(dx: float, dy: float) -> Where:
    """The direction of a vector, to the nearest eighth of a turn."""
    return _ROUND[round(degrees(atan2(dy, dx)) / 45) % 8]


def _middle(patches: Iterable[Patch]) -> tuple[Point, float]:
    """The centre of area of patches, and their area."""
    total = x = y = 0.0
    for p in patches:
        first = p.outline[0]
        for a, b in zip(p.outline[1:], p.outline[2:], strict=False):
            part = area((first, a, b))
            total += part
            x += part * (first[0] + a[0] + b[0]) / 3
            y += part * (first[1] + a[1] + b[1]) / 3
    return (x / total, y / total), total


def lies(piece: Piece) -> tuple[tuple[str, str], ...]:
    """Where the features of a piece lie that tell how it is turned: a right angle, a tip, the long side, its fabrics."""
    if len(piece.faces) == 1:
        return _shape_lies(piece.faces[0].outline)
    (cx, cy), whole = _middle(piece.faces)
    size = abs(whole) ** 0.5
    found = []
    for fabric in dict.fromkeys(f.fabric for f in piece.faces):
        (x, y), _ = _middle(f for f in piece.faces if f.fabric == fabric)
        if hypot(x - cx, y - cy) > _APART * size:
            found.append((fabric, str(where_to(x - cx, y - cy))))
    return tuple(sorted(found))


def _shape_lies(outline: Polygon) -> tuple[tuple[str, str], ...]:
    if len(outline) == 3:
        point, right = _top_of(outline)
        x, y = centroid(outline)
        return ((("right angle" if right else "tip"), str(where_to(point[0] - x, point[1] - y))),)
    sides = sides_of(outline)
    lengths = [s.along(s.end) for s in sides]
    if max(lengths) - min(lengths) < _SAME:
        dx, dy = sides[0].direction
        return () if min(abs(dx), abs(dy)) < _SAME else (("corner", str(Where.TOP)),)
    dx, dy = sides[lengths.index(max(lengths))].direction
    return (("long side", str(where_to(*((dx, dy) if dy > _SAME or (abs(dy) <= _SAME and dx > 0) else (-dx, -dy))))),)


def _top_of(triangle: Polygon) -> tuple[Point, bool]:
    """The corner opposite the longest side, and whether the angle there is a right one."""
    sides = sides_of(triangle)
    longest = max(sides, key=lambda s: s.along(s.end))
    point = max(triangle, key=longest.side)
    square = sum(s.along(s.end) ** 2 for s in sides)
    return point, abs(square - 2 * longest.along(longest.end) ** 2) < _SAME


def turned_over_template(outline: Polygon, wide: float) -> bool:
    """Whether a right triangle with unlike legs is the mirror image of one whose wide leg runs into its right angle."""
    point, right = _top_of(outline)
    at = outline.index(point)
    here, after = outline[at], outline[(at + 1) % 3]
    before = outline[at - 1]
    legs = [hypot(p[0] - here[0], p[1] - here[1]) for p in (before, after)]
    return right and abs(legs[0] - legs[1]) > _SAME and abs(legs[1] - wide) < _SAME


def form_of(patch: Patch, sizes: dict[str, float]) -> tuple[Form, str, str]:
    """Shape of one bit of cloth, and the names of the cut sizes that it has; the names are empty when none fit."""
    gx, gy = patch.grain
    along = [x * gx + y * gy for x, y in patch.outline]
    across = [y * gx - x * gy for x, y in patch.outline]
    w, h = max(along) - min(along), max(across) - min(across)

    def name_of_point(size: float) -> str:
        return next((n for n, s in sizes.items() if abs(s - size) < _SAME), "")

    if len(patch.outline) == 4:
        if abs(w - h) < _SAME and name_of_point(w):
            return Form.SQUARE, name_of_point(w), ""
        wide, high = max(w, h), min(w, h)
        form = Form.STRIP if wide > 2.5 * high else Form.OBLONG
        pairs = ((w, h), (h, w))
        one, other = next(((a, b) for a, b in pairs if name_of_point(a) and name_of_point(b)), (w, h))
        return form, name_of_point(one), name_of_point(other)
    both = [(n, m) for n, a in sizes.items() for m, b in sizes.items() if n.endswith("_wide") and m == n[:-5] + "_tall"]
    for n, m in both:
        for a, b in ((w, h), (h, w)):
            if abs(sizes[n] - a) < _SAME and abs(sizes[m] - b) < _SAME:
                return Form.TEMPLATE, n, m
    if abs(w - h) < _SAME:
        return Form.HALF, name_of_point(w), ""
    return Form.QUARTER, name_of_point(max(w, h)), ""
