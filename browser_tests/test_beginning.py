"""From an empty table to a cut list: a unit, a block, a quilt; by mouse and by keyboard; and what cannot be."""

from __future__ import annotations

from browser_tests.journey import HALF_SEWN, JourneyCase, expect
from projects.models import Project


class BeginningTest(JourneyCase):
    demo = False

    def begin(self) -> None:
        self.open("/")
        self.page.get_by_role("button", name="Begin a first project").click()
        expect(self.labelled("What to call it")).to_be_visible()

    def test_nine_stars_with_sashing_to_the_cut_list_on_the_keyboard_in_ten_steps(self) -> None:
        """A step is a field filled or a button pressed; Tab alone goes between them."""
        page, keys, steps = self.page, self.page.keyboard, 0
        self.open("/")
        page.get_by_role("button", name="Begin a first project").focus()
        keys.press("Enter")
        steps += 1
        expect(self.labelled("What to call it")).to_be_visible()
        self.tab_to("Which block")
        keys.type("Sawtooth")
        self.page.wait_for_timeout(300)
        keys.press("Enter")
        steps += 1
        for label, value in (
            ("Block finishes", "12"),
            ("How many blocks", "9"),
            ("Sashing between the blocks finishes", "2"),
            ("Fabric A", "Tar"),
            ("Fabric B", "Fog"),
            ("Fabric C", "Buoy"),
        ):
            self.tab_to(label)
            keys.type(value)
            steps += 1
        keys.press("Enter")
        steps += 1
        cut = self.region("What to cut")
        # The keyboard goes on from the page that came.
        keys.press("Tab")
        self.assertTrue(page.evaluate("document.activeElement.closest('#main') !== null"))
        expect(cut).to_contain_text("6 Buoy 2\u00a01⁄2″ × 12\u00a01⁄2″")
        expect(self.region("What is planned")).to_contain_text("9 blocks, finishing 40″ by 40″")
        self.assertLessEqual(steps, 10)

    def test_what_cannot_be_is_said_at_its_field_and_stays_typed(self) -> None:
        self.begin()
        self.page.get_by_role("button", name="Begin", exact=True).click()
        expect(self.page.get_by_role("alert")).to_contain_text("Choose which block")
        self.choose("Which block", "Pinwheel")
        self.labelled("Block finishes").fill("broad")
        self.labelled("How many blocks").fill("61")
        self.page.get_by_role("button", name="Begin", exact=True).click()
        expect(self.page.get_by_role("alert").first).to_be_visible()
        self.labelled("Block finishes").fill("10")
        self.page.get_by_role("button", name="Begin", exact=True).click()
        expect(self.page.get_by_role("alert")).to_contain_text("61 blocks make no quilt")
        expect(self.labelled("How many blocks")).to_have_value("61")
        self.assertEqual(Project.objects.count(), 0)
        self.labelled("How many blocks").fill("5")
        self.labelled("How many blocks").press("Enter")
        expect(self.region("What is planned")).to_contain_text("5 blocks, finishing 50″ by 10″")

    def test_a_block_alone_takes_no_cloth_for_a_quilt_until_one_is_put_together(self) -> None:
        self.begin()
        self.pick("a block")
        self.choose("Which block", "Pinwheel")
        self.labelled("Block finishes").fill("8")
        self.labelled("How many blocks").fill("12")
        self.page.get_by_role("button", name="Begin", exact=True).click()
        expect(self.region("What is planned")).to_contain_text("none put together")
        expect(self.region("What to cut")).not_to_contain_text("binding")
        self.page.get_by_role("link", name="Lay out").click()
        self.page.get_by_role("link", name="Quilt").click()
        self.page.get_by_role("button", name="Put the quilt together").click()
        expect(self.region("Sizes of the quilt")).to_contain_text("24″ × 32″")
        self.saved()
        self.page.get_by_role("link", name="Cut").click()
        expect(self.region("Piles")).to_contain_text("binding")


class StandingTest(JourneyCase):
    def test_a_project_says_where_it_stands_and_what_is_next(self) -> None:
        self.open("/")
        self.page.get_by_role("link", name="Lantern, twelve blocks", exact=True).click()
        expect(self.region("What to do next")).to_contain_text("101 pieces are still to cut")
        expect(self.region("What is planned")).to_contain_text("48 hourglasses finishing 3\u00a01⁄2″, for Lantern")
        expect(self.region("What to do next").get_by_role("link", name="Go on at the bench")).to_be_visible()
        self.page.get_by_role("navigation", name="Stages").get_by_role("link", name="Cut").click()
        row = self.region("Piles").get_by_role("row").filter(has_text="cornerstone")
        row.get_by_role("button", name="is cut").click()
        self.saved()
        self.page.get_by_role("heading", level=1).get_by_role("link").click()
        expect(self.region("What to cut")).to_contain_text("54 of 149 pieces are cut")

    def test_it_fits_a_tablet(self) -> None:
        self.page.set_viewport_size({"width": 820, "height": 1180})
        self.open(HALF_SEWN)
        expect(self.region("What to cut")).to_be_visible()
        self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), 820)
