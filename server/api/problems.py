"""Every refusal as problem+json with a stable code. Core errors become responses here and nowhere else."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterable
from typing import Any, ClassVar

from django.core.exceptions import RequestDataTooBig
from django.db import DatabaseError
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from rest_framework import exceptions, serializers
from rest_framework.response import Response
from rest_framework.views import set_rollback

from piecing.errors import PiecingError
from piecing.lengths import Length, Style

__all__ = [
    "ApiError",
    "ChangedElsewhere",
    "FieldProblemSerializer",
    "NotHere",
    "ProblemSerializer",
    "Refused",
    "bad_request",
    "field_problem",
    "nothing_here",
    "problem_body",
    "problem_response",
    "server_error",
    "storage_problem",
    "unknown_address",
]

_TYPE = "application/problem+json"


class FieldProblemSerializer(serializers.Serializer[Any]):
    """One refusal: which field, a stable code, a sentence, and the values it speaks of."""

    field = serializers.CharField()
    code = serializers.CharField()
    message = serializers.CharField()
    values = serializers.DictField(child=serializers.CharField())


class ProblemSerializer(serializers.Serializer[Any]):
    type = serializers.CharField()
    title = serializers.CharField()
    status = serializers.IntegerField()
    code = serializers.CharField()
    detail = serializers.CharField()
    errors = FieldProblemSerializer(many=True)  # type: ignore[assignment]


class Refused(Exception):
    """One or more core refusals of one request, with the style their lengths are said in."""

    def __init__(self, errors: Iterable[PiecingError], style: Style | None = None) -> None:
        self.errors = list(errors)
        self.style = style or Style()
        super().__init__(str(self.errors[0]) if self.errors else "refused")


class ApiError(Exception):
    """A refusal that is not the core's; ``values`` per field say what is kept here."""

    status: ClassVar[int] = 400
    code: ClassVar[str] = "refused"
    title: ClassVar[str] = "Refused"

    def __init__(self, detail: str, values: dict[str, str] | None = None) -> None:
        super().__init__(detail)
        self.detail = detail
        self.values = values or {}


class ChangedElsewhere(ApiError):
    status = 409
    code = "changed_elsewhere"
    title = "Changed in another window"


class NotHere(ApiError):
    status = 404
    code = "not_here"
    title = "Not here"


def problem_body(status: int, code: str, title: str, detail: str, errors: list[dict[str, Any]]) -> dict[str, Any]:
    """The body of an ``application/problem+json`` answer (RFC 9457), with this application's ``code`` and ``errors``."""
    return {"type": "about:blank", "title": title, "status": status, "code": code, "detail": detail, "errors": errors}


def field_problem(error: PiecingError, style: Style) -> dict[str, Any]:
    """A core refusal as one row of a problem's ``errors``."""
    values = {k: style.text(v) if isinstance(v, Length) else str(v) for k, v in error.data.items()}
    return {"field": error.field, "code": error.code, "message": error.said.text(style), "values": values}


def _from_framework(detail: Any, field: str = "") -> list[dict[str, Any]]:
    """DRF's nested details, flattened to one row a field."""
    if isinstance(detail, dict):
        return [row for k, v in detail.items() for row in _from_framework(v, f"{field}.{k}".strip("."))]
    if isinstance(detail, list):
        return [row for v in detail for row in _from_framework(v, field)]
    code = getattr(detail, "code", "invalid")
    return [{"field": field, "code": f"field_{code}", "message": str(detail), "values": {}}]


_MISSING = "Nothing is given here, and something is needed. Type it, or leave the whole of it out."
_WORDS: dict[type[serializers.Field[Any, Any, Any, Any]], dict[str, str]] = {
    serializers.Field: {"required": _MISSING, "null": _MISSING},
    serializers.CharField: {
        "blank": _MISSING,
        "max_length": "That is too long: at most {max_length} characters fit here. Shorten it.",
    },
    serializers.IntegerField: {
        "invalid": "A whole number is needed here, such as 12.",
        "max_value": "That is too much: at most {max_value} can be taken. Type less.",
        "min_value": "That is too little: it has to be at least {min_value}. Type more.",
        "max_string_length": "That is too long to be a number. Look at it again.",
    },
    serializers.FloatField: {
        "invalid": "A number is needed here, such as 12 or 0.5.",
        "max_value": "That is too much: at most {max_value} can be taken. Type less.",
        "min_value": "That is too little: it has to be at least {min_value}. Type more.",
        "max_string_length": "That is too long to be a number. Look at it again.",
    },
    serializers.ChoiceField: {"invalid_choice": "That is not one of the choices there are. Pick one of them."},
    serializers.ListField: {
        "empty": _MISSING,
        "max_length": "That is too many: at most {max_length} can be taken at once. Send fewer.",
    },
}
"""What the framework says of a field in a programmer's words, said in those of the table; what is not here only programs are told."""
for _field, _words in _WORDS.items():
    _field.default_error_messages = {**_field.default_error_messages, **_words}


