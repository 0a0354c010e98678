"""Minutes and evenings: a clock that asks nothing, her pace, free time, what is late, calendars both ways."""

from __future__ import annotations

from datetime import timedelta

from django.utils import timezone
from playwright.sync_api import expect

from browser_tests.journey import HALF_SEWN, JourneyCase
from timing.models import FreeTime, WorkTime


class ClockTest(JourneyCase):
    def test_begun_at_the_bench_it_runs_on_every_page_and_counts_what_is_put_down(self) -> None:
        page = self.open(f"{HALF_SEWN}/sew")
        page.get_by_role("button", name="Time sewing").click()
        clock = page.get_by_role("banner")
        expect(clock).to_contain_text("Sewing, 0 min")
        expect(page.get_by_role("button", name="Time sewing")).to_have_count(0)
        self.open(f"{HALF_SEWN}/bench")
        expect(page.locator("header")).to_contain_text("Sewing, 0 min")
        page.get_by_role("button", name="Done", exact=True).click()
        self.saved_by(lambda: WorkTime.objects.filter(ended=None).count() == 1)
        WorkTime.objects.filter(ended=None).update(began=timezone.now() - timedelta(minutes=12))
        self.open("/records/minutes")
        page.get_by_role("button", name="Stop the clock").click()
        newest = self.region("Minutes put down").get_by_role("row").nth(1)
        expect(newest).to_contain_text("12 minutes")
        expect(page.get_by_role("button", name="Stop the clock")).to_have_count(0)

    def test_begun_while_the_server_is_away_it_loses_no_minute(self) -> None:
        page = self.open(f"{HALF_SEWN}/trim")
        page.route("**/api/times/**", lambda route: route.abort())
        page.get_by_role("button", name="Time trimming").click()
        expect(page.get_by_role("banner")).to_contain_text("Trimming, 0 min")
        page.unroute("**/api/times/**")
        self.saved()
        self.assertTrue(WorkTime.objects.filter(ended=None, stage="trim").exists())

    def saved_by(self, known: object) -> None:
        assert callable(known)
        self.page.wait_for_timeout(300)
        self.assertTrue(known())


class MinutesTest(JourneyCase):
    def test_typed_put_right_taken_away_and_brought_back(self) -> None:
        page = self.open("/records/minutes")
        put = self.region("Minutes put down")
        self.choose("Project", "Wake", put)
        self.choose("Stage", "Trimming", put)
        self.labelled("Minutes").fill("soon")
        put.get_by_role("button", name="Put them down").click()
        expect(put.get_by_role("alert")).to_contain_text("Give minutes, such as 35")
        expect(self.labelled("Minutes")).to_have_value("soon")
        self.labelled("Minutes").fill("35")
        self.labelled("How many were done").fill("30")
        self.labelled("How many were done").press("Enter")
        newest = put.get_by_role("row").nth(1)
        expect(newest).to_contain_text("35 minutes")
        newest.get_by_role("button", name="Put right").click()
        newest.get_by_label("Minutes").fill("1:10")
        newest.get_by_role("button", name="Keep").click()
        expect(newest).to_contain_text("1 hour 10 minutes")
        newest.get_by_role("button", name="Take away").click()
        expect(newest).not_to_contain_text("1 hour 10 minutes")
        page.get_by_role("button", name="Undo").click()
        expect(newest).to_contain_text("1 hour 10 minutes")

    def test_pasted_lines_leave_what_was_refused(self) -> None:
        self.open("/records/minutes")
        put = self.region("Minutes put down")
        put.get_by_role("button", name="Take in a sheet").click()
        put.get_by_label("Lines").fill(
            '2026-11-02,"Lantern, twelve blocks",press,9,32,\n2026-11-02,Nobody\'s,press,9,32,'
        )
        put.get_by_role("button", name="Take them in").click()
        expect(put.get_by_role("status")).to_contain_text("1 taken in; 1 not")
        expect(put.get_by_label("Lines")).to_have_value("2026-11-02,Nobody's,press,9,32,")

    def test_a_blade_is_put_in_and_a_limit_set(self) -> None:
        page = self.open("/records/minutes")
        wear = self.region("Needle and blade")
        wear.get_by_role("button", name="A fresh blade is in").click()
        expect(wear).to_contain_text(f"The last one on {timezone.localdate().isoformat()}")
        page.get_by_role("button", name="Undo").click()
        expect(wear).not_to_contain_text("The last one on")
        self.labelled("A fresh needle after hours of sewing").fill("never")
        wear.get_by_role("button", name="Keep").click()
        expect(wear.get_by_role("alert")).to_contain_text("whole number")


