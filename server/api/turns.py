"""Requests take turns at the one interpreter that they share."""

from __future__ import annotations

import threading
from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

__all__ = ["TurnMiddleware"]

_PATIENCE = 0.3
"""Seconds. Longer than nearly all requests take, and short enough that nobody notices waiting behind a large arrangement."""


class TurnMiddleware:
    """One request is worked on at a time, as long as each is short; who has waited for long goes on beside the one that is not.

    Worked on together they all take longer than one after the other: each of the many small matrices of a diagnosis lets the others in
    and then waits for them.
    """

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response
        self._turn = threading.Lock()

    def __call__(self, request: HttpRequest) -> HttpResponse:
        mine = self._turn.acquire(timeout=_PATIENCE)
        try:
            return self.get_response(request)
        finally:
            if mine:
                self._turn.release()
