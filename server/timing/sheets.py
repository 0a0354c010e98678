"""Minutes as CSV, both ways. The good lines go in, the broken ones are named by line and reason."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from api.csv_files import Imported, RefusedLine, csv_text, lines_of, safe, unsafe
from api.problems import Refused
from piecing.lengths import Measure, Style
from workrooms.models import Workroom
from workrooms.once import change

from .commands import put_time

__all__ = ["COLUMNS", "as_csv", "import_times"]

COLUMNS = ("day", "project", "stage", "minutes", "count", "note")
"""``count`` is how many pieces, units or blocks were done in the ``minutes``."""


def as_csv(room: Workroom) -> str:
    """One line a stretch of work, the oldest first; one of which nobody knows how long it was is left out."""
    rows = room.times.filter(deleted_at=None, minutes__isnull=False).select_related("project").order_by("began")
    lines = [
        [r.day, safe(r.project.name), r.stage, f"{r.minutes:.1f}", r.count or "", safe(r.note)]
        for r in rows
        if r.minutes is not None
    ]
    return csv_text(COLUMNS, lines)


@change
def import_times(room: Workroom, text: str) -> Imported:
    """Minutes from a sheet, each line to the project of that name. Lines that cannot be taken, and those that are here already, are told
    with their reason; the others are taken."""
    style = Style(Measure(room.measure))
    by_name = {p.name.casefold(): p for p in room.projects.filter(deleted_at=None)}
    known = {
        (r.day, r.project_id, r.stage, round(r.minutes or 0.0, 1), r.count) for r in room.times.filter(deleted_at=None)
    }
    refused: list[RefusedLine] = []
    added = 0
    for number, line, cells in lines_of(text, COLUMNS, "day"):
        project = by_name.get(unsafe(cells.get("project", "")).strip().casefold())
        if project is None:
            refused.append(RefusedLine(number, line[:120], "No project of this name is here. Begin it first."))
            continue
        changes: dict[str, Any] = {
            "stage": cells.get("stage", "").strip().lower(),
            "minutes": cells.get("minutes", ""),
            "count": cells.get("count", "") or None,
            "note": unsafe(cells.get("note", "")),
        }
        if cells.get("day", "").strip():
            changes["day"] = cells["day"]
        key = uuid4()
        try:
            put_time(room, key, changes, {}, project.pk)
        except Refused as found:
            refused.append(RefusedLine(number, line[:120], " ".join(e.said.text(style) for e in found.errors)))
            continue
        row = room.times.get(pk=key)
        like = (row.day, row.project_id, row.stage, round(row.minutes or 0.0, 1), row.count)
        if like in known:
            row.delete()
            refused.append(RefusedLine(number, line[:120], "These minutes are here already."))
            continue
        added += 1
    return Imported(added, tuple(refused))
