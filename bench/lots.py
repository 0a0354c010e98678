"""Lots while they are sewn: how often a steady one is called changed, and how soon one that changed is found.

Seams are drawn here by rules of their own: Student's t from unit to unit, a ruler read to 1/32 by an unsteady eye.
"""

from __future__ import annotations

import numpy as np

from piecing.records import LotState, Watched, watch_lot

__all__ = ["print_lots"]

_LOTS, _MEASURED, _EVERY, _STEP = 150, 16, 3, 1 / 32
_EYE = 1 / 90
_TOLD = (LotState.JUMP, LotState.DRIFT)


def _lot(rng: np.random.Generator, scatter: float, along: float, places: int, change: str) -> tuple[list[Watched], int]:
    """Units measured of one lot, and the first of them after the change."""
    first = int(rng.integers(4, _MEASURED - 8)) if change else _MEASURED
    level, units = rng.normal(0, 1 / 120), []
    for n in range(_MEASURED):
        seam = level + scatter * rng.standard_t(8) / np.sqrt(8 / 6)
        if n >= first:
            seam += _STEP * (1.0 if change == "jump" else min(1.0, (n - first + 1) / 8))
        read = [round((seam + rng.normal(0, along) + rng.uniform(-_EYE, _EYE)) * 32) / 32 for _ in range(places)]
        units.append(Watched(1 + _EVERY * n, float(np.mean(read)), places))
    return units, first


def _found(units: list[Watched], spread: float, noise: float) -> int:
    """How many had been measured when a change was told; 0 when none was."""
    for count in range(4, len(units) + 1):
        if watch_lot(units[:count], spread=spread, noise=noise).state in _TOLD:
            return count
    return 0


def print_lots() -> None:
    print(
        "\nLots of 48, one in three measured: steady ones called changed (aim under 5 of 100), a change of 1/32 found within 8 measured (90)"
    )
    rng = np.random.default_rng(77)
    noise = float(np.hypot(1 / 32 / np.sqrt(12), _EYE / np.sqrt(3)))
    for label, scatter, along, places in (
        ("steady hands, read at one place", 1 / 120, 1 / 180, 1),
        ("steady hands, read at two", 1 / 120, 1 / 180, 2),
        ("steadier hands, read at two", 1 / 160, 1 / 240, 2),
        ("less steady, read at two", 1 / 90, 1 / 130, 2),
    ):
        own = float(np.hypot(scatter, along / np.sqrt(places)))
        told: dict[str, float] = {}
        for change in ("", "jump", "drift"):
            good = 0
            for _ in range(_LOTS):
                units, first = _lot(rng, scatter, along, places, change)
                known = own * np.sqrt(rng.chisquare(15) / 15)
                at = _found(units, known, noise)
                good += bool(at) if not change else first < at <= first + 8
            told[change] = 100 * good / _LOTS
        print(
            f"    {label:<34} called changed {told['']:4.1f}; a jump found {told['jump']:4.0f}, one that grows over eight {told['drift']:4.0f}"
        )
