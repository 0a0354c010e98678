"""Half-square triangle: two right triangles of different fabrics, joined on their long edges.

Parts: the lower right half, the upper left half. Source: docs/theory, section 4.1.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from ..geometry.plane import Line, Point
from ..geometry.sewing import Needle, Piece, Stack, square, turned_over
from ..lengths import ZERO, Length, inches
from .acts import Apart, Cutting, Sewing, Track, Which
from .design import Design
from .kind import Kind, Mark, long_seams, part
from .method import Batch, Cuts, LadderRule, Making, Margins, Method, PieceRule, Spare, even_margins
from .spec import UnitSpec
from .work_surface import WorkSurface, half_triangle, long_edge

__all__ = ["EIGHT", "FLIPPED", "FOUR", "KIND", "LOOSE", "PAIR", "spare_from_corner"]


class HalfSquareTriangle(Kind):
    name = "half_square_triangle"
    title, many = "Half-square triangle", "half-square triangles"
    line = "two triangles on one diagonal"
    usual = "ab"
    parts = ("lower right half", "upper left half")

    def design(self, spec: UnitSpec) -> Design:
        halves = (part(spec, 0, (0, 0), (1, 0), (1, 1)), part(spec, 1, (0, 0), (1, 1), (0, 1)))
        return Design(float(spec.width), float(spec.height), halves)

    def anchor(self, spec: UnitSpec, unit: Piece, allowance: float) -> Point:
        del spec, allowance
        (x1, y1), (x2, y2) = long_seams(unit)[0].start, long_seams(unit)[0].end
        return (x1 + x2) / 2, (y1 + y2) / 2

    def marks(self, spec: UnitSpec, allowance: Length) -> tuple[Mark, ...]:
        del spec, allowance
        return (
            Mark("seam into the lower left corner", "left", ZERO),
            Mark("seam into the upper right corner", "right", ZERO),
        )


KIND = HalfSquareTriangle()


class _Square(Method):
    """What the ways share: one size of square."""

    kind = KIND.name

    def margins(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Margins:
        raw, _ = self.raw(spec, cuts, allowance, take_up)
        return even_margins(raw, spec.width + allowance * 2)

    def ladders(self, spec: UnitSpec) -> tuple[LadderRule, ...]:
        del spec
        return (LadderRule("size", "square", self.change),)

    change = "to the diagonal seam"


class Pair(_Square):
    """Two squares sewn both sides of one diagonal, cut on it."""

    name = "pair"
    title = "Pair"
    line = "two at a time, both sides of a diagonal"

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        return Batch((PieceRule("square", 0, 1), PieceRule("square", 1, 1)), units=2)

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        return Cuts(square=spec.width + allowance * 2 + margin * 2 + take_up.times_root2())

    def thumb_cuts(self, spec: UnitSpec, allowance: Length, level: int) -> Cuts:
        """F + 4s trims a little (F + 1 at a quarter inch), F + 6s generously (F + 1 1/2)."""
        return Cuts(square=spec.width + allowance * (2 + 2 * level))

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        """R = C - √2 e: the seam eats e square to the diagonal, hence √2 e along each side."""
        raw = cuts["square"] - take_up.times_root2()
        return raw, raw

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench, side = WorkSurface(needle, cuts), cuts["square"]
        lower, upper = square(side, spec.part_fabrics[1]), square(side, spec.part_fabrics[0])
        diagonal = Line((0.0, 0.0), (side, side))
        return bench.making(*bench.sew_pair(lower, upper, "diagonal", diagonal))


class HalfSquareFour(_Square):
    """Two squares sewn right round the outside, cut on both diagonals: every outer edge ends on the bias."""

    name = "four"
    title = "Four from a pair"
    line = "sewn right round; bias outside"
    change = "four units from each pair, less the seams"

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        return Batch((PieceRule("square", 0, 1), PieceRule("square", 1, 1)), units=4)

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        return Cuts(square=(spec.width + allowance * 2 + margin * 2).times_root2() + take_up * 2)

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        """R = (C - 2e)/√2."""
        raw = (cuts["square"] - take_up * 2).over_root2()
        return raw, raw

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench, side = WorkSurface(needle, cuts), cuts["square"]
        corners = ((0.0, 0.0), (side, 0.0), (side, side), (0.0, side))
        one, other = Line(corners[0], corners[2]), Line(corners[1], corners[3])
        upper = turned_over(square(side, spec.part_fabrics[0]), one)
        stack = bench.stack(square(side, spec.part_fabrics[1]), upper, "round", Which.BOTH, (), mark=False)
        for n in range(4):
            stack = bench.sew(stack, f"edge {n + 1}", Line(corners[n], corners[(n + 1) % 4]))
        quarters = [q for half in bench.cut(stack, one) for q in bench.cut(half, other)]
        units = [_longest_opened(q).turned(45) for q in quarters]
        bench.sewn_apart(
            stack, "round", Sewing("round", Track.ROUND), Apart(Cutting.BOTH, Which.BOTH), (one, other), units
        )
        return bench.making(*units)


class Eight(_Square):
    """Two squares, both diagonals drawn, sewn both sides of each, cut in quarters and on both diagonals."""

    name = "eight"
    title = "Eight from a pair"
    line = "both sides of both diagonals"
    change = "eight units from each pair, less the seams"

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        return Batch((PieceRule("square", 0, 1), PieceRule("square", 1, 1)), units=8)

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        return Cuts(square=(spec.width + allowance * 2 + margin * 2 + take_up.times_root2()) * 2)

    def thumb_cuts(self, spec: UnitSpec, allowance: Length, level: int) -> Cuts:
        return Cuts(square=(spec.width + allowance * (2 + 2 * level)) * 2)

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        """R = C/2 - √2 e."""
        raw = cuts["square"] / 2 - take_up.times_root2()
        return raw, raw

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench, side = WorkSurface(needle, cuts), cuts["square"]
        one, other = Line((0.0, 0.0), (side, side)), Line((side, 0.0), (0.0, side))
        upper = turned_over(square(side, spec.part_fabrics[0]), one)
        stack = bench.stack(square(side, spec.part_fabrics[1]), upper, "diagonals", Which.BOTH, (one, other))
        stack = bench.sew_both_sides(bench.sew_both_sides(stack, "diagonal 1", one), "diagonal 2", other)
        upright, level = Line((side / 2, 0.0), (side / 2, side)), Line((0.0, side / 2), (side, side / 2))
        units = []
        for left_or_right, half in enumerate(bench.cut(stack, upright)):
            for upper_or_lower, quarter in enumerate(bench.cut(half, level)):
                # Lower left and upper right quarters lie on the first diagonal.
                through = one if left_or_right != upper_or_lower else other
                units += [_longest_opened(s) for s in bench.cut(quarter, through)]
        sewing, apart = Sewing("diagonals", Track.BESIDE, Which.BOTH), Apart(Cutting.EIGHT, Which.BOTH)
        bench.sewn_apart(stack, "diagonals", sewing, apart, (upright, level, one, other), units)
        return bench.making(*units)


class HalfSquareLoose(Pair):
    """Squares cut once on the diagonal, or triangles bought or left over, joined on the long edge."""

    name = "loose_triangles"
    title = "Loose triangles"
    line = "any hand; bias edges to handle"

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        return Batch((PieceRule("square", 0, 1, gives=2), PieceRule("square", 1, 1, gives=2)), units=1)

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench, side = WorkSurface(needle, cuts), cuts["square"]
        edge = long_edge(side)
        a, b = (half_triangle(side, role) for role in spec.part_fabrics)
        return bench.making(bench.join(a, edge, b, edge, "diagonal", loose=True))


class HalfSquareFlipped(_Square):
    """A square over a whole square, sewn on its diagonal and folded over: exact, unless both are cut larger."""

    name = "flipped_corner"
    title = "Flipped square"
    line = "exact; leaves a spare"
    exact = True
    change = "nothing: the fold lies on the diagonal"

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        pieces = (PieceRule("square", 0, 1), PieceRule("square", 1, 1))
        base, other = spec.part_fabrics
        return Batch(pieces, units=1, spares=spare_from_corner(base, [(cuts["square"], other)], allowance, take_up))

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        return Cuts(square=spec.width + allowance * 2 + margin * 2)

    def thumb_cuts(self, spec: UnitSpec, allowance: Length, level: int) -> Cuts:
        return self.minimum_cuts(spec, allowance, allowance, flipped_margin(allowance, level))

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        return cuts["square"], cuts["square"]

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench, side = WorkSurface(needle, cuts), cuts["square"]
        unit = bench.flipped(square(side, spec.part_fabrics[0]), 3, side, spec.part_fabrics[1], allowance, "diagonal")
        return bench.making(unit)


def flipped_margin(allowance: Length, level: int) -> Length:
    """Flipped pieces come out exact; a little more is s/4 a side, generous is s."""
    return allowance / 4 if level == 1 else allowance


_SMALLEST_SPARE = inches("1/4")
"""Finished; a smaller unit is nothing that anyone sews."""


def spare_from_corner(
    base: str, corners: Iterable[tuple[Length, str]], allowance: Length, take_up: Length
) -> tuple[Spare, ...]:
    """The small half-square triangles from cut-off corners, given by the size of their squares and their fabric: raw size
    k - √2 (s + e), where that finishes a quarter inch or more."""
    found: dict[tuple[Length, tuple[str, str]], int] = {}
    for size, fabric in corners:
        raw = size - (allowance + take_up).times_root2()
        if raw >= allowance * 2 + _SMALLEST_SPARE:
            found[raw, (base, fabric)] = found.get((raw, (base, fabric)), 0) + 1
    return tuple(Spare(count, raw, fabrics) for (raw, fabrics), count in found.items())


def _longest_opened(stack: Stack) -> Piece:
    """Opened along the seam that is its own; ends of other seams that stray into it are picked out."""
    return stack.opened(max(stack.stitches, key=stack.sewn_length).name)


PAIR, FOUR, EIGHT, LOOSE, FLIPPED = Pair(), HalfSquareFour(), Eight(), HalfSquareLoose(), HalfSquareFlipped()
