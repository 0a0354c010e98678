from django.urls import path

from . import views

urlpatterns = [
    path("records", views.RecordsView.as_view()),
    path("records/hands", views.HandsView.as_view()),
    path("records/diagnoses", views.DiagnosesView.as_view()),
    path("records/forecasts", views.ForecastsView.as_view()),
    path("records/forecasts/<str:key>", views.ForecastView.as_view()),
    path("records/tests.csv", views.TestSheetView.as_view()),
    path("records/days/<path:day>", views.DayView.as_view()),
    path("set-ups/<uuid:key>", views.SetUpView.as_view()),
    path("set-ups/<uuid:key>/use", views.UseSetUpView.as_view()),
    path("set-ups/<uuid:key>/restore", views.RestoreSetUpView.as_view()),
    path("set-ups/<uuid:key>/tests/<uuid:reading>", views.TestView.as_view()),
    path("set-ups/<uuid:key>/tests/<uuid:reading>/restore", views.RestoreTestView.as_view()),
    path("units/<uuid:key>/lot", views.LotReadView.as_view()),
]
