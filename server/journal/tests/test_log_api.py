"""The log: trial pieces, what was made again, notes and photos, searched; a project as a whole. Through the API."""

from __future__ import annotations

from base64 import b64encode
from datetime import timedelta
from io import BytesIO
from typing import Any
from uuid import uuid4

from django.utils import timezone
from PIL import Image

from api.tests.api import ApiCase
from journal.models import LogEntry, Photo
from keeping.purge import purge
from progress.models import Done


def photo(width: int = 40, height: int = 30, kind: str = "JPEG", **more: Any) -> str:
    out = BytesIO()
    Image.new("RGB", (width, height), "#2f6f7e").save(out, kind, **more)
    return f"data:image/{kind.lower()};base64,{b64encode(out.getvalue()).decode()}"


class LogCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.project = self.new_project()
        self.unit = self.project["units"][0]["id"]

    def entry(self, expect: int = 200, key: str = "", unit: bool = False, **changes: Any) -> Any:
        of = {"unit": self.unit} if unit else {"project": self.project["id"]}
        body = {"changes": changes, "seen": {}, **of}
        return self.ask("put", f"log/{key or uuid4()}", body, expect=expect)


class EntryTest(LogCase):
    def test_a_trial_piece_says_what_came_of_it(self) -> None:
        row = self.entry(kind="trial", cuts={"square": "4 1/2"}, width="3 15/16", text="in Fog", unit=True)["rows"][0]
        self.assertEqual(
            row["title"].replace("\xa0", " "),
            "Trial: half-square triangle finishing 3 1⁄2″, squares 4 1⁄2″, came to 3 15⁄16″",
        )
        self.assertIn("1⁄16″ too small to be trimmed to 4″", row["lines"][0])
        self.assertEqual((row["text"], row["cuts"], row["project_name"]), ("in Fog", {"square": "4 1/2"}, "Lantern"))

    def test_as_it_was_judged_it_stays_when_the_plan_changes(self) -> None:
        before = self.entry(kind="trial", cuts={"square": "4 1/2"}, width="4 1/16", unit=True)["rows"][0]["lines"]
        self.change(f"units/{self.unit}", {"finished": "5"})
        self.assertEqual(self.ask("get", "log")["rows"][0]["lines"], before)

    def test_sizes_that_are_not_typed_are_those_planned(self) -> None:
        row = self.entry(kind="trial", width="4 1/8", unit=True)["rows"][0]
        self.assertEqual(list(row["cuts"]), ["square"])

    def test_notes_and_what_was_learned(self) -> None:
        key = str(uuid4())
        self.entry(key=key, kind="learned", text="Starch before cutting: no wave since.")
        self.entry(key=key, kind="learned", text="Starch before cutting: no wave since.")
        rows = self.ask("get", "log?kind=learned")["rows"]
        self.assertEqual([r["text"] for r in rows], ["Starch before cutting: no wave since."])
        changed = self.ask("put", f"log/{key}", {"changes": {"text": "Starch."}, "seen": {"text": "other"}}, expect=409)
        self.assertEqual(changed["code"], "changed_elsewhere")
        self.ask("delete", f"log/{key}")
        self.assertEqual(self.ask("get", "log")["rows"], [])
        self.assertEqual(len(self.ask("post", f"log/{key}/restore")["rows"]), 1)

    def test_nonsense(self) -> None:
        late = (timezone.localdate() + timedelta(days=8)).isoformat()
        nonsense: tuple[dict[str, Any], ...] = ({"kind": "poem", "text": "a"}, {"kind": "note", "text": "  "}, {"kind": "note", "text": "a", "day": late},
                      {"kind": "note", "text": "a" * 4_001})  # fmt: skip
        for wrong in nonsense:
            with self.subTest(wrong):
                self.entry(**wrong, expect=422)
        for wrong in ({"width": ""}, {"width": "9"}, {"width": "wide"}, {"width": "4", "cuts": {"square": "none"}}):
            with self.subTest(wrong):
                self.entry(kind="trial", unit=True, **wrong, expect=422)
        self.entry(kind="trial", width="4", expect=404)
        self.assertEqual(LogEntry.objects.count(), 0)

    def test_what_is_typed_is_never_run_as_a_page(self) -> None:
        self.entry(kind="note", text="<script>alert(1)</script>")
        answer = self.client.get("/api/log")
        self.assertEqual(answer["Content-Type"], "application/json")
        self.assertEqual(answer.json()["rows"][0]["text"], "<script>alert(1)</script>")


