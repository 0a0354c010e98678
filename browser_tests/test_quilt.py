"""The quilt beyond rows of blocks: pieced borders, laying by hand, samplers, settings side by side, half blocks."""

from __future__ import annotations

import re

from playwright.sync_api import expect

from blocks.models import Block, Quilt
from browser_tests.journey import HALF_SEWN, JUST_PLANNED, JourneyCase

_QUILT = f"{HALF_SEWN}/blocks/quilt"


class PiecedBorderTest(JourneyCase):
    """Three by four Lantern with sashing, 44 1/2 by 56 1/2 with the border it has."""

    def pieced(self) -> None:
        self.open(_QUILT)
        border = self.region("Picture of the quilt")
        expect(border).to_be_visible()
        self.page.get_by_role("button", name="Another border").click()
        self.choose("Border 3 is", "pieced")

    def test_a_border_of_half_squares_and_what_it_takes(self) -> None:
        self.pieced()
        parts = self.region("Pieced beside the blocks")
        # Round 44 1/2 by 56 1/2: 23 of 2 in. with 3/4 beside them, 29 with 3/4 above.
        expect(parts).to_contain_text("2 of them, 29 units each")
        expect(parts).to_contain_text("2 of them, 25 units each")
        expect(self.region("Picture of the quilt")).to_contain_text("A plain strip inside it shows 3⁄4″ all round")
        # Sashes an inch wider make it 46 1/2 by 59 1/2: 24 and two corners, and 31, since 30 would leave a strip of 1/4.
        self.labelled("Sashing finishes").fill("2 1/2")
        expect(parts).to_contain_text("2 of them, 31 units each")
        expect(parts).to_contain_text("2 of them, 26 units each")
        self.choose("What makes it fit of border 3", "another size")
        self.choose("Unit of border 3", "Flying goose")
        self.choose("How the unit lies of border 3", "turned a quarter")
        self.choose("What turns the corner of border 3", "Half-square")
        self.choose("Fabric of goose of border 3", "Tar")
        self.saved()
        kept = Quilt.objects.get(project__name__startswith="Lantern").borders[2]["pieced"]
        self.assertEqual((kept["units"][0]["kind"], kept["fit"], kept["turn"]), ("flying_goose", "adapt", 1))
        self.assertEqual(kept["corner"]["kind"], "half_square_triangle")
        parts.get_by_role("link", name="Border 3, sides").click()
        expect(self.page.get_by_role("main")).to_contain_text("Column 1: lay rows 1 to")
        self.page.reload()
        expect(self.page.get_by_role("main")).to_contain_text("0 of 2")

    def test_what_cannot_be_says_why_and_stays_typed(self) -> None:
        self.pieced()
        width = self.labelled("Border 3 finishes")
        width.fill("1/4")
        expect(self.page.get_by_role("alert").first).to_contain_text("Units of a border finish")
        expect(width).to_have_value("1/4")
        width.fill("2")
        expect(self.page.get_by_role("alert")).to_have_count(0)
        self.page.get_by_role("button", name="Take border 3 away").click()
        expect(self.region("Pieced beside the blocks")).to_have_count(0)
        self.saved()
        self.assertFalse(Block.objects.filter(deleted_at=None, part__startswith="border").exists())

    def test_it_can_be_read_and_reached_at_every_width(self) -> None:
        self.pieced()
        for width in (1280, 820, 390):
            self.page.set_viewport_size({"width": width, "height": 900})
            self.assertEqual(self.page.evaluate("document.documentElement.scrollWidth"), width)
        self.assertEqual(self.violations("serious", "critical"), [])


