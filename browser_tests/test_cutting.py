"""Stock entered, the cuts planned, strips ticked off, the plan marked as cut; what to buy; paper for the table."""

from __future__ import annotations

import re

from playwright.sync_api import Locator

from browser_tests.journey import HALF_SEWN, JUST_PLANNED, JourneyCase, expect
from cutting.models import CutPlan, Stock


class CuttingTest(JourneyCase):
    def plan(self) -> None:
        self.page.get_by_role("button", name=re.compile("^Plan the ")).click()
        expect(self.region("Cutting plan")).to_contain_text("strips in")

    def test_the_cuts_are_planned_ticked_and_marked_as_cut(self) -> None:
        self.open(f"{HALF_SEWN}/cut")
        expect(self.pile("Buoy 4\u00a01⁄2″")).to_contain_text("24")
        self.plan()
        cloth = self.region("Buoy, from the dry locker")
        expect(cloth.get_by_role("img").first).to_be_visible()
        first = cloth.get_by_role("checkbox").first
        first.click()
        expect(first).to_be_checked()
        self.page.reload()
        expect(cloth.get_by_role("checkbox").first).to_be_checked()
        before = Stock.objects.filter(deleted_at=None).count()
        self.page.get_by_role("button", name="All of it is cut").click()
        expect(self.region("Stock")).to_contain_text("rest of")
        self.assertEqual(CutPlan.objects.get().laid, {})
        self.assertGreater(Stock.objects.filter(deleted_at=None).count(), before)

    def pile(self, said: str) -> Locator:
        return self.region("Piles").get_by_role("row").filter(has_text=said)

    def test_half_way_only_what_is_left_is_planned_and_nothing_ticked_is_lost(self) -> None:
        self.open(f"{HALF_SEWN}/cut")
        self.plan()
        row = self.pile("Half-square triangle").first
        left = row.get_by_role("cell").nth(4)
        # Sixteen were cut for what lies at the bench.
        expect(left).to_have_text("8")
        row.get_by_role("button", name="is cut").click()
        expect(left).to_have_text("0")
        spoiled = row.get_by_role("textbox", name="Spoiled of pile")
        spoiled.fill("40")
        spoiled.press("Enter")
        expect(row.get_by_role("alert")).to_contain_text("24 pieces were cut")
        expect(spoiled).to_have_value("40")
        spoiled.fill("2")
        spoiled.press("Enter")
        expect(row.get_by_role("alert")).to_have_count(0)
        expect(left).to_have_text("2")
        plan = self.region("Cutting plan")
        expect(plan).to_contain_text("Since this plan was made")
        # A strip of another fabric is cut as well; then the rest is planned.
        self.region("Fog, yardage").get_by_role("checkbox").first.click()
        self.saved()
        was = self.region("Piles").get_by_role("status").inner_text()
        plan.get_by_role("button", name="pieces left").click()
        expect(plan.get_by_role("button", name="Undo: as it was before planning")).to_be_visible()
        expect(plan).to_contain_text("strips in")
        expect(plan).not_to_contain_text("Since this plan was made")
        expect(self.region("Piles").get_by_role("status")).to_have_text(was)
        expect(self.region("Stock")).to_contain_text("rest of yardage")
        plan.get_by_role("button", name="Undo: as it was before planning").click()
        expect(self.region("Stock")).not_to_contain_text("rest of yardage")
        expect(self.region("Fog, yardage").get_by_role("checkbox").first).to_be_checked()

    def test_what_is_cut_and_no_longer_wanted_goes_to_the_scraps(self) -> None:
        self.open(f"{HALF_SEWN}/cut")
        row = self.pile("Plain square").first
        letter = row.get_by_role("rowheader").inner_text()
        cut = row.get_by_role("textbox", name="Cut of pile")
        cut.fill("15")
        cut.press("Enter")
        row.get_by_role("button", name="3 to the scraps").click()
        expect(row).to_contain_text("3 of them cut smaller for another pile or put with the scraps")
        expect(self.region("Stock")).to_contain_text(f"from pile {letter}")
        self.page.get_by_role("button", name="Undo: as it was before pile").click()
        expect(row.get_by_role("button", name="3 to the scraps")).to_be_visible()

    def test_stock_is_entered_refused_changed_and_taken_back(self) -> None:
        self.open(f"{JUST_PLANNED}/cut")
        self.page.get_by_role("button", name="Plan the cuts").click()
        expect(self.page.get_by_role("alert")).to_contain_text("There is no cloth in stock")
        stock = self.region("Stock")
        stock.get_by_role("button", name="Fat quarter of Slackwater").click()
        across = self.labelled("Across, Slackwater")
        expect(across).to_have_value("20")
        across.fill("broad")
        across.press("Tab")
        expect(stock.get_by_role("alert")).to_contain_text("could not be read")
        expect(across).to_have_value("broad")
        across.fill("21 1/2")
        across.press("Tab")
        expect(stock.get_by_role("alert")).to_have_count(0)
        self.labelled("How many, Slackwater").fill("2")
        self.labelled("How many, Slackwater").press("Tab")
        self.saved()
        row = Stock.objects.get(fabric__name="Slackwater")
        self.assertEqual((str(row.across.rational), row.count), ("43/2", 2))
        stock.get_by_role("button", name="Take this Slackwater away").click()
        expect(across).to_have_count(0)
        self.page.get_by_role("button", name="Undo").click()
        expect(across).to_have_value("21 1/2")
        self.plan()
        expect(self.region("Cutting plan").get_by_role("alert")).to_contain_text("no cloth left that is large enough")

    def test_what_to_buy_and_the_paper(self) -> None:
        self.open(f"{HALF_SEWN}/cut")
        buying = self.region("To buy")
        expect(buying).to_contain_text("Fog:")
        expect(buying).to_contain_text("bobbins")
        paper = self.region("Paper for the table")
        for name in ("Bench ticket", "Labels for piles and lots", "Cutting plan"):
            address = paper.get_by_role("link", name=name, exact=True).get_attribute("href")
            answer = self.context.request.get(self.live_server_url + str(address))
            self.assertEqual((answer.status, answer.headers["content-type"]), (200, "application/pdf"), name)
        paper.get_by_role("link", name="Bench ticket on screen").click()
        expect(self.region("Half-square triangle")).to_contain_text("24 sets of 2")

    def test_an_allowance_that_is_none_is_refused_at_its_field(self) -> None:
        """Nothing is bought by the usual one meanwhile: the figures are the last that were asked for."""
        self.open(f"{HALF_SEWN}/cut")
        buying = self.region("To buy")
        shrinkage = self.labelled("Shrinkage, in a hundred")
        shrinkage.fill("10")
        ten = buying.locator("li").first
        expect(buying).to_contain_text("bobbins")
        self.page.wait_for_load_state("networkidle")
        told = ten.inner_text()
        for typed, why in (
            ("45", "at most 30"),
            ("a lot", "A whole number is needed"),
            ("2.5", "A whole number is needed"),
        ):
            shrinkage.fill(typed)
            expect(buying.get_by_role("alert")).to_contain_text(why)
            expect(shrinkage).to_have_attribute("aria-invalid", "true")
            expect(ten).to_have_text(told)
        self.page.reload()
        expect(shrinkage).to_have_value("2.5")
        expect(buying.get_by_role("alert")).to_contain_text("A whole number is needed")
        shrinkage.fill("")
        expect(buying.get_by_role("alert")).to_have_count(0)
        expect(buying).to_contain_text("bobbins")

    def test_the_ticket_reads_well_on_a_phone(self) -> None:
        self.page.set_viewport_size({"width": 390, "height": 844})
        self.open(f"{HALF_SEWN}/ticket")
        expect(self.region("Half-square triangle")).to_contain_text("Trim to 4″")
        expect(self.region("The quilt")).to_contain_text("It should measure 35″ by 11″")
        self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 390)

    def test_a_list_is_taken_in(self) -> None:
        self.open(f"{HALF_SEWN}/cut")
        # Both of these come later and push the lists down.
        expect(self.region("To buy")).to_contain_text("Fog:")
        expect(self.region("What the stock gives")).to_be_visible()
        lists = self.region("Lists")
        lists.get_by_text("Take in a list").click()
        lists.get_by_text("pieces to cut", exact=True).click()
        lists.get_by_role("textbox").fill("Buoy; 3 1/2; 9; 4; pocket\nSail; 3; 3; 1; kite")
        lists.get_by_role("button", name="Take them in").click()
        expect(lists.get_by_role("status")).to_contain_text("1 taken in")
        expect(lists.get_by_role("status")).to_contain_text("Line 2:")
        expect(self.region("Piles")).to_contain_text("pocket")


