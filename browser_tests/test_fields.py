"""Every field of a form keeps what is typed into it, and what is refused stays there with its reason and is sent once."""

from __future__ import annotations

import re
from typing import ClassVar

from playwright.sync_api import Request, Route

from blocks.models import Quilt
from browser_tests.journey import HALF_SEWN, JUST_PLANNED, LANTERN, JourneyCase, expect
from piecing.lengths import inches
from projects.models import Fabric, Project
from workrooms.selectors import current_workroom


class KeptTest(JourneyCase):
    """Forms with other figures than those there are; each page is filled, saved, read again and looked over."""

    by_hand = True
    forms: ClassVar[dict[str, dict[str, str]]] = {
        f"{HALF_SEWN}/blocks/quilt": {
            "Blocks across": "4",
            "Blocks down": "2",
            "Sashing finishes": "1 3/4",
            "Border 1 finishes": "1 1/4",
            "Border 2 finishes": "4 1/2",
            "Binding strip, cut": "2 1/2",
            "Backing over, each side": "5",
            "Usable width of cloth": "41",
            "Oversize, to trim off": "3/4",
            "Hanging sleeve finishes": "4",
        },
        f"{HALF_SEWN}/blocks/counts": {"Spares in a hundred": "7", "or at least": "2"},
        f"{LANTERN}/lay": {"Block finishes": "12", "Blocks of colourway 1": "8", "Name": "Lamp"},
        f"{HALF_SEWN}/cut": {"Shrinkage, in a hundred": "3", "Strips cut wrong": "2", "Yards on a bobbin": "60"},
        f"{JUST_PLANNED}/plan": {"Units wanted": "31", "Seam allowance": "3/8", "Fold not paid for": "1/64"},
        f"{HALF_SEWN}/measured": {
            "Lamp 2, across": "10 7/8",
            "Rows, before they are joined: Row 2": "35 1/8",
            "Before border 1, from top to bottom: Through the middle": "46 3/4",
        },
        "/settings": {"Name of the workroom": "The galley", "Seam allowance": "5/16"},
    }

    def test_what_is_typed_is_there_when_the_page_is_read_again(self) -> None:
        for path, fields in self.forms.items():
            with self.subTest(path):
                self.open(path)
                for label, value in fields.items():
                    field = self.labelled(label)
                    field.fill(value)
                    field.press("Tab")
                expect(self.page.get_by_role("alert")).to_have_count(0)
                self.saved()
                self.page.reload()
                for label, value in fields.items():
                    expect(self.labelled(label)).to_have_value(value)

    def test_how_a_centre_is_laid_by_rule_is_there_again_until_it_is_laid(self) -> None:
        self.open(f"{HALF_SEWN}/blocks/quilt")
        self.page.get_by_role("button", name="Lay blocks of several sizes…").click()
        self.labelled("Rows finish").fill("47 1/2")
        self.labelled("Lantern, 10 1⁄2″").fill("5")
        self.page.get_by_role("button", name="Lay sashing of several strips…").click()
        self.labelled("Strip 2 finishes").fill("1 3/4")
        self.page.get_by_role("checkbox", name="the same between rows").click()
        self.page.reload()
        expect(self.labelled("Rows finish")).to_have_value("47 1/2")
        expect(self.labelled("Lantern, 10 1⁄2″")).to_have_value("5")
        self.page.get_by_role("button", name="Lay sashing of several strips…").click()
        expect(self.labelled("Strip 2 finishes").first).to_have_value("1 3/4")
        expect(self.page.get_by_role("checkbox", name="the same between rows")).not_to_be_checked()
        self.page.get_by_role("button", name="Lay the sashing").click()
        expect(self.page.get_by_role("button", name="Lay sashing of several strips…")).to_be_visible()
        self.page.reload()
        self.page.get_by_role("button", name="Lay sashing of several strips…").click()
        expect(self.labelled("Strip 2 finishes").first).to_have_value("1")

    def test_the_field_one_is_in_is_kept_however_its_page_is_left(self) -> None:
        """Read again, and left by the browser's own way back: neither lets go of the field first."""
        for path, (label, first, then) in {
            f"{HALF_SEWN}/blocks/counts": ("Spares in a hundred", "7", "9"),
            f"{JUST_PLANNED}/cut": ("Cut of pile A", "1", "2"),
            f"{HALF_SEWN}/measured": ("Lantern 2, across", "10 7/8", "10 3/4"),
            f"{HALF_SEWN}/blocks/quilt": ("Backing over, each side", "5", "6"),
            "/records/minutes": ("A fresh blade after cuts", "900", "800"),
            "/settings": ("Seam allowance", "5/16", "3/8"),
        }.items():
            with self.subTest(path):
                self.open(path)
                self.labelled(label).fill(first)
                self.page.reload()
                expect(self.labelled(label)).to_have_value(first)
                self.labelled(label).fill(then)
                self.go("/shelf")
                expect(self.page.get_by_role("heading", level=1)).to_contain_text("shelf", ignore_case=True)
                self.go(path)
                expect(self.labelled(label)).to_have_value(then)
                self.saved()

    def test_no_field_stands_there_before_it_is_known_what_is_in_it(self) -> None:
        """What would be typed into it could not be kept: it is a change of what is there."""
        held: list[Route] = []
        self.page.route("**/api/workroom", lambda r: held.append(r) if r.request.method == "GET" else r.continue_())
        self.open("/records/minutes")
        expect(self.region("Needle and blade")).to_be_visible()
        blade = self.labelled("A fresh blade after cuts")
        self.until_held(held)
        expect(blade).to_have_count(0)
        for route in held:
            route.continue_()
        expect(blade).to_be_visible()

    def test_a_form_half_filled_in_is_there_again_until_it_is_handed_over(self) -> None:
        for path, fields in (
            ("/new", {"What to call it": "Buoys", "Block finishes": "12", "Fabric B": "Oilskin"}),
            ("/records/evenings", {"From": "18:00", "To": "20:30"}),
            ("/records/minutes", {"Minutes": "35", "Note": "Sewn in pairs"}),
            ("/records", {"Middle strip": "31/32", "All three": "3 7/16", "Raw edge to stitching": "1/4"}),
            ("/records/log", {"What was learned": "Starch first"}),
        ):
            with self.subTest(path):
                self.open(path)
                if path.endswith("log"):
                    self.page.get_by_role("button", name="What was learned").click()
                for label, value in fields.items():
                    self.labelled(label).fill(value)
                expect(self.page.locator("header .saved")).to_have_text("Not all saved")
                self.page.reload()
                for way in ("read again", "left by a link"):
                    if path.endswith("log"):
                        self.page.get_by_role("button", name="What was learned").click()
                    for label, value in fields.items():
                        expect(self.labelled(label), way).to_have_value(value)
                    if way == "read again":
                        self.go("/shelf")
                        self.saved()
                        self.go(path)

    def test_what_was_handed_over_does_not_come_back(self) -> None:
        self.open("/records/minutes")
        self.labelled("Minutes").fill("35")
        self.labelled("Note").fill("Sewn in pairs")
        self.labelled("Minutes").press("Enter")
        expect(self.labelled("Note")).to_have_value("")
        self.saved()
        self.page.reload()
        expect(self.page.get_by_role("cell", name="Sewn in pairs")).to_be_visible()
        expect(self.labelled("Minutes")).to_have_value("")
        expect(self.labelled("Note")).to_have_value("")

    def test_what_was_handed_over_while_the_server_is_away_waits_once(self) -> None:
        """In the queue, and not in its form as well: it would be put down twice."""
        self.open("/records/minutes")
        self.page.route("**/api/times/**", lambda r: r.abort() if r.request.method == "PUT" else r.continue_())
        self.labelled("Minutes").fill("35")
        self.labelled("Note").fill("Sewn in pairs")
        self.labelled("Minutes").press("Enter")
        expect(self.page.locator("header .saved")).to_have_text("Kept in this browser")
        self.page.reload()
        expect(self.page.locator("header .saved")).to_have_text("Kept in this browser")
        expect(self.labelled("Note")).to_have_value("")
        self.page.unroute("**/api/times/**")
        self.saved()
        expect(self.page.get_by_role("cell", name="Sewn in pairs")).to_have_count(1)

    def test_what_is_given_up_does_not_come_back(self) -> None:
        self.open("/settings")
        for leave in (False, True):
            self.page.get_by_role("button", name="Add a ruler").click()
            name = self.labelled("Name of the ruler")
            if leave:
                expect(name).to_have_value("Long one")
                self.page.get_by_role("button", name="Leave it").click()
                self.saved()
            else:
                name.fill("Long one")
            self.page.reload()
        self.page.get_by_role("button", name="Add a ruler").click()
        expect(self.labelled("Name of the ruler")).to_have_value("")


