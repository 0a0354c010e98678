from django.urls import path

from . import views

urlpatterns = [
    path("plan", views.PlanView.as_view()),
    path("units/<uuid:key>/trim", views.TrimView.as_view()),
]
