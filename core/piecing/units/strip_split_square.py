"""Strip-split square: a square cut once on the diagonal, a strip set in.

Parts: the lower right half, the upper left half, the strip. Source: docs/theory, section 4.6.
"""

from __future__ import annotations

from collections.abc import Mapping

from ..errors import StripDoesNotFit
from ..geometry.plane import Line, Point
from ..geometry.sewing import Needle, Piece, oblong
from ..lengths import ZERO, Length
from .design import Design, Part
from .kind import Kind, Mark, long_seams
from .method import Batch, Cuts, LadderRule, Making, Margins, Method, PieceRule, even_margins
from .spec import UnitSpec
from .work_surface import WorkSurface, half_triangle, long_edge

__all__ = ["KIND", "STRIP", "check_strip", "strip_piece"]


def check_strip(spec: UnitSpec, widest: Length, allowance: Length) -> None:
    """Raises ``StripDoesNotFit`` unless the strip shows at all and leaves triangles beside it."""
    if spec.strip <= ZERO:
        raise StripDoesNotFit("Give the width at which the strip finishes, such as 1/2.", field="strip")
    if spec.strip >= widest or spec.strip + allowance * 2 > spec.width + allowance * 2:
        raise StripDoesNotFit(
            "A strip that finishes {strip} is too wide for a unit that finishes {size}: under {widest} leaves something "
            "beside it.",
            field="strip",
            strip=spec.strip,
            size=spec.width,
            widest=min(widest, spec.width),
        )


def strip_piece(length: float, width: float, fabric: str) -> tuple[Piece, Line, Line]:
    """A strip lying level, with its lower and upper long edges, cloth on their left."""
    lower, upper = Line((0.0, 0.0), (length, 0.0)), Line((length, width), (0.0, width))
    return oblong(length, width, fabric), lower, upper


class StripSplitSquare(Kind):
    name = "strip_split_square"
    title, many = "Strip-split square", "strip-split squares"
    line = "a strip down the diagonal"
    usual = "abc"
    parts = ("lower right half", "upper left half", "strip")
    has_strip = True

    def check(self, spec: UnitSpec, allowance: Length) -> None:
        super().check(spec, allowance)
        check_strip(spec, spec.width.times_root2(), allowance)

    def design(self, spec: UnitSpec) -> Design:
        side = float(spec.width)
        beside = float(spec.strip) / 2**0.5  # along an edge, from a corner of the unit to the strip's edge
        strip = ((0.0, 0.0), (beside, 0.0), (side, side - beside), (side, side), (side - beside, side), (0.0, beside))
        parts = (
            Part(((beside, 0.0), (side, 0.0), (side, side - beside)), spec.part_fabrics[0]),
            Part(((0.0, beside), (side - beside, side), (0.0, side)), spec.part_fabrics[1]),
            Part(strip, spec.part_fabrics[2]),
        )
        return Design(side, side, parts)

    def anchor(self, spec: UnitSpec, unit: Piece, allowance: float) -> Point:
        """The middle of the strip, halfway along."""
        del spec, allowance
        ends = [p for s in long_seams(unit)[:2] for p in (s.start, s.end)]
        return sum(x for x, _ in ends) / 4, sum(y for _, y in ends) / 4

    def marks(self, spec: UnitSpec, allowance: Length) -> tuple[Mark, ...]:
        beside = spec.strip.over_root2()
        return (
            Mark("strip, from the lower left corner", "left", beside),
            Mark("strip, from the lower left corner", "bottom", beside),
        )


KIND = StripSplitSquare()


class StripSetIn(Method):
    """The square cut on its diagonal, the strip sewn to one half, then to the other."""

    kind = KIND.name
    name = "strip"
    title = "Strip set in"
    line = "square cut once"
    templated = frozenset({"strip"})

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        halves: tuple[PieceRule, ...] = (PieceRule("square", 0, 2, gives=2),)
        if spec.part_fabrics[0] != spec.part_fabrics[1]:
            halves = (PieceRule("square", 0, 1, gives=2), PieceRule("square", 1, 1, gives=2))
        return Batch((*halves, PieceRule("strip_length", 2, 1, by="strip")), units=1)

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        """S = U - (w - 4e)/√2; the strip cut its finished width and two allowances, long enough for the diagonal."""
        target, strip = spec.width + allowance * 2 + margin * 2, spec.strip + allowance * 2
        return Cuts(
            square=target - (strip - take_up * 4).over_root2(),
            strip=strip,
            strip_length=target.times_root2() + allowance * 4,
        )

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        """R = S + (w - 4e)/√2."""
        raw = cuts["square"] + (cuts["strip"] - take_up * 4).over_root2()
        return raw, raw

    def margins(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Margins:
        return even_margins(self.raw(spec, cuts, allowance, take_up)[0], spec.width + allowance * 2)

    def ladders(self, spec: UnitSpec) -> tuple[LadderRule, ...]:
        return (LadderRule("size", "square", "by the strip, less its two seams"),)

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench, side, width, length = WorkSurface(needle, cuts), cuts["square"], cuts["strip"], cuts["strip_length"]
        lower_right, upper_left, role = spec.part_fabrics
        edge = long_edge(side)
        strip, lower, _ = strip_piece(length, width, role)
        hypotenuse = side * 2**0.5
        one = bench.join(
            half_triangle(side, lower_right), edge, strip, lower, "first seam", (hypotenuse - length) / 2, loose=True
        )
        start, end = needle.at("first seam").take_up
        onto = edge.shifted(start + end - width)
        return bench.making(bench.join(one, onto, half_triangle(side, upper_left), edge, "second seam", loose=True))


STRIP = StripSetIn()
