"""The shapes in which blocks and changes of them are sent, for the schema and the browser's types. What they may hold is
read, and refused in words, by ``piecing.blocks.file_format`` and ``edits``."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.wire import json_field_of
from piecing.blocks.editing import Symmetry
from piecing.quilts.pieced import RowFit, Runs

from .edits import EDITS

__all__ = [
    "ColourwayWire",
    "ContentWire",
    "EditField",
    "PatternField",
    "PatternWire",
    "PiecedWire",
    "PressingField",
    "WishesWire",
]

_SHARE = {"oneOf": [{"type": "integer"}, {"type": "string"}], "description": "A share, such as 1 or 3/2."}
_FABRICS = {
    "oneOf": [
        {"type": "string"},
        {"type": "array", "items": {"type": "string"}},
        {"type": "object", "additionalProperties": {"type": "string"}},
    ],
    "description": "Roles of a unit's parts, or of a smaller block by its own.",
}


@extend_schema_field(_SHARE)
class _Share(serializers.JSONField):
    pass


@extend_schema_field(_FABRICS)
class _Fabrics(serializers.JSONField):
    pass


class ContentWire(serializers.Serializer[Any]):
    """A unit, by its kind, or a smaller block, by its key."""

    kind = serializers.CharField(required=False)
    block = serializers.CharField(required=False)
    fabrics = _Fabrics(required=False)
    corners = serializers.ListField(child=_Share(), required=False)
    strip = _Share(required=False)


class PatternWire(serializers.Serializer[Any]):
    """A block in the format ``entretoile-block/1`` (docs/formats)."""

    format = serializers.CharField(required=False)
    name = serializers.CharField(required=False)
    columns = serializers.ListField(child=_Share())
    rows = serializers.ListField(child=_Share())
    units = serializers.DictField(child=ContentWire())
    layout = serializers.ListField(child=serializers.CharField())


def _spot(**given: bool) -> serializers.ListField:
    return serializers.ListField(
        child=serializers.IntegerField(), min_length=2, max_length=2, required=given.get("required", True)
    )


class EditWire(serializers.Serializer[Any]):
    """One change to a layout: ``do`` says what, the rest where and with what. Places are a column and a row from 0."""

    do = serializers.ChoiceField(choices=sorted(EDITS))

    def get_fields(self) -> dict[str, serializers.Field[Any, Any, Any, Any]]:
        optional: dict[str, serializers.Field[Any, Any, Any, Any]] = {
            "spots": serializers.ListField(child=_spot(), required=False),
            "from": _spot(required=False),
            "to": _spot(required=False),
            "content": ContentWire(required=False),
            "symmetry": serializers.ChoiceField(choices=[s.value for s in Symmetry], required=False),
            "mirrored": serializers.BooleanField(required=False),
            "grows": serializers.BooleanField(required=False),
            "bent": serializers.BooleanField(required=False),
            "part": serializers.IntegerField(required=False, allow_null=True),
            "corners": serializers.ListField(child=_Share(), required=False),
            "strip": _Share(required=False),
            **{f: _Share(required=False) for f in ("columns", "rows")},
            **{f: serializers.IntegerField(required=False) for f in ("turn", "quarters", "across", "down")},
            **{f: serializers.CharField(required=False) for f in ("role", "one", "other", "name")},
        }
        return {**super().get_fields(), **optional}


class PiecedWire(serializers.Serializer[Any]):
    """What a border is pieced of: units by turns as they lie along its top, and what turns its corners."""

    units = serializers.ListField(child=ContentWire())
    corner = ContentWire(required=False, allow_null=True)
    turn = serializers.IntegerField(required=False)
    corner_turn = serializers.IntegerField(required=False)
    fit = serializers.ChoiceField(choices=[f.value for f in RowFit], required=False)
    runs = serializers.ChoiceField(choices=[r.value for r in Runs], required=False)


class ColourwayWire(serializers.Serializer[Any]):
    count = serializers.CharField()
    roles = serializers.DictField(child=serializers.CharField())


class WishesWire(serializers.Serializer[Any]):
    """Wishes for the pressing map; what is not named is as usual."""

    to_dark = serializers.BooleanField(required=False)
    from_bulk = serializers.BooleanField(required=False)
    layers = serializers.IntegerField(required=False, allow_null=True)
    repeats = serializers.BooleanField(required=False)
    spun = serializers.ListField(child=serializers.ListField(child=serializers.FloatField()), required=False)


PatternField = json_field_of(PatternWire)
EditField = json_field_of(EditWire)
PressingField = json_field_of(WishesWire)
