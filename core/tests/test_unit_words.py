"""What is said of making a unit, step by step: by hand from how each way lays, sews and cuts its cloth."""

from __future__ import annotations

from collections.abc import Mapping
from unittest import TestCase

from piecing.handling.marking import Marking
from piecing.handling.steps import unit_steps
from piecing.lengths import Length, inches
from piecing.planning import Choices, plan

from .samples import ALL_WAYS, sample

NAMES = {"a": "Tar", "b": "Fog", "c": "Buoy", "d": "Slackwater", "e": "Oilskin"}
VALUES = {"a": 2, "b": 0, "c": 1, "d": 1, "e": 1}


def told(
    kind: str,
    method: str,
    marking: Marking = Marking.CENTRE,
    letters: Mapping[tuple[str, Length, Length, int], str] | None = None,
) -> dict[str, str]:
    """By key: what is done and what to look at."""
    steps = unit_steps(plan(Choices(sample(kind), method)), NAMES, VALUES, marking, letters)
    said = {s.key: " ".join(map(str, (*s.said, *s.look))) for s in steps}
    return {k: v.replace("\u00a0", " ") for k, v in said.items()}


class PairTest(TestCase):
    """Two squares, the light one marked on its wrong side and on top, sewn twice and cut between."""

    def test_a_line_to_sew_beside_and_to_cut_on(self) -> None:
        steps = told("half_square_triangle", "pair")
        self.assertIn("from corner to corner on the wrong side of the Fog square", steps["mark diagonal"])
        self.assertIn("Lay the Fog square on the Tar square, right sides together", steps["lay diagonal"])
        self.assertIn("you see wrong sides only", steps["lay diagonal"])
        self.assertIn("Sew 1⁄4″ beside the line, on one side. Turn the chain round", steps["sew diagonal"])
        self.assertEqual(steps["cut diagonal"], "Cut on the drawn line.")

    def test_two_lines_to_sew_on_leave_none_to_cut_on(self) -> None:
        steps = told("half_square_triangle", "pair", Marking.LINES)
        self.assertIn("two lines on the wrong side of the Fog square, 1⁄4″ to either side", steps["mark diagonal"])
        self.assertIn("Sew on one drawn line", steps["sew diagonal"])
        self.assertEqual(steps["cut diagonal"], "Cut from corner to corner, midway between the two seams.")

    def test_a_guide_on_the_bed(self) -> None:
        steps = told("half_square_triangle", "pair", Marking.GUIDE)
        self.assertIn("Draw nothing. Stick a guide on the machine bed", steps["mark diagonal"])
        self.assertIn("Keep both corners on the needle line", steps["sew diagonal"])
        self.assertIn("midway between the two seams", steps["cut diagonal"])


class CornerTest(TestCase):
    """A square flipped over a corner is sewn on its diagonal; beside it two seams would be sewn."""

    def test_one_square_over_one_corner(self) -> None:
        steps = told("half_square_triangle", "flipped_corner")
        self.assertIn("Lay the Fog square on the upper left corner of the Tar square", steps["lay diagonal"])
        self.assertNotIn("lap over", steps["lay diagonal"])
        self.assertIn("Sew a thread outside the line, toward the corner", steps["sew diagonal"])
        self.assertIn("Fold the corner back first", steps["cut diagonal"])

    def test_without_a_line_it_is_creased_along_a_tape(self) -> None:
        """The corner follows the tape from the needle: a guide beside it is of no use to a seam on the diagonal itself."""
        steps = told("half_square_triangle", "flipped_corner", Marking.GUIDE)
        self.assertIn("Lay a tape on the machine bed, straight toward you from the needle", steps["mark diagonal"])
        self.assertNotIn("Stick a guide", steps["mark diagonal"])

    def test_of_two_small_squares_the_inner_corners_lap(self) -> None:
        """Geese four at a time: two squares of 3 3/4 on one of 7 overlap by half an inch; then one square to each half."""
        steps = told("flying_goose", "four")
        first = steps["lay first seam"]
        self.assertIn("Lay one Fog square on the lower left and upper right corner each of the Tar square", first)
        self.assertIn("They lap over each other in the middle", first)
        for key in ("lay second seam", "lay second seam 2"):
            self.assertNotIn("lap over", steps[key])
            self.assertRegex(steps[key], r"Lay the Fog square on the \w+ \w+ corner of the Tar and Fog piece")

    def test_the_large_square_shows_its_right_side_round_the_small_ones(self) -> None:
        self.assertNotIn("wrong sides only", told("flying_goose", "four")["lay first seam"])
        self.assertIn("where it stands out, the right side", told("flying_goose", "four")["lay first seam"])


class PileTest(TestCase):
    def test_by_its_letter_or_by_what_it_is(self) -> None:
        side = inches("5")
        plain = told("quarter_square_triangle", "two_half_square_triangles")["take"]
        self.assertEqual(plain, "One Tar square of 5″. One Fog square of 5″.")
        lettered = {("a", side, side, 1): "K", ("b", side, side, 1): "L"}
        found = told("quarter_square_triangle", "two_half_square_triangles", letters=lettered)["take"]
        self.assertEqual(found, "Pile K: one Tar square of 5″. Pile L: one Fog square of 5″.")


