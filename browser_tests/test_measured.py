"""Finished blocks as they really measure: typed one after the other, what becomes of each, where each lies best."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from playwright.sync_api import expect
from rest_framework.test import APIClient

from browser_tests.journey import HALF_SEWN, JUST_PLANNED, JourneyCase
from measuring.models import ReadingRow

_SIDES = (
    "10 7/8",
    "10 7/8",
    "10 15/16",
    "10 13/16",
    "10 7/8",
    "10 3/4",
    "10 7/8",
    "10 7/8",
    "10 7/8",
    "10 7/8",
    "10 7/8",
    "11",
)


class MeasuredTest(JourneyCase):
    def ask(self, how: str, path: str, body: object = None) -> Any:
        return getattr(APIClient(SERVER_NAME="127.0.0.1"), how)(f"/api/{path}", body, format="json").json()

    def test_twelve_blocks_are_typed_and_each_has_its_place(self) -> None:
        page = self.open(f"{HALF_SEWN}/blocks/5e0a6f3c-3f57-4f0e-9a43-a9af6f1a0001/measure")
        page.get_by_role("link", name="What each block measures").click()
        for n, side in enumerate(_SIDES, 1):
            for way in ("across", "down"):
                field = self.labelled(f"Lantern {n}, {way}")
                field.fill(side)
                field.press("Enter")
        size = self.region("Lantern: one size for all")
        expect(size).to_contain_text("12 blocks measured both ways")
        expect(size).to_contain_text("The best")
        places = self.region("Where each lies best")
        expect(places.get_by_role("row")).to_have_count(4)
        self.assertEqual(sorted(int(c) for c in places.get_by_role("cell").all_inner_texts()), list(range(1, 13)))
        expect(self.region("The quilt")).to_contain_text("nine times in ten")
        # The first is the best; the sashes beside blocks are cut to go with it.
        size.get_by_role("button", name="All are brought to it").first.click()
        blocks = self.page.get_by_role("group", name="Blocks, before they are joined")
        expect(blocks.get_by_label("Across")).to_have_value("10 13/16")
        expect(blocks).to_contain_text("Cut the sashing beside blocks 2″ × 10\u00a013⁄16″")
        self.saved()
        page.reload()
        expect(self.labelled("Lantern 12, across")).to_have_value("11")
        self.labelled("Lantern 12, across").fill("")
        self.labelled("Lantern 12, across").press("Enter")
        expect(size).to_contain_text("11 blocks measured both ways")
        self.assertEqual(ReadingRow.objects.filter(kind="block_width", deleted_at=None).count(), 11)

    def test_what_is_refused_stays_with_its_reason(self) -> None:
        self.open(f"{JUST_PLANNED}/measured")
        field = self.labelled("Wake 1, across")
        field.fill("5 7/0")
        field.press("Enter")
        expect(self.region("Wake measured").get_by_role("alert")).to_be_visible()
        expect(field).to_have_value("5 7/0")
        for way, size in (("across", "6"), ("down", "1")):
            self.labelled(f"Wake 1, {way}").fill(size)
            self.labelled(f"Wake 1, {way}").press("Enter")
        expect(self.page.get_by_role("alert").filter(has_text="Look at the figures again")).to_be_visible()

    def test_strips_between_blocks_laid_by_hand_are_cut_to_what_they_join(self) -> None:
        """Two Lanterns of 10 1/2 on 25: the strip between them is 4 wide and 11 long, until they measure 10 7/8."""
        project, block = str(uuid4()), {"start": "lantern", "finished": "10 1/2", "count": "2"}
        body = {"id": project, "name": "By hand", "fabrics": ["Dark", "Light", "Third"], "unit": None, "quilt": None}
        self.ask("post", "beginnings", {**body, "block": block})
        (laid,) = self.ask("get", f"projects/{project}/blocks")["blocks"]
        sampler = {"numbers": {laid["id"]: 2}, "width": "25", "gap": "1", "fabric": "c"}
        self.ask("post", f"projects/{project}/quilt/sampler", sampler)
        self.open(f"/projects/{project}/cut")
        expect(self.region("Cutting plan")).to_contain_text("the strip between blocks")
        self.page.get_by_role("link", name="As they measure").click()
        strip = self.page.get_by_role("group", name="Before the strip at row 1, column 2 is cut")
        for where in ("Near the left edge", "Through the middle", "Near the right edge"):
            field = strip.get_by_label(where)
            field.fill("10 7/8")
            field.press("Enter")
        expect(strip).to_contain_text("Cut the strip 4\u00a01⁄2″ × 10\u00a07⁄8″")
        self.saved()
        self.page.get_by_role("link", name="Cut", exact=False).first.click()
        expect(self.region("Piles")).to_contain_text("10\u00a07⁄8″")
        expect(self.region("Cutting plan")).not_to_contain_text("Cut last")

    def test_borders_are_cut_to_what_the_top_measures(self) -> None:
        """Three by four Lantern with sashes finish 34 1/2 by 46 1/2; 46 7/8, 46 3/4 and 46 5/8 are 46 3/4 on the whole."""
        self.open(f"{HALF_SEWN}/measured")
        before = self.page.get_by_role("group", name="Before border 1, from top to bottom")
        for where, value in (
            ("Near the left edge", "46 7/8"),
            ("Through the middle", "46 3/4"),
            ("Near the right edge", "46 5/8"),
        ):
            field = before.get_by_label(where)
            field.fill(value)
            field.press("Enter")
        expect(before).to_contain_text("Cut both sides 1\u00a01⁄2″ × 46\u00a03⁄4″")
        row = self.labelled("Rows, before they are joined: Row 1")
        row.fill("a yard")
        row.press("Enter")
        expect(self.page.get_by_role("alert")).to_contain_text("could not be read")
        expect(row).to_have_value("a yard")
        expect(self.page.locator("header .saved")).to_have_text("Not all saved")
        row.fill("")
        row.press("Enter")
        self.saved()
        self.page.reload()
        expect(before.get_by_label("Through the middle")).to_have_value("46 3/4")
        # Typed while the server is away, one after the other, all are kept and sent.
        self.page.route("**/api/projects/*/measured/*", lambda route: route.abort())
        for n in (1, 2):
            field = self.labelled(f"Rows, before they are joined: Row {n}")
            field.fill(f"35 {n}/8")
            field.press("Enter")
        expect(self.page.locator("header .saved")).not_to_have_text("All saved")
        # The page is read again: what is on its way stands in its field.
        self.page.reload()
        expect(self.labelled("Rows, before they are joined: Row 2")).to_have_value("35 2/8")
        self.page.unroute("**/api/projects/*/measured/*")
        self.saved()
        # A block's two sizes are kept in the same way; one that is taken away again comes back under its place.
        self.page.route("**/api/blocks/*/measured/*", lambda route: route.abort())
        for value in ("10 7/8", "", "11 1/8"):
            field = self.labelled("Lantern 3, across")
            field.fill(value)
            field.press("Enter")
        self.page.reload()
        expect(self.labelled("Lantern 3, across")).to_have_value("11 1/8")
        expect(self.page.locator("header .saved")).not_to_have_text("All saved")
        self.page.unroute("**/api/blocks/*/measured/*")
        self.saved()
        self.page.reload()
        expect(self.labelled("Lantern 3, across")).to_have_value("11 1/8")
        self.saved()
        self.page.reload()
        expect(self.labelled("Rows, before they are joined: Row 1")).to_have_value("35 1/8")
        expect(self.labelled("Rows, before they are joined: Row 2")).to_have_value("35 1/4")
        self.assertEqual(self.violations("serious", "critical"), [])
        self.open(f"{HALF_SEWN}/blocks/quilt")
        pieces = self.page.get_by_role("row").filter(has_text="border 1, sides")
        expect(pieces).to_contain_text("46\u00a03⁄4″")
        expect(pieces).to_contain_text("As long as the top was measured.")
        self.open(f"{HALF_SEWN}/cut")
        expect(self.page.get_by_role("row").filter(has_text="border 1, sides").first).to_contain_text("46\u00a03⁄4″")
