"""Trial pieces and what is made again, by hand."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from piecing.errors import SizeOutOfRange
from piecing.handling.spoiled import cloth_again
from piecing.lengths import Length, inches
from piecing.planning.plan import plan
from piecing.planning.trial import trial_of
from piecing.planning.unit_plan import Choices
from piecing.units import kind_of, methods_of
from piecing.units.method import Cuts


def _choices(kind: str, method: str, width: str, count: int = 8) -> Choices:
    return Choices(kind_of(kind).usual_spec(inches(width)), method, seam_allowance=inches("1/4"), count=count)  # type: ignore[arg-type]


class TrialTest(TestCase):
    """Half-square triangles finishing 3 1/2 are trimmed to 4; a pair cut 4 1/2 comes to 4 1/2 less r2/4, a good 4 1/8."""

    choices = _choices("half_square_triangle", "pair", "7/2")
    cuts = Cuts({"square": inches("9/2")})

    def said(self, came: str) -> str:
        return " ".join(map(str, trial_of(self.choices, self.cuts, inches(came)).sentences()))

    def test_room_is_told_in_all(self) -> None:
        self.assertIn("leaves 1⁄8″ to trim away to 4″, in all", self.said("33/8"))
        self.assertIn(
            "That is what these cuts should come to with your seam. The rest can be cut so.", self.said("33/8")
        )

    def test_too_small_says_how_much_larger(self) -> None:
        found = trial_of(self.choices, self.cuts, inches("63/16"))
        # 1/16 is missing and 1/8 wanted: 3/16 more cloth, which is 1/4 on this ruler.
        self.assertEqual((found.room, found.larger), (inches("-1/16"), inches("1/4")))
        self.assertIn("1⁄16″ too small to be trimmed to 4″", self.said("63/16"))
        self.assertIn("Cut every piece 1⁄4″ larger", self.said("63/16"))
        self.assertIn("look at the seam and the fold", self.said("63/16"))

    def test_just_enough_is_not_enough(self) -> None:
        self.assertIn("nothing to trim away", self.said("4"))
        self.assertIn("Cut every piece 1⁄8″ larger", self.said("4"))

    def test_cloth_to_spare(self) -> None:
        found = trial_of(self.choices, Cuts({"square": inches("5")}), inches("37/8"))
        self.assertIn("could be cut 1⁄2″ smaller", " ".join(map(str, found.sentences())))

    def test_what_cannot_be_of_such_a_piece(self) -> None:
        for wrong in ("2", "41/4", "9"):
            with self.assertRaises(SizeOutOfRange):
                trial_of(self.choices, self.cuts, inches(wrong))

    @settings(max_examples=60, deadline=None)
    @given(
        st.sampled_from([(k, m.name) for k in ("half_square_triangle", "quarter_square_triangle") for m in methods_of(k)]),
        st.integers(-8, 8),
    )  # fmt: skip
    def test_cut_so_much_larger_it_can_be_trimmed(self, told: tuple[str, str], sixteenths: int) -> None:
        """Whatever made it come out otherwise makes the next one so too."""
        choices = _choices(*told, "7/2")
        planned = plan(choices)
        off = Length.of(1) * sixteenths / 16
        found = trial_of(choices, planned.cuts, planned.raw_width + off, planned.raw_height + off)
        cuts = Cuts((n, s + found.larger) for n, s in planned.cuts.items())
        again = planned.method.raw(choices.spec, cuts, choices.seam_allowance, choices.seam.take_up)
        for came, target in zip(again, (planned.target_width, planned.target_height), strict=True):
            self.assertGreaterEqual(float(came + off - target), float(choices.ruler_step) - 1e-9)


class LostTest(TestCase):
    def test_three_units_of_pairs_are_two_goes(self) -> None:
        planned = plan(_choices("half_square_triangle", "pair", "7/2"))
        cloth = cloth_again(planned, 3)
        side = float(planned.cuts["square"])
        self.assertEqual(
            {r: round(float(a.value), 3) for r, a in cloth.items()}, {r: round(2 * side**2, 3) for r in "ab"}
        )
