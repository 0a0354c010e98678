"""Many units in a project: adding, becoming another kind, comparing, hands, rulers and what cannot be made."""

from __future__ import annotations

from browser_tests.journey import HALF_SEWN, JUST_PLANNED, JourneyCase, expect
from workrooms.models import OwnedRuler


class UnitsTest(JourneyCase):
    demo = False

    def begin(self) -> None:
        self.begin_unit()
        expect(self.region("What to cut")).to_contain_text("4\u00a01⁄2″")

    def add(self, kind: str) -> None:
        self.page.get_by_role("button", name="Add a unit").click()
        dialog = self.page.get_by_role("dialog", name="Which unit")
        expect(dialog).to_be_visible()
        self.page.wait_for_timeout(400)
        dialog.get_by_role("button", name=kind).first.click()
        self.page.wait_for_url("**/units/*/plan")

    def test_a_unit_is_added_copied_removed_and_taken_back(self) -> None:
        self.begin()
        self.add("Flying goose")
        rail = self.page.get_by_role("navigation", name="Units of this project").get_by_role("link")
        expect(rail).to_have_count(2)
        expect(self.region("What to cut")).to_contain_text("squares of")
        self.page.get_by_role("button", name="Copy this one").click()
        expect(rail).to_have_count(3)
        self.page.get_by_role("button", name="Remove it").click()
        expect(rail).to_have_count(2)
        self.page.get_by_role("button", name="Undo").click()
        expect(rail).to_have_count(3)
        self.saved()
        self.page.reload()
        expect(rail).to_have_count(3)

    def test_every_kind_plans_trims_and_compares_from_its_first_moment(self) -> None:
        self.begin()
        self.page.get_by_role("button", name="Add a unit").click()
        dialog = self.page.get_by_role("dialog", name="Which unit")
        names = [b.split("\n")[0] for b in dialog.locator("li button").all_inner_texts()]
        self.page.keyboard.press("Escape")
        self.assertGreaterEqual(len(names), 12)
        for n, name in enumerate(names):
            with self.subTest(name):
                self.page.get_by_role("button", name="Add a unit").click()
                expect(dialog).to_be_visible()
                self.page.wait_for_timeout(400)
                dialog.locator("li button").nth(n).click()
                expect(dialog).to_be_hidden()
                expect(
                    self.page.get_by_role("navigation", name="Units of this project").get_by_role("link")
                ).to_have_count(n + 2)
                expect(self.region("What to cut")).to_contain_text("sq in of cloth")
                expect(self.page.get_by_role("alert")).to_have_count(0)
        self.saved()

    def test_what_cannot_be_made_is_said_with_what_works(self) -> None:
        self.begin()
        self.add("Flying goose")
        expect(self.region("What to cut")).to_contain_text("squares of")
        self.saved()
        self.labelled("Finishes high").fill("3")
        expect(self.page.get_by_role("alert").filter(has_text="twice as wide as high").first).to_be_visible()
        self.labelled("Finishes high").fill("1 3/4")
        expect(self.page.get_by_role("alert")).to_have_count(0)
        self.saved()


