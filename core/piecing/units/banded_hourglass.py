"""Banded hourglass: one half two quarter triangles, the other half a triangle with a band on its long edge.

Parts: the left quarter, the top quarter, the lower right triangle, the band. Source: docs/theory, section 4.8.
"""

from __future__ import annotations

from collections.abc import Mapping

from ..geometry.plane import Line, Point
from ..geometry.sewing import Needle, Piece
from ..lengths import ZERO, Length
from .design import Design, Part
from .kind import Kind, Mark
from .method import Batch, Cuts, LadderRule, Making, Margins, Method, PieceRule
from .quarter_square_triangle import sewn_quarters
from .spec import UnitSpec
from .strip_split_square import check_strip, strip_piece
from .work_surface import WorkSurface, quarter_triangle

__all__ = ["KIND", "LOOSE"]


class BandedHourglass(Kind):
    name = "banded_hourglass"
    title, many = "Banded hourglass", "banded hourglasses"
    line = "two quarters, a band and a triangle"
    usual = "abac"
    parts = ("left quarter", "top quarter", "lower right triangle", "band")
    has_strip = True

    def check(self, spec: UnitSpec, allowance: Length) -> None:
        super().check(spec, allowance)
        check_strip(spec, spec.width.over_root2(), allowance)

    def design(self, spec: UnitSpec) -> Design:
        side = float(spec.width)
        beside = float(spec.strip) * 2**0.5  # along an edge, from the diagonal's end to the band's far edge
        half = side / 2
        parts = (
            Part(((0.0, 0.0), (half, half), (0.0, side)), spec.part_fabrics[0]),
            Part(((0.0, side), (half, half), (side, side)), spec.part_fabrics[1]),
            Part(((beside, 0.0), (side, 0.0), (side, side - beside)), spec.part_fabrics[2]),
            Part(((0.0, 0.0), (beside, 0.0), (side, side - beside), (side, side)), spec.part_fabrics[3]),
        )
        return Design(side, side, parts)

    def anchor(self, spec: UnitSpec, unit: Piece, allowance: float) -> Point:
        """Where the short seam runs into the joining seam."""
        del spec, allowance
        short = next(s for s in unit.seams if s.name == "short seam")
        joining = next(s for s in unit.seams if s.name == "joining seam")
        line = joining.line
        return min((short.start, short.end), key=lambda p: abs(line.side(p)))

    def marks(self, spec: UnitSpec, allowance: Length) -> tuple[Mark, ...]:
        middle, beside = spec.width / 2 + allowance, spec.strip.times_root2()
        return (
            Mark("short seam on the joining seam", "left", middle),
            Mark("short seam on the joining seam", "top", middle),
            Mark("band, from the lower left corner", "bottom", beside),
            Mark("band, from the upper right corner", "right", beside),
        )


KIND = BandedHourglass()


class BandedHourglassLoose(Method):
    """Loose triangles from squares cut twice; each half must reach the diagonal's corner by itself."""

    kind = KIND.name
    name = "loose_triangles"
    title = "Loose triangles"
    line = "any hand; bias edges to handle"
    templated = frozenset({"band"})

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        pieces = (
            PieceRule("quarter", 0, 1, gives=4),
            PieceRule("quarter", 1, 1, gives=4),
            PieceRule("half", 2, 1, gives=4),
            PieceRule("band_length", 3, 1, by="band"),
        )
        return Batch(pieces, units=1)

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        """C/√2 - 2e and C'/2 - 3e + w must each reach U/√2."""
        target, band = spec.width + allowance * 2 + margin * 2, spec.strip + allowance * 2
        return Cuts(
            quarter=target + take_up.times_root2() * 2,
            half=(target.over_root2() + take_up * 3 - band) * 2,
            band=band,
            band_length=target.times_root2() + allowance * 4,
        )

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        """Twice the smaller half's height, along a side: both halves are measured from the joining seam."""
        raw = min(self._halves(cuts, take_up)).times_root2()
        return raw, raw

    def _halves(self, cuts: Cuts, take_up: Length) -> tuple[Length, Length]:
        return cuts["quarter"].over_root2() - take_up * 2, cuts["half"] / 2 - take_up * 3 + cuts["band"]

    def margins(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Margins:
        target = spec.width + allowance * 2
        quarters, banded = ((h.times_root2() - target) / 2 for h in self._halves(cuts, take_up))
        return Margins(left=quarters, right=banded, bottom=banded, top=quarters)

    def ladders(self, spec: UnitSpec) -> tuple[LadderRule, ...]:
        return (LadderRule("size", "quarter", "to the short seam and the joining seam"),)

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench, base, width, length = WorkSurface(needle, cuts), cuts["half"], cuts["band"], cuts["band_length"]
        left, top, triangle, band = spec.part_fabrics
        quarters, edge = sewn_quarters(bench, cuts["quarter"], top, left)
        strip, lower, _ = strip_piece(length, width, band)
        onto = Line((0.0, 0.0), (base, 0.0))
        banded = bench.join(quarter_triangle(base, triangle), onto, strip, lower, "band seam", (base - length) / 2)
        start, end = needle.at("band seam").take_up
        far = onto.shifted(start + end - width)
        meet = (base - edge.start[0] * 2**0.5) / 2
        unit = bench.join(banded, far, quarters, edge, "joining seam", meet, loose=True)
        return bench.making(unit.turned(225))


LOOSE = BandedHourglassLoose()
