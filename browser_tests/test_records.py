"""Records: a machine written down, its seam found by strip tests, hands over time, a lot watched, diagnoses that turned out."""

from __future__ import annotations

import re

from playwright.sync_api import expect

from browser_tests.journey import JourneyCase
from browser_tests.shots import HALF_SEWN
from measuring.models import ReadingRow
from setups.models import SetUp


class EmptyRecordsTest(JourneyCase):
    demo = False

    def test_from_nothing_to_a_seam_that_is_found_on_the_keyboard_alone(self) -> None:
        page = self.open("/records/hands")
        expect(page.get_by_text("Nothing is known of your hands yet")).to_be_visible()
        page.get_by_role("link", name="Sew a strip test").press("Enter")
        for label, text in (("Machine", "Galley machine"), ("Needle", "80"), ("Guide stands at", "1/4")):
            self.labelled(label).focus()
            page.keyboard.type(text)
        page.keyboard.press("Enter")
        expect(self.region("In use")).to_contain_text("needle 80")
        seam = self.region("Find your seam")
        expect(seam.get_by_role("status")).to_contain_text("Cut three strips")
        self.labelled("Middle strip").focus()
        page.keyboard.type("29/32")
        self.labelled("All three").focus()
        page.keyboard.type("3 5/16")
        page.keyboard.press("Enter")
        expect(seam.get_by_role("status")).to_contain_text("3 steps nearer the needle")
        # Sent once, not again with empty fields.
        page.wait_for_timeout(400)
        expect(seam.get_by_role("alert")).to_have_count(0)
        seam.get_by_role("button", name="The guide stands at").press("Enter")
        expect(self.labelled("Guide stood at")).to_have_value("13/64")
        for label, text in (("Middle strip", "1"), ("All three", "3 1/2")):
            self.labelled(label).focus()
            page.keyboard.type(text)
        page.keyboard.press("Enter")
        expect(seam.get_by_role("status")).to_contain_text("Leave the guide at")
        expect(self.region("Seam tests").get_by_role("row")).to_have_count(3)

    def test_what_is_refused_stays_in_its_fields(self) -> None:
        page = self.open("/records")
        self.labelled("Guide stands at").fill("a bit")
        page.get_by_role("button", name="Keep the machine").click()
        expect(page.get_by_role("alert").first).to_be_visible()
        expect(self.labelled("Guide stands at")).to_have_value("a bit")
        self.assertFalse(SetUp.objects.exists())
        self.labelled("Guide stands at").fill("1/4")
        self.labelled("Machine").fill("Galley machine")
        page.get_by_role("button", name="Keep the machine").click()
        self.labelled("Middle strip").fill("3 1/2")
        self.labelled("All three").fill("1")
        page.get_by_role("button", name="Take it down").first.click()
        expect(self.region("Find your seam").get_by_role("alert")).to_contain_text("three times the middle strip")
        expect(self.labelled("All three")).to_have_value("1")


class RecordsTest(JourneyCase):
    def test_a_change_of_needle_begins_a_new_set_up_and_can_be_undone(self) -> None:
        page = self.open("/records")
        now = self.region("In use")
        now.get_by_role("button", name="Change something").click()
        self.labelled("Needle").fill("70")
        now.get_by_role("button", name="Begin this set-up").click()
        expect(now).to_contain_text("needle 70")
        others = self.region("Earlier and other set-ups")
        expect(others).to_contain_text("needle 75")
        others.get_by_role("button", name="Use Galley machine, quarter-inch foot, needle 75").click()
        expect(now).to_contain_text("needle 75")
        others.get_by_role("button", name="Take away Galley machine, quarter-inch foot, needle 70").click()
        expect(others).not_to_contain_text("needle 70")
        page.get_by_role("button", name="Undo").click()
        expect(others).to_contain_text("needle 70")

    def test_hands_are_told_and_a_bad_day_is_left_out(self) -> None:
        page = self.open("/records/hands")
        seam = self.region("Seam")
        expect(seam).to_contain_text("Your seams take 1⁄32″ more than 1⁄4″")
        expect(seam.get_by_role("img").first).to_be_visible()
        expect(seam.locator("canvas").first).to_be_visible()
        seam.get_by_role("button", name="Day by day in a table").click()
        rows = seam.get_by_role("row")
        before = rows.count()
        day = str(rows.nth(2).get_by_role("cell").first.text_content())
        same = rows.filter(has_text=day).count()
        rows.nth(2).get_by_role("button").click()
        expect(self.region("Days left out")).to_contain_text(day)
        expect(rows).to_have_count(before - same)
        page.get_by_role("button", name=f"Take {day} back").click()
        expect(rows).to_have_count(before)

    def test_a_lot_whose_seam_drifts_is_told(self) -> None:
        page = self.open(f"{HALF_SEWN}/sew")
        page.get_by_role("navigation", name="Units of this project").get_by_role("link").nth(1).click()
        page.get_by_role("link", name="Measure one in so many").click()
        lot = self.region("How the lot goes")
        expect(lot.get_by_role("status")).to_contain_text(re.compile("about unit 17.*the seam runs wider"))
        expect(lot.get_by_role("status")).to_contain_text("units are in doubt")
        before = ReadingRow.objects.filter(nth__gt=0).count()
        self.labelled("The ruler reads").fill("9/32")
        self.labelled("And a hand further on").fill("5/16")
        page.keyboard.press("Enter")
        expect(self.labelled("The ruler reads")).to_have_value("")
        self.saved()
        self.assertEqual(ReadingRow.objects.filter(nth__gt=0).count(), before + 2)
        self.labelled("The ruler reads").fill("wide")
        page.keyboard.press("Enter")
        expect(self.region("Measure one").get_by_role("alert")).to_be_visible()
        expect(self.labelled("The ruler reads")).to_have_value("wide")
        # A lot that is none is not taken for the first one.
        self.labelled("The ruler reads").fill("9/32")
        self.labelled("Lot", page).fill("second")
        page.keyboard.press("Enter")
        self.labelled("The ruler reads").press("Enter")
        expect(self.region("Measure one").get_by_role("alert")).to_contain_text("is a whole number")
        self.assertEqual(ReadingRow.objects.filter(nth__gt=0).count(), before + 2)

    def test_kept_diagnoses_lead_to_where_they_are(self) -> None:
        page = self.open("/records/diagnoses")
        expect(self.region("How they turned out")).to_contain_text("certain")
        self.region("Kept").get_by_role("link").last.click()
        expect(page).to_have_url(re.compile(re.escape(HALF_SEWN) + ".*diagnose"))

    def test_the_library_by_ones_own_hands_and_what_would_help(self) -> None:
        page = self.open("/records/library")
        section = self.region("Will it come out?")
        expect(section).to_contain_text("by your own seam")
        self.choose("Holding", "Flying geese")
        page.get_by_role("button", name="What would help with Wake").click()
        expect(section).to_contain_text("Set the guide so that the seam takes what is wanted.")

    def test_a_test_typed_while_the_server_is_away_is_kept(self) -> None:
        page = self.open("/records")
        page.route("**/api/**", lambda route: route.abort())
        self.labelled("Middle strip").fill("15/16")
        self.labelled("All three").fill("3 3/8")
        page.get_by_role("button", name="Take it down").first.click()
        expect(page.locator("header .saved")).to_have_text("Kept in this browser")
        page.unroute("**/api/**")
        page.reload()
        self.saved()
        self.assertEqual(ReadingRow.objects.filter(test_of__isnull=False).count(), 41)
