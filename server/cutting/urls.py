from django.urls import path

from . import paper_views, views

urlpatterns = [
    path("projects/<uuid:key>/cutting", views.CuttingView.as_view()),
    path("projects/<uuid:key>/cutting/strips", views.TickView.as_view()),
    path("projects/<uuid:key>/cutting/cut", views.MarkCutView.as_view()),
    path("projects/<uuid:key>/stock.csv", views.StockSheetView.as_view()),
    path("projects/<uuid:key>/cut-list.csv", views.CutListView.as_view()),
    path("projects/<uuid:key>/possible", views.PossibleView.as_view()),
    path("projects/<uuid:key>/buying", views.BuyingView.as_view()),
    path("fabrics/<uuid:key>/stock/<uuid:stock>", views.NewStockView.as_view()),
    path("stock/<uuid:key>", views.StockView.as_view()),
    path("stock/<uuid:key>/restore", views.RestoreStockView.as_view()),
    path("projects/<uuid:key>/ticket", paper_views.TicketView.as_view()),
    path("projects/<uuid:key>/papers/ticket.pdf", paper_views.TicketPaper.as_view()),
    path("projects/<uuid:key>/papers/labels.pdf", paper_views.LabelsPaper.as_view()),
    path("projects/<uuid:key>/papers/cutting-plan.pdf", paper_views.PlanPaper.as_view()),
    path("units/<uuid:key>/papers/template.pdf", paper_views.TemplatePaper.as_view()),
    path("blocks/<uuid:key>/picture.svg", paper_views.BlockDrawing.as_view()),
    path("projects/<uuid:key>/quilt.svg", paper_views.QuiltDrawing.as_view()),
    path("units/<uuid:key>/papers/template.svg", paper_views.TemplateDrawing.as_view()),
]