class RefusedTest(JourneyCase):
    by_hand = True

    def test_what_stands_beside_a_refused_field_goes_in(self) -> None:
        self.open("/settings")
        self.labelled("Seam allowance").fill("wide")
        self.labelled("Name of the workroom").fill("The galley")
        self.pick("Left")
        expect(self.page.get_by_role("alert").filter(has_text="no number").first).to_be_visible()
        self.page.wait_for_timeout(800)
        expect(self.labelled("Seam allowance")).to_have_value("wide")
        expect(self.page.locator("header .saved")).to_have_text("Not all saved")
        room = current_workroom()
        self.assertEqual((room.name, room.cutter, room.seam_allowance), ("The galley", "left", inches("1/4")))

    def test_what_is_typed_while_a_refusal_is_on_its_way_is_another_text(self) -> None:
        self.open("/settings")
        held: list[Route] = []
        self.page.route("**/api/workroom", lambda r: held.append(r) if not held else r.continue_())
        seam = self.labelled("Seam allowance")
        seam.fill("wide")
        self.until_held(held)
        seam.fill("5/16")
        self.page.wait_for_timeout(700)
        held[0].continue_()
        self.saved()
        expect(seam).to_have_value("5/16")
        expect(self.page.get_by_role("alert")).to_have_count(0)
        self.assertEqual(current_workroom().seam_allowance, inches("5/16"))

    def test_words_without_a_space_push_nothing_off_the_page(self) -> None:
        self.open("/settings")
        self.labelled("Seam allowance").fill("Wm" * 100)
        expect(self.page.get_by_role("alert").first).to_be_visible()
        Project.objects.update(name="Wm" * 30)
        Fabric.objects.update(name="Wm" * 15)
        for path in (
            "/",
            "/shelf",
            f"{HALF_SEWN}/plan",
            f"{HALF_SEWN}/join",
            f"{LANTERN}/lay",
            f"{HALF_SEWN}/ticket",
        ):
            self.open(path)
            expect(self.page.get_by_text("Not taken: Wm")).to_be_visible()
            self.page.wait_for_load_state("networkidle")
            for width, height in ((820, 1180), (1280, 800)):
                with self.subTest(path, width=width):
                    self.page.set_viewport_size({"width": width, "height": height})
                    self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), width)

    def test_a_refusal_whose_page_was_left_is_told_where_one_is(self) -> None:
        self.open("/settings")
        held: list[Route] = []
        self.page.route("**/api/workroom", lambda r: held.append(r) if not held else r.continue_())
        self.labelled("Seam allowance").fill("wide")
        self.until_held(held)
        self.page.get_by_role("link", name="Shelf", exact=True).click()
        held[0].continue_()
        expect(self.page.get_by_text("no number").first).to_be_visible()
        expect(self.page.locator("header .saved")).to_have_text("To be decided")
        self.page.get_by_role("button", name="Put away").first.click()
        self.saved()

    def test_a_refused_number_is_marked_until_it_is_put_right(self) -> None:
        self.open(f"{JUST_PLANNED}/cut")
        cut, spoiled = self.labelled("Cut of pile A"), self.labelled("Spoiled of pile A")
        cut.fill("many")
        cut.press("Tab")
        expect(cut).to_have_attribute("aria-invalid", "true")
        said = self.region("Piles").get_by_role("alert")
        expect(said).to_have_count(1)
        # Another that is refused beside it says so beside it; what is put right says nothing more.
        spoiled.fill("-1")
        spoiled.press("Tab")
        expect(said).to_have_count(2)
        cut.fill("2")
        cut.press("Tab")
        expect(cut).not_to_have_attribute("aria-invalid", "true")
        expect(said).to_have_count(1)
        expect(spoiled).to_have_value("-1")

    def test_a_refusal_is_not_asked_for_again_and_again(self) -> None:
        """The plan could be made and the server refuses to keep it: what was typed stays, and is not sent as it is once more."""
        asked: list[Request] = []

        def refuse(route: Route) -> None:
            if route.request.method != "PATCH":
                return route.fallback()
            asked.append(route.request)
            problem = '{"type":"about:blank","title":"No","status":422,"code":"seam_too_wide","detail":"Not taken here.","errors":[]}'
            return route.fulfill(status=422, content_type="application/problem+json", body=problem)

        self.open(f"{JUST_PLANNED}/plan")
        self.page.route("**/api/projects/*", refuse)
        self.labelled("Fold not paid for").fill("1/32")
        expect(self.page.locator("header .saved")).to_have_text("To be decided")
        self.page.wait_for_timeout(2_000)
        self.assertEqual(len(asked), 1)
        expect(self.labelled("Fold not paid for")).to_have_value("1/32")
        self.page.unroute("**/api/projects/*")
        self.labelled("Fold not paid for").fill("1/64")
        self.page.get_by_role("button", name="Put away").click()
        self.saved()

    def test_a_fold_wider_than_the_seam_is_refused_at_its_field(self) -> None:
        self.open(f"{JUST_PLANNED}/plan")
        fold = self.labelled("Fold not paid for")
        fold.fill("1")
        expect(fold).to_have_attribute("aria-invalid", "true")
        expect(self.page.get_by_role("alert")).to_contain_text("The fold lies between zero and the stitching distance")

    def test_what_stood_beside_a_refused_field_goes_in_when_its_page_is_gone(self) -> None:
        self.open("/records/minutes")
        needle, blade = self.labelled("A fresh needle after hours of sewing"), self.labelled("A fresh blade after cuts")
        was = needle.input_value()
        needle.fill("many")
        blade.fill("700")
        self.page.reload()
        # Whether the page came before the refusal or after it.
        expect(self.page.get_by_role("alert").filter(has_text="Hours of sewing")).to_be_visible()
        expect(needle).to_have_value("many")
        expect(blade).to_have_value("700")
        needle.fill(was)
        needle.press("Tab")
        expect(self.page.get_by_role("alert")).to_have_count(0)
        self.saved()
        self.assertEqual(current_workroom().blade_cuts, 700)

    def test_what_stood_refused_in_its_field_stays_in_sight_when_one_goes_on(self) -> None:
        """On top of other pages, and in its field when that is back; what was put right meanwhile is not told."""
        self.open("/settings")
        seam = self.labelled("Seam allowance")
        on_top = self.page.get_by_role("alert").filter(has_text="Not taken: wide.")
        seam.fill("wide")
        seam.press("Tab")
        for _ in range(2):
            expect(self.page.get_by_text("no number").first).to_be_visible()
            expect(seam).to_have_value("wide")
            expect(seam).to_have_attribute("aria-invalid", "true")
            expect(on_top).to_have_count(0)
            self.page.reload()
        self.page.get_by_role("link", name="Shelf", exact=True).click()
        expect(on_top).to_have_count(1)
        self.go("/settings")
        expect(seam).to_have_value("wide")
        expect(on_top).to_have_count(0)
        self.go("/shelf")
        self.page.get_by_role("button", name="Put away").first.click()
        self.saved()
        self.open("/settings")
        for right in ("1/4", "5/16"):
            seam.fill("wide")
            seam.press("Tab")
            expect(self.page.get_by_text("no number").first).to_be_visible()
            seam.fill(right)
            seam.press("Tab")
            expect(self.page.get_by_text("no number")).to_have_count(0)
        self.page.get_by_role("link", name="Shelf", exact=True).click()
        self.saved()
        expect(self.page.get_by_role("alert").filter(has_text="Not taken")).to_have_count(0)

    def test_so_does_a_refused_field_of_any_page(self) -> None:
        for path, label in {
            f"{HALF_SEWN}/blocks/quilt": "Sashing finishes",
            f"{HALF_SEWN}/blocks/counts": "or at least",
            f"{LANTERN}/lay": "Blocks of colourway 1",
            f"{HALF_SEWN}/measured": "Lantern 2, across",
            "/records/evenings": "Day",
            "/shelf": "Along, Rope",
        }.items():
            with self.subTest(path):
                self.open(path)
                self.page.wait_for_load_state("networkidle")
                field = self.page.get_by_label(label, exact=True).first
                was = field.input_value()
                field.fill("zz zz")
                field.press("Tab")
                expect(self.page.locator("header .saved")).to_have_text("Not all saved")
                expect(field).to_have_attribute("aria-invalid", "true")
                self.page.get_by_role("link", name="Settings").first.click()
                told = self.page.get_by_role("alert").filter(has_text="Not taken")
                expect(told).to_have_count(1)
                told.get_by_role("link", name="Where it was typed").click()
                expect(self.page).to_have_url(re.compile(re.escape(path)))
                expect(told).to_have_count(0)
                expect(field).to_have_value("zz zz")
                expect(field).to_have_attribute("aria-invalid", "true")
                field.fill(was)
                field.press("Tab")
                self.saved()

    def test_a_setting_that_was_refused_goes_in_once_what_stood_in_its_way_is_gone(self) -> None:
        self.open(f"{HALF_SEWN}/blocks/quilt")
        sash = self.labelled("Sashing finishes")
        sash.fill("2")
        self.saved()
        self.pick("staggered")
        why = self.page.get_by_role("alert").filter(has_text="set edge to edge")
        expect(why.first).to_be_visible()
        sent: list[Request] = []
        self.page.on("request", lambda r: sent.append(r) if r.method == "PATCH" else None)
        # Another change that leaves it in its way: tried again with it, and refused again.
        self.labelled("Blocks across").fill("4")
        self.page.wait_for_timeout(800)
        expect(why.first).to_be_visible()
        self.assertLessEqual(len(sent), 2)
        sash.fill("0")
        self.saved()
        expect(self.page.get_by_role("radio", name="staggered")).to_be_checked()
        expect(self.page.get_by_role("alert")).to_have_count(0)
        kept = Quilt.objects.get(project__name__startswith="Lantern")
        self.assertEqual((kept.setting, kept.columns), ("staggered", 4))

    def test_borders_and_a_setting_that_are_refused_stand_there_again(self) -> None:
        self.open(f"{HALF_SEWN}/blocks/quilt")
        first, second = self.labelled("Border 1 finishes"), self.labelled("Border 2 finishes")
        second.fill("-1")
        first.fill("6")
        self.pick("staggered")
        for _ in range(2):
            expect(self.page.get_by_role("alert").filter(has_text="below zero")).to_be_visible()
            expect(self.page.get_by_role("alert").filter(has_text="set edge to edge")).to_be_visible()
            expect(first).to_have_value("6")
            expect(second).to_have_value("-1")
            expect(self.page.get_by_role("radio", name="staggered")).to_be_checked()
            expect(self.page.get_by_text("Not taken")).to_have_count(0)
            self.page.reload()
        second.fill("4 1/2")
        self.labelled("Sashing finishes").fill("0")
        self.pick("straight")
        self.pick("staggered")
        self.saved()
        kept = Quilt.objects.get(project__name__startswith="Lantern")
        self.assertEqual(([b["width"] for b in kept.borders], kept.setting), (["6", "9/2"], "staggered"))

    def test_what_is_put_right_in_one_window_is_so_in_the_other(self) -> None:
        self.open("/settings")
        other = self.new_page()
        self.open("/settings", other)
        seam, there = self.labelled("Seam allowance"), self.labelled("Seam allowance", other)
        seam.fill("wide")
        seam.press("Tab")
        expect(self.page.get_by_text("no number").first).to_be_visible()
        seam.fill("5/16")
        seam.press("Tab")
        self.saved()
        expect(there).to_have_value("5/16")
        expect(other.get_by_text("no number")).to_have_count(0)
        self.saved(other)

    def test_a_layout_s_sizes_and_a_reading_half_typed_are_there_again(self) -> None:
        self.open(f"{LANTERN}/lay")
        rows = self.labelled("Rows")
        rows.fill("1 and 2")
        rows.press("Tab")
        expect(rows).to_have_attribute("aria-invalid", "true")
        self.open(f"{LANTERN}/measure")
        self.choose("What", "Row")
        self.labelled("The ruler reads").fill("10 3/")
        self.page.reload()
        expect(self.labelled("The ruler reads")).to_have_value("10 3/")
        expect(self.page.get_by_role("main")).to_contain_text("Which onerow 1, through the middle")
        self.open(f"{LANTERN}/lay")
        expect(rows).to_have_value("1 and 2")
