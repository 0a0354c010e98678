"""How quick: the core by the call, the API and the first page as a browser meets them."""

from __future__ import annotations

import json
import time
import urllib.request
from collections.abc import Callable
from functools import partial
from typing import Any

import numpy as np
from browser_tests.chromium import chromium
from browser_tests.own_server import demo_server
from browser_tests.shots import HALF_SEWN

from piecing import Choices, Measure, QuilterRecord, ladders, plan, recipes
from piecing.drawings import pictures
from piecing.geometry.sewing import Needle, Stitching
from piecing.overview.compare import compare
from piecing.planning.holdings import parse_holdings
from piecing.trimming.rulers import starting_set
from piecing.units.simulate import simulate_unit
from tests.samples import ALL_WAYS, half_square

__all__ = ["print_speed"]

_TYPED = {
    "kind": "half_square_triangle",
    "method": "pair",
    "part_fabrics": ["a", "b"],
    "mirrored": "0",
    "ready": "0",
    "corner_0": "0",
    "corner_1": "0",
    "corner_2": "0",
    "corner_3": "0",
    "strip": "0",
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
    choices = half_square(count=48)
    planned = plan(choices)
    print("\nThe core, milliseconds a call")
    print(f"  plan                                 {_each(lambda: plan(choices), 500):8.3f}   (aim under 0.2)")
    print(f"  ladder                               {_each(lambda: ladders(planned), 100):8.3f}")
    print(f"  drawings of making, sewn, trimmed    {_each(lambda: pictures(planned), 100):8.3f}")
    print(f"  every trim recipe and its drawings   {_each(lambda: recipes(planned), 50):8.3f}")


def _every_way() -> None:
    """A needle named in ``special`` keeps the engine from remembering, so that each call really sews."""
    needle = Needle(Stitching(0.25, 0.25, 1 / 64), special={"none of them": Stitching(0.25, 0.25, 0.0)})
    print("\nSewing on the engine, milliseconds a unit   (aim under 3)")
    took = []
    for method, spec in ALL_WAYS:
        p = plan(Choices(spec, method.name))
        cuts = {name: float(size) for name, size in p.cuts.items()}
        took.append(
            (
                _each(partial(simulate_unit, method, spec, cuts, 0.25, needle), 5) / p.batch.units,
                f"{spec.kind}, {method.name}",
            )
        )
    took.sort(reverse=True)
    for ms, name in took[:4]:
        print(f"  {name:<50} {ms:8.2f}")
    print(f"  median of {len(took)} ways{'':<34} {np.median([ms for ms, _ in took]):8.2f}")
    print("\nAll methods and schools of one unit compared, milliseconds   (aim under 50)")
    rulers = starting_set(Measure.INCHES)
    record = QuilterRecord(0.27, 0.012, 1 / 64, 12)
    for kind in sorted({spec.kind for _, spec in ALL_WAYS}):
        method, spec = next((m, s) for m, s in ALL_WAYS if s.kind == kind)
        choices = Choices(spec, method.name)
        bare = _each(lambda c=choices: compare(c, rulers=rulers, record=record), 1)  # type: ignore[misc]
        hand = parse_holdings("12 of 10 x 10")
        full = _each(lambda c=choices, h=hand: compare(c, rulers=rulers, record=record, holdings=h), 1)  # type: ignore[misc]
        print(f"  {kind:<38} {bare:8.1f}   with pieces at hand {full:8.1f}")


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


_DRAWN = """window.ladderDrawn = new Promise((found) => {
  const look = () =>
    document.querySelector('.ladder')
      ? requestAnimationFrame(() => setTimeout(() => found(performance.now())))
      : requestAnimationFrame(look)
  look()
})"""
"""Looked for in the page at every frame: asked for from outside, it is looked for every half second only."""


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
            fresh.add_init_script(_DRAWN)
            fresh.goto(f"{url}{HALF_SEWN}/plan", wait_until="commit")
            ladder_drawn.append(fresh.evaluate("() => window.ladderDrawn"))
            first.append(fresh.evaluate("performance.getEntriesByName('first-contentful-paint')[0].startTime"))
        print(
            f"  first contentful paint {np.median(first):.0f} ms; the size ladder drawn {np.median(ladder_drawn):.0f} ms"
        )


def print_speed() -> None:
    _core()
    _every_way()
    with demo_server() as server:
        _api(server.url)
        _page(server.url)
