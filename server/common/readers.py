"""What a field takes: typed text to exact values, each refusal in the core's words.

Every reader is given whatever JSON brought and answers a value or raises a ``PiecingError``.
"""

from __future__ import annotations

import re
from typing import Any

from piecing.errors import CountOutOfRange, LengthNotUnderstood, UnknownChoice
from piecing.lengths import Length, Measure, parse_length, parse_step
from piecing.planning import check_allowance

from .patches import Reader

__all__ = [
    "allowance_reader",
    "length_reader",
    "maybe_length_reader",
    "measure_reader",
    "name_reader",
    "note_reader",
    "one_of_reader",
    "step_reader",
    "whole_reader",
]


def _text(value: Any) -> str:
    if not isinstance(value, str):
        raise LengthNotUnderstood(str(value), "lengths are sent as text, never as numbers.")
    return value


def length_reader(measure: Measure) -> Reader:
    return lambda v: parse_length(_text(v), measure)


def maybe_length_reader(measure: Measure) -> Reader:
    """A length, or None for nothing typed."""
    return lambda v: None if v is None or not _text(v).strip() else parse_length(_text(v), measure)


def step_reader(measure: Measure) -> Reader:
    return lambda v: parse_step(_text(v), measure)


def allowance_reader(measure: Measure) -> Reader:
    def read(value: Any) -> Length:
        allowance = parse_length(_text(value), measure)
        check_allowance(allowance)
        return allowance

    return read


def note_reader(longest: int) -> Reader:
    """One line of text, perhaps empty; control characters, which no person types, become spaces."""
    return lambda v: re.sub(r"[\s\x00-\x1f\x7f]+", " ", str(v or "")).strip()[:longest]


def name_reader(longest: int) -> Reader:
    plain = note_reader(longest)

    def read(value: Any) -> str:
        name: str = plain(value)
        if not name:
            raise UnknownChoice("A name needs at least one letter or figure.")
        return name

    return read


def one_of_reader(known: list[str], what: str) -> Reader:
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


def measure_reader() -> Reader:
    return one_of_reader([m.value for m in Measure], "measure")


def whole_reader(most: int, what: str) -> Reader:
    def read(value: Any) -> int:
        text = "" if isinstance(value, bool) else str(value).strip()
        if not re.fullmatch(r"[0-9]{1,6}", text) or not 1 <= int(text) <= most:
            raise CountOutOfRange("{what} is a whole number from 1 to {most}.", what=what, most=most)
        return int(text)

    return read
