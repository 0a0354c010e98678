from django.urls import path, register_converter
from django.urls.converters import StringConverter

from . import views


class SubjectConverter(StringConverter):
    """What can be diagnosed in a project."""

    regex = "blocks|units"


register_converter(SubjectConverter, "subject")

urlpatterns = [
    path("symptoms", views.SymptomsView.as_view()),
    path("diagnosis", views.ByHandView.as_view()),
    path("diagnosis/working", views.ByHandWorkingView.as_view()),
    path("projects/<uuid:key>/measured", views.MeasuredView.as_view()),
    path("projects/<uuid:key>/measured/<str:place>", views.MeasuredTopView.as_view()),
    path("blocks/<uuid:key>/measured/<uuid:reading>", views.MeasuredBlockView.as_view()),
    path("blocks/<uuid:key>/what-if", views.WhatIfView.as_view()),
    path("<subject:subject>/<uuid:key>/diagnosis", views.DiagnosisView.as_view()),
    path("<subject:subject>/<uuid:key>/diagnosis/working", views.WorkingView.as_view()),
    path("<subject:subject>/<uuid:key>/readings.csv", views.ReadingSheetView.as_view()),
    path("<subject:subject>/<uuid:key>/readings/<uuid:reading>", views.ReadingView.as_view()),
    path("<subject:subject>/<uuid:key>/readings/<uuid:reading>/restore", views.RestoreReadingView.as_view()),
    path("<subject:subject>/<uuid:key>/saved/<uuid:saved>", views.SavedView.as_view()),
]
