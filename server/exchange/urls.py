from django.urls import path

from . import views

urlpatterns = [
    path("projects/<uuid:key>/history", views.HistoryView.as_view()),
    path("projects/<uuid:key>/history/<uuid:state>/copy", views.StateCopyView.as_view()),
    path("projects/<uuid:key>/export", views.ExportView.as_view()),
    path("exchange/projects", views.ImportView.as_view()),
    path("exchange/records", views.RecordsFileView.as_view()),
    path("exchange/records.schema.json", views.RecordsSchemaView.as_view()),
    path("exchange/project.schema.json", views.SchemaView.as_view()),
]
