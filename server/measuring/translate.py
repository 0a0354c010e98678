"""Rows and typed fields to core readings."""

from __future__ import annotations

import re
from typing import Any

from api.patches import Reader
from api.readers import length_reader, note_reader, one_of_reader
from piecing.diagnosis.reading_kinds import PLAIN, ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.errors import CountOutOfRange
from piecing.lengths import Length, Measure
from setups.commands import day_reader

from .models import KINDS, ReadingRow

__all__ = ["PLACES", "SPOTS", "reading_of", "reading_readers", "signed_reader", "typed_readers"]

SPOTS = ["", "start", "middle", "end"]
_SIGNED = re.compile(r"\s*([-\u2212+])\s*(.*)", re.S)
PLACES = ("batch", "corner", "seam", "spot", "feature", "day", "count")
"""Fields of a row that the core knows by the same name; ``at_unit`` is its ``unit``."""


def reading_of(row: ReadingRow) -> Reading:
    """Raises what the core refuses."""
    kind = ReadingKind(row.kind)
    return Reading(
        kind,
        None if kind in PLAIN else row.value,
        unit=row.at_unit,
        whole=row.whole,
        mark=row.mark,
        confirmed=row.confirmed,
        key=str(row.pk),
        **{f: getattr(row, f) for f in PLACES},
    )


def signed_reader(measure: Measure) -> Reader:
    """A length that may lie on either side; a sign says which where no side is picked."""
    plain = length_reader(measure)

    def read(value: Any) -> Length | None:
        text = "" if value is None else str(value).strip()
        if not text:
            return None
        if re.fullmatch(r"[-\u2212+]?\s*0(\s*(\"|in|mm))?", text):
            return Length.of(0)
        found = _SIGNED.match(text)
        length: Length = plain(found.group(2) if found else text)
        return -length if found and found.group(1) != "+" else length

    return Reader(read)


def _count(value: Any) -> int:
    text = "" if value is None else str(value).strip()
    if not text:
        return 0
    if not re.fullmatch(r"[0-9]{1,4}", text):
        raise CountOutOfRange("The number of units is a whole number, such as 4.", given=text[:20])
    return int(text)


def _place(value: Any) -> int:
    text = "" if value is None else str(value).strip()
    if not text:
        return 0
    if not re.fullmatch(r"[0-9]{1,4}", text):
        raise CountOutOfRange("The number of a lot, or of a unit in it, is a whole number, such as 4.", given=text[:20])
    return int(text)


def _flag(value: Any) -> bool:
    return str(value).lower() in ("true", "1", "yes")


def _day(value: Any) -> str:
    text = "" if value is None else str(value).strip()
    return day_reader()(text).isoformat() if text else ""


def reading_readers(measure: Measure) -> dict[str, Reader]:
    """One for each field as it is typed."""
    return {
        "kind": one_of_reader(KINDS, "kind of reading"),
        "value": signed_reader(measure),
        "whole": signed_reader(measure),
        "count": Reader(_count),
        "batch": note_reader(80),
        "at_unit": note_reader(16),
        "corner": note_reader(20),
        "seam": note_reader(120),
        "spot": one_of_reader(SPOTS, "spot on a seam"),
        "feature": note_reader(160),
        "day": Reader(_day),
        "lot": Reader(_place),
        "nth": Reader(_place),
        "confirmed": Reader(_flag),
        "note": note_reader(200),
    }


def typed_readers(measure: Measure) -> dict[str, Reader]:
    """Those of a reading that nothing keeps: it is of no lot, and has no note."""
    return {f: reader for f, reader in reading_readers(measure).items() if f not in ("lot", "nth", "note")}
