"""Scraps laid out are what is counted, cut and bought; in matched sets a block is of one fabric."""

from __future__ import annotations

from collections import Counter
from random import Random
from unittest import TestCase

from piecing.blocks.counting import BlockOrder, Colourway, ScrapUnit, counted
from piecing.blocks.library import library_pattern
from piecing.blocks.pattern import laid
from piecing.errors import ScrapsImpossible
from piecing.lengths import inches
from piecing.quilts.choices import QuiltChoices, block_spots
from piecing.quilts.laid import Laid
from piecing.quilts.scraps import ScrapStock, arranged, neighbours, scrap_places
from piecing.quilts.sizes import quilt_sizes

PINWHEEL = library_pattern("pinwheel")


def orders(count: int = 4) -> list[BlockOrder]:
    return [BlockOrder(PINWHEEL, inches(8), (Colourway(count),), "block")]


def by_fabrics(scraps: list[ScrapUnit], count: int = 4, fabrics: str | None = None) -> dict[tuple[str, ...], int]:
    found: Counter[tuple[str, ...]] = Counter()
    for u in counted(orders(count), fabrics, scraps):
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
        lying = [Laid(laid(PINWHEEL)) for _ in block_spots(c)]
        self.places = scrap_places(quilt_sizes(c), lying, "a")
        self.pairs = neighbours(self.places)

    def test_a_block_is_of_one_fabric_and_its_neighbours_of_others(self) -> None:
        stock = [ScrapStock(f, 16, n) for n, f in enumerate("cde")]
        found = arranged(self.places, self.pairs, stock, sets=True)
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
            arranged(self.places, self.pairs, [ScrapStock(f, 15) for f in "cde"], sets=True)

    def test_a_fixed_place_fixes_its_block(self) -> None:
        stock = [ScrapStock(f, 24) for f in "cd"]
        found = arranged(self.places, self.pairs, stock, fixed={5: "d"}, sets=True)
        self.assertEqual(
            {f for p, f in zip(self.places, found.fabrics, strict=True) if p.spot == self.places[5].spot}, {"d"}
        )
        same = [n for n, p in enumerate(self.places) if p.spot == 0][:2]
        with self.assertRaises(ScrapsImpossible):
            arranged(self.places, self.pairs, stock, fixed={same[0]: "c", same[1]: "d"}, sets=True)

    def test_asked_for_nothing_it_says_what_to_type(self) -> None:
        for sets in (False, True):
            with self.assertRaises(ScrapsImpossible):
                arranged((), (), [], sets=sets)
        for stock in ([], [ScrapStock("c", 0)]):
            with self.assertRaises(ScrapsImpossible) as refused:
                arranged(self.places, self.pairs, stock)
            self.assertIn("Type how many units of each fabric", str(refused.exception))
