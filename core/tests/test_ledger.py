"""The ledger of cuts, held against pieces of cloth that are followed one by one."""

from __future__ import annotations

import random
from collections import Counter
from dataclasses import dataclass, replace
from unittest import TestCase

from piecing.cutting import Cloth, ClothKind, Goal, WantedPiece, cutting_plan, flaws
from piecing.cutting.ledger import (
    Entry,
    ledger,
    of_pile,
    pieces_left,
    plan_of_the_rest,
    remains,
    spare_cloths,
    ticked_pieces,
)
from piecing.cutting.plan import ClothPlan, CutStrip, CuttingPlan, Placed
from piecing.errors import NothingToCut
from piecing.lengths import ZERO, Length, inches


def piece(fabric: str, width: str, height: str, count: int, gives: int = 1, name: str = "") -> WantedPiece:
    return WantedPiece("", fabric, inches(width), inches(height), count, name, True, gives)


def yard(fabric: str = "a", along: str = "36", key: str = "") -> Cloth:
    return Cloth(key or f"yard {fabric}", fabric, inches(40), inches(along), ClothKind.YARDAGE, 1, f"yard of {fabric}")


class LettersTest(TestCase):
    def test_a_letter_stays_while_piles_come_and_go(self) -> None:
        first = ledger([piece("a", "5", "5", 4), piece("a", "3", "3", 8), piece("b", "3", "3", 8)], ())
        kept = [replace(p.entry, cut=2) for p in first]
        # The largest goes, a larger one comes: A stays A and is over, the new one takes the next letter.
        now = ledger([piece("a", "6", "6", 1), piece("a", "3", "3", 8), piece("b", "3", "3", 9)], kept)
        self.assertEqual(
            [(p.entry.letter, float(p.entry.width), p.wanted, p.left, p.over) for p in now],
            [("A", 5, 0, 0, 2), ("B", 3, 8, 6, 0), ("C", 3, 9, 7, 0), ("D", 6, 1, 1, 0)],
        )

    def test_a_square_and_one_that_is_cut_on_its_diagonal_are_two_piles(self) -> None:
        piles = ledger([piece("a", "4", "4", 3), piece("a", "4", "4", 5, gives=2)], ())
        self.assertEqual([(p.wanted, p.entry.gives) for p in piles], [(3, 1), (5, 2)])

    def test_after_z_comes_a2(self) -> None:
        many = ledger([piece("a", str(n + 1), "1", 1) for n in range(28)], ())
        self.assertEqual([p.entry.letter for p in many][-3:], ["Z", "A2", "B2"])


class CountsTest(TestCase):
    def test_spoiled_and_given_pieces_are_cut_again(self) -> None:
        """12 wanted; 10 cut, 3 of them spoiled, 1 cut smaller for another pile: 6 lie there, 6 are left to cut."""
        (pile,) = ledger([piece("a", "4", "4", 12)], [Entry("A", "a", inches(4), inches(4), 1, "", 10, 3, 1)])
        self.assertEqual((pile.have, pile.left, pile.over), (6, 6, 0))
        self.assertEqual(pile.cut_when_done, 16)

    def test_what_is_no_longer_wanted_is_cloth_for_what_is(self) -> None:
        """Four 5-inch squares too many give four of 4 inches before any yard is cut; the fifth comes from the yard."""
        kept = [Entry("A", "a", inches(5), inches(5), 1, "", 4)]
        piles = ledger([piece("a", "4", "4", 5)], kept)
        plan = plan_of_the_rest(piles, [yard()])
        from_piles = [c for c in plan.cloths if of_pile(c.cloth) == "A"]
        self.assertEqual((len(from_piles), len(plan.cloths), plan.missing), (4, 5, ()))
        self.assertEqual(sorted(s.number for c in plan.cloths for s in c.strips), [1, 2, 3, 4, 5])
        cut, given = ticked_pieces(plan, [1, 2])
        self.assertEqual((dict(cut), dict(given)), ({"B": 2}, {"A": 2}))
        self.assertEqual(flaws(plan, pieces_left(piles), [yard(), *spare_cloths(piles)]), ())

    def test_squares_meant_for_triangles_are_not_offered_as_squares(self) -> None:
        piles = ledger([piece("a", "2", "2", 1)], [Entry("A", "a", inches(5), inches(5), 2, "", 4)])
        self.assertEqual(spare_cloths(piles), ())

    def test_nothing_left_is_said(self) -> None:
        piles = ledger([piece("a", "4", "4", 2)], [Entry("A", "a", inches(4), inches(4), 1, "", 2)])
        with self.assertRaises(NothingToCut):
            plan_of_the_rest(piles, [yard()])


