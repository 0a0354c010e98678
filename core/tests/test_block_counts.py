"""Counting and looking: units told apart by turning their pictures, hands, twins, spares; the turned unit found."""

from __future__ import annotations

from fractions import Fraction
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from piecing.blocks import editing
from piecing.blocks.comparing import alternatives, compare_patterns
from piecing.blocks.counting import BlockOrder, Colourway, MakingChoice, Spares, ordered_plans, unit_counts
from piecing.blocks.geometry import placed_parts
from piecing.blocks.library import library_keys, library_pattern
from piecing.blocks.pattern import Orientation, Pattern, layout_of
from piecing.drawings.block import apart_picture, side_by_side
from piecing.errors import CountOutOfRange, LayoutIncomplete, PlanError, RoleWithoutFabric
from piecing.geometry.plane import area, rotated
from piecing.lengths import inches
from piecing.planning.schools import School
from tests.blocks import grid, patterns

SIZE = inches("21/2")


def order(key: str, *ways: Colourway) -> BlockOrder:
    return BlockOrder(library_pattern(key), SIZE, ways or (Colourway(1),))


def pictures(pattern: Pattern) -> list[tuple[frozenset[object], frozenset[object]]]:
    """Every unit of a block as it shows, and as in the mirror, each over all its turns: by brute force."""

    def shown(parts: object, turn: int, mirror: bool) -> frozenset[object]:
        seen = []
        for p in parts:  # type: ignore[attr-defined]
            points = [rotated((-x, y) if mirror else (x, y), 90 * turn) for x, y in p.outline]
            seen.append((p.role, frozenset((round(x, 4), round(y, 4)) for x, y in points)))
        return frozenset(seen)

    part, found = layout_of(pattern).part(SIZE), []
    for cell in layout_of(pattern).cells:
        parts = placed_parts(cell.spec(part), cell.orientation)
        found.append(
            (
                frozenset(shown(parts, t, False) for t in range(4)),
                frozenset(shown(parts, t, True) for t in range(4)),
            )
        )
    return found


class CountingTest(TestCase):
    def test_the_lantern_quilt(self) -> None:
        units = unit_counts([order("lantern", Colourway(12))])
        self.assertEqual(
            {u.spec.kind: u.total for u in units},
            {"half_square_triangle": 48, "quarter_square_triangle": 48, "plain_square": 12},
        )

    def test_every_block_counts_as_its_pictures_do(self) -> None:
        for key in library_keys():
            shown = pictures(library_pattern(key))
            classes: list[tuple[frozenset[object], frozenset[object]]] = []
            for face, mirror in shown:
                if not any(face & f or face & m for f, m in classes):
                    classes.append((face, mirror))
            units = unit_counts([order(key)])
            self.assertEqual(len(units), len(classes), key)
            self.assertEqual(sum(u.total for u in units), len(shown), key)
            handed = sorted(
                sorted((sum(bool(f & s) for s, _ in shown), sum(bool(m & s) for s, _ in shown)))
                for f, m in classes
                if not f & m
            )
            self.assertEqual(sorted(sorted((u.as_drawn, u.mirrored)) for u in units if u.handed), handed, key)

    def test_colourways_and_twins(self) -> None:
        plain = Colourway(3)
        twin = plain.twin("a", "b", 2)
        units = unit_counts([order("shoo_fly", plain, twin)])
        squares = {u.spec.part_fabrics: u.total for u in units if u.spec.kind == "plain_square"}
        self.assertEqual(squares, {("b",): 3 * 4 + 2, ("a",): 3 + 2 * 4})
        # A half-square triangle of the same two fabrics is one unit, whichever is which.
        self.assertEqual([u.total for u in units if u.spec.kind == "half_square_triangle"], [20])
        self.assertEqual(twin.twin("a", "b", 3), Colourway(3, (("a", "a"), ("b", "b"))))

    def test_mirrored_blocks_ask_for_the_other_hand(self) -> None:
        star = library_pattern("split_star")
        units = unit_counts(
            [BlockOrder(star, SIZE, (Colourway(2),)), BlockOrder(editing.whole_mirrored(star), SIZE, (Colourway(1),))]
        )
        (split,) = [u for u in units if u.handed]
        self.assertEqual((split.as_drawn, split.mirrored), (8, 4))

    def test_what_cannot_be_counted_is_refused(self) -> None:
        with self.assertRaises(LayoutIncomplete):
            unit_counts([BlockOrder(grid([". ."], {}), SIZE, (Colourway(1),))])
        with self.assertRaises(RoleWithoutFabric):
            unit_counts([order("lantern")], ["a", "b"])


