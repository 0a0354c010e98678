"""At the bench: trimming by the recipe, taking readings down with the keyboard alone, and the judgement."""

from __future__ import annotations

import csv
import io

from browser_tests.journey import HALF_SEWN, JUST_PLANNED, JourneyCase, expect
from readings.models import ReadingRow


class TrimTest(JourneyCase):
    def test_both_ways_show_every_step_drawn(self) -> None:
        self.open(f"{HALF_SEWN}/trim")
        expect(self.page.locator(".steps").get_by_role("img")).to_have_count(4)
        expect(self.region("Target")).to_contain_text("4″")
        self.page.get_by_role("radio", name="Closed, before pressing").check()
        expect(self.page.get_by_role("heading", name="Trim the two short sides")).to_be_visible()
        self.assertIn("way=closed", self.page.url)

    def test_a_known_fold_warns_of_the_closed_way(self) -> None:
        self.open(f"{HALF_SEWN}/plan")
        self.labelled("Fold not paid for").fill("1/32")
        self.saved()
        self.open(f"{HALF_SEWN}/trim?way=closed")
        expect(self.region("Target")).to_contain_text("This way the unit opens to ≈3\u00a063⁄64″")


class CheckTest(JourneyCase):
    def setUp(self) -> None:
        super().setUp()
        self.small_squares()

    def open_check(self, project: str) -> None:
        self.open(f"{project}/check")
        expect(self.page.locator("#reading")).to_be_focused()

    def rows(self) -> list[str]:
        return self.region("Readings").locator("tbody tr").all_inner_texts()

    def test_type_enter_next(self) -> None:
        self.open_check(JUST_PLANNED)
        keys = self.page.keyboard
        for typed in ("3 1/4", "3-3/16", "3.25", "82.55 mm"):
            keys.type(typed)
            keys.press("Enter")
        readings = self.region("Readings")
        expect(readings.locator("tbody tr")).to_have_count(4)
        expect(readings).to_contain_text("1⁄16″ short")
        for _ in range(3):
            keys.press("ArrowDown")
        expect(self.page.get_by_role("radio", name="Row length")).to_be_checked()
        keys.type("8 5/8")
        keys.press("Enter")
        expect(readings).to_contain_text("Row of 3")
        keys.press("ArrowUp")
        expect(self.page.get_by_role("radio", name="Raw size")).to_be_checked()
        for _ in range(3):
            keys.press("ArrowDown")
        keys.type("31/32")
        keys.press("Enter")
        keys.type("3 7/16")
        keys.press("Enter")
        expect(readings).to_contain_text("takes up 17⁄64″, should 1⁄4″")
        self.assertEqual(ReadingRow.objects.filter(unit__project__name__startswith="Wake").count(), 6)

    def test_a_reading_that_cannot_be_read_comes_back_into_the_field(self) -> None:
        self.open_check(JUST_PLANNED)
        self.page.keyboard.type("three and a bit")
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_role("alert").filter(has_text="no number")).to_be_visible()
        expect(self.page.locator("#reading")).to_have_value("three and a bit")
        self.page.keyboard.type("3 1/4")
        self.page.keyboard.press("Enter")
        expect(self.region("Readings").locator("tbody tr")).to_have_count(1)

    def test_edit_delete_and_undo(self) -> None:
        self.open_check(HALF_SEWN)
        self.page.get_by_role("button", name="Edit Row of 3 10 23/32").click()
        self.page.keyboard.type("10 7/8")
        self.page.keyboard.press("Enter")
        expect(self.region("Readings")).to_contain_text("10\u00a07⁄8″")
        before = len(self.rows())
        self.page.get_by_role("button", name="Delete Row of 3 10 7/8").click()
        expect(self.region("Readings").locator("tbody tr")).to_have_count(before - 1)
        self.page.get_by_role("button", name="Undo").click()
        expect(self.region("Readings").locator("tbody tr")).to_have_count(before)

    def test_a_pasted_sheet_gives_what_is_good_and_names_what_is_not(self) -> None:
        self.open(f"{JUST_PLANNED}/check")
        self.page.get_by_role("button", name="Paste or open CSV").click()
        self.labelled("Lines").fill("unit_width,3 1/4\nunit_width,wide\nrow_length,8 3/4\nstitch,1/4\n")
        self.page.get_by_role("button", name="Take these lines").click()
        status = self.page.get_by_role("dialog").get_by_role("status")
        expect(status).to_contain_text("2 readings taken")
        expect(status).to_contain_text("Line 2")
        expect(status).to_contain_text("without its number of units")
        expect(self.labelled("Lines")).to_have_value("unit_width,wide\nrow_length,8 3/4")
        self.page.keyboard.press("Escape")
        expect(self.region("Readings").locator("tbody tr")).to_have_count(2)

    def test_a_sheet_can_be_saved(self) -> None:
        self.open(f"{HALF_SEWN}/check")
        with self.page.expect_download() as saving:
            self.page.get_by_role("link", name="Save as CSV").click()
        rows = list(csv.DictReader(io.StringIO(saving.value.path().read_text())))
        self.assertEqual(len(rows), 15)
        self.assertIn({"kind": "row_length", "value": "10 3/4", "row_units": "3", "whole": "", "note": "top row"}, rows)

    def test_readings_stand_on_the_ladder(self) -> None:
        self.open(f"{HALF_SEWN}/check")
        pins = self.page.locator(".pin")
        expect(pins).to_have_count(10)
        boxes = [p.bounding_box() for p in pins.all()]
        rung = self.page.locator(".cloth.trimmed").bounding_box()
        assert rung is not None
        true = [b for b in boxes if b and abs(b["x"] + b["width"] / 2 - rung["x"] - rung["width"]) < 1.5]
        self.assertEqual(len(true), 5, "five of seven units are exactly true")


