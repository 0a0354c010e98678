from django.urls import path

from . import views

urlpatterns = [
    path("backup", views.BackupView.as_view()),
    path("copies", views.CopiesView.as_view()),
    path("nearly-full", views.NearlyFullView.as_view()),
    path("deleted", views.DeletedView.as_view()),
    path("copies/<str:name>/restore", views.RestoreCopyView.as_view()),
]
