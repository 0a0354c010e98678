from django.urls import path

from . import views

urlpatterns = [path("units/<uuid:key>/diagnosis", views.DiagnosisView.as_view())]
