"""A person at the cutting table: a live server, Chromium, and a page that must stay free of complaints."""

from __future__ import annotations

import atexit
import os
import re
from contextlib import suppress
from functools import cache
from typing import ClassVar, Literal

from axe_playwright_python.sync_playwright import Axe
from django.test import LiveServerTestCase
from playwright.sync_api import (
    Browser,
    BrowserContext,
    Locator,
    Page,
    Route,
    ViewportSize,
    expect,
    sync_playwright,
)

from browser_tests.chromium import launched
from demo.tests.data import put_demo
from piecing.lengths import inches
from projects.models import PlannedUnit

__all__ = ["HALF_SEWN", "JUST_PLANNED", "LANTERN", "JourneyCase", "expect"]

HALF_SEWN = "/projects/5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0001"
JUST_PLANNED = "/projects/5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0002"
LANTERN = f"{HALF_SEWN}/blocks/5e0a6f3c-3f57-4f0e-9a43-a9af6f1a0001"
_PATIENCE = 90_000
"""Milliseconds: where a machine is lent to others too, a click has taken more than thirty seconds."""
expect.set_options(timeout=40_000)


@cache
def _browser() -> Browser:
    playwright = sync_playwright().start()
    atexit.register(playwright.stop)
    return launched(playwright)


class JourneyCase(LiveServerTestCase):
    """One browser for all, one fresh context a test; an empty workroom unless ``demo`` is set. ``by_hand`` takes the units of the
    demo out of the hands of their blocks, so that their numbers can be typed."""

    demo: ClassVar[bool] = True
    by_hand: ClassVar[bool] = False
    worker: ClassVar[bool] = False
    size: ClassVar[tuple[int, int]] = (1280, 800)
    forgiven: ClassVar[str] = r"Failed to load resource|Service Worker registration blocked"
    browser: ClassVar[Browser]
    context: BrowserContext
    page: Page

    @classmethod
    def setUpClass(cls) -> None:
        os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"
        super().setUpClass()
        cls.browser = _browser()

    def setUp(self) -> None:
        if self.demo:
            put_demo()
        if self.by_hand:
            PlannedUnit.objects.update(of_blocks={})
        self.complaints: list[str] = []
        self._asked: set[object] = set()
        self.context = self.new_context()
        self.page = self.new_page()

    def tearDown(self) -> None:
        self.assertEqual([c for c in self.complaints if not re.search(self.forgiven, c)], [])

    def small_squares(self) -> None:
        """The unsewn project's first unit becomes a half-square triangle finishing 2 3/4 in., nothing measured yet."""
        first = PlannedUnit.objects.filter(project__name__startswith="Wake").first()
        assert first is not None
        PlannedUnit.objects.filter(pk=first.pk).update(
            kind="half_square_triangle", method="pair", finished=inches("11/4"), height=None, part_fabrics=["a", "b"]
        )

    def elsewhere(self) -> Page:
        """A window of another browser, such as the tablet beside the machine."""
        return self.new_page(self.new_context())

    def new_context(self) -> BrowserContext:
        """A browser without a past. The worker that keeps the page is left out where a journey does not need it."""
        workers: Literal["allow", "block"] = "allow" if self.worker else "block"
        size: ViewportSize = {"width": self.size[0], "height": self.size[1]}
        context = self.browser.new_context(viewport=size, service_workers=workers)
        context.set_default_timeout(_PATIENCE)
        self.addCleanup(context.close)
        return context

    def new_page(self, context: BrowserContext | None = None) -> Page:
        """Another window of the same browser, its complaints collected too."""
        page = (context or self.context).new_page()
        page.on("console", lambda m: self.complaints.append(m.text) if m.type in ("error", "warning") else None)
        page.on("pageerror", lambda e: self.complaints.append(str(e)))
        page.on("request", self._stays_here)
        page.on("request", lambda r: self._asked.add(r))
        for over in ("requestfinished", "requestfailed"):
            page.on(over, lambda r: self._asked.discard(r))
        return page

    def until_held(self, *held: list[Route]) -> None:
        """Until each list has a request that a journey holds back."""
        for _ in range(_PATIENCE // 50):
            if all(held):
                return
            self.page.wait_for_timeout(50)
        self.fail("what was to be held back was not asked for")

    def _stays_here(self, request: object) -> None:
        url = getattr(request, "url", "")
        if not url.startswith((self.live_server_url, "data:", "blob:")):
            self.complaints.append(f"asked for {url}")

    def open(self, path: str = "/", page: Page | None = None) -> Page:
        page = page or self.page
        page.goto(self.live_server_url + path)
        page.wait_for_selector("main")
        return page

    def go(self, path: str) -> None:
        """To another view within the page, as a link leads there; waits until it is there and nothing is asked any more."""
        # The view's own part of the program may take a while to come, on a busy machine longer than nothing is asked between.
        self.page.evaluate(
            "(path) => document.getElementById('app').__vue_app__.config.globalProperties.$router.push(path).then(() => null)",
            path,
        )
        quiet = 0
        while quiet < 3:
            self.page.wait_for_timeout(60)
            quiet = 0 if self._asked else quiet + 1
        expect(self.page.locator(".waiting")).to_have_count(0)

    def violations(self, *impacts: str) -> list[tuple[str, str]]:
        """What axe finds of these impacts, or of all: the rule and the first element."""
        found = Axe().run(self.page, options={"resultTypes": ["violations"]}).response["violations"]
        return [(v["id"], v["nodes"][0]["html"][:120]) for v in found if not impacts or v["impact"] in impacts]

    def begin_unit(self, finished: str = "3 1/2", count: str = "4") -> None:
        """A project of one unit, from an empty table to its plan."""
        self.open("/")
        self.page.get_by_role("button", name="Begin a first project").click()
        self.pick("one unit")
        self.labelled("Unit finishes").fill(finished)
        self.labelled("Units wanted").fill(count)
        for letter, name in (("A", "Dark"), ("B", "Light")):
            self.labelled(f"Fabric {letter}").fill(name)
        self.page.get_by_role("button", name="Begin", exact=True).click()
        expect(self.region("What to cut")).to_contain_text("Dark")
        self.page.get_by_role("navigation", name="Stages").get_by_role("link", name="Plan").click()
        self.page.wait_for_url("**/plan")

    def tab_to(self, label: str, most: int = 40) -> None:
        """Tab is pressed until what bears this label has the focus, or holds what bears it."""
        found = "e => e === document.activeElement || document.activeElement.contains(e) && document.activeElement.tabIndex >= 0"
        for _ in range(most):
            self.page.keyboard.press("Tab")
            field = self.labelled(label)
            if field.count() and field.first.evaluate(found):
                return
        self.fail(f"Tab does not lead to {label}.")

    def labelled(self, label: str, page: Page | None = None) -> Locator:
        return (page or self.page).get_by_label(label, exact=True)

    def region(self, name: str, page: Page | None = None) -> Locator:
        return (page or self.page).get_by_role("region", name=name, exact=True)

    def lines(self) -> Locator:
        """The readings listed."""
        return self.region("Readings").locator("li")

    def choose(self, label: str, text: str, within: Locator | None = None) -> None:
        """In a list that can be searched: typed, the first that fits taken. By keys: a list moves while it is filtered."""
        field = (within or self.page).get_by_label(label, exact=True)
        field.fill(text)
        wanted = self.page.locator(".n-base-select-option--pending:visible").filter(has_text=text)
        menu = self.page.locator(".n-base-select-menu:visible")
        # What is chosen from may come in while one types: then one types again.
        with suppress(AssertionError):
            expect(wanted).to_have_count(1, timeout=2_500)
        if not wanted.count():
            field.fill("")
            field.fill(text)
        expect(wanted).to_have_count(1)
        # The mark is lost for a moment when the list is read anew: Enter then takes nothing, and one presses it again.
        for _ in range(4):
            field.press("Enter")
            with suppress(AssertionError):
                return expect(menu).to_have_count(0, timeout=2_500)
            expect(wanted).to_have_count(1)
        return expect(menu).to_have_count(0)

    def pick(self, name: str, within: Locator | None = None, *, exact: bool = False) -> None:
        """One of a few side by side: what one clicks is its words, the radio itself is drawn by the theme."""
        radio = (within or self.page).get_by_role("radio", name=name, exact=exact)
        radio.locator("xpath=ancestor::label[1]").click()
        expect(radio).to_be_checked()

    def saved(self, page: Page | None = None) -> None:
        """Wait until the page says so: everything typed is with the server."""
        expect((page or self.page).locator("header .saved")).to_have_text("All saved")
