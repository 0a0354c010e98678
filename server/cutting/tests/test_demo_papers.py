"""Everything of the half-sewn quilt on paper: what the screen says is there, in its order, on either paper."""

from __future__ import annotations

import re
import subprocess
from typing import Any

from django.test import TransactionTestCase

from api.tests.api import ApiCase
from cutting import commands
from demo.tests.data import put_demo
from projects.models import Project
from workrooms.selectors import current_workroom


def plain(text: str) -> str:
    """With one space for any white and fractions as paper has them, so that only words tell."""
    return " ".join(text.replace("\u00a0", " ").replace("⁄", "/").replace("″", '"').split())


class DemoPaperTest(TransactionTestCase):
    """Plans are looked for in a thread of their own, which sees what is kept."""

    def ask(self, method: str, path: str) -> Any:
        return ApiCase.ask(self, method, path)  # type: ignore[arg-type]

    def setUp(self) -> None:
        put_demo()
        self.key = Project.objects.get(name__startswith="Lantern").pk
        self.path = f"projects/{self.key}"

    def said(self, paper: str, **query: str) -> str:
        answer = self.client.get(f"/api/{self.path}/{paper}", query)
        self.assertEqual((answer.status_code, answer["Content-Type"]), (200, "application/pdf"), answer.content[:300])
        done = subprocess.run(["pdftotext", "-raw", "-", "-"], input=answer.content, capture_output=True, check=True)
        return plain(done.stdout.decode())

    def has(self, paper: str, *words: str) -> None:
        # A word that is broken at the end of a line is still that word.
        for w in words:
            self.assertIn(re.sub(r"[\s-]", "", plain(w)), re.sub(r"[\s-]", "", paper), w)

    def test_the_cutting_plan_lists_every_strip_of_the_screen_in_its_order(self) -> None:
        self.assertIn("No cutting plan has been made yet", self.said("papers/cutting-plan.pdf"))
        commands.begin_plan(current_workroom(), self.key, "least", along=False, wait=True)
        plan = self.ask("get", f"{self.path}/cutting")["plan"]
        self.assertTrue(plan["cloths"])
        for page in ("a4", "letter"):
            paper = self.said("papers/cutting-plan.pdf", page=page)
            numbers = [s["number"] for c in plan["cloths"] for s in c["strips"]]
            self.assertEqual(numbers, sorted(numbers))
            for cloth in plan["cloths"]:
                self.has(paper, cloth["name"])
                for strip in cloth["strips"]:
                    self.has(paper, f"{strip['number']}. ")

    def test_the_ticket_joins_every_block_and_the_quilt(self) -> None:
        paper, sheet = self.said("papers/ticket.pdf"), self.ask("get", f"{self.path}/ticket")
        for unit in sheet["units"]:
            self.has(paper, *unit["cut"], *(s["title"] for s in unit["steps"]))
        self.assertTrue(sheet["blocks"])
        for block in sheet["blocks"]:
            self.has(paper, block["name"], block["wanted"], *(s["title"] for s in block["steps"]))
        if sheet["quilt"]:
            self.has(paper, "The quilt", sheet["quilt"]["wanted"], *(s["title"] for s in sheet["quilt"]["steps"]))

    def test_the_story_holds_its_headings_and_figures(self) -> None:
        paper, story = self.said("story.pdf"), self.ask("get", f"{self.path}/story")
        self.assertIn("Lantern", paper)
        self.assertTrue(story["facts"])
        for fact in story["facts"]:
            self.has(paper, fact["heading"], *fact["lines"])

    def test_labels_are_one_for_each_pile_and_lot(self) -> None:
        paper = self.said("papers/labels.pdf")
        for pile in self.ask("get", f"{self.path}/cutting")["piles"]:
            self.has(paper, pile["letter"])
