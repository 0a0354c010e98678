"""Python's collector of things that refer to each other, for a program that remembers much and answers people."""

from __future__ import annotations

import gc

__all__ = ["collect_seldom"]

_YOUNG, _MIDDLE, _OLD = 20_000, 50, 50
"""Things made until the youngest are looked over, and how many such rounds until the older ones are."""


def collect_seldom() -> None:
    """A round over everything that is remembered holds up an answer by a tenth of a second and more, and finds next to nothing: most
    goes when nothing refers to it any longer. What is loaded by now stays for good and is left out of all rounds.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(_YOUNG, _MIDDLE, _OLD)
