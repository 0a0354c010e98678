"""The project list: rename, duplicate, archive, delete and take back; addresses keep the place."""

from __future__ import annotations

from uuid import uuid4

from browser_tests.journey import HALF_SEWN, JourneyCase, expect
from projects.models import Fabric, Project

# Another transaction has the storage of the changes for so many milliseconds: what is added now is written after it.
HOLD_THE_STORAGE = """(most) => new Promise((held) => {
  indexedDB.open('entretoile').onsuccess = ({ target }) => {
    const until = performance.now() + most
    const store = target.result.transaction('changes', 'readwrite').objectStore('changes')
    const again = () => performance.now() < until && (store.count().onsuccess = again)
    again()
    held()
  }
})"""


class ProjectsTest(JourneyCase):
    def test_duplicate_archive_and_take_out(self) -> None:
        self.open("/")
        self.page.get_by_role("button", name="Duplicate Wake, five rows").click()
        expect(self.page.get_by_role("link", name="Wake, five rows, again", exact=True)).to_be_visible()
        self.page.get_by_role("button", name="Archive: Wake, five rows, again").click()
        self.page.get_by_role("button", name="Show the archive (2)").click()
        self.page.get_by_role("button", name="Take out of the archive: Wake, five rows, again").click()
        expect(self.page.get_by_role("button", name="Archive: Wake, five rows, again")).to_be_visible()

    def test_delete_and_undo(self) -> None:
        self.open("/")
        self.page.get_by_role("button", name="Delete Lantern, twelve blocks").click()
        expect(self.page.get_by_role("link", name="Lantern, twelve blocks", exact=True)).to_have_count(0)
        self.page.get_by_role("button", name="Undo").click()
        expect(self.page.get_by_role("link", name="Lantern, twelve blocks", exact=True)).to_be_visible()
        self.assertEqual(Project.objects.filter(deleted_at=None).count(), 3)

    def test_rename_with_the_keyboard_and_leave_it(self) -> None:
        self.open(f"{HALF_SEWN}/plan")
        self.page.get_by_role("button", name="Rename").press("Enter")
        self.page.keyboard.type("Lantern, port side")
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_role("heading", level=1)).to_have_text("Lantern, port side")
        self.page.get_by_role("button", name="Rename").press("Enter")
        self.page.keyboard.type("Not this")
        self.page.keyboard.press("Escape")
        expect(self.page.get_by_role("heading", level=1)).to_have_text("Lantern, port side")
        self.saved()
        self.page.reload()
        expect(self.page.get_by_role("heading", level=1)).to_have_text("Lantern, port side")

    def test_fabrics_are_named_and_coloured_where_they_are_used(self) -> None:
        self.open(f"{HALF_SEWN}/plan")
        self.labelled("Name of fabric A").fill("Tar")
        self.choose("Value of fabric A", "dark")
        self.labelled("Colour of fabric A").fill("#20262e")
        expect(self.region("What to cut")).to_contain_text("24 squares of 4\u00a01⁄2″ from Tar")
        self.saved()
        expect(self.page.locator(".stages path.face").first).to_have_css("fill", "rgb(207, 216, 220)")
        self.page.reload()
        expect(self.labelled("Colour of fabric A")).to_have_value("#20262e")

    def test_nothing_lies_at_an_unknown_address(self) -> None:
        self.open("/no/such/screen")
        expect(self.page.get_by_role("heading", name="Nothing lies here")).to_be_visible()
        self.open("/projects/00000000-0000-4000-8000-00000000dead/plan")
        expect(self.page.get_by_role("heading", name="This project is not here")).to_be_visible()
        self.open("/projects/nonsense/diagnose")
        expect(self.page.get_by_role("heading", name="This project is not here")).to_be_visible()

    def test_every_stage_has_an_address_that_a_reload_keeps(self) -> None:
        self.open(f"{HALF_SEWN}/trim?way=closed")
        expect(self.page.get_by_role("heading", name="Snip the dog ears")).to_be_visible()
        self.page.reload()
        expect(self.page.get_by_role("heading", name="Snip the dog ears")).to_be_visible()
        for stage, name in (("Plan", "plan"), ("Measure", "measure"), ("Diagnose", "diagnose"), ("Trim", "trim")):
            self.page.get_by_role("navigation", name="Stages").get_by_role("link", name=stage).click()
            self.page.wait_for_url(f"**/units/*/{name}")
            self.assertIn(stage, self.page.title())


class SettingsTest(JourneyCase):
    demo = False

    def test_new_projects_start_from_the_settings(self) -> None:
        self.open("/settings")
        self.pick("Millimetres")
        self.labelled("Seam allowance").fill("wide")
        expect(self.page.get_by_role("alert").filter(has_text="no number").first).to_be_visible()
        self.labelled("Seam allowance").fill("6 mm")
        expect(self.page.get_by_role("alert")).to_have_count(0)
        self.pick("5 mm", exact=True)
        self.page.wait_for_timeout(800)
        self.begin_unit("90 mm")
        expect(self.labelled("Seam allowance")).to_have_value("6 mm")
        expect(self.region("What to cut")).to_contain_text("mm")

    def test_what_is_refused_stays_typed_while_the_storage_is_slow(self) -> None:
        self.open("/settings")
        self.page.evaluate(HOLD_THE_STORAGE, 4_000)
        self.pick("Millimetres")
        self.labelled("Seam allowance").fill("wide")
        expect(self.page.get_by_role("alert").filter(has_text="no number").first).to_be_visible()
        expect(self.labelled("Seam allowance")).to_have_value("wide")
        self.page.wait_for_timeout(4_500)
        expect(self.labelled("Seam allowance")).to_have_value("wide")
        self.labelled("Seam allowance").fill("6 mm")
        expect(self.page.get_by_role("alert")).to_have_count(0)
        self.pick("5 mm", exact=True)
        self.saved()
        self.page.reload()
        expect(self.labelled("Seam allowance")).to_have_value("6 mm")
        expect(self.page.get_by_role("alert")).to_have_count(0)


class NearlyFullTest(JourneyCase):
    def test_that_hardly_any_more_fabrics_fit_is_told_before_one_is_refused(self) -> None:
        project = Project.objects.get(name__startswith="Lantern")
        for n, role in enumerate("defghijklm"[: 11 - project.fabrics.count()]):
            Fabric.objects.create(
                pk=uuid4(), project=project, role=role, name=f"Cloth {n}", colour="#446688", value="medium"
            )
        page = self.open(HALF_SEWN + "/cut")
        line = page.get_by_text("Fabrics of this project: 11 of 12. No more than that can be kept.")
        expect(line).to_be_visible()
        self.assertEqual(self.violations("serious", "critical"), [])
        page.get_by_role("link", name="Records", exact=True).click()
        expect(line).to_have_count(0)
