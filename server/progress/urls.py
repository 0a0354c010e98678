from django.urls import path

from . import views

urlpatterns = [
    path("projects/<uuid:key>/standing", views.StandingView.as_view()),
    path("projects/<uuid:key>/bench", views.BenchView.as_view()),
    path("projects/<uuid:key>/bench/quilt", views.QuiltBenchView.as_view()),
    path("projects/<uuid:key>/done/<uuid:done>", views.DoneView.as_view()),
    path("units/<uuid:key>/bench", views.UnitBenchView.as_view()),
    path("blocks/<uuid:key>/bench", views.BlockBenchView.as_view()),
]
