"""A thousand steps at the bench, done and taken back by a walk of chance with reloads in between: what is lost, and how long one waits."""

from __future__ import annotations

import json
import random
import urllib.request

import numpy as np
from browser_tests.chromium import chromium
from browser_tests.own_server import demo_server
from browser_tests.shots import HALF_SEWN
from playwright.sync_api import Page

__all__ = ["print_handling"]

_ACTS = 1_000
_EVERY = 100
"""Acts between two reloads."""
_BLOCK = "5e0a6f3c-3f57-4f0e-9a43-a9af6f1a0001"
_WATCH = """() => {
  window.took = []
  let began = 0
  for (const kind of ['click', 'keydown'])
    document.addEventListener(kind, () => (began ||= performance.now()), true)
  new MutationObserver(() => {
    if (!began) return
    const from = began
    began = 0
    requestAnimationFrame(() => window.took.push(performance.now() - from))
  }).observe(document.querySelector('main'), { subtree: true, childList: true, characterData: true, attributes: true })
}"""


def _walk(page: Page, rng: random.Random, steps: int, wanted: set[str]) -> list[float]:
    """So many acts of one thumb, put into ``wanted`` as one who does them would remember; how long each took to show, in
    milliseconds."""
    page.wait_for_selector("h2")
    page.wait_for_load_state("networkidle")
    page.evaluate(_WATCH)
    buttons = page.get_by_role("navigation", name="Steps")
    for _ in range(steps):
        act = rng.choice(("Done", "Done", "Next", "Back", "Not done after all"))
        button = buttons.get_by_role("button", name=act, exact=True)
        if button.count() and button.is_enabled():
            step = page.locator(".now").get_attribute("data-step") or ""
            button.click()
            if act == "Done":
                wanted.add(step)
            elif act == "Not done after all":
                wanted.discard(step)
    return list(page.evaluate("window.took"))


def _kept(url: str) -> dict[str, int]:
    """What the server holds: steps of lots, and how often each was put down."""
    with urllib.request.urlopen(f"{url}/api/blocks/{_BLOCK}/bench") as answer:
        lots = json.load(answer)["lots"]
    return {f"{lot['number']} {d['step']}": len(d["keys"]) for lot in lots for d in lot["done"]}


def print_handling() -> None:
    rng, took, lost = random.Random(3), [], 0
    with demo_server() as server, chromium() as browser:
        page = browser.new_page(viewport={"width": 820, "height": 1180})
        path = f"{server.url}{HALF_SEWN}/bench?subject=blocks&of={_BLOCK}"
        page.goto(path)
        wanted = set(_kept(server.url))
        for _ in range(_ACTS // _EVERY):
            took += _walk(page, rng, _EVERY, wanted)
            before = page.locator("h2").inner_text()
            # In the middle of telling: what was tapped last may not be with the server yet.
            page.reload()
            page.wait_for_selector("h2")
            lost += page.locator("h2").inner_text() != before
        page.wait_for_timeout(3_000)
        kept = _kept(server.url)
        twice = sum(n > 1 for n in kept.values())
    times = np.array(took)
    print(f"At the bench: {_ACTS} acts by chance, a reload after every {_EVERY}")
    print(
        f"  step to step: median {np.median(times):.0f} ms, p95 {np.percentile(times, 95):.0f} ms (aim 100), {len(times)} measured"
    )
    print(
        f"  places lost over a reload: {lost}; steps kept twice: {twice}; lost: {len(wanted - set(kept))}; "
        f"not taken back: {len(set(kept) - wanted)}"
    )
