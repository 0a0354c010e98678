"""Two windows on one project, and a server that goes away in the middle of typing."""

from __future__ import annotations

import re
import tempfile

from playwright.sync_api import Locator, Page

from blocks.models import Block
from browser_tests.journey import HALF_SEWN, JUST_PLANNED, LANTERN, JourneyCase, expect
from browser_tests.own_server import OwnServer
from piecing.lengths import inches
from projects.models import PlannedUnit, Project


def decide(dialog: Locator, answer: str) -> None:
    """Once the dialog has grown to its size: on a busy machine a click meets the place where its button was."""
    expect(dialog).not_to_have_class(re.compile("enter-active"))
    dialog.get_by_role("button", name=answer).click()


class OneBrowserTest(JourneyCase):
    """Windows of one browser share one queue, and show what the other one does."""

    by_hand = True

    def test_one_window_follows_the_other_and_nobody_clashes_with_herself(self) -> None:
        other = self.new_page()
        for page in (self.page, other):
            self.open(f"{JUST_PLANNED}/plan", page)
            expect(self.labelled("Units wanted", page)).to_have_value("30")
        self.labelled("Units wanted").fill("40")
        expect(self.labelled("Units wanted", other)).to_have_value("40")
        self.labelled("Units wanted", other).fill("50")
        expect(self.labelled("Units wanted")).to_have_value("50")
        self.saved()
        self.saved(other)
        self.assertEqual(PlannedUnit.objects.get(project__name__startswith="Wake", kind="flying_goose").count, 50)
        # The window that sends is closed in the middle: the other one takes over.
        self.labelled("Units wanted").fill("60")
        self.page.close()
        expect(self.labelled("Units wanted", other)).to_have_value("60")
        self.labelled("Fold not paid for", other).fill("1/64")
        self.saved(other)
        other.reload()
        expect(self.labelled("Units wanted", other)).to_have_value("60")
        expect(self.labelled("Fold not paid for", other)).to_have_value("1/64")

    def test_a_size_cut_already_that_the_other_window_takes_away(self) -> None:
        other = self.new_page()
        for page in (self.page, other):
            self.open(f"{JUST_PLANNED}/plan", page)
            page.get_by_text("More about seam, cut and ruler").click()
        first, second = (
            p.get_by_role("group", name="Already cut, or bought, at").get_by_role("textbox").first
            for p in (self.page, other)
        )
        first.fill("7 1/4")
        expect(second).to_have_value("7 1/4")
        second.fill("")
        expect(first).to_have_value("")
        self.saved()
        # The plan goes on answering.
        self.labelled("Units wanted").fill("44")
        expect(self.region("What to cut")).to_contain_text("44")
        self.saved()

    def test_a_window_read_again_before_it_could_tell_of_a_change(self) -> None:
        """The window that sends has not heard of it, and never would: it is told when the other one is read again."""
        self.open(f"{JUST_PLANNED}/plan")
        other = self.new_page()
        other.add_init_script(_DUMB)
        self.open(f"{JUST_PLANNED}/plan", other)
        expect(self.labelled("Units wanted", other)).to_have_value("30")
        self.labelled("Units wanted", other).fill("40")
        expect(other.locator("header .saved")).to_have_text("Saving…")
        other.wait_for_timeout(900)
        expect(other.locator("header .saved")).to_have_text("Saving…")
        other.evaluate("sessionStorage.setItem('telling', 'yes')")
        other.reload()
        self.saved(other)
        self.saved()
        expect(self.labelled("Units wanted")).to_have_value("40")
        self.assertEqual(PlannedUnit.objects.get(project__name__startswith="Wake", kind="flying_goose").count, 40)

    def test_a_colourway_changed_twice_at_once_is_no_clash(self) -> None:
        self.open(f"{LANTERN}/lay")
        self.page.get_by_role("button", name="Another colourway").click()
        self.page.get_by_role("button", name="Another colourway").click()
        expect(self.labelled("Blocks of colourway 3")).to_be_visible()
        self.saved()
        expect(self.page.get_by_role("dialog")).to_have_count(0)


