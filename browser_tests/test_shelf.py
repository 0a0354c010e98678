"""Cloth that goes from project to project over the shelf, triangles and units that are there already, scraps that are cut."""

from __future__ import annotations

from browser_tests.journey import HALF_SEWN, JUST_PLANNED, JourneyCase, expect
from cutting.models import CutPile, Stock
from projects.models import Fabric, PlannedUnit, Project


class ShelfTest(JourneyCase):
    def test_cloth_goes_over_the_shelf_and_back(self) -> None:
        """Two fat quarters of Buoy lie in the half-sewn project; the other one takes one of them, as a new fabric and then for
        its Slackwater."""
        self.open(f"{HALF_SEWN}/cut")
        stock = self.region("Stock")
        quarters = stock.locator(".cloth").filter(has_text="across up to").first
        expect(quarters.get_by_label("How many, Buoy")).to_have_value("2")
        quarters.get_by_role("button", name="Put this Buoy on the shelf").click()
        shelf = self.region("On the shelf")
        expect(shelf).to_contain_text("Buoy, 2 × fat quarter 20″ × 18″")
        self.saved()
        self.open(f"{JUST_PLANNED}/cut")
        expect(shelf).to_contain_text("Buoy, 2 ×")
        many = shelf.get_by_label("How many of Buoy to take")
        many.fill("5")
        shelf.get_by_role("button", name="Take Buoy off the shelf").click()
        expect(shelf.get_by_role("alert")).to_contain_text("Take between 1 and 2")
        expect(many).to_have_value("5")
        many.fill("1")
        shelf.get_by_role("button", name="Take Buoy off the shelf").click()
        expect(shelf).to_contain_text("Buoy, 1 ×")
        expect(self.region("Stock").get_by_label("How many, Buoy")).to_have_value("1")
        self.choose_fabric("Slackwater")
        shelf.get_by_role("button", name="Take Buoy off the shelf").click()
        expect(self.region("Stock").get_by_label("How many, Slackwater")).to_have_value("1")
        self.saved()
        wake = Project.objects.get(name__startswith="Wake")
        held = Stock.objects.filter(fabric__project=wake).values_list("fabric__name", "count")
        self.assertEqual(sorted(held), [("Buoy", 1), ("Slackwater", 1)])
        self.assertFalse(Stock.objects.filter(cloth="Buoy", fabric=None, deleted_at=None).exists())

    def choose_fabric(self, name: str) -> None:
        field = self.labelled("Take Buoy for")
        field.click()
        self.page.locator(".n-base-select-option:visible").filter(has_text=name).click()
        expect(self.page.locator(".n-base-selection").filter(has=field)).to_contain_text(name)

    def test_what_was_taken_in_another_window_is_told_by_name(self) -> None:
        row = Stock.objects.filter(kind="fat_quarter", fabric__name="Buoy").first()
        assert row is not None
        row.cloth, row.fabric, kept = "Buoy", None, row.fabric
        row.save()
        self.open(f"{JUST_PLANNED}/cut")
        shelf = self.region("On the shelf")
        expect(shelf).to_contain_text("Buoy, 2 ×")
        Stock.objects.filter(pk=row.pk).update(fabric=kept)
        shelf.get_by_role("button", name="Take Buoy off the shelf").click()
        expect(shelf.get_by_role("alert")).to_contain_text("reserved for Lantern, twelve blocks meanwhile")
        self.saved()
        self.assertEqual(Fabric.objects.filter(project__name__startswith="Wake", name="Buoy").count(), 0)

    def test_what_lies_there_is_told_with_its_range(self) -> None:
        self.open("/shelf")
        sheet = self.region("On the shelf")
        expect(sheet.get_by_label("Across up to, Rope")).to_have_value("22")
        expect(sheet.get_by_label("Raw side, Tar")).to_have_value("2 1/2")
        self.assertEqual(self.violations(), [])

    def test_the_shelf_by_keyboard_alone(self) -> None:
        Stock.objects.filter(fabric=None).delete()
        self.open("/shelf")
        sheet = self.region("On the shelf")
        expect(sheet).to_contain_text("Nothing lies here yet")
        sheet.get_by_role("button", name="Fat quarter").focus()
        self.page.keyboard.press("Enter")
        name = sheet.get_by_label("What the fabric is called")
        name.fill("Rope")
        self.page.keyboard.press("Tab")
        wide = sheet.get_by_label("Across up to, Rope")
        wide.fill("10")
        wide.press("Enter")
        expect(sheet.get_by_role("alert")).to_contain_text("not as much as 20″ across")
        wide.fill("22")
        wide.press("Enter")
        expect(sheet.get_by_role("alert")).to_have_count(0)
        self.saved()
        self.page.reload()
        expect(sheet.get_by_label("Across up to, Rope")).to_have_value("22")
        self.assertEqual(self.violations(), [])
        sheet.get_by_role("button", name="Take this Rope away").focus()
        self.page.keyboard.press("Enter")
        expect(sheet).to_contain_text("Nothing lies here yet")
        self.page.get_by_role("button", name="Undo").click()
        expect(sheet.get_by_label("What the fabric is called")).to_have_value("Rope")

    def test_odd_triangles_are_kept_and_used_again(self) -> None:
        """Geese of loose triangles: 30 want 30 quarters of the goose's squares; eight squares give 32, two are odd."""
        PlannedUnit.objects.filter(kind="flying_goose", project__name__startswith="Wake").update(
            method="loose_triangles", of_blocks={}
        )
        self.open(f"{JUST_PLANNED}/cut")
        row = self.region("Piles").get_by_role("row").filter(has_text="cut on both diagonals")
        expect(row.get_by_role("cell").nth(1)).to_have_text("8")
        row.get_by_role("button", name="is cut").click()
        row.get_by_role("button", name="Keep 2 odd triangles").click()
        stock = self.region("Stock")
        expect(stock.get_by_label("Side of the square they were cut from, Slackwater")).to_be_visible()
        expect(row.get_by_role("button", name="odd")).to_have_count(0)
        self.saved()
        self.assertEqual(CutPile.objects.get(gives=4).put_by, 2)
        self.page.get_by_role("button", name="Undo: as it was before odd triangles").click()
        expect(row.get_by_role("button", name="Keep 2 odd triangles")).to_be_visible()


