"""A test case that speaks to the API as the browser does."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from django.test import TestCase

__all__ = ["TYPED", "ApiCase"]

TYPED: dict[str, Any] = {
    "measure": "in",
    "kind": "half_square_triangle",
    "method": "pair",
    "size_basis": "unit",
    "finished": "3 1/2",
    "units_across": "3",
    "part_fabrics": ["a", "b"],
    "count": "48",
    "mirrored": "0",
    "ready": "0",
    "school": "little",
    "seam_allowance": "1/4",
    "fold": "0",
    "ruler_step": "1/8",
}
"""The Lantern block's half-square triangle, as the Plan screen sends it."""


class ApiCase(TestCase):
    def ask(self, method: str, path: str, body: Any = None, *, expect: int = 200) -> Any:
        """One request with a JSON body; the answer's data. Fails unless the status is the expected one."""
        kwargs = {} if body is None else {"data": body, "content_type": "application/json"}
        answer = getattr(self.client, method)(f"/api/{path}", **kwargs)
        self.assertEqual(answer.status_code, expect, answer.content[:600])
        if expect >= 400:
            self.assertEqual(answer["Content-Type"], "application/problem+json")
        return answer.json()

    def new_project(self, name: str = "Lantern") -> dict[str, Any]:
        unit = {"kind": "half_square_triangle", "finished": "3 1/2", "count": "4"}
        body = {"id": str(uuid4()), "name": name, "fabrics": ["Dark", "Light"], "unit": unit}
        project: dict[str, Any] = self.ask("post", "beginnings", body, expect=201)
        return project

    def change(self, path: str, changes: dict[str, Any], seen: dict[str, Any] | None = None, expect: int = 200) -> Any:
        return self.ask("patch", path, {"changes": changes, "seen": seen or {}}, expect=expect)

    def take_down(self, unit: str, kind: str, value: str, expect: int = 200, **more: Any) -> Any:
        body = {"changes": {"kind": kind, "value": value, **more}, "seen": {}}
        return self.ask("put", f"units/{unit}/readings/{uuid4()}", body, expect=expect)

    def codes(self, problem: dict[str, Any]) -> dict[str, str]:
        """Field to code of a problem."""
        return {e["field"]: e["code"] for e in problem["errors"]}
