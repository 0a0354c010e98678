"""Two windows on one project, and a server that goes away in the middle of typing."""

from __future__ import annotations

import tempfile

from playwright.sync_api import Page

from browser_tests.journey import HALF_SEWN, JUST_PLANNED, JourneyCase, expect
from browser_tests.own_server import OwnServer
from projects.models import Project


class TwoWindowsTest(JourneyCase):
    def both(self) -> tuple[Page, Page]:
        other = self.new_page()
        self.open(f"{JUST_PLANNED}/plan")
        self.open(f"{JUST_PLANNED}/plan", other)
        for page in (self.page, other):
            expect(self.labelled("Units wanted", page)).to_have_value("30")
        return self.page, other

    def test_different_fields_both_go_in(self) -> None:
        one, two = self.both()
        self.labelled("Units wanted", one).fill("32")
        self.saved(one)
        self.labelled("Fold not paid for", two).fill("1/64")
        self.saved(two)
        one.reload()
        expect(self.labelled("Units wanted", one)).to_have_value("32")
        expect(self.labelled("Fold not paid for", one)).to_have_value("1/64")

    def test_the_same_field_is_asked_about_and_either_can_stay(self) -> None:
        for choice, kept in (("Keep theirs", "40"), ("Keep mine", "50")):
            with self.subTest(choice):
                Project.objects.get(name__startswith="Wake").units.update(count=30)
                one, two = self.both()
                self.labelled("Units wanted", one).fill("40")
                self.saved(one)
                self.labelled("Units wanted", two).fill("50")
                dialog = two.get_by_role("dialog", name="Changed in another window")
                expect(dialog).to_contain_text("40")
                expect(dialog).to_contain_text("50")
                dialog.get_by_role("button", name=choice).click()
                expect(dialog).to_be_hidden()
                two.wait_for_timeout(500)
                two.reload()
                expect(self.labelled("Units wanted", two)).to_have_value(kept)
                two.close()

    def test_a_project_deleted_in_another_window(self) -> None:
        one, two = self.both()
        self.open("/", two)
        two.get_by_role("button", name="Delete Wake, five rows").click()
        expect(two.get_by_role("link", name="Wake, five rows")).to_have_count(0)
        self.labelled("Units wanted", one).fill("99")
        expect(one.get_by_role("alert").filter(has_text="Not taken: 99.")).to_be_visible()


class ServerAwayTest(JourneyCase):
    demo = False
    forgiven = r"Failed to load resource|ERR_CONNECTION"

    def setUp(self) -> None:
        super().setUp()
        scratch = tempfile.TemporaryDirectory()
        self.addCleanup(scratch.cleanup)
        self.own = OwnServer(scratch.name)
        self.addCleanup(self.own.stop)
        self.complaints.clear()

    def _stays_here(self, request: object) -> None:
        """This journey speaks to a server of its own."""

    def test_nothing_typed_while_it_is_away_is_lost(self) -> None:
        page = self.page
        page.goto(f"{self.own.url}{HALF_SEWN}/measure")
        expect(self.labelled("The ruler reads")).to_be_focused()
        page.keyboard.type("4")
        page.keyboard.press("Enter")
        expect(self.lines()).to_have_count(16)
        self.saved()
        self.own.stop()
        for typed in ("3 15/16", "4 3/16"):
            page.keyboard.type(typed)
            page.keyboard.press("Enter")
        expect(page.get_by_text("The server is away.")).to_be_visible()
        expect(page.get_by_text("2 changes are kept in this browser")).to_be_visible()
        expect(page.get_by_text("kept here, not sent yet")).to_have_count(2)
        self.own.start()
        expect(page.get_by_text("The server is away.")).to_be_hidden(timeout=10_000)
        expect(self.lines()).to_have_count(18)
        expect(self.region("Readings")).to_contain_text("3⁄16″ over")

    def test_closing_the_window_meanwhile_loses_nothing_either(self) -> None:
        page = self.page
        page.goto(f"{self.own.url}{HALF_SEWN}/plan")
        expect(self.labelled("Units wanted")).to_have_value("48")
        self.own.stop()
        self.labelled("Units wanted").fill("60")
        expect(page.get_by_text("1 change is kept in this browser")).to_be_visible()
        page.close()
        self.own.start()
        again = self.new_page()
        again.goto(f"{self.own.url}{HALF_SEWN}/plan")
        expect(self.labelled("Units wanted", again)).to_have_value("60")
        again.wait_for_timeout(800)
        again.reload()
        expect(self.labelled("Units wanted", again)).to_have_value("60")
