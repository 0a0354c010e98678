"""Scraps laid out are what is counted, cut and bought; in matched sets a block is of one fabric."""

from __future__ import annotations

from collections import Counter
from fractions import Fraction
from random import Random
from typing import Any
from unittest import TestCase

from piecing.blocks.counting import BlockOrder, Colourway, ScrapUnit, unit_counts
from piecing.blocks.library import library_pattern
from piecing.blocks.pattern import Pattern, Place, UnitPlacement, layout_of
from piecing.errors import ScrapsImpossible
from piecing.lengths import inches
from piecing.quilts.choices import QuiltChoices, block_spots
from piecing.quilts.laid import Laid
from piecing.quilts.scrap_places import neighbours, scrap_places
from piecing.quilts.scraps import ScrapStock, arrange_scraps
from piecing.quilts.sizes import quilt_sizes

PINWHEEL = library_pattern("pinwheel")
HOURGLASS = UnitPlacement("quarter_square_triangle", ("a", "b", "b", "b"))
"""Of one fabric on one side and another on three."""


def orders(count: int = 4) -> list[BlockOrder]:
    return [BlockOrder(PINWHEEL, inches(8), (Colourway(count),), "block")]


def by_fabrics(scraps: list[ScrapUnit], count: int = 4, fabrics: str | None = None) -> dict[tuple[str, ...], int]:
    found: Counter[tuple[str, ...]] = Counter()
    for u in unit_counts(orders(count), fabrics, scraps):
        found[tuple(sorted(u.spec.part_fabrics))] += u.total
    return dict(found)


class ScrapCountTest(TestCase):
    def test_by_hand(self) -> None:
        """Sixteen units of a and b; three of them with c, one with d in place of a."""
        scraps = [ScrapUnit("block", cell, (), "a", f) for cell, f in ((0, "c"), (1, "c"), (0, "c"), (3, "d"))]
        self.assertEqual(by_fabrics(scraps), {("a", "b"): 12, ("b", "c"): 3, ("b", "d"): 1})

    def test_all_of_them(self) -> None:
        scraps = [ScrapUnit("block", cell, (), "a", "c") for _ in range(4) for cell in range(4)]
        self.assertEqual(by_fabrics(scraps), {("b", "c"): 16})

    def test_no_more_than_there_are_units_and_none_of_fabrics_that_are_gone(self) -> None:
        many = [ScrapUnit("block", 0, (), "a", "c") for _ in range(9)]
        self.assertEqual(by_fabrics(many), {("a", "b"): 12, ("b", "c"): 4})
        self.assertEqual(by_fabrics(many, fabrics="ab"), {("a", "b"): 16})
        self.assertEqual(by_fabrics([ScrapUnit("another", 0, (), "a", "c")]), {("a", "b"): 16})

    def test_the_number_of_units_never_changes(self) -> None:
        chance = Random(3)
        for _ in range(40):
            scraps = [
                ScrapUnit("block", chance.randrange(4), (), chance.choice("ab"), chance.choice("cde"))
                for _ in range(chance.randrange(30))
            ]
            self.assertEqual(sum(by_fabrics(scraps, 7).values()), 28)


class SetsTest(TestCase):
    """Twelve pinwheels, three by four, four units of role a in each."""

    def setUp(self) -> None:
        c = QuiltChoices(columns=3, rows=4, block_width=inches(8), block_height=inches(8))
        lying = [Laid(layout_of(PINWHEEL)) for _ in block_spots(c)]
        self.places = scrap_places(quilt_sizes(c), lying, "a")
        self.pairs = neighbours(self.places)

    def test_a_block_is_of_one_fabric_and_its_neighbours_of_others(self) -> None:
        stock = [ScrapStock(f, 16, n) for n, f in enumerate("cde")]
        found = arrange_scraps(self.places, self.pairs, stock, sets=True)
        by_block: dict[int, set[str]] = {}
        for p, f in zip(self.places, found.fabrics, strict=True):
            by_block.setdefault(p.spot, set()).add(f)
        self.assertEqual({len(f) for f in by_block.values()}, {1})
        # Checked on the grid of blocks by itself: three columns.
        one = {spot: next(iter(f)) for spot, f in by_block.items()}
        for spot, f in one.items():
            if spot % 3 < 2:
                self.assertNotEqual(f, one[spot + 1])
            if spot < 9:
                self.assertNotEqual(f, one[spot + 3])
        self.assertEqual(Counter(found.fabrics), {"c": 16, "d": 16, "e": 16})
        self.assertEqual(found.alike, ())

    def test_units_that_make_no_whole_block_do_not_count(self) -> None:
        """Fifteen of each give three blocks of each, nine of the twelve."""
        with self.assertRaises(ScrapsImpossible):
            arrange_scraps(self.places, self.pairs, [ScrapStock(f, 15) for f in "cde"], sets=True)

    def test_a_fixed_place_fixes_its_block(self) -> None:
        stock = [ScrapStock(f, 24) for f in "cd"]
        found = arrange_scraps(self.places, self.pairs, stock, fixed={5: "d"}, sets=True)
        self.assertEqual(
            {f for p, f in zip(self.places, found.fabrics, strict=True) if p.spot == self.places[5].spot}, {"d"}
        )
        same = [n for n, p in enumerate(self.places) if p.spot == 0][:2]
        with self.assertRaises(ScrapsImpossible):
            arrange_scraps(self.places, self.pairs, stock, fixed={same[0]: "c", same[1]: "d"}, sets=True)

    def test_asked_for_nothing_it_says_what_to_type(self) -> None:
        for sets in (False, True):
            with self.assertRaises(ScrapsImpossible):
                arrange_scraps((), (), [], sets=sets)
        for stock in ([], [ScrapStock("c", 0)]):
            with self.assertRaises(ScrapsImpossible) as refused:
                arrange_scraps(self.places, self.pairs, stock)
            self.assertIn("Type how many units of each fabric", str(refused.exception))


