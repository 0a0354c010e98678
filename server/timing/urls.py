from django.urls import path

from . import views

urlpatterns = [
    path("times", views.TimesView.as_view()),
    path("times/running", views.RunningView.as_view()),
    path("times/minutes.csv", views.TimeSheetView.as_view()),
    path("times/<uuid:key>", views.TimeView.as_view()),
    path("times/<uuid:key>/restore", views.RestoreTimeView.as_view()),
    path("times/<uuid:key>/clock", views.ClockView.as_view()),
    path("blades/<uuid:key>/<path:day>", views.BladeView.as_view()),
    path("projects/<uuid:key>/time", views.ProjectTimeView.as_view()),
    path("projects/<uuid:key>/schedule", views.ScheduleView.as_view()),
    path("evenings", views.EveningsView.as_view()),
    path("evenings/kept", views.KeepView.as_view()),
    path("evenings/evenings.ics", views.KeptCalendarView.as_view()),
    path("evenings/calendars", views.CalendarView.as_view()),
    path("evenings/free/<uuid:key>", views.FreeView.as_view()),
    path("evenings/free/<uuid:key>/restore", views.RestoreFreeView.as_view()),
    path("evenings/busy/<path:day>", views.BusyDayView.as_view()),
]