class ReadyTest(JourneyCase):
    by_hand = True

    def test_small_units_from_corners_are_kept_and_used(self) -> None:
        """Thirty geese by flipped corners of 3 1/4 leave sixty small half-square triangles that finish 2."""
        wake = Project.objects.get(name__startswith="Wake")
        goose = PlannedUnit.objects.get(kind="flying_goose", project=wake)
        PlannedUnit.objects.filter(pk=goose.pk).update(method="two_flipped_corners", school="exact")
        self.open(f"{JUST_PLANNED}/units/{goose.pk}/plan")
        self.page.get_by_role("button", name="Keep them in stock").click()
        expect(self.page.get_by_role("button", name="Keep them in stock")).to_have_count(0)
        self.page.get_by_role("button", name="Add a unit").click()
        self.page.get_by_role("dialog").get_by_role("button", name="Half-square triangle").first.click()
        self.page.wait_for_url(lambda url: str(goose.pk) not in url)
        # The address is there before the page: what is typed now would be the goose's.
        expect(self.page.get_by_role("heading", name="Half-square triangle")).to_be_visible()
        self.labelled("Unit finishes").fill("2")
        self.labelled("Units wanted").fill("24")
        self.page.get_by_role("button", name="Use 24 here").click()
        expect(self.labelled("Of these, made already")).to_have_value("24")
        expect(self.region("What to cut")).to_contain_text("All 24 units are there already")
        self.labelled("Of these, made already").fill("10")
        expect(self.region("What to cut")).to_contain_text("10 units are there already, so 14 of 24 are to make")


