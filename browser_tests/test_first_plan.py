"""From an empty table to a first plan, and what happens to what cannot be read."""

from __future__ import annotations

from browser_tests.journey import JourneyCase, expect


class FirstPlanTest(JourneyCase):
    demo = False

    def begin(self) -> None:
        self.begin_unit()
        expect(self.region("What to cut")).to_contain_text("4\u00a01⁄2″")

    def test_an_empty_table_leads_to_a_plan(self) -> None:
        self.begin()
        expect(self.region("What to cut")).to_contain_text("2 squares of 4\u00a01⁄2″ from Dark")
        expect(self.page.get_by_role("figure", name="Size ladder")).to_contain_text("to the diagonal seam")
        self.assertIn("/plan", self.page.url)

    def test_the_result_moves_as_the_choices_move(self) -> None:
        self.begin()
        answer = self.region("What to cut")
        self.labelled("Unit finishes").fill("2 3/4")
        expect(answer).to_contain_text("3\u00a03⁄4″")
        self.labelled("Units wanted").fill("7")
        expect(answer).to_contain_text("8 units, 1 spare")
        self.pick("Generous")
        expect(answer).to_contain_text("4\u00a01⁄4″")
        self.labelled("Fold not paid for").fill("1/32")
        expect(self.page.get_by_role("img", name="The sewn unit")).to_be_visible()
        self.saved()
        self.page.reload()
        expect(self.region("What to cut")).to_contain_text("4\u00a01⁄4″")
        expect(self.labelled("Unit finishes")).to_have_value("2 3/4")
        expect(self.labelled("Fold not paid for")).to_have_value("1/32")

    def test_what_cannot_be_read_is_said_and_kept_through_a_reload(self) -> None:
        self.begin()
        for typed, said in (
            ("3 7/0", "a fraction cannot have 0 below the line"),
            ("wide", "which is no number"),
            ("0", "finishes between 1⁄4″ and 60″"),
            ("400", "finishes between 1⁄4″ and 60″"),
            ("-3", "below zero"),
            ("3.1234567", "more than 6 decimals"),
            ("3 in 8 mm", "mixes two measures"),
        ):
            with self.subTest(typed):
                self.labelled("Unit finishes").fill(typed)
                expect(self.page.get_by_role("alert").filter(has_text=said)).to_be_visible()
        expect(self.page.get_by_text("these are the last sizes that could be planned")).to_be_visible()
        self.page.wait_for_timeout(600)
        self.page.reload()
        expect(self.labelled("Unit finishes")).to_have_value("3 in 8 mm")
        expect(self.page.get_by_role("alert").filter(has_text="mixes two measures")).to_be_visible()
        self.labelled("Unit finishes").fill("3")
        expect(self.region("What to cut")).to_contain_text("4″")
        self.saved()

    def test_squares_too_small_are_refused_with_the_smallest_that_works(self) -> None:
        self.begin()
        self.page.get_by_text("More about seam, cut and ruler").click()
        self.labelled("squares").fill("4 1/4")
        expect(self.page.get_by_role("alert").filter(has_text="The smallest that works is 4\u00a03⁄8″")).to_be_visible()
        self.labelled("squares").fill("4 3/8")
        expect(self.region("What to cut")).to_contain_text("4\u00a03⁄8″")
        expect(self.page.get_by_text("Take care: This leaves")).to_be_visible()
        self.saved()

    def test_a_school_that_waits_for_its_margin_says_so(self) -> None:
        self.begin()
        self.pick("Your margin")
        expect(self.page.get_by_text("Say how much should come off each side").first).to_be_visible()
        self.labelled("Margin of your own, each side").fill("1/8")
        expect(self.region("What to cut")).to_contain_text("4\u00a05⁄8″")
        self.saved()

    def test_a_block_gives_the_units_size(self) -> None:
        self.begin()
        self.pick("Block")
        self.labelled("Block finishes").fill("12")
        self.labelled("Units across").fill("4")
        expect(self.region("Worth knowing")).to_contain_text("A row of 4 has 3 seams across")
        expect(self.region("What to cut")).to_contain_text("3\u00a01⁄2″")
        self.saved()

    def test_in_the_other_measure_what_was_typed_stays_and_what_was_not_is_round(self) -> None:
        """76.2 mm and four allowances of 6 are 100.2: up to the next five, 105."""
        self.begin()
        self.labelled("Unit finishes").fill("3")
        self.page.get_by_text("More about seam, cut and ruler").click()
        self.pick("Millimetres")
        expect(self.labelled("Unit finishes")).to_have_value("76.2 mm")
        expect(self.labelled("Seam allowance")).to_have_value("6 mm")
        expect(self.region("What to cut")).to_contain_text("105\u00a0mm")
        self.assertEqual(self.page.get_by_role("alert").count(), 0)
