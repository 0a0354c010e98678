"""Which marks of the ruler are named where a unit or a block is trimmed: each by hand, for units finishing 6 in. (6 1/2 before joining)."""

from __future__ import annotations

from fractions import Fraction
from unittest import TestCase

from piecing.blocks.pattern import Pattern, Place, UnitPlacement
from piecing.lengths import Measure, inches, mm
from piecing.messages import Message
from piecing.planning.plan import plan
from piecing.planning.unit_plan import Choices
from piecing.trimming import recipes, starting_set, trim_block, trimmed_plan
from piecing.units import methods_of

from .samples import sample

RULERS = starting_set(Measure.INCHES)
SQUARE = UnitPlacement("plain_square", ("a",))


def plain(said: Message | None) -> str:
    return "" if said is None else str(said).replace("\u00a0", " ")


def told(kind: str, size: str = "6") -> str:
    """Everything that is said of trimming such a unit opened, in one string."""
    spec = sample(kind, inches(size))
    made = trimmed_plan(plan(Choices(spec, methods_of(kind)[0].name)))
    way = next(r for r in recipes(made, RULERS) if r.code == "opened")
    return " ".join(plain(part) for step in way.steps for part in (step.title, step.how, step.look_for))


def block(columns: int, rows: int) -> Pattern:
    places = tuple(Place(c, r, SQUARE) for c in range(columns) for r in range(rows))
    return Pattern("Squares", (Fraction(1),) * columns, (Fraction(1),) * rows, places)


def laid_on(columns: int, rows: int, finished: str, allowance: str = "1/4") -> str:
    found = trim_block(block(columns, rows), inches(finished), inches(allowance), RULERS)
    return " ".join(plain(part) for step in found.steps for part in (step.how, step.look_for))


class UnitTest(TestCase):
    def test_the_marks_of_every_kind(self) -> None:
        """Half of 6 1/2 is 3 1/4. Geese finishing 6 by 3 are 3 1/2 high, their tip a quarter below the edge."""
        for kind, said in (
            ("half_square_triangle", ("45-degree line on the seam, the 6 1⁄2″ marks inside the far raw edges",)),
            ("quarter_square_triangle", ("the 3 1⁄4″ marks on the crossing", "corners of the 6 1⁄2″ square", "lies 3 1⁄4″ from every edge")),
            ("split_quarter_square_triangle", ("the 3 1⁄4″ marks where the short seam meets it", "meeting point under the 3 1⁄4″ marks")),
            ("flying_goose", ("under the 3 1⁄4″ mark across and 1⁄4″ below the upper edge", "1⁄4″ above the 3 1⁄2″ mark")),
            ("square_in_square", ("the 3 1⁄4″ lines on opposite tips, each tip 1⁄4″ inside", "the tips under the 3 1⁄4″ lines")),
            ("four_patch", ("the 3 1⁄4″ lines on both seams", "the 3 1⁄4″ lines on the seams", "lies 3 1⁄4″ from every edge")),
            ("pieced_half", ("long seam between the halves, the 6 1⁄2″ marks",)),
            ("banded_hourglass", ("long seam between the halves, the 6 1⁄2″ marks",)),
        ):  # fmt: skip
            words = told(kind)
            for part in said:
                with self.subTest(kind, part=part):
                    self.assertIn(part, words)

    def test_corners_cross_the_edges_two_allowances_past_their_finished_size(self) -> None:
        """Finishing 7 with corners of 2, 3 and 2: from the raw corners the seams are 2 1/2 and 3 1/2 away."""
        self.assertIn("cross the raw edges at 2 1⁄2″ to 3 1⁄2″ from their corners", told("corner_triangle", "7"))

    def test_a_strip_runs_into_its_corners_by_its_width_over_root_two(self) -> None:
        """Finishing 7 the strip is 1 wide: 0.707 on the ruler is nearest to 23/32."""
        self.assertIn("its edges 23⁄32″ from them", told("strip_split_square", "7"))


class ClosedTest(TestCase):
    def words(self, code: str, fold: str) -> str:
        choices = Choices(sample("half_square_triangle", inches(6)), "pair", fold=inches(fold))
        way = next(r for r in recipes(trimmed_plan(plan(choices)), RULERS) if r.code == code)
        return " ".join(plain(part) for step in way.steps for part in (step.title, step.how, step.look_for))

    def test_what_a_fold_takes_of_a_unit_trimmed_closed(self) -> None:
        """A fold of 1/16 shortens the diagonal by so much, each side by 0.044: 6.456 is nearest to 6 15/32."""
        words = self.words("closed", "1/16")
        self.assertIn("Put the diagonal marked 6 1⁄2″ on the line of stitching", words)
        self.assertIn("the fold will take 1⁄32″", words)
        self.assertIn("The unit opens to 6 15⁄32″ a side", words)

    def test_folded_on_its_seam(self) -> None:
        """6 1/2 over root two is 4.596: 4 19/32."""
        self.assertIn("measure 4 19⁄32″ square across", self.words("folded", "1/32"))


class BlockTest(TestCase):
    def test_a_square_block_by_half_of_it(self) -> None:
        """Finishing 6 it is 6 1/2: 3 1/4 both ways, and over 6 1/2 it is trimmed."""
        words = laid_on(2, 2, "6")
        self.assertIn("Put the 3 1⁄4″ lines on the crossing in the middle.", words)
        self.assertIn("Over 6 1⁄2″ by 6 1⁄2″ it is trimmed", words)

    def test_an_oblong_block_by_both(self) -> None:
        """Two columns and four rows finishing 6 by 12: 3 1/4 across and 6 1/4 down."""
        words = laid_on(2, 4, "6")
        self.assertIn("Put the 3 1⁄4″ and 6 1⁄4″ lines on the crossing in the middle.", words)
        self.assertIn("Over 6 1⁄2″ by 12 1⁄2″ it is trimmed", words)

    def test_without_a_crossing_by_its_marks(self) -> None:
        """Three columns meet nowhere in the middle."""
        self.assertIn("Lay the 6 1⁄2″ and 4 1⁄2″ marks so that as much cloth shows beyond", laid_on(3, 2, "6"))

    def test_other_allowances(self) -> None:
        words = laid_on(2, 2, "6", "3/8")
        self.assertIn("Put the 3 3⁄8″ lines on the crossing", words)
        self.assertIn("keeps 3⁄8″ of cloth outside it", words)

    def test_only_one_as_large_as_the_block_is_named(self) -> None:
        found = trim_block(block(2, 2), mm(900), mm(6), RULERS)
        self.assertTrue(any(n.code == "ruler_small" for n in found.warnings))
