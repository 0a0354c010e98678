from django.urls import path

from . import views

urlpatterns = [
    path("projects/<uuid:key>/history", views.HistoryView.as_view()),
    path("projects/<uuid:key>/history/<uuid:state>/copy", views.StateCopyView.as_view()),
    path("projects/<uuid:key>/export", views.ExportView.as_view()),
    path("blocks/<uuid:key>/export", views.PatternFileView.as_view()),
    path("projects/<uuid:key>/blocks/<uuid:block>/import", views.TakePatternView.as_view()),
    path("exchange/pattern.schema.json", views.PatternSchemaView.as_view()),
    path("exchange/projects", views.ImportView.as_view()),
    path("exchange/records", views.RecordsFileView.as_view()),
    path("exchange/records.schema.json", views.RecordsSchemaView.as_view()),
    path("exchange/project.schema.json", views.SchemaView.as_view()),
]
