"""Reads of workrooms."""

from .models import Workroom

__all__ = ["current_workroom"]


def current_workroom() -> Workroom:
    """The one workroom of this computer, made on first use. One query."""
    room = Workroom.objects.order_by("pk").first()
    return room if room is not None else Workroom.objects.create()