class ByHandTest(JourneyCase):
    def test_from_rows_to_any_arrangement(self) -> None:
        page = self.open(_QUILT)
        self.pick("by hand")
        page.get_by_role("link", name="Lay it by hand").click()
        expect(self.page.get_by_role("heading", name="Lay out Centre")).to_be_attached()
        expect(self.labelled("Columns")).to_have_value("7 1 7 1 7")
        self.pick("Plain square")
        first = page.get_by_role("button", name="Row 1, column 1:")
        first.click()
        expect(page.get_by_role("link", name="Lantern 11 finishing")).to_be_visible()
        # Its edge dragged over the sash beside it: plain cloth becomes a rectangle, and takes nothing below it.
        page.locator(".edge").drag_to(page.get_by_role("button", name="Row 1, column 2:"))
        expect(self.labelled("Columns covered")).to_have_value("2")
        expect(self.labelled("Rows covered")).to_have_value("1")
        expect(page.get_by_role("button", name="Row 1, column 1: Rectangle")).to_be_visible()
        expect(page.get_by_role("button", name="Row 1, column 2:")).to_have_count(0)
        for _ in range(2):
            page.get_by_role("button", name="Undo").click()
        expect(page.get_by_role("link", name="Lantern 12 finishing")).to_be_visible()
        page.get_by_role("link", name="Counts").click()
        expect(page.get_by_role("main")).to_contain_text("Rectangle")
        page.get_by_role("link", name="Join", exact=False).filter(has_text="7").first.click()
        page.get_by_role("link", name="Centre 1 finishing").click()
        expect(page.get_by_role("main")).to_contain_text("Row 1: lay columns 1 to 5 side by side")

    def test_a_sampler_and_back(self) -> None:
        page = self.open(_QUILT)
        page.get_by_role("button", name="Lay blocks of several sizes").click()
        self.labelled("Rows finish").fill("9")
        page.get_by_role("button", name="Lay the sampler").click()
        expect(page.get_by_role("alert")).to_contain_text("The widest block finishes")
        expect(self.labelled("Rows finish")).to_have_value("9")
        self.labelled("Rows finish").fill("40")
        page.get_by_label(re.compile("^Lantern, 10")).fill("5")
        page.get_by_role("button", name="Lay the sampler").click()
        expect(page.get_by_role("link", name="Lantern 5 finishing")).to_be_visible()
        # Rows of three on 40, two rows with a strip of 1 between: 22 high, and the border of 5 all round.
        expect(self.region("Sizes of the quilt")).to_contain_text("50″ × 32″")
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_role("radio", name="straight", exact=True)).to_be_checked()
        expect(self.region("Sizes of the quilt")).to_contain_text("44\u00a01⁄2″ × 56\u00a01⁄2″")
        expect(page.get_by_role("link", name="Lantern 12 finishing")).to_be_visible()

    def test_sashing_of_several_strips_and_back(self) -> None:
        """Twelve of 10 1/2 with 1/2 + 1 + 1/2 between: 31 1/2 + 4 by 42 + 6, and the borders of 5 all round."""
        page = self.open(_QUILT)
        page.get_by_role("button", name="Lay sashing of several strips").click()
        self.labelled("Strip 2 finishes").fill("1/8")
        page.get_by_role("button", name="Lay the sashing").click()
        expect(page.get_by_role("alert")).to_contain_text("Every strip shows")
        expect(self.labelled("Strip 2 finishes")).to_have_value("1/8")
        self.labelled("Strip 2 finishes").fill("1")
        self.pick("one cornerstone")
        expect(page.get_by_text("One cornerstone from")).to_be_visible()
        self.pick("patches by turns")
        page.get_by_role("button", name="Lay the sashing").click()
        expect(self.region("Sizes of the quilt")).to_contain_text("45\u00a01⁄2″ × 58″")
        page.get_by_role("link", name="Centre 1 finishing").click()
        expect(self.labelled("Columns")).to_have_value("21 1 2 1 21 1 2 1 21")
        page.get_by_role("link", name="Quilt finishing").click()
        page.get_by_role("button", name="Lay sashing of several strips").click()
        page.get_by_text("the same between rows").click()
        for n in (3, 2, 1):
            page.get_by_role("button", name=f"Take strip {n} away, between rows").click()
        expect(page.get_by_text("None: edge to edge.")).to_be_visible()
        page.get_by_role("button", name="Lay the sashing").click()
        expect(self.region("Sizes of the quilt")).to_contain_text("45\u00a01⁄2″ × 52″")
        page.get_by_role("button", name="Undo").last.click()
        expect(self.region("Sizes of the quilt")).to_contain_text("45\u00a01⁄2″ × 58″")


class SettingTest(JourneyCase):
    def test_settings_side_by_side(self) -> None:
        page = self.open(_QUILT)
        self.pick("beside other settings")
        row = page.get_by_role("row").filter(has_text="straight, edge to edge")
        row.get_by_role("button", name="Set it so").click()
        expect(self.labelled("Sashing finishes")).to_have_value("0")
        page.get_by_role("button", name="Undo").click()
        expect(self.labelled("Sashing finishes")).to_have_value("1 1/2")
        self.pick("in greys, by value")
        expect(self.region("Picture of the quilt").get_by_role("img").first).to_be_visible()

    def test_staggered_by_a_third_with_parts_of_blocks(self) -> None:
        page = self.open(_QUILT)
        self.labelled("Sashing finishes").fill("0")
        self.saved()
        self.pick("staggered")
        self.labelled("Every second column lower by").fill("1/3")
        self.saved()
        page.get_by_text("parts of blocks at the ends").click()
        expect(self.region("Pieced beside the blocks")).to_contain_text("Lantern, lower part")
        self.labelled("Every second column lower by").fill("1/2")
        expect(page.get_by_role("alert").first).to_contain_text("runs through")
        self.assertEqual(Quilt.objects.get(project__name__startswith="Lantern").stagger, "1/3")


