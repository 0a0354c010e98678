"""Joining and pressing: every order gives the block, every map nests by another route, and none is cheaper."""

from __future__ import annotations

import random
from dataclasses import replace
from fractions import Fraction
from itertools import product
from unittest import TestCase

from piecing.blocks.library import library_keys, library_pattern
from piecing.blocks.pattern import Pattern, Place, UnitPlacement, layout_of
from piecing.drawings.back import back_picture, direction_said
from piecing.errors import CannotBeSewn, LayoutIncomplete
from piecing.joining.order import Order, check_sewable, order_of, orders, steps
from piecing.joining.pressing import Press, PressingMap, Wishes, cost_of, layers_at, pressing_map
from piecing.joining.pressing_check import Drawn, check_pressing
from piecing.joining.seams import block_seams
from piecing.lengths import inches
from tests.blocks import grid

VALUES = {"a": 2, "b": 0, "c": 1, "d": 2}
S = inches("1/4")
HALF = {"A": {"kind": "half_square_triangle", "fabrics": "ab"}}
SQUARES = {"A": {"kind": "plain_square", "fabrics": "a"}, "B": {"kind": "plain_square", "fabrics": "b"}}


def drawn(found: PressingMap) -> list[Drawn]:
    def points(arrow: tuple[float, float] | None) -> complex | None:
        return None if arrow is None else complex(*arrow)

    return [
        Drawn(complex(*p.seam.start), complex(*p.seam.end), points(p.arrow), points(p.last_arrow), p.seam.level)
        for p in found.pressed
    ]


