"""The one workroom of this computer and its settings."""

from __future__ import annotations

from common.tests.api import ApiCase
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