class EveningsTest(JourneyCase):
    size = (820, 1180)

    def test_what_is_late_is_said_and_the_plan_is_kept_for_a_calendar(self) -> None:
        page = self.open("/records/evenings")
        plan, lantern = self.region("Planned evenings"), self.region("Lantern, twelve blocks")
        expect(lantern).to_contain_text("in good time")
        expect(plan).to_contain_text("This is the plan you kept.")
        soon = (timezone.localdate() + timedelta(days=2)).isoformat()
        self.labelled("Day", page).fill(soon)
        self.labelled("Day", page).press("Enter")
        expect(lantern).to_contain_text("Late.")
        page.get_by_role("button", name="Take away Tuesday 19:30").click()
        expect(plan).not_to_contain_text("Tuesday")
        plan.get_by_role("button", name="Keep this plan").click()
        expect(plan).to_contain_text("This is the plan you kept.")
        with page.expect_download() as saving:
            plan.get_by_role("link", name="The kept plan for a calendar").click()
        text = saving.value.path().read_text()
        self.assertIn("STATUS:CANCELLED", text)
        self.assertIn("SUMMARY:Lantern\\, twelve blocks", text)
        page.get_by_role("link", name="Lantern, twelve blocks").click()
        expect(self.region("Time")).to_contain_text("Late.")

    def test_a_calendar_is_taken_in_and_rubbish_is_told(self) -> None:
        page = self.open("/records/evenings")
        first = self.region("Planned evenings").get_by_role("listitem").first.inner_text().split("\n")[0]
        free = self.region("Free time")
        chooser = free.locator("input[type=file]")
        rubbish = {"name": "list.ics", "mimeType": "text/calendar", "buffer": b"day;minutes"}
        chooser.set_input_files(rubbish)  # type: ignore[arg-type]
        expect(free.get_by_role("alert")).to_contain_text("not a calendar")
        days = "\r\n".join(
            f"BEGIN:VEVENT\r\nUID:w{n}\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;VALUE=DATE:{day:%Y%m%d}\r\nSUMMARY:watch\r\nEND:VEVENT"
            for n, day in enumerate(timezone.localdate() + timedelta(days=d) for d in range(14))
        )
        watch = f"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//x\r\n{days}\r\nEND:VCALENDAR\r\n"
        chooser.set_input_files({"name": "watch.ics", "mimeType": "text/calendar", "buffer": watch.encode()})
        expect(free).to_contain_text("watch.ics 14 times")
        expect(self.region("Planned evenings").get_by_role("listitem").first).not_to_contain_text(first)
        free.get_by_role("button", name="Leave out watch.ics").click()
        expect(self.region("Planned evenings").get_by_role("listitem").first).to_contain_text(first)
        self.labelled("Not free on", page).fill("soon")
        free.get_by_role("button", name="Not this day").click()
        expect(free.get_by_role("alert")).to_contain_text("A day is written")


class FirstEveningTest(JourneyCase):
    demo = False

    def test_from_nothing_on_the_keyboard_alone(self) -> None:
        self.begin_unit(count="16")
        page = self.open("/records/evenings")
        expect(self.region("Planned evenings")).to_contain_text("Say when you are usually free")
        self.labelled("From").focus()
        page.keyboard.press("Control+A")
        page.keyboard.type("late")
        page.keyboard.press("Enter")
        expect(self.region("Free time").get_by_role("alert")).to_contain_text("A time is written 19:30")
        page.keyboard.press("Control+A")
        page.keyboard.type("19.30")
        page.keyboard.press("Enter")
        expect(self.region("Free time")).to_contain_text("Tuesday 19:30 to 21:00")
        self.region("Not planned").get_by_role("button", name="Plan").press("Enter")
        expect(self.region("Planned evenings")).to_contain_text("Sew half-square triangles")
        self.assertEqual(FreeTime.objects.count(), 1)


