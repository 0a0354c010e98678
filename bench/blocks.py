"""Blocks: pressing, scraps, counts, and a change to a layout as the browser sees it."""

from __future__ import annotations

import random
import time
from collections.abc import Callable

import numpy as np
from browser_tests.chromium import chromium
from browser_tests.own_server import demo_server
from browser_tests.shots import LANTERN

from bench.redraw import redrawn
from piecing.blocks.counting import BlockOrder, Colourway, ordered_plans, unit_counts
from piecing.blocks.file_format import pattern_from
from piecing.blocks.library import library_keys, library_pattern
from piecing.blocks.pattern import layout_of
from piecing.joining.order import Order
from piecing.joining.pressing import Wishes, pressing_map
from piecing.lengths import inches
from piecing.quilts.choices import QuiltChoices
from piecing.quilts.laid import Laid
from piecing.quilts.scrap_places import neighbours, scrap_places
from piecing.quilts.scraps import ScrapStock, arrange_scraps
from piecing.quilts.sizes import quilt_sizes
from piecing.solver import warm

__all__ = ["print_blocks"]

_VALUES = {"a": 2, "b": 0, "c": 1}
_UNITS = {
    "A": {"kind": "half_square_triangle", "fabrics": "ab"},
    "B": {"kind": "quarter_square_triangle", "fabrics": "abab"},
    "C": {"kind": "four_patch", "fabrics": "abab"},
}


def _took(call: Callable[[], object]) -> tuple[float, object]:
    began = time.perf_counter()
    made = call()
    return time.perf_counter() - began, made


def _pressing() -> None:
    rng = random.Random(3)
    words = [" ".join(rng.choice("ABC") + rng.choice("0123") for _ in range(8)) for _ in range(8)]
    data = {"columns": [1] * 8, "rows": [1] * 8, "units": _UNITS, "layout": words}
    pattern = pattern_from(data, lambda _k: None)
    print("\nPressing map of an 8 x 8 block of half-squares, hourglasses and four-patches   (aim under 2 s, optimal)")
    for name, wishes in (("usual", Wishes()), ("12 layers", Wishes(layers=12)), ("repeated", Wishes(repeats=True))):
        for order in (Order.ROWS, Order.SECTIONS):
            seconds, found = _took(lambda o=order, w=wishes: pressing_map(pattern, o, _VALUES, w))  # type: ignore[misc]
            said = f"{found.nested} of {found.pairs} nest, {'optimal' if found.optimal else 'not proven'}"  # type: ignore[attr-defined]
            print(f"  {name:<10} {order:<9} {len(found.pressed)} seams   {seconds:6.2f} s   {said}")  # type: ignore[attr-defined]


def _scraps() -> None:
    data = {
        "columns": [1] * 20,
        "rows": [1] * 20,
        "units": {"A": {"kind": "plain_square", "fabrics": "a"}},
        "layout": ["A0 " * 20] * 20,
    }
    one = layout_of(pattern_from(data, lambda _k: None))
    places = scrap_places(quilt_sizes(QuiltChoices(1, 1, inches(40), inches(40))), [Laid(one)], "a")
    pairs = neighbours(places)
    print("\nScraps: 400 units   (aim under 5 s)")
    stocks = {
        "nine fabrics alike in number": [ScrapStock(f, 45, n) for n, f in enumerate("abcdefghi")],
        "190, 130 and 80 of three": [ScrapStock("a", 190, 0), ScrapStock("b", 130, 1), ScrapStock("c", 80, 2)],
        "one fabric too many": [ScrapStock("a", 230, 0), ScrapStock("b", 120, 1), ScrapStock("c", 50, 2)],
    }
    for name, stock in stocks.items():
        for order in (0, 100):
            seconds, found = _took(lambda s=stock, o=order: arrange_scraps(places, pairs, s, order=o))  # type: ignore[misc]
            print(f"  {name:<30} order {order:>3}   {seconds:6.2f} s   {len(found.alike)} neighbours alike")  # type: ignore[attr-defined]


def _counts() -> None:
    rng = random.Random(5)
    ways = [Colourway(1, tuple(zip("abc", rng.sample("abcdef", 3), strict=True))) for _ in range(10)]
    orders = [BlockOrder(library_pattern(k), inches(12), tuple(ways)) for k in library_keys()[20:30]]
    units = unit_counts(orders)
    counting = min(_took(lambda: unit_counts(orders))[0] for _ in range(5)) * 1000
    planning = min(_took(lambda: ordered_plans(units, {}))[0] for _ in range(3)) * 1000
    print("\nCounts of 100 blocks, ten of each of ten arrangements, every one in other fabrics   (aim under 50 ms)")
    print(f"  counted {counting:.1f} ms; its {len(units)} different units planned as well {planning:.0f} ms")


def _edits() -> None:
    """From the key pressed to the picture drawn anew, measured in the page."""
    with demo_server() as server, chromium() as browser:
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(server.url + LANTERN + "/lay")
        page.wait_for_selector(".board .face")
        page.get_by_role("button", name="Row 1, column 1:").focus()
        took = redrawn(page, ".board svg", ["t"] * 60, 140)
    p50, p95 = np.percentile(took, [50, 95])
    print("\nA unit turned, key to picture, in the browser   (aim: p95 under 100 ms)")
    print(f"  {len(took)} turns: median {p50:.0f} ms, p95 {p95:.0f} ms")


def print_blocks() -> None:
    warm()
    _pressing()
    _scraps()
    _counts()
    _edits()
