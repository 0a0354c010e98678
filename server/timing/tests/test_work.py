"""What is left of a project as chores: counted from what is done, parted by blocks, added up whatever the rhythm; the plan that is kept."""

from __future__ import annotations

from collections import Counter
from datetime import datetime, timedelta
from typing import Any
from unittest import mock
from uuid import UUID, uuid4

from django.utils import timezone

from api.tests.api import ApiCase
from piecing.timing import Rhythm, WorkStage
from projects.models import Project
from timing.evenings import plan_of_room, told_of
from timing.models import KeptSitting, Schedule, WorkTime
from timing.selectors import paces_of
from timing.work import chores_of, cut_so_far, work_of
from workrooms.selectors import current_workroom


class WorkCase(ApiCase):
    """Three Lantern blocks: 12 half-squares, 12 hourglasses and 3 plain squares."""

    def setUp(self) -> None:
        super().setUp()
        self.key = str(uuid4())
        self.ask("post", "projects", {"id": self.key, "name": "Lantern"}, expect=201)
        self.block = str(uuid4())
        body = {
            "changes": {"finished": "10 1/2", "colourways": [{"count": 3, "roles": {}}]},
            "seen": {},
            "start": "lantern",
        }
        self.ask("put", f"projects/{self.key}/blocks/{self.block}", body)
        self.project = Project.objects.get(pk=self.key)

    def unit(self, kind: str) -> str:
        return str(self.project.units.get(kind=kind, deleted_at=None).pk)

    def sew(self, kind: str, lots: int = 1) -> int:
        of, sewn = self.unit(kind), 0
        for _ in range(lots):
            run = self.ask("get", f"units/{of}/bench")["runs"][0]
            lot = next(v for v in run["lots"] if not v["begun"])
            for step in run["steps"]:
                body = {"subject": "units", "of": of, "stage": step["stage"], "lot": lot["number"], "step": step["key"]}
                self.ask("put", f"projects/{self.key}/done/{uuid4()}", body)
            sewn += lot["units"]
        return sewn

    def chores(self, rhythm: Rhythm = Rhythm.NONE, first: Any = None) -> list[Any]:
        schedule = Schedule(project=self.project, rhythm=rhythm.value, first=first)
        return chores_of(self.project, work_of(self.project), schedule)


class ChoresTest(WorkCase):
    def test_everything_that_is_wanted_once(self) -> None:
        told = {(c.of.split(":")[0], c.stage.value): 0 for c in self.chores()}
        for c in self.chores():
            told[c.of.split(":")[0], c.stage.value] += c.count
        self.assertEqual(told["unit", "sew"], 24)
        self.assertEqual(told["unit", "trim"], 24)
        self.assertEqual(told["block", "join"], 3)
        self.assertEqual(
            told["pieces", "cut"], sum(p["wanted"] for p in self.ask("get", f"projects/{self.key}/cutting")["piles"])
        )

    def test_a_block_at_a_time_adds_up_to_the_same(self) -> None:
        def total(chores: list[Any]) -> Counter[tuple[str, str]]:
            found: Counter[tuple[str, str]] = Counter()
            for c in chores:
                found[c.of, c.stage.value] += c.count
            return found

        day = timezone.localdate()
        whole = total(self.chores())
        for rhythm in (Rhythm.BLOCK_MONTH, Rhythm.BLOCK_WEEK, Rhythm.STAGE_WEEK, Rhythm.DAY):
            with self.subTest(rhythm):
                self.assertEqual(total(self.chores(rhythm, day)), whole)
        sewn = self.sew("half_square_triangle")
        left = total(self.chores(Rhythm.BLOCK_MONTH, day))
        self.assertEqual(total(self.chores()), left)
        of = f"unit:{self.unit('half_square_triangle')}"
        self.assertEqual(left[of, "sew"], 12 - sewn)

    def test_what_is_done_is_counted_for_the_first_block(self) -> None:
        """Eight of twelve are sewn, four a block: the first two have theirs, the third waits for four."""
        self.ask(
            "patch", f"units/{self.unit('half_square_triangle')}/bench", {"changes": {"lot_goes": "4"}, "seen": {}}
        )
        self.assertEqual(self.sew("half_square_triangle"), 8)
        first = timezone.localdate() + timedelta(days=10)
        of = f"unit:{self.unit('half_square_triangle')}"
        sew = [
            (c.batch, c.count) for c in self.chores(Rhythm.BLOCK_WEEK, first) if c.of == of and c.stage is WorkStage.SEW
        ]
        self.assertEqual(sew, [(2, 4)])

    def test_a_unit_that_cannot_be_planned_keeps_nothing_else_out(self) -> None:
        before = len(self.chores())
        self.project.units.filter(kind="quarter_square_triangle").update(method="nothing")
        left = self.chores()
        self.assertLess(len(left), before)
        self.assertTrue(any(c.stage is WorkStage.JOIN for c in left))

    def test_cut_pieces_come_off(self) -> None:
        pile = self.ask("get", f"projects/{self.key}/cutting")["piles"][0]
        self.ask("patch", f"projects/{self.key}/cutting/piles/{pile['letter']}", {"changes": {"cut": "2"}, "seen": {}})
        self.assertEqual(cut_so_far(self.project), 2)
        (cut,) = [c for c in self.chores() if c.stage is WorkStage.CUT]
        self.assertEqual(
            cut.count, sum(p["wanted"] for p in self.ask("get", f"projects/{self.key}/cutting")["piles"]) - 2
        )


