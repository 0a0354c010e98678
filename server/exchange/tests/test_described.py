"""The description of the API names everything that is sent, files and by hand included."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from django.test import SimpleTestCase, TestCase
from drf_spectacular.generators import SchemaGenerator
from jsonschema import Draft202012Validator

from api.tests.api import ApiCase
from blocks.models import Block
from demo.tests.data import put_demo
from exchange.pattern import pattern_exported, pattern_schema
from exchange.project import export_project, schema
from exchange.records import records_exported, records_schema
from workrooms.selectors import current_workroom


def _document() -> dict[str, Any]:
    document: dict[str, Any] = SchemaGenerator().get_schema(request=None, public=True)
    return document


def _untyped(part: Any, path: str) -> Iterator[str]:
    """Where anything may stand: an object or a list of which nothing is said, or no type at all."""
    if isinstance(part, list):
        for n, inner in enumerate(part):
            yield from _untyped(inner, f"{path}/{n}")
    if not isinstance(part, dict):
        return
    if part == {}:
        yield path
    if part.get("type") == "object" and not part.get("properties") and part.get("additionalProperties") in (None, True):
        yield path
    if part.get("type") == "array" and "items" not in part and "prefixItems" not in part:
        yield path
    for name, inner in part.items():
        yield from _untyped(inner, f"{path}/{name}")


class TypedTest(SimpleTestCase):
    def test_nothing_is_left_untyped(self) -> None:
        document = _document()
        self.assertEqual(list(_untyped(document["components"]["schemas"], "")), [])
        self.assertEqual([p for p in _untyped(document["paths"], "") if not p.endswith("/security/0")], [])

    def test_what_is_untyped_is_seen(self) -> None:
        loose: dict[str, Any] = {
            "a": {"type": "object"},
            "b": {"type": "array"},
            "c": {"type": "array", "items": {}},
            "d": {},
        }
        self.assertEqual(list(_untyped(loose, "")), ["/a", "/b", "/c/items", "/d"])

    def test_the_published_schemas_are_what_is_said_of_them(self) -> None:
        said = {"$ref": "#/components/schemas/JsonSchema", **_document()}
        for published in (schema(), pattern_schema(), records_schema()):
            self.assertEqual([e.json_path for e in Draft202012Validator(said).iter_errors(published)], [])


class FilesTest(ApiCase, TestCase):
    def test_files_of_the_demo_are_as_described(self) -> None:
        put_demo()
        room = current_workroom()
        document = _document()
        files = [("ProjectFile", export_project(p)) for p in room.projects.all()]
        files += [("PatternFile", pattern_exported(room, b.pk)) for b in Block.objects.filter(project__isnull=False)]
        files.append(("RecordsFile", records_exported(room)))
        self.assertGreater(len(files), 5)
        for name, file in files:
            told = Draft202012Validator({"$ref": f"#/components/schemas/{name}", **document})
            self.assertEqual([(e.json_path, e.message[:80]) for e in told.iter_errors(file)], [], name)
            self.assertTrue(list(told.iter_errors({**file, "format": 3})))