class MendTest(JourneyCase):
    def setUp(self) -> None:
        super().setUp()
        self.small_squares()

    def test_the_wide_seam_is_named_with_what_to_do(self) -> None:
        self.open(f"{HALF_SEWN}/mend")
        verdict = self.region("Verdict")
        expect(verdict).to_contain_text("17⁄64″ short")
        expect(verdict).to_contain_text("seams sewn 3⁄64″ too wide")
        expect(self.region("This row")).to_contain_text("Unpick 2 seams")
        expect(self.region("The rest of the batch")).to_contain_text("Move the needle or guide by 1⁄16″")
        expect(self.region("The readings it rests on").locator("tbody tr")).to_have_count(15)

    def test_too_little_is_not_settled_until_the_named_reading_is_taken(self) -> None:
        self.open(f"{JUST_PLANNED}/mend")
        expect(self.page.get_by_role("heading", name="Nothing measured yet")).to_be_visible()
        self.page.get_by_role("link", name="Take down the first reading").click()
        expect(self.page.locator("#reading")).to_be_focused()
        for _ in range(3):
            self.page.keyboard.press("ArrowDown")
        self.page.keyboard.type("8 1/2")
        self.page.keyboard.press("Enter")
        expect(self.region("Readings")).to_contain_text("1⁄4″ short")
        self.page.get_by_role("link", name="Mend").click()
        verdict = self.region("Verdict")
        expect(verdict).to_contain_text("These readings do not settle it.")
        expect(verdict).to_contain_text("That would narrow the doubt")
        expect(self.region("The rest of the batch")).to_contain_text("Change nothing yet")
        verdict.get_by_role("link", name="Take that reading down").click()
        self.page.get_by_role("radio", name="Unit width").check()
        for _ in range(4):
            self.page.keyboard.type("3 1/4")
            self.page.keyboard.press("Enter")
        expect(self.region("Readings").locator("tbody tr")).to_have_count(5)
        self.page.get_by_role("link", name="Mend").click()
        expect(verdict).to_contain_text("too wide")

    def test_a_plan_that_lacks_its_margin_leads_back_to_it(self) -> None:
        self.open(f"{JUST_PLANNED}/plan")
        self.page.get_by_role("radio", name="Your margin").check()
        self.page.wait_for_timeout(900)
        for stage in ("trim", "check", "mend"):
            self.open(f"{JUST_PLANNED}/{stage}")
            expect(self.page.get_by_role("heading", name="The plan is not finished")).to_be_visible()
        self.page.get_by_role("link", name="Go to the plan").click()
        expect(self.labelled("Margin of your own, each side")).to_be_visible()
