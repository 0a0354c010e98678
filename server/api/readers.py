"""What a field takes: typed text to exact values, each refusal in the core's words.

Every reader is given whatever JSON brought and answers a value or raises a ``PiecingError``.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Any

from rest_framework import serializers

from piecing.errors import CountOutOfRange, LengthError, LengthNotUnderstood, UnknownChoice
from piecing.lengths import Length, Measure, parse_length, parse_step
from piecing.planning.checks import check_allowance
from piecing.typed_text import can_be_seen, one_line
from piecing.units.method import Cuts

from .patches import Reader

_MOST_CUTS = 12
_MOST_PARTS = 8

__all__ = [
    "allowance_reader",
    "cuts_reader",
    "length_reader",
    "maybe_length_reader",
    "maybe_whole_reader",
    "name_reader",
    "note_reader",
    "one_of_reader",
    "part_fabrics_reader",
    "step_reader",
    "whole_reader",
    "yes_no_reader",
]


def _text(value: Any) -> str:
    if not isinstance(value, str):
        raise LengthNotUnderstood(str(value), "lengths are sent as text, never as numbers.")
    return value


def length_reader(measure: Measure) -> Reader:
    return Reader(lambda v: parse_length(_text(v), measure))


def maybe_length_reader(measure: Measure) -> Reader:
    """A length, or None for nothing typed."""
    return Reader(lambda v: None if v is None or not _text(v).strip() else parse_length(_text(v), measure))


def step_reader(measure: Measure) -> Reader:
    return Reader(lambda v: parse_step(_text(v), measure))


def allowance_reader(measure: Measure) -> Reader:
    def read(value: Any) -> Length:
        allowance = parse_length(_text(value), measure)
        check_allowance(allowance)
        return allowance

    return Reader(read)


def note_reader(longest: int) -> Reader:
    """One line of text, perhaps empty; what cannot be seen, and what turns the direction of writing, becomes a space."""

    def read(value: Any) -> str:
        if value is not None and not isinstance(value, str):
            raise UnknownChoice("This is sent as text.")
        return one_line(value or "", longest)

    return Reader(read)


def name_reader(longest: int) -> Reader:
    plain = note_reader(longest)

    def read(value: Any) -> str:
        name: str = plain(value)
        if not can_be_seen(name):
            raise UnknownChoice("A name needs at least one letter or figure.")
        return name

    return Reader(read)


def one_of_reader(choices: Sequence[str | tuple[str, str]], what: str) -> Reader:
    """``choices`` as a field of the same name has them, values alone or with their words: so that both are one choice in the API."""
    known = [c if isinstance(c, str) else c[0] for c in choices]

    def read(value: Any) -> str:
        if value not in known:
            raise UnknownChoice(
                "“{given}” is no {what}. Choose one of: {known}.",
                given=str(value)[:40],
                what=what,
                known=", ".join(known),
            )
        return str(value)

    return Reader(read, lambda: serializers.ChoiceField(choices=choices))


def whole_reader(most: int, what: str, *, least: int = 1) -> Reader:
    def read(value: Any) -> int:
        text = "" if isinstance(value, bool) else str(value).strip()
        if not re.fullmatch(r"[0-9]{1,6}", text) or not least <= int(text) <= most:
            raise CountOutOfRange("{what} is a whole number from {least} to {most}.", what=what, least=least, most=most)
        return int(text)

    return Reader(read)


def maybe_whole_reader(most: int, what: str) -> Reader:
    whole = whole_reader(most, what)
    return Reader(lambda v: None if v in (None, "") else whole(v))


def _yes_no(value: Any) -> bool:
    if value in (True, "true", "yes", "1"):
        return True
    if value in (False, "false", "no", "0", ""):
        return False
    raise UnknownChoice("Answer yes or no.")


yes_no_reader = Reader(_yes_no, serializers.BooleanField)


def cuts_reader(measure: Measure) -> Reader:
    """Sizes by name, such as {"large": "6 3/4"}; empty ones are left to the school."""

    def read(value: Any) -> Cuts:
        if not isinstance(value, dict) or len(value) > _MOST_CUTS:
            raise LengthNotUnderstood(str(value), "cut sizes are given by name.")
        sizes = {}
        for name, text in value.items():
            if not re.fullmatch(r"[a-z_0-9]{1,24}", name):
                raise UnknownChoice("“{name}” is no piece of this unit.", name=name[:40])
            try:
                if text is not None and _text(text).strip():
                    sizes[name] = parse_length(_text(text), measure)
            except LengthError as refusal:
                raise refusal.at(f"cuts.{name}") from None
        return Cuts(sizes.items())

    return Reader(read, lambda: serializers.DictField(child=serializers.CharField(allow_blank=True, allow_null=True)))


def _part_fabrics(value: Any) -> list[str]:
    """Fabric roles of a unit's parts, as letters."""
    roles = list(value) if isinstance(value, str | list | tuple) else []
    if not 1 <= len(roles) <= _MOST_PARTS or not all(isinstance(r, str) and re.fullmatch("[a-z]", r) for r in roles):
        raise UnknownChoice("Give each part of the unit one of the project's fabrics.")
    return roles


part_fabrics_reader = Reader(_part_fabrics, lambda: serializers.ListField(child=serializers.CharField(max_length=1)))
