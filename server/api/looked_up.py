"""What one answer asks the database for again and again is looked up once for it."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from functools import wraps
from typing import Any, TypeVar

from django.db.models import Model
from django.http import HttpRequest, HttpResponse

__all__ = ["OneAnswerMiddleware", "looked_up_once", "one_answer"]

_M = TypeVar("_M", bound=Model)
_R = TypeVar("_R")
_found: ContextVar[dict[tuple[object, object], Any] | None] = ContextVar("found", default=None)


@contextmanager
def one_answer() -> Iterator[None]:
    """Nothing is written while this lasts: what is read of a thing holds for all who ask."""
    token = _found.set({})
    try:
        yield
    finally:
        _found.reset(token)


def looked_up_once(read: Callable[[_M], _R]) -> Callable[[_M], _R]:
    """A read of one row, made once for an answer; each time where nothing says that an answer is being put together."""

    @wraps(read)
    def once(row: _M) -> _R:
        found = _found.get()
        if found is None:
            return read(row)
        key = (read, row.pk)
        if key not in found:
            found[key] = read(row)
        known: _R = found[key]
        return known

    return once


class OneAnswerMiddleware:
    """A request that only reads is one answer from its beginning."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        if request.method not in ("GET", "HEAD"):
            return self.get_response(request)
        with one_answer():
            return self.get_response(request)
