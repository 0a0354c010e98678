"""How core values cross to the browser: lengths as exact strings with their text, sentences rendered.

A serializer's context carries ``style`` (see ``piecing.lengths.Style``).
"""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterable, Mapping
from functools import cached_property, lru_cache
from operator import attrgetter
from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from piecing.geometry.drawing import Drawing, DrawnMark
from piecing.lengths import Area, Length, Style
from piecing.messages import Message

__all__ = [
    "AreaField",
    "DrawingField",
    "DrawingSerializer",
    "FlatSerializer",
    "LengthAnswerField",
    "LengthSerializer",
    "LengthsField",
    "MessageField",
    "json_field_of",
    "length_out",
    "told_by",
]


class _Kept(threading.local):
    def __init__(self) -> None:
        self.of: dict[type, tuple[serializers.BaseSerializer[Any], dict[str, Any]]] = {}


_kept = _Kept()


def told_by(kind: type[serializers.BaseSerializer[Any]], value: Any, context: Mapping[str, Any]) -> Any:
    """What a serializer tells of a value. One of each kind serves a thread for good: a new one copies all its fields first, which
    takes longer than to tell most values."""
    if kind not in _kept.of:
        held: dict[str, Any] = {}
        _kept.of[kind] = kind(context=held), held
    serializer, held = _kept.of[kind]
    held.update(context)
    try:
        return serializer.to_representation(value)
    finally:
        held.clear()


class LengthSerializer(serializers.Serializer[Any]):
    """``exact``: inches, such as 31/8 or 9/2 - 1/4*sqrt2. ``text`` can be typed back, ``pretty`` is for reading.

    ``about`` says that the text stands for a neighbour of the exact length.
    """

    exact = serializers.CharField()
    text = serializers.CharField()
    pretty = serializers.CharField()
    about = serializers.BooleanField()


def length_out(length: Length, style: Style) -> dict[str, Any]:
    exact, text, pretty, about = _length_words(length, style)
    return {"exact": exact, "text": text, "pretty": pretty, "about": about}


@lru_cache(maxsize=20_000)
def _length_words(length: Length, style: Style) -> tuple[str, str, str, bool]:
    """The same lengths are told again and again: sizes, readings, marks of a ruler."""
    return length.exact, style.text(length), style.pretty(length), not style.shows_exactly(length)


class _Styled(serializers.Field):  # type: ignore[type-arg]
    def __init__(self, **kwargs: Any) -> None:
        kwargs["read_only"] = True
        super().__init__(**kwargs)

    @property
    def setting(self) -> Style:
        style: Style = self.context.get("style") or Style()
        return style


@extend_schema_field(LengthSerializer)
class LengthAnswerField(_Styled):
    def to_representation(self, value: Length) -> dict[str, Any]:
        return length_out(value, self.setting)


@extend_schema_field({"type": "object", "additionalProperties": {"$ref": "#/components/schemas/Length"}})
class LengthsField(_Styled):
    """Lengths by name."""

    def to_representation(self, value: Mapping[str, Length]) -> dict[str, Any]:
        return {name: length_out(size, self.setting) for name, size in value.items()}


@extend_schema_field(str)
class MessageField(_Styled):
    def to_representation(self, value: Message) -> str:
        return value.text(self.setting)


@extend_schema_field(str)
class AreaField(_Styled):
    def to_representation(self, value: Area) -> str:
        return value.set_in(self.setting)


class FlatSerializer(serializers.Serializer[Any]):
    """Fields that are attributes of the value or methods here, read without more ado: quick where there are hundreds of values."""

    @cached_property
    def _length_words(self) -> list[tuple[str, Callable[[Any], Any]]]:
        return [(name, self._teller(f, name)) for name, f in self.fields.items()]

    @staticmethod
    def _teller(field: serializers.Field[Any, Any, Any, Any], name: str) -> Callable[[Any], Any]:
        if isinstance(field, serializers.SerializerMethodField):
            return field.to_representation
        read = attrgetter(field.source or name)
        return lambda value: field.to_representation(read(value))

    def to_representation(self, value: Any) -> dict[str, Any]:
        return {name: told(value) for name, told in self._length_words}