_DUMB = """
  const post = BroadcastChannel.prototype.postMessage
  BroadcastChannel.prototype.postMessage = function (told) {
    if (sessionStorage.getItem('telling')) post.call(this, told)
  }
"""
_NO_STORAGE = """
  const no = () => { throw new DOMException('Storage is switched off', 'SecurityError') }
  for (const name of ['indexedDB', 'localStorage', 'sessionStorage'])
    Object.defineProperty(window, name, { get: no, configurable: true })
"""
_FULL = """
  const put = IDBObjectStore.prototype.put
  IDBObjectStore.prototype.put = function (...given) {
    throw new DOMException('No room', 'QuotaExceededError')
  }
"""


class NoStorageTest(JourneyCase):
    """A private window, or a full disk: said before one types, and everything goes to the server as always."""

    by_hand = True
    forgiven = JourneyCase.forgiven + r"|Storage is switched off|No room"

    def test_storage_switched_off(self) -> None:
        self.context.add_init_script(_NO_STORAGE)
        self.works_and_says("Its storage is switched off")

    def test_storage_full(self) -> None:
        self.context.add_init_script(_FULL)
        self.works_and_says("Its storage is full")

    def works_and_says(self, told: str) -> None:
        self.open(f"{JUST_PLANNED}/plan")
        expect(self.page.get_by_role("status").filter(has_text=told)).to_be_visible()
        self.labelled("Units wanted").fill("42")
        self.saved()
        for path in (f"{HALF_SEWN}/measure", f"{LANTERN}/lay", f"{HALF_SEWN}/cut", f"{LANTERN}/diagnose", "/settings"):
            self.open(path)
            expect(self.page.get_by_role("main")).to_be_visible()
            self.page.wait_for_timeout(300)
        self.open(f"{JUST_PLANNED}/plan")
        expect(self.labelled("Units wanted")).to_have_value("42")