class PhotoTest(LogCase):
    def setUp(self) -> None:
        super().setUp()
        self.key = str(uuid4())
        self.entry(key=self.key, kind="note", text="The first block")

    def put(self, image: str, expect: int = 200, key: str = "", **more: Any) -> Any:
        return self.ask("put", f"log/{self.key}/photos/{key or uuid4()}", {"image": image, **more}, expect=expect)

    def test_a_photo_is_kept_without_what_a_camera_writes_beside_it(self) -> None:
        exif = Image.Exif()
        exif[0x0112] = 6  # lies on its side
        exif[0x010F] = "a camera"
        shown = self.put(photo(3_000, 1_500, exif=exif), caption="seams nested")["rows"][0]["photos"][0]
        self.assertEqual((shown["width"], shown["height"], shown["caption"]), (800, 1_600, "seams nested"))
        answer = self.client.get(f"/api/photos/{shown['id']}")
        self.assertEqual(answer["Content-Type"], "image/jpeg")
        with Image.open(BytesIO(answer.content)) as kept:
            self.assertEqual((kept.size, len(kept.getexif())), ((800, 1_600), 0))

    def test_sent_twice_taken_out_and_brought_back(self) -> None:
        key = str(uuid4())
        for caption in ("one", "two"):
            rows = self.put(photo(), key=key, caption=caption)["rows"]
        self.assertEqual([p["caption"] for p in rows[0]["photos"]], ["two"])
        self.assertEqual(self.ask("delete", f"photos/{key}")["rows"][0]["photos"], [])
        self.assertEqual(len(self.ask("post", f"photos/{key}/restore")["rows"][0]["photos"]), 1)
        self.ask("delete", f"photos/{key}")
        purge()
        self.assertEqual(Photo.objects.count(), 0)

    def test_what_is_no_photo(self) -> None:
        for wrong in (
            "",
            "x",
            "data:image/svg+xml;base64,AAAA",
            "data:image/jpeg;base64,AAAA",
            photo()[:80],
        ):
            with self.subTest(wrong[:30]):
                self.put(wrong, expect=422)
        self.put("data:image/jpeg;base64," + "A" * 1_950_000, expect=400)


class RemadeTest(LogCase):
    def spoil(self, **more: Any) -> str:
        run = self.ask("get", f"units/{self.unit}/bench")["runs"][0]
        for step in run["steps"]:
            body = {"subject": "units", "of": self.unit, "stage": step["stage"], "lot": 1, "step": step["key"]}
            self.ask("put", f"projects/{self.project['id']}/done/{uuid4()}", body)
        key = str(uuid4())
        body = {"subject": "units", "of": self.unit, "stage": "spoiled", "count": 1, **more}
        self.ask("put", f"projects/{self.project['id']}/done/{key}", body)
        return key

    def test_cloth_and_minutes_are_told_and_the_reason_can_come_later(self) -> None:
        key = self.spoil()
        row = self.ask("get", "log")["rows"][0]
        self.assertEqual(
            (row["kind"], row["title"].replace("\xa0", " ")),
            ("remade", "Made again: one half-square triangle finishing 3 1⁄2″"),
        )
        # A pair takes one square of each: 4 1/2 (4 3/8 rounded up) squared is 20.25.
        side = float(Done.objects.get(pk=key).lost["cloth"]["Dark"]) ** 0.5
        self.assertAlmostEqual(side % 0.125, 0, places=2)
        self.assertRegex(
            row["lines"][0], r"It takes [\d.]+.sq.in of Dark, [\d.]+.sq.in of Light, and usually \d minutes?\."
        )
        path = f"projects/{self.project['id']}/done/{key}/why"
        told = self.change(path, {"why": "trimmed", "note": "slipped"}, {"why": "", "note": ""})["rows"][0]
        self.assertEqual((told["title"][-17:], told["text"]), ("trimmed too small", "slipped"))
        self.change(path, {"why": "bad luck"}, expect=422)

    def test_with_its_reason_at_once_and_gone_when_taken_back(self) -> None:
        key = self.spoil(why="seam")
        self.assertEqual(self.ask("get", "log?kind=remade")["rows"][0]["why"], "seam")
        self.ask("delete", f"projects/{self.project['id']}/done/{key}")
        self.assertEqual(self.ask("get", "log?kind=remade")["rows"], [])
        self.change(f"projects/{self.project['id']}/done/{key}/why", {"why": "cut"}, expect=404)


