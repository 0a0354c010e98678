"""Every change once: a browser that did not hear the answer sends its change again under the same name.

A change sent with the header ``Change-Id`` is remembered in the transaction that makes it. Sent again, it is answered
204 and not made a second time: a unit turned by a quarter is not turned by two, however often the answer is lost.
"""

from __future__ import annotations

from collections.abc import Callable
from contextvars import ContextVar
from datetime import timedelta
from functools import wraps
from typing import ParamSpec, TypeVar
from uuid import UUID

from django.db import IntegrityError, transaction
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.utils import timezone

from api.problems import ApiError, problem_body

from .models import AppliedChange

__all__ = ["OnceMiddleware", "change"]

_REMEMBERED = timedelta(days=60)
"""Longer than anyone leaves a browser with unsent changes; after that the note of it goes."""
_HEADER = "Change-Id"
_P = ParamSpec("_P")
_R = TypeVar("_R")
_sent: ContextVar[UUID | None] = ContextVar("sent", default=None)


class UnderWay(ApiError):
    status = 503
    code = "under_way"
    title = "Under way"


def change(command: Callable[_P, _R]) -> Callable[_P, _R]:
    """A command in one transaction, which notes the name of the change it carries out if it was sent with one."""

    @wraps(command)
    def once(*args: _P.args, **kwargs: _P.kwargs) -> _R:
        with transaction.atomic():
            key = _sent.get()
            # Commands call one another: the outermost carries the change out.
            _sent.set(None)
            if key is not None:
                _note(key)
            return command(*args, **kwargs)

    return once


def _note(key: UUID) -> None:
    """Refused where it was noted since it was looked for: then all of the transaction goes back."""
    try:
        AppliedChange.objects.create(pk=key)
    except IntegrityError:
        raise UnderWay("This change is being made by another request. It is sent again by itself.") from None


class OnceMiddleware:
    """Reads the name of a change, and answers 204 when it was made before."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        given = request.headers.get(_HEADER)
        if given is None:
            return self.get_response(request)
        try:
            key = UUID(given)
        except ValueError:
            detail = "The name of a change is a UUID."
            body = problem_body(400, "invalid_request", "Not understood", detail, [])
            return JsonResponse(body, status=400, content_type="application/problem+json")
        if self._made_before(key):
            return HttpResponse(status=204)
        if key.int % 256 == 0:
            AppliedChange.objects.filter(at__lt=timezone.now() - _REMEMBERED).delete()
        token = _sent.set(key)
        try:
            return self.get_response(request)
        finally:
            _sent.reset(token)

    @staticmethod
    def _made_before(key: UUID) -> bool:
        return AppliedChange.objects.filter(pk=key).exists()