class PlansTest(TestCase):
    def test_spares_batches_and_ways(self) -> None:
        units = unit_counts([order("lantern", Colourway(12))])
        makings = {
            "half_square_triangle": MakingChoice("eight", School.GENEROUS),
            "quarter_square_triangle": MakingChoice("loose_triangles"),
        }
        plans = {c.unit.spec.kind: c for c in ordered_plans(units, makings, Spares(Fraction(5)))}
        half = plans["half_square_triangle"]
        assert half.plan
        # 48 and 5 in a hundred, rounded up, is 51; eights give 56
        self.assertEqual((half.spares, half.plan.batches, half.plan.made), (3, 7, 56))
        self.assertEqual(plans["plain_square"].spares, 0)

    def test_units_of_one_hand_are_made_one_handed(self) -> None:
        split = next(c for c in ordered_plans(unit_counts([order("split_star", Colourway(2))]), {}) if c.unit.handed)
        assert split.plan
        self.assertEqual(split.method, "loose_triangles")
        self.assertEqual(0 in (split.plan.made_as_drawn, split.plan.made_mirrored), True)

    def test_triangles_left_over_are_counted(self) -> None:
        units = unit_counts([order("hourglass_star", Colourway(1))])
        plans = ordered_plans(units, {"quarter_square_triangle": MakingChoice("loose_triangles")}, Spares(number=1))
        hourglass = next(c for c in plans if c.unit.spec.kind == "quarter_square_triangle")
        assert hourglass.plan
        for piece in hourglass.plan.pieces:
            self.assertEqual(piece.count * piece.gives - piece.left_over, 5 * 2)

    def test_a_kind_that_cannot_be_made_at_the_size_says_so(self) -> None:
        plans = ordered_plans(unit_counts([BlockOrder(library_pattern("lantern"), inches("1/2"), (Colourway(1),))]), {})
        self.assertTrue(all(c.plan is None and c.refusal for c in plans))
        with self.assertRaises(CountOutOfRange):
            Spares(Fraction(300)).on(10)


class LookingTest(TestCase):
    @settings(max_examples=60)
    @given(st.data())
    def test_one_turned_unit_is_found_and_how_it_goes_back(self, data: st.DataObject) -> None:
        meant = data.draw(patterns())
        if not meant.places:
            return
        place = data.draw(st.sampled_from(meant.places))
        step = Orientation(data.draw(st.integers(0, 3)), data.draw(st.booleans()))
        changed = tuple(
            p if p is not place else type(p)(p.column, p.row, p.content, p.orientation.then(step), p.across, p.down)
            for p in meant.places
        )
        seen = Pattern("seen", meant.columns, meant.rows, changed)
        finding = compare_patterns(meant, seen)
        looks_alike = len(compare_patterns(meant, seen).faults) == 0
        if looks_alike:
            return
        if finding.whole == 0:
            self.assertEqual([(f.column, f.row) for f in finding.faults], [(place.column, place.row)])
            self.assertIn(finding.faults[0].what, ("turned", "mirrored"))

    def test_the_whole_block_turned_is_not_nine_faults(self) -> None:
        leaf = library_pattern("leaf")
        finding = compare_patterns(leaf, editing.whole_turned(leaf, 3))
        self.assertEqual((finding.whole, finding.faults), (3, ()))

    def test_other_units_and_missing_ones(self) -> None:
        meant = library_pattern("shoo_fly")
        other = editing.painted(meant, [(1, 1)], None, "c")
        self.assertEqual([f.what for f in compare_patterns(meant, other).faults], ["fabrics"])
        gone = editing.cleared(meant, [(0, 0)])
        self.assertEqual([f.what for f in compare_patterns(meant, gone).faults], ["missing"])
        self.assertEqual([f.what for f in compare_patterns(gone, meant).faults], ["extra"])

    def test_each_other_look_is_shown_once(self) -> None:
        shoo = library_pattern("shoo_fly")
        self.assertEqual(len(alternatives(shoo, (0, 0))), 4)
        self.assertEqual(len(alternatives(shoo, (1, 1))), 1)
        split = library_pattern("split_whirl")
        self.assertEqual(len(alternatives(split, (0, 0))), 8)
        self.assertEqual(len(alternatives(library_pattern("goose_pair"), (0, 0))), 2)

    def test_pictures_apart_and_side_by_side(self) -> None:
        layout = layout_of(library_pattern("lantern"))
        apart = apart_picture(layout, SIZE, inches("1/4"))
        cloth = sum(abs(area(m.points)) for m in apart.marks if m.role == "face")
        self.assertAlmostEqual(cloth, 9 * 16, places=6)
        rims = sum(abs(area(m.points)) for m in apart.marks if m.role == "allowance")
        self.assertAlmostEqual(rims, 9 * (16 - 3.5**2), places=6)
        many = side_by_side(layout, SIZE, 3, 3, Orientation(1))
        self.assertAlmostEqual(sum(abs(area(m.points)) for m in many.marks if m.role == "face"), 31.5**2, places=6)
        with self.assertRaises(PlanError):
            side_by_side(layout_of(library_pattern("wake")), SIZE, 2, 2, Orientation(1))
