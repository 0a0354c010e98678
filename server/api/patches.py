"""Saving as you go without overwriting what another window saved.

A change names the fields it sets and what its writer last saw in them. A field that holds something
else by now is a conflict, said field by field; every other field goes in. See docs/decisions/0002.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from rest_framework import serializers

from piecing.errors import PiecingError
from piecing.lengths import Length, Measure, Style

from .problems import ChangedElsewhere, Refused

__all__ = ["ChangeSerializer", "Reader", "Wire", "apply_changes", "change_of", "patch_of", "read_values", "text_wire"]

Wire = Callable[[], "serializers.Field[Any, Any, Any, Any]"]


def text_wire() -> serializers.Field[Any, Any, Any, Any]:
    return serializers.CharField(allow_blank=True, allow_null=True)


@dataclass(frozen=True, slots=True)
class Reader:
    """What a field takes: ``read`` makes a value of what was typed or raises a ``PiecingError``; ``wire`` says how it is sent,
    for the schema, the browser's types and forms. A row's readers by field are the one list of its fields."""

    read: Callable[[Any], Any]
    wire: Wire = text_wire

    def __call__(self, value: Any) -> Any:
        return self.read(value)


class ChangeSerializer(serializers.Serializer[Any]):
    """``changes``: field to new value as typed. ``seen``: what the writer last saw in those fields."""

    changes = serializers.DictField(child=serializers.JSONField(allow_null=True))
    seen = serializers.DictField(child=serializers.JSONField(allow_null=True), required=False, default=dict)


def patch_of(name: str, readers: Mapping[str, Reader]) -> type[serializers.Serializer[Any]]:
    """A serializer that names every field a row takes, each of them optional."""

    def get_fields(_self: object) -> dict[str, serializers.Field[Any, Any, Any, Any]]:
        fields = {field: reader.wire() for field, reader in readers.items()}
        for field in fields.values():
            field.required = False
        return fields

    return type(f"{name}PatchSerializer", (serializers.Serializer,), {"get_fields": get_fields})


def change_of(
    name: str, readers: Mapping[str, Reader], **more: serializers.Field[Any, Any, Any, Any]
) -> type[serializers.Serializer[Any]]:
    """A change of such a row as it is sent: the fields it sets, and what its writer last saw in them."""
    patch = patch_of(name, readers)
    fields = {"changes": patch(), "seen": patch(), **more}
    return type(f"{name}ChangeSerializer", (serializers.Serializer,), fields)


def read_values(readers: Mapping[str, Reader], values: Mapping[str, Any], style: Style) -> dict[str, Any]:
    """What was typed, of those fields that have a reader. Raises ``Refused``, each refusal at its field."""
    read: dict[str, Any] = {}
    refusals: list[PiecingError] = []
    for field, value in values.items():
        if field not in readers:
            continue
        try:
            read[field] = readers[field](value)
        except PiecingError as refusal:
            refusals.append(refusal.at(field))
    if refusals:
        raise Refused(refusals, style)
    return read


def _text_of(value: Any, style: Style) -> str:
    if isinstance(value, Length):
        return style.text(value)
    if isinstance(value, Mapping) and "layout" in value:
        return " / ".join(map(str, value["layout"]))
    if isinstance(value, Mapping):
        return ", ".join(f"{name} {_text_of(size, style)}" for name, size in value.items())
    if isinstance(value, list | tuple):
        return ", ".join(_text_of(v, style) for v in value)
    return "" if value is None else str(value)


def apply_changes(
    row: object,
    readers: Mapping[str, Reader],
    changes: Mapping[str, Any],
    seen: Mapping[str, Any],
    measure: Measure,
) -> list[str]:
    """Set ``changes`` on ``row`` (not saved); returns the fields set.

    Texts are read, and refusals said, in ``measure``. Raises ``Refused`` for values that cannot be read, ``ChangedElsewhere`` (naming what is kept here) when a
    field holds neither what was seen nor what is wanted.
    """
    style = Style(measure)
    wanted = read_values(readers, changes, style)
    before = read_values(readers, {k: v for k, v in seen.items() if k in wanted}, style)
    clashes = {
        f: _text_of(getattr(row, f), style) for f, old in before.items() if getattr(row, f) not in (old, wanted[f])
    }
    if clashes:
        raise ChangedElsewhere(
            "Another window changed this since it was read here. Choose which to keep; nothing was overwritten.",
            clashes,
        )
    for field, value in wanted.items():
        setattr(row, field, value)
    return list(wanted)
