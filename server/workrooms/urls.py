from django.urls import path

from . import views

urlpatterns = [
    path("workroom", views.WorkroomView.as_view()),
    path("rulers/<uuid:key>", views.RulerView.as_view()),
    path("rulers/<uuid:key>/restore", views.RestoreRulerView.as_view()),
]
