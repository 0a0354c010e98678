"""Finding a scant seam: from two or three strip tests to the mark at which a guide gives the take-up wanted.

A guide moved by so much moves the stitching by as much; what lies between its mark and the take-up (the plate, the foot, half
the fold) is the same at every mark and is what the tests tell. Source: docs/theory, section 16.1.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from math import sqrt

from ..diagnosis.causes import SCATTER
from ..diagnosis.equations import HAND_NOISE, STRIP_SCATTER
from ..diagnosis.words import GuideSetting, Roughly
from ..lengths import Length, inches
from ..messages import Message
from ..planning.seam import StripTest

__all__ = ["GuideSearch", "GuideTest", "SeamSearch", "find_seam", "test_spread"]

_CONTRADICT = 3.5
"""Spreads from the mean of all at which a test is no scatter any more."""
_NINE_TENTHS = 1.645


class SeamSearch(StrEnum):
    """How far the search for a seam has come."""

    NOTHING = "nothing"
    AGAIN = "again"
    MOVE = "move"
    CONTRADICT = "contradict"
    CONFIRMED = "confirmed"


@dataclass(frozen=True, slots=True)
class GuideTest:
    """A strip test sewn with the guide at a mark."""

    setting: Length
    test: StripTest


@dataclass(frozen=True, slots=True)
class GuideSearch:
    """``setting`` is the mark to sew the next test at, or to stay at; ``steps`` how many of the guide's amounts that is away from
    where it stands (below zero: nearer the needle). ``expected`` is the take-up there in inches, nine times in ten between ``low``
    and ``high``."""

    stand: SeamSearch
    said: Message
    setting: Length | None = None
    steps: int = 0
    expected: float = 0.0
    low: float = 0.0
    high: float = 0.0


def test_spread(resolution: Length) -> float:
    """Standard deviation of one strip test's take-up, inches: its two readings, three strips and two seams.

    e = (W - 3m)/2 takes ten quarters of the variance of one reading; strips of unequal width add six quarters of theirs, and
    two seams half of theirs.
    """
    mark = float(resolution) ** 2 / 12 + HAND_NOISE**2
    return sqrt(2.5 * mark + 1.5 * STRIP_SCATTER**2 + 0.5 * SCATTER["mean"] ** 2)


def find_seam(
    tests: Sequence[GuideTest], wanted: Length, step: Length, resolution: Length = inches("1/32")
) -> GuideSearch:
    """Where to set the guide so that a seam takes ``wanted``; ``tests`` in the order sewn, the guide stands at the last one's
    mark and moves by ``step``."""
    if not tests:
        return GuideSearch(
            SeamSearch.NOTHING,
            Message(
                "Cut three strips {width} wide, sew them side by side with the guide at {wanted}, press, and read two widths.",
                width=inches("3/2"),
                wanted=wanted,
            ),
        )
    spread = test_spread(resolution)
    beyond = [float(t.test.take_up - t.setting) for t in tests]
    mean = sum(beyond) / len(beyond)
    if len(tests) > 1 and max(abs(b - mean) for b in beyond) > _CONTRADICT * spread:
        return _contradiction(tests)
    now, unsure = tests[-1].setting, spread / sqrt(len(tests))
    best = Length.near(float(wanted) - mean).round_near(step)
    away = float(wanted) - mean - float(now)
    if len(tests) > 1 and abs(away) <= max(float(step) / 2, unsure):
        return _search_said(SeamSearch.CONFIRMED, now, now, step, mean, unsure)
    if best == now:
        return _search_said(SeamSearch.AGAIN, now, now, step, mean, unsure)
    return _search_said(SeamSearch.MOVE, best, now, step, mean, unsure)


def _contradiction(tests: Sequence[GuideTest]) -> GuideSearch:
    return GuideSearch(
        SeamSearch.CONTRADICT,
        Message(
            "These tests contradict each other: one of them was misread, or the guide was not where it is written down. Sew one more "
            "with the guide at {setting}, and take the wrong one out.",
            setting=GuideSetting(float(tests[-1].setting)),
        ),
        tests[-1].setting,
    )


def _search_said(
    stand: SeamSearch, setting: Length, now: Length, step: Length, mean: float, unsure: float
) -> GuideSearch:
    expected = float(setting) + mean
    steps = round(float(setting - now) / float(step))
    takes, within = GuideSetting(expected), Roughly(_NINE_TENTHS * unsure)
    match stand:
        case SeamSearch.CONFIRMED:
            said = Message(
                "Leave the guide at {setting}. Seams sewn there take {takes}, give or take {within}.",
                setting=GuideSetting(float(setting)),
                takes=takes,
                within=within,
            )
        case SeamSearch.AGAIN:
            said = Message(
                "The guide is right as far as one test tells. Sew one more with it at {setting}.",
                setting=GuideSetting(float(setting)),
            )
        case _:
            said = Message(
                "Set the guide from {now} to {setting}: {n, plural, one {one step} other {# steps}} {way}. Then sew one more test there.",
                now=GuideSetting(float(now)),
                setting=GuideSetting(float(setting)),
                n=abs(steps),
                way=Message("nearer the needle") if steps < 0 else Message("away from the needle"),
            )
    return GuideSearch(
        stand, said, setting, steps, expected, expected - _NINE_TENTHS * unsure, expected + _NINE_TENTHS * unsure
    )
