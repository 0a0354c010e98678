"""Reading rows to core readings."""

from __future__ import annotations

from piecing.diagnosis import Reading, ReadingKind

from .models import ReadingRow

__all__ = ["reading_of"]


def reading_of(row: ReadingRow) -> Reading:
    return Reading(ReadingKind(row.kind), row.value, row.row_units, row.whole, key=str(row.pk))
