"""A block measured on the drawing, judged, a remedy tried, a diagnosis kept; what if; and from what one sees to the ruler."""

from __future__ import annotations

from browser_tests.journey import HALF_SEWN, LANTERN, JourneyCase, expect
from sewn.models import Kept, Measured


class SewnTest(JourneyCase):
    def test_the_reading_asked_for_settles_the_demo_block(self) -> None:
        self.open(f"{LANTERN}/sewn")
        verdict = self.region("Verdict")
        expect(verdict).to_contain_text("These readings do not settle it")
        expect(verdict).to_contain_text("trimming off the diagonal")
        verdict.get_by_role("button", name="Take this one").click()
        expect(self.labelled("What")).to_have_value("miss")
        expect(self.labelled("Which corner")).to_have_value("bottom left")
        self.labelled("The ruler reads").fill("1/16")
        self.labelled("The ruler reads").press("Enter")
        expect(verdict).to_contain_text("Two things together")
        expect(verdict).to_contain_text("off the diagonal")
        self.saved()
        self.assertEqual(Measured.objects.order_by("order").last().kind, "miss")  # type: ignore[union-attr]
        batch = self.region("The rest of the batch")
        expect(batch).to_contain_text("Move the needle or guide")
        expect(batch).to_contain_text("Lay the ruler’s line".replace("’", "'"))

    def test_a_remedy_is_tried_and_the_diagnosis_kept_and_compared(self) -> None:
        self.open(f"{LANTERN}/sewn")
        block = self.region("This block")
        first = block.get_by_role("button", name="Try it on the drawing").first
        first.click()
        expect(self.page.get_by_role("status").filter(has_text="Tried on the drawing")).to_be_visible()
        expect(self.region("Faults")).to_contain_text("What is left")
        self.page.get_by_role("button", name="Show it as it is").first.click()
        expect(self.region("Faults")).to_contain_text("What is to be seen")
        kept = self.region("Kept")
        kept.get_by_role("button", name="Keep this one").click()
        expect(kept.get_by_label("What turned out")).to_be_visible()
        kept.get_by_label("What turned out").select_option("partly")
        expect(kept).to_contain_text("0 right, 1 partly, 0 wrong")
        kept.get_by_label("What it was").fill("also the ruler")
        kept.get_by_label("What it was").press("Tab")
        self.saved()
        self.assertEqual(Kept.objects.get().later, "also the ruler")

    def test_places_are_picked_on_the_drawing_and_what_cannot_be_read_is_kept(self) -> None:
        self.open(f"{LANTERN}/sewn")
        box = self.page.locator("svg.over rect.cell").nth(4)
        box.click()
        expect(self.labelled("Which unit")).to_have_value("4")
        value = self.labelled("The ruler reads")
        value.fill("broad")
        value.press("Enter")
        expect(self.region("Measure").get_by_role("alert")).to_contain_text("no number")
        expect(value).to_have_value("broad")
        value.fill("3 3/4")
        value.press("Enter")
        expect(self.region("Verdict")).to_contain_text("Asked about, and left out until then")
        readings = self.region("Readings")
        readings.get_by_role("button", name="It is right").click()
        expect(readings.get_by_role("button", name="It is right")).to_have_count(0)
        readings.get_by_role("button", name="Delete row 2, column 2: trimmed width").click()
        expect(readings).not_to_contain_text("row 2, column 2")
        self.page.get_by_role("button", name="Undo").click()
        expect(readings.get_by_text("row 2, column 2: trimmed width")).to_be_visible()

    def test_every_reading_shows_its_working(self) -> None:
        self.open(f"{LANTERN}/sewn")
        self.page.get_by_text("Show the working of every reading").click()
        expect(self.region("Taken apart")).to_contain_text("row = Σ widths − 2 Σ take-ups")
        expect(self.region("Taken apart")).to_contain_text("docs/theory.md, section 14.2")

    def test_sliders_move_the_block_and_its_figures(self) -> None:
        self.open(f"{LANTERN}/what-if")
        comes = self.region("What it comes to")
        expect(comes).to_contain_text("What the seam costs: 2 seams across and 2 down")
        self.page.get_by_role("button", name="All true").click()
        expect(comes).to_contain_text("No fault to be seen")
        seam = self.page.get_by_role("slider", name="Stitching distance")
        seam.focus()
        for _ in range(4):
            seam.press("ArrowRight")
        expect(self.region("What is off")).to_contain_text("seams sewn 1⁄16″ too wide")
        expect(comes).to_contain_text("−1⁄4″")
        many = self.region("Many blocks")
        expect(many).to_contain_text("10,000 blocks")
        expect(many).to_contain_text("No room to trim: half-square triangles")

    def test_from_what_one_sees_to_a_judgement_without_a_project(self) -> None:
        self.open("/wrong")
        self.page.get_by_role("button", name="My points are cut off").click()
        expect(self.page.get_by_role("heading", name="Where is the point?")).to_be_visible()
        self.page.get_by_role("button", name="its tip is gone").click()
        expect(self.region("What to measure")).to_contain_text("Tip to raw edge")
        self.page.get_by_role("button", name="This is how it should look").click()
        expect(self.region("How it looks").get_by_role("img", name="How it should look")).to_be_visible()
        hand = self.region("By hand")
        hand.get_by_label("Finished").fill("5 1/2")
        for name, values in (
            ("Raw edge to stitching", ["1/4", "1/4"]),
            ("Tip to raw edge", ["3/16", "3/16", "3/16"]),
            ("Trimmed width", ["6", "6"]),
            ("A piece as cut", ["7"]),
        ):
            for value in values:
                hand.get_by_role("button", name=f"+ {name}").click()
                hand.get_by_label(f"{name}, line").last.fill(value)
        self.page.get_by_role("button", name="Judge these readings").click()
        expect(self.region("Verdict")).to_contain_text("above the tip")
        hand.get_by_label("Finished").fill("wide")
        self.page.get_by_role("button", name="Judge these readings").click()
        expect(hand.get_by_role("alert").first).to_contain_text("no number")

    def test_a_block_with_empty_places_says_so(self) -> None:
        from blocks.models import Block

        block = Block.objects.get(pattern__name="Lantern")
        block.pattern = {**block.pattern, "layout": [". " + row[2:] for row in block.pattern["layout"]]}
        block.save()
        self.open(f"{LANTERN}/sewn")
        expect(self.page.get_by_role("alert")).to_contain_text("of the block are empty")

    def test_mend_leads_to_the_sewn_block(self) -> None:
        self.open(f"{HALF_SEWN}/mend")
        self.page.get_by_role("link", name="A block as sewn").click()
        expect(self.region("Verdict")).to_be_visible()


