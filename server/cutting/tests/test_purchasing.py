"""What to buy is told soon, and told better when it is proven; nothing is looked for twice."""

from __future__ import annotations

import threading
from dataclasses import replace
from unittest import TestCase

from cutting.purchasing import Purchasing
from piecing.cutting import WantedPiece
from piecing.cutting.buying import Purchase, Shop
from piecing.lengths import inches

_PILE = (WantedPiece("A", "a", inches(4), inches(4), 40),)


class _Looker:
    """Finds 40 in. soon and 36 in. when it has the time and is let."""

    def __init__(self, *, proven: bool = False) -> None:
        self.let, self.proven = threading.Event(), proven
        self.asked: list[tuple[tuple[WantedPiece, ...], Shop]] = []

    def __call__(self, wanted: tuple[WantedPiece, ...], shop: Shop, seconds: float) -> tuple[Purchase, ...]:
        self.asked.append((wanted, shop))
        if seconds < 1:
            return (Purchase("a", inches(40), inches(45), (), self.proven),)
        self.let.wait(20)
        return (Purchase("a", inches(36), inches(36), (), True),)


class PurchasingTest(TestCase):
    def test_soon_then_better(self) -> None:
        look = _Looker()
        bought = Purchasing(look)
        first, coming = bought.of(_PILE, Shop(), behind=True)
        self.assertEqual((first[0].buy, coming), (inches(45), True))
        # Asked again while it is looked for: the same, and no second search.
        again, coming = bought.of(_PILE, Shop(), behind=True)
        self.assertEqual((again, coming), (first, True))
        look.let.set()
        for t in threading.enumerate():
            if t.daemon and t is not threading.current_thread() and "_look_again" in t.name:
                t.join(20)
        last, coming = bought.of(_PILE, Shop(), behind=True)
        self.assertEqual((last[0].buy, coming), (inches(36), False))
        self.assertEqual(len(look.asked), 2)

    def test_what_is_proven_at_once_is_not_looked_for_again(self) -> None:
        look = _Looker(proven=True)
        found, coming = Purchasing(look).of(_PILE, Shop(), behind=True)
        self.assertEqual((found[0].buy, coming, len(look.asked)), (inches(45), False, 1))

    def test_where_nothing_runs_behind_it_is_waited_for(self) -> None:
        look = _Looker()
        look.let.set()
        bought = Purchasing(look)
        found, coming = bought.of(_PILE, Shop(), behind=False)
        self.assertEqual((found[0].buy, coming), (inches(36), False))
        bought.of(_PILE, replace(Shop(), wrong_cuts=2), behind=False)
        bought.of(_PILE, Shop(), behind=False)
        self.assertEqual(len(look.asked), 2)
