from django.urls import path

from . import views

urlpatterns = [
    path("projects", views.ProjectsView.as_view()),
    path("projects/<uuid:key>", views.ProjectView.as_view()),
    path("projects/<uuid:key>/restore", views.RestoreProjectView.as_view()),
    path("projects/<uuid:key>/archived", views.ArchiveProjectView.as_view()),
    path("projects/<uuid:key>/duplicates", views.DuplicateProjectView.as_view()),
    path("projects/<uuid:key>/units", views.UnitsView.as_view()),
    path("projects/<uuid:key>/fabrics/<uuid:fabric>", views.NewFabricView.as_view()),
    path("units/<uuid:key>", views.UnitView.as_view()),
    path("units/<uuid:key>/restore", views.RestoreUnitView.as_view()),
    path("fabrics/<uuid:key>", views.FabricView.as_view()),
    path("fabrics/<uuid:key>/restore", views.RestoreFabricView.as_view()),
]
