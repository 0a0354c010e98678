"""Every operation of the schema, called with whatever the schema allows: never a crash, always the promised shape."""

from __future__ import annotations

from typing import Any

import schemathesis
from django.test import Client
from drf_spectacular.generators import SchemaGenerator
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from hypothesis.extra.django import TestCase
from jsonschema import Draft202012Validator

from blocks.edits import EDITS
from piecing.blocks.library import library_data
from piecing.units import KINDS
from projects.commands import create_project
from projects.models import Project
from workrooms.selectors import current_workroom

_DOCUMENT: dict[str, Any] = SchemaGenerator().get_schema(request=None, public=True)
_SCHEMA = schemathesis.openapi.from_dict(_DOCUMENT)
_OPERATIONS = {
    op.ok().label: op.ok()  # type: ignore[union-attr]
    for op in _SCHEMA.get_all_operations()
    # They put another database in place of the one that a test runs in: keeping.tests tries them.
    if not op.ok().path.startswith(("/api/backup", "/api/copies"))  # type: ignore[union-attr]
}
_TYPED = st.sampled_from(
    ["3 7/8", "98 mm", "1/4", "0", "-1", "3 7/0", "", "wide", "9" * 40, "1e9", "∞", "٣", "\u202e4"]
)
_ANYTHING = (
    st.none()
    | st.booleans()
    | st.integers()
    | st.text(max_size=8)
    | _TYPED
    | st.lists(_TYPED, max_size=2)
    | st.dictionaries(st.text(max_size=6), _TYPED, max_size=2)
)
_FIELDS = st.sampled_from(
    [
        "name",
        "measure",
        "seam_allowance",
        "stitch",
        "fold",
        "ruler_step",
        "reading_step",
        "size_basis",
        "finished",
        "block_finished",
        "units_across",
        "count",
        "school",
        "own_margin",
        "cut",
        "colour",
        "value",
        "kind",
        "count",
        "whole",
        "note",
        "batch",
        "cell",
        "corner",
        "seam",
        "spot",
        "feature",
        "day",
        "confirmed",
        "turned_out",
        "later",
    ]
)
_CHANGES = st.fixed_dictionaries(
    {"changes": st.dictionaries(_FIELDS, _ANYTHING, max_size=4)},
    optional={"seen": st.dictionaries(_FIELDS, _ANYTHING, max_size=4)},
)


_EDITS = st.fixed_dictionaries(
    {"do": st.sampled_from(sorted(EDITS))},
    optional={
        "spots": st.lists(st.lists(st.integers(-1, 4), min_size=1, max_size=3), max_size=3) | _ANYTHING,
        "from": st.lists(st.integers(-1, 3), min_size=2, max_size=2) | _ANYTHING,
        "to": st.lists(st.integers(0, 2), min_size=2, max_size=2) | _ANYTHING,
        "content": st.fixed_dictionaries({"kind": st.sampled_from(sorted(KINDS))}) | _ANYTHING,
        "columns": st.integers(-1, 30) | st.sampled_from(["1 2 1", "3, 4", "0 1"]) | _ANYTHING,
        "rows": st.integers(-1, 30) | _ANYTHING,
        "across": st.integers(-1, 5),
        "down": st.integers(-1, 5),
        "role": st.sampled_from(["a", "zz", ""]),
        "one": st.sampled_from("ab"),
        "other": st.sampled_from("ab"),
        "quarters": st.integers(-5, 5),
        "symmetry": st.sampled_from(["quarter_turns", "sideways", "sevenfold"]),
        "corners": _ANYTHING,
        "strip": _ANYTHING,
        "name": _ANYTHING,
    },
)


def _resolved(schema: dict[str, Any]) -> Draft202012Validator:
    return Draft202012Validator({**schema, "components": _DOCUMENT["components"]})


_PROBLEM = _resolved({"$ref": "#/components/schemas/Problem"})


class FuzzTest(TestCase):
    """Addresses are filled with rows that exist, half of the time; bodies are valid, nearly valid, or neither."""

    def answer(self, method: str, path: str, body: Any) -> Any:
        kwargs = {} if body is None else {"data": body, "content_type": "application/json"}
        return getattr(Client(raise_request_exception=True), method)(path, **kwargs)

    def check(self, operation: Any, answer: Any) -> None:
        self.assertLess(answer.status_code, 500, answer.content[:300])
        if answer.status_code >= 400:
            self.assertEqual(answer["Content-Type"], "application/problem+json", answer.content[:300])
            _PROBLEM.validate(answer.json())
            self.assertTrue(answer.json()["detail"])
            return
        promised = operation.definition.raw["responses"].get(str(answer.status_code), {}).get("content", {})
        if "application/json" in promised:
            _resolved(promised["application/json"]["schema"]).validate(answer.json())

    @settings(max_examples=120, deadline=None, suppress_health_check=list(HealthCheck))
    @given(st.data())
    def test_no_request_breaks_it(self, data: st.DataObject) -> None:
        label = data.draw(st.sampled_from(sorted(_OPERATIONS)))
        operation = _OPERATIONS[label]
        case = data.draw(operation.as_strategy())
        room = current_workroom()
        first = Project.objects.order_by("created_at").first()
        project = first or create_project(room, "00000000-0000-4000-8000-000000000001", "Fuzz")  # type: ignore[arg-type]
        path = case.path
        unit, fabric = (
            project.units.first() or project.units.create(finished="3", block_finished="9"),
            project.fabrics.first(),
        )
        ruler = room.rulers.first()
        block = project.blocks.first() or project.blocks.create(pattern=library_data("lantern"), finished="21/2")
        real = {
            "projects": project.pk,
            "units": unit.pk,
            "fabrics": fabric and fabric.pk,
            "rulers": ruler and ruler.pk,
            "blocks": block.pk,
        }
        for name, value in case.path_parameters.items():
            here = real.get(path.split("{")[0].strip("/").split("/")[-1])
            known = here is not None and data.draw(st.booleans())
            path = path.replace("{" + name + "}", str(here if known else value), 1)
        body = case.body if isinstance(case.body, dict | list | str) else None
        if isinstance(body, dict) and "changes" in body and data.draw(st.booleans()):
            body = data.draw(_CHANGES)
        if isinstance(body, dict) and {"pattern", "seen"} & body.keys() and data.draw(st.booleans()):
            body = {
                **body,
                "pattern": block.pattern,
                "seen": block.pattern,
                "finished": "10 1/2",
                "edit": data.draw(_EDITS),
            }
        self.check(operation, self.answer(case.method.lower(), path, body))
