"""No sign-in means no cookie to protect, but other sites open in the same browser must not write here."""

from collections.abc import Callable
from urllib.parse import urlsplit

from django.http import HttpRequest, HttpResponse, JsonResponse

_READING = {"GET", "HEAD", "OPTIONS"}


class SameOriginMiddleware:
    """Refuses writes whose ``Origin`` is another site than the one addressed."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        origin = request.headers.get("Origin")
        if request.method not in _READING and origin and urlsplit(origin).netloc != request.get_host():
            body = {
                "type": "about:blank",
                "title": "Written from another site",
                "status": 403,
                "code": "other_origin",
                "detail": "Only this application's own pages may change what is kept here.",
                "errors": [],
            }
            return JsonResponse(body, status=403, content_type="application/problem+json")
        return self.get_response(request)
