from django.urls import path

from .views import WorkroomView

urlpatterns = [path("workroom", WorkroomView.as_view())]
