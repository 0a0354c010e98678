"""Triangles that lie in the stock, and odd ones that are left: by hand, and by a count that follows every single triangle."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from piecing.cutting import Cloth, ClothKind, WantedPiece
from piecing.cutting.ledger import Entry, Pile, ledger
from piecing.cutting.stock import grain_said
from piecing.lengths import inches

S = inches("21/4")


def wanted(bits: int, gives: int = 4, size: str = "21/4") -> WantedPiece:
    side = inches(size)
    return WantedPiece("w", "a", side, side, -(-bits // gives), "goose", gives=gives, bits=bits)


def triangles(n: int, size: str = "21/4", kind: ClothKind = ClothKind.QUARTER_TRIANGLE, fabric: str = "a") -> Cloth:
    return Cloth(f"t{size}", fabric, inches(size), inches(size), kind, n)


def only(pieces: list[WantedPiece], entries: list[Entry], ready: list[Cloth]) -> Pile:
    (pile,) = ledger(pieces, entries, ready)
    return pile


class GrainTest(TestCase):
    def test_how_a_triangle_lies(self) -> None:
        """Cut once its legs are sides of the square; cut twice its long edge is one."""
        self.assertIn(
            "legs of 4\xa07⁄8″, on the straight grain", str(grain_said(ClothKind.HALF_TRIANGLE, inches("39/8")))
        )
        self.assertIn("long edge of 5\xa01⁄4″, on the straight", str(grain_said(ClothKind.QUARTER_TRIANGLE, S)))
        self.assertIsNone(grain_said(ClothKind.SCRAP, S))


class ReadyTest(TestCase):
    def test_triangles_in_stock_are_not_cut_again(self) -> None:
        """18 wanted take five squares; with six ready twelve are left, three squares; with all ready none."""
        self.assertEqual(only([wanted(18)], [], []).wanted, 5)
        six = only([wanted(18)], [], [triangles(6)])
        self.assertEqual((six.wanted, six.ready, six.left), (3, 6, 3))
        self.assertEqual(only([wanted(18)], [], [triangles(30)]).wanted, 0)
        self.assertEqual(only([wanted(18)], [], [triangles(30)]).ready, 18)

    def test_only_those_of_the_same_cut_fabric_and_no_smaller(self) -> None:
        for other in (
            triangles(6, "5"),
            triangles(6, kind=ClothKind.HALF_TRIANGLE),
            triangles(6, fabric="b"),
        ):
            self.assertEqual(only([wanted(18)], [], [other]).wanted, 5)
        self.assertEqual(only([wanted(18)], [], [triangles(6, "6")]).wanted, 3)

    def test_the_largest_pile_chooses_first_and_takes_the_smallest_that_do(self) -> None:
        large, small = wanted(4, size="6"), wanted(4, size="5")
        piles = {float(p.entry.width): p for p in ledger([large, small], [], [triangles(4, "6"), triangles(4, "5")])}
        self.assertEqual((piles[6.0].ready, piles[5.0].ready), (4, 4))
        piles = {float(p.entry.width): p for p in ledger([large, small], [], [triangles(4, "6")])}
        self.assertEqual((piles[6.0].ready, piles[5.0].ready), (4, 0))

    def test_odd_ones_are_counted_once_all_is_cut(self) -> None:
        """Five squares give twenty, eighteen are wanted: two odd. Put by, they are not counted again."""
        cut = Entry("A", "a", S, S, 4, "goose", cut=5)
        self.assertEqual(only([wanted(18)], [replace(cut, cut=4)], []).odd, 0)
        self.assertEqual(only([wanted(18)], [cut], []).odd, 2)
        # A sixth square is over as a whole.
        six = only([wanted(18)], [replace(cut, cut=6)], [])
        self.assertEqual((six.odd, six.over), (2, 1))
        by = only([wanted(18)], [replace(cut, put_by=2)], [triangles(2)])
        self.assertEqual((by.odd, by.left, by.over, by.ready), (0, 0, 0, 0))

    def test_those_put_by_serve_when_more_is_wanted(self) -> None:
        """Twenty-two wanted by then: eighteen lie there, two were put by, two more come from one square."""
        by = only([wanted(22)], [Entry("A", "a", S, S, 4, "goose", cut=5, put_by=2)], [triangles(2)])
        self.assertEqual((by.ready, by.left), (2, 1))
        self.assertEqual(
            only([wanted(20)], [Entry("A", "a", S, S, 4, "goose", cut=5, put_by=2)], [triangles(2)]).left, 0
        )

    @settings(max_examples=200, deadline=None)
    @given(
        bits=st.integers(1, 60),
        gives=st.sampled_from([2, 4]),
        ready=st.integers(0, 30),
        cut=st.integers(0, 20),
        spoiled=st.integers(0, 5),
        by=st.integers(0, 3),
    )
    def test_every_triangle_is_somewhere(
        self, bits: int, gives: int, ready: int, cut: int, spoiled: int, by: int
    ) -> None:
        spoiled, by = min(spoiled, cut), min(by, max(0, (cut - min(spoiled, cut)) * gives))
        kind = ClothKind.HALF_TRIANGLE if gives == 2 else ClothKind.QUARTER_TRIANGLE
        entry = Entry("A", "a", S, S, gives, "goose", cut=cut, spoiled=spoiled, put_by=by)
        p = only([wanted(bits, gives)], [entry], [triangles(ready, kind=kind)])
        self.assertEqual(p.entry.cut + p.left, p.wanted + p.entry.spoiled + p.over)
        on_hand = (cut - spoiled + p.left) * gives - by + p.ready
        self.assertGreaterEqual(on_hand, bits)
        if p.left:
            self.assertLess(on_hand - gives, bits)
            self.assertEqual(p.ready, min(ready, bits - (cut - spoiled) * gives + by))
        self.assertGreaterEqual(on_hand - p.over * gives, bits)
