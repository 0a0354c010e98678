"""A change sent again under its name is not made again, and what SQLite says of its file is told in words."""

from __future__ import annotations

from unittest.mock import patch
from uuid import UUID, uuid4

from django.db import OperationalError
from django.test import Client, TestCase

from blocks.models import Block
from projects.commands import create_project
from workrooms.models import AppliedChange
from workrooms.selectors import current_workroom


class OnceTest(TestCase):
    def setUp(self) -> None:
        self.project = create_project(current_workroom(), uuid4(), "Kept")
        pattern = {
            "name": "One",
            "columns": [1],
            "rows": [1],
            "units": {"A": {"kind": "half_square_triangle", "fabrics": ["a", "b"]}},
            "layout": ["A0"],
        }
        self.block = Block.objects.create(project=self.project, pattern=pattern, finished="4", position=1)

    def turn(self, name: UUID) -> int:
        body = {"edit": {"do": "turn", "spots": [[0, 0]]}}
        answer = self.client.post(
            f"/api/blocks/{self.block.pk}/edits", body, "application/json", headers={"Change-Id": str(name)}
        )
        return answer.status_code

    def layout(self) -> list[str]:
        self.block.refresh_from_db()
        return list(self.block.pattern["layout"])

    def test_the_same_change_sent_three_times_is_made_once(self) -> None:
        name = uuid4()
        self.assertEqual([self.turn(name) for _ in range(3)], [200, 204, 204])
        self.assertEqual(self.layout(), ["A1"])
        self.assertEqual(self.turn(uuid4()), 200)
        self.assertEqual(self.layout(), ["A2"])

    def test_one_that_is_being_made_meanwhile_is_not_made_beside_it(self) -> None:
        """The other noted it after this one had looked for it."""
        name = uuid4()
        AppliedChange.objects.create(pk=name)
        with patch("workrooms.once.OnceMiddleware._made_before", return_value=False):
            self.assertEqual(self.turn(name), 503)
        self.assertEqual(self.layout(), ["A0"])

    def test_a_change_that_was_refused_may_be_sent_again(self) -> None:
        name = uuid4()
        url = f"/api/projects/{self.project.pk}"
        for wanted, status in (("x" * 3, 422), ("1/4", 200), ("1/4", 204)):
            answer = self.client.patch(
                url, {"changes": {"fold": wanted}}, "application/json", headers={"Change-Id": str(name)}
            )
            self.assertEqual(answer.status_code, status, answer.content)
        self.assertEqual(AppliedChange.objects.filter(pk=name).count(), 1)

    def test_a_name_that_is_none_is_refused(self) -> None:
        answer = self.client.patch("/api/workroom", {}, "application/json", headers={"Change-Id": "first"})
        self.assertEqual((answer.status_code, answer["Content-Type"]), (400, "application/problem+json"))

    def test_what_the_file_suffers_from_is_told_and_the_change_may_be_tried_again(self) -> None:
        said = {
            "database is locked": (503, "busy"),
            "database or disk is full": (507, "disk_full"),
            "attempt to write a readonly database": (507, "read_only"),
            "database disk image is malformed": (507, "damaged"),
            "unable to open database file": (507, "not_there"),
        }
        for words, (status, code) in said.items():
            with (
                self.subTest(words),
                patch("projects.views.commands.change_project", side_effect=OperationalError(words)),
            ):
                answer = self.client.patch(f"/api/projects/{self.project.pk}", {"changes": {}}, "application/json")
                self.assertEqual((answer.status_code, answer.json()["code"]), (status, code))
                self.assertEqual(answer["Content-Type"], "application/problem+json")

    def test_a_fault_of_the_program_is_told_as_a_problem_too(self) -> None:
        client = Client(raise_request_exception=False)
        with patch("projects.views.commands.change_project", side_effect=RuntimeError("a bug")):
            answer = client.patch(f"/api/projects/{self.project.pk}", {"changes": {}}, "application/json")
        self.assertEqual((answer.status_code, answer.json()["code"]), (500, "server_error"))
        self.assertNotIn("a bug", answer.content.decode())


class QuietTest(TestCase):
    def test_another_site_may_neither_read_nor_write(self) -> None:
        for site, status in (("same-origin", 200), ("none", 200), ("cross-site", 403), ("same-site", 403)):
            with self.subTest(site):
                self.assertEqual(self.client.get("/api/workroom", headers={"Sec-Fetch-Site": site}).status_code, status)
        self.assertEqual(self.client.get("/", headers={"Sec-Fetch-Site": "cross-site"}).status_code, 200)

    def test_answers_are_kept_by_nobody_else(self) -> None:
        answer = self.client.get("/api/workroom")
        self.assertEqual(answer["Cache-Control"], "no-store")
        self.assertEqual(answer["Cross-Origin-Resource-Policy"], "same-origin")
        self.assertNotIn("Access-Control-Allow-Origin", answer)

    def test_every_refusal_is_a_problem(self) -> None:
        for path, host, status in (
            ("/api/nothing", "testserver", 404),
            ("/assets/old.js", "testserver", 404),
            ("/", "evil.example", 400),
        ):
            with self.subTest(path=path, host=host):
                answer = self.client.get(path, headers={"Host": host})
                self.assertEqual((answer.status_code, answer["Content-Type"]), (status, "application/problem+json"))
                self.assertTrue(answer.json()["code"])
