"""About how many blocks there is cloth for: by hand, and against every way of giving cloths to roles."""

from __future__ import annotations

import random
from itertools import permutations
from unittest import TestCase

from piecing.blocks.editing import cleared
from piecing.blocks.library import library_pattern
from piecing.cutting.enough import USED_OF_CLOTH, cloth_of_block, enough_for
from piecing.errors import PiecingError
from piecing.lengths import inches


class EnoughTest(TestCase):
    def test_by_hand(self) -> None:
        """A thousand of cloth, 85 in a hundred of it used, at 100 a block: eight."""
        self.assertEqual(enough_for({"a": 100.0}, [1000.0]), 8)
        self.assertEqual(enough_for({"a": 100.0, "b": 50.0}, [400.0, 1000.0]), 6)
        self.assertEqual(enough_for({"a": 100.0, "b": 50.0}, [1000.0]), 0)
        self.assertEqual(enough_for({}, [1000.0]), 0)

    def test_no_other_way_of_giving_cloth_is_better(self) -> None:
        chance = random.Random(5)
        for _ in range(300):
            needs = {r: chance.uniform(10, 200) for r in "abc"[: chance.randint(1, 3)]}
            cloths = [chance.uniform(100, 4000) for _ in range(chance.randint(1, 5))]
            best = max(
                (
                    min(int(USED_OF_CLOTH * c / n) for c, n in zip(given, needs.values(), strict=True))
                    for given in permutations(cloths, len(needs))
                ),
                default=0,
            )
            self.assertEqual(enough_for(needs, cloths), best)

    def test_what_a_block_takes(self) -> None:
        """Nine plain squares of 4, cut 4 1/2: 20.25 each, nothing lost."""
        took = dict(cloth_of_block(library_pattern("nine_patch"), inches(12), inches("1/4"), inches("1/8")))
        self.assertAlmostEqual(sum(took.values()), 9 * 4.5**2, places=6)

    def test_a_block_with_an_empty_place(self) -> None:
        with self.assertRaises(PiecingError):
            cloth_of_block(cleared(library_pattern("wake"), [(0, 0)]), inches(6), inches("1/4"), inches("1/8"))
