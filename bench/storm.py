"""Rough weather at length: kills, stops, reloads and closed windows while readings and turns are entered."""

from __future__ import annotations

from browser_tests.chromium import chromium
from browser_tests.storm import weather

__all__ = ["print_storm"]

_STEPS, _SEEDS = 60, 5


def print_storm() -> None:
    lost = twice = entered = wrong = 0
    happened: dict[str, int] = {}
    with chromium() as browser:
        for seed in range(_SEEDS):
            storm = weather(browser, _STEPS, seed=seed + 10, rougher=True)
            entered += len(storm.entered) + storm.turns
            lost, twice = lost + len(storm.lost), twice + len(storm.twice)
            wrong += storm.turned != storm.turns % 4
            for what, times in storm.happened.items():
                happened[what] = happened.get(what, 0) + times
    print(f"Rough weather: {entered} edits, {happened}")
    print(f"  lost {lost}, made twice {twice}, windows whose turns do not add up {wrong} (aim 0, 0, 0)")
