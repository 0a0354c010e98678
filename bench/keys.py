"""From a key or a click to the redrawn result, in Chromium on the demo project; measured by the page's own clock."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np
import requests
from browser_tests.chromium import chromium
from browser_tests.own_server import demo_server
from browser_tests.shots import HALF_SEWN
from playwright.sync_api import Page

from bench.quilts import PIECED_BORDER

__all__ = ["print_keys"]

_LANTERN = f"{HALF_SEWN}/blocks/5e0a6f3c-3f57-4f0e-9a43-a9af6f1a0001"
_JOINING = _LANTERN.replace("/blocks/", "/join/")
_OF_BLOCKS = {
    (10, "rows"): "5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0100",
    (20, "rows"): "5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0400",
    (10, "by_hand"): "5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0101",
    (20, "by_hand"): "5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0401",
}
"""Projects of so many blocks a side with a pieced border, set in rows and laid by hand, made for this."""
_WATCH = """(where) => {
  window.took = []
  let began = 0
  // What is typed or clicked begins the time; the last redraw before the next one ends it.
  for (const kind of ['input', 'click', 'change'])
    document.addEventListener(
      kind,
      // A slider says that it changed once more when the key goes up.
      (e) => (e.type === 'change' && e.target.type === 'range') || (began ||= performance.now()),
      true,
    )
  new MutationObserver(() => {
    if (!began) return
    const from = began
    began = 0
    requestAnimationFrame(() => window.took.push(performance.now() - from))
  }).observe(document.querySelector(where), {
    subtree: true, childList: true, characterData: true, attributes: true, attributeFilter: ['d', 'class'],
  })
}"""


@dataclass(frozen=True)
class Interaction:
    """Something done again and again on one page: where, what it redraws, and how the nth time goes."""

    name: str
    path: str
    redraws: str
    act: Callable[[Page, int], None]
    aim: int = 100


def _fill(label: str, values: tuple[str, ...]) -> Callable[[Page, int], None]:
    return lambda page, n: page.get_by_label(label, exact=True).fill(values[n % len(values)])


def _read(page: Page, n: int) -> None:
    field = page.get_by_label("The ruler reads")
    field.fill(("4", "3 31/32", "4 1/32")[n % 3])
    field.press("Enter")


def _turn(page: Page, _n: int) -> None:
    page.get_by_role("button", name="Turn T", exact=True).click()


def _order(page: Page, n: int) -> None:
    radios = page.get_by_role("radio").all()
    radios[n % min(2, len(radios))].locator("xpath=ancestor::label[1]").click()


def _nest(page: Page, _n: int) -> None:
    page.get_by_role("checkbox", name="nest across neighbouring blocks").click()


def _slide(page: Page, n: int) -> None:
    slider = page.get_by_role("slider").nth(1 + n % 5)
    slider.focus()
    # Always to a value that was not asked for before.
    page.keyboard.press("ArrowRight")


INTERACTIONS = (
    Interaction(
        "a fold typed on Plan", f"{HALF_SEWN}/plan", "section.answer", _fill("Fold not paid for", ("1/64", "1/32"))
    ),
    Interaction("a unit turned on Lay out", f"{_LANTERN}/lay", ".board", _turn),
    Interaction("the block's size on Lay out", f"{_LANTERN}/lay", ".joined", _fill("Block finishes", ("9", "12"))),
    Interaction(
        "blocks across the quilt", f"{HALF_SEWN}/blocks/quilt", ".sizes .big", _fill("Blocks across", ("3", "4"))
    ),
    *(
        Interaction(
            f"a sash between {side * side} blocks",
            f"/projects/{_OF_BLOCKS[side, 'rows']}/blocks/quilt",
            "[aria-label='Picture of the quilt']",
            # Sizes that were never asked for before, as one types them: those that come again are remembered here and there.
            _fill("Sashing finishes", tuple(f"{n}/16" for n in range(8, 40))),
            aim,
        )
        for side, aim in ((10, 100), (20, 250))
    ),
    *(
        Interaction(
            f"a block turned among {side * side} laid by hand",
            f"/projects/{_OF_BLOCKS[side, 'by_hand']}/blocks/centre/lay",
            ".board",
            _turn,
            aim,
        )
        for side, aim in ((10, 100), (20, 250))
    ),
    Interaction("a reading entered on Measure", f"{HALF_SEWN}/measure", "[aria-label='Readings'] ul", _read),
    Interaction(
        "pieces at hand on Compare",
        f"{HALF_SEWN}/compare",
        "main",
        _fill("Pieces at hand, of each fabric", ("12 of 10 x 10", "9 of 8 x 8")),
    ),
    Interaction("the order of joining", _JOINING, "main", _order),
    Interaction("rows that nest", f"{_JOINING}/press", "main", _nest),
    Interaction("a slider of What if, the block", f"{_LANTERN}/what-if", "section.shown", _slide),
    Interaction("a slider of What if, ten thousand", f"{_LANTERN}/what-if", "[aria-label='Many blocks']", _slide),
    Interaction("a fabric's units on Scraps", f"{HALF_SEWN}/blocks/scraps", "main", _fill("Tar", ("54", "60"))),
)


def _quilts(api: str) -> dict[str, str]:
    """The quilts of many blocks, begun; the centre of each that is laid by hand, by its project."""
    centres = {}
    for (side, setting), project in _OF_BLOCKS.items():
        begun = {"start": "lantern", "finished": "6", "count": str(side * side)}
        body = {"id": project, "name": f"Lantern, {side} by {side}, {setting}", "fabrics": ["Dark", "Light", "Third"]}
        _asked("post", f"{api}/beginnings", {**body, "unit": None, "quilt": None, "block": begun})
        changes = {"columns": side, "rows": side, "begun": True, "borders": [PIECED_BORDER]}
        _asked("patch", f"{api}/projects/{project}/quilt", {"changes": changes, "seen": {}})
        if setting == "by_hand":
            _asked("patch", f"{api}/projects/{project}/quilt", {"changes": {"setting": setting}, "seen": {}})
            blocks = _asked("get", f"{api}/projects/{project}/blocks")["blocks"]
            centres[project] = next(b["id"] for b in blocks if b["part"] == "centre")
    return centres


def _asked(how: str, address: str, body: dict[str, Any] | None = None) -> Any:
    answer = requests.request(how, address, json=body, timeout=60)
    answer.raise_for_status()
    return answer.json()


def print_keys() -> None:
    print("From a key to the redrawn result in Chromium, milliseconds")
    with demo_server() as server, chromium() as browser:
        centres = _quilts(f"{server.url}/api")
        server.warm()
        for i in INTERACTIONS:
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            path = i.path
            for project, centre in centres.items():
                path = path.replace(f"{project}/blocks/centre", f"{project}/blocks/{centre}")
            page.goto(server.url + path)
            page.wait_for_load_state("networkidle")
            try:
                page.wait_for_selector(i.redraws, timeout=5_000)
                page.evaluate(_WATCH, i.redraws)
                for n in range(24):
                    i.act(page, n)
                    page.wait_for_timeout(550)
                took = np.array(page.evaluate("window.took")[4:] or [np.nan])
                print(
                    f"  {i.name}: median {np.median(took):.0f}, p95 {np.percentile(took, 95):.0f}"
                    f" (aim {i.aim}; {len(took)} times)"
                )
            finally:
                page.close()
