"""What is looked up once holds for one answer, and for no other."""

from __future__ import annotations

from uuid import uuid4

from django.db import connection
from django.test.utils import CaptureQueriesContext

from api.looked_up import looked_up_once, one_answer
from api.tests.api import ApiCase
from blocks.models import Quilt
from blocks.quilt import quilt_of
from projects.models import Project


class LookedUpTest(ApiCase):
    def setUp(self) -> None:
        self.projects = [Project.objects.get(pk=self.new_project(name)["id"]) for name in ("Lantern", "Wake")]
        self.asked: list[str] = []

    def _name(self, project: Project) -> str:
        self.asked.append(project.name)
        return project.name

    def _measure(self, project: Project) -> str:
        return project.measure

    def test_once_for_each_row_in_one_answer_and_anew_in_the_next(self) -> None:
        name = looked_up_once(self._name)
        lantern, wake = self.projects
        with one_answer():
            self.assertEqual([name(lantern), name(wake), name(lantern)], ["Lantern", "Wake", "Lantern"])
            self.assertEqual(self.asked, ["Lantern", "Wake"])
        with one_answer():
            name(lantern)
        self.assertEqual(self.asked, ["Lantern", "Wake", "Lantern"])

    def test_each_time_where_something_may_be_written(self) -> None:
        name = looked_up_once(self._name)
        name(self.projects[0])
        name(self.projects[0])
        self.assertEqual(len(self.asked), 2)

    def test_two_reads_of_one_row_are_two(self) -> None:
        first, second = looked_up_once(self._name), looked_up_once(self._measure)
        with one_answer():
            self.assertEqual((first(self.projects[0]), second(self.projects[0])), ("Lantern", "in"))

    def test_what_was_not_kept_yet_is_found_when_it_is(self) -> None:
        lantern = self.projects[0]
        with one_answer():
            self.assertTrue(quilt_of(lantern)._state.adding)
        Quilt.objects.create(project=lantern, columns=7)
        with one_answer():
            self.assertEqual(quilt_of(lantern).columns, 7)

    def test_what_is_to_be_cut_looks_the_quilt_up_once(self) -> None:
        path = f"projects/{self.projects[0].pk}"
        body = {"start": "lantern", "changes": {"colourways": [{"count": 12, "roles": {}}]}}
        self.ask("put", f"{path}/blocks/{uuid4()}", body)
        self.change(f"{path}/quilt", {"columns": 3, "rows": 4, "sash": "1 1/2"})
        with CaptureQueriesContext(connection) as asked:
            piles = self.ask("get", f"{path}/cutting")["piles"]
        self.assertTrue(any("sash" in p["name"] for p in piles))
        for table in ("blocks_quilt", "blocks_block", "cutting_stock"):
            self.assertEqual(sum(f'FROM "{table}"' in q["sql"] for q in asked.captured_queries), 1, table)
