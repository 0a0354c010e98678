"""Sewing, pressing, trimming and joining with the work in hand: at the machine, with a tablet, with two of them."""

from __future__ import annotations

import random
from typing import ClassVar

from playwright.sync_api import Locator, Page, Route

from browser_tests.journey import HALF_SEWN, JUST_PLANNED, LANTERN, JourneyCase, expect
from progress.models import Done, Lot
from projects.models import PlannedUnit

LANTERN_KEY = LANTERN.rsplit("/", 1)[1]
JOINING = f"{HALF_SEWN}/join/{LANTERN_KEY}"


class SewTest(JourneyCase):
    def lot(self, number: int) -> Locator:
        return self.page.locator(".lots .lot").filter(has_text=f"Lot {number}")

    def test_a_lot_is_sewn_step_by_step(self) -> None:
        """Half-way through lot 2: it is in hand, its steps are as they were left; ticked, reloaded, unticked."""
        self.open(f"{HALF_SEWN}/sew")
        steps = self.page.locator(".steps > li")
        expect(steps).to_have_count(6)
        expect(steps.nth(2)).to_contain_text("Lay the Fog square on the Buoy square, right sides together")
        cut = self.page.get_by_role("checkbox", name="Done with step 5, Cut apart")
        expect(cut).not_to_be_checked()
        cut.click()
        self.saved()
        self.page.reload()
        expect(cut).to_be_checked()
        press = self.page.get_by_role("checkbox", name="Done with step 6, Press")
        press.click()
        expect(self.region("Lots")).to_contain_text("32 of 48")
        self.saved()
        self.page.reload()
        self.lot(2).click()
        press.click()
        expect(self.region("Lots")).to_contain_text("32 of 48")
        self.saved()
        lot = Lot.objects.get(number=2, unit__project__name__startswith="Lantern", unit__kind="half_square_triangle")
        self.assertEqual((lot.sewn, lot.pressed), (True, False))

    def test_marking_and_lots_are_chosen(self) -> None:
        self.open(f"{HALF_SEWN}/sew")
        self.choose("Marking", "Two lines")
        expect(self.page.locator(".steps")).to_contain_text("Sew on one drawn line.")
        lots = self.region("Lots")
        self.labelled("Sets in a lot").fill("lots")
        self.labelled("Sets in a lot").press("Enter")
        expect(lots).to_contain_text("whole number from 1 to 200")
        expect(self.labelled("Sets in a lot")).to_have_value("lots")
        self.labelled("Sets in a lot").fill("4")
        self.labelled("Sets in a lot").press("Enter")
        expect(self.lot(4)).to_contain_text("4 sets, 8 units")
        expect(self.lot(2)).to_contain_text("8 sets, 16 units")
        self.saved()

    def test_what_wrong_looks_like_stands_beside_it(self) -> None:
        self.open(f"{JUST_PLANNED}/sew")
        lay = self.page.locator(".steps > li").filter(has_text="Lay together").nth(1)
        lay.get_by_text("How it looks when it is wrong").click()
        expect(lay).to_contain_text("Wrong sides together: you see the right side of the upper one.")
        expect(lay).to_contain_text("The line runs into the corner instead of across it.")
        expect(lay).to_contain_text("Unpick away from yourself")
        expect(lay.locator("figure").get_by_role("img")).to_have_count(4)

    def test_a_spoiled_unit_asks_for_its_replacement(self) -> None:
        """One of 48 spoiled: 49 to make is one go more, so a square more of each fabric is to cut."""
        self.open(f"{HALF_SEWN}/sew")
        self.page.get_by_role("button", name="One is spoiled").click()
        expect(self.region("Lots")).to_contain_text("1 spoiled, to be made again")
        expect(self.region("Lots")).to_contain_text("16 of 49")
        self.page.get_by_role("navigation", name="Stages").get_by_role("link", name="Cut").click()
        row = self.region("Piles").get_by_role("row").filter(has_text="Half-square triangle").first
        expect(row.locator("td").nth(1)).to_have_text("25")
        self.page.go_back()
        self.saved()
        self.assertEqual(
            PlannedUnit.objects.get(project__name__startswith="Lantern", kind="half_square_triangle").spoiled, 1
        )

    def test_a_plan_changed_under_a_running_lot(self) -> None:
        unit = PlannedUnit.objects.get(project__name__startswith="Lantern", kind="half_square_triangle")
        self.open(f"{HALF_SEWN}/sew")
        expect(self.page.locator(".steps > li")).to_have_count(6)
        PlannedUnit.objects.filter(pk=unit.pk).update(method="eight")
        self.page.reload()
        expect(self.region("Lots")).to_contain_text("Begun by another method or other sizes")
        self.lot(2).click()
        expect(self.page.locator(".steps")).to_contain_text("Cut on the drawn line.")


