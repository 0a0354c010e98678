from django.urls import path

from . import views

urlpatterns = [
    path("log", views.LogView.as_view()),
    path("log/<uuid:key>", views.EntryView.as_view()),
    path("log/<uuid:key>/restore", views.RestoreEntryView.as_view()),
    path("log/<uuid:key>/photos/<uuid:photo>", views.EntryPhotoView.as_view()),
    path("units/<uuid:key>/trial", views.TrialView.as_view()),
    path("photos/<uuid:key>", views.PhotoView.as_view()),
    path("photos/<uuid:key>/restore", views.RestorePhotoView.as_view()),
    path("projects/<uuid:key>/done/<uuid:done>/why", views.WhyView.as_view()),
    path("projects/<uuid:key>/story", views.StoryView.as_view()),
]
