"""Rows and typed fields to core values."""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any

from common.patches import Reader
from common.readers import length_reader, note_reader, one_of_reader
from piecing.errors import CountOutOfRange
from piecing.lengths import Length, Measure
from piecing.diagnosis.readings import PLAIN, ReadingKind, Reading

from .models import Measured

__all__ = ["reading_of", "reading_readers", "typed_reading"]

_SPOTS = ["", "start", "middle", "end"]
_SIGNED = re.compile(r"\s*([-\u2212+])\s*(.*)", re.S)


def reading_of(row: Measured) -> Reading:
    return Reading(
        ReadingKind(row.kind),
        None if ReadingKind(row.kind) in PLAIN else row.value,
        batch=row.batch,
        cell=row.cell,
        corner=row.corner,
        seam=row.seam,
        spot=row.spot,
        feature=row.feature,
        whole=row.whole,
        day=row.day,
        confirmed=row.confirmed,
        key=str(row.pk),
    )


def _signed(measure: Measure) -> Reader:
    """A length that may lie below zero: a tip cut off, a diagonal past its corner the other way."""
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

    return read


def _number(what: str) -> Reader:
    def read(value: Any) -> int:
        text = "-1" if value in (None, "") else str(value).strip()
        if not re.fullmatch(r"-1|[0-9]{1,4}", text):
            raise CountOutOfRange("Pick the {what} on the drawing again.", what=what)
        return int(text)

    return read


def _flag(value: Any) -> bool:
    return str(value).lower() in ("true", "1", "yes")


def _day(value: Any) -> str:
    text = "" if value is None else str(value).strip()
    if text and not re.fullmatch(r"\d{4}-\d{2}-\d{2}", text):
        raise CountOutOfRange("A day is written 2026-11-25.", given=text[:20])
    return text


def reading_readers(measure: Measure) -> dict[str, Reader]:
    return {
        "kind": one_of_reader([k.value for k in ReadingKind], "kind of reading"),
        "value": _signed(measure),
        "whole": _signed(measure),
        "batch": _number("kind of unit"),
        "cell": _number("unit"),
        "corner": note_reader(20),
        "seam": _number("seam"),
        "spot": one_of_reader(_SPOTS, "spot on a seam"),
        "feature": note_reader(120),
        "day": _day,
        "confirmed": _flag,
        "note": note_reader(200),
    }


def typed_reading(typed: Mapping[str, Any], measure: Measure) -> Reading:
    """A reading typed by hand, not kept. Raises core refusals."""
    wanted = {"kind": None, **typed}
    read = {f: reader(wanted[f]) for f, reader in reading_readers(measure).items() if f in wanted and f != "note"}
    return Reading(ReadingKind(read.pop("kind")), read.pop("value", None), **read)
