"""The demo data: put in once, kept, started over when asked."""

from __future__ import annotations

from io import StringIO
from typing import ClassVar

from django.core.management import call_command
from django.core.management.base import CommandError

from api.tests.api import ApiCase
from keeping.copies import copies
from keeping.serving import hold_folder
from keeping.tests.other import served_elsewhere
from projects.models import Project


def lantern_deck(*flags: str) -> str:
    out = StringIO()
    call_command("lantern_deck", *flags, stdout=out)
    return out.getvalue()


class DemoTest(ApiCase):
    first: ClassVar[str]

    @classmethod
    def setUpTestData(cls) -> None:
        cls.first = lantern_deck()

    def test_three_projects_one_of_them_put_away(self) -> None:
        self.assertIn("3 projects", self.first)
        lines = [line for q in ("", "?archived=true") for line in self.ask("get", f"projects{q}")["lines"]]
        listed = [self.ask("get", f"projects/{line['id']}") for line in lines]
        self.assertEqual([p["archived"] for p in listed], [False, False, True])
        for project in listed:
            self.ask("get", f"units/{project['units'][0]['id']}/trim")
            self.ask("get", f"units/{project['units'][0]['id']}/diagnosis")
        self.assertEqual(self.ask("get", "workroom")["name"], "Lantern Deck")

    def test_the_finished_project_came_out_true(self) -> None:
        finished = Project.objects.get(archived_at__isnull=False).units.all()[0].pk
        verdict = self.ask("get", f"units/{finished}/diagnosis")["verdict"]
        self.assertEqual(verdict["status"], "true")

    def test_what_was_typed_is_kept(self) -> None:
        Project.objects.filter(name="Wake, five rows").update(name="Mine")
        self.assertIn("kept", lantern_deck())
        self.assertTrue(Project.objects.filter(name="Mine").exists())

    def test_starting_over_gives_the_same_again(self) -> None:
        before = sorted(Project.objects.values_list("pk", "name"))
        Project.objects.all().update(name="Mine")
        self.new_project()
        with self.assertRaisesMessage(CommandError, "Nothing was changed."):
            lantern_deck("--reset")
        # The server that starts holds the folder itself, and may.
        with hold_folder("http://127.0.0.1:8321/"):
            self.assertIn("3 projects", lantern_deck("--reset", "--yes"))
        self.assertEqual(sorted(Project.objects.values_list("pk", "name")), before)
        self.assertTrue([c for c in copies() if c.name.startswith("before-reset-")])

    def test_a_workroom_that_is_served_is_not_emptied(self) -> None:
        with (
            served_elsewhere("http://127.0.0.1:8321/"),
            self.assertRaisesMessage(CommandError, "http://127.0.0.1:8321/"),
        ):
            lantern_deck("--reset", "--yes")
