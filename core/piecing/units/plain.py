"""Units without a diagonal: four-patch, plain square, rectangle and strip.

Four-patch parts, anticlockwise: lower left, lower right, upper right, upper left. Source: docs/theory, section 4.10.
"""

from __future__ import annotations

from collections.abc import Mapping

from ..geometry.plane import Line, Point
from ..geometry.sewing import Needle, Piece, oblong, square
from ..lengths import ZERO, Length
from .design import Design
from .half_square_triangle import flipped_margin
from .kind import Kind, Mark, crossing, part
from .method import Batch, Cuts, LadderRule, Making, Margins, Method, PieceRule, even_margins
from .spec import UnitSpec
from .work_surface import WorkSurface

__all__ = ["CUT", "FOUR_PATCH", "KINDS", "SQUARES", "STRIPS"]


class FourPatch(Kind):
    name = "four_patch"
    title, many = "Four-patch", "four-patches"
    line = "four squares"
    usual = "abab"
    parts = ("lower left", "lower right", "upper right", "upper left")

    def design(self, spec: UnitSpec) -> Design:
        squares = (
            part(spec, 0, (0, 0), (0.5, 0), (0.5, 0.5), (0, 0.5)),
            part(spec, 1, (0.5, 0), (1, 0), (1, 0.5), (0.5, 0.5)),
            part(spec, 2, (0.5, 0.5), (1, 0.5), (1, 1), (0.5, 1)),
            part(spec, 3, (0, 0.5), (0.5, 0.5), (0.5, 1), (0, 1)),
        )
        return Design(float(spec.width), float(spec.height), squares)

    def anchor(self, spec: UnitSpec, unit: Piece, allowance: float) -> Point:
        del spec, allowance
        return crossing(unit)

    def marks(self, spec: UnitSpec, allowance: Length) -> tuple[Mark, ...]:
        middle = spec.width / 2 + allowance
        return tuple(Mark("crossing of the seams", side, middle) for side in ("left", "bottom"))


class _Plain(Kind):
    """One piece of cloth."""

    parts = ("cloth",)

    def design(self, spec: UnitSpec) -> Design:
        whole = part(spec, 0, (0, 0), (1, 0), (1, 1), (0, 1))
        return Design(float(spec.width), float(spec.height), (whole,))

    def anchor(self, spec: UnitSpec, unit: Piece, allowance: float) -> Point:
        del spec, allowance
        left, bottom, right, top = unit.extent
        return (left + right) / 2, (bottom + top) / 2

    def marks(self, spec: UnitSpec, allowance: Length) -> tuple[Mark, ...]:
        del spec, allowance
        return ()


class PlainSquare(_Plain):
    name = "plain_square"
    title, many = "Plain square", "plain squares"
    line = "one piece of cloth"
    usual = "a"
    in_oblong = "rectangle"


class Rectangle(_Plain):
    name = "rectangle"
    title, many = "Rectangle", "rectangles"
    line = "one piece of cloth"
    usual = "a"
    free_height = True
    in_square = "plain_square"

    def default_height(self, width: Length) -> Length:
        return width / 2


class StripUnit(_Plain):
    name = "strip"
    title, many = "Strip", "strips"
    line = "one long piece"
    usual = "a"
    free_height = True

    def default_height(self, width: Length) -> Length:
        return width * 3


FOUR_PATCH = FourPatch()
KINDS: tuple[Kind, ...] = (FOUR_PATCH, PlainSquare(), Rectangle(), StripUnit())


class Squares(Method):
    """Four squares, joined in two rows."""

    kind = FOUR_PATCH.name
    name = "squares"
    title = "Squares"
    line = "two rows of two"
    exact = True
    of_strips = False

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        return Batch(tuple(PieceRule("square", n, 1) for n in range(4)), units=1)

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        return Cuts(square=spec.width / 2 + allowance + margin + take_up)

    def thumb_cuts(self, spec: UnitSpec, allowance: Length, level: int) -> Cuts:
        return self.minimum_cuts(spec, allowance, allowance, flipped_margin(allowance, level))

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        """R = 2(c - e)."""
        raw = (cuts["square"] - take_up) * 2
        return raw, raw

    def margins(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Margins:
        return even_margins(self.raw(spec, cuts, allowance, take_up)[0], spec.width + allowance * 2)

    def ladders(self, spec: UnitSpec) -> tuple[LadderRule, ...]:
        return (LadderRule("size", "square", "by the second square, less the seam"),)

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench, side = WorkSurface(needle, cuts), cuts["square"]
        right, left = Line((side, 0.0), (side, side)), Line((0.0, side), (0.0, 0.0))

        def row(one: str, other: str) -> Piece:
            if self.of_strips:
                return bench.strips(one, other, side, "row seam")
            return bench.join(square(side, one), right, square(side, other), left, "row seam")

        one, other, third, fourth = spec.part_fabrics
        # Two rows alike are sewn alike, and one of them turned.
        alike = (fourth, third) == (other, one)
        lower = row(one, other)
        upper = row(one, other).turned(180).at_origin() if alike else row(fourth, third)
        width = lower.extent[2]
        return bench.making(
            bench.join(lower, Line((width, side), (0.0, side)), upper, Line((0.0, 0.0), (width, 0.0)), "joining seam")
        )


class Strips(Squares):
    """Strips sewn in pairs and cut across, the rows joined: the same sizes, fewer small pieces to handle."""

    name = "strips"
    title = "Strips"
    line = "sewn in pairs, cut across"
    of_strips = True

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        return Batch(tuple(PieceRule("square", n, 1, strip=True) for n in range(4)), units=1)


class Cut(Method):
    """Cut, and that is all."""

    name = "cut"
    title = "Cut"
    line = "nothing to sew"
    exact = True

    def __init__(self, kind: Kind) -> None:
        self.kind = kind.name

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        return Batch((PieceRule("wide", 0, 1, by="tall"),), units=1)

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        more = allowance * 2 + margin * 2
        return Cuts(wide=spec.width + more, tall=spec.height + more)

    def thumb_cuts(self, spec: UnitSpec, allowance: Length, level: int) -> Cuts:
        """A plain piece is cut to its size: there is no seam in it to go wrong."""
        return self.minimum_cuts(spec, allowance, allowance)

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        return cuts["wide"], cuts["tall"]

    def margins(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Margins:
        across = (cuts["wide"] - spec.width - allowance * 2) / 2
        up = (cuts["tall"] - spec.height - allowance * 2) / 2
        return Margins(across, across, up, up)

    def ladders(self, spec: UnitSpec) -> tuple[LadderRule, ...]:
        if spec.is_square:
            return (LadderRule("size", "wide", "nothing: there is no seam in it"),)
        same = "nothing: there is no seam in it"
        return (LadderRule("width", "wide", same), LadderRule("height", "tall", same))

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        return WorkSurface(needle, cuts).making(oblong(cuts["wide"], cuts["tall"], spec.part_fabrics[0]))


SQUARES, STRIPS = Squares(), Strips()
CUT: tuple[Method, ...] = tuple(Cut(k) for k in KINDS[1:])
