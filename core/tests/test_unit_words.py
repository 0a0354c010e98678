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