def problem_response(exc: Exception, _context: dict[str, Any]) -> Response | None:
    """DRF's exception handler."""
    set_rollback()
    body = _problem(exc)
    return None if body is None else Response(body, status=body["status"], content_type=_TYPE)


def _problem(exc: Exception) -> dict[str, Any] | None:
    if isinstance(exc, PiecingError):
        exc = Refused([exc])
    if isinstance(exc, Refused):
        rows = [field_problem(e, exc.style) for e in exc.errors]
        return problem_body(422, rows[0]["code"], "This cannot be done", rows[0]["message"], rows)
    if isinstance(exc, ApiError):
        rows = [
            {"field": f, "code": exc.code, "message": exc.detail, "values": {"here": v}} for f, v in exc.values.items()
        ]
        return problem_body(exc.status, exc.code, exc.title, exc.detail, rows)
    if isinstance(exc, Http404):
        return problem_body(
            404, "not_here", "Not here", "There is nothing at this address. It may have been deleted.", []
        )
    if isinstance(exc, DatabaseError | sqlite3.Error | OSError):
        return storage_problem(exc)
    if isinstance(exc, RequestDataTooBig):
        too_large = "This is more than can be taken at once. Send it in smaller parts."
        return problem_body(413, "too_large", "Too large", too_large, [])
    if isinstance(exc, exceptions.ValidationError):
        rows = _from_framework(exc.detail)
        return problem_body(400, "invalid_request", "Not understood", rows[0]["message"] if rows else "", rows)
    if isinstance(exc, exceptions.APIException):
        return problem_body(exc.status_code, str(exc.default_code), "Not understood", str(exc.detail), [])
    return None


_STORAGE = (
    (("locked", "busy"), 503, "busy", "Busy", "Another change is being written. What you sent is kept in the browser and tried again."),
    (("disk is full", "no space left"), 507, "disk_full", "The disk is full", "There is no room left on the disk, so nothing was changed. Make room; what you typed is kept in the browser and tried again."),
    (("readonly", "read-only file system"), 507, "read_only", "The data folder is read-only", "The data folder cannot be written to, so nothing was changed. Let this program write there; what you typed is kept in the browser and tried again."),
    (("disk i/o",), 507, "disk_error", "The disk does not answer", "The data folder could not be read or written, so nothing was changed. Look whether its disk is there; what you typed is kept in the browser and tried again."),
    (("malformed",), 507, "damaged", "The database is damaged", "The database cannot be read as a whole, so nothing was changed. Stop the program and restore the last good copy: make restore."),
    (("unable to open",), 507, "not_there", "The database is not there", "The database cannot be opened, so nothing was changed. Look whether the data folder is where it was."),
)  # fmt: skip


def storage_problem(exc: Exception) -> dict[str, Any] | None:
    """What SQLite or the disk says of a file, in the user's words: ``None`` for anything that is a fault of the program."""
    said = str(exc).lower()
    for signs, status, code, title, detail in _STORAGE:
        if any(sign in said for sign in signs):
            return problem_body(status, code, title, detail, [])
    return None


def server_error(_request: HttpRequest) -> HttpResponse:
    """Django's handler for what nobody foresaw."""
    detail = "The server could not do this, and nothing was changed. It is a fault of the program."
    body = problem_body(500, "server_error", "Not done", detail, [])
    return JsonResponse(body, status=500, content_type=_TYPE)


def bad_request(_request: HttpRequest, exception: Exception) -> HttpResponse:  # noqa: ARG001
    """Django's handler for what it refuses before any view: an unknown host, a malformed address."""
    body = problem_body(
        400, "invalid_request", "Not understood", "This request is not one of this application's pages.", []
    )
    return JsonResponse(body, status=400, content_type=_TYPE)


def nothing_here(_request: HttpRequest, exception: Exception) -> HttpResponse:  # noqa: ARG001
    """Django's handler for what is at no address, such as a script of an older build."""
    body = problem_body(404, "not_here", "Not here", "There is nothing at this address.", [])
    return JsonResponse(body, status=404, content_type=_TYPE)


def unknown_address(_request: HttpRequest) -> HttpResponse:
    body = problem_body(404, "not_here", "Not here", "The API has no such address.", [])
    return JsonResponse(body, status=404, content_type=_TYPE)