class PairsTest(TestCase):
    """Six pinwheels, three by two, every one from one pair of fabrics in place of a and b."""

    def setUp(self) -> None:
        c = QuiltChoices(columns=3, rows=2, block_width=inches(8), block_height=inches(8))
        lying = [Laid(layout_of(PINWHEEL)) for _ in block_spots(c)]
        self.places = scrap_places(quilt_sizes(c), lying, "ab")
        self.near = neighbours(self.places)

    def laid(self, *stock: ScrapStock, fixed: dict[int, str] | None = None) -> dict[int, str]:
        found = arrange_scraps(self.places, self.near, stock, fixed=fixed, sets=True)
        by_block: dict[int, set[str]] = {}
        for p, f in zip(self.places, found.fabrics, strict=True):
            by_block.setdefault(p.spot, set()).add(f)
        self.assertEqual({len(f) for f in by_block.values()}, {1}, "all of a block are from one pair")
        return {spot: next(iter(f)) for spot, f in by_block.items()}

    def test_neighbours_share_no_fabric(self) -> None:
        """Pairs cd and ef with the same number of blocks can only lie like the squares of a board; ce beside either would be
        alike, and is used only where it must be."""
        one = self.laid(ScrapStock("cd", 3), ScrapStock("ef", 3), ScrapStock("ce", 6))
        self.assertEqual({one[0], one[2], one[4]}, {one[0]})
        self.assertEqual({one[1], one[3], one[5]}, {one[1]})
        self.assertEqual({one[0], one[1]}, {"cd", "ef"})

    def test_blocks_face_each_other_across_a_sash(self) -> None:
        """Three by two with a sash of 2: seven pairs of blocks side by side, counted on the grid; eleven with both diagonals
        of the two crossings."""
        c = QuiltChoices(columns=3, rows=2, block_width=inches(8), block_height=inches(8), sash=inches(2))
        places = scrap_places(quilt_sizes(c), [Laid(layout_of(PINWHEEL)) for _ in block_spots(c)], "ab")

        def between(**how: Any) -> set[tuple[int, int]]:
            found = {(places[a].spot, places[b].spot) for a, b in neighbours(places, **how)}
            return {(min(p), max(p)) for p in found if p[0] != p[1]}

        self.assertEqual(between(), set())
        grid = {(n, n + 1) for n in (0, 1, 3, 4)} | {(n, n + 3) for n in (0, 1, 2)}
        self.assertEqual(between(reach=2.0), grid)
        self.assertEqual(between(reach=2.0, corners=True), grid | {(0, 4), (1, 3), (1, 5), (2, 4)})

    def test_pairs_that_share_a_fabric_are_alike_and_told(self) -> None:
        found = arrange_scraps(self.places, self.near, [ScrapStock("cd", 3), ScrapStock("ed", 3)], sets=True)
        self.assertTrue(found.alike)
        self.assertIn("Fabric D has to fill 6 of 6 places", str(found.said[0]))

    def test_blocks_are_counted_not_units(self) -> None:
        self.assertEqual(Counter(self.laid(ScrapStock("cd", 4), ScrapStock("ef", 2)).values()), {"cd": 4, "ef": 2})
        with self.assertRaises(ScrapsImpossible) as refused:
            arrange_scraps(self.places, self.near, [ScrapStock("cd", 3), ScrapStock("ef", 2)], sets=True)
        self.assertIn("6 blocks and there are sets for 5: one more is needed", str(refused.exception))

    def test_a_fixed_block_keeps_its_pair(self) -> None:
        one = self.laid(ScrapStock("cd", 3), ScrapStock("ef", 3), fixed={0: "ef"})
        self.assertEqual(one[self.places[0].spot], "ef")

    def test_both_fabrics_are_counted(self) -> None:
        """One block of four in c and d: four of its own units, twelve as they were."""
        scraps = [ScrapUnit("block", cell, (), "ab", "cd") for cell in range(4)]
        self.assertEqual(by_fabrics(scraps), {("a", "b"): 12, ("c", "d"): 4})
        self.assertEqual(by_fabrics(scraps, fabrics="abc"), {("a", "b"): 16})

    def test_the_first_takes_the_first_place(self) -> None:
        """A quarter of a and three of b: in c and d one of c."""
        one = Pattern("hourglass", (Fraction(1),), (Fraction(1),), (Place(0, 0, HOURGLASS),))
        made = [BlockOrder(one, inches(4), (Colourway(1),), "block")]
        (unit,) = unit_counts(made, None, [ScrapUnit("block", 0, (), "ab", "cd")])
        self.assertEqual(unit.spec.part_fabrics, ("c", "d", "d", "d"))
