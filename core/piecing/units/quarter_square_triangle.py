"""Quarter-square triangle (hourglass): four triangles round a crossing.

Parts, anticlockwise: bottom, right, top, left. Source: docs/theory, section 4.2.
"""

from __future__ import annotations

from collections.abc import Mapping

from ..geometry.plane import Line, Point
from ..geometry.sewing import Needle, Piece
from ..lengths import ZERO, Length
from .design import Design
from .kind import Kind, Mark, crossing, part
from .method import Batch, Cuts, Hands, LadderRule, Making, Margins, Method, PieceRule, even_margins, outgrown
from .spec import UnitSpec
from .work_surface import WorkSurface, quarter_legs, quarter_triangle

__all__ = ["KIND", "LOOSE", "TWO_TRIMMED", "TWO_UNITS", "sewn_quarters"]


class QuarterSquareTriangle(Kind):
    name = "quarter_square_triangle"
    title, many = "Hourglass", "hourglasses"
    line = "four triangles round a crossing"
    usual = "abab"
    parts = ("bottom", "right", "top", "left")

    def design(self, spec: UnitSpec) -> Design:
        corners = ((0, 0), (1, 0), (1, 1), (0, 1))
        quarters = tuple(part(spec, n, corners[n], corners[(n + 1) % 4], (0.5, 0.5)) for n in range(4))
        return Design(float(spec.width), float(spec.height), quarters)

    def anchor(self, spec: UnitSpec, unit: Piece, allowance: float) -> Point:
        del spec, allowance
        return crossing(unit)

    def marks(self, spec: UnitSpec, allowance: Length) -> tuple[Mark, ...]:
        middle = spec.width / 2 + allowance
        return tuple(Mark("crossing of the seams", side, middle) for side in ("left", "right", "bottom", "top"))


KIND = QuarterSquareTriangle()


class _Squares(Method):
    kind = KIND.name

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        return Cuts(square=spec.width + allowance * 2 + margin * 2 + take_up.times_root2() * 2)

    def thumb_cuts(self, spec: UnitSpec, allowance: Length, level: int) -> Cuts:
        """F + 6s trims a little (F + 1 1/2 at a quarter inch), F + 8s generously (F + 2)."""
        return Cuts(square=spec.width + allowance * (4 + 2 * level))

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        """R = C - 2√2 e."""
        raw = cuts["square"] - take_up.times_root2() * 2
        return raw, raw

    def margins(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Margins:
        raw, _ = self.raw(spec, cuts, allowance, take_up)
        return even_margins(raw, spec.width + allowance * 2)

    def ladders(self, spec: UnitSpec) -> tuple[LadderRule, ...]:
        return (LadderRule("size", "square", "to the two diagonal seams"),)


class QuarterTwoUnits(_Squares):
    """Two half-square triangles laid together, seams nested, sewn both sides of the other diagonal."""

    name = "two_half_square_triangles"
    title = "Two half-squares"
    line = "laid together, seams nested"

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        first, second = {spec.part_fabrics[0], spec.part_fabrics[3]}, {spec.part_fabrics[1], spec.part_fabrics[2]}
        if first == second:
            return Batch((PieceRule("square", 0, 1), PieceRule("square", 3, 1)), 2, Hands.HALF_EACH)
        return Batch(tuple(PieceRule("square", n, 1) for n in range(4)), 4, Hands.HALF_EACH)

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench = WorkSurface(needle, cuts)
        stacks = (
            1 if {spec.part_fabrics[0], spec.part_fabrics[3]} == {spec.part_fabrics[1], spec.part_fabrics[2]} else 2
        )
        return bench.making(*(unit for _ in range(stacks) for unit in self._stack(bench, spec, cuts)))

    def _stack(self, bench: WorkSurface, spec: UnitSpec, cuts: Mapping[str, float]) -> tuple[Piece, Piece]:
        one, other = self._halves(bench, spec, cuts)
        side = one.extent[2]
        # Turned over along the second diagonal the other unit shows its seam on the first one's, fabrics as it lies.
        across = Line((0.0, side), (side, 0.0))
        return bench.sew_pair(one, other, "second diagonal", across, over_seam=True)

    def _halves(self, bench: WorkSurface, spec: UnitSpec, cuts: Mapping[str, float]) -> tuple[Piece, Piece]:
        bottom, right, top, left = spec.part_fabrics
        side = cuts["square"]
        one = bench.half_square(side, bottom, left, "first diagonal")
        other = bench.half_square(side, right, top, "first diagonal")
        return one, other


class TwoTrimmed(QuarterTwoUnits):
    """The same, the half-square triangles trimmed in between: the second diagonal then starts from true corners."""

    name = "two_half_square_triangles_trimmed"
    title = "Two half-squares, trimmed"
    line = "true corners in between"

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        trimmed = spec.width + allowance * 2 + margin * 2 + take_up.times_root2()
        return Cuts(square=trimmed + take_up.times_root2(), trimmed=trimmed)

    def thumb_cuts(self, spec: UnitSpec, allowance: Length, level: int) -> Cuts:
        trimmed = spec.width + allowance * (2 + 2 * level)
        return Cuts(square=trimmed + allowance * 2, trimmed=trimmed)

    def reconciled_cuts(
        self, spec: UnitSpec, wanted: Cuts, cuts: Cuts, seam: tuple[Length, Length], step: Length
    ) -> Cuts:
        return outgrown(cuts, "trimmed", seam[1], step)

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        """R = T - √2 e."""
        raw = cuts["trimmed"] - take_up.times_root2()
        return raw, raw

    def ladders(self, spec: UnitSpec) -> tuple[LadderRule, ...]:
        return (LadderRule("size", "trimmed", "to the second diagonal seam"),)

    def _halves(self, bench: WorkSurface, spec: UnitSpec, cuts: Mapping[str, float]) -> tuple[Piece, Piece]:
        one, other = super()._halves(bench, spec, cuts)
        return bench.trimmed(one, cuts["trimmed"]), bench.trimmed(other, cuts["trimmed"])


class QuarterSquareLoose(_Squares):
    """Squares cut twice, four triangles each: any ring of fabrics, straight grain outside."""

    name = "loose_triangles"
    title = "Loose triangles"
    line = "any hand; bias edges to handle"

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        return Batch(tuple(PieceRule("square", n, 1, gives=4) for n in range(4)), units=1)

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench, side = WorkSurface(needle, cuts), cuts["square"]
        bottom, right, top, left = spec.part_fabrics
        one, edge = sewn_quarters(bench, side, bottom, right)
        other, _ = sewn_quarters(bench, side, top, left)
        return bench.making(bench.join(one, edge, other, edge, "long diagonal", loose=True, crossing=True))


LOOSE, TWO_UNITS, TWO_TRIMMED = QuarterSquareLoose(), QuarterTwoUnits(), TwoTrimmed()


def sewn_quarters(bench: WorkSurface, side: float, first: str, second: str) -> tuple[Piece, Line]:
    """Two quarter triangles joined on a leg: right angle lower right, ``first`` below; and its long edge."""
    a, b = quarter_triangle(side, first), quarter_triangle(side, second)
    left_leg, right_leg = quarter_legs(side)
    piece = bench.join(a, right_leg, b, left_leg, "short seam", loose=True)
    far = bench.needle.at("short seam").take_up
    reach = side - (far[0] + far[1]) / 2 * 2**0.5
    return piece, Line((reach, reach), (0.0, 0.0))
