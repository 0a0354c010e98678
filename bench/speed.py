"""How quick: the core by the call, the API and the first page as a browser meets them."""

from __future__ import annotations

import json
import time
import urllib.request
from collections.abc import Callable
from typing import Any

import numpy as np
from browser_tests.chromium import chromium
from browser_tests.own_server import demo_server
from browser_tests.shots import HALF_SEWN

from piecing import Choices, diagnose, ladder, pictures, plan, recipes
from piecing.lengths import inches
from tests.quilters import Truth, readings_of

__all__ = ["print_speed"]

_TYPED = {
    "measure": "in",
    "size_basis": "unit",
    "block_finished": "",
    "units_across": "3",
    "count": "48",
    "school": "little",
    "seam_allowance": "1/4",
    "fold": "0",
    "ruler_step": "1/8",
}


def _each(call: Callable[[], object], times: int) -> float:
    """Milliseconds a call, the best of five runs."""
    best = float("inf")
    for _ in range(5):
        began = time.perf_counter()
        for _ in range(times):
            call()
        best = min(best, (time.perf_counter() - began) / times)
    return best * 1000


def _core() -> None:
    choices = Choices(inches("7/2"), count=48)
    planned = plan(choices)
    readings = readings_of(Truth(1 / 32, 1 / 64, 0), planned, np.random.default_rng(1))
    print("\nThe core, milliseconds a call")
    print(f"  plan                                 {_each(lambda: plan(choices), 500):8.3f}   (aim under 0.2)")
    print(
        f"  diagnosis of 9 readings              {_each(lambda: diagnose(planned, readings), 50):8.3f}   (aim under 5)"
    )
    print(f"  ladder                               {_each(lambda: ladder(planned), 100):8.3f}")
    print(f"  three drawings and the corner        {_each(lambda: pictures(planned), 100):8.3f}")
    print(f"  both trim recipes, eight drawings    {_each(lambda: recipes(planned), 50):8.3f}")


def _post(url: str, body: dict[str, Any]) -> None:
    request = urllib.request.Request(url, json.dumps(body).encode(), {"Content-Type": "application/json"})
    with urllib.request.urlopen(request) as answer:
        answer.read()


def _api(url: str) -> None:
    took = []
    for n in range(220):
        began = time.perf_counter()
        _post(f"{url}/api/plan", _TYPED | {"finished": f"{2 + n % 8} {1 + n % 7}/8"})
        took.append((time.perf_counter() - began) * 1000)
    p50, p95 = np.percentile(took[20:], [50, 95])
    print("\nThe API over HTTP, 200 plans, each another size")
    print(f"  median {p50:.1f} ms, p95 {p95:.1f} ms   (aim under 40)")


def _page(url: str) -> None:
    with chromium() as browser:
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        sizes: dict[str, int] = {}
        page.on("response", lambda r: sizes.__setitem__(r.url, r.request.sizes()["responseBodySize"]))
        page.goto(f"{url}{HALF_SEWN}/plan")
        page.wait_for_selector(".ladder")
        page.wait_for_load_state("networkidle")
        total = sum(sizes.values())
        print("\nThe first page load, everything cold")
        print(f"  sent {total / 1000:.0f} kB in {len(sizes)} answers, fonts included   (aim under 350 gzipped)")
        for path, size in sorted(sizes.items(), key=lambda s: -s[1])[:4]:
            print(f"    {size / 1000:6.1f} kB  {path.removeprefix(url)[:60]}")
        first, ladder_drawn = [], []
        for _ in range(5):
            fresh = browser.new_context(viewport={"width": 1280, "height": 800}).new_page()
            fresh.goto(f"{url}{HALF_SEWN}/plan", wait_until="commit")
            fresh.wait_for_selector(".ladder")
            ladder_drawn.append(fresh.evaluate("performance.now()"))
            first.append(fresh.evaluate("performance.getEntriesByName('first-contentful-paint')[0].startTime"))
        print(
            f"  first contentful paint {np.median(first):.0f} ms; the size ladder drawn {np.median(ladder_drawn):.0f} ms"
        )


def print_speed() -> None:
    _core()
    with demo_server() as server:
        _api(server.url)
        _page(server.url)
