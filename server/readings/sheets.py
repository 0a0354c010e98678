"""Readings as CSV, both ways. The good lines go in, the broken ones are named by line and reason."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from uuid import uuid4

from django.db import transaction

from common.problems import Answer
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
MOST_LINES = 5_000
_FORMULA = ("=", "+", "-", "@", "\t", "\r")
_KIND_WORDS = {
    "width": ReadingKind.UNIT_WIDTH,
    "height": ReadingKind.UNIT_HEIGHT,
    "raw": ReadingKind.RAW_SIZE,
    "row": ReadingKind.ROW_LENGTH,
    "stitch": ReadingKind.STITCH_DISTANCE,
    "strip": ReadingKind.STRIP_TEST,
}


class SheetRefused(Answer):
    status = 400
    code = "sheet_refused"
    title = "These lines could not be taken"


@dataclass(frozen=True, slots=True)
class RefusedLine:
    line: int
    text: str
    reason: str


@dataclass(frozen=True, slots=True)
class Imported:
    added: int
    refused: tuple[RefusedLine, ...]


def _safe(text: str) -> str:
    """A spreadsheet runs cells that begin like a formula; a leading apostrophe keeps them text."""
    return f"'{text}" if text.startswith(_FORMULA) else text


def as_csv(rows: Iterable[ReadingRow], style: Style) -> str:
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(COLUMNS)
    for r in rows:
        whole = "" if r.whole is None else style.text(r.whole)
        writer.writerow([r.kind, style.text(r.value), r.row_units or "", whole, _safe(r.note)])
    return out.getvalue()


def _separator(first: str) -> str:
    return max(("\t", ";", ","), key=first.count) if any(s in first for s in "\t;,") else ","


def _cells(line: str, separator: str) -> list[str]:
    """The cells of one line; a line too wild for the csv reader is one cell, and refused as such later."""
    try:
        return [c.strip() for c in next(csv.reader([line], delimiter=separator))]
    except csv.Error:
        return [line]


def _lines(text: str) -> Iterator[tuple[int, str, dict[str, str]]]:
    """Line number, the line, its cells by column; a header may name the columns in any order."""
    plain = text.lstrip("\ufeff").replace("\r\n", "\n").replace("\r", "\n").split("\n")
    numbered = [(i, line) for i, line in enumerate(plain, 1) if line.strip()]
    if not numbered:
        return
    separator = _separator(numbered[0][1])
    columns: tuple[str, ...] = COLUMNS
    for at, (number, line) in enumerate(numbered):
        cells = _cells(line, separator)
        if at == 0 and "value" in [c.lower() for c in cells]:
            columns = tuple(c.lower() for c in cells)
            continue
        yield number, line, dict(zip(columns, cells, strict=False))


def _row(unit: PlannedUnit, cells: dict[str, str], style: Style, order: int) -> ReadingRow:
    kind = cells.get("kind", "").lower()
    note = cells.get("note", "")
    wanted = {
        "kind": _KIND_WORDS.get(kind, kind),
        "value": cells.get("value", ""),
        "row_units": cells.get("row_units", ""),
        "whole": cells.get("whole", ""),
        "note": note[1:] if note.startswith("'") and note[1:].startswith(_FORMULA) else note,
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
    for count, (number, line, cells) in enumerate(_lines(text), 1):
        if count > MOST_LINES:
            raise SheetRefused(f"More than {MOST_LINES:,} lines. Paste them in smaller parts; nothing was taken.")
        try:
            good.append(_row(unit, cells, style, order + len(good)))
        except PiecingError as refusal:
            refused.append(RefusedLine(number, line[:120], refusal.said.text(style)))
    ReadingRow.objects.bulk_create(good)
    return Imported(len(good), tuple(refused))
