"""Flying goose: a large triangle with a sky triangle on either side; twice as wide as high.

Parts: the goose, the left sky, the right sky. Source: docs/theory, section 4.4.
"""

from __future__ import annotations

from collections.abc import Mapping
from math import hypot

from ..errors import RatioNotPossible
from ..geometry.plane import Line, Point, meeting
from ..geometry.sewing import Needle, Patch, Piece, oblong, square
from ..lengths import ZERO, Length
from .acts import Where
from .design import Design
from .half_square_triangle import flipped_margin, spare_from_corner
from .kind import Kind, Mark, part
from .method import Batch, Cuts, Hands, LadderRule, Making, Margins, Method, PieceRule, even_margins, outgrown
from .spec import UnitSpec
from .work_surface import WorkSurface, half_triangle, long_edge, quarter_legs, quarter_triangle

__all__ = ["FLIPPED", "FOUR", "KIND", "LOOSE", "TEMPLATES", "TWO_UNITS"]


class FlyingGoose(Kind):
    name = "flying_goose"
    title, many = "Flying goose", "flying geese"
    line = "a large triangle between two of sky"
    usual = "abb"
    parts = ("goose", "left sky", "right sky")
    free_height = True

    def default_height(self, width: Length) -> Length:
        return width / 2

    def design(self, spec: UnitSpec) -> Design:
        parts = (
            part(spec, 0, (0, 0), (1, 0), (0.5, 1)),
            part(spec, 1, (0, 0), (0.5, 1), (0, 1)),
            part(spec, 2, (1, 0), (1, 1), (0.5, 1)),
        )
        return Design(float(spec.width), float(spec.height), parts)

    def anchor(self, spec: UnitSpec, unit: Piece, allowance: float) -> Point:
        """From the tip: it lies in the middle across and one allowance below the top."""
        slanting = [s for s in unit.seams if min(abs(s.start[0] - s.end[0]), abs(s.start[1] - s.end[1])) > 1e-6]
        tip = meeting(slanting[0].line, slanting[-1].line)
        return tip[0], tip[1] + allowance - (float(spec.height) + 2 * allowance) / 2

    def marks(self, spec: UnitSpec, allowance: Length) -> tuple[Mark, ...]:
        return (
            Mark("tip of the goose", "top", allowance),
            Mark("tip of the goose", "left", spec.width / 2 + allowance),
        )


KIND = FlyingGoose()


class _TwoToOne(Method):
    """Ways whose seams lie at 45 degrees, so that the goose must be twice as wide as high."""

    kind = KIND.name

    def refuse(self, spec: UnitSpec, allowance: Length) -> None:
        if spec.width != spec.height * 2:
            raise RatioNotPossible(
                "This way makes geese twice as wide as high, {width} by {right} here. Give that height, or cut the "
                "triangles from a template.",
                field="height",
                width=spec.width,
                right=spec.width / 2,
            )


