from django.urls import path

from . import views

urlpatterns = [
    path("units/<uuid:key>/check", views.CheckView.as_view()),
    path("units/<uuid:key>/readings.csv", views.SheetView.as_view()),
    path("units/<uuid:unit>/readings/<uuid:key>", views.ReadingView.as_view()),
    path("units/<uuid:unit>/readings/<uuid:key>/restore", views.RestoreReadingView.as_view()),
]
