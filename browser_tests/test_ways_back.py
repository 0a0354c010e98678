"""Back to an earlier state of a project, and to everything as it was in a file."""

from __future__ import annotations

import tempfile
from datetime import timedelta
from pathlib import Path

from django.utils import timezone

from browser_tests.journey import HALF_SEWN, JourneyCase, expect
from browser_tests.own_server import OwnServer
from exchange.history import take_states
from projects.models import Project


class EarlierStatesTest(JourneyCase):
    by_hand = True

    def test_an_earlier_state_is_opened_as_a_copy_with_the_keyboard(self) -> None:
        Project.objects.update(updated_at=timezone.now() - timedelta(minutes=5))
        take_states()
        self.open(f"{HALF_SEWN}/plan")
        self.labelled("Units wanted").fill("60")
        self.saved()
        self.open("/")
        door = self.page.get_by_role("button", name="Earlier states of Lantern, twelve blocks")
        door.focus()
        self.page.keyboard.press("Enter")
        dialog = self.page.get_by_role("dialog", name="Earlier states of Lantern, twelve blocks")
        expect(dialog).to_contain_text("The first state kept")
        dialog.get_by_role("button", name="Open the state of").focus()
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_role("heading", level=1)).to_contain_text("Lantern, twelve blocks, as of")
        expect(self.region("What is planned")).to_contain_text("48 half-square triangles")
        self.open(f"{HALF_SEWN}/plan")
        expect(self.labelled("Units wanted")).to_have_value("60")


class EverythingTest(JourneyCase):
    demo = False
    forgiven = r"Failed to load resource|ERR_|Service Worker registration blocked"

    def _stays_here(self, request: object) -> None:
        """This journey speaks to a server of its own."""

    def test_everything_goes_into_a_file_and_comes_back_from_it(self) -> None:
        scratch = tempfile.TemporaryDirectory()
        self.addCleanup(scratch.cleanup)
        # The first start of all: the page has its scripts and styles from it, not only from the second one.
        own = OwnServer.on_nothing(f"{scratch.name}/data")
        self.addCleanup(own.stop)
        self.complaints.clear()
        page = self.page
        page.goto(f"{own.url}/settings")
        with page.expect_download() as saved:
            page.get_by_role("link", name="Save everything to a file").click()
        file = Path(scratch.name) / "mine.sqlite3"
        saved.value.save_as(file)
        self.labelled("Name of the workroom").fill("Spoilt")
        self.saved()
        page.reload()
        expect(self.labelled("Name of the workroom")).to_have_value("Spoilt")
        copies = self.region("Copies")
        wrong = Path(scratch.name) / "wrong.sqlite3"
        wrong.write_text("no workroom")
        copies.locator("input[type=file]").set_input_files(wrong)
        page.get_by_role("button", name="Put it back").click()
        expect(copies.get_by_role("alert")).to_contain_text("damaged")
        expect(page.get_by_role("button", name="Put it back")).to_have_count(0)
        copies.locator("input[type=file]").set_input_files(file)
        page.get_by_role("button", name="Put it back").click()
        expect(self.labelled("Name of the workroom")).to_have_value("Lantern Deck")
        expect(copies).to_contain_text("Before going back")
        # And forth again, from what was put aside.
        copies.get_by_role("listitem").filter(has_text="Before going back").get_by_role("button").click()
        page.get_by_role("button", name="Put it back").click()
        expect(self.labelled("Name of the workroom")).to_have_value("Spoilt")