class KeptTest(WorkCase):
    def setUp(self) -> None:
        super().setUp()
        body = {"changes": {"weekday": 1, "begins": "19:30", "ends": "21:00"}, "seen": {}}
        self.ask("put", f"evenings/free/{uuid4()}", body)
        self.ask("patch", f"projects/{self.key}/schedule", {"changes": {"planned": True}, "seen": {}})

    def test_until_counts_on_from_what_is_through(self) -> None:
        sewn = self.sew("half_square_triangle")
        room = current_workroom()
        told = [t for tasks in told_of(plan_of_room(room)) for t in tasks]
        mine = [t for t in told if t["stage"] == "sew" and t["of"].endswith(self.unit("half_square_triangle"))]
        trim = [t for t in told if t["stage"] == "trim" and t["of"].endswith(self.unit("half_square_triangle"))]
        self.assertEqual(mine[-1]["until"] if mine else sewn, 12)
        self.assertEqual(trim[-1]["until"], 12)
        self.assertEqual(sum(t["count"] for t in trim), 12)

    def test_behind_is_over_once_it_is_done(self) -> None:
        self.ask("post", "evenings/kept")
        row = KeptSitting.objects.first()
        assert row is not None
        of = f"unit:{self.unit('half_square_triangle')}"
        task = {
            "project": self.key,
            "of": of,
            "stage": "sew",
            "said": "half-squares",
            "count": 12,
            "minutes": 9,
            "until": 12,
        }
        KeptSitting.objects.filter(pk=row.pk).update(begins="2026-01-06T19:30", ends="2026-01-06T21:00", tasks=[task])
        self.assertIn("12 would be done by now, 0 are", self.ask("get", "evenings")["behind"][0])
        self.sew("half_square_triangle", 1)
        left = self.ask("get", "evenings")["behind"]
        done = self.ask("get", f"projects/{self.key}/bench")["units"]
        sewn = next(u for u in done if u["unit"] == self.unit("half_square_triangle"))["tally"]["sewn"]
        self.assertEqual(left, [] if sewn >= 12 else left)
        # A new plan that is kept forgets what the old one would have done.
        self.ask("post", "evenings/kept")
        self.assertEqual(self.ask("get", "evenings")["behind"], [])

    def test_an_evening_that_is_under_way_stays_as_it_was_kept(self) -> None:
        self.ask("post", "evenings/kept")
        row = KeptSitting.objects.first()
        assert row is not None
        before = list(KeptSitting.objects.values_list("pk", flat=True))
        day = row.begins[:10]
        half_past = timezone.make_aware(datetime.fromisoformat(f"{day}T20:12:00"))
        with mock.patch("django.utils.timezone.now", return_value=half_past):
            self.ask("post", "evenings/kept")
        again = KeptSitting.objects.get(pk=row.pk)
        self.assertEqual((again.begins, again.ends, again.sequence, again.cancelled), (row.begins, row.ends, 0, False))
        self.assertLessEqual(set(before), set(KeptSitting.objects.values_list("pk", flat=True)))

    def test_a_project_put_away_is_planned_no_longer(self) -> None:
        self.assertTrue(self.ask("get", "evenings")["sittings"])
        self.ask("post", f"projects/{self.key}/archived")
        sheet = self.ask("get", "evenings")
        self.assertEqual((sheet["sittings"], sheet["projects"]), ([], []))

    def test_two_projects_share_the_evenings_and_what_is_due_goes_first(self) -> None:
        other = self.new_project("Wake")["id"]
        due = (timezone.localdate() + timedelta(days=9)).isoformat()
        changes = {"planned": True, "rhythm": "day", "first": due}
        sheet = self.ask("patch", f"projects/{other}/schedule", {"changes": changes, "seen": {}})
        order = [t["project"] for s in sheet["sittings"] for t in s["tasks"]]
        self.assertEqual(order, sorted(order, key=lambda p: p != other))
        self.assertEqual(set(order), {other, self.key})


