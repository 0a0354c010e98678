"""A change in a block of a quilt of 100, until its counts, plan and piles are on screen in another window."""

from __future__ import annotations

import json
import urllib.request
from uuid import uuid4

import numpy as np
from browser_tests.chromium import chromium
from browser_tests.own_server import demo_server
from playwright.sync_api import Page

__all__ = ["print_thread"]

_CHANGES = 24
_BEGAN = """() => document.addEventListener('input', () => { window.began = performance.timeOrigin + performance.now() }, true)"""
_WATCH = """(where) => {
  window.seen = []
  let before = document.querySelector(where).textContent
  new MutationObserver(() => {
    const now = document.querySelector(where)?.textContent
    if (now === undefined || now === before) return
    before = now
    requestAnimationFrame(() => window.seen.push(performance.timeOrigin + performance.now()))
  }).observe(document.querySelector('main'), { subtree: true, childList: true, characterData: true })
}"""
_WHERE = {
    "counts": ("blocks/counts", "main"),
    "plan": ("plan", "main"),
    "piles": ("cut", '[aria-label="Piles"]'),
}


def _begun(url: str) -> tuple[str, str]:
    """A quilt of 100 stars begun through the API; its key and its block's."""
    key = str(uuid4())
    block = {"start": "sawtooth_star", "finished": "12", "count": "100"}
    body = {"id": key, "name": "Hundred", "fabrics": ["Tar", "Fog"], "block": block, "quilt": {}}
    request = urllib.request.Request(
        f"{url}/api/beginnings", json.dumps(body).encode(), {"Content-Type": "application/json"}
    )
    with urllib.request.urlopen(request):
        pass
    with urllib.request.urlopen(f"{url}/api/projects/{key}/blocks") as answer:
        return key, json.load(answer)["blocks"][0]["id"]


def _measured(first: Page, second: Page, where: str) -> list[float]:
    second.evaluate(_WATCH, where)
    took = []
    field = first.get_by_label("Block finishes", exact=True)
    for n in range(_CHANGES):
        second.evaluate("() => { window.seen = [] }")
        field.fill(("9", "12")[n % 2])
        second.wait_for_timeout(1_200)
        began, seen = first.evaluate("window.began"), second.evaluate("window.seen")
        if seen:
            took.append(seen[-1] - began)
    return took


def print_thread() -> None:
    print(
        "A block's size typed in one window until another shows what follows, quilt of 100, milliseconds (aim: p95 300)"
    )
    with demo_server() as server, chromium() as browser:
        key, block = _begun(server.url)
        context = browser.new_context(viewport={"width": 1280, "height": 800})
        first = context.new_page()
        first.goto(f"{server.url}/projects/{key}/blocks/{block}/lay")
        first.wait_for_load_state("networkidle")
        first.evaluate(_BEGAN)
        for name, (path, where) in _WHERE.items():
            second = context.new_page()
            second.goto(f"{server.url}/projects/{key}/{path}")
            second.wait_for_load_state("networkidle")
            took = np.array(_measured(first, second, where)[4:] or [np.nan])
            print(f"  {name}: median {np.median(took):.0f}, p95 {np.percentile(took, 95):.0f} ({len(took)} times)")
            second.close()
