"""Addresses: the API under /api/, everything else is the one page, which routes itself."""

from django.http import HttpRequest, HttpResponse
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
handler500 = "api.problems.server_error"

urlpatterns = [
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
    re_path(r"^api/.*$", unknown_address),
    re_path(r"^(?!assets/).*$", page),
]
