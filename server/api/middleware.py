"""No sign-in means no cookie to protect, but other sites open in the same browser must not write here."""

from collections.abc import Callable
from urllib.parse import urlsplit

from django.http import HttpRequest, HttpResponse, JsonResponse

_READING = {"GET", "HEAD", "OPTIONS"}


class QuietMiddleware:
    """What is kept here stays here: no other site may embed it, and no cache between keeps an answer of the API."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = self.get_response(request)
        response.headers.setdefault("Cross-Origin-Resource-Policy", "same-origin")
        if request.path.startswith("/api/"):
            response.headers["Cache-Control"] = "no-store"
        return response


class SameOriginMiddleware:
    """Refuses what another site asks for: writes by their ``Origin``, and all of the API by ``Sec-Fetch-Site``."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        origin = request.headers.get("Origin")
        written = request.method not in _READING and origin and urlsplit(origin).netloc != request.get_host()
        embedded = request.headers.get("Sec-Fetch-Site") in ("cross-site", "same-site")
        if written or (embedded and request.path.startswith("/api/")):
            body = {
                "type": "about:blank",
                "title": "Asked from another site",
                "status": 403,
                "code": "other_origin",
                "detail": "Only this application's own pages may read and change what is kept here.",
                "errors": [],
            }
            return JsonResponse(body, status=403, content_type="application/problem+json")
        return self.get_response(request)
