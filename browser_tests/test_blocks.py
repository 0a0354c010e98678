"""Blocks: laid out with mouse and keys, looked over, joined, pressed, counted, set into a quilt, scraps laid."""

from __future__ import annotations

import re

from playwright.sync_api import Locator

from blocks.models import Block, Quilt
from browser_tests.journey import HALF_SEWN, JUST_PLANNED, LANTERN, JourneyCase, expect
from projects.models import PlannedUnit


class LayingOutTest(JourneyCase):
    demo = False

    def begin(self, arrangement: str = "") -> None:
        self.begin_unit()
        self.page.get_by_role("link", name="Lay out").click()
        if not arrangement:
            self.page.get_by_role("button", name="Begin with an empty grid").click()
        else:
            self.page.get_by_role("button", name="Choose an arrangement").click()
            dialog = self.page.get_by_role("dialog", name="Which arrangement to begin with")
            self.page.wait_for_timeout(400)
            dialog.get_by_role("button", name=arrangement).first.click()
        self.page.wait_for_url("**/lay")

    def place(self, row: int, column: int) -> Locator:
        return self.page.get_by_role("button", name=f"Row {row}, column {column}:")

    def layout(self) -> list[str]:
        self.saved()
        return list(Block.objects.get(deleted_at=None).pattern["layout"])

    def test_a_block_by_mouse(self) -> None:
        self.begin()
        expect(self.page.get_by_role("status").filter(has_text="9 places of the block are empty")).to_be_visible()
        self.pick("Half-square triangle")
        self.page.get_by_role("button", name="Row 1, column 1:").click()
        expect(self.page.get_by_role("button", name="Row 1, column 1: Half-square triangle")).to_be_visible()
        # Laid again, it turns.
        self.page.get_by_role("button", name="Row 1, column 1:").click()
        expect(self.page.get_by_role("button", name="turned a quarter right")).to_have_count(1)
        self.pick("Plain square")
        self.page.get_by_role("button", name="Row 1, column 2:").click()
        self.page.get_by_role("button", name="Row 2, column 2:").click()
        expect(self.page.get_by_role("button", name="Row 2, column 2: Plain square")).to_be_visible()
        self.page.get_by_role("button", name="Fill the rest").click()
        expect(self.page.get_by_text("of the block are empty")).to_have_count(0)
        self.assertEqual(self.layout(), ["A1 B0 A2", "B3 B0 B1", "A0 B2 A3"])

    def test_a_goose_takes_two_places_and_is_bent_only_when_asked(self) -> None:
        self.begin()
        self.pick("Flying goose")
        self.place(1, 1).click()
        expect(self.labelled("Columns covered")).to_have_value("2")
        expect(self.place(1, 2)).to_have_count(0)
        self.place(1, 3).click()
        expect(self.labelled("Rows covered")).to_have_value("2")
        for row, column in ((2, 1), (2, 2), (3, 1), (3, 2), (3, 3)):
            self.pick("Plain square")
            self.place(row, column).click()
        self.pick("Flying goose")
        self.place(3, 3).click()
        asked = self.page.get_by_role("alert").filter(has_text="would be bent")
        expect(asked).to_be_visible()
        expect(self.place(3, 3)).to_have_accessible_name(re.compile("Plain square"))
        self.page.get_by_role("button", name="Bend it all the same").click()
        expect(asked).to_have_count(0)
        expect(self.place(3, 3)).to_have_accessible_name(re.compile("Flying goose"))
        self.saved()

    def test_a_block_by_keys_alone_undone_and_redone(self) -> None:
        self.begin()
        keys = self.page.keyboard
        self.page.get_by_role("radio", name="Hourglass", exact=True).focus()
        keys.press("Space")
        self.page.get_by_role("button", name="Row 1, column 1:").focus()
        keys.press("Enter")
        expect(self.page.get_by_role("button", name="Row 1, column 1: Hourglass")).to_be_focused()
        keys.press("t")
        keys.press("c")
        keys.press("ArrowRight")
        keys.press("Shift+ArrowRight")
        keys.press("Shift+ArrowDown")
        keys.press("v")
        expect(
            self.page.get_by_role("button", name="Row 2, column 3: Hourglass, turned a quarter right")
        ).to_be_visible()
        keys.press("Control+ArrowDown")
        expect(self.page.get_by_role("button", name="Row 3, column 3: Hourglass")).to_be_visible()
        keys.press("Delete")
        expect(self.page.get_by_role("button", name="Row 3, column 3: empty")).to_be_visible()
        keys.press("Control+z")
        expect(self.page.get_by_role("button", name="Row 3, column 3: Hourglass")).to_be_visible()
        keys.press("Control+z")
        expect(self.page.get_by_role("button", name="Row 2, column 3: Hourglass")).to_be_visible()
        keys.press("Control+y")
        expect(self.page.get_by_role("button", name="Row 3, column 3: Hourglass")).to_be_visible()
        self.assertEqual(self.layout(), ["A1 A1 A1", ". A1 .", ". . A1"])
        self.page.reload()
        expect(self.page.get_by_role("button", name="Row 3, column 3: Hourglass")).to_be_visible()

    def test_any_size_with_the_nearest_that_falls_on_the_ruler(self) -> None:
        self.begin("Shoo Fly")
        self.labelled("Block finishes").fill("10")
        sizes = self.region("Sizes of the block")
        expect(sizes.get_by_role("status")).to_contain_text("between the marks of your ruler")
        sizes.get_by_role("button", name="10\u00a01⁄2″").click()
        expect(self.labelled("Block finishes")).to_have_value("10 1/2")
        expect(sizes.get_by_role("status")).to_have_count(0)
        expect(sizes).to_contain_text("11″")
        self.labelled("Block finishes").fill("wide")
        expect(self.page.get_by_role("alert")).to_contain_text("could not be read")
        expect(self.labelled("Block finishes")).to_have_value("wide")
        self.labelled("Block finishes").fill("9")
        expect(self.page.get_by_role("alert")).to_have_count(0)
        self.labelled("Columns").fill("3, 3, 4")
        self.labelled("Columns").press("Enter")
        expect(self.page.get_by_role("alert")).to_contain_text("add up to 10")
        self.labelled("Columns").fill("1 2 1")
        self.labelled("Columns").press("Enter")
        # Rows that were alike stay so, and plain cloth takes the shape of its place.
        expect(self.labelled("Rows")).to_have_value("1 2 1")
        expect(self.place(1, 2)).to_have_accessible_name(re.compile("Rectangle"))
        self.labelled("Rows").fill("1 1 2")
        self.labelled("Rows").press("Enter")
        expect(self.page.get_by_role("alert")).to_contain_text("is square, and its place is")
        self.labelled("Rows").fill("1 2 1")
        self.labelled("Columns").fill("12, 2, 12")
        self.labelled("Columns").press("Enter")
        expect(self.page.get_by_role("alert")).to_contain_text("let the block finish 26″ across")
        sizes.get_by_role("button", name="Let it finish what they add up to").click()
        expect(self.labelled("Block finishes")).to_have_value("26")
        expect(self.labelled("Rows")).to_have_value("6 1 6")
        expect(self.page.get_by_role("alert")).to_have_count(0)
        self.page.get_by_role("button", name="Undo", exact=True).click()
        expect(self.labelled("Block finishes")).to_have_value("9")
        expect(self.labelled("Columns")).to_have_value("1 2 1")
        self.saved()

    def test_a_smaller_block_inside_and_never_itself(self) -> None:
        self.begin("Four Patch")
        self.page.get_by_role("button", name="A smaller block").click()
        dialog = self.page.get_by_role("dialog", name="Which block to lay inside")
        self.page.wait_for_timeout(400)
        dialog.get_by_role("button", name="Pinwheel").click()
        self.page.wait_for_timeout(400)
        self.page.get_by_role("button", name="Row 1, column 2:").click()
        expect(self.page.get_by_role("button", name="Row 1, column 2: Pinwheel")).to_be_visible()
        self.labelled("Name").fill("Wheel and square")
        self.labelled("Name").press("Enter")
        self.saved()
        expect(self.page.get_by_role("link", name="Wheel and square")).to_be_visible()
        self.page.get_by_role("button", name="Keep in my library").click()
        self.page.get_by_role("button", name="Add a block").click()
        dialog = self.page.get_by_role("dialog", name="Which arrangement to begin with")
        expect(dialog.get_by_role("button", name="Wheel and square").first).to_be_visible()
        taken_out = dialog.get_by_role("button", name="Take Wheel and square out of your library")
        taken_out.click()
        expect(taken_out).to_be_hidden()
        self.page.get_by_role("button", name="Undo").last.click()
        expect(taken_out).to_be_visible()

    def test_blocks_are_copied_removed_and_taken_back(self) -> None:
        self.begin("Pinwheel")
        rail = self.page.get_by_role("navigation", name="Blocks of this project").get_by_role("link", name="Pinwheel")
        self.page.get_by_role("button", name="Copy this one").click()
        expect(rail).to_have_count(2)
        self.page.get_by_role("button", name="Remove it").click()
        expect(rail).to_have_count(1)
        self.page.get_by_role("button", name="Undo").last.click()
        expect(rail).to_have_count(2)
        self.saved()


