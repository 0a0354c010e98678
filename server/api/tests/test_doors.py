"""What comes in and goes out at the edge: broken bodies, other sites, the page itself and its policy."""

from __future__ import annotations

import json
import socket
import subprocess
import sys
from uuid import uuid4

from django.conf import settings
from django.db import connection
from django.test import SimpleTestCase
from waitress.utilities import BadRequest

import serve
from api.fields import LengthField
from api.tests.api import ApiCase
from piecing.lengths import Length, inches, mm
from projects.models import Project
from workrooms.selectors import current_workroom

SERVE = settings.HOME / "server" / "serve.py"


class BodyTest(ApiCase):
    def refused(self, body: bytes | str, status: int) -> dict[str, str]:
        answer = self.client.post("/api/projects", body, content_type="application/json")
        self.assertEqual(answer.status_code, status, answer.content[:300])
        self.assertEqual(answer["Content-Type"], "application/problem+json")
        problem: dict[str, str] = answer.json()
        return problem

    def test_bodies_that_cannot_be_read(self) -> None:
        for body in (b"", b"{", b"\xff\xfe", '{"id": "\\ud800"}', "[" * 5000 + "]" * 5000, '{"id": NaN}'):
            with self.subTest(body[:20]):
                self.refused(body, 400)

    def test_a_body_that_is_too_large(self) -> None:
        body = json.dumps({"id": str(uuid4()), "name": "x" * settings.DATA_UPLOAD_MAX_MEMORY_SIZE})
        self.assertEqual(self.refused(body, 413)["code"], "too_large")

    def test_a_body_of_another_shape(self) -> None:
        for body in ("[]", '"text"', '{"id": 3.5}', '{"id": "no"}'):
            with self.subTest(body):
                self.assertEqual(self.refused(body, 400)["code"], "invalid_request")

    def test_what_the_framework_refuses_is_said_in_words_of_the_table(self) -> None:
        by_hand = {"kind": "half_square_triangle", "finished": "3", "seam_allowance": "1/4", "units": 4, "readings": []}
        cases: tuple[tuple[dict[str, object], str, str], ...] = (
            ({"finished": ""}, "finished", "Nothing is given here"),
            ({"units": None}, "units", "Nothing is given here"),
            ({"units": "some"}, "units", "A whole number is needed here, such as 12."),
            ({"finished": "x" * 300}, "finished", "That is too long: at most 40 characters fit here"),
            ({"kind": "a star"}, "kind", "That is not one of the choices there are"),
        )
        for change, field, said in cases:
            with self.subTest(change):
                problem = self.ask("post", "diagnosis", by_hand | change, expect=400)
                row = next(e for e in problem["errors"] if e["field"] == field)
                self.assertIn(said, row["message"])

    def test_lengths_sent_as_numbers_are_refused_by_name(self) -> None:
        project = self.new_project()
        for value in (0.25, 3, True, ["1/4"], {"a": 1}, None):
            with self.subTest(value):
                problem = self.change(f"projects/{project['id']}", {"seam_allowance": value}, expect=422)
                self.assertEqual(problem["code"], "length_not_understood")


class OtherSiteTest(ApiCase):
    def test_another_site_may_not_write(self) -> None:
        headers = {"origin": "http://elsewhere.example"}
        answer = self.client.post("/api/projects", {}, content_type="application/json", headers=headers)
        self.assertEqual((answer.status_code, answer.json()["code"]), (403, "other_origin"))
        own = {"origin": "http://testserver"}
        body = {"id": str(uuid4())}
        answer = self.client.post("/api/projects", body, content_type="application/json", headers=own)
        self.assertEqual(answer.status_code, 201)


class PageTest(ApiCase):
    def test_every_address_is_the_page_under_a_strict_policy(self) -> None:
        for path in ("/", "/projects/none/plan", "/settings", "/nowhere/at/all"):
            answer = self.client.get(path)
            policy = answer["Content-Security-Policy"]
            with self.subTest(path):
                self.assertEqual(answer.status_code, 200)
                self.assertIn("default-src 'none'", policy)
                self.assertNotIn("unsafe", policy)
                nonce = policy.split("'nonce-")[1].split("'")[0]
                self.assertIn(nonce, answer.content.decode())
                self.assertIn("no-store", answer["Cache-Control"])

    def test_an_unknown_address_of_the_api_says_so(self) -> None:
        self.assertEqual(self.ask("get", "no/such/thing", expect=404)["code"], "not_here")
        self.assertEqual(self.ask("get", "projects/not-a-key", expect=404)["code"], "not_here")
        self.ask("get", f"units/{uuid4()}/trim", expect=404)

    def test_the_server_says_that_it_is_there(self) -> None:
        self.assertEqual(self.ask("get", "health"), {"here": True})

    def test_nothing_in_the_page_comes_from_another_host(self) -> None:
        page = self.client.get("/").content.decode()
        self.assertNotIn("http://", page)
        self.assertNotIn("https://", page)


class LengthColumnTest(ApiCase):
    def test_a_length_is_kept_without_rounding(self) -> None:
        for length in (inches("31/8"), mm(98), mm("0.1"), Length.of(0)):
            project = Project.objects.create(
                workroom=current_workroom(), name="x", seam_allowance=length, ruler_step="1/8", reading_step="1/32"
            )
            with self.subTest(length):
                self.assertEqual(Project.objects.get(pk=project.pk).seam_allowance, length)

    def test_the_column_holds_inches_in_lowest_terms(self) -> None:
        Project.objects.create(
            workroom=current_workroom(), name="x", seam_allowance=inches("4/16"), ruler_step="1/8", reading_step="1/32"
        )
        with connection.cursor() as cursor:
            cursor.execute("select seam_allowance from projects_project")
            self.assertEqual(cursor.fetchone()[0], "1/4")
        self.assertIsNone(LengthField(null=True).get_prep_value(None))


class ServeTest(SimpleTestCase):
    def check(self, *args: str) -> subprocess.CompletedProcess[str]:
        return subprocess.run([sys.executable, str(SERVE), *args], capture_output=True, text=True, check=False)

    def test_a_taken_port_is_said_with_another_to_try(self) -> None:
        with socket.socket() as taken:
            taken.bind(("127.0.0.1", 0))
            taken.listen()
            port = taken.getsockname()[1]
            done = self.check("--port", str(port))
        self.assertEqual(done.returncode, 2)
        self.assertIn(f"Port {port} is taken", done.stderr)
        self.assertIn(f"make demo PORT={port + 1}", done.stderr)

    def test_what_is_refused_before_the_application_is_told_as_a_problem_too(self) -> None:
        told = serve.told_as_problem(BadRequest("Malformed HTTP"), "Entretoile")
        self.assertEqual((told[0], told[1]), ("400 Bad Request", [("Content-Type", "application/problem+json")]))
        self.assertEqual(json.loads(told[2])["detail"], "Malformed HTTP")

    def test_a_port_that_does_not_exist(self) -> None:
        self.assertIn("does not exist", self.check("--port", "70000").stderr)
