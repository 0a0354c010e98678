"""The one workroom of this computer and its settings."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from api.tests.api import ApiCase
from workrooms.models import Workroom


class WorkroomTest(ApiCase):
    def test_there_is_one_from_the_start(self) -> None:
        room = self.ask("get", "workroom")
        self.assertEqual(room["seam_allowance"]["text"], "1/4")
        self.ask("get", "workroom")
        self.assertEqual(Workroom.objects.count(), 1)

    def test_new_projects_start_from_its_settings(self) -> None:
        self.change("workroom", {"measure": "mm", "seam_allowance": "6 mm", "ruler_step": "5 mm"})
        project = self.new_project()
        self.assertEqual(project["measure"], "mm")
        self.assertEqual(project["seam_allowance"]["text"], "6 mm")
        self.assertEqual(project["ruler_step"]["text"], "5 mm")

    def test_existing_projects_keep_their_own(self) -> None:
        project = self.new_project()
        self.change("workroom", {"seam_allowance": "3/8"})
        self.assertEqual(self.ask("get", f"projects/{project['id']}")["seam_allowance"]["text"], "1/4")

    def test_what_it_cannot_hold_is_said(self) -> None:
        problem = self.change(
            "workroom",
            {"measure": "cubits", "seam_allowance": "0", "ruler_step": "2", "reading_step": "?", "name": "  "},
            expect=422,
        )
        self.assertEqual(
            self.codes(problem),
            {
                "measure": "unknown_choice",
                "seam_allowance": "seam_too_wide",
                "ruler_step": "length_out_of_range",
                "reading_step": "length_not_understood",
                "name": "unknown_choice",
            },
        )
        self.assertEqual(self.ask("get", "workroom")["measure"], "in")


class RulersTest(ApiCase):
    def put(self, key: str, expect: int = 200, **changes: Any) -> Any:
        return self.ask("put", f"rulers/{key}", {"changes": changes}, expect=expect)

    def test_a_starting_set_is_there(self) -> None:
        rulers = self.ask("get", "workroom")["rulers"]
        self.assertEqual([r["name"] for r in rulers], ["Small square", "Large square", "Long ruler"])
        self.assertFalse(rulers[2]["corner_diagonal"])

    def test_added_changed_removed_and_taken_back(self) -> None:
        key = str(uuid4())
        for _ in range(2):
            room = self.put(key, name="Bench square", width="9 1/2", height="9 1/2", border="1/2", slotted=True)
        self.assertEqual(len(room["rulers"]), 4)
        self.assertTrue(room["rulers"][3]["slotted"])
        self.assertEqual(self.put(key, grooved=True)["rulers"][3]["border"]["text"], "1/2")
        self.assertEqual(len(self.ask("delete", f"rulers/{key}")["rulers"]), 3)
        self.put(key, name="Gone", expect=404)
        self.assertEqual(len(self.ask("post", f"rulers/{key}/restore")["rulers"]), 4)
        self.ask("delete", f"rulers/{uuid4()}", expect=404)

    def test_rulers_that_cannot_be(self) -> None:
        good = {"name": "x", "width": "6", "height": "6"}
        for wrong, code in (
            ({"width": "0"}, "ruler_impossible"),
            ({"height": "200"}, "ruler_impossible"),
            ({"border": "3"}, "ruler_impossible"),
            ({"width": "wide"}, "length_not_understood"),
            ({"name": ""}, "unknown_choice"),
            ({"slotted": "perhaps"}, "unknown_choice"),
        ):
            with self.subTest(wrong):
                self.assertEqual(self.put(str(uuid4()), expect=422, **(good | wrong))["code"], code)
        self.put(str(uuid4()), expect=422, name="no size")

    def test_the_cutting_hand(self) -> None:
        self.assertEqual(self.change("workroom", {"cutter": "left"})["cutter"], "left")
        self.change("workroom", {"cutter": "both"}, expect=422)
