"""Readings as CSV, both ways. The good lines go in, the broken ones are named by line and reason."""

from __future__ import annotations

from collections.abc import Iterable
from uuid import uuid4

from django.db.models import Max

from api.csv_files import Imported, RefusedLine, csv_text, lines_of, safe, unsafe
from measuring.models import ReadingRow
from measuring.translate import reading_readers
from piecing.diagnosis.names import landings
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.errors import CountOutOfRange, PiecingError
from piecing.lengths import Length, Style
from projects.commands import touch
from workrooms.once import change

from .commands import MOST, settle
from .subjects import Subject

__all__ = ["COLUMNS", "as_csv", "import_csv"]

COLUMNS = (
    "kind",
    "value",
    "whole",
    "count",
    "batch",
    "at_unit",
    "corner",
    "seam",
    "spot",
    "feature",
    "lands",
    "day",
    "note",
)
_TEXTS = ("batch", "at_unit", "corner", "seam", "spot", "feature", "day", "note")
_WORDS = {"raw": "raw_width", "strip": "strip_test", "raw_size": "raw_width", "unit_width": "width", "unit_height": "height",
          "row_length": "row", "stitch_distance": "stitch"}  # fmt: skip
"""Short words, and the names that earlier sheets were written with."""


def as_csv(rows: Iterable[ReadingRow], style: Style) -> str:
    """The side stands in its own column: a sign at the head of a cell would be taken for a formula."""

    def size(value: Length | None) -> str:
        return "" if value is None else style.text(abs(value))

    def lands(row: ReadingRow) -> str:
        if row.value is None or not row.value.sign:
            return ""
        return next((x.code for x in landings(ReadingKind(row.kind)) if x.sign == row.value.sign), "")

    cells = (
        [
            r.kind,
            size(r.value),
            size(r.whole),
            r.count or "",
            *(safe(getattr(r, f)) for f in _TEXTS[:6]),
            lands(r),
            r.day,
            safe(r.note),
        ]
        for r in rows
    )
    return csv_text(COLUMNS, cells)


def import_csv(subject: Subject, text: str) -> Imported:
    """Take the lines that can be read and have a place here; nothing already kept is touched.

    Read before anything is written, so that nobody waits meanwhile. Raises ``SheetRefused`` for more lines than a sheet
    may have.
    """
    style, held = subject.style, ReadingRow.objects.filter(project=subject.project)
    there = held.filter(deleted_at=None).count()
    good: list[ReadingRow] = []
    refused: list[RefusedLine] = []
    for number, line, cells in lines_of(text, COLUMNS, "value"):
        try:
            if there + len(good) >= MOST:
                raise CountOutOfRange("A project holds {most} readings at most.", most=MOST)
            good.append(_row(subject, cells, style, len(good)))
        except PiecingError as refusal:
            refused.append(RefusedLine(number, line[:120], refusal.said.text(style)))
    _keep(subject, good)
    return Imported(len(good), tuple(refused))


@change
def _keep(subject: Subject, rows: list[ReadingRow]) -> None:
    last = ReadingRow.objects.filter(project=subject.project).aggregate(last=Max("order"))["last"] or 0
    for row in rows:
        row.order += last + 1
    ReadingRow.objects.bulk_create(rows)
    touch(subject.project)


def _row(subject: Subject, cells: dict[str, str], style: Style, order: int) -> ReadingRow:
    kind = cells.get("kind", "").strip().lower()
    typed: dict[str, str] = {**cells, "kind": _WORDS.get(kind, kind)}
    typed |= {f: unsafe(cells.get(f, "")) for f in _TEXTS}
    typed["count"] = cells.get("count") or cells.get("row_units", "")
    row = ReadingRow(pk=uuid4(), project=subject.project, block=subject.block, unit=subject.unit, order=order)
    for field, read in reading_readers(style.measure).items():
        if field in COLUMNS:
            try:
                setattr(row, field, read(typed.get(field, "")))
            except PiecingError as refusal:
                raise refusal.at(field) from None
    if row.count and row.kind != ReadingKind.ROW:
        raise CountOutOfRange(
            "Only a row has a number of units. If this is a decimal comma, put the value in quotes or part the cells "
            "with semicolons.",
            field="count",
        )
    settle(subject, row, cells.get("lands", "").strip().lower())
    return row