class UnderneathTest(TestCase):
    """The pieced one goes underneath, where its seam is seen to lie flat by nobody but the feed: what lies on the right ends on top."""

    def test_a_pieced_one_on_top_is_turned_down(self) -> None:
        for kind, method, key in (
            ("split_quarter_square_triangle", "loose_triangles", "sew long diagonal"),
            ("pieced_half", "triangles", "sew joining seam"),
        ):
            self.assertIn("Turn the pair over, so that the pieced one lies underneath", told(kind, method)[key])

    def test_one_that_lies_below_stays(self) -> None:
        steps = told("square_in_square", "corner_triangles")
        self.assertNotIn("pieced one", steps["sew seam 1"])
        for n in (2, 3, 4):
            self.assertIn("The pieced one lies underneath, as it should", steps[f"sew seam {n}"])

    def test_two_pieced_ones_nest_and_neither_is_turned(self) -> None:
        steps = told("quarter_square_triangle", "loose_triangles")
        self.assertNotIn("Turn the pair over", steps["sew long diagonal"])
        self.assertIn("the seams nest at the crossing", steps["lay long diagonal"])


class LyingTest(TestCase):
    def test_a_sharp_template_lies_by_its_tip_and_a_right_angle_by_that(self) -> None:
        lay = told("flying_goose", "templates")["lay left seam"]
        self.assertIn("On the left the Tar triangle, its tip", lay)
        self.assertIn("On the right the Fog triangle, its right angle", lay)

    def test_every_step_of_every_way_says_something_to_do(self) -> None:
        for method, _ in ALL_WAYS:
            for key, said in told(method.kind, method.name).items():
                with self.subTest(f"{method.kind} {method.name} {key}"):
                    self.assertRegex(said, r"^[A-Z0-9].*[.:]$")


class TakeTest(TestCase):
    """What is taken from the piles for one go, with the size it was cut to."""

    def test_each_form_by_how_it_was_cut(self) -> None:
        for kind, method, said in (
            ("half_square_triangle", "loose_triangles", "One Tar triangle, from a square of 4 1⁄2″ cut once on the diagonal."),
            ("flying_goose", "loose_triangles", "One Tar triangle, from a square of 7″ cut on both diagonals. 2 Fog triangles, from a square"),
            ("square_in_square", "corner_triangles", "One Tar square of 3″. 4 Fog triangles, from a square of 2 3⁄4″ cut once"),
            ("strip_split_square", "strip", "One Buoy strip of 6 7⁄8″ by 1″."),
            ("four_patch", "strips", "2 Tar strips 2 3⁄8″ wide. 2 Fog strips 2 3⁄8″ wide."),
            ("rectangle", "cut", "One Tar rectangle of 4″ by 5 3⁄4″."),
            ("flying_goose", "templates", "One Tar triangle cut round its template. 2 Fog triangles cut round its template."),
        ):  # fmt: skip
            with self.subTest(f"{kind} {method}"):
                self.assertIn(said, told(kind, method)["take"])

    def test_a_triangle_comes_from_the_pile_of_its_square(self) -> None:
        """A square of 4 1/2 gives two halves, one of 5 four quarters: each pile by how many it gives."""
        small, large = inches("9/2"), inches("5")
        halves = {("a", small, small, 2): "C", ("b", small, small, 2): "D", ("a", small, small, 4): "X"}
        self.assertIn(
            "Pile C: one Tar triangle", told("half_square_triangle", "loose_triangles", letters=halves)["take"]
        )
        quarters = {("b", large, large, 4): "E", ("c", large, large, 4): "F", ("a", small, small, 2): "G"}
        take = told("split_quarter_square_triangle", "loose_triangles", letters=quarters)["take"]
        for said in ("Pile F: one Buoy triangle", "Pile E: one Fog triangle", "Pile G: one Tar triangle"):
            self.assertIn(said, take)

    def test_strips_lie_upright_to_be_sewn_along_their_side(self) -> None:
        lay = told("four_patch", "strips")["lay row seam"]
        self.assertIn("On the left the Tar strip, lying upright. On the right the Fog strip, lying upright.", lay)


class SewTest(TestCase):
    def test_one_diagonal_or_both(self) -> None:
        """Of two pairs one diagonal is sewn beside twice; for eight at a time both, four times in all."""
        pair, eight = (told("half_square_triangle", m) for m in ("pair", "eight"))
        self.assertIn("Sew 1⁄4″ beside the line, on one side", pair["sew diagonal"])
        self.assertIn("Sew 1⁄4″ beside each line, on both its sides", eight["sew diagonals"])
        lines = told("half_square_triangle", "eight", Marking.LINES)["sew diagonals"]
        self.assertIn("Sew on the four drawn lines, one by one", lines)

    def test_two_quarters_begin_at_the_right_angle_and_a_quarter_on_a_strip_does_not(self) -> None:
        self.assertIn(
            "Begin at the right angle and sew outward",
            told("quarter_square_triangle", "loose_triangles")["sew short seam"],
        )
        band = told("banded_hourglass", "loose_triangles")["sew band seam"]
        self.assertNotIn("Begin at the right angle", band)
        self.assertIn("Keep the triangle underneath", band)

    def test_the_needle_enters_in_the_notch(self) -> None:
        """On a goose's left the sky's lower end stands out, on its right the upper."""
        geese = told("flying_goose", "loose_triangles")
        self.assertIn("Begin at the lower end, where one stands out", geese["sew left seam"])
        self.assertIn("Begin at the upper end, where one stands out", geese["sew right seam"])