class CompareTest(JourneyCase):
    def test_the_chosen_way_flows_into_the_plan(self) -> None:
        self.open(f"{JUST_PLANNED}/plan")
        self.page.get_by_role("link", name="Compare all ways").click()
        top = self.region("Recommended")
        expect(top).to_contain_text("For these numbers, first of all")
        table = self.region("All ways side by side")
        rows = table.locator("tbody tr")
        self.assertEqual(rows.count(), 5)
        table.get_by_role("button", name="more").click()
        self.assertGreater(rows.count(), 8)
        table.get_by_role("button", name="Cloth, waste").click()
        expect(table.locator("th[aria-sort=ascending]")).to_have_count(1)
        wasted = [
            float(r.split(", ")[-1].rstrip("%")) for r in table.locator("tbody tr td:nth-child(3)").all_inner_texts()
        ]
        self.assertEqual(wasted, sorted(wasted))
        table.get_by_role("button", name="Plan by Two flipped corners, Generous").click()
        self.page.wait_for_url("**/plan")
        expect(self.page.get_by_role("radio", name="Generous")).to_be_checked()
        expect(self.region("What to cut")).to_contain_text("30 of 6\u00a01⁄2″")

    def test_the_pieces_at_hand_are_counted_and_kept_in_the_address(self) -> None:
        self.open(f"{HALF_SEWN}/compare")
        self.labelled("Pieces at hand, of each fabric").fill("3 of 10 by wide")
        expect(self.page.get_by_role("alert")).to_be_visible()
        self.labelled("Pieces at hand, of each fabric").fill("12 of 10 x 10")
        table = self.region("All ways side by side")
        expect(table).to_contain_text("largest")
        self.page.wait_for_url("**have=*")
        self.page.reload()
        expect(self.labelled("Pieces at hand, of each fabric")).to_have_value("12 of 10 x 10")
        expect(table).to_contain_text("largest")


class RulersTest(JourneyCase):
    def test_a_ruler_is_added_refused_changed_and_removed(self) -> None:
        self.open("/settings")
        sheet = self.region("Rulers owned")
        sheet.get_by_role("button", name="Add a ruler").click()
        self.labelled("Name of the ruler").fill("Locker square")
        self.labelled("Wide").fill("broad")
        self.labelled("High").fill("5")
        sheet.get_by_role("button", name="Keep the ruler").click()
        expect(self.page.get_by_role("alert").first).to_be_visible()
        expect(self.labelled("Name of the ruler")).to_have_value("Locker square")
        self.labelled("Wide").fill("5")
        sheet.get_by_role("button", name="Keep the ruler").click()
        expect(sheet).to_contain_text("Locker square, 5″ × 5″")
        sheet.get_by_role("button", name="Remove Locker square").click()
        expect(sheet).not_to_contain_text("Locker square")
        self.page.get_by_role("button", name="Undo").click()
        expect(sheet).to_contain_text("Locker square")

    def test_recipes_follow_the_rulers_and_the_hand(self) -> None:
        self.open("/settings")
        self.pick("Left")
        self.page.wait_for_timeout(900)
        self.open(f"{HALF_SEWN}/trim")
        expect(self.region("Target")).to_contain_text("For a left-handed cutter")
        OwnedRuler.objects.all().delete()
        self.open(f"{HALF_SEWN}/trim")
        expect(self.region("Target")).to_contain_text("You have no rulers listed")


class HandsTest(JourneyCase):
    demo = False

    def test_a_handed_unit_says_what_it_gives_and_what_is_over(self) -> None:
        self.begin_unit()
        self.page.get_by_role("button", name="Add a unit").click()
        dialog = self.page.get_by_role("dialog", name="Which unit")
        expect(dialog).to_be_visible()
        self.page.wait_for_timeout(400)
        dialog.get_by_role("button", name="Split hourglass").first.click()
        expect(self.page.get_by_role("navigation", name="Units of this project").get_by_role("link")).to_have_count(2)
        self.labelled("Wanted as drawn").fill("6")
        self.labelled("Wanted mirrored").fill("0")
        expect(self.region("Sizes")).to_contain_text("has a hand")
        self.saved()


class FabricsTest(JourneyCase):
    def test_a_fabric_is_added_used_and_taken_away_again(self) -> None:
        self.open(f"{HALF_SEWN}/plan")
        rows = self.page.locator('input[aria-label^="Name of fabric"]')
        before = rows.count()
        self.page.get_by_role("button", name="Another fabric").click()
        expect(rows).to_have_count(before + 1)
        rows.last.fill("Slack rope")
        self.saved()
        self.page.get_by_role("button", name="Remove fabric Slack rope").click()
        expect(rows).to_have_count(before)
        self.page.get_by_role("button", name="Undo").click()
        expect(rows).to_have_count(before + 1)
        self.saved()
        self.page.reload()
        expect(rows.last).to_have_value("Slack rope")
