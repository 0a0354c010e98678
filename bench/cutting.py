"""Cutting plans over a published generator of instances, against the plain shelf plan and the proven bound."""

from __future__ import annotations

import time

import numpy as np

from piecing.cutting.packing import pack_bins
from piecing.cutting.strips import Bin, Item, shelves
from piecing.solver import warm
from tests.samples import instance

__all__ = ["print_cutting"]

_WIDTH = 320
"""40 in. of cloth in eighths."""


def _one(items: list[Item], seconds: float) -> tuple[float, float, float, float]:
    bins = [Bin(_WIDTH, 100_000, 1, 1)]
    plain = sum(s.depth for _, _, s in shelves(items, bins))
    began = time.perf_counter()
    found = pack_bins(items, bins, seconds)
    return plain, found.cost, found.bound, time.perf_counter() - began


def print_cutting() -> None:
    warm()
    print(
        "\nCutting plans   (aims: 60 pieces of 8 sizes from two fabrics within 2% of the bound in 5 s; 400 within 5% in 10 s)"
    )
    saved: list[float] = []
    for name, runs, fabrics, pieces, sizes, seconds in (
        ("60 of 8 sizes, two fabrics", 10, 2, 30, 8, 4.6),
        ("400 of 12 sizes", 6, 1, 400, 12, 8.0),
    ):
        gaps, times, worse = [], [], 0
        for seed in range(runs):
            parts, until = [], time.monotonic() + seconds
            for f in range(fabrics):
                # As in the app: what one fabric does not need of its share of the time, the next one has.
                share = (until - time.monotonic()) / (fabrics - f)
                parts.append(_one(instance(100 * seed + f, pieces, sizes), share))
            plain, cost, bound, took = (sum(p[k] for p in parts) for k in range(4))
            gaps.append(100 * (cost - bound) / bound)
            times.append(took)
            worse += cost > plain
            saved.append(100 * (1 - cost / plain))
        print(
            f"  {name:<28} gap to the bound: median {np.median(gaps):.2f}%, worst {max(gaps):.2f}%; "
            f"time: worst {max(times):.1f} s; worse than the plain plan: {worse} of {runs}"
        )
    print(f"  against first fit by decreasing height {np.mean(saved):.1f}% less cloth on average")
