"""Earlier states of a project: taken when work rests, told by what changed, opened as a copy."""

from __future__ import annotations

from datetime import timedelta
from typing import Any
from uuid import uuid4

from django.utils import timezone

from api.tests.api import ApiCase
from exchange.history import MOST_STATES, take_states
from exchange.models import ProjectState
from projects.models import Project


class HistoryTest(ApiCase):
    def setUp(self) -> None:
        self.project = self.new_project()
        self.path = f"projects/{self.project['id']}"

    def rest(self) -> int:
        """As if the last change were some minutes ago."""
        Project.objects.update(updated_at=timezone.now() - timedelta(minutes=5))
        return take_states()

    def states(self) -> list[Any]:
        return list(self.ask("get", f"{self.path}/history"))

    def test_a_state_is_a_piece_of_work_and_not_a_keystroke(self) -> None:
        self.assertEqual(take_states(), 0, "still being worked on")
        self.assertEqual(self.rest(), 1)
        self.assertEqual(take_states(), 0)
        self.assertEqual(self.rest(), 0, "nothing is otherwise")
        self.assertEqual([s["said"] for s in self.states()], [[]])

    def test_what_changed_is_told_in_words(self) -> None:
        self.rest()
        self.ask("post", f"{self.path}/units", {"id": str(uuid4()), "kind": "flying_goose"}, expect=201)
        self.ask("put", f"{self.path}/blocks/{uuid4()}", {"start": "shoo_fly", "changes": {}})
        self.rest()
        unit = self.project["units"][0]["id"]
        self.ask("put", f"units/{unit}/readings/{uuid4()}", {"changes": {"kind": "width", "value": "4"}})
        self.change(self.path, {"fold": "1/64"})
        self.rest()
        newest, second, first = self.states()
        self.assertEqual(newest["said"], ["the fold", "units", "readings"])
        self.assertIn("units (4 more)", second["said"])
        self.assertIn("blocks (1 more)", second["said"])
        self.assertEqual(first["said"], [])

    def test_an_earlier_state_is_opened_as_a_project_of_its_own(self) -> None:
        unit = f"units/{self.project['units'][0]['id']}"
        self.change(unit, {"count": "12"})
        self.rest()
        self.change(unit, {"count": "48"})
        state, copy = self.states()[0]["id"], str(uuid4())
        for _ in range(2):
            made = self.ask("post", f"{self.path}/history/{state}/copy", {"id": copy}, expect=201)
        self.assertEqual((made["id"], made["units"][0]["count"]), (copy, 12))
        self.assertIn(f"{self.project['name']}, as of ", made["name"])
        self.assertEqual(self.ask("get", self.path)["units"][0]["count"], 48)
        self.assertEqual(Project.objects.count(), 2)
        self.ask("post", f"{self.path}/history/{uuid4()}/copy", {"id": str(uuid4())}, expect=404)
        other = self.new_project()
        self.ask("post", f"projects/{other['id']}/history/{state}/copy", {"id": str(uuid4())}, expect=404)

    def test_the_last_ones_are_kept(self) -> None:
        project = Project.objects.get()
        for n in range(MOST_STATES + 3):
            ProjectState.objects.create(
                project=project,
                at=timezone.now() - timedelta(days=n + 1),
                digest=str(n),
                packed=b"x\x9c\xab\xae\x05\x00\x01u\x00\xf9",
            )
        self.change(self.path, {"fold": "1/64"})
        self.rest()
        self.assertEqual(len(self.states()), MOST_STATES)
