"""Square in a square (diamond): a square on its point, a triangle on each side.

Parts: the centre, then the corners lower left, lower right, upper right, upper left. Source: docs/theory, section 4.7.
"""

from __future__ import annotations

from collections.abc import Mapping

from ..geometry.plane import Line, Point, centroid, meeting
from ..geometry.sewing import Needle, Piece, square
from ..lengths import ZERO, Length
from .corner_triangle import FlippedCorners
from .design import Design
from .kind import Kind, Mark, part
from .method import Batch, Cuts, LadderRule, Making, Margins, Method, PieceRule, even_margins
from .spec import UnitSpec
from .work_surface import WorkSurface, half_triangle, long_edge

__all__ = ["CORNER_TRIANGLES", "FLIPPED", "KIND", "tip_clearance"]


class SquareInSquare(Kind):
    name = "square_in_square"
    title, many = "Square in a square", "squares in squares"
    line = "a square on its point"
    usual = "abbbb"
    parts = ("centre", "lower left corner", "lower right corner", "upper right corner", "upper left corner")

    def design(self, spec: UnitSpec) -> Design:
        parts = (
            part(spec, 0, (0.5, 0), (1, 0.5), (0.5, 1), (0, 0.5)),
            part(spec, 1, (0, 0), (0.5, 0), (0, 0.5)),
            part(spec, 2, (1, 0), (1, 0.5), (0.5, 0)),
            part(spec, 3, (1, 1), (0.5, 1), (1, 0.5)),
            part(spec, 4, (0, 1), (0, 0.5), (0.5, 1)),
        )
        return Design(float(spec.width), float(spec.height), parts)

    def anchor(self, spec: UnitSpec, unit: Piece, allowance: float) -> Point:
        """The middle of the four tips."""
        del spec, allowance
        rising = [s.line for s in unit.seams if (s.end[0] - s.start[0]) * (s.end[1] - s.start[1]) > 0]
        falling = [s.line for s in unit.seams if (s.end[0] - s.start[0]) * (s.end[1] - s.start[1]) < 0]
        return centroid(tuple(meeting(one, other) for one in rising[:2] for other in falling[:2]))

    def marks(self, spec: UnitSpec, allowance: Length) -> tuple[Mark, ...]:
        return tuple(Mark("tip of the centre", side, allowance) for side in ("left", "right", "bottom", "top"))


KIND = SquareInSquare()


def tip_clearance(spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Length:
    """(U - √2 (c - 2e))/2: from each tip to the raw edge of the trimmed unit; s when the centre is just right."""
    return (spec.width + allowance * 2 - (cuts["centre"] - take_up * 2).times_root2()) / 2


class CornerTriangles(Method):
    """A centre square and four triangles from two squares cut once; trimmed with every tip s from the edge."""

    kind = KIND.name
    name = "corner_triangles"
    title = "Four triangles"
    line = "round a centre square"
    templated = frozenset({"centre"})

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        roles: dict[str, int] = {}
        for n in range(1, 5):
            roles.setdefault(spec.part_fabrics[n], n)
        corners = (PieceRule("triangle", n, spec.part_fabrics[1:].count(role), gives=2) for role, n in roles.items())
        return Batch((PieceRule("centre", 0, 1), *corners), units=1)

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        """c = F/√2 + 2e, and R = t + (c - 4e)/√2 solved for t."""
        centre = spec.width.over_root2() + take_up * 2
        return Cuts(centre=centre, triangle=self._triangle(spec, centre, allowance, take_up, margin))

    def _triangle(self, spec: UnitSpec, centre: Length, allowance: Length, take_up: Length, margin: Length) -> Length:
        return spec.width + allowance * 2 + margin * 2 - (centre - take_up * 4).over_root2()

    def reconciled_cuts(
        self, spec: UnitSpec, wanted: Cuts, cuts: Cuts, seam: tuple[Length, Length], step: Length
    ) -> Cuts:
        """The centre to the ruler's nearest mark, since a larger one cuts its own tips off; the triangles make it up."""
        allowance, take_up = seam
        centre = wanted["centre"].round_near(step)
        room = self.margins(spec, wanted, allowance, take_up).least
        return cuts.but(centre=centre, triangle=self._triangle(spec, centre, allowance, take_up, room).round_up(step))

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        """R = t + (c - 4e)/√2."""
        raw = cuts["triangle"] + (cuts["centre"] - take_up * 4).over_root2()
        return raw, raw

    def margins(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Margins:
        return even_margins(self.raw(spec, cuts, allowance, take_up)[0], spec.width + allowance * 2)

    def ladders(self, spec: UnitSpec) -> tuple[LadderRule, ...]:
        return (LadderRule("size", "triangle", "by the centre, less its seams"),)

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench, c, t = WorkSurface(needle, cuts), cuts["centre"], cuts["triangle"]
        centre, lower_left, lower_right, upper_right, upper_left = spec.part_fabrics
        corners = ((0.0, 0.0), (c, 0.0), (c, c), (0.0, c))
        # The centre lies square while it is sewn; turned by 45 degrees its lower side faces the lower right corner.
        sides = {0: lower_right, 2: upper_left, 1: upper_right, 3: lower_left}
        unit, edge, meet = square(c, centre), long_edge(t), (c - t * 2**0.5) / 2
        for n, role in sides.items():
            onto = Line(corners[n], corners[(n + 1) % 4])
            unit = bench.join(unit, onto, half_triangle(t, role), edge, f"seam {n + 1}", meet, loose=True)
        return bench.making(unit.turned(45))


class FlippedDiamond(FlippedCorners):
    """A square with a square of half its size flipped over each corner; four spare small units."""

    kind = KIND.name

    def corners(self, spec: UnitSpec) -> tuple[Length, ...]:
        return (spec.width / 2,) * 4


CORNER_TRIANGLES, FLIPPED = CornerTriangles(), FlippedDiamond()