class LookingOverTest(JourneyCase):
    def test_many_greys_and_other_looks(self) -> None:
        self.open(f"{LANTERN}/look")
        many = self.region("Side by side")
        expect(many.get_by_role("img")).to_have_attribute("aria-label", "Lantern, 3 by 3 of it.")
        self.pick("turned a quarter")
        expect(many.get_by_role("img")).to_have_attribute(
            "aria-label", "Lantern, 3 by 3 of it, every second one turned a quarter."
        )
        before = many.locator("path.face").first.get_attribute("style")
        self.pick("in greys, by value")
        self.assertNotEqual(many.locator("path.face").first.get_attribute("style"), before)
        self.choose("The unit at", "row 1, column 1")
        looks = self.region("If one unit lay otherwise").locator("figure")
        expect(looks).to_have_count(4)

    def test_the_turned_unit_is_found(self) -> None:
        self.open(f"{LANTERN}/look")
        self.page.wait_for_load_state("networkidle")
        table = self.region("Find the turned unit")
        table.get_by_role("button", name="Row 3, column 1:").click()
        expect(table).to_contain_text("One unit does not lie as meant.")
        expect(table).to_contain_text("Row 3, column 1: turn it a quarter to the left.")
        table.get_by_role("button", name="As it is meant").click()
        expect(table).not_to_contain_text("does not lie as meant")