class TrimCountTest(JourneyCase):
    def test_counted_down_and_no_further_than_sewn(self) -> None:
        self.open(f"{HALF_SEWN}/trim")
        target = self.region("Target")
        expect(target).to_contain_text("36 to go: 12 of 48 trimmed.")
        target.get_by_role("button", name="One more").click()
        expect(target).to_contain_text("35 to go: 13 of 48 trimmed.")
        self.page.get_by_role("button", name="Undo").click()
        expect(target).to_contain_text("36 to go")
        target.get_by_role("button", name="All 4").click()
        expect(target).to_contain_text("16 of 48 trimmed")
        expect(target.get_by_role("button", name="One more")).to_be_disabled()
        expect(target).to_contain_text("No more are put down as sewn")
        self.saved()


class JoinTest(JourneyCase):
    def test_the_order_and_its_steps(self) -> None:
        self.open(JOINING)
        expect(self.region("Blocks")).to_contain_text("1 of 12")
        steps = self.page.get_by_role("list", name="Steps of joining")
        expect(steps.locator("> li").first).to_contain_text("It measures 11″ by 4″")
        self.pick("Columns")
        expect(steps.locator("> li").first).to_contain_text("Column 1: lay rows 1, 2 and 3 one below the other.")
        expect(steps).to_contain_text("Trimming it whole")

    def test_the_pressing_follows_the_wishes(self) -> None:
        self.open(f"{JOINING}/press")
        pressing = self.region("Pressing map")
        expect(pressing).to_contain_text("12 of 12 meetings nest.")
        pressing.get_by_role("checkbox", name="nest across neighbouring blocks").click()
        expect(pressing).to_contain_text("Across neighbouring blocks")
        dot = pressing.get_by_role("button", name="Spin the crossing").first
        dot.click()
        expect(dot).to_have_attribute("aria-pressed", "true")
        expect(self.page.get_by_role("list", name="Steps of pressing")).to_contain_text("Spin the crossing")
        pressing.get_by_text("Every seam in words").click()
        expect(pressing.locator(".seams li").filter(has_text="then").first).to_be_visible()
        self.saved()

    def test_the_quilt_is_put_together(self) -> None:
        self.open(f"{HALF_SEWN}/join/quilt")
        first = self.page.get_by_role("checkbox", name="Done with Row 1")
        first.click()
        self.saved()
        self.page.reload()
        expect(first).to_be_checked()
        expect(self.page.get_by_role("main")).to_contain_text("through the middle; take the mean")


