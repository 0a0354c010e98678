"""The log: notes, trial pieces, photos, why something was made again, searched; a project as a whole."""

from __future__ import annotations

from io import BytesIO

from PIL import Image
from playwright.sync_api import expect

from browser_tests.journey import HALF_SEWN, JourneyCase
from journal.models import LogEntry, Photo


def _photo() -> bytes:
    out = BytesIO()
    Image.new("RGB", (2_000, 1_200), "#d8392b").save(out, "JPEG")
    return out.getvalue()


class LogTest(JourneyCase):
    def test_a_note_with_a_photo_found_again(self) -> None:
        page = self.open("/records/log")
        page.get_by_role("button", name="A note").click()
        self.labelled("What to note").fill("Binding from the sail locker\nsecond line")
        page.reload()
        page.get_by_role("button", name="A note").click()
        expect(self.labelled("What to note")).to_have_value("Binding from the sail locker\nsecond line")
        page.get_by_role("button", name="Keep it").click()
        log = self.region("Log")
        note = log.get_by_role("article").filter(has_text="sail locker")
        file = {"name": "a.jpg", "mimeType": "image/jpeg", "buffer": _photo()}
        note.locator("input[type=file]").set_input_files(file)  # type: ignore[arg-type]
        expect(note.get_by_role("img")).to_be_visible()
        kept = Photo.objects.get()
        self.assertEqual((kept.width, kept.height), (1_600, 960))
        self.labelled("Look for").fill("LOCKER second")
        expect(log.get_by_role("article")).to_have_count(1)
        page.reload()
        expect(self.labelled("Look for")).to_have_value("LOCKER second")
        note.get_by_role("button", name="Take out: Note").click()
        expect(log).to_contain_text("Nothing like that is in the log")
        page.get_by_role("button", name="Undo").click()
        expect(note.get_by_role("img")).to_be_visible()

    def test_what_is_no_photo_is_said(self) -> None:
        page = self.open("/records/log")
        file = {"name": "a.jpg", "mimeType": "image/jpeg", "buffer": b"not a photo"}
        page.get_by_role("article").filter(has_text="dry locker").locator("input[type=file]").set_input_files(file)  # type: ignore[arg-type]
        expect(page.get_by_text("This file is no photo that can be shown here")).to_be_visible()

    def test_a_trial_piece_from_the_plan_and_the_rest_cut_so(self) -> None:
        page = self.open(f"{HALF_SEWN}/plan")
        page.get_by_role("link", name="Make one to try").click()
        self.labelled("Cut: squares").fill("4 5/8")
        self.labelled("Came to, before trimming").fill("9")
        page.get_by_role("button", name="Keep the trial").click()
        expect(self.region("Put something down").get_by_role("alert")).to_contain_text("cannot be of the same piece")
        expect(self.labelled("Cut: squares")).to_have_value("4 5/8")
        self.labelled("Came to, before trimming").fill("4 3/16")
        page.get_by_role("button", name="Keep the trial").click()
        card = page.get_by_role("article").filter(has_text="squares 4 5⁄8″")
        expect(card).to_contain_text("leaves 3⁄16″ to trim away to 4″")
        self.assertEqual(LogEntry.objects.filter(kind="trial").count(), 4)

    def test_why_it_was_spoiled_at_once_and_otherwise_later(self) -> None:
        page = self.open(f"{HALF_SEWN}/trim")
        page.get_by_role("button", name="One is spoiled").click()
        page.get_by_role("group", name="Why it was spoiled").get_by_role("button", name="seam off").click()
        self.saved()
        page = self.open("/records/log?kind=remade")
        card = page.get_by_role("article")
        expect(card).to_contain_text("Made again: one half-square triangle")
        expect(card).to_contain_text("seam off")
        expect(card).to_contain_text("of Buoy")
        self.choose("Why it was made again", "trimmed too small")
        expect(card).to_contain_text("trimmed too small")


class StoryTest(JourneyCase):
    def test_a_project_as_a_whole_and_on_paper(self) -> None:
        page = self.open(HALF_SEWN)
        page.get_by_role("link", name="The whole of it, to print or keep").click()
        expect(self.region("Facts")).to_contain_text("12 Lantern, finishing 10 1⁄2″")
        expect(self.region("On the way")).to_contain_text("look at the seam and the fold")
        page.get_by_role("button", name="Put down what was learned").click()
        self.labelled("What was learned", page).last.fill("Press open at the crossings.")
        page.get_by_role("button", name="Keep it").click()
        expect(self.region("What was learned")).to_contain_text("Press open at the crossings.")
        paper = self.context.request.get(f"{self.live_server_url}/api{HALF_SEWN}/story.pdf")
        self.assertTrue(paper.body().startswith(b"%PDF"))


class RecordsFileTest(JourneyCase):
    def test_saved_and_taken_in_again_nothing_is_doubled(self) -> None:
        page = self.open("/records/log")
        file = self.region("Records as a file")
        with page.expect_download() as saving:
            file.get_by_role("link", name="All records as JSON").click()
        kept = saving.value.path().read_bytes()
        chooser = file.locator("input[type=file]")
        chooser.set_input_files({"name": "records.json", "mimeType": "application/json", "buffer": kept})
        expect(file.get_by_role("status")).to_contain_text("0 added")
        chooser.set_input_files({"name": "x.json", "mimeType": "application/json", "buffer": b"{not json"})
        expect(file.get_by_role("alert")).to_contain_text("no JSON")
