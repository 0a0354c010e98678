"""Pieces at hand, the reverse question, and every way side by side."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from piecing.errors import HoldingNotUnderstood, LengthError, PiecingError
from piecing.lengths import Measure, inches, mm
from piecing.overview.compare import Way, compare
from piecing.planning.holdings import Holding, largest_unit, parse_holdings, units_from
from piecing.planning.plan import plan
from piecing.planning.room import QuilterRecord
from piecing.planning.schools import School
from piecing.planning.unit_plan import Choices
from piecing.trimming import Ruler, starting_set
from piecing.units import KINDS, Method, UnitSpec, methods_of
from piecing.units.method import Hands

from .samples import ALL_WAYS, half_square, sample

_TENS = Holding(inches(10), inches(10), 12)
_RULERS = starting_set(Measure.INCHES)


class ParsingTest(TestCase):
    def test_lists_as_people_write_them(self) -> None:
        found = parse_holdings("12 of 10 x 10; 5x5\n2 1/2 by 42; 3 pieces of 10in × 20in")
        self.assertEqual(
            [(h.width, h.height, h.count) for h in found],
            [
                (inches(10), inches(10), 12),
                (inches(5), inches(5), None),
                (inches("5/2"), inches(42), None),
                (inches(10), inches(20), 3),
            ],
        )
        self.assertEqual(parse_holdings("250 x 250", Measure.MILLIMETRES)[0].width, mm(250))
        self.assertEqual(parse_holdings(" ; \n "), ())

    def test_what_cannot_be_read(self) -> None:
        for text in ("10", "ten by ten", "0 of 5 x 5", "0 x 5", "5 x -1", ";".join(["5 x 5"] * 41)):
            with self.subTest(text[:20]), self.assertRaises((HoldingNotUnderstood, LengthError)):
                parse_holdings(text)


class UnitsFromTest(TestCase):
    def test_twelve_ten_inch_squares_of_each(self) -> None:
        for method, wanted in (("pair", 96), ("eight", 96), ("four", 48)):
            unit = plan(Choices(sample("half_square_triangle"), method))
            with self.subTest(method):
                self.assertEqual(units_from(unit, [_TENS]), wanted)

    def test_a_piece_that_fits_nowhere(self) -> None:
        self.assertEqual(units_from(plan(half_square("12")), [_TENS]), 0)

    def test_pieces_of_one_fabric_share_what_there_is(self) -> None:
        geese = plan(Choices(sample("flying_goose", part_fabrics="aaa"), "four", count=4))
        # One goose square and four sky squares of the same fabric from three 10 in. squares: 1 + 4/4 squares a batch.
        self.assertEqual(units_from(geese, [replace(_TENS, count=3)]), 4)

    @settings(max_examples=40)
    @given(st.sampled_from(ALL_WAYS), st.integers(1, 40))
    def test_no_more_area_is_used_than_there_is(self, way: tuple[Method, UnitSpec], count: int) -> None:
        method, spec = way
        unit = plan(Choices(spec, method.name))
        holding = Holding(inches(12), inches(14), count)
        got = units_from(unit, [holding])
        batches = got // unit.batch.units
        if not batches:
            return
        pieces = unit.pieces_for(replace(unit.choices, count=got), batches)
        by_role: dict[str, float] = {}
        for p in pieces:
            by_role[p.role] = by_role.get(p.role, 0.0) + float(p.area.value)
        self.assertLessEqual(max(by_role.values()), count * 12 * 14 + 1e-6)


class LargestTest(TestCase):
    @settings(max_examples=60)
    @given(st.sampled_from(ALL_WAYS), st.sampled_from([School.EXACT, School.LITTLE, School.GENEROUS]))
    def test_it_fits_and_one_step_more_does_not(self, way: tuple[Method, UnitSpec], school: School) -> None:
        method, spec = way
        choices = Choices(spec, method.name, school)
        best = largest_unit(choices, _TENS)
        if best is None:
            return
        self.assertTrue(all(_TENS.gives(p) for p in best.pieces))
        step, ratio = choices.ruler_step, spec.height.rational / spec.width.rational
        width = best.spec.width + step
        try:
            more = plan(replace(choices, spec=spec.sized(width, width * ratio), count=1))
        except PiecingError:
            return
        self.assertFalse(all(_TENS.gives(p) for p in more.pieces), f"{method.kind} {method.name}")

    def test_worked_examples(self) -> None:
        """From 10 in. squares, a little oversize: pairs finish 9, four at a time 6 3/8, eight at a time 4."""
        for method, finished in (("pair", "9"), ("eight", "4")):
            best = largest_unit(Choices(sample("half_square_triangle"), method), _TENS)
            assert best is not None
            self.assertEqual(best.spec.width, inches(finished), method)

    def test_a_scrap_too_small_for_anything(self) -> None:
        self.assertIsNone(largest_unit(half_square(), Holding(inches("1/2"), inches("1/2"))))


class CompareTest(TestCase):
    def best(self, kind: str, part_fabrics: str = "", **more: object) -> Way:
        spec = sample(kind, part_fabrics=part_fabrics)
        return compare(Choices(spec, methods_of(kind)[0].name, count=24), **more).ways[0]  # type: ignore[arg-type]

    def test_every_method_and_school_is_there_or_says_why_not(self) -> None:
        for kind in KINDS:
            ways = compare(Choices(sample(kind), methods_of(kind)[0].name), rulers=_RULERS).ways
            with self.subTest(kind):
                self.assertEqual(len(ways), len(methods_of(kind)) * len(School))
                for way in ways:
                    self.assertTrue((way.plan is None) == (way.refusal is not None))

    def test_the_recommended_one_has_no_drawback_and_says_why(self) -> None:
        for kind in ("half_square_triangle", "quarter_square_triangle", "flying_goose", "square_in_square"):
            comparison = compare(Choices(sample(kind), methods_of(kind)[0].name, count=24), rulers=_RULERS)
            with self.subTest(kind):
                self.assertEqual(comparison.ways[0].drawbacks, ())
                self.assertIn("to trim", str(comparison.reason))

    def test_bias_outside_and_loose_edges_count_against_a_way(self) -> None:
        ways = compare(half_square(count=24)).ways
        by_name = {w.method.name: w for w in ways if w.school is School.LITTLE}
        self.assertEqual(by_name["four"].bias_outside, 1.0)
        self.assertTrue(by_name["loose_triangles"].loose_bias)
        self.assertGreater(by_name["four"].score, by_name["pair"].score)
        self.assertAlmostEqual(by_name["pair"].seams, 1.0)
        self.assertAlmostEqual(by_name["pair"].sewn, 4.5 * 2**0.5 - 0.5, places=6)

    def test_what_all_units_take_by_hand(self) -> None:
        """24 in pairs: 24 squares of 4 1/2, two seams of 4.5 √2 - 1/2 through each of twelve pairs, one cut through each."""
        ways = {(w.method.name, w.school): w for w in compare(half_square(count=24)).ways}
        pair = ways["pair", School.LITTLE].in_all
        self.assertEqual((pair.pieces, pair.seams, pair.cuts_apart), (24, 24, 12))
        self.assertAlmostEqual(pair.sewn, 24 * (4.5 * 2**0.5 - 0.5), places=5)
        eight = ways["eight", School.LITTLE].in_all
        # Three batches of one square of each fabric, four seams, cut across, down and on both diagonals.
        self.assertEqual((eight.pieces, eight.seams), (6, 12))
        refused = next(
            w for w in compare(Choices(sample("flying_goose").sized(inches(6), inches(2)), "four")).ways if not w.plan
        )
        self.assertEqual(refused.in_all.pieces, 0)

    def test_the_reason_is_true_of_the_ways_it_is_said_of(self) -> None:
        for kind in (
            "half_square_triangle",
            "quarter_square_triangle",
            "flying_goose",
            "square_in_square",
            "four_patch",
        ):
            found = compare(Choices(sample(kind), methods_of(kind)[0].name, count=24), rulers=_RULERS)
            best, said = found.ways[0], str(found.reason)
            rivals = [w for w in found.ways if w.plan and not w.drawbacks and w.method is not best.method]
            with self.subTest(kind):
                for words, of in (
                    ("least cloth", lambda w: w.cloth),
                    ("fewest pieces", lambda w: w.in_all.pieces),
                    ("least to sew", lambda w: w.in_all.sewn),
                ):
                    least = bool(rivals) and all(of(best) < of(w) - 1e-9 for w in rivals)
                    self.assertEqual(words in said, least, said)

    def test_one_hand_only_is_made_from_loose_triangles(self) -> None:
        way = self.best("split_quarter_square_triangle", "abc")
        self.assertEqual((way.method.name, way.hands), ("loose_triangles", Hands.AS_WANTED))
        spec = sample("split_quarter_square_triangle", part_fabrics="abc")
        even = compare(Choices(spec, "loose_triangles", count=12, mirrored=12)).ways
        halves = next(w for w in even if w.method.name == "unit_and_square" and w.school is School.LITTLE)
        self.assertEqual(halves.drawbacks, ())

    def test_pieces_at_hand_rule_out_what_does_not_fit(self) -> None:
        fives = parse_holdings("40 of 5 x 5")
        self.assertEqual(self.best("half_square_triangle", holdings=fives).method.name, "pair")
        way = self.best("half_square_triangle", holdings=fives)
        self.assertEqual((way.at_hand, way.largest), (80, inches(4)))
        ways = compare(half_square(count=24), holdings=fives).ways
        eight = next(w for w in ways if w.method.name == "eight" and w.school is School.LITTLE)
        self.assertIn("pieces at hand", str(eight.drawbacks[0]))

    def test_rulers_rule_out_what_cannot_be_trimmed(self) -> None:
        tiny = [Ruler("Tiny", inches(3), inches(3))]
        self.assertIn("no ruler of yours", str(compare(half_square(), rulers=tiny).ways[0].drawbacks[-1]))

    def test_ones_own_seam_makes_ones_own_records_win(self) -> None:
        record = QuilterRecord(0.27, 0.012, 1 / 64, 9)
        comparison = compare(half_square(count=24), record=record)
        best = comparison.ways[0].plan
        assert best is not None
        assert best.room is not None
        self.assertGreaterEqual(best.room, 0.99)

    def test_a_goose_of_another_ratio_leaves_templates(self) -> None:
        wide = sample("flying_goose").sized(inches(6), inches(2))
        ways = compare(Choices(wide, "four")).ways
        self.assertEqual({w.method.name for w in ways if w.plan}, {"templates"})
        self.assertEqual(
            {w.refusal.code for w in ways if w.refusal and w.method.name != "templates"}, {"ratio_not_possible"}
        )
