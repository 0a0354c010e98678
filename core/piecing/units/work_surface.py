"""The working surface of a method's script: sews, cuts and opens, and keeps count of what was done.

Pieces that several methods start from are made here too. Source: docs/theory, section 3.
"""

from __future__ import annotations

from collections.abc import Iterable

from ..geometry.plane import Line, Point, rectangle, sides_of
from ..geometry.sewing import Needle, Patch, Piece, Stack, joined, laid_on, square, trim, turned_over
from ..messages import Message
from .method import LaidTogether, Making, SquareBetween, Stage

__all__ = ["WorkSurface", "half_triangle", "long_edge", "quarter_legs", "quarter_triangle"]


_SAME = 1e-6
"""Inches within which two sizes are one."""


def _fabrics(piece: Piece) -> tuple[str, ...]:
    return tuple(dict.fromkeys(f.fabric for f in piece.faces))


def half_triangle(side: float, fabric: str) -> Piece:
    """Half of a square cut once on the diagonal: right angle lower right, legs on the straight grain."""
    return Piece((Patch(((0.0, 0.0), (side, 0.0), (side, side)), fabric),))


def long_edge(side: float) -> Line:
    """The long edge of that triangle, cloth on its left."""
    return Line((side, side), (0.0, 0.0))


def quarter_triangle(side: float, fabric: str) -> Piece:
    """Quarter of a square cut twice: base below and on the straight grain, apex above."""
    return Piece((Patch(((0.0, 0.0), (side, 0.0), (side / 2, side / 2)), fabric),))


def quarter_legs(side: float) -> tuple[Line, Line]:
    """Its left leg, from the apex down, and its right leg, up to the apex; cloth on the left of both."""
    apex = (side / 2, side / 2)
    return Line(apex, (0.0, 0.0)), Line((side, 0.0), apex)


class WorkSurface:
    """Everything a script does goes through here, so that it can be counted and drawn."""

    def __init__(self, needle: Needle) -> None:
        self.needle = needle
        self._stages: list[Stage] = []
        self._sewn = 0.0
        self._seams = 0
        self._cuts = 0
        self._blades: list[Line] = []
        self.cut_off: Stack | None = None
        self._loose_bias = False
        self._together: dict[LaidTogether, None] = {}
        self._between: dict[SquareBetween, None] = {}

    def show(self, title: str, shown: Stack | Piece, blades: Iterable[Line] = ()) -> None:
        """Keeps a stage for the drawing of the method, with the cuts that are made next."""
        self._stages.append(Stage(Message(title), shown, tuple(blades)))

    def _count(self, stack: Stack) -> Stack:
        self._sewn += stack.sewn_length(stack.stitches[-1])
        self._seams += 1
        self._together.setdefault(LaidTogether(_fabrics(stack.lower), _fabrics(stack.upper)))
        return stack

    def sew(self, stack: Stack, name: str, raw_edge: Line) -> Stack:
        """Sews two pieces along a raw edge, at the needle's distance from it."""
        return self._count(stack.sewn(name, raw_edge, self.needle))

    def sew_on(self, stack: Stack, name: str, line: Line) -> Stack:
        """Sews two pieces on a line drawn across them."""
        return self._count(stack.sewn_on(name, line, self.needle))

    def sew_both_sides(self, stack: Stack, name: str, line: Line) -> Stack:
        """Two seams, one each side of a line that will be cut on."""
        return self.sew(self.sew(stack, name, line), name, line.reversed())

    def cut(self, stack: Stack, along: Line) -> tuple[Stack, Stack]:
        """Cuts along a line; returns what lies left and right of it."""
        self._blades.append(along)
        self._cuts += 1
        return stack.cut(along)

    def join(
        self, lower: Piece, onto: Line, upper: Piece, edge: Line, name: str, meet: float = 0.0, *, loose: bool = False
    ) -> Piece:
        """``upper`` laid face down with its ``edge`` on the edge ``onto`` of ``lower``, sewn and opened.

        ``loose`` says that a raw bias edge is handled on the way.
        """
        laid = laid_on(upper, edge, onto, meet)
        self._count(Stack(lower, laid).sewn(name, onto, self.needle))
        self._loose_bias = self._loose_bias or loose
        return joined(lower, laid, onto, name, self.needle)

    def half_square(self, side: float, lower_right: str, upper_left: str, name: str) -> Piece:
        """One half-square triangle out of a pair of squares, its lower left visible corner at the origin."""
        a, b = half_triangle(side, lower_right), half_triangle(side, upper_left)
        edge = long_edge(side)
        unit = self.join(a, edge, b, edge, name).at_origin()
        self._cuts += 1
        return unit

    def trimmed(self, unit: Piece, side: float) -> Piece:
        """Trimmed to a square about its middle, lower left corner at the origin."""
        left, bottom, right, top = unit.extent
        self._between.setdefault(SquareBetween(right - left, side))
        box = rectangle(side, side, ((left + right - side) / 2, (bottom + top - side) / 2))
        return trim(unit, *sides_of(box))[0].at_origin()

    def paired(self, lower: Piece, upper: Piece, name: str, across: Line, title: str) -> tuple[Piece, Piece]:
        """Two squares (pieced or plain) right sides together, sewn both sides of a diagonal, cut on it and opened."""
        trimmed = [b.trimmed for b in self._between]
        for piece in (lower, upper):
            x0, _, x1, _ = piece.extent
            if len(piece.faces) > 1 and not any(t and abs(x1 - x0 - t) < _SAME for t in trimmed):
                self._between.setdefault(SquareBetween(x1 - x0, None))
        stack = self.sew_both_sides(Stack(lower, turned_over(upper, across)), name, across)
        self.show(title, stack, (across,))
        left, right = self.cut(stack, across)
        return left.opened(), right.opened()

    def flipped(self, piece: Piece, corner: int, size: float, fabric: str, allowance: float, name: str) -> Piece:
        """A square of ``size`` sewn on its diagonal over a corner, cut off outside the seam and folded over.

        Corners are counted from the lower left, anticlockwise.
        """
        left, bottom, right, top = piece.extent
        at: Point = ((left, right - size, right - size, left)[corner], (bottom, bottom, top - size, top - size)[corner])
        x, y = at
        ends = (
            ((x, y + size), (x + size, y)),
            ((x, y), (x + size, y + size)),
            ((x + size, y), (x, y + size)),
            ((x + size, y + size), (x, y)),
        )[corner]
        line = Line(*ends)
        cover = square(size, fabric).shifted(x, y)
        over = Line((x + size / 2, y), (x + size / 2, y + size))
        stack = self.sew_on(Stack(piece, turned_over(cover, over)), name, line)
        blade = line.shifted(-allowance)
        self.show("A square on the corner, sewn on its diagonal", stack, (blade,))
        kept, self.cut_off = self.cut(stack, blade)
        return kept.opened(name)

    def spare(self) -> Piece:
        """The pair just cut off a flipped corner, sewn again an allowance from its cut: a small half-square triangle."""
        assert self.cut_off is not None
        raw_edge = self._blades[-1].reversed()
        return Stack(self.cut_off.lower, self.cut_off.upper).sewn("spare", raw_edge, self.needle).opened()

    def made(self, *units: Piece) -> Making:
        """What came of it, with every stage shown on the way."""
        return Making(
            tuple(units),
            tuple(self._stages),
            self._sewn,
            self._seams,
            self._cuts,
            self._loose_bias,
            tuple(self._together),
            tuple(self._between),
        )