class TwoBrowsersTest(JourneyCase):
    """The table in one room and the machine in another: what was read before the other wrote is asked about."""

    by_hand = True

    def both(self) -> tuple[Page, Page]:
        other = self.elsewhere()
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

    def test_borders_of_two_windows_are_told_in_words(self) -> None:
        other = self.elsewhere()
        for page in (self.page, other):
            self.open(f"{HALF_SEWN}/blocks/quilt", page)
            expect(self.labelled("Border 1 finishes", page)).to_have_value("1")
        self.labelled("Border 1 finishes").fill("1 1/2")
        self.saved()
        self.labelled("Border 1 finishes", other).fill("2")
        dialog = other.get_by_role("dialog", name="Changed in another window")
        expect(dialog).to_contain_text("width 3/2")
        expect(dialog).to_contain_text("width 2")
        expect(dialog).not_to_contain_text("object")
        decide(dialog, "Keep mine")
        expect(dialog).to_be_hidden()
        self.saved(other)
        self.page.reload()
        expect(self.labelled("Border 1 finishes")).to_have_value("2")

    def test_layouts_go_on_from_one_another_and_undoing_over_it_is_asked_about(self) -> None:
        other = self.elsewhere()
        for page in (self.page, other):
            self.open(f"{LANTERN}/lay", page)
            expect(page.get_by_role("toolbar")).to_be_visible()
        layout = self.lantern()
        other.get_by_role("button", name="Turn the block").click()
        self.saved(other)
        turned = self.lantern()
        self.page.get_by_role("button", name="Mirror the block").click()
        self.saved()
        both = self.lantern()
        self.assertEqual(len({tuple(x) for x in (layout, turned, both)}), 3)
        # Taking the turn back would throw the mirroring away, which this window has not seen.
        other.keyboard.press("Tab")
        other.get_by_role("button", name="Undo").click()
        dialog = other.get_by_role("dialog", name="Changed in another window")
        expect(dialog).to_contain_text(" / ".join(both))
        expect(dialog).to_contain_text(" / ".join(layout))
        decide(dialog, "Keep theirs")
        expect(dialog).to_be_hidden()
        self.saved(other)
        self.assertEqual(self.lantern(), both)

    def lantern(self) -> list[str]:
        return list(Block.objects.get(pattern__name="Lantern").pattern["layout"])

    def test_every_clash_is_listed_and_both_versions_wait(self) -> None:
        one, two = self.both()
        self.labelled("Units wanted", one).fill("40")
        self.labelled("Fold not paid for", one).fill("1/64")
        self.saved(one)
        self.labelled("Units wanted", two).fill("50")
        self.labelled("Fold not paid for", two).fill("1/32")
        dialog = two.get_by_role("dialog", name="Changed in another window")
        expect(dialog).to_contain_text("1 more to decide")
        # Not decided before the page is read again: it is asked again.
        two.reload()
        expect(dialog).to_contain_text("1 more to decide")
        decide(dialog, "Keep mine")
        expect(dialog).not_to_contain_text("more to decide")
        decide(dialog, "Keep mine")
        expect(dialog).to_be_hidden()
        self.saved(two)
        unit = PlannedUnit.objects.get(project__name__startswith="Wake", kind="flying_goose")
        self.assertEqual((unit.count, unit.project.fold), (50, inches("1/32")))

    def test_what_they_did_not_touch_stays_mine(self) -> None:
        one, two = self.both()
        self.labelled("Units wanted", one).fill("40")
        self.saved(one)
        self.labelled("Units wanted", two).fill("50")
        two.get_by_role("radio", name="Generous").locator("xpath=ancestor::label[1]").click()
        dialog = two.get_by_role("dialog", name="Changed in another window")
        expect(dialog).to_contain_text("50")
        decide(dialog, "Keep theirs")
        expect(dialog).to_be_hidden()
        self.saved(two)
        unit = PlannedUnit.objects.get(project__name__startswith="Wake", kind="flying_goose")
        self.assertEqual((unit.count, unit.school), (40, "generous"))

    def test_one_field_twice_in_one_window_is_no_clash(self) -> None:
        one, _two = self.both()
        for typed in ("31", "32", "33", "34"):
            self.labelled("Units wanted", one).fill(typed)
            one.wait_for_timeout(120)
        self.saved(one)
        expect(one.get_by_role("dialog")).to_have_count(0)
        self.assertEqual(Project.objects.get(name__startswith="Wake").units.get(kind="flying_goose").count, 34)

    def test_a_project_deleted_in_another_window(self) -> None:
        one, two = self.both()
        self.open("/", two)
        two.get_by_role("button", name="Delete Wake, five rows").click()
        expect(two.get_by_role("link", name="Wake, five rows")).to_have_count(0)
        self.labelled("Units wanted", one).fill("99")
        expect(one.get_by_role("alert").filter(has_text="Not taken: 99.")).to_be_visible()


