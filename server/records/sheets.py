"""Seam tests as CSV, both ways. The good lines go in, the broken ones are named by line and reason."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any
from uuid import uuid4

from api.csv_files import Imported, RefusedLine, csv_text, lines_of, safe, unsafe
from api.patches import apply_changes
from api.problems import Refused
from measuring.models import ReadingRow
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.errors import PiecingError
from piecing.lengths import Length, Measure, Style
from workrooms.models import Workroom
from workrooms.once import change

from .commands import new_row, room_left, settle, test_readers

__all__ = ["COLUMNS", "as_csv", "import_tests"]

COLUMNS = ("day", "machine", "kind", "guide", "cut", "middle", "whole", "stitching", "spot", "note")
"""``cut`` is how wide the strips of a test were to be, ``middle`` and ``whole`` what was read; ``stitching`` from the raw edge."""


def as_csv(rows: Iterable[ReadingRow], style: Style) -> str:
    """One line a test, the oldest first."""

    def size(value: Length | None) -> str:
        return "" if value is None else style.text(value)

    lines = []
    for r in rows:
        strip = r.kind == ReadingKind.STRIP_TEST.value
        machine = r.test_of.machine if r.test_of else ""
        sizes = (size(r.wanted), size(r.value), size(r.whole), "") if strip else ("", "", "", size(r.value))
        lines.append([r.day, safe(machine), r.kind, size(r.guide), *sizes, r.spot, safe(r.note)])
    return csv_text(COLUMNS, lines)


@change
def import_tests(room: Workroom, text: str) -> Imported:
    """Tests from a sheet, each line to the set-up of that machine's name, the one in use where none is named. Lines that cannot be
    taken are told with their reason; the others are taken."""
    style = Style(Measure(room.measure))
    rows: list[ReadingRow] = []
    by_name = {s.machine.casefold(): s for s in room.set_ups.filter(deleted_at=None).order_by("began")}
    current = room.set_ups.filter(deleted_at=None, in_use=True).first()
    refused: list[RefusedLine] = []
    known = set(
        ReadingRow.objects.filter(test_of__workroom=room, deleted_at=None).values_list(
            "test_of_id", "day", "kind", "value", "whole", "note"
        )
    )
    for number, line, cells in lines_of(text, COLUMNS, "day"):
        name = unsafe(cells.get("machine", "")).strip()
        machine = by_name.get(name.casefold()) if name else current
        if machine is None:
            refused.append(
                RefusedLine(
                    number,
                    line[:120],
                    "No machine of this name is set up here. Add it first, then take the lines again.",
                )
            )
            continue
        row = new_row(machine, uuid4())
        row.order += len(rows)
        try:
            apply_changes(row, test_readers(style.measure), _typed_test(cells), {}, style.measure)
            settle(row, machine)
        except Refused as found:
            refused.append(RefusedLine(number, line[:120], " ".join(e.said.text(style) for e in found.errors)))
            continue
        except PiecingError as found:
            refused.append(RefusedLine(number, line[:120], found.said.text(style)))
            continue
        like = (machine.pk, row.day, row.kind, row.value, row.whole, row.note)
        if like in known:
            refused.append(RefusedLine(number, line[:120], "This test is here already."))
            continue
        rows.append(row)
    room_left(room, style, len(rows))
    ReadingRow.objects.bulk_create(rows)
    return Imported(len(rows), tuple(refused))


def _typed_test(cells: dict[str, str]) -> dict[str, Any]:
    kind = cells.get("kind", "").strip().lower().replace(" ", "_").replace("-", "_")
    strip = kind == ReadingKind.STRIP_TEST.value or bool(cells.get("middle") or cells.get("whole"))
    wanted: dict[str, Any] = {
        "kind": ReadingKind.STRIP_TEST.value if strip else kind or ReadingKind.STITCH.value,
        "value": cells.get("middle" if strip else "stitching", ""),
        "whole": cells.get("whole", "") if strip else "",
        "wanted": cells.get("cut", "") if strip else "",
        "note": unsafe(cells.get("note", "")),
        "spot": "" if strip else cells.get("spot", "").strip().lower(),
    }
    for field in ("guide", "day"):
        if cells.get(field, "").strip():
            wanted[field] = cells[field]
    return wanted
