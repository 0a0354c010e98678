"""Addresses: the API under /api/, everything else is the one page, which routes itself."""

from csp.constants import SELF, UNSAFE_INLINE
from csp.decorators import csp_replace
from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import include, path, re_path
from django.views.decorators.cache import never_cache
from drf_spectacular.views import SpectacularAPIView

from api.problems import unknown_address
from api.views import HealthView


@never_cache
def page(request: HttpRequest) -> HttpResponse:
    """The built front end, rendered so that it carries this response's nonce."""
    return render(request, "index.html")


handler400 = "api.problems.bad_request"
handler404 = "api.problems.nothing_here"
handler500 = "api.problems.server_error"


@never_cache
@csp_replace({"style-src": [SELF, UNSAFE_INLINE]})
def shell(request: HttpRequest) -> HttpResponse:
    """The page as the browser keeps it for when this server is stopped: kept, it cannot carry a nonce of one answer."""
    return render(request, "index.html")


@never_cache
def worker(_request: HttpRequest) -> HttpResponse:
    """The script that keeps the page in the browser; asked for anew every time, so that a newer build takes over."""
    built = settings.WEB / "sw.js"
    if not built.exists():
        raise Http404
    return HttpResponse(built.read_bytes(), content_type="text/javascript")


urlpatterns = [
    path("shell", shell),
    path("sw.js", worker),
    path("api/health", HealthView.as_view()),
    path("api/schema", SpectacularAPIView.as_view()),
    path("api/", include("workrooms.urls")),
    path("api/", include("projects.urls")),
    path("api/", include("planning.urls")),
    path("api/", include("blocks.urls")),
    path("api/", include("cutting.urls")),
    path("api/", include("papers.urls")),
    path("api/", include("exchange.urls")),
    path("api/", include("diagnosis.urls")),
    path("api/", include("progress.urls")),
    path("api/", include("records.urls")),
    path("api/", include("timing.urls")),
    path("api/", include("journal.urls")),
    path("api/", include("keeping.urls")),
    re_path(r"^api/.*$", unknown_address),
    re_path(r"^(?!assets/).*$", page),
]
