"""From the plan to what is cut, and a ticket in words: pieces, strips, directions and letters by hand."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from piecing.blocks.library import library_pattern
from piecing.blocks.pattern import layout_of
from piecing.cutting.wanted import plain_pieces, unit_pieces
from piecing.diagnosis.habits import Figure, Habit
from piecing.drawings.block import block_picture
from piecing.handling.lots import LotPlan
from piecing.handling.marking import Marking
from piecing.lengths import Measure, Style, inches
from piecing.messages import Message
from piecing.overview.ticket import HandsOfUnit, block_ticket, ticket
from piecing.planning.plan import plan
from piecing.planning.schools import School
from piecing.planning.unit_plan import Choices, UnitPlan
from piecing.prints import Direction
from piecing.quilts.choices import Border, Corners, QuiltChoices
from piecing.quilts.sizes import quilt_sizes
from piecing.records.words import habit_said, habit_sureness, spread_said
from piecing.trimming import Ruler
from piecing.units import UnitSpec

NO_WAY: dict[str, Direction] = {}
STRIPED = dict.fromkeys("abcdefgh", Direction.STRIPES)
BIG = Ruler("big square", inches("13/2"), inches("13/2"))


def planned(
    kind: str, size: str, method: str, count: int = 24, height: str = "", fabrics: str = "ab", **more: object
) -> UnitPlan:
    spec = UnitSpec(kind, inches(size), inches(height or size), tuple(fabrics))
    return plan(Choices(spec, method, School.LITTLE, count, **more))  # type: ignore[arg-type]


HALVES = planned("half_square_triangle", "3", "pair")


class UnitPiecesTest(TestCase):
    def test_twenty_four_halves_are_twelve_squares_of_four_of_each(self) -> None:
        found = unit_pieces(HALVES, "half-square triangle", NO_WAY)
        # 3 finished takes 3 7/8, and a little over: 4. A pair of squares gives two.
        self.assertEqual([(p.fabric, p.width, p.height, p.count) for p in found], [
            ("a", inches(4), inches(4), 12), ("b", inches(4), inches(4), 12),
        ])  # fmt: skip
        self.assertTrue(all(p.turns for p in found))

    def test_squares_turn_whatever_the_print_and_oblongs_do_not(self) -> None:
        oblong = planned("rectangle", "2", "cut", fabrics="a", height="5")
        (free,) = unit_pieces(oblong, "rectangle", NO_WAY)
        (kept,) = unit_pieces(oblong, "rectangle", STRIPED)
        self.assertEqual((free.turns, kept.turns), (True, False))
        self.assertTrue(all(p.turns for p in unit_pieces(HALVES, "halves", STRIPED)))

    def test_a_strip_longer_than_the_cloth_is_wide_is_cut_in_several(self) -> None:
        wide = planned("four_patch", "4", "strips", count=60, fabrics="abba")
        for usable in (inches(40), inches(30), inches(21)):
            for whole, cut in zip(wide.pieces, unit_pieces(wide, "four-patch", NO_WAY, usable), strict=True):
                if whole.height <= usable:
                    self.assertEqual((cut.height, cut.count), (whole.height, whole.count))
                    continue
                self.assertLessEqual(cut.height, usable)
                # As many whole lengths as fit, so that no crosscut falls on a join.
                self.assertEqual(cut.height, whole.width * whole.width.whole_into(usable))
                self.assertGreaterEqual(cut.height * cut.count, whole.height)
                self.assertLess(cut.height * (cut.count - 1), whole.height)


class PlainPiecesTest(TestCase):
    SIZED = quilt_sizes(
        QuiltChoices(
            3, 4, inches(12), inches(12), sash=inches(2), borders=(Border(inches(5), "b", Corners.OVERLAPPED),)
        )
    )

    def test_every_piece_of_the_quilt_is_wanted_once(self) -> None:
        found = plain_pieces(self.SIZED.pieces, NO_WAY)
        self.assertEqual([p.count for p in found], [p.count for p in self.SIZED.pieces])
        self.assertEqual([p.width for p in found], [p.cut_width for p in self.SIZED.pieces])

    def test_only_borders_are_cut_along_when_asked_for(self) -> None:
        asked = {p.name: p for p in plain_pieces(self.SIZED.pieces, NO_WAY, along=True)}
        along = {name for name, p in asked.items() if p.along_cloth}
        self.assertEqual(along, {name for name in asked if name.startswith("border")})
        self.assertFalse([p for p in plain_pieces(self.SIZED.pieces, NO_WAY) if p.along_cloth])

    def test_a_binding_turns_with_any_print(self) -> None:
        found = plain_pieces(self.SIZED.pieces, STRIPED)
        self.assertTrue(all(p.turns for p in found if p.joined))
        self.assertFalse([p for p in found if p.turns and not p.joined and p.width != p.height])


class TicketTest(TestCase):
    def said(self, hands: HandsOfUnit, made: UnitPlan = HALVES) -> list[str]:
        t = ticket(made, hands, (BIG,))
        return [c.text(Style()).replace("\u00a0", " ") for c in t.cut]

    def test_pieces_are_named_by_fabric_and_letter(self) -> None:
        letters = {("a", inches(4), inches(4), 1): "C", ("b", inches(4), inches(4), 1): "D"}
        names = {"a": "Slackwater", "b": "Tar"}
        self.assertEqual(
            self.said(HandsOfUnit(names, letters=letters)), ["C: 12 squares 4″, Slackwater", "D: 12 squares 4″, Tar"]
        )
        self.assertEqual(self.said(HandsOfUnit({})), ["12 squares 4″, A", "12 squares 4″, B"])

    def test_squares_cut_on_their_diagonals_say_so(self) -> None:
        loose = planned("half_square_triangle", "3", "loose_triangles")
        self.assertTrue(all("cut once on the diagonal" in s for s in self.said(HandsOfUnit({}), loose)))
        geese = planned("flying_goose", "6", "loose_triangles", height="3", fabrics="abb")
        cut = self.said(HandsOfUnit({}), geese)
        self.assertEqual(sum("cut on both diagonals" in s for s in cut), 1)
        self.assertEqual(sum("cut once on the diagonal" in s for s in cut), 1)

    def test_pieces_all_alike_are_not_told_apart(self) -> None:
        # An hourglass of three fabrics takes squares of one size only.
        hourglass = planned("quarter_square_triangle", "3", "two_half_square_triangles", fabrics="abac")
        self.assertEqual([s.split(", ")[1:] for s in self.said(HandsOfUnit({}), hourglass)], [["A"], ["B"], ["C"]])

    def test_lots_bobbins_and_sizes(self) -> None:
        # An inch and a half of the bobbin goes into each inch of seam: of 2500 a second lot of 1000 finds too little left.
        lots = (LotPlan(1, 6, inches(1000)), LotPlan(2, 6, inches(1000)))
        t = ticket(HALVES, HandsOfUnit({}, lots=lots, marking=Marking.CENTRE), (BIG,))
        self.assertEqual((t.target, t.target_height), (inches("7/2"), inches("7/2")))
        self.assertEqual((t.goes, t.per_go), (12, 2))
        self.assertEqual((t.lots, t.wound), (lots, (2,)))
        self.assertEqual(t.wanted.text(Style()), "24 wanted, 24 made")
        self.assertTrue(t.steps and t.recipe is not None and t.cautions)

    def test_a_plain_piece_is_cut_and_nothing_else(self) -> None:
        t = ticket(
            planned("plain_square", "3", "cut", fabrics="a"),
            HandsOfUnit({}),
            (BIG,),
        )
        self.assertEqual((t.steps, t.recipe), ((), None))

    def test_a_block_says_how_many_and_in_which_colours(self) -> None:
        picture = block_picture(layout_of(library_pattern("lantern")), inches(9))
        one = block_ticket("Lantern", 1, (), picture)
        self.assertEqual(str(one.wanted), "one block to join")
        two = block_ticket("Lantern", 12, (), picture, (Message("A in Slackwater."), Message("B in Tar.")))
        self.assertEqual(str(two.wanted), "12 blocks to join. In all A in Slackwater. B in Tar.")


class HabitWordsTest(TestCase):
    """Each sentence from a figure set by hand: off only where the whole interval lies on one side and it is half a thread at least."""

    def figure(
        self, mean: float, low: float, high: float, spread: tuple[float, float, float] = (0.01, 0.008, 0.012)
    ) -> Figure:
        return Figure(mean, low, high, *spread, readings=12, worth=12.0, assumed=0.01)

    def said(self, habit: Habit, *figures: float, style: Style | None = None) -> str:
        return habit_said(habit, self.figure(*figures), inches("1/4")).text(style or Style()).replace("\u00a0", " ")

    def test_seams(self) -> None:
        self.assertEqual(self.said(Habit.SEAM, 1 / 32, 1 / 64, 3 / 64), "Your seams take 1⁄32″ more than 1⁄4″.")
        self.assertEqual(self.said(Habit.SEAM, -1 / 32, -3 / 64, -1 / 64), "Your seams take 1⁄32″ less than 1⁄4″.")
        self.assertEqual(
            self.said(Habit.SEAM, 1 / 32, -1 / 64, 5 / 64), "What your seams take is not known to a thread yet."
        )
        self.assertEqual(self.said(Habit.SEAM, 1 / 256, -1 / 100, 1 / 64), "Your seams take 1⁄4″, as wanted.")
        self.assertEqual(self.said(Habit.SEAM, 1 / 256, 1 / 512, 3 / 512), "Your seams take 1⁄4″, as wanted.")

    def test_every_habit_both_ways_and_neither(self) -> None:
        for habit in Habit:
            above, below = self.said(habit, 1 / 16, 1 / 32, 3 / 32), self.said(habit, -1 / 16, -3 / 32, -1 / 32)
            neither, unknown = self.said(habit, 0.0, -1 / 100, 1 / 100), self.said(habit, 0.0, -1 / 32, 1 / 32)
            self.assertEqual(len({above, below, neither, unknown}), 3 if habit is Habit.FOLD else 4)
            self.assertIn("not known to a thread yet", unknown)
            if habit is not Habit.FOLD:
                self.assertIn("1⁄16″", below)
            self.assertIn("1⁄16″", above)

    def test_certain_is_what_is_known_to_a_thread(self) -> None:
        """A thread is 1/64: a mean between 1/64 and 3/64 is one either way, one between 1/100 and 6/100 more."""
        for low, high, wanted in (
            (1 / 64, 3 / 64, "certain"),
            (-1 / 64, 1 / 64, "certain"),
            (1 / 100, 6 / 100, "likely"),
            (-1 / 100, 4 / 100, "open"),
        ):
            self.assertEqual(habit_sureness(self.figure((low + high) / 2, low, high)), wanted)
        of_three = replace(self.figure(0, -1 / 64, 1 / 64), worth=3.0)
        self.assertEqual(habit_sureness(of_three), "open")
        self.assertEqual(habit_sureness(replace(of_three, low=1 / 100, high=6 / 100)), "open")

    def test_in_millimetres(self) -> None:
        self.assertIn("1.5 mm more", self.said(Habit.SEAM, 1 / 16, 1 / 32, 3 / 32, style=Style(Measure.MILLIMETRES)))

    def test_how_far_nine_in_ten_lie(self) -> None:
        # 1.645 times 0.019 is a thirty-second.
        for low, high, words in (
            (0.004, 0.009, "steadier than"),
            (0.02, 0.04, "less steady than"),
            (0.005, 0.02, "as with"),
        ):
            said = spread_said(self.figure(0, 0, 0, (0.019, low, high))).text(Style())
            self.assertIn("1⁄32″", said)
            self.assertIn(words, said)
