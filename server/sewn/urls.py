from django.urls import path

from . import views

urlpatterns = [
    path("symptoms", views.SymptomsView.as_view()),
    path("diagnosis", views.ByHandView.as_view()),
    path("blocks/<uuid:key>/sewn", views.SewnView.as_view()),
    path("blocks/<uuid:key>/what-if", views.WhatIfView.as_view()),
    path("blocks/<uuid:key>/measured.csv", views.MeasuredSheetView.as_view()),
    path("blocks/<uuid:block>/measured/<uuid:key>", views.MeasuredView.as_view()),
    path("blocks/<uuid:block>/measured/<uuid:key>/restore", views.RestoreMeasuredView.as_view()),
    path("blocks/<uuid:block>/kept/<uuid:key>", views.KeptView.as_view()),
]
