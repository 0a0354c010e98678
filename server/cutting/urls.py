from django.urls import path

from . import views

urlpatterns = [
    path("projects/<uuid:key>/cutting", views.CuttingView.as_view()),
    path("projects/<uuid:key>/cutting/strips", views.TickView.as_view()),
    path("projects/<uuid:key>/cutting/cut", views.MarkCutView.as_view()),
    path("projects/<uuid:key>/fabrics/exchange", views.ExchangeView.as_view()),
    path("projects/<uuid:key>/cutting/undo", views.UndoCutView.as_view()),
    path("projects/<uuid:key>/cutting/piles/<str:letter>", views.PileView.as_view()),
    path("projects/<uuid:key>/cutting/piles/<str:letter>/scraps", views.KeepOverView.as_view()),
    path("projects/<uuid:key>/stock.csv", views.StockSheetView.as_view()),
    path("projects/<uuid:key>/cut-list.csv", views.CutListView.as_view()),
    path("projects/<uuid:key>/possible", views.PossibleView.as_view()),
    path("projects/<uuid:key>/buying", views.BuyingView.as_view()),
    path("fabrics/<uuid:key>/stock/<uuid:stock>", views.NewStockView.as_view()),
    path("projects/<uuid:key>/cutting/piles/<str:letter>/triangles", views.TrianglesView.as_view()),
    path("units/<uuid:key>/spares", views.SparesView.as_view()),
    path("units/<uuid:key>/spares/kept", views.KeepSparesView.as_view()),
    path("units/<uuid:key>/spares/used", views.UseSparesView.as_view()),
    path("shelf", views.ShelfView.as_view()),
    path("shelf/<uuid:key>", views.ShelvedView.as_view()),
    path("shelf/<uuid:key>/restore", views.RestoreShelvedView.as_view()),
    path("stock/<uuid:key>/shelved", views.ShelveView.as_view()),
    path("fabrics/<uuid:key>/shelf/<uuid:stock>", views.TakeOffShelfView.as_view()),
    path("stock/<uuid:key>", views.StockView.as_view()),
    path("stock/<uuid:key>/restore", views.RestoreStockView.as_view()),
]