class ServerAwayTest(JourneyCase):
    demo = False
    worker = True
    forgiven = r"Failed to load resource|ERR_CONNECTION"

    def setUp(self) -> None:
        super().setUp()
        scratch = tempfile.TemporaryDirectory()
        self.addCleanup(scratch.cleanup)
        self.own = OwnServer(scratch.name)
        self.addCleanup(self.own.stop)
        self.own.by_hand()
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
        expect(page.get_by_text("The server is away.")).to_be_hidden()
        expect(self.lines()).to_have_count(18)
        expect(self.region("Readings")).to_contain_text("3⁄16″ over")

    def test_a_name_and_allowances_typed_while_it_is_away_stay_in_sight(self) -> None:
        page = self.page
        page.goto(f"{self.own.url}{LANTERN}/lay")
        expect(self.labelled("Name")).to_have_value("Lantern")
        page.wait_for_function("() => navigator.serviceWorker.controller !== null")
        self.own.stop()
        self.labelled("Name").fill("Wake")
        page.keyboard.press("Enter")
        expect(page.get_by_text("1 change is kept in this browser")).to_be_visible()
        page.reload()
        expect(self.labelled("Name")).to_have_value("Wake")
        self.own.start()
        self.saved()
        expect(page.get_by_role("heading", name="Lay out Wake")).to_be_attached()
        page.goto(f"{self.own.url}{HALF_SEWN}/cut")
        wrong = self.labelled("Strips cut wrong")
        expect(self.region("To buy")).to_contain_text("Thread:")
        self.own.stop()
        wrong.fill("3")
        expect(self.region("To buy")).to_contain_text("Only the server can work it out")
        expect(wrong).to_have_value("3")
        expect(wrong).to_be_focused()

    def test_a_page_read_again_sends_what_was_kept_and_in_its_order(self) -> None:
        page = self.page
        page.goto(f"{self.own.url}{HALF_SEWN}/measure")
        expect(self.labelled("The ruler reads")).to_be_focused()
        self.own.stop()
        for typed in ("3 15/16", "4", "4 1/16"):
            page.keyboard.type(typed)
            page.keyboard.press("Enter")
        expect(page.get_by_text("3 changes are kept in this browser")).to_be_visible()
        self.own.start()
        page.reload()
        expect(self.lines()).to_have_count(18)
        expect(page.get_by_text("kept here, not sent yet")).to_have_count(0)
        newest = self.lines().all_inner_texts()[:3]
        self.assertEqual([t.split("\n")[1].strip() for t in newest], ["4\u00a01⁄16″", "4″", "3\u00a015⁄16″"])
        page.reload()
        expect(self.lines()).to_have_count(18)

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

    def test_the_page_opens_with_the_server_stopped_and_shows_what_it_last_knew(self) -> None:
        page = self.page
        page.goto(f"{self.own.url}{HALF_SEWN}/plan")
        expect(self.labelled("Units wanted")).to_have_value("48")
        page.wait_for_function("() => navigator.serviceWorker.controller")
        # The other rooms are fetched behind the page; what was looked at is kept.
        page.wait_for_function("async () => (await caches.keys()).length > 0")
        page.wait_for_timeout(1_000)
        self.own.stop()
        page.reload()
        expect(page.get_by_text("The server is away.")).to_be_visible()
        expect(self.labelled("Units wanted")).to_have_value("48")
        self.labelled("Units wanted").fill("60")
        expect(page.locator("header .saved")).to_have_text("Kept in this browser")
        page.reload()
        expect(self.labelled("Units wanted")).to_have_value("60")
        self.own.start()
        expect(page.locator("header .saved")).to_have_text("All saved")
        page.reload()
        expect(self.labelled("Units wanted")).to_have_value("60")

    def test_a_turn_made_while_away_is_made_once(self) -> None:
        page = self.page
        page.goto(f"{self.own.url}{LANTERN}/lay")
        first = page.get_by_role("button", name="Row 1, column 1:")
        expect(first).to_be_visible()
        before = first.get_attribute("aria-label")
        self.own.stop()
        first.click()
        page.get_by_role("toolbar").get_by_role("button", name="Turn T", exact=True).click()
        expect(page.locator("header .saved")).to_have_text("Kept in this browser")
        page.close()
        self.own.start()
        again = self.new_page()
        again.goto(f"{self.own.url}{LANTERN}/lay")
        self.saved(again)
        first = again.get_by_role("button", name="Row 1, column 1:")
        # The block is read once more behind the answer.
        expect(first).not_to_have_attribute("aria-label", str(before))
        after = first.get_attribute("aria-label")
        again.wait_for_timeout(800)
        again.reload()
        expect(first).to_have_attribute("aria-label", str(after))