class JoiningTest(TestCase):
    def test_every_order_ends_at_the_whole_block(self) -> None:
        for key in library_keys():
            pattern = library_pattern(key)
            for order in orders(pattern):
                done = steps(layout_of(pattern), order.order, inches(12), S)
                self.assertEqual(done[-1].width, inches("25/2"), key)
                self.assertEqual(done[-1].height, inches(12) / pattern.width * pattern.height + S * 2, key)

    def test_places_are_joined_once_and_only_neighbours(self) -> None:
        for key in library_keys():
            pattern = library_pattern(key)
            for order in Order:
                section = order_of(pattern, order)
                whole = [j for j in section.all_joints if not j.partial]
                halves = [j for j in section.all_joints if j.partial]
                # A section of n parts has n - 1 seams; a windmill of five has one more, sewn in two goes.
                parts = sum(len(q.parts) - 1 for q in section.walk())
                self.assertEqual(len(whole) + len(halves) // 2, parts, key)
                self.assertEqual(parts, len(pattern.places) - 1, key)

    def test_rows_of_many_units_are_awkward_and_sections_are_not(self) -> None:
        pattern = grid(["A0 " * 8] * 8, HALF)
        best = orders(pattern)[0]
        self.assertEqual((best.order, best.bowing), (Order.SECTIONS, 0))
        rows = next(o for o in orders(pattern) if o.order is Order.ROWS)
        self.assertGreater(rows.awkward, best.awkward)
        self.assertIn("bow", str(rows.said))

    def test_squarish_sections_are_halved_and_cut_in_thirds(self) -> None:
        # By hand: eight by eight falls into halves, three by nine into thirds of three by three.
        (first,) = order_of(grid(["A0 " * 8] * 8, SQUARES), Order.SECTIONS).joints
        self.assertEqual((first.start, first.end), ((0, 4), (8, 4)) if not first.upright else ((4, 0), (4, 8)))
        long = order_of(grid(["A0 " * 9] * 3, SQUARES), Order.SECTIONS)
        self.assertEqual([j.start for j in long.joints], [(3, 0), (6, 0)])
        self.assertEqual([len(p.joints) for p in long.parts], [2, 2, 2])

    def test_a_windmill_is_begun_in_part(self) -> None:
        best = orders(library_pattern("capstan"))[0]
        self.assertEqual((best.partial, len(best.section.all_joints)), (1, 5))
        # Half of the first seam, to the middle of the unit that all the others go round.
        halves = [(j.start, j.end) for j in best.section.all_joints if j.partial]
        middle = Fraction(3, 2)
        self.assertEqual(halves, [((middle, 1), (2, 1)), ((0, 1), (middle, 1))])
        self.assertIn(
            "finish the first seam last",
            str(steps(layout_of(library_pattern("capstan")), best.order, inches(9), S)[-1].said),
        )

    def test_the_other_windmill_too(self) -> None:
        rectangles = {"A": {"kind": "rectangle", "fabrics": "a"}, "B": {"kind": "plain_square", "fabrics": "b"}}
        self.assertEqual(orders(grid(["A0 A1 <", "^ B0 A0", "A1 < ^"], rectangles))[0].partial, 1)

    def test_what_locks_into_each_other_is_refused(self) -> None:
        locked = [
            "A0 < A0 < < A0",
            "A0 A0 < A0 < ^",
            "^ A0 A0 < A0 ^",
            "^ ^ A0 < ^ A0",
            "A0 ^ ^ < ^ ^",
            "^ A0 ^ < A0 <",
        ]
        with self.assertRaises(CannotBeSewn) as refused:
            orders(grid(locked, {"A": {"kind": "rectangle", "fabrics": "a"}}))
        self.assertIn("set-in", str(refused.exception))
        with self.assertRaises(LayoutIncomplete):
            orders(grid(["A0 ."], SQUARES))
        with self.assertRaises(CannotBeSewn):
            check_sewable(grid(locked, {"A": {"kind": "rectangle", "fabrics": "a"}}))
        with self.assertRaises(LayoutIncomplete):
            check_sewable(grid(["A0 ."], SQUARES))

    def test_what_can_be_sewn_in_some_order_can_be_sewn(self) -> None:
        rng = random.Random(4)
        for _ in range(60):
            taken: set[tuple[int, int]] = set()
            places = []
            for c, r in product(range(4), range(4)):
                across, down = rng.choice(((1, 1), (2, 1), (1, 2), (3, 1), (1, 3)))
                spots = {(c + a, r + d) for a in range(across) for d in range(down)}
                if (c, r) in taken:
                    continue
                if c + across > 4 or r + down > 4 or spots & taken:
                    across = down = 1
                    spots = {(c, r)}
                taken |= spots
                places.append(Place(c, r, UnitPlacement("rectangle", ("a",)), across=across, down=down))
            pattern = Pattern("Spans", (Fraction(1),) * 4, (Fraction(1),) * 4, tuple(places))
            found = []
            for order in Order:
                try:
                    found.append(bool(order_of(pattern, order)))
                except CannotBeSewn:
                    found.append(False)
            self.assertEqual(len(set(found)), 1)
            if found[0]:
                check_sewable(pattern)
            else:
                self.assertRaises(CannotBeSewn, check_sewable, pattern)

    def test_crossings_are_counted_where_seams_meet_from_both_sides(self) -> None:
        done = steps(layout_of(grid(["A0 B0 A0"] * 3, SQUARES)), Order.ROWS, inches(9), S)
        self.assertEqual([s.crossings for s in done], [0, 0, 0, 4])


class PressingTest(TestCase):
    def test_every_library_block_is_pressed_to_the_optimum_and_checked(self) -> None:
        for key in library_keys():
            pattern = library_pattern(key)
            found = pressing_map(pattern, orders(pattern)[0].order, VALUES)
            verdict = check_pressing(drawn(found))
            self.assertTrue(found.optimal, key)
            self.assertEqual((verdict.nested, len(verdict.loose)), (found.nested, found.pairs - found.nested), key)
            self.assertEqual(found.nested, found.pairs, key)

    def test_a_spoilt_map_does_not_pass_the_check(self) -> None:
        found = pressing_map(grid(["A0 B0", "B0 A0"], SQUARES), Order.ROWS, VALUES)
        seams = drawn(found)
        self.assertEqual(check_pressing(seams).loose, ())
        first = seams[0]
        assert first.at_start
        for points in (-first.at_start, None):
            seams[0] = replace(first, at_start=points, at_end=points)
            self.assertEqual(len(check_pressing(seams).loose), 1)

    def assert_cheapest(self, pattern: Pattern, wishes: Wishes) -> None:
        seams = block_seams(pattern, Order.ROWS)
        self.assertLessEqual(len(seams), 8)
        best = min(cost_of(pattern, Order.ROWS, ways, VALUES, wishes) for ways in product(Press, repeat=len(seams)))
        found = pressing_map(pattern, Order.ROWS, VALUES, wishes)
        own = cost_of(pattern, Order.ROWS, [p.way for p in found.pressed], VALUES, wishes)
        self.assertEqual((own, found.cost, found.bound), (best, best, best))

    def test_no_other_pressing_is_cheaper(self) -> None:
        rng = random.Random(7)
        for wishes in (Wishes(), Wishes(to_dark=False)):
            squares = [" ".join(rng.choice("AB") + "0" for _ in range(3)) for _ in range(2)]
            self.assert_cheapest(grid(squares, SQUARES), wishes)
        for wishes in (Wishes(), Wishes(layers=6), Wishes(from_bulk=False, layers=8)):
            halves = [" ".join(f"A{rng.randrange(4)}" for _ in range(2)) for _ in range(2)]
            self.assert_cheapest(grid(halves, HALF), wishes)

    def test_a_conflict_is_named(self) -> None:
        # Both darks of the upright seams lie on the left: they cannot both go there and nest.
        found = pressing_map(grid(["A0 B0", "A0 B0"], SQUARES), Order.ROWS, VALUES, Wishes(from_bulk=False))
        self.assertEqual([c.code for c in found.conflicts], ["to_light"])
        self.assertRegex(
            str(found.conflicts[0].said),
            r"Row \d seam 1 and row \d seam 1 cannot both go to the dark: row \d seam 1 goes to the light",
        )

    def test_open_where_too_many_layers_meet(self) -> None:
        wheel = grid(["A0 B0", "B0 A0"], SQUARES)
        thick = pressing_map(wheel, Order.ROWS, VALUES)
        thin = pressing_map(wheel, Order.ROWS, VALUES, Wishes(layers=6))
        self.assertEqual((thick.most_layers, thin.most_layers), (7, 6))
        self.assertEqual([p.way is Press.OPEN for p in thin.pressed], [False, False, True])
        impossible = pressing_map(wheel, Order.ROWS, VALUES, Wishes(layers=3))
        self.assertIn("layers", [c.code for c in impossible.conflicts])

    def test_layers_of_a_nested_four_patch(self) -> None:
        found = pressing_map(grid(["A0 B0", "B0 A0"], SQUARES), Order.ROWS, VALUES)
        # Seven where the long seam is folded on nested seams, as counted on cloth; nine if they lay on each other.
        self.assertEqual([layers_at(m, found.pressed) for m in found.crossings], [7])
        stacked = [found.pressed[0], *found.pressed[1:]]
        stacked[1] = type(stacked[1])(stacked[1].seam, stacked[0].way)
        self.assertEqual([layers_at(m, stacked) for m in found.crossings], [9])

    def test_spun_crossings_go_round(self) -> None:
        found = pressing_map(grid(["A0 B0", "B0 A0"], SQUARES), Order.ROWS, VALUES, Wishes(spun=((1.0, 1.0),)))
        across = found.pressed[-1]
        ((at, after),) = across.after
        self.assertAlmostEqual(at, 1.0)
        self.assertEqual({across.way, after}, {Press.LEFT, Press.RIGHT})
        upper, lower = found.pressed[0].arrow, found.pressed[1].arrow
        assert upper
        assert lower
        self.assertEqual(upper[0], -lower[0])
        self.assertIn("then", str(direction_said(across)))
        self.assertEqual((check_pressing(drawn(found)).nested, check_pressing(drawn(found)).loose), (1, ()))

    def test_repeated_blocks_nest_across_their_edges(self) -> None:
        for key in ("nine_patch", "lantern", "sawtooth_star"):
            found = pressing_map(library_pattern(key), Order.ROWS, VALUES, Wishes(repeats=True))
            self.assertEqual(found.edge_nested, found.edge_pairs, key)
            self.assertEqual(found.nested, found.pairs, key)
            # The seams between rows run from edge to edge, so the blocks between are pressed otherwise.
            self.assertTrue(found.second, key)
            for p, q in zip(found.pressed, found.second, strict=True):
                if p.seam.name.startswith("the seam below"):
                    self.assertNotEqual(p.way, q.way)

    def test_the_back_is_the_front_turned_over(self) -> None:
        pattern = library_pattern("rails")
        found = pressing_map(pattern, Order.ROWS, VALUES)
        drawing = back_picture(pattern, found.pressed, inches(6), S)
        self.assertEqual(sum(m.role == "arrow" for m in drawing.marks), len(found.pressed))
        for p in found.pressed:
            assert p.arrow
            self.assertEqual(str(direction_said(p)), "up" if p.arrow[1] > 0 else "down")