class MarkSerializer(serializers.Serializer[Any]):
    """One shape: ``d`` is an SVG path in inches."""

    role = serializers.CharField()
    d = serializers.CharField()
    fabric = serializers.CharField(allow_blank=True)


class DimensionSerializer(serializers.Serializer[Any]):
    start = serializers.ListField(child=serializers.FloatField(), min_length=2, max_length=2)
    end = serializers.ListField(child=serializers.FloatField(), min_length=2, max_length=2)
    at = serializers.ListField(child=serializers.FloatField(), min_length=2, max_length=2)
    label = serializers.CharField()  # type: ignore[assignment]


class StampSerializer(serializers.Serializer[Any]):
    """Marks about a middle, those of one fabric in one path, set down ``at`` each point and turned by ``turn`` degrees."""

    marks = MarkSerializer(many=True)
    at = serializers.ListField(child=serializers.ListField(child=serializers.FloatField(), min_length=2, max_length=2))
    turn = serializers.FloatField()


class DrawingSerializer(serializers.Serializer[Any]):
    """A picture in inches, y downward; ``window`` is left, top, width, height. ``stamps`` lie over ``marks``."""

    window = serializers.ListField(child=serializers.FloatField(), min_length=4, max_length=4)
    marks = MarkSerializer(many=True)
    dimensions = DimensionSerializer(many=True)
    stamps = StampSerializer(many=True)
    alt = serializers.CharField()


def _path(mark: DrawnMark) -> str:
    body = "L".join(f"{x:.4f},{y:.4f}" for x, y in mark.points)
    return f"M{body}{'Z' if mark.closed else ''}"


@extend_schema_field(DrawingSerializer)
class DrawingField(_Styled):
    def to_representation(self, value: Drawing) -> dict[str, Any]:
        return {
            "window": [round(v, 4) for v in value.window],
            "marks": [{"role": m.role, "d": _path(m), "fabric": m.fabric} for m in value.marks],
            "dimensions": [
                {"start": d.start, "end": d.end, "at": d.at, "label": d.label.text(self.setting)}
                for d in value.dimensions
            ],
            "stamps": [
                {
                    "marks": _together(s.marks),
                    "at": [[round(x, 4), round(y, 4)] for x, y in s.at],
                    "turn": -s.turn,
                }
                for s in value.stamps
            ],
            "alt": value.alt.text(self.setting),
        }


_LONG = 1_000
"""Marks from which a stamp is written anew each time, so that what is remembered stays small."""


def _together(marks: tuple[DrawnMark, ...]) -> list[dict[str, str]]:
    """Those of one role and fabric as one path: they lie beside each other. A block and a border's strip stay as they are while
    what lies round them changes."""
    return _paths_by_role(marks) if len(marks) > _LONG else _written_before(marks)


def _paths_by_role(marks: Iterable[DrawnMark]) -> list[dict[str, str]]:
    paths: dict[tuple[str, str], list[str]] = {}
    for m in marks:
        paths.setdefault((m.role, m.fabric), []).append(_path(m))
    return [{"role": role, "d": "".join(d), "fabric": fabric} for (role, fabric), d in paths.items()]


_written_before = lru_cache(maxsize=128)(_paths_by_role)


def json_field_of(wire: type[serializers.Serializer[Any]], *, many: bool = False) -> type[serializers.JSONField]:
    """A field that is taken as it comes and read by the core, which says what is wrong with it in its own words; the
    schema, and with it the browser's types, describe it as ``wire``."""
    return extend_schema_field(wire(many=many))(type(f"Described{wire.__name__}", (serializers.JSONField,), {}))
