from django.urls import path

from . import views

urlpatterns = [
    path("beginnings", views.BeginningView.as_view()),
    path("library", views.LibraryView.as_view()),
    path("library/<uuid:key>", views.OwnBlockView.as_view()),
    path("library/<uuid:key>/restore", views.RestoreOwnView.as_view()),
    path("projects/<uuid:key>/blocks", views.SheetView.as_view()),
    path("projects/<uuid:key>/blocks/<uuid:block>", views.NewBlockView.as_view()),
    path("projects/<uuid:key>/look", views.LookView.as_view()),
    path("projects/<uuid:key>/quilt", views.QuiltView.as_view()),
    path("projects/<uuid:key>/quilt/beside", views.BesideView.as_view()),
    path("projects/<uuid:key>/quilt/sampler", views.SamplerView.as_view()),
    path("projects/<uuid:key>/quilt/sashing", views.SashingView.as_view()),
    path("projects/<uuid:key>/rounded", views.RoundedView.as_view()),
    path("projects/<uuid:key>/scraps", views.ScrapsView.as_view()),
    path("projects/<uuid:key>/counts", views.CountsView.as_view()),
    path("blocks/<uuid:key>", views.BlockView.as_view()),
    path("blocks/<uuid:key>/edits", views.EditView.as_view()),
    path("blocks/<uuid:key>/restore", views.RestoreBlockView.as_view()),
    path("blocks/<uuid:key>/looking", views.LookingView.as_view()),
    path("blocks/<uuid:key>/turned", views.FindTurnedView.as_view()),
    path("blocks/<uuid:key>/joining", views.JoiningView.as_view()),
    path("blocks/<uuid:key>/pressing", views.PressingView.as_view()),
]
