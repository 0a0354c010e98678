"""Changes to a workroom's settings."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from django.db import transaction

from common.patches import apply_changes
from common.readers import allowance_reader, measure_reader, name_reader, step_reader
from piecing.lengths import Measure

from .models import Workroom
from .selectors import current_workroom

__all__ = ["change_workroom"]


@transaction.atomic
def change_workroom(changes: Mapping[str, Any], seen: Mapping[str, Any]) -> Workroom:
    """Set fields of the current workroom; see ``common.patches`` for conflicts."""
    room = current_workroom()
    measure = Measure(changes["measure"]) if changes.get("measure") in ("in", "mm") else Measure(room.measure)
    readers = {
        "name": name_reader(120),
        "measure": measure_reader(),
        "ruler_step": step_reader(measure),
        "reading_step": step_reader(measure),
        "seam_allowance": allowance_reader(measure),
    }
    fields = apply_changes(room, readers, changes, seen, measure)
    if fields:
        room.save(update_fields=fields)
    return room
