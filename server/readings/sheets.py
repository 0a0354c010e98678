"""Readings as CSV, both ways. The good lines go in, the broken ones are named by line and reason."""

from __future__ import annotations

from collections.abc import Iterable
from uuid import uuid4

from django.db import transaction

from common.sheets import Imported, RefusedLine, lines_of, safe, unsafe, written
from piecing.diagnosis import ReadingKind
from piecing.errors import CountOutOfRange, PiecingError
from piecing.lengths import Style
from projects.models import PlannedUnit
from projects.translate import style_of

from .commands import next_order, reading_readers
from .models import ReadingRow
from .translate import reading_of

__all__ = ["COLUMNS", "Imported", "RefusedLine", "as_csv", "import_csv"]

COLUMNS = ("kind", "value", "row_units", "whole", "note")
_KIND_WORDS = {
    "width": ReadingKind.UNIT_WIDTH,
    "height": ReadingKind.UNIT_HEIGHT,
    "raw": ReadingKind.RAW_SIZE,
    "row": ReadingKind.ROW_LENGTH,
    "stitch": ReadingKind.STITCH_DISTANCE,
    "strip": ReadingKind.STRIP_TEST,
}


def as_csv(rows: Iterable[ReadingRow], style: Style) -> str:
    cells = (
        [r.kind, style.text(r.value), r.row_units or "", "" if r.whole is None else style.text(r.whole), safe(r.note)]
        for r in rows
    )
    return written(COLUMNS, cells)


def _row(unit: PlannedUnit, cells: dict[str, str], style: Style, order: int) -> ReadingRow:
    kind = cells.get("kind", "").lower()
    note = cells.get("note", "")
    wanted = {
        "kind": _KIND_WORDS.get(kind, kind),
        "value": cells.get("value", ""),
        "row_units": cells.get("row_units", ""),
        "whole": cells.get("whole", ""),
        "note": unsafe(note),
    }
    row = ReadingRow(pk=uuid4(), unit=unit, order=order)
    for field, read in reading_readers(style.measure).items():
        try:
            setattr(row, field, read(wanted[field]))
        except PiecingError as refusal:
            raise refusal.at(field) from None
    if row.row_units is not None and row.kind != ReadingKind.ROW_LENGTH:
        raise CountOutOfRange(
            "Only a row has a number of units. If this is a decimal comma, put the value in quotes or part the cells "
            "with semicolons.",
            field="row_units",
        )
    reading_of(row)
    return row


@transaction.atomic
def import_csv(unit: PlannedUnit, text: str) -> Imported:
    """Take the lines that can be read; nothing already kept is touched.

    Raises ``SheetRefused`` for more than 5,000 lines.
    """
    style = style_of(unit.project)
    order = next_order(unit)
    good: list[ReadingRow] = []
    refused: list[RefusedLine] = []
    for number, line, cells in lines_of(text, COLUMNS, "value"):
        try:
            good.append(_row(unit, cells, style, order + len(good)))
        except PiecingError as refusal:
            refused.append(RefusedLine(number, line[:120], refusal.said.text(style)))
    ReadingRow.objects.bulk_create(good)
    return Imported(len(good), tuple(refused))
