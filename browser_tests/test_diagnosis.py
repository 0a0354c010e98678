"""A block measured on the drawing, judged, a remedy tried, a diagnosis kept; what if; and from what one sees to the ruler."""

from __future__ import annotations

import datetime as dt
import re

from playwright.sync_api import Route

from blocks.models import Block
from browser_tests.journey import LANTERN, JourneyCase, expect
from browser_tests.shots import WAKE
from diagnosis.models import SavedDiagnosis
from measuring.models import ReadingRow
from piecing.blocks.library import library_data


class DiagnoseTest(JourneyCase):
    def test_the_reading_asked_for_is_taken_with_its_side_picked(self) -> None:
        self.open(f"{LANTERN}/diagnose")
        verdict = self.region("Verdict")
        expect(verdict).to_contain_text("All seams are")
        expect(verdict).to_contain_text("and on which side")
        verdict.get_by_role("button", name="Take this one").click()
        form = self.region("Measure")
        expect(form).to_contain_text("Diagonal past the corner")
        sides = form.get_by_role("radio")
        expect(sides).to_have_count(2)
        form.get_by_text("it lands on the", exact=False).nth(1).click()
        self.labelled("The ruler reads").fill("1/16")
        self.labelled("The ruler reads").press("Enter")
        expect(self.region("Readings")).to_contain_text("it lands on the")
        self.saved()
        last = ReadingRow.objects.order_by("order").last()
        assert last is not None
        assert last.value is not None
        self.assertEqual((last.kind, last.value.sign), ("miss", -1))

    def test_how_seams_were_pressed_is_put_down_and_stays(self) -> None:
        self.open(f"{LANTERN}/measure")
        pressed = self.region("How seams were pressed")
        pressed.locator("[tabindex='0']").first.focus()
        self.page.keyboard.press("Enter")
        self.page.keyboard.press("ArrowDown")
        self.page.keyboard.press("Enter")
        expect(pressed).to_contain_text("row 1 seam 1")
        self.saved()
        self.assertEqual(Block.objects.get(pattern__name="Lantern").sewn_open, ["row 1 seam 1"])
        self.page.reload()
        expect(pressed).to_contain_text("row 1 seam 1")

    def test_a_remedy_is_tried_beside_the_block_as_it_is_and_a_diagnosis_kept(self) -> None:
        self.open(f"{LANTERN}/diagnose")
        self.region("This block").get_by_role("button", name="Try it on the drawing").first.click()
        expect(self.page.get_by_text("With the remedy, nothing unpicked yet")).to_be_visible()
        expect(self.page.get_by_text("As it is", exact=True)).to_be_visible()
        expect(self.region("Faults")).to_contain_text("What is left, on the whole")
        self.page.get_by_role("button", name="Show it as it is").first.click()
        expect(self.region("Faults")).to_contain_text("What is to be seen")
        kept = self.region("Kept")
        kept.get_by_role("button", name="Keep this one").click()
        expect(kept).to_contain_text("all seams are")
        self.saved()
        # By keys: the list opens upward here and moves as it is filtered, under a mouse as fast as this one.
        turned = self.labelled("What turned out")
        turned.fill("partly right")
        expect(self.page.locator(".n-base-select-option:visible")).to_have_text(["partly right"])
        turned.press("Enter")
        expect(kept).to_contain_text("0 right, 1 partly, 0 wrong")
        kept.get_by_label("What it was", exact=True).fill("also the ruler")
        kept.get_by_label("What it was", exact=True).press("Tab")
        self.saved()
        self.assertEqual(SavedDiagnosis.objects.get(block__isnull=False).later, "also the ruler")
        kept.get_by_role("button", name="Take it away").click()
        expect(kept).to_contain_text("None yet.")
        self.page.get_by_role("button", name="Undo").last.click()
        expect(kept.get_by_label("What it was", exact=True)).to_have_value("also the ruler")

    def test_places_are_picked_on_the_drawing_and_what_cannot_be_read_is_kept(self) -> None:
        self.open(f"{LANTERN}/diagnose")
        self.page.locator("svg.over rect.cell").nth(4).click()
        expect(self.region("Measure")).to_contain_text("row 2, column 2")
        value = self.labelled("The ruler reads")
        value.fill("broad")
        value.press("Enter")
        expect(self.region("Measure").get_by_role("alert")).to_contain_text("no number")
        expect(value).to_have_value("broad")
        value.fill("5 3/4")
        value.press("Enter")
        expect(self.region("Verdict")).to_contain_text("Set aside")
        readings = self.region("Readings")
        readings.get_by_role("button", name="It is right").click()
        expect(readings.get_by_role("button", name="It is right")).to_have_count(0)
        readings.get_by_role("button", name="Delete row 2, column 2: width").click()
        expect(readings).not_to_contain_text("row 2, column 2")
        self.page.get_by_role("button", name="Undo").click()
        expect(readings.get_by_text("row 2, column 2: width")).to_be_visible()

    def test_what_is_refused_while_one_types_on_stays_in_sight(self) -> None:
        """Refused after the next was entered, in the midst of it, or in sight for less than anybody reads; and what was read is put right."""
        self.open(f"{LANTERN}/measure")
        value, form = self.labelled("The ruler reads"), self.region("Measure")
        taken = self.region("Readings").get_by_role(
            "button", name="Delete one of the half-square triangles: trimmed width"
        )
        left_out = form.get_by_role("button", name="Leave it out")
        held: list[Route] = []
        self.page.route(
            "**/readings/*", lambda r: held.append(r) if "wide" in str(r.request.post_data) else r.continue_()
        )
        for typed, meanwhile in (("wide", "3 1/2"), ("widest", "3 1/")):
            value.press_sequentially(typed)
            value.press("Enter")
            self.until_held(held)
            value.press_sequentially(meanwhile)
            if meanwhile == "3 1/2":
                value.press("Enter")
            held.pop().continue_()
            expect(form.get_by_role("alert").filter(has_text=f"“{typed}”")).to_contain_text("no number")
            expect(value).to_have_value("" if meanwhile == "3 1/2" else meanwhile)
        value.press_sequentially("2")
        value.press("Enter")
        expect(taken).to_have_count(2)
        now = dt.datetime(2026, 11, 25, 9, 0)
        self.page.clock.set_fixed_time(now)
        for typed in ("broad", "long"):
            value.press_sequentially(typed)
            value.press("Enter")
            expect(value).to_have_value(typed)
            self.page.clock.set_fixed_time(now + dt.timedelta(seconds=2 if typed == "long" else 0))
            value.press_sequentially("3 1/2")
            value.press("Enter")
        expect(taken).to_have_count(4)
        expect(left_out).to_have_count(3)
        expect(form.get_by_role("alert").filter(has_text="Leave it out")).to_have_text(
            [re.compile(f"^“{t}” could") for t in ("wide", "widest", "broad")]
        )
        for n in (2, 1, 0):
            left_out.first.click()
            expect(left_out).to_have_count(n)

    def test_what_can_be_picked_lies_on_what_is_drawn(self) -> None:
        """On a wide screen and on a tablet, of a square block and of a row of geese that is three times as high as it is wide."""
        for width, height in ((1280, 800), (820, 1180)):
            self.page.set_viewport_size({"width": width, "height": height})
            for path in (LANTERN, f"{WAKE}/blocks/5e0a6f3c-3f57-4f0e-9a43-a9af6f1a0002"):
                self.open(f"{path}/diagnose")
                drawn, over = (self.page.locator(f".pickable > {s}").bounding_box() for s in (".drawing", ".over"))
                assert drawn is not None
                assert over is not None
                for side in ("x", "y", "width", "height"):
                    self.assertAlmostEqual(drawn[side], over[side], delta=1, msg=f"{path} at {width}: {side}")
                self.assertLess(drawn["height"], 500)

    def test_of_several_tips_the_one_that_was_read_is_picked(self) -> None:
        block = Block.objects.get(pattern__name="Lantern")
        block.pattern = library_data("star_in_a_square")
        block.save()
        self.open(f"{LANTERN}/diagnose")
        measure, value = self.region("Measure"), self.labelled("The ruler reads")
        self.choose("What", "Tip to raw edge")
        self.choose("Of which kind", "flying geese")
        expect(measure.get_by_label("Which tip", exact=True)).to_have_count(0)
        self.choose("Of which kind", "squares in squares")
        self.choose("Which tip", "top")
        for typed in ("3/16", "3/16"):
            value.fill(typed)
            value.press("Enter")
        readings = self.region("Readings")
        expect(readings.get_by_text("one of the squares in squares: top tip to raw edge")).to_have_count(2)
        self.choose("Which tip", "any of them")
        value.fill("1/4")
        value.press("Enter")
        expect(readings.get_by_text("one of the squares in squares: tip to raw edge")).to_be_visible()
        self.saved()
        taken = ReadingRow.objects.filter(kind="clearance").order_by("pk")
        self.assertEqual(sorted(r.corner for r in taken), ["", "top", "top"])

    def test_the_working_is_there_for_who_asks(self) -> None:
        self.open(f"{LANTERN}/diagnose")
        working = self.page.get_by_label("Show the working", exact=True)
        working.get_by_text("Show the working", exact=True).click()
        expect(working).to_contain_text("not measured")
        expect(working).to_contain_text("in 100")
        expect(working.get_by_role("region", name="Figures of the block")).to_contain_text("stitching distance")
        working.get_by_text("Show the working of every reading").click()
        expect(working).to_contain_text("row = Σ widths − 2 Σ take-ups")
        expect(working).to_contain_text("docs/theory, section 14.2")

    def test_a_layout_changed_under_its_readings(self) -> None:
        self.open(f"{LANTERN}/lay")
        self.page.get_by_role("link", name="Diagnose").first.click()
        expect(self.lines()).to_have_count(16)
        block = Block.objects.get(pattern__name="Lantern")
        rows = block.pattern["layout"]
        block.pattern = {**block.pattern, "layout": [rows[1], *rows[1:]]}
        block.save()
        self.page.reload()
        expect(self.region("Readings").get_by_text("no longer in the block").first).to_be_visible()
        expect(self.lines()).to_have_count(16)

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
        expect(self.region("What is off")).to_contain_text("all seams are 1⁄16″ wide")
        expect(comes).to_contain_text("1⁄4″ short across, 1⁄4″ short down")
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
        expect(self.region("These units")).to_contain_text("Make the flying geese")
        expect(self.region("These units").get_by_role("button")).to_have_count(0)
        working = self.page.get_by_label("Show the working", exact=True)
        working.get_by_text("Show the working", exact=True).click()
        working.get_by_text("Show the working of every reading").click()
        expect(working.locator("ol li")).to_have_count(8)
        hand.get_by_label("Finished").fill("wide")
        self.page.get_by_role("button", name="Judge these readings").click()
        expect(hand.get_by_role("alert").first).to_contain_text("no number")
        # It begins afresh, and the last is a press away; sizes typed since do not push its readings out.
        hand.get_by_label("Finished").fill("4")
        for _ in range(2):
            self.page.reload()
            expect(hand.get_by_label("Finished")).to_have_value("3 1/2″")
            hand.get_by_label("Seam allowance").fill("3/8")
        self.page.reload()
        hand.get_by_role("button", name="Take up what was typed last").click()
        expect(hand.get_by_label("Finished")).to_have_value("4")
        expect(hand.get_by_label(", line")).to_have_count(8)

    def test_readings_by_hand_are_typed_one_after_another_with_enter(self) -> None:
        self.open("/wrong?see=by-hand")
        hand, verdict = self.region("By hand"), self.region("Verdict")
        hand.get_by_label("Finished").fill("3")
        for name, values in (
            ("Trimmed width", ("3 1/2", "3 1/2")),
            ("Raw edge to stitching", ("9/32", "9/32", "9/32")),
            ("Row", ("12 5/16", "12 5/16")),
        ):
            hand.get_by_role("button", name=f"+ {name}").click()
            for value in values:
                self.page.keyboard.type(value)
                self.page.keyboard.press("Enter")
        expect(verdict).to_contain_text("All seams are 1⁄32″ wide")
        # What is asked for next has a line at once, which is gone again as soon as another is.
        expect(verdict).to_contain_text("The next reading")
        expect(verdict).to_contain_text("Lay the ruler's diagonal")
        verdict.get_by_role("button", name="Take this one").click()
        expect(hand.get_by_label("Diagonal past the corner, line 8")).to_be_focused()
        # The line that Enter offered goes when nothing was typed in it and another kind is asked for.
        expect(hand.get_by_label(", line")).to_have_count(3 + 5)
        values = [f.input_value() for f in hand.locator(".line input[aria-label*=', line']").all()]
        self.assertEqual(values, ["3 1/2", "3 1/2", "9/32", "9/32", "9/32", "12 5/16", "12 5/16", ""])
        # Strips are read twice before it is the next one's turn; what is wrong is told at its own line, with one below it.
        hand.get_by_role("button", name="+ Strip test").click()
        for typed in ("15/16", "3 3/8", "wide", "3 3/8"):
            self.page.keyboard.type(typed)
            self.page.keyboard.press("Enter")
        expect(
            hand.locator(".line", has=self.page.get_by_label("Strip test, line 9")).get_by_role("alert")
        ).to_be_visible()

    def test_on_a_tablet_the_verdict_stays_in_sight_however_many_lines_there_are(self) -> None:
        self.page.set_viewport_size({"width": 820, "height": 1180})
        self.open("/wrong?see=by-hand")
        hand, verdict = self.region("By hand"), self.region("Verdict")
        hand.get_by_label("Finished").fill("3")
        hand.get_by_role("button", name="+ Raw edge to stitching").click()
        for _ in range(20):
            self.page.keyboard.type("5/16")
            self.page.keyboard.press("Enter")
        expect(hand.get_by_label(", line")).to_have_count(21)
        for line in (21, 1):
            field = hand.get_by_label(f"Raw edge to stitching, line {line}", exact=True)
            field.focus()
            expect(verdict).to_be_in_viewport(ratio=1)
            box, stands = field.bounding_box(), verdict.bounding_box()
            assert box is not None
            assert stands is not None
            self.assertLessEqual(box["y"] + box["height"], stands["y"])

    def test_lines_by_hand_take_the_keyboard_and_a_seam_is_looked_at_before_all_is_left(self) -> None:
        self.open("/wrong?see=by-hand")
        hand, verdict = self.region("By hand"), self.region("Verdict")
        judge = self.page.get_by_role("button", name="Judge these readings")
        judge.click()
        expect(verdict).to_contain_text("Nothing is measured yet.")
        hand.get_by_label("Finished").fill("3")
        for name, values in (
            ("Trimmed width", ["3 1/2"] * 3),
            ("Row", ["wide", "12 1/2", "12 1/2"]),
            ("Trimmed height", ["3 1/2"]),
            ("Diagonal past the corner", ["0", "0"]),
        ):
            for value in values:
                hand.get_by_role("button", name=f"+ {name}").click()
                self.page.keyboard.type(value)
        expect(hand.get_by_label(", line")).to_have_count(9)
        judge.click()
        # What is refused is told at its own line, also once a line above it is gone, and goes with it.
        expect(hand.get_by_role("alert")).to_contain_text("no number")
        hand.get_by_role("button", name="Take line 1 away").click()
        expect(hand.locator(".line", has=self.page.get_by_label("Row, line 3")).get_by_role("alert")).to_be_visible()
        hand.get_by_role("button", name="Take line 3 away").click()
        expect(hand.get_by_role("alert")).to_have_count(0)
        hand.get_by_role("button", name="+ Trimmed width").click()
        self.page.keyboard.type("3 1/2")
        judge.click()
        expect(verdict).to_contain_text("no seam was looked at")
        expect(verdict).not_to_contain_text("First:")
        # At its end it runs off: read there, it is no seam that is right all along.
        hand.get_by_role("button", name="+ Raw edge to stitching").click()
        self.page.keyboard.type("5/16")
        where = hand.get_by_label("Where along the seam of line 9")
        where.click()
        self.page.keyboard.type("ends")
        self.page.keyboard.press("Enter")
        judge.click()
        expect(verdict).not_to_contain_text("All is true")
        with self.page.expect_response(lambda r: r.url.endswith("/api/diagnosis")) as asked:
            judge.click()
        self.assertEqual(asked.value.request.post_data_json["readings"][-1]["spot"], "end")
        hand.get_by_label("Raw edge to stitching, line 9").fill("1/4")
        judge.click()
        expect(verdict).to_contain_text("All is true")
        expect(verdict).to_contain_text("First: Leave it.")

    def test_a_block_with_empty_places_says_so(self) -> None:
        block = Block.objects.get(pattern__name="Lantern")
        block.pattern = {**block.pattern, "layout": [". " + row[2:] for row in block.pattern["layout"]]}
        block.save()
        self.open(f"{LANTERN}/diagnose")
        expect(self.page.get_by_role("alert")).to_contain_text("of the block are empty")


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
        self.begin_unit()
        self.page.wait_for_url("**/plan")
        self.page.get_by_role("link", name="Lay out").click()
        self.page.get_by_role("button", name="Choose an arrangement").click()
        self.page.wait_for_timeout(400)
        self.page.get_by_role("button", name="Pinwheel").first.click()
        self.page.wait_for_url("**/lay")
        self.page.get_by_role("link", name="Diagnose").first.click()
        verdict = self.region("Verdict")
        expect(verdict).to_contain_text("Nothing is measured yet")
        verdict.get_by_role("button", name="Take this one").click()
        self.labelled("The ruler reads").fill("4")
        self.labelled("The ruler reads").press("Enter")
        expect(self.lines()).to_have_count(1)
        expect(verdict).not_to_contain_text("Nothing is measured yet")
