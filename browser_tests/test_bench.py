"""At the bench: trimming by the recipe, taking readings down with the keyboard alone, and the judgement."""

from __future__ import annotations

import csv
import io

from browser_tests.journey import HALF_SEWN, JUST_PLANNED, JourneyCase, expect
from measuring.models import ReadingRow


class TrimTest(JourneyCase):
    def test_both_ways_show_every_step_drawn(self) -> None:
        self.open(f"{HALF_SEWN}/trim")
        expect(self.page.locator(".steps").get_by_role("img")).to_have_count(4)
        expect(self.region("Target")).to_contain_text("4″")
        self.pick("Closed, before pressing")
        expect(self.page.get_by_role("heading", name="Trim the two short sides")).to_be_visible()
        self.assertIn("way=closed", self.page.url)

    def test_a_known_fold_warns_of_the_closed_way(self) -> None:
        self.open(f"{HALF_SEWN}/plan")
        self.labelled("Fold not paid for").fill("1/32")
        self.saved()
        self.open(f"{HALF_SEWN}/trim?way=closed")
        expect(self.region("Target")).to_contain_text("This way the unit opens to a hair under 4″")


class MeasureTest(JourneyCase):
    def setUp(self) -> None:
        super().setUp()
        self.small_squares()

    def open_measure(self, project: str) -> None:
        self.open(f"{project}/measure")
        expect(self.labelled("The ruler reads")).to_be_focused()

    def test_type_enter_next_with_the_keyboard_alone(self) -> None:
        self.open_measure(JUST_PLANNED)
        keys, lines = self.page.keyboard, self.lines()
        for typed in ("3 1/4", "3-3/16", "3.25", "82.55 mm"):
            keys.type(typed)
            keys.press("Enter")
        expect(lines).to_have_count(4)
        expect(lines.filter(has_text="1⁄16″ short")).to_have_count(1)
        while "Row" not in self.region("Measure").inner_text():
            keys.press("ArrowDown")
        keys.type("8 5/8")
        keys.press("Enter")
        expect(self.region("Readings")).to_contain_text("a row of 3")
        keys.press("ArrowUp")
        expect(self.region("Measure")).to_contain_text("Strip test")
        keys.type("31/32")
        keys.press("Enter")
        keys.type("3 7/16")
        keys.press("Enter")
        expect(self.region("Readings")).to_contain_text("a thread wide")
        self.assertEqual(ReadingRow.objects.filter(unit__project__name__startswith="Wake").count(), 6)

    def test_four_in_a_second_are_all_kept(self) -> None:
        self.open_measure(JUST_PLANNED)
        self.page.route("**/readings/*", lambda route: (self.page.wait_for_timeout(250), route.continue_()))
        for typed in ("3 1/4", "3 9/32", "3 1/4", "3 7/32"):
            self.page.keyboard.type(typed)
            self.page.keyboard.press("Enter")
        expect(self.lines().filter(has_text="Edit")).to_have_count(4)
        self.assertEqual(ReadingRow.objects.filter(unit__project__name__startswith="Wake").count(), 4)

    def test_a_reading_that_cannot_be_read_comes_back_into_the_field(self) -> None:
        self.open_measure(JUST_PLANNED)
        self.page.keyboard.type("three and a bit")
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_role("alert").filter(has_text="no number")).to_be_visible()
        expect(self.labelled("The ruler reads")).to_have_value("three and a bit")
        self.page.keyboard.press("ControlOrMeta+a")
        self.page.keyboard.type("3 1/4")
        self.page.keyboard.press("Enter")
        expect(self.lines()).to_have_count(1)

    def test_a_slip_is_questioned_on_the_spot_and_one_key_keeps_it(self) -> None:
        self.open_measure(JUST_PLANNED)
        for typed in ("3 1/4", "3 1/4", "3 9/32", "3 1/4", "31 1/4"):
            self.page.keyboard.type(typed)
            self.page.keyboard.press("Enter")
        asked = self.region("Measure").get_by_role("alert")
        expect(asked).to_contain_text("and it reads 31\u00a01⁄4″")
        self.page.keyboard.press("F2")
        expect(asked).to_have_count(0)
        expect(self.region("Readings")).to_contain_text("Read twice, it stands")

    def test_edit_delete_and_undo(self) -> None:
        self.open_measure(HALF_SEWN)
        self.page.get_by_role("button", name="Edit a row of 3 10 23/32").click()
        field = self.labelled("a row of 3 reads")
        field.fill("10 7/8")
        field.press("Enter")
        expect(self.region("Readings")).to_contain_text("10\u00a07⁄8″")
        before = self.lines().count()
        self.page.get_by_role("button", name="Delete a row of 3 10 7/8").click()
        expect(self.lines()).to_have_count(before - 1)
        self.page.get_by_role("button", name="Undo").click()
        expect(self.lines()).to_have_count(before)

    def test_a_pasted_sheet_gives_what_is_good_and_names_what_is_not(self) -> None:
        self.open(f"{JUST_PLANNED}/measure")
        self.page.get_by_role("button", name="Paste CSV").click()
        box = self.region("Readings").get_by_role("textbox")
        box.fill("width,3 1/4\nwidth,wide\ncut,3 1/2\nstitch,1/4\nwobble,3\n")
        self.page.get_by_role("button", name="Take them in").click()
        expect(self.region("Readings").get_by_role("status")).to_contain_text("3 taken in; 2 not")
        expect(box).to_have_value("width,wide\nwobble,3")
        expect(self.lines()).to_have_count(3)

    def test_a_sheet_can_be_saved(self) -> None:
        self.open(f"{HALF_SEWN}/measure")
        with self.page.expect_download() as saving:
            self.page.get_by_role("link", name="Save as CSV").click()
        rows = list(csv.DictReader(io.StringIO(saving.value.path().read_text())))
        self.assertEqual(len(rows), 15)
        (top,) = [r for r in rows if r["note"] == "top row"]
        self.assertEqual((top["kind"], top["value"], top["count"]), ("row", "10 3/4", "3"))

    def test_readings_stand_on_the_ladder(self) -> None:
        self.open(f"{HALF_SEWN}/measure")
        pins = self.page.locator(".pin")
        expect(pins).to_have_count(10)
        boxes = [p.bounding_box() for p in pins.all()]
        rung = self.page.locator(".cloth.trimmed").bounding_box()
        assert rung is not None
        true = [b for b in boxes if b and abs(b["x"] + b["width"] / 2 - rung["x"] - rung["width"]) < 1.5]
        self.assertEqual(len(true), 5, "five of seven units are exactly true")