class ScrapsCutTest(JourneyCase):
    def test_scraps_laid_out_are_cut(self) -> None:
        self.open(f"{HALF_SEWN}/blocks/scraps")
        lay = self.page.get_by_role("button", name="Lay them out")
        lay.click()
        expect(self.page.get_by_role("alert")).to_contain_text("108 places ask for as many")
        for fabric, count in (("Buoy", "54"), ("Tar", "54")):
            self.labelled(fabric).fill(count)
        self.page.get_by_text("matched sets").click()
        lay.click()
        expect(self.page.get_by_text("No two neighbours are alike")).to_be_visible()
        self.page.get_by_role("link", name="Cut", exact=True).click()
        # Six of the twelve blocks have their half-square triangles, 24 of 48, from Tar: twelve squares, on
        # one pile with the four corner squares of the border.
        row = self.region("Piles").get_by_role("row").filter(has_text="Tar 4\u00a01⁄2″").filter(has_text="Half-square")
        expect(row.get_by_role("cell").nth(1)).to_have_text("16")

    def test_every_block_from_one_matched_pair(self) -> None:
        self.open(f"{HALF_SEWN}/blocks/scraps")
        self.page.get_by_text("matched sets").click()
        self.choose("In pairs, the place of", "Fog")
        expect(self.page.get_by_text("12 blocks in the quilt, pairs for 0 named below")).to_be_visible()
        lay = self.page.get_by_role("button", name="Lay them out")
        lay.click()
        expect(self.page.get_by_role("alert")).to_contain_text("12 blocks ask for a set each")
        pairs = self.page.get_by_role("group", name="Pairs there are")
        for first, second in (("Buoy", "Fog"), ("Tar", "Fog")):
            pairs.get_by_role("button", name="Add a pair").click()
            row = pairs.get_by_role("group").last
            if first != "Buoy":
                self.choose("First fabric", first, row)
            pairs.get_by_role("group", name=f"{first} with {second}").get_by_label("Blocks").fill("6")
        lay.click()
        # Fog is in both: wherever blocks meet they are alike, and why is said.
        expect(self.page.get_by_text("Fabric B has to fill 12 of 12 places")).to_be_visible()
        self.page.reload()
        row = self.page.get_by_role("group", name="Pairs there are").get_by_role("group", name="Tar with Fog")
        expect(row.get_by_label("Blocks")).to_have_value("6")
        row.get_by_label("Blocks").fill("5")
        self.page.get_by_role("button", name="Lay them out").click()
        expect(self.page.get_by_role("alert")).to_contain_text("there are sets for 11: one more is needed")

    def test_counts_typed_while_the_server_is_away_stay_through_a_reload(self) -> None:
        self.open(f"{HALF_SEWN}/blocks/scraps")
        self.labelled("Buoy").fill("61")
        self.page.route("**/api/projects/*/scraps", lambda route: route.abort())
        self.page.get_by_role("button", name="Lay them out").click()
        expect(self.page.get_by_role("alert")).to_contain_text("What is typed stays here")
        self.page.unroute("**/api/projects/*/scraps")
        self.page.reload()
        expect(self.labelled("Buoy")).to_have_value("61")

    def test_a_list_pasted_while_the_server_is_away_stays_through_a_reload(self) -> None:
        self.open(f"{HALF_SEWN}/cut")
        # What stands above it comes in first: a click meanwhile may meet something else.
        expect(self.region("To buy")).to_contain_text("Buoy:")
        lists = self.region("Lists")
        lists.get_by_text("Take in a list").click()
        lists.get_by_label("Lines").fill("fabric,across,along\nBuoy,40,9")
        self.page.route("**/api/projects/*/stock.csv", lambda route: route.abort())
        lists.get_by_role("button", name="Take").click()
        expect(lists.get_by_role("alert")).to_contain_text("The lines stay here")
        self.page.unroute("**/api/projects/*/stock.csv")
        self.page.reload()
        expect(lists.get_by_label("Lines")).to_have_value("fabric,across,along\nBuoy,40,9")


class RoundTest(JourneyCase):
    def test_millimetres_become_round_on_request(self) -> None:
        self.open(JUST_PLANNED)
        expect(self.region("Sizes that are not round")).to_have_count(0)
        wake = Project.objects.get(name__startswith="Wake")
        Project.objects.filter(pk=wake.pk).update(measure="mm")
        self.open(JUST_PLANNED)
        off = self.region("Sizes that are not round")
        expect(off).to_contain_text("Wake finishes 139.7 mm; 140 mm is round.")
        off.get_by_role("button", name="Make these sizes round").click()
        expect(off).to_have_count(0)
        expect(self.region("What is planned")).to_contain_text("finishing 140 mm")
        self.page.get_by_role("button", name="Undo").click()
        expect(off).to_contain_text("Wake finishes 139.7 mm")
