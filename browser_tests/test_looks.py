"""Every main view: no serious finding of axe, nothing wider than its window, nothing too small to read."""

from __future__ import annotations

from browser_tests.journey import HALF_SEWN, JUST_PLANNED, LANTERN, JourneyCase, expect

JOINING = LANTERN.replace("/blocks/", "/join/")
VIEWS = {
    "projects": "/",
    "plan": f"{HALF_SEWN}/plan",
    "plan, a corner unit": "/projects/5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0003/plan",
    "plan, geese": f"{JUST_PLANNED}/plan",
    "lay out": f"{LANTERN}/lay",
    "lay out, another project": "/projects/5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0002/blocks",
    "look over": f"{LANTERN}/look",
    "sew": f"{HALF_SEWN}/sew",
    "sew, geese": f"{JUST_PLANNED}/sew",
    "press": f"{HALF_SEWN}/press",
    "at the bench": f"{HALF_SEWN}/bench",
    "join": f"{JOINING}",
    "pressing map": f"{JOINING}/press",
    "join the quilt": f"{HALF_SEWN}/join/quilt",
    "diagnose": f"{LANTERN}/diagnose",
    "measure a block": f"{LANTERN}/measure",
    "what if": f"{LANTERN}/what-if",
    "what is wrong": "/wrong",
    "what is wrong, an end": "/wrong?see=points.corner_tip",
    "counts": f"{HALF_SEWN}/blocks/counts",
    "quilt": f"{HALF_SEWN}/blocks/quilt",
    "cut": f"{HALF_SEWN}/cut",
    "ticket": f"{HALF_SEWN}/ticket",
    "scraps": f"{HALF_SEWN}/blocks/scraps",
    "compare": f"{HALF_SEWN}/compare?have=10 x 10",
    "trim, geese": f"{JUST_PLANNED}/trim",
    "trim opened": f"{HALF_SEWN}/trim",
    "trim closed": f"{HALF_SEWN}/trim?way=closed",
    "measure": f"{HALF_SEWN}/measure",
    "diagnose a row": f"{HALF_SEWN}/diagnose",
    "diagnose, nothing measured": f"{JUST_PLANNED}/diagnose",
    "settings": "/settings",
    "shelf": "/shelf",
    "records": "/records",
    "hands": "/records/hands",
    "will it come out": "/records/library",
    "diagnoses kept": "/records/diagnoses",
    "minutes": "/records/minutes",
    "evenings": "/records/evenings",
    "log": "/records/log",
    "the whole of it": f"{HALF_SEWN}/story",
    "a trial piece": "/records/log?put=trial",
    "a lot measured": f"{JUST_PLANNED}/lot",
    "as they measure": f"{HALF_SEWN}/measured",
    "nowhere": "/nowhere",
}
_SIZES = ((1280, 800), (820, 1180), (390, 844))
_SMALL_TEXT = """() => {
  const small = []
  const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
  for (let n = walk.nextNode(); n; n = walk.nextNode()) {
    const e = n.parentElement
    if (!n.textContent.trim() || !e.checkVisibility() || ['SCRIPT', 'STYLE', 'NOSCRIPT'].includes(e.tagName)) continue
    const shrink = e.closest('svg') ? e.getBoundingClientRect().height / 18 : 1
    const size = e.closest('svg') ? 18 * shrink : parseFloat(getComputedStyle(e).fontSize)
    if (size < 16) small.push(n.textContent.trim() + ' ' + size)
  }
  return small
}"""


_WIDTH = "document.documentElement.scrollWidth"


class LooksTest(JourneyCase):
    def test_every_view_reads_well_at_every_width(self) -> None:
        self.open("/")
        views: dict[str, str] = {}
        for name, path in VIEWS.items():
            self.page.set_viewport_size({"width": _SIZES[0][0], "height": _SIZES[0][1]})
            self.go(path)
            said = self.page.locator("body").inner_text()
            views[said] = name
            with self.subTest(name):
                self.assertNotRegex(said, "Please (Input|Select)")
                self.assertEqual(self.violations("serious", "critical"), [])
                self.assertEqual(self.page.evaluate(_SMALL_TEXT), [], "text under 16 px")
            for width, height in _SIZES:
                self.page.set_viewport_size({"width": width, "height": height})
                wide = self.page.evaluate(_WIDTH)
                for _ in range(50):
                    # A chart takes its new width a moment later, on a busy machine a longer one.
                    if wide <= width:
                        break
                    self.page.wait_for_timeout(100)
                    wide = self.page.evaluate(_WIDTH)
                with self.subTest((name, width)):
                    self.assertLessEqual(wide, width)
        self.assertEqual(list(views.values()), list(VIEWS), "a view that was not reached")

    def test_fonts_come_with_the_application(self) -> None:
        self.open("/")
        self.page.evaluate("document.fonts.ready")
        self.assertTrue(self.page.evaluate("document.fonts.check('16px \"IBM Plex Sans Variable\"')"))


class KeyboardTest(JourneyCase):
    demo = False

    def test_the_whole_path_without_a_mouse(self) -> None:
        keys = self.page.keyboard
        self.open("/")
        self.page.wait_for_selector("text=Nothing is cut yet")
        keys.press("Tab")
        expect(self.page.get_by_role("link", name="Skip to the work")).to_be_focused()
        for _ in range(7):
            keys.press("Tab")
            if self.page.evaluate("document.activeElement?.textContent?.includes('Begin a first project')"):
                break
        keys.press("Enter")
        self.page.get_by_role("radio", name="a quilt").focus()
        keys.press("ArrowLeft")
        keys.press("ArrowLeft")
        for label, value in (("Unit finishes", "3 1/2"), ("Units wanted", "4")):
            self.labelled(label).focus()
            keys.type(value)
        keys.press("Enter")
        expect(self.page.get_by_role("heading", name="To cut")).to_be_visible()
        self.page.get_by_role("navigation", name="Stages").get_by_role("link", name="Plan").focus()
        keys.press("Enter")
        expect(self.labelled("Units wanted")).to_be_visible()
        self.labelled("Unit finishes").focus()
        keys.press("ControlOrMeta+a")
        keys.type("5")
        expect(self.region("What to cut")).to_contain_text("6″")
        self.page.get_by_role("radio", name="Trim a little").focus()
        keys.press("ArrowDown")
        expect(self.region("What to cut")).to_contain_text("6\u00a01⁄2″")
        self.saved()
        for stage in ("Trim", "Measure"):
            self.page.get_by_role("navigation", name="Stages").get_by_role("link", name=stage).focus()
            keys.press("Enter")
        expect(self.labelled("The ruler reads")).to_be_focused()
        keys.type("5 7/16")
        keys.press("Enter")
        expect(self.region("Readings")).to_contain_text("1⁄16″ short")
        self.page.get_by_role("button", name="Delete one of the half-square triangles: trimmed width 5 7/16").focus()
        keys.press("Enter")
        self.page.get_by_role("button", name="Undo").focus()
        keys.press("Enter")
        expect(self.region("Readings")).to_contain_text("1⁄16″ short")
