"""Half-square unit with a pieced half: a small square with a triangle on two neighbouring sides, and one large triangle.

Parts: the lower right triangle, the small square, the lower left triangle, the upper right triangle, and the inner half of
the small square, which is a half-square triangle when the two differ. Source: docs/theory, section 4.9.
"""

from __future__ import annotations

from collections.abc import Mapping

from ..geometry.plane import Line, Point, meeting
from ..geometry.sewing import Needle, Piece, square
from ..lengths import ZERO, Length
from .design import Design
from .kind import Kind, Mark, part
from .method import Batch, Cuts, LadderRule, Making, Margins, Method, PieceRule
from .spec import UnitSpec
from .work_surface import WorkSurface, half_triangle, long_edge

__all__ = ["KIND", "TRIANGLES"]


class PiecedHalf(Kind):
    name = "pieced_half"
    title, many = "Pieced half", "units with a pieced half"
    line = "a small square in one half"
    usual = "abccb"
    parts = (
        "large triangle",
        "small square",
        "lower left triangle",
        "upper right triangle",
        "small square, inner half",
    )

    def design(self, spec: UnitSpec) -> Design:
        parts = [
            part(spec, 0, (0, 0), (1, 0), (1, 1)),
            part(spec, 2, (0, 0), (0.5, 0.5), (0, 0.5)),
            part(spec, 3, (0.5, 0.5), (1, 1), (0.5, 1)),
        ]
        if spec.part_fabrics[1] == spec.part_fabrics[4]:
            parts.append(part(spec, 1, (0, 0.5), (0.5, 0.5), (0.5, 1), (0, 1)))
        else:
            parts += [part(spec, 1, (0, 0.5), (0.5, 1), (0, 1)), part(spec, 4, (0, 0.5), (0.5, 0.5), (0.5, 1))]
        return Design(float(spec.width), float(spec.height), tuple(parts))

    def anchor(self, spec: UnitSpec, unit: Piece, allowance: float) -> Point:
        """On the joining seam, nearest to the small square's corner."""
        del spec, allowance
        named = {s.name: s.line for s in unit.seams}
        corner = meeting(named["first short seam"], named["second short seam"])
        line = named["joining seam"]
        return line.at(line.along(corner))

    def marks(self, spec: UnitSpec, allowance: Length) -> tuple[Mark, ...]:
        middle = spec.width / 2 + allowance
        return (
            Mark("seam of the small square", "left", middle),
            Mark("seam of the small square", "top", middle),
        )


KIND = PiecedHalf()


class Triangles(Method):
    """Small triangles on a small square; its long edge trued one allowance beyond the square's corner; then the large one."""

    kind = KIND.name
    name = "triangles"
    title = "Triangles on a square"
    line = "long edge trued, then joined"

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        pieces = [
            PieceRule("large", 0, 1, gives=2),
            PieceRule("small", 2, 1, gives=2),
            PieceRule("small", 3, 1, gives=2),
        ]
        if spec.part_fabrics[1] == spec.part_fabrics[4]:
            pieces.append(PieceRule("square", 1, 1))
        else:
            pieces += [PieceRule("half_square", 1, 1, gives=2), PieceRule("half_square", 4, 1, gives=2)]
        return Batch(tuple(pieces), units=1)

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        """q = F/2 + s + e + (e - s)/√2, t = q + √2 s, T = U + √2 e, each grown by the margin it has to give.

        The pieced half is trued s beyond the square's corner and loses e to the joining seam: across the unit that is √2 (e - s).
        """
        small = spec.width / 2 + allowance + take_up + (take_up - allowance).times_root2() / 2 + margin
        cuts = Cuts(
            square=small,
            small=small + allowance.times_root2(),
            large=spec.width + allowance * 2 + margin * 2 + take_up.times_root2(),
        )
        return (
            cuts
            if spec.part_fabrics[1] == spec.part_fabrics[4]
            else cuts.but(half_square=small + take_up.times_root2())
        )

    def reconciled_cuts(
        self, spec: UnitSpec, wanted: Cuts, cuts: Cuts, seam: tuple[Length, Length], step: Length
    ) -> Cuts:
        allowance, take_up = seam
        small = max(cuts["small"], (cuts["square"] + allowance.times_root2()).round_up(step))
        if "half_square" not in cuts:
            return cuts.but(small=small)
        half = max(cuts["half_square"], (cuts["square"] + take_up.times_root2()).round_up(step))
        return cuts.but(small=small, half_square=half)

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        """The smaller of 2(q - e) + √2 (s - e), from the pieced half, and T - √2 e."""
        pieced = (cuts["square"] - take_up) * 2 + (allowance - take_up).times_root2()
        raw = min(pieced, cuts["large"] - take_up.times_root2())
        return raw, raw

    def margins(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Margins:
        """Both halves from the joining seam, which lies e inside the long edge that was trued s beyond the corner."""
        target = spec.width + allowance * 2
        pieced = ((cuts["square"] - take_up) * 2 + (allowance - take_up).times_root2() - target) / 2
        large = (cuts["large"] - take_up.times_root2() - target) / 2
        return Margins(left=pieced, right=large, bottom=large, top=pieced)

    def ladders(self, spec: UnitSpec) -> tuple[LadderRule, ...]:
        return (LadderRule("size", "large", "to the joining seam"),)

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench, q, t, large = WorkSurface(needle, cuts), cuts["square"], cuts["small"], cuts["large"]
        big, outer, lower_left, upper_right, inner = spec.part_fabrics
        if outer == inner:
            corner = square(q, outer)
        else:
            # Outer half to the corner: lower left here, since the half is built with its right angle there.
            halves = bench.half_square(cuts["half_square"], inner, outer, "small diagonal", loose=True)
            corner = bench.trimmed(halves, q).turned(90).at_origin()
        right, leg = Line((q, 0.0), (q, q)), Line((0.0, t), (0.0, 0.0))
        small = Piece(half_triangle(t, lower_left).faces).turned(270).at_origin()
        other = Piece(half_triangle(t, upper_right).faces).turned(270).at_origin()
        one = bench.join(corner, right, small, leg, "first short seam", loose=True)
        top, foot = Line((q, q), (0.0, q)), Line((0.0, 0.0), (t, 0.0))
        two = bench.join(one, top, other, foot, "second short seam", q - t, loose=True)
        e1, e2 = (sum(needle.at(n).take_up) / 2 for n in ("first short seam", "second short seam"))
        reach = (q - e1) + (q - e2) + allowance * 2**0.5
        true_edge = Line((reach, 0.0), (0.0, reach))
        pieced = bench.trued(two, true_edge, "long edge")
        onto = long_edge(large)
        meet = (large - reach) / 2 * 2**0.5
        return bench.making(
            bench.join(half_triangle(large, big), onto, pieced, true_edge, "joining seam", meet, loose=True)
        )


TRIANGLES = Triangles()
