"""What a field takes: typed text to exact values, each refusal in the core's words."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from common.patches import Reader
from piecing.errors import CountOutOfRange, LengthNotUnderstood, UnknownChoice
from piecing.lengths import Length, Measure, parse_length, parse_step
from piecing.planning import MOST_UNITS

from .models import SCHOOLS, SIZE_BASES, VALUES

__all__ = ["fabric_readers", "project_readers", "unit_readers"]


def _length(measure: Measure) -> Reader:
    return lambda v: parse_length(_text(v), measure)


def _maybe_length(measure: Measure) -> Reader:
    return lambda v: None if v is None or not _text(v).strip() else parse_length(_text(v), measure)


def _text(value: Any) -> str:
    if not isinstance(value, str):
        raise LengthNotUnderstood(str(value), "lengths are sent as text, never as numbers.")
    return value


def _name(longest: int) -> Reader:
    def read(value: Any) -> str:
        name = re.sub(r"\s+", " ", str(value or "")).strip()[:longest]
        if not name:
            raise UnknownChoice("A name needs at least one letter or figure.")
        return name

    return read


def _one_of(choices: list[tuple[str, str]], what: str) -> Reader:
    known = [c for c, _ in choices]

    def read(value: Any) -> str:
        if value not in known:
            raise UnknownChoice(
                "“{given}” is no {what}. Choose one of: {known}.",
                given=str(value)[:40],
                what=what,
                known=", ".join(known),
            )
        return str(value)

    return read


def _whole(most: int, what: str) -> Reader:
    def read(value: Any) -> int:
        if isinstance(value, bool) or not re.fullmatch(r"\d{1,6}", str(value).strip()) or not 1 <= int(value) <= most:
            raise CountOutOfRange("{what} is a whole number from 1 to {most}.", what=what, most=most)
        return int(value)

    return read


def _colour(value: Any) -> str:
    if not re.fullmatch(r"#[0-9a-fA-F]{6}", str(value)):
        raise UnknownChoice("A colour is written like #1d4e89.")
    return str(value).lower()


def project_readers(measure: Measure) -> dict[str, Reader]:
    step: Callable[[Any], Length] = lambda v: parse_step(_text(v), measure)  # noqa: E731
    return {
        "name": _name(120),
        "measure": _one_of([(m.value, "") for m in Measure], "measure"),
        "seam_allowance": _length(measure),
        "stitch": _maybe_length(measure),
        "fold": _length(measure),
        "ruler_step": step,
        "reading_step": step,
    }


def unit_readers(measure: Measure) -> dict[str, Reader]:
    return {
        "size_basis": _one_of(SIZE_BASES, "way of giving the size"),
        "finished": _length(measure),
        "block_finished": _length(measure),
        "units_across": _whole(100, "Units across"),
        "count": _whole(MOST_UNITS, "The number of units"),
        "school": _one_of(SCHOOLS, "school"),
        "own_margin": _maybe_length(measure),
        "cut": _maybe_length(measure),
    }


def fabric_readers() -> dict[str, Reader]:
    return {"name": _name(80), "colour": _colour, "value": _one_of(VALUES, "value")}
