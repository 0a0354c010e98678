from django.urls import path

from . import views, words

urlpatterns = [
    path("kinds", views.KindsView.as_view()),
    path("words", words.WordsView.as_view()),
    path("plan", views.PlanView.as_view()),
    path("compare", views.CompareView.as_view()),
    path("units/<uuid:key>/trim", views.TrimView.as_view()),
]