class FromNothingTest(JourneyCase):
    demo = False

    def to(self, words: str) -> None:
        """Tab on until this has the focus."""
        for _ in range(60):
            self.page.keyboard.press("Tab")
            if self.page.locator(f":focus:has-text('{words}')").count():
                return
        self.fail(f"{words} was not reached by Tab.")

    def test_what_is_wrong_by_keyboard_alone_with_an_empty_database(self) -> None:
        keys = self.page.keyboard
        self.open("/")
        self.to("What is wrong?")
        keys.press("Enter")
        expect(self.page.get_by_role("heading", name="What do you see?")).to_be_visible()
        self.to("too small, or too large")
        keys.press("Enter")
        self.to("By exactly a half or a quarter")
        keys.press("Enter")
        for value in ("3 1/2", "3 17/32", "3 1/2"):
            self.to("+ Trimmed width")
            keys.press("Enter")
            self.page.get_by_label("Trimmed width, line").last.focus()
            keys.type(value)
        keys.press("Enter")
        expect(self.region("Verdict")).to_contain_text("finished and unfinished size mixed up")

    def test_a_new_block_is_measured_from_its_first_reading(self) -> None:
        self.open("/")
        self.page.get_by_role("button", name="Plan a first unit").click()
        self.page.wait_for_url("**/plan")
        self.page.get_by_role("link", name="Lay out").click()
        self.page.get_by_role("button", name="Choose an arrangement").click()
        self.page.wait_for_timeout(400)
        self.page.get_by_role("button", name="Pinwheel").first.click()
        self.page.wait_for_url("**/lay")
        self.page.get_by_role("link", name="As sewn").click()
        verdict = self.region("Verdict")
        expect(verdict).to_contain_text("Nothing measured yet")
        verdict.get_by_role("button", name="Take this one").click()
        self.labelled("The ruler reads").fill("4")
        self.labelled("The ruler reads").press("Enter")
        expect(self.region("Readings").get_by_role("listitem")).to_have_count(1)
        expect(verdict).not_to_contain_text("Nothing measured yet")