class GooseLoose(_TwoToOne):
    """A goose from a square cut twice, skies from squares cut once; straight grain outside."""

    name = "loose_triangles"
    title = "Loose triangles"
    line = "any hand; bias edges to handle"

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        pieces = (
            PieceRule("large", 0, 1, gives=4),
            PieceRule("small", 1, 1, gives=2),
            PieceRule("small", 2, 1, gives=2),
        )
        return Batch(pieces, units=1)

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        more = allowance * 2 + margin * 2
        return Cuts(
            large=spec.width + more + take_up.times_root2() * 2, small=spec.height + more + take_up.times_root2()
        )

    def thumb_cuts(self, spec: UnitSpec, allowance: Length, level: int) -> Cuts:
        """G = F + 6s and S = F + 4s trims a little; G = F + 8s and S = F + 5s, generous, keeps the tip where it was."""
        large = spec.width + allowance * (4 + 2 * level)
        return Cuts(large=large, small=spec.height + allowance * (3 + level))

    def reconciled_cuts(
        self, spec: UnitSpec, wanted: Cuts, cuts: Cuts, seam: tuple[Length, Length], step: Length
    ) -> Cuts:
        """Each rounded up by itself, the large square may outgrow the small ones, and the tip would be cut off: S is G/2 + s at least."""
        least = cuts["large"] / 2 + seam[0]
        return cuts if cuts["small"] >= least else cuts.but(small=least.round_up(step))

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        """Width G - 2√2 e, height S - √2 e."""
        eaten = take_up.times_root2()
        return cuts["large"] - eaten * 2, cuts["small"] - eaten

    def margins(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Margins:
        """The tip stands S - G/2 below the top raw edge, whatever the seam; s of that stays."""
        width, height = self.raw(spec, cuts, allowance, take_up)
        side = (width - spec.width - allowance * 2) / 2
        top = cuts["small"] - cuts["large"] / 2 - allowance
        return Margins(side, side, height - spec.height - allowance * 2 - top, top)

    def ladders(self, spec: UnitSpec) -> tuple[LadderRule, ...]:
        return (
            LadderRule("width", "large", "to the two diagonal seams"),
            LadderRule("height", "small", "to one diagonal seam"),
        )

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench, large, small = WorkSurface(needle, cuts), cuts["large"], cuts["small"]
        goose, left, right = spec.part_fabrics
        left_leg, right_leg = quarter_legs(large)
        edge, leg, hypotenuse = long_edge(small), large / 2**0.5, small * 2**0.5
        body = quarter_triangle(large, goose)
        one = bench.join(body, left_leg, half_triangle(small, left), edge, "left seam", leg - hypotenuse, loose=True)
        return bench.making(
            bench.join(one, right_leg, half_triangle(small, right), edge, "right seam", 0.0, loose=True)
        )


class GooseFour(GooseLoose):
    """One large square and four small ones, four geese, nothing wasted but the trim."""

    name = "four"
    title = "Four at a time"
    line = "one large square, four small"

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        pieces = (PieceRule("large", 0, 1), PieceRule("small", 1, 2), PieceRule("small", 2, 2))
        return Batch(pieces, 4, Hands.HALF_EACH)

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench, large, small = WorkSurface(needle, cuts), cuts["large"], cuts["small"]
        goose, left, right = spec.part_fabrics
        diagonal, other = Line((0.0, 0.0), (large, large)), Line((0.0, large), (large, 0.0))
        geese: list[Piece] = []
        ends = (Where.LOWER_LEFT, Where.UPPER_RIGHT)
        halves = bench.on_corners(square(large, goose), small, left, ends, "first seam", diagonal)
        for half, at in zip(halves, (Where.UPPER_LEFT, Where.LOWER_RIGHT), strict=True):
            geese += bench.on_corners(half, small, right, (at,), "second seam", other)
        return bench.making(*geese)


class GooseFlipped(_TwoToOne):
    """A rectangle with a square flipped over each upper corner; exact unless all three are cut larger."""

    name = "two_flipped_corners"
    title = "Two flipped corners"
    line = "exact; two spares each"
    exact = True

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        pieces = (PieceRule("wide", 0, 1, by="tall"), PieceRule("corner", 1, 1), PieceRule("corner", 2, 1))
        corner = cuts["corner"]
        base, *skies = spec.part_fabrics
        return Batch(pieces, 1, spares=spare_from_corner(base, [(corner, sky) for sky in skies], allowance, take_up))

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        more = allowance * 2 + margin * 2
        return Cuts(wide=spec.width + more, tall=spec.height + more, corner=spec.height + more)

    def thumb_cuts(self, spec: UnitSpec, allowance: Length, level: int) -> Cuts:
        return self.minimum_cuts(spec, allowance, allowance, flipped_margin(allowance, level))

    def reconciled_cuts(
        self, spec: UnitSpec, wanted: Cuts, cuts: Cuts, seam: tuple[Length, Length], step: Length
    ) -> Cuts:
        """Each rounded up by itself, the rectangle may outgrow its corners, and the tip would be cut off: k is W/2 + s at least, and
        what it is more the rectangle is higher."""
        least = cuts["wide"] / 2 + seam[0]
        corner = cuts["corner"] if cuts["corner"] >= least else least.round_up(step)
        tall = spec.height + seam[0] * 2 + (corner - least)
        return cuts.but(corner=corner, tall=max(cuts["tall"], tall.round_up(step)))

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        return cuts["wide"], cuts["tall"]

    def margins(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Margins:
        """The tip stands k - W/2 below the top raw edge."""
        side = (cuts["wide"] - spec.width - allowance * 2) / 2
        top = cuts["corner"] - cuts["wide"] / 2 - allowance
        return Margins(side, side, cuts["tall"] - spec.height - allowance * 2 - top, top)

    def ladders(self, spec: UnitSpec) -> tuple[LadderRule, ...]:
        same = "nothing: the folds lie on the lines"
        return (LadderRule("width", "wide", same), LadderRule("height", "tall", same))

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench = WorkSurface(needle, cuts)
        goose, left, right = spec.part_fabrics
        body = oblong(cuts["wide"], cuts["tall"], goose)
        one = bench.flipped(body, 3, cuts["corner"], left, allowance, "left seam")
        two = bench.flipped(one, 2, cuts["corner"], right, allowance, "right seam")
        return bench.making(two)


class GooseTwoUnits(_TwoToOne):
    """Two half-square triangles, trimmed, joined goose to goose: one more seam, down the middle."""

    name = "two_half_square_triangles"
    title = "Two half-squares"
    line = "a seam down the middle"
    templated = frozenset({"trimmed"})

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        if spec.part_fabrics[1] == spec.part_fabrics[2]:
            return Batch((PieceRule("square", 0, 1), PieceRule("square", 1, 1)), 1)
        return Batch((PieceRule("square", 0, 2), PieceRule("square", 1, 1), PieceRule("square", 2, 1)), 2)

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        trimmed = spec.height + allowance * 2
        return Cuts(square=trimmed + margin * 2 + take_up.times_root2(), trimmed=trimmed)

    def thumb_cuts(self, spec: UnitSpec, allowance: Length, level: int) -> Cuts:
        return Cuts(square=spec.height + allowance * (2 + 2 * level), trimmed=spec.height + allowance * 2)

    def reconciled_cuts(
        self, spec: UnitSpec, wanted: Cuts, cuts: Cuts, seam: tuple[Length, Length], step: Length
    ) -> Cuts:
        """What is trimmed has to come out of the square."""
        return outgrown(cuts, "trimmed", seam[1], step)

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        """2T - 2e by T: it is the half-square triangles that are trimmed, not the goose."""
        return cuts["trimmed"] * 2 - take_up * 2, cuts["trimmed"]

    def margins(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Margins:
        return even_margins(cuts["square"] - take_up.times_root2(), cuts["trimmed"])

    def ladders(self, spec: UnitSpec) -> tuple[LadderRule, ...]:
        return (LadderRule("half", "square", "to the diagonal seam"),)

    def rungs(
        self, rule: LadderRule, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length
    ) -> tuple[Length, Length, Length, Length]:
        return cuts["square"], cuts["square"] - take_up.times_root2(), cuts["trimmed"], spec.height

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench, side = WorkSurface(needle, cuts), cuts["trimmed"]
        goose, left, right = spec.part_fabrics

        def half(sky: str) -> Piece:
            return bench.trimmed(bench.half_square(cuts["square"], goose, sky, "diagonal"), side)

        onto, edge = Line((side, 0.0), (side, side)), Line((0.0, side), (0.0, 0.0))
        units = []
        for _ in range(1 if left == right else 2):
            one, other = half(left), half(right).turned(270).at_origin()
            units.append(bench.join(one, onto, other, edge, "middle seam"))
        return bench.making(*units)


class Templates(Method):
    """Triangles cut round paper templates, for geese of any ratio; sizes are of the rectangles they just fit in.

    Here a seam's slant h = √(p² + q²), with p half the width and q the height, is in general no number of the exact
    kind, so these sizes are rounded up to 1/8192 in.
    """

    kind = KIND.name
    name = "templates"
    title = "Paper templates"
    line = "any ratio"
    templated = frozenset({"goose_wide", "goose_tall", "sky_wide", "sky_tall"})

    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        pieces = (
            PieceRule("goose_wide", 0, 1, by="goose_tall"),
            PieceRule("sky_wide", 1, 1, gives=2, by="sky_tall"),
            # Unlike legs: a sky on the right is the mirror image of one on the left, and no turn makes it that.
            PieceRule("sky_wide", 2, 1, gives=2, by="sky_tall", mirrored=spec.width != spec.height * 2),
        )
        return Batch(pieces, units=1)

    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        """Each raw edge lies s + m outside the finished one, e outside a seam."""
        p, q, h = _slant(spec)
        out, e = float(allowance + margin), float(take_up)
        sizes = {
            "goose_wide": 2 * p + 2 * (p * out + e * h) / q,
            "goose_tall": q + out + e * h / p,
            "sky_wide": p + out + (e * h + p * out) / q,
            "sky_tall": q + out + (e * h + q * out) / p,
        }
        return Cuts((name, Length.near(size) + _LAST_PLACE) for name, size in sizes.items())

    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        beside, above, below = self._outside(spec, cuts, take_up)
        return spec.width + beside * 2, spec.height + above + below

    def margins(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Margins:
        beside, above, below = (x - allowance for x in self._outside(spec, cuts, take_up))
        return Margins(beside, beside, below, above)

    def _outside(self, spec: UnitSpec, cuts: Cuts, take_up: Length) -> tuple[Length, Length, Length]:
        """How far the raw edges lie outside the finished ones: beside, above and below."""
        p, q, h = _slant(spec)
        e, size = float(take_up), {name: float(v) for name, v in cuts.items()}
        beside = (size["sky_wide"] - p - e * h / q) / (1 + p / q)
        above = (size["sky_tall"] - q - e * h / p) / (1 + q / p)
        below = ((size["goose_wide"] / 2 - p) * q - e * h) / p
        return Length.near(beside), Length.near(above), Length.near(below)

    def ladders(self, spec: UnitSpec) -> tuple[LadderRule, ...]:
        return (
            LadderRule("width", "goose_wide", "to the two slanting seams"),
            LadderRule("height", "sky_tall", "to one slanting seam"),
        )

    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        bench = WorkSurface(needle, cuts)
        wide, tall, across, up = (cuts[n] for n in ("goose_wide", "goose_tall", "sky_wide", "sky_tall"))
        goose, left, right = spec.part_fabrics
        apex = (wide / 2, tall)
        body = Piece((Patch(((0.0, 0.0), (wide, 0.0), apex), goose),))
        left_sky = Piece((Patch(((0.0, 0.0), (across, up), (0.0, up)), left),))
        right_sky = Piece((Patch(((across, 0.0), (across, up), (0.0, up)), right),))
        left_leg, right_leg = Line(apex, (0.0, 0.0)), Line((wide, 0.0), apex)
        # The sky's sharp end sticks out below the goose's by the difference of their places along the seam.
        p, q, h = _slant(spec)
        e = sum(needle.at("left seam").take_up) / 2
        out = ((wide / 2 - p) * q - e * h) / p
        goose_end = (p * (-e * h - p * out) / q - q * out) / h
        sky_end = (-p * out + q * (-e * h - q * out) / p) / h
        below = sky_end - goose_end
        leg, hypotenuse = hypot(wide / 2, tall), hypot(across, up)
        meet = leg - below - hypotenuse
        one = bench.join(body, left_leg, left_sky, Line((0.0, 0.0), (across, up)), "left seam", meet, loose=True)
        edge = Line((0.0, up), (across, 0.0))
        return bench.making(bench.join(one, right_leg, right_sky, edge, "right seam", below, loose=True))


_LAST_PLACE = Length.of(1) / 2048


def _slant(spec: UnitSpec) -> tuple[float, float, float]:
    """Half the width, the height, and the length of a finished slanting seam."""
    p, q = float(spec.width) / 2, float(spec.height)
    return p, q, hypot(p, q)


LOOSE, FOUR, FLIPPED, TWO_UNITS, TEMPLATES = GooseLoose(), GooseFour(), GooseFlipped(), GooseTwoUnits(), Templates()
