"""What the description of the API says of files: the published JSON Schema of each format, and what such a schema is itself."""

from __future__ import annotations

from typing import Any

from django.db.models import IntegerField, Model

from blocks.models import Quilt

from .pattern import pattern_schema
from .project import schema
from .records import records_schema

__all__ = ["JSON_SCHEMA", "PATTERN_FILE", "PROJECT_FILE", "RECORDS_FILE", "files_described"]


def _component(name: str) -> dict[str, Any]:
    return {"$ref": f"#/components/schemas/{name}"}


PROJECT_FILE = _component("ProjectFile")
PATTERN_FILE = _component("PatternFile")
RECORDS_FILE = _component("RecordsFile")
JSON_SCHEMA = _component("JsonSchema")

_TEXT = {"type": "string"}
_TEXTS = {"type": "array", "items": _TEXT}
_NAMED = {"type": "object", "additionalProperties": JSON_SCHEMA}
_SEVERAL = {"type": "array", "items": JSON_SCHEMA}
_SCHEMA_ITSELF = {
    "type": "object",
    "description": "A JSON Schema of 2020-12, in those of its words that the published formats use.",
    "properties": {
        "$schema": _TEXT,
        "$ref": _TEXT,
        "$defs": _NAMED,
        "title": _TEXT,
        "description": _TEXT,
        "type": {"oneOf": [_TEXT, _TEXTS]},
        "const": {"oneOf": [_TEXT, {"type": "boolean"}]},
        "enum": {"type": "array", "items": {"type": ["string", "number", "boolean", "null"]}},
        "format": _TEXT,
        "pattern": _TEXT,
        "required": _TEXTS,
        "dependentRequired": {"type": "object", "additionalProperties": _TEXTS},
        "properties": _NAMED,
        "propertyNames": JSON_SCHEMA,
        "additionalProperties": {"oneOf": [{"type": "boolean"}, JSON_SCHEMA]},
        "items": {"oneOf": [{"type": "boolean"}, JSON_SCHEMA]},
        "prefixItems": _SEVERAL,
        "anyOf": _SEVERAL,
        **{
            word: {"type": "number"}
            for word in (
                "minimum",
                "maximum",
                "exclusiveMinimum",
                "minLength",
                "maxLength",
                "minItems",
                "maxItems",
                "minProperties",
                "maxProperties",
            )
        },
    },
    "additionalProperties": False,
}


def _with_components(part: Any, name: str) -> Any:
    """The same with what a file's schema defines for itself found among the components of the API."""
    if isinstance(part, dict):
        return {
            word: v.replace("#/$defs/", f"#/components/schemas/{name}_")
            if word == "$ref"
            else _with_components(v, name)
            for word, v in part.items()
        }
    return [_with_components(v, name) for v in part] if isinstance(part, list) else part


def _whole_numbers(model: type[Model]) -> set[str]:
    return {f.name for f in model._meta.get_fields() if isinstance(f, IntegerField)}


def _with_numbers(sent: dict[str, Any], whole: set[str]) -> dict[str, Any]:
    """What is typed as text, and kept, and so written to a file, as whole numbers."""
    properties = {f: {"type": "integer"} if f in whole else told for f, told in sent["properties"].items()}
    return {**sent, "properties": properties}


def _told_as_rows(components: dict[str, Any]) -> None:
    """What a file holds as it is sent, and has checked by the readers of its rows, is described where those are."""
    components["PatternFile_pattern"]["properties"]["units"]["additionalProperties"] = _component("ContentWireRequest")
    project = components["ProjectFile"]["properties"]
    project["quilt"] = _component("ProjectFile_quilt")
    components["ProjectFile_quilt"] = _with_numbers(components["QuiltPatchRequest"], _whole_numbers(Quilt))
    components["ProjectFile_colourway"] = _with_numbers(components["ColourwayWireRequest"], {"count"})
    project["carried"]["additionalProperties"] = _component("PatternWireRequest")
    block = project["blocks"]["items"]["properties"]
    block["pattern"] = _component("PatternWireRequest")
    block["colourways"]["items"] = _component("ProjectFile_colourway")
    block["pressing"] = _component("WishesWireRequest")


def files_described(result: dict[str, Any], **_more: Any) -> dict[str, Any]:
    """Adds the formats of files to the components, from the schemas that files are checked by when they are taken in."""
    components = result["components"]["schemas"]
    components["JsonSchema"] = _SCHEMA_ITSELF
    for name, published in (
        ("PatternFile", pattern_schema()),
        ("ProjectFile", schema()),
        ("RecordsFile", records_schema()),
    ):
        whole = _with_components({k: v for k, v in published.items() if k != "$schema"}, name)
        components |= {f"{name}_{part}": told for part, told in whole.pop("$defs", {}).items()}
        components[name] = whole
    _told_as_rows(components)
    result["components"]["schemas"] = dict(sorted(components.items()))
    return result