class ExchangeTest(JourneyCase):
    def test_a_project_goes_out_as_a_file_and_comes_back_beside_itself(self) -> None:
        self.open("/")
        save = self.page.get_by_role("link", name="Save Lantern, twelve blocks as a file")
        address = save.get_attribute("href")
        body = self.context.request.get(self.live_server_url + str(address)).body()
        field = self.page.locator("input[type=file]")
        field.set_input_files({"name": "broken.json", "mimeType": "application/json", "buffer": b"{broken"})
        expect(self.page.get_by_role("alert")).to_contain_text("This file is no project")
        newer = body.replace(b"entretoile-project/1", b"entretoile-project/7")
        field.set_input_files({"name": "newer.json", "mimeType": "application/json", "buffer": newer})
        expect(self.page.get_by_role("alert")).to_contain_text("A newer program wrote it")
        field.set_input_files({"name": "project.json", "mimeType": "application/json", "buffer": body})
        expect(self.page.get_by_role("heading", name="Lantern, twelve blocks 2")).to_be_visible()
        self.page.get_by_role("link", name="Measure").click()
        expect(self.page.get_by_role("main")).to_contain_text("top row")


class FirstCutTest(JourneyCase):
    demo = False

    def to(self, name: str, role: str = "button") -> None:
        """Tab on until this has the focus, as a hand without a mouse does."""
        for _ in range(120):
            self.page.keyboard.press("Tab")
            if self.page.locator(f":focus[aria-label*='{name}'], :focus:has-text('{name}')").count():
                return
        self.fail(f"No {role} {name} was reached by Tab.")

    def test_from_nothing_to_a_cut_by_keyboard_alone(self) -> None:
        self.open("/")
        keys = self.page.keyboard
        self.to("Begin a first project")
        keys.press("Enter")
        expect(self.labelled("What to call it")).to_be_visible()
        self.page.get_by_role("radio", name="a quilt").focus()
        keys.press("ArrowLeft")
        keys.press("ArrowLeft")
        for label, value in (
            ("Unit finishes", "3 1/2"),
            ("Units wanted", "4"),
            ("Fabric A", "Dark"),
            ("Fabric B", "Light"),
        ):
            self.labelled(label).focus()
            keys.type(value)
        keys.press("Enter")
        expect(self.region("What to cut")).to_contain_text("2 Dark 4\u00a01⁄2″")
        self.to("Go to Cut", "link")
        keys.press("Enter")
        expect(self.region("Piles")).to_contain_text("Dark")
        self.to("Plan the cuts")
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_role("alert")).to_contain_text("There is no cloth in stock")
        for cloth in ("Yardage of Dark", "Yardage of Light"):
            self.page.get_by_role("button", name=cloth).focus()
            self.page.keyboard.press("Enter")
            expect(self.labelled(f"Across, {cloth.split()[-1]}")).to_have_value("40")
            # What was added is typed over at once: one of it, yardage, 40 across, and as long as it was bought.
            expect(self.labelled(f"How many, {cloth.split()[-1]}")).to_be_focused()
            for _ in range(3):
                keys.press("Tab")
            expect(self.labelled(f"Along, {cloth.split()[-1]}")).to_be_focused()
            keys.type("1 1/2 yd")
            keys.press("Tab")
            expect(self.labelled(f"Along, {cloth.split()[-1]}")).to_have_value("54")
        self.saved()
        self.to("Plan the cuts")
        self.page.keyboard.press("Enter")
        expect(self.region("Cutting plan")).to_contain_text("strips in")
        first = self.page.get_by_role("checkbox").first
        first.focus()
        self.page.keyboard.press("Space")
        expect(first).to_be_checked()
        self.page.get_by_role("button", name="All of it is cut").focus()
        self.page.keyboard.press("Enter")
        expect(self.region("Stock")).to_contain_text("rest of")
