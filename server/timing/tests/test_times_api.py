"""Minutes, own pace, quiet notes, and evenings: through the API."""

from __future__ import annotations

from datetime import datetime, time, timedelta
from typing import Any
from unittest.mock import patch
from uuid import uuid4

from django.db import IntegrityError, transaction
from django.utils import timezone
from icalendar import Calendar

from api.tests.api import ApiCase
from piecing.errors import TimeNotUnderstood
from progress.models import Done
from timing.models import KeptSitting, WorkTime
from timing.readers import clock_reader
from workrooms.selectors import current_workroom


def _now(**ago: float) -> str:
    return (timezone.now() - timedelta(**ago)).isoformat()


class TimesCase(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.project = self.new_project()
        self.unit = self.project["units"][0]["id"]
        self.ask("patch", f"units/{self.unit}", {"changes": {"count": "48"}, "seen": {}})

    def typed(self, expect: int = 200, **changes: Any) -> Any:
        of = {"subject": "units", "of": self.unit} if changes.pop("of_unit", True) else {}
        body = {"changes": {"stage": "trim", **changes}, "seen": {}, "project": self.project["id"], **of}
        return self.ask("put", f"times/{uuid4()}", body, expect=expect)

    def begin(self, stage: str, at: str) -> str:
        key = str(uuid4())
        self.ask("put", f"times/{key}/clock", {"project": self.project["id"], "stage": stage, "at": at})
        return key

    def sew_a_lot(self) -> int:
        run = self.ask("get", f"units/{self.unit}/bench")["runs"][0]
        for step in run["steps"]:
            body = {"subject": "units", "of": self.unit, "stage": step["stage"], "lot": 1, "step": step["key"]}
            self.ask("put", f"projects/{self.project['id']}/done/{uuid4()}", body)
        return int(run["lots"][0]["units"])

    def pace(self, stage: str) -> Any:
        return next(s for s in self.ask("get", "times")["stages"] if s["stage"] == stage)


class ClockTest(TimesCase):
    def test_what_is_put_down_while_it_runs_is_counted(self) -> None:
        key = self.begin("sew", _now())
        sewn = self.sew_a_lot()
        WorkTime.objects.filter(pk=key).update(began=timezone.now() - timedelta(minutes=24))
        sheet = self.ask("post", f"times/{key}/clock", {"at": _now()})
        self.assertIsNone(sheet["running"])
        row = sheet["rows"][0]
        self.assertEqual((row["count"], row["minutes"], row["counted"]), (sewn, "24", True))
        self.assertEqual(self.pace("sew")["sittings"], 1)
        self.assertIn("takes you", self.pace("sew")["pace"])

    def test_stages_do_not_mix(self) -> None:
        key = self.begin("trim", _now(minutes=10))
        self.sew_a_lot()
        self.ask(
            "put",
            f"projects/{self.project['id']}/done/{uuid4()}",
            {"subject": "units", "of": self.unit, "stage": "trimmed", "count": 7},
        )
        row = self.ask("post", f"times/{key}/clock", {"at": _now()})["rows"][0]
        self.assertEqual(row["count"], 7)
        self.assertAlmostEqual(WorkTime.objects.get(pk=key).usual or 0, 7 * 0.7)

    def test_another_clock_stops_the_first_and_two_never_run(self) -> None:
        first = self.begin("sew", _now(minutes=30))
        second = self.begin("press", _now(minutes=5))
        sheet = self.ask("get", "times")
        self.assertEqual(sheet["running"]["id"], second)
        self.assertEqual([(r["id"], r["minutes"]) for r in sheet["rows"]], [(first, "25")])
        with self.assertRaises(IntegrityError), transaction.atomic():
            WorkTime.objects.update(ended=None)

    def test_sent_twice_it_is_one(self) -> None:
        key = self.begin("sew", _now(minutes=9))
        body = {"project": self.project["id"], "stage": "sew", "at": _now()}
        self.ask("put", f"times/{key}/clock", body)
        for _ in range(2):
            sheet = self.ask("post", f"times/{key}/clock", {"at": _now()})
        self.assertEqual([r["minutes"] for r in sheet["rows"]], ["9"])

    def test_begun_by_a_slip_of_the_thumb_it_asks_nothing(self) -> None:
        key = self.begin("sew", _now())
        for _ in range(2):
            sheet = self.ask("post", f"times/{key}/clock", {"at": _now()})
            self.assertEqual((sheet["running"], sheet["rows"]), (None, []))

    def test_left_running_over_night_it_asks(self) -> None:
        key = self.begin("sew", _now(hours=11))
        row = self.ask("post", f"times/{key}/clock", {"at": _now()})["rows"][0]
        self.assertEqual((row["minutes"], row["counted"]), ("", False))

    def test_left_running_it_goes_by_what_was_put_down_last(self) -> None:
        key = self.begin("sew", _now(hours=11))
        self.sew_a_lot()
        WorkTime.objects.filter(pk=key).update(made_at=timezone.now() - timedelta(hours=11))
        Done.objects.update(at=timezone.now() - timedelta(hours=10, minutes=20))
        row = self.ask("post", f"times/{key}/clock", {"at": _now()})["rows"][0]
        self.assertEqual(row["minutes"], "40")

    def test_a_clock_set_back_leaves_the_minutes_open(self) -> None:
        key = self.begin("sew", _now())
        row = self.ask("post", f"times/{key}/clock", {"at": _now(hours=2)})["rows"][0]
        self.assertEqual(row["minutes"], "")
        changed = self.ask("put", f"times/{key}", {"changes": {"minutes": "1:20"}, "seen": {"minutes": ""}})
        self.assertEqual(changed["rows"][0]["told"], "1 hour 20 minutes")

    def test_nonsense(self) -> None:
        for at in ("yesterday", "2031-01-01T00:00:00+00:00", "2026-01-01T00:00:00"):
            body = {"project": self.project["id"], "stage": "sew", "at": at}
            self.ask("put", f"times/{uuid4()}/clock", body, expect=422)


class TypedTest(TimesCase):
    def test_minutes_by_hand_speak_of_her_pace(self) -> None:
        for _ in range(6):
            sheet = self.typed(minutes="67", count="48")
        self.assertEqual(len(sheet["rows"]), 6)
        # 48 units of 0.7 minutes usually; she takes twice as long, and six times outweigh what is held likely.
        pace = self.pace("trim")
        self.assertEqual((pace["sittings"], pace["sure"]), (6, "likely"))
        told = self.ask("get", f"projects/{self.project['id']}/time")
        trim = next(s for s in told["stages"] if s["stage"] == "trim")
        self.assertIn(trim["told"], ("1 hour", "1 hour 5 minutes"))
        self.assertEqual(trim["spent"], "6 hours 45 minutes")

    def test_a_bad_day_left_out_says_nothing_of_it(self) -> None:
        day = (timezone.localdate() - timedelta(days=3)).isoformat()
        self.typed(minutes="100", count="48", day=day)
        self.ask("put", f"records/days/{day}")
        self.assertEqual(self.pace("trim")["sittings"], 0)

    def test_put_right_taken_away_and_brought_back(self) -> None:
        row = self.typed(minutes="35", count="24")["rows"][0]
        before = WorkTime.objects.get(pk=row["id"]).usual or 0
        changed = self.ask("put", f"times/{row['id']}", {"changes": {"count": "48"}, "seen": {"count": "24"}})
        self.assertEqual(changed["rows"][0]["count"], 48)
        self.assertAlmostEqual(WorkTime.objects.get(pk=row["id"]).usual or 0, 2 * before)
        self.assertEqual(self.ask("delete", f"times/{row['id']}")["rows"], [])
        self.assertEqual(len(self.ask("post", f"times/{row['id']}/restore")["rows"]), 1)

    def test_another_stage_takes_the_minutes_that_are_usual_for_that(self) -> None:
        key = self.typed(minutes="35", count="48", of_unit=False)["rows"][0]["id"]
        self.ask("put", f"times/{key}", {"changes": {"stage": "press"}, "seen": {"stage": "trim"}})
        # A quarter of a minute each, not seven tenths.
        self.assertAlmostEqual(WorkTime.objects.get(pk=key).usual or 0, 48 * 0.25)

    def test_nonsense_keeps_its_reason(self) -> None:
        tomorrow = (timezone.localdate() + timedelta(days=9)).isoformat()
        for wrong in ({"minutes": "a while"}, {"minutes": ""}, {"minutes": "-3"}, {"minutes": "1441"}, {"minutes": "9", "stage": "iron"},
                      {"minutes": "9", "count": "some"}, {"minutes": "9", "day": tomorrow}):  # fmt: skip
            with self.subTest(wrong):
                self.typed(**wrong, expect=422)

    def test_as_a_sheet_both_ways(self) -> None:
        self.typed(minutes="35", count="48", note="=2+2")
        sheet = self.client.get("/api/times/minutes.csv").content.decode()
        self.assertIn("'=2+2", sheet)
        again = self.ask("post", "times/minutes.csv", {"text": sheet})
        self.assertEqual((again["added"], again["refused"][0]["reason"]), (0, "These minutes are here already."))
        WorkTime.objects.all().delete()
        mine = sheet + "2026-11-01;Nobody's;trim;9;;\r\n" + "rubbish\r\n"
        done = self.ask("post", "times/minutes.csv", {"text": mine})
        self.assertEqual((done["added"], len(done["refused"])), (1, 2))
        self.assertEqual(self.pace("trim")["sittings"], 1)


class WearTest(TimesCase):
    def test_a_needle_by_the_hours_it_sews(self) -> None:
        changes = {"machine": "The grey one", "needle": "80"}
        body = {"changes": changes, "seen": {}, "came_from": None}
        self.ask("put", f"set-ups/{uuid4()}", body)
        self.assertEqual(self.ask("get", "times")["reminders"], [])
        for _ in range(2):
            sheet = self.typed(stage="sew", minutes="4:10", count=None)
        self.assertIn("A fresh one is due", sheet["reminders"][0])
        self.ask("patch", "workroom", {"changes": {"needle_hours": ""}, "seen": {"needle_hours": "8"}})
        self.assertEqual(self.ask("get", "times")["reminders"], [])

    def test_a_blade_by_its_cuts(self) -> None:
        self.ask("patch", "workroom", {"changes": {"blade_cuts": "60"}, "seen": {}})
        self.sew_a_lot()
        day = timezone.localdate().isoformat()
        key = uuid4()
        self.assertEqual(self.ask("put", f"blades/{key}/{day}")["reminders"], [])
        body = {"subject": "units", "of": self.unit, "stage": "trimmed", "count": 14}
        self.ask("put", f"projects/{self.project['id']}/done/{uuid4()}", body)
        self.assertIn("about 56 cuts", self.ask("get", "times")["reminders"][0])
        self.assertEqual(self.ask("delete", f"blades/{key}/{day}")["blade"], None)


class EveningsTest(TimesCase):
    def free(self, expect: int = 200, **changes: Any) -> Any:
        body = {"changes": {"weekday": 1, "begins": "19:30", "ends": "21", **changes}, "seen": {}}
        return self.ask("put", f"evenings/free/{uuid4()}", body, expect=expect)

    def plan(self, **changes: Any) -> Any:
        body = {"changes": {"planned": True, **changes}, "seen": {}}
        return self.ask("patch", f"projects/{self.project['id']}/schedule", body)

    def test_the_rest_is_laid_into_free_evenings(self) -> None:
        self.assertEqual(self.ask("get", "evenings")["sittings"], [])
        self.free()
        sheet = self.plan()
        stages = [t["stage"] for s in sheet["sittings"] for t in s["tasks"]]
        self.assertEqual(stages, sorted(stages, key=["cut", "sew", "press", "trim"].index))
        self.assertTrue(all(s["day"].startswith("Tuesday") and s["begins"] == "19:30" for s in sheet["sittings"]))
        self.assertTrue(any("Trim half-square triangles" in t["said"] for s in sheet["sittings"] for t in s["tasks"]))

    def test_what_is_late_is_said(self) -> None:
        self.free()
        today = timezone.localdate()
        late = self.plan(rhythm="day", first=(today + timedelta(days=1)).isoformat())["projects"][0]["lates"]
        self.assertTrue(late[0]["late"])
        self.assertIn("as things go it is done Tuesday", late[0]["said"])
        good = self.plan(first=(today + timedelta(days=300)).isoformat())["projects"][0]["lates"]
        self.assertIn("in good time", good[0]["said"])

    def at(self, day: int, clock: str) -> Any:
        """What is told at an hour of a Tuesday in a far year, or so many days later."""
        hour, minute = map(int, clock.split(":"))
        then = datetime(2030, 1, 1, hour, minute, tzinfo=timezone.get_current_timezone()) + timedelta(days=day)
        return patch("django.utils.timezone.now", return_value=then)

    def test_that_time_goes_by_makes_no_other_plan(self) -> None:
        """Tuesdays from 19:30 to 21:00: kept in the morning, it is the same before, at and while one sits at it; not when it was let go by."""
        self.free()
        self.plan()
        with self.at(0, "10:00"):
            self.assertTrue(self.ask("post", "evenings/kept")["same"])
        for clock in ("19:24", "19:27", "19:30", "19:31", "19:44", "20:55"):
            with self.at(0, clock):
                self.assertTrue(self.ask("get", "evenings")["same"], clock)
        with self.at(1, "10:00"):
            self.assertFalse(self.ask("get", "evenings")["same"])
        # Kept anew while one sits at it, it stays so to its end.
        with self.at(7, "20:12"):
            self.ask("post", "evenings/kept")
        for clock in ("20:12", "20:31", "20:58"):
            with self.at(7, clock):
                self.assertTrue(self.ask("get", "evenings")["same"], clock)

    def test_kept_it_goes_out_and_changed_it_keeps_its_name(self) -> None:
        self.ask("post", "evenings/kept", expect=422)
        self.free()
        self.assertFalse(self.plan()["same"])
        self.assertTrue(self.ask("post", "evenings/kept")["same"])
        first = self.events()
        self.assertEqual({str(e["STATUS"]) for e in first.values()}, {"CONFIRMED"})
        # Another evening instead of Tuesdays: those are cancelled under their names.
        held = self.ask("get", "evenings")["free"][0]
        self.ask("delete", f"evenings/free/{held['id']}")
        self.free(weekday=3)
        self.assertFalse(self.ask("get", "evenings")["same"])
        self.ask("post", "evenings/kept")
        then = self.events()
        self.assertLess(set(first), set(then))
        self.assertEqual({(str(then[k]["STATUS"]), int(then[k]["SEQUENCE"])) for k in first}, {("CANCELLED", 1)})
        self.ask("post", f"evenings/free/{held['id']}/restore")
        self.ask("post", "evenings/kept")
        self.assertEqual({str(self.events()[k]["STATUS"]) for k in list(first)[:1]}, {"CONFIRMED"})

    def events(self) -> dict[str, Any]:
        text = self.client.get("/api/evenings/evenings.ics").content
        self.assertTrue(text.startswith(b"BEGIN:VCALENDAR\r\n"))
        self.assertTrue(all(len(line) <= 75 for line in text.split(b"\r\n")))
        return {str(e["UID"]): e for e in Calendar.from_ical(text).walk("VEVENT")}

    def test_own_sittings_in_a_calendar_are_not_busy(self) -> None:
        self.free()
        planned = self.plan()["sittings"]
        self.ask("post", "evenings/kept")
        text = self.client.get("/api/evenings/evenings.ics").content.decode()
        sheet = self.ask("post", "evenings/calendars", {"name": "mine.ics", "text": text})
        self.assertEqual(sheet["sources"], [])
        self.assertEqual(sheet["sittings"], planned)

    def test_busy_times_are_left_out(self) -> None:
        self.free()
        first = self.plan()["sittings"][0]["date"]
        day = first.replace("-", "")
        event = f"BEGIN:VEVENT\r\nUID:a\r\nDTSTAMP:20260101T000000Z\r\nDTSTART:{day}T190000\r\nDTEND:{day}T200000\r\nRRULE:FREQ=WEEKLY;COUNT=2\r\nSUMMARY:choir\r\nEND:VEVENT"
        text = f"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//x\r\n{event}\r\nEND:VCALENDAR\r\n"
        sheet = self.ask("post", "evenings/calendars", {"name": "choir.ics", "text": text})
        self.assertEqual([(s["name"], s["count"]) for s in sheet["sources"]], [("choir.ics", 2)])
        self.assertEqual([s["begins"] for s in sheet["sittings"][:2]], ["20:00", "20:00"])
        self.assertNotIn("choir", str(list(current_workroom().busy.values_list("begins", "ends"))))
        again = self.ask("post", "evenings/calendars", {"name": "choir.ics", "text": text})
        self.assertEqual(again["sources"][0]["count"], 2)
        left = self.ask("delete", "evenings/calendars?name=choir.ics")
        self.assertEqual(left["sittings"][0]["begins"], "19:30")
        self.assertNotEqual(self.ask("put", f"evenings/busy/{first}")["sittings"][0]["date"], first)
        self.assertEqual(self.ask("delete", f"evenings/busy/{first}")["sittings"][0]["date"], first)

    def test_a_block_a_month(self) -> None:
        block = {
            "changes": {"finished": "10 1/2", "colourways": [{"count": 3, "roles": {}}]},
            "seen": {},
            "start": "lantern",
        }
        self.ask("put", f"projects/{self.project['id']}/blocks/{uuid4()}", block)
        self.free(weekday=1)
        first = timezone.localdate() + timedelta(days=30)
        told = self.plan(rhythm="block_month", first=first.isoformat())["projects"][0]
        self.assertEqual(len(told["lates"]), 3)
        self.assertEqual(told["lates"][0]["due"], first.isoformat())

    def test_behind_the_plan_that_was_kept(self) -> None:
        self.free()
        self.plan()
        self.ask("post", "evenings/kept")
        row = KeptSitting.objects.first()
        assert row is not None
        KeptSitting.objects.filter(pk=row.pk).update(begins="2026-01-06T19:30", ends="2026-01-06T21:00")
        self.assertIn("by the plan you kept", self.ask("get", "evenings")["behind"][0])

    def test_a_time_as_people_write_it(self) -> None:
        read = clock_reader()
        for text, at in (
            ("19:30", time(19, 30)),
            ("19.30", time(19, 30)),
            ("19h30", time(19, 30)),
            ("7:30 pm", time(19, 30)),
            ("7:30 p.m.", time(19, 30)),
            ("7pm", time(19)),
            ("12 am", time(0)),
            ("12:15 PM", time(12, 15)),
            ("9 a.m.", time(9)),
        ):
            with self.subTest(text):
                self.assertEqual(read(text), at)
        for text in ("25:00", "19:60", "13 pm", "0 am", "7 xm", "half past seven"):
            with self.subTest(text), self.assertRaises(TimeNotUnderstood):
                read(text)

    def test_nonsense(self) -> None:
        for wrong in ({"weekday": 9}, {"begins": "25:00"}, {"begins": "late"}, {"ends": "19:00"}, {"ends": ""}):
            with self.subTest(wrong):
                self.free(**wrong, expect=422)
        for text in ("", "day;machine\n1;2", "BEGIN:VCALENDAR\r\nEND:VEVENT", "BEGIN:VCALENDAR\nBEGIN:VEVENT\nDTSTART:tomorrow\nEND:VEVENT\nEND:VCALENDAR", "x" * 1_600_000):  # fmt: skip
            with self.subTest(text[:20]):
                self.ask("post", "evenings/calendars", {"name": "a.ics", "text": text}, expect=422 if text else 400)
        self.plan(first="")
        body = {"changes": {"first": "2226-01-01"}, "seen": {}}
        self.ask("patch", f"projects/{self.project['id']}/schedule", body, expect=422)
        for typed in ("soon", "2026", "a%2Fb"):
            refused = self.ask("put", f"evenings/busy/{typed}", expect=422)
            self.assertEqual(refused["errors"][0]["message"], "A day is written 2026-11-25, or 25 Nov.")