class PaceOfRoomTest(WorkCase):
    def test_stages_are_known_apart_and_deleted_projects_do_not_stop_it(self) -> None:
        for stage, minutes in (("sew", "60"), ("trim", "12")):
            body = {"changes": {"stage": stage, "minutes": minutes, "count": "24"}, "seen": {}, "project": self.key}
            self.ask("put", f"times/{uuid4()}", body)
        paces = paces_of(current_workroom())
        self.assertGreater(paces[WorkStage.SEW].factor, 1.3)
        self.assertLess(paces[WorkStage.TRIM].factor, 0.9)
        self.assertEqual(paces[WorkStage.CUT].sittings, 0)
        self.ask("delete", f"projects/{self.key}")
        self.assertEqual(paces_of(current_workroom())[WorkStage.SEW].sittings, 1)
        self.assertEqual(len(self.ask("get", "times")["rows"]), 2)

    def test_a_clock_of_another_project_and_of_none(self) -> None:
        body = {"project": str(uuid4()), "stage": "sew", "at": timezone.now().isoformat()}
        self.ask("put", f"times/{uuid4()}/clock", body, expect=404)
        self.ask("post", f"times/{uuid4()}/clock", {"at": timezone.now().isoformat()}, expect=404)
        other = self.new_project("Wake")
        of = {"subject": "units", "of": other["units"][0]["id"], "project": self.key}
        changes = {"stage": "sew", "minutes": "9"}
        self.ask("put", f"times/{uuid4()}", {"changes": changes, "seen": {}, **of}, expect=404)
        self.assertEqual(WorkTime.objects.count(), 0)

    def test_two_windows_that_put_the_same_minutes_right(self) -> None:
        body = {"changes": {"stage": "sew", "minutes": "30", "count": "8"}, "seen": {}, "project": self.key}
        key = str(UUID(int=7))
        self.ask("put", f"times/{key}", body)
        self.ask("put", f"times/{key}", {"changes": {"minutes": "40"}, "seen": {"minutes": "30"}})
        clash = self.ask("put", f"times/{key}", {"changes": {"minutes": "20"}, "seen": {"minutes": "30"}}, expect=409)
        self.assertEqual(clash["code"], "changed_elsewhere")
        self.assertEqual(WorkTime.objects.get(pk=key).minutes, 40)