class HowManyTest(JourneyCase):
    def test_as_many_are_planned_as_it_takes(self) -> None:
        """Twelve by turns of two blocks: six of each. Set in on point, three by four with 2 by 3 between them: twelve and six."""
        page = self.open(_QUILT)
        picture = self.region("Picture of the quilt")
        expect(picture).not_to_contain_text("The quilt takes")
        page.get_by_role("button", name="Add a block").click()
        page.get_by_role("button", name="Friendship Star").click()
        expect(page.get_by_role("heading", name="Lay out Friendship Star")).to_be_attached()
        page.get_by_role("link", name="Quilt finishing").click()
        expect(picture).to_contain_text(
            "The quilt takes 6 of Lantern, 6 of Friendship Star; planned under How many: 12, 1."
        )
        picture.get_by_role("button", name="Plan so many").click()
        expect(page.get_by_role("link", name="Friendship Star 6 finishing")).to_be_visible()
        expect(page.get_by_role("link", name="Lantern 6 finishing")).to_be_visible()
        expect(picture).not_to_contain_text("The quilt takes")
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_role("link", name="Lantern 12 finishing")).to_be_visible()
        self.pick("on point")
        self.pick("the first, others set in")
        expect(picture).to_contain_text(
            "The quilt takes 12 of Lantern, 6 of Friendship Star; planned under How many: 12, 1."
        )
        picture.get_by_role("button", name="Plan so many").click()
        expect(page.get_by_role("link", name="Friendship Star 6 finishing")).to_be_visible()
        self.saved()


class BackingTest(JourneyCase):
    def test_a_print_goes_on_across_the_seams_of_the_back(self) -> None:
        """44 1/2 by 56 1/2 with 4 all round: 52 1/2 by 64 1/2. Every 24: the second length of 52 1/2 begins 72 after the first, 124 1/2."""
        self.open(_QUILT)
        pieces = self.region("Plain pieces to cut")
        expect(pieces).to_contain_text("105″ in all")
        every = self.labelled("Backing’s print repeats every")
        every.fill("24")
        expect(pieces).to_contain_text("begins 72″ after the one before it")
        expect(pieces).to_contain_text("124\u00a01⁄2″ in all")
        across = self.labelled("and across the cloth every")
        across.fill("41")
        expect(self.page.get_by_role("alert").first).to_contain_text("it cannot go on from one width to the next")
        expect(across).to_have_value("41")
        across.fill("13")
        expect(self.page.get_by_role("alert")).to_have_count(0)
        # Three repeats of 13 are added beside 40: as much as without a print.
        expect(pieces).to_contain_text("124\u00a01⁄2″ in all")
        self.saved()
        self.page.reload()
        expect(every).to_have_value("24")


class FileTest(JourneyCase):
    def test_a_block_out_and_in(self) -> None:
        page = self.open(f"{HALF_SEWN}/blocks/5e0a6f3c-3f57-4f0e-9a43-a9af6f1a0001/lay")
        with page.expect_download() as got:
            page.get_by_role("link", name="Save as a file").click()
        path = got.value.path()
        self.open(f"{JUST_PLANNED}/blocks/quilt")
        page.locator(".rail input[type=file]").set_input_files(
            {"name": "b.json", "mimeType": "application/json", "buffer": b"[1"}
        )
        expect(page.get_by_role("alert")).to_contain_text("This file is no block")
        page.locator(".rail input[type=file]").set_input_files(
            {"name": "b.json", "mimeType": "application/json", "buffer": b'{"format": "entretoile-pattern/2"}'}
        )
        expect(page.get_by_role("alert")).to_contain_text("Nothing was taken")
        page.locator(".rail input[type=file]").set_input_files(
            {"name": "b.json", "mimeType": "application/json", "buffer": path.read_bytes()}
        )
        expect(page.get_by_role("heading", name="Lay out Lantern")).to_be_attached()
        self.assertEqual(Block.objects.filter(project__name__startswith="Wake", deleted_at=None).count(), 2)