class QuiltTest(JourneyCase):
    def test_the_quilt_follows_what_is_typed(self) -> None:
        self.open(f"{HALF_SEWN}/blocks/quilt")
        sizes = self.region("Sizes of the quilt")
        expect(sizes).to_contain_text("44\u00a01⁄2″ × 56\u00a01⁄2″")
        self.labelled("Blocks across").fill("4")
        expect(sizes).to_contain_text("56\u00a01⁄2″ × 56\u00a01⁄2″")
        expect(self.region("Picture of the quilt")).to_contain_text("takes 16 of Lantern; planned under How many: 12")
        self.labelled("Sashing finishes").fill("broad")
        expect(self.page.get_by_role("alert")).to_contain_text("could not be read")
        expect(self.labelled("Sashing finishes")).to_have_value("broad")
        self.labelled("Sashing finishes").fill("2")
        expect(self.page.get_by_role("alert")).to_have_count(0)
        self.pick("on point")
        expect(self.region("Plain pieces to cut")).to_contain_text("side setting triangle")
        self.saved()
        self.assertEqual(Quilt.objects.get(project__name__startswith="Lantern").setting, "on_point")

    def test_how_many_of_the_block_is_typed_on_its_page(self) -> None:
        page = self.open(f"{LANTERN}/lay")
        count = self.labelled("Blocks of colourway 1")
        count.fill("7")
        count.press("Enter")
        expect(page.get_by_role("link", name="Lantern 7 finishing")).to_be_visible()
        count.fill("lots")
        count.press("Tab")
        expect(self.region("How many").get_by_role("alert")).to_contain_text("whole number")
        expect(count).to_have_value("lots")
        count.fill("9")
        count.press("Tab")
        expect(page.get_by_role("link", name="Lantern 9 finishing")).to_be_visible()
        expect(page.get_by_role("alert")).to_have_count(0)
        page.get_by_role("button", name="A twin").click()
        expect(page.get_by_role("link", name="Lantern 10 finishing")).to_be_visible()
        page.get_by_role("button", name="Remove colourway 2").click()
        expect(page.get_by_role("link", name="Lantern 9 finishing")).to_be_visible()
        page.get_by_role("button", name="Undo", exact=True).last.click()
        expect(page.get_by_role("link", name="Lantern 10 finishing")).to_be_visible()
        self.saved()

    def test_oblong_blocks_do_not_stand_on_point(self) -> None:
        self.open(f"{JUST_PLANNED}/blocks/quilt")
        self.pick("on point")
        expect(self.page.get_by_role("alert").first).to_contain_text("Only square blocks stand on point")

    def test_the_plan_follows_the_block_with_its_size_number_and_way(self) -> None:
        self.open(f"{HALF_SEWN}/blocks/counts")
        expect(self.page.get_by_role("main")).to_contain_text("108 units for 12 blocks")
        half = self.region("Half-square triangle")
        self.choose("made by", "Eight", half)
        expect(half).to_contain_text("6 batches, comes out even")
        self.labelled("Spares in a hundred").fill("5")
        self.labelled("Spares in a hundred").press("Enter")
        expect(half).to_contain_text("and 3 spare")
        self.saved()
        self.page.get_by_role("link", name="See them in the plan").click()
        expect(self.region("Choices")).to_contain_text("For Lantern: 51, finishing 3\u00a01⁄2″")
        expect(self.labelled("Units wanted")).to_have_count(0)
        expect(self.page.get_by_role("radio", name="Eight")).to_be_checked()
        self.page.get_by_role("link", name="Change them on Lay out").click()
        size = self.labelled("Block finishes")
        size.fill("9")
        size.press("Enter")
        self.saved()
        planned = PlannedUnit.objects.filter(project__name__startswith="Lantern", deleted_at=None)
        self.assertEqual(
            sorted((u.count, str(u.finished.rational)) for u in planned), [(12, "3"), (51, "3"), (51, "3")]
        )


class ScrapsTest(JourneyCase):
    def test_scraps_are_fixed_laid_and_what_is_short_is_said(self) -> None:
        self.open(f"{HALF_SEWN}/blocks/scraps")
        self.page.get_by_role("button", name="Lay them out").click()
        expect(self.page.get_by_role("alert")).to_be_visible()
        for fabric in ("Buoy", "Fog", "Tar"):
            self.labelled(fabric).fill("60")
        self.choose("A click on the picture fixes", "Tar")
        self.page.get_by_role("button", name="block 1, unit 1").first.click()
        self.page.get_by_role("button", name="Lay them out").click()
        expect(self.page.get_by_role("status")).to_contain_text("No two neighbours are alike")
        kept = Quilt.objects.get(project__name__startswith="Lantern").scraps
        self.assertEqual(kept["laid"][0][2], "c")
        self.assertEqual(len(kept["laid"]), 108)
        self.page.get_by_role("button", name="Take them up").click()
        expect(self.page.get_by_role("status")).to_have_count(0)
