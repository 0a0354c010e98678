"""Measured blocks laid so that neighbours differ least: against the order they came in, and what no arrangement goes below."""

from __future__ import annotations

import time

import numpy as np

from piecing.lengths import inches
from piecing.quilts.arranging import arrange_blocks, places_of
from piecing.quilts.choices import QuiltChoices

__all__ = ["print_arranging"]


def print_arranging() -> None:
    print("\nBlocks laid by what they measure, read to 1/32 (aim: 100 within 1 in 100 of the bound, in 5 s)")
    for label, common in (("across and down by themselves", 0.0), ("large or small as a whole", 1 / 24)):
        for rows, columns in ((4, 3), (6, 5), (10, 10), (20, 20)):
            c = QuiltChoices(columns, rows, inches(11), inches(11))
            places = places_of(c, [0] * c.blocks, [False] * c.blocks)
            found = []
            for seed in range(3):
                rng = np.random.default_rng(seed)
                base = common * rng.standard_normal(rows * columns)
                sides = np.round((11 + base + rng.normal(0, 1 / 32, (2, rows * columns))) * 32) / 32
                began = time.perf_counter()
                a = arrange_blocks(sides[0].tolist(), sides[1].tolist(), places)
                found.append((a.before, a.unlike, a.least, time.perf_counter() - began))
            before, now, least, took = np.mean(found, axis=0)
            print(
                f"    {rows:>2} x {columns:<2} {label:<30} was {before:6.2f} in., is {now:5.2f}, none below {least:5.2f}; {took:4.1f} s"
            )