class SearchTest(LogCase):
    def test_every_word_in_any_order_without_accents(self) -> None:
        self.entry(kind="note", text="Café curtain tried as backing")
        self.entry(kind="note", text="Starch and a cool iron")
        for asked, many in (("cafe backing", 1), ("IRON starch", 1), ("lantern", 2), ("velvet", 0), ("", 2)):
            self.assertEqual(self.ask("get", f"log?q={asked}")["count"], many, asked)
        other = self.new_project("Wake")
        self.assertEqual(self.ask("get", f"log?project={other['id']}")["count"], 0)

    def test_days_as_they_are_shown_and_as_they_are_typed(self) -> None:
        self.entry(kind="note", text="Press open.", day="2026-02-03")
        for asked, many in (("february 2026 press", 1), ("2026-02-03", 1), ("3 February", 1), ("march press", 0)):
            self.assertEqual(self.ask("get", f"log?q={asked}")["count"], many, asked)

    def test_machines_and_diagnoses_stand_in_it(self) -> None:
        self.ask("put", f"set-ups/{uuid4()}", {"changes": {"machine": "The grey one"}, "seen": {}, "came_from": None})
        for value in ("4 1/16", "4 3/32", "4 1/16", "4 1/16"):
            self.take_down(self.unit, "width", value)
        self.ask("put", f"units/{self.unit}/saved/{uuid4()}")
        kinds = {r["kind"] for r in self.ask("get", "log")["rows"]}
        self.assertEqual(kinds, {"set_up", "diagnosis"})

    def test_pages(self) -> None:
        for n in range(31):
            self.entry(kind="note", text=f"note {n}")
        first, second = (self.ask("get", f"log?page={p}") for p in (1, 2))
        self.assertEqual((len(first["rows"]), len(second["rows"]), first["pages"]), (30, 1, 2))
        self.ask("get", "log?page=nine", expect=400)


class StoryTest(LogCase):
    def test_a_project_as_a_whole(self) -> None:
        self.entry(kind="learned", text="Press open.", day=(timezone.localdate() - timedelta(days=2)).isoformat())
        self.entry(kind="note", text="Done")
        block = {"changes": {"finished": "10 1/2"}, "seen": {}, "start": "lantern"}
        self.ask("put", f"projects/{self.project['id']}/blocks/{uuid4()}", block)
        story = self.ask("get", f"projects/{self.project['id']}/story")
        self.assertEqual([r["text"] for r in story["rows"]], ["Press open.", "Done"])
        self.assertEqual(story["blocks"][0]["said"], "1 Lantern, finishing 10\xa01⁄2″")
        self.assertIn("Units", [f["heading"] for f in story["facts"]])

    def test_on_paper_with_a_photo(self) -> None:
        key = str(uuid4())
        self.entry(key=key, kind="note", text="Done")
        before = len(self.client.get(f"/api/projects/{self.project['id']}/story.pdf").content)
        self.ask("put", f"log/{key}/photos/{uuid4()}", {"image": photo(400, 300)})
        answer = self.client.get(f"/api/projects/{self.project['id']}/story.pdf")
        self.assertTrue(answer.content.startswith(b"%PDF"))
        self.assertGreater(len(answer.content), before + 500)
