"""Corner-triangle unit: a square with one to four flipped corners, each of its own size and fabric.

Parts: the square, then the corners lower left, lower right, upper right, upper left. Source: docs/theory, section 4.5.
"""

from __future__ import annotations

from collections.abc import Mapping

from ..errors import CornersOverlap
from ..geometry.plane import Point
from ..geometry.sewing import Needle, Piece, square
from ..lengths import ZERO, Length
from .design import Design, Part
from .half_square_triangle import flipped_margin, spare_from_corner
from .kind import Kind, Mark
from .method import Batch, Cuts, LadderRule, Making, Margins, Method, PieceRule, even_margins
from .spec import UnitSpec
from .work_surface import WorkSurface

__all__ = ["CORNERS", "FLIPPED", "KIND", "FlippedCorners"]

CORNERS = ("lower left", "lower right", "upper right", "upper left")
_SIDES = (("left", "bottom"), ("right", "bottom"), ("right", "top"), ("left", "top"))


class CornerTriangle(Kind):
    name = "corner_triangle"
    title, many = "Corner-triangle unit", "corner-triangle units"
    line = "a square with flipped corners"
    usual = "abbbb"
    parts = ("square", *(f"{c} corner" for c in CORNERS))
    has_corners = True

    def check(self, spec: UnitSpec, allowance: Length) -> None:
        super().check(spec, allowance)
        if not any(c > ZERO for c in spec.corners):
            raise CornersOverlap(
                "Give at least one corner a size, such as {half}.", field="corners", half=spec.width / 2
            )
        for n, corner in enumerate(spec.corners):
            following = spec.corners[(n + 1) % 4]
            if corner < ZERO or corner + following > spec.width:
                raise CornersOverlap(
                    "The {one} and {other} corners lie over each other: together they may finish {side} at most. Make "
                    "one smaller.",
                    field="corners",
                    one=CORNERS[n],
                    other=CORNERS[(n + 1) % 4],
                    side=spec.width,
                )

    def design(self, spec: UnitSpec) -> Design:
        side = float(spec.width)
        k = [float(c) for c in spec.corners]
        at = ((0.0, 0.0), (side, 0.0), (side, side), (0.0, side))
        # Along the outline, anticlockwise: each corner is cut off k before and k after it.
        outline: list[Point] = []
        parts: list[Part] = []
        for n, (x, y) in enumerate(at):
            (px, py), (qx, qy) = at[n - 1], at[(n + 1) % 4]
            before = (x + (px - x) / side * k[n], y + (py - y) / side * k[n])
            after = (x + (qx - x) / side * k[n], y + (qy - y) / side * k[n])
            outline += [before, after] if k[n] else [(x, y)]
            if k[n]:
                parts.append(Part(((x, y), after, before), spec.part_fabrics[n + 1]))
        distinct = tuple(p for i, p in enumerate(outline) if p != outline[i - 1])
        return Design(side, side, (Part(distinct, spec.part_fabrics[0]), *parts))

    def anchor(self, spec: UnitSpec, unit: Piece, allowance: float) -> Point:
        del spec, allowance
        left, bottom, right, top = unit.extent
        return (left + right) / 2, (bottom + top) / 2

    def marks(self, spec: UnitSpec, allowance: Length) -> tuple[Mark, ...]:
        return tuple(
            Mark(f"{CORNERS[n]} seam, from its corner", side, k + allowance * 2)
            for n, k in enumerate(spec.corners)
            if k > ZERO
            for side in _SIDES[n]
        )


KIND = CornerTriangle()


class FlippedCorners(Method):
    """Squares laid on the corners, sewn on their diagonals and folded over, in any number."""

    kind = KIND.name
    name = "flipped_corners"
    title = "Flipped corners"
    line = "exact; the cut-offs make spares"
    exact = True
    templated = frozenset(f"corner_{n}" for n in range(4))

    def corners(self, spec: UnitSpec) -> tuple[Length, ...]:
        """Finished sizes of the four corners."""
        return spec.corners

    def _here(self, spec: UnitSpec) -> list[int]:
        return [n for n, k in enumerate(self.corners(spec)) if k > ZERO]

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        corners = tuple(PieceRule(f"corner_{n}", n + 1, 1) for n in self._here(spec))
        cut_off = [(cuts[f"corner_{n}"], spec.part_fabrics[n + 1]) for n in self._here(spec)]
        spares = spare_from_corner(spec.part_fabrics[0], cut_off, allowance, take_up)
        return Batch((PieceRule("square", 0, 1), *corners), 1, spares=spares)

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        more = allowance * 2 + margin * 2
        corners = ((f"corner_{n}", self.corners(spec)[n] + more) for n in self._here(spec))
        return Cuts((("square", spec.width + more), *corners))

    def thumb_cuts(self, spec: UnitSpec, allowance: Length, level: int) -> Cuts:
        return self.minimum_cuts(spec, allowance, allowance, flipped_margin(allowance, level))

    def reconciled_cuts(
        self, spec: UnitSpec, wanted: Cuts, cuts: Cuts, seam: tuple[Length, Length], step: Length
    ) -> Cuts:
        """Corner squares grow by just what the square grew, so that the seams cross the trimmed edges where they should."""
        grown = cuts["square"] - spec.width
        return cuts.but(**{f"corner_{n}": self.corners(spec)[n] + grown for n in self._here(spec)})

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        return cuts["square"], cuts["square"]

    def margins(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Margins:
        return even_margins(cuts["square"], spec.width + allowance * 2)

    def ladders(self, spec: UnitSpec) -> tuple[LadderRule, ...]:
        return (LadderRule("size", "square", "nothing: the folds lie on the lines"),)

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench = WorkSurface(needle, cuts)
        unit = square(cuts["square"], spec.part_fabrics[0])
        for n in self._here(spec):
            size = cuts[f"corner_{n}"]
            unit = bench.flipped(unit, n, size, spec.part_fabrics[n + 1], allowance, f"{CORNERS[n]} seam")
        return bench.making(unit)


FLIPPED = FlippedCorners()
