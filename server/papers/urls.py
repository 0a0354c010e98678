from django.urls import path

from . import views

urlpatterns = [
    path("projects/<uuid:key>/ticket", views.TicketView.as_view()),
    path("projects/<uuid:key>/papers/ticket.pdf", views.TicketPaper.as_view()),
    path("projects/<uuid:key>/papers/labels.pdf", views.LabelsPaper.as_view()),
    path("projects/<uuid:key>/papers/scraps.pdf", views.ScrapsPaper.as_view()),
    path("projects/<uuid:key>/papers/cutting-plan.pdf", views.PlanPaper.as_view()),
    path("projects/<uuid:key>/story.pdf", views.StoryPaper.as_view()),
    path("units/<uuid:key>/papers/template.pdf", views.TemplatePaper.as_view()),
    path("blocks/<uuid:key>/picture.svg", views.BlockDrawing.as_view()),
    path("projects/<uuid:key>/papers/quilt.pdf", views.QuiltPaper.as_view()),
    path("projects/<uuid:key>/quilt.svg", views.QuiltDrawing.as_view()),
    path("units/<uuid:key>/papers/template.svg", views.TemplateDrawing.as_view()),
]
