"""Split quarter-square triangle: one half and two quarters. It has a hand when its quarters differ.

Parts: the lower right half, the left quarter, the top quarter. Source: docs/theory, section 4.3.
"""

from __future__ import annotations

from collections.abc import Mapping

from ..geometry.plane import Line, Point
from ..geometry.sewing import Needle, Piece, square
from ..lengths import ZERO, Length
from .design import Design
from .kind import Kind, Mark, crossing, part
from .method import Batch, Cuts, Hands, LadderRule, Making, Margins, Method, PieceRule, even_margins, outgrown
from .quarter_square_triangle import sewn_quarters
from .spec import UnitSpec
from .work_surface import WorkSurface, half_triangle, long_edge

__all__ = ["KIND", "LOOSE", "UNIT_AND_SQUARE"]


class SplitQuarterSquareTriangle(Kind):
    name = "split_quarter_square_triangle"
    title, many = "Split hourglass", "split hourglasses"
    line = "one half, two quarters"
    usual = "abc"
    parts = ("lower right half", "left quarter", "top quarter")

    def design(self, spec: UnitSpec) -> Design:
        parts = (
            part(spec, 0, (0, 0), (1, 0), (1, 1)),
            part(spec, 1, (0, 0), (0.5, 0.5), (0, 1)),
            part(spec, 2, (0, 1), (0.5, 0.5), (1, 1)),
        )
        return Design(float(spec.width), float(spec.height), parts)

    def anchor(self, spec: UnitSpec, unit: Piece, allowance: float) -> Point:
        del spec, allowance
        return crossing(unit)

    def marks(self, spec: UnitSpec, allowance: Length) -> tuple[Mark, ...]:
        middle = spec.width / 2 + allowance
        return tuple(Mark("where the short seam meets the long one", side, middle) for side in ("left", "top"))


KIND = SplitQuarterSquareTriangle()


class UnitAndSquare(Method):
    """A half-square triangle and a plain square, sewn both sides of the diagonal across its seam: one of each hand."""

    kind = KIND.name
    name = "unit_and_square"
    title = "Half-square and square"
    line = "one of each hand"

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        pieces = (PieceRule("plain", 0, 2), PieceRule("square", 1, 1), PieceRule("square", 2, 1))
        return Batch(pieces, 4, Hands.HALF_EACH)

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        plain = spec.width + allowance * 2 + margin * 2 + take_up.times_root2()
        return Cuts(plain=plain, square=plain + take_up.times_root2())

    def thumb_cuts(self, spec: UnitSpec, allowance: Length, level: int) -> Cuts:
        """P = F + 4s and the half-square triangle's squares F + 6s; generously F + 6s and F + 8s."""
        plain = spec.width + allowance * (2 + 2 * level)
        return Cuts(plain=plain, square=plain + allowance * 2)

    def reconciled_cuts(
        self, spec: UnitSpec, wanted: Cuts, cuts: Cuts, seam: tuple[Length, Length], step: Length
    ) -> Cuts:
        return outgrown(cuts, "plain", seam[1], step)

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        """R = P - √2 e, the half-square triangle trimmed to P before it meets the plain square."""
        raw = cuts["plain"] - take_up.times_root2()
        return raw, raw

    def margins(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Margins:
        return even_margins(self.raw(spec, cuts, allowance, take_up)[0], spec.width + allowance * 2)

    def ladders(self, spec: UnitSpec) -> tuple[LadderRule, ...]:
        return (LadderRule("size", "plain", "to the long diagonal seam"),)

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench, side = WorkSurface(needle, cuts), cuts["plain"]
        half, left, top = spec.part_fabrics
        across = Line((0.0, side), (side, 0.0))
        units: list[Piece] = []
        for _ in range(2):
            halves = bench.trimmed(bench.half_square(cuts["square"], left, top, "first diagonal"), side)
            units += bench.sew_pair(square(side, half), halves, "long diagonal", across, over_seam=True)
        return bench.making(*units)


class SplitQuarterLoose(Method):
    """A half triangle and two quarter triangles: any hand."""

    kind = KIND.name
    name = "loose_triangles"
    title = "Loose triangles"
    line = "any hand; bias edges to handle"

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        pieces = (
            PieceRule("half", 0, 1, gives=2),
            PieceRule("quarter", 1, 1, gives=4),
            PieceRule("quarter", 2, 1, gives=4),
        )
        return Batch(pieces, units=1)

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        half = spec.width + allowance * 2 + margin * 2 + take_up.times_root2()
        return Cuts(half=half, quarter=half + take_up.times_root2())

    def thumb_cuts(self, spec: UnitSpec, allowance: Length, level: int) -> Cuts:
        half = spec.width + allowance * (2 + 2 * level)
        return Cuts(half=half, quarter=half + allowance * 2)

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        """The smaller of the two halves: S - √2 e and Q - 2√2 e."""
        eaten = take_up.times_root2()
        raw = min(cuts["half"] - eaten, cuts["quarter"] - eaten * 2)
        return raw, raw

    def margins(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Margins:
        """The half lies lower right, the quarters upper left; each half has its own room."""
        target, eaten = spec.width + allowance * 2, take_up.times_root2()
        half, quarters = (cuts["half"] - eaten - target) / 2, (cuts["quarter"] - eaten * 2 - target) / 2
        return Margins(left=quarters, right=half, bottom=half, top=quarters)

    def ladders(self, spec: UnitSpec) -> tuple[LadderRule, ...]:
        return (LadderRule("size", "half", "to the long diagonal seam"),)

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench, side = WorkSurface(needle, cuts), cuts["half"]
        half, left, top = spec.part_fabrics
        quarters, edge = sewn_quarters(bench, cuts["quarter"], top, left)
        reach = edge.start[0]
        meet = (side - reach) / 2 * 2**0.5
        triangle, onto = half_triangle(side, half), long_edge(side)
        return bench.making(bench.join(triangle, onto, quarters, edge, "long diagonal", meet, loose=True))


UNIT_AND_SQUARE, LOOSE = UnitAndSquare(), SplitQuarterLoose()
