"""Changes to a workroom's settings."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from django.db import transaction

from common.patches import apply_changes
from piecing.errors import UnknownChoice
from piecing.lengths import Length, Measure, Style, parse_length, parse_step

from .models import Workroom
from .selectors import current_workroom

__all__ = ["change_workroom"]


def read_measure(value: Any) -> str:
    try:
        return Measure(value).value
    except ValueError:
        raise UnknownChoice("Choose inches or millimetres.", field="measure") from None


@transaction.atomic
def change_workroom(changes: Mapping[str, Any], seen: Mapping[str, Any]) -> Workroom:
    """Set fields of the current workroom; see ``common.patches`` for conflicts."""
    room = current_workroom()
    measure = (
        Measure(changes.get("measure", room.measure))
        if changes.get("measure") in ("in", "mm")
        else Measure(room.measure)
    )
    readers = {
        "name": lambda v: str(v).strip()[:120] or "My workroom",
        "measure": read_measure,
        "ruler_step": lambda v: parse_step(v, measure),
        "reading_step": lambda v: parse_step(v, measure),
        "seam_allowance": lambda v: parse_length(v, measure),
    }
    style = Style(measure)
    show = lambda _f, v: style.text(v) if isinstance(v, Length) else str(v)  # noqa: E731
    fields = apply_changes(room, readers, changes, seen, style, show)
    if fields:
        room.save(update_fields=fields)
    return room
