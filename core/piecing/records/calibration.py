"""How often diagnoses that were kept turned out right, at each sureness that they were said with.

Source: docs/theory, section 16.5.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum

from scipy.special import betaincinv

from ..diagnosis.words import CERTAIN, LIKELY, SURENESS
from ..messages import Message

__all__ = ["Calibration", "TurnedOut", "calibrations", "sureness_said"]


class TurnedOut(StrEnum):
    """What later turned out of a diagnosis."""

    RIGHT = "right"
    PARTLY = "partly"
    WRONG = "wrong"


@dataclass(frozen=True, slots=True)
class Calibration:
    """Diagnoses said with one sureness: how many turned out how, and how many are not known yet. ``low`` and ``high`` hold the
    share that is right nine times in ten (Jeffreys' interval; one partly right counts half)."""

    sure: str
    right: int
    partly: int
    wrong: int
    waiting: int
    share: float | None
    low: float
    high: float


def calibrations(kept: Iterable[tuple[str, TurnedOut | None]]) -> tuple[Calibration, ...]:
    """``kept`` are diagnoses by the word they were said with and what turned out, None while nobody knows."""
    found: dict[str, dict[TurnedOut | None, int]] = {level: {} for level in SURENESS}
    for sure, outcome in kept:
        level = found.setdefault(sure, {})
        level[outcome] = level.get(outcome, 0) + 1
    return tuple(_calibration(sure, by) for sure, by in found.items())


def _calibration(sure: str, by: dict[TurnedOut | None, int]) -> Calibration:
    right, partly, wrong = (by.get(o, 0) for o in TurnedOut)
    known, good = right + partly + wrong, right + partly / 2
    a, b = good + 0.5, known - good + 0.5
    low, high = (float(betaincinv(a, b, q)) for q in (0.05, 0.95))
    return Calibration(sure, right, partly, wrong, by.get(None, 0), good / known if known else None, low, high)


def sureness_said() -> Message:
    """What the words of sureness promise, so that one can hold them against what turned out."""
    return Message(
        "“Certain” should be right {certain} times in twenty, “likely” {likely} times in twenty or more.",
        certain=round(CERTAIN * 20),
        likely=round(LIKELY * 20),
    )