class RemainsTest(TestCase):
    """A yard of 40 by 36: strips of 5, 4 and 3 in., in this order, the ends of each left over."""

    def setUp(self) -> None:
        strips, y, number = [], ZERO, 0
        for size, count in (("5", 6), ("4", 8), ("3", 10)):
            side, number = inches(size), number + 1
            placed = tuple(Placed(piece("a", size, size, count), side * n, y, side, side) for n in range(count))
            strips.append(CutStrip(number, y, side, placed))
            y = y + side
        self.cloth = ClothPlan(yard(), tuple(strips), y, ())

    def left(self, *done: int) -> list[tuple[float, float, float]]:
        return sorted((float(x.y), float(x.width), float(x.height)) for x in remains(self.cloth, done))

    def test_none_ticked_leaves_the_whole_cloth(self) -> None:
        self.assertEqual(self.left(), [(0, 40, 36)])

    def test_the_first_ticked_leaves_its_end_and_the_rest(self) -> None:
        self.assertEqual(self.left(1), [(0, 10, 5), (5, 40, 31)])

    def test_the_middle_one_ticked_leaves_two_whole_widths(self) -> None:
        self.assertEqual(self.left(2), [(0, 40, 5), (5, 8, 4), (9, 40, 27)])

    def test_all_ticked_leaves_ends_and_rest(self) -> None:
        self.assertEqual(self.left(1, 2, 3), [(0, 10, 5), (5, 8, 4), (9, 10, 3), (12, 40, 24)])

    def test_a_rest_is_not_named_the_rest_of_a_rest(self) -> None:
        cloth = replace(self.cloth, cloth=replace(self.cloth.cloth, name="rest of yard"))
        self.assertIn("rest of yard", [x.name for x in remains(cloth, (1,))])

    def test_no_cloth_appears_or_goes(self) -> None:
        """What is cut and what is left never come to more than the cloth, and miss it by slivers under 2 in. only."""
        for done in ((), (1,), (2,), (3,), (1, 3), (1, 2, 3)):
            cut = sum(float(p.width) * float(p.height) for s in self.cloth.strips if s.number in done for p in s.placed)
            left = sum(float(x.width) * float(x.height) for x in remains(self.cloth, done))
            self.assertAlmostEqual(cut + left, 40 * 36)


@dataclass
class Table:
    """Pieces followed one by one, and cloth by its sizes: no count of the ledger is used."""

    pieces: list[tuple[str, Length, Length]]
    spoiled: int = 0
    gone: int = 0
    cut: int = 0

    def cut_strips(self, plan: CuttingPlan, done: set[int], letters: dict[str, tuple[str, Length, Length]]) -> None:
        for c in plan.cloths:
            strips = [s for s in c.strips if s.number in done]
            if strips and of_pile(c.cloth):
                self.pieces.remove(letters[of_pile(c.cloth)])
                self.gone += 1
            for s in strips:
                for p in s.placed:
                    self.pieces.append((p.piece.fabric, p.piece.width, p.piece.height))
                    self.cut += 1


class HalfWayTest(TestCase):
    """Ten projects changed half-way, ten times each: numbers, fabrics and sizes change, strips are ticked, pieces spoil."""

    def test_pieces_are_conserved(self) -> None:
        for seed in range(6):
            with self.subTest(seed):
                self.follow(random.Random(seed))

    def follow(self, rng: random.Random) -> None:
        entries: list[Entry] = []
        table = Table([])
        sizes = [(f, w, h) for f in "ab" for w, h in (("5", "5"), ("4", "4"), ("3", "6"), ("5/2", "5/2"))]
        for _ in range(10):
            wanted = [piece(f, w, h, rng.randrange(1, 9)) for f, w, h in rng.sample(sizes, rng.randrange(1, 5))]
            piles = ledger(wanted, entries)
            letters = {p.entry.letter: (p.entry.fabric, p.entry.width, p.entry.height) for p in piles}
            self.assertEqual(len(set(letters.values())), len(letters))
            lying = Counter(table.pieces)
            asked = Counter({(p.fabric, p.width, p.height): p.count for p in wanted})
            planned = {p.key: p.count for p in pieces_left(piles)}
            for letter, kind in letters.items():
                # Pieces there and pieces planned are those wanted, or more are there than wanted and none is planned.
                self.assertEqual(planned.get(letter, 0), max(0, asked[kind] - lying[kind]))
            if planned:
                stock = [yard("a"), yard("b")]
                plan = plan_of_the_rest(piles, stock, Goal.LEAST, 0.05)
                self.assertEqual(flaws(plan, pieces_left(piles), [*stock, *spare_cloths(piles)]), ())
                numbers = [s.number for c in plan.cloths for s in c.strips]
                done = set(rng.sample(numbers, rng.randrange(len(numbers) + 1)))
                cut, given = ticked_pieces(plan, done)
                table.cut_strips(plan, done, letters)
            else:
                cut, given = {}, {}
            entries = []
            for p in piles:
                e = p.entry
                e = replace(e, cut=e.cut + cut.get(e.letter, 0), given=e.given + given.get(e.letter, 0))
                kind = letters[e.letter]
                if kind in table.pieces and rng.random() < 0.3:
                    table.pieces.remove(kind)
                    table.spoiled += 1
                    e = replace(e, spoiled=e.spoiled + 1)
                entries.append(e)
            self.assertEqual(sum(e.cut for e in entries), table.cut)
            self.assertEqual(sum(e.cut - e.spoiled - e.given for e in entries), len(table.pieces))
            self.assertEqual(table.cut, len(table.pieces) + table.spoiled + table.gone)

    def test_the_rest_never_takes_more_cloth_than_all_of_it_afresh(self) -> None:
        for seed in range(8):
            rng = random.Random(seed)
            wanted = [piece("a", w, w, rng.randrange(4, 20)) for w in ("5", "4", "3", "5/2")]
            kept = [replace(p.entry, cut=rng.randrange(12)) for p in ledger([*wanted, piece("a", "6", "6", 3)], ())]
            piles, stock = ledger(wanted, kept), [yard(along="72")]
            afresh = cutting_plan([p.piece for p in piles], stock, Goal.LEAST, 0.25)
            used = lambda plan: sum(float(c.used) for c in plan.cloths if not of_pile(c.cloth))  # noqa: E731
            if any(p.left for p in piles):
                self.assertLessEqual(used(plan_of_the_rest(piles, stock, Goal.LEAST, 0.25)), used(afresh) + 1e-9)