class TwoWindowsTest(JourneyCase):
    """A tablet beside the machine and a laptop at the table, on one project."""

    def test_a_clock_begun_on_the_tablet_is_stopped_at_the_table(self) -> None:
        page = self.open(f"{HALF_SEWN}/sew")
        tablet = self.open(f"{HALF_SEWN}/bench", self.elsewhere())
        tablet.get_by_role("button", name="Time sewing").click()
        expect(tablet.locator("header")).to_contain_text("Sewing, 0 min")
        page.reload()
        expect(page.get_by_role("banner")).to_contain_text("Sewing, 0 min")
        page.get_by_role("button", name="Time sewing").wait_for(state="detached")
        page.get_by_role("button", name="Stop the clock").click()
        expect(page.get_by_role("button", name="Time sewing")).to_be_visible()
        self.saved()
        # The tablet does not know yet; stopped twice, the first time stands.
        tablet.get_by_role("button", name="Stop the clock").click()
        expect(tablet.get_by_role("button", name="Time sewing")).to_be_visible()
        self.assertEqual(WorkTime.objects.filter(project__name__startswith="Lantern", ended=None).count(), 0)

    def test_another_stage_stops_the_first_wherever_it_was_begun(self) -> None:
        page = self.open(f"{HALF_SEWN}/trim")
        page.get_by_role("button", name="Time trimming").click()
        expect(page.get_by_role("banner")).to_contain_text("Trimming")
        other = self.open(f"{HALF_SEWN}/press", self.elsewhere())
        other.get_by_role("button", name="Time pressing").click()
        expect(other.get_by_role("banner")).to_contain_text("Pressing, 0 min")
        self.assertEqual(WorkTime.objects.filter(ended=None).count(), 1)

    def test_minutes_that_both_put_right_are_asked_about(self) -> None:
        page = self.open("/records/minutes")
        other = self.open("/records/minutes", self.elsewhere())
        for window, minutes in ((page, "41"), (other, "52")):
            row = window.get_by_role("region", name="Minutes put down").get_by_role("row").nth(1)
            row.get_by_role("button", name="Put right").click()
            row.get_by_label("Minutes").fill(minutes)
            row.get_by_role("button", name="Keep").click()
            if window is page:
                expect(row).to_contain_text("40 minutes")
        clash = other.get_by_role("dialog")
        expect(clash).to_be_visible()
        expect(clash).to_contain_text("52")

    def test_what_is_free_and_late_follows_in_the_other_window(self) -> None:
        page = self.open("/records/evenings")
        other = self.open("/records/evenings", self.context.new_page())
        page.get_by_role("button", name="Take away Sunday 15:00").click()
        expect(self.region("Free time")).not_to_contain_text("Sunday")
        expect(self.region("Free time", other)).not_to_contain_text("Sunday")
        expect(self.region("Planned evenings", other)).not_to_contain_text("Sunday")


class ReadAloudTest(JourneyCase):
    """What a screen reader is told of minutes and evenings."""

    def test_headings_tables_and_what_changes_are_told(self) -> None:
        page = self.open("/records/minutes")
        expect(page.get_by_role("columnheader").first).to_be_visible()
        heads = page.get_by_role("columnheader").all_inner_texts()
        self.assertEqual(heads[:4], ["Stage", "Pace", "Rests on", "Put down in all"])
        self.assertEqual(page.get_by_role("rowheader").first.inner_text(), "Cutting")
        labels = page.get_by_role("button", name="Put right: Sewing").all()
        self.assertGreater(len(labels), 1)
        self.open("/records/evenings")
        expect(self.page.get_by_role("button", name="Plan Wake, five rows")).to_be_visible()
        expect(self.page.get_by_role("heading", name="Usually free")).to_be_visible()
        self.page.get_by_role("button", name="Plan Wake, five rows").press("Enter")
        expect(self.region("Wake, five rows")).to_contain_text("About")


class NothingYetTest(JourneyCase):
    """An empty workroom: every page says what it is for, and none asks for what is not there."""

    demo = False

    def test_minutes_evenings_and_the_log(self) -> None:
        page = self.open("/records/minutes")
        expect(self.region("Minutes put down")).to_contain_text("Begin a project first")
        expect(page.get_by_role("button", name="Put them down")).to_have_count(0)
        expect(self.region("Your pace")).to_contain_text("as is usual, until you time some")
        expect(self.region("Needle and blade")).to_contain_text("Nothing is due.")
        self.open("/records/evenings")
        expect(self.region("Planned evenings")).to_contain_text("Say when you are usually free")
        self.open("/records/log")
        expect(self.region("Log")).to_contain_text("Nothing is put down yet")
        expect(page.get_by_role("button", name="A trial piece")).to_have_count(0)
        page.get_by_role("button", name="A note").click()
        self.labelled("What to note").fill("First evening")
        page.get_by_role("button", name="Keep it").click()
        expect(self.region("Log")).to_contain_text("First evening")

    def test_a_project_without_a_block_has_nothing_to_measure(self) -> None:
        self.begin_unit()
        key = self.page.url.split("/projects/")[1].split("/")[0]
        self.open(f"/projects/{key}/measured")
        expect(self.page.get_by_role("main")).to_contain_text("No block is laid out yet")
        self.open(f"/projects/{key}/story")
        expect(self.region("What was learned")).to_contain_text("Nothing is put down yet")