class BenchModeTest(JourneyCase):
    """One step at a time, on the tablet beside the machine."""

    size: ClassVar[tuple[int, int]] = (820, 1180)

    def here(self, page: Page | None = None) -> str:
        return (page or self.page).locator("h2").inner_text()

    def thumb(self, name: str, page: Page | None = None) -> None:
        (page or self.page).get_by_role("navigation", name="Steps").get_by_role("button", name=name, exact=True).click()

    def test_from_the_first_page_on_and_back_after_a_reload(self) -> None:
        self.open("/")
        self.page.get_by_role("link", name="Go on at the bench: Lantern").click()
        self.page.wait_for_url("**/bench*")
        expect(self.page.locator("h2")).to_contain_text("Cut apart")
        self.thumb("Done")
        expect(self.page.locator("h2")).to_contain_text("Press")
        self.page.reload()
        expect(self.page.locator("h2")).to_contain_text("Press")
        self.thumb("Back")
        expect(self.page.locator("h2")).to_contain_text("Cut apart")
        expect(self.page.locator("h2")).to_contain_text("done")
        self.thumb("Not done after all")
        expect(self.page.locator("h2")).not_to_contain_text("done")
        self.thumb("Pause")
        expect(self.region("At the bench")).to_contain_text("16 sewn, 16 pressed, 12 trimmed of 48")

    def test_an_address_that_names_nothing_goes_where_the_work_is(self) -> None:
        for told in ("subject=nonsense", "subject=units", "subject=blocks&of=nonsense"):
            self.open(f"{HALF_SEWN}/bench?{told}")
            expect(self.page.locator("h2")).to_contain_text("Cut apart")

    def test_by_keys_alone(self) -> None:
        self.open(f"{HALF_SEWN}/bench")
        expect(self.page.locator("h2")).to_contain_text("Cut apart")
        self.page.keyboard.press("Space")
        expect(self.page.locator("h2")).to_contain_text("Press")
        self.page.keyboard.press("ArrowLeft")
        expect(self.page.locator("h2")).to_contain_text("Cut apart")
        self.page.keyboard.press("ArrowRight")
        self.page.keyboard.press("Space")
        expect(self.page.locator(".where")).to_contain_text("Lot 3")
        self.page.keyboard.press("Escape")
        self.saved()
        expect(self.region("At the bench")).to_contain_text("32 sewn, 32 pressed")

    def test_a_first_reading_older_than_what_is_put_down_is_asked_again(self) -> None:
        """The project's page is opened while a step is on its way: what it reads first is from before."""
        puts: list[Route] = []
        early: list[Route] = []
        self.page.route("**/done/*", lambda r: puts.append(r))
        self.page.route("**/standing", lambda r: early.append(r), times=1)
        self.open(f"{HALF_SEWN}/bench")
        expect(self.page.locator("h2")).to_contain_text("Cut apart")
        self.page.keyboard.press("Space")
        expect(self.page.locator("h2")).to_contain_text("Press")
        self.page.keyboard.press("Escape")
        self.until_held(puts, early)
        before = early[0].fetch()
        with self.page.expect_response("**/done/*"):
            puts[0].continue_()
        self.saved()
        early[0].fulfill(response=before)
        expect(self.region("At the bench")).to_contain_text("32 sewn, 16 pressed")

    def test_two_tablets_never_undo_each_other(self) -> None:
        """Both put the same step down; one takes it back; it is done still, since the other one did it."""
        other = self.elsewhere()
        self.open(f"{HALF_SEWN}/bench")
        self.open(f"{HALF_SEWN}/bench", other)
        for page in (self.page, other):
            expect(page.locator("h2")).to_contain_text("Cut apart")
        self.thumb("Done")
        self.thumb("Done", other)
        for page in (self.page, other):
            expect(page.locator("h2")).to_contain_text("Press")
        unit = PlannedUnit.objects.get(project__name__startswith="Lantern", kind="half_square_triangle")
        cuts = Done.objects.filter(lot__unit=unit, lot__number=2, step="cut diagonal", undone=False)
        expect(self.page.locator("h2")).to_contain_text("Press")
        self.page.wait_for_timeout(500)
        self.assertEqual(cuts.count(), 2)
        self.thumb("Back")
        self.thumb("Not done after all")
        self.page.wait_for_timeout(500)
        self.assertEqual(cuts.count(), 1)
        other.reload()
        expect(other.locator("h2")).to_contain_text("Press")

    def test_a_walk_by_chance_with_reloads_loses_nothing(self) -> None:
        """Done, back, taken back, reloaded in any order: what the page says is what is kept, and the other way round."""
        rng = random.Random(14)
        self.open(f"{HALF_SEWN}/bench?subject=blocks&of={LANTERN_KEY}")
        expect(self.page.locator("h2")).to_contain_text("Row 1")
        buttons = self.page.get_by_role("navigation", name="Steps")
        live = Done.objects.filter(lot__block=LANTERN_KEY, undone=False)
        wanted = {f"{lot} {step}" for lot, step in live.values_list("lot__number", "step")}
        for n in range(60):
            act = rng.choice(("Done", "Done", "Next", "Back", "Not done after all"))
            button = buttons.get_by_role("button", name=act, exact=True)
            if button.count() and button.is_enabled():
                step = self.page.locator(".now").get_attribute("data-step") or ""
                button.click()
                wanted = wanted | {step} if act == "Done" else wanted - {step} if act.startswith("Not") else wanted
            if n % 15 == 14:
                before = self.here()
                self.page.reload()
                expect(self.page.locator("h2")).to_have_text(before)
        self.page.keyboard.press("Escape")
        self.saved()
        self.assertEqual({f"{lot} {step}" for lot, step in live.values_list("lot__number", "step")}, wanted)

    def test_every_size_is_read_at_arms_length(self) -> None:
        """Nothing under a thumb's size, nothing wider than the screen, no serious finding of axe."""
        for width, height in ((820, 1180), (1180, 820), (390, 844)):
            self.page.set_viewport_size({"width": width, "height": height})
            for query in ("", f"?subject=blocks&of={LANTERN_KEY}", "?subject=quilt"):
                self.open(f"{HALF_SEWN}/bench{query}")
                expect(self.page.locator("h2").first).to_be_visible()
                self.page.wait_for_load_state("networkidle")
                self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), width)
                for box in (
                    b.bounding_box()
                    for b in self.page.get_by_role("navigation", name="Steps").get_by_role("button").all()
                ):
                    assert box is not None
                    self.assertGreaterEqual(min(box["width"], box["height"]), 48)
                self.assertEqual(self.violations("serious", "critical"), [], (width, query))

    def test_trimming_follows_the_steps(self) -> None:
        unit = PlannedUnit.objects.get(project__name__startswith="Lantern", kind="quarter_square_triangle")
        self.open(f"{HALF_SEWN}/bench?subject=units&of={unit.pk}&at=trim")
        expect(self.page.get_by_role("main")).to_contain_text("40 to go")
        self.page.get_by_role("button", name="Five more").click()
        expect(self.page.get_by_role("main")).to_contain_text("35 to go")


class ThumbTest(JourneyCase):
    """A touch screen: the marks of a ruler beside every length."""

    size: ClassVar[tuple[int, int]] = (820, 1180)

    def test_a_length_by_thumb(self) -> None:
        context = self.browser.new_context(
            viewport={"width": 820, "height": 1180}, has_touch=True, service_workers="block"
        )
        self.addCleanup(context.close)
        page = self.new_page(context)
        self.open(f"{HALF_SEWN}/measure", page)
        page.get_by_role("button", name="Marks of a ruler").first.tap()
        pad = page.get_by_role("dialog")
        for mark in ("3", "15/16"):
            pad.get_by_role("button", name=mark, exact=True).tap()
        expect(pad.get_by_role("status")).to_have_text("3 15/16")
        pad.get_by_role("button", name="Use it").tap()
        expect(page.get_by_label("The ruler reads", exact=True)).to_have_value("3 15/16")
        page.get_by_role("button", name="Take it down").tap()
        expect(page.get_by_role("region", name="Readings", exact=True)).to_contain_text("3\u00a015⁄16″")