class DiagnoseARowTest(JourneyCase):
    def setUp(self) -> None:
        super().setUp()
        self.small_squares()

    def test_the_wide_seam_is_named_with_what_to_do(self) -> None:
        self.open(f"{HALF_SEWN}/diagnose")
        verdict = self.region("Verdict")
        expect(verdict).to_contain_text("All seams are 1⁄16″ wide")
        expect(verdict).to_contain_text("First: Sew all joining seams again")
        expect(self.region("This row")).to_contain_text("Unpick each of the 2 seams")
        expect(self.region("The rest of the batch")).to_contain_text("not at")

    def test_too_little_is_open_until_more_is_read(self) -> None:
        # Of hands of which nothing is known.
        ReadingRow.objects.all().delete()
        self.open(f"{JUST_PLANNED}/diagnose")
        verdict = self.region("Verdict")
        expect(verdict).to_contain_text("Nothing is measured yet")
        verdict.get_by_role("button", name="Take this one").click()
        self.choose("What", "Row")
        self.labelled("The ruler reads").fill("8 1/2")
        self.labelled("The ruler reads").press("Enter")
        expect(verdict).to_contain_text("These readings do not settle it")
        expect(self.region("The rest of the batch")).to_contain_text("Change nothing")
        self.choose("What", "Trimmed width")
        for _ in range(4):
            self.labelled("The ruler reads").fill("3 1/4")
            self.labelled("The ruler reads").press("Enter")
        self.choose("What", "Raw edge to stitching")
        for _ in range(4):
            self.labelled("The ruler reads").fill("5/16")
            self.labelled("The ruler reads").press("Enter")
        expect(verdict).to_contain_text("wide")
        expect(verdict).to_contain_text("Certain")

    def test_a_subject_is_picked_and_the_stage_stays(self) -> None:
        self.open(f"{HALF_SEWN}/measure")
        # What can be picked comes in with the project's blocks; a list read anew under the hand takes nothing at Enter.
        self.page.wait_for_load_state("networkidle")
        self.choose("What is measured", "Lantern")
        self.page.wait_for_url("**/measure")
        expect(self.page.get_by_role("heading", name="Measure Lantern")).to_be_attached()
        expect(self.region("Readings")).to_contain_text("taken elsewhere in this project")
        self.choose("What is measured", "By hand")
        expect(self.region("By hand")).to_be_visible()
        expect(self.page.get_by_role("heading", name="By hand", exact=True)).to_be_visible()
