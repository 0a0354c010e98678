"""Requests take turns, and one that takes long holds nobody up for good."""

from __future__ import annotations

import threading

from django.http import HttpRequest, HttpResponse
from django.test import RequestFactory, SimpleTestCase

from api.turns import TurnMiddleware

_SOON = 5


class TurnTest(SimpleTestCase):
    def setUp(self) -> None:
        self.inside: list[str] = []
        self.came, self.may_go = threading.Event(), threading.Event()
        self.turns = TurnMiddleware(self._answer)

    def _answer(self, request: HttpRequest) -> HttpResponse:
        self.inside.append(request.path)
        if request.path == "/long":
            self.came.set()
            self.may_go.wait(_SOON)
        if request.path == "/broken":
            raise ValueError("as it happens")
        return HttpResponse(" ".join(self.inside))

    def _ask(self, path: str) -> HttpResponse:
        return self.turns(RequestFactory().get(path))

    def _begin_long(self) -> threading.Thread:
        long = threading.Thread(target=self._ask, args=("/long",))
        long.start()
        self.assertTrue(self.came.wait(_SOON))
        return long

    def test_one_waits_for_another_that_is_short(self) -> None:
        long, short = self._begin_long(), threading.Thread(target=self._ask, args=("/short",))
        short.start()
        short.join(0.05)
        self.assertEqual(self.inside, ["/long"])
        self.may_go.set()
        short.join(_SOON)
        long.join(_SOON)
        self.assertEqual(self.inside, ["/long", "/short"])

    def test_one_goes_on_beside_another_that_is_long(self) -> None:
        long = self._begin_long()
        self.assertEqual(self._ask("/short").content, b"/long /short")
        self.assertTrue(long.is_alive())
        self.may_go.set()
        long.join(_SOON)

    def test_a_turn_that_ends_badly_is_over(self) -> None:
        with self.assertRaises(ValueError):
            self._ask("/broken")
        long = self._begin_long()
        self.may_go.set()
        long.join(_SOON)
        self.assertEqual(self.inside, ["/broken", "/long"])
