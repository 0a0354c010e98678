"""Causes that change the sizes at a stroke, weighed as rivals of those that grow by degrees; and those only the eye finds.

Source: docs/theory.md, section 14.7.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import exp, log

import numpy as np

from ..lengths import Length
from ..wording import Said
from .causes import SewnCause, parameters_of
from .model import SewnModel, Vector
from .places import batch_name
from .readings import PLAIN, Equation, SewnKind, SewnReading

__all__ = ["Hypothesis", "Rival", "hypotheses_of", "rivals_of", "seen_odds"]


@dataclass(frozen=True)
class Hypothesis:
    """A single cause that changes everything at a stroke. ``probability`` is among all of them and none."""

    code: str
    said: Said
    why: Said
    probability: float


@dataclass(frozen=True)
class Rival:
    """A discrete cause as a change of the readings: ``change`` (readings,), and log prior odds against none.

    ``parameter`` and ``by`` say what it is of the block itself; -1 when only the readings are wrong.
    """

    code: str
    said: Said
    why: Said
    change: Vector
    odds: float
    parameter: int = -1
    by: float = 0.0


def rivals_of(model: SewnModel, readings: Sequence[SewnReading], equations: Sequence[Equation | None]) -> list[Rival]:
    both = 2 * float(model.allowance)
    found: list[Rival] = []
    trims = [(n, p.batch) for n, p in enumerate(parameters_of(model)) if p.cause is SewnCause.TRIM]

    def add(code: str, said: Said, why: Said, of: Vector, prior: float, parameter: int = -1, by: float = 0.0) -> None:
        if np.abs(of).max(initial=0.0) > 0:
            found.append(Rival(code, said, why, of, log(prior), parameter, by))

    for n, batch in trims:
        name = batch_name(model.places, batch)
        of = np.array([0.0 if e is None else e.of_causes[n] for e in equations])
        for by, how in ((-both, "small"), (both, "large")):
            add(
                f"finished_for_unfinished:{batch}:{how}",
                Said(
                    f"{name} trimmed {{size}} too {how}: finished and unfinished size mixed up", size=Length.near(both)
                ),
                Said("The error is exactly two seam allowances, on every one of them."),
                of * by,
                0.01,
                n,
                by,
            )
        for by in (1 / 8, 1 / 4):
            for sign, how in ((-1, "small"), (1, "large")):
                if abs(by - both) > 1e-9:
                    add(
                        f"wrong_mark:{batch}:{sign * by:+.3f}",
                        Said(f"{name} trimmed to the wrong mark, {{size}} too {how}", size=Length.near(by)),
                        Said("The error is a whole step between marks, on every one of them."),
                        of * sign * by,
                        0.004,
                        n,
                        sign * by,
                    )
    direct = np.array([float(_by_ruler(r)) for r in readings])
    for border in (1 / 2, 1 / 4):
        for sign, how in ((1, "long"), (-1, "short")):
            add(
                f"ruler_border:{sign * border:+.2f}",
                Said(f"Everything reads {{size}} too {how}: the ruler's border was counted", size=Length.near(border)),
                Said("The error is the same on a unit as on a whole row, which no cutting or sewing does."),
                direct * sign * border,
                0.006,
            )
    return found


def _by_ruler(r: SewnReading) -> bool:
    return r.kind in (
        SewnKind.CUT,
        SewnKind.WIDTH,
        SewnKind.HEIGHT,
        SewnKind.RAW_WIDTH,
        SewnKind.RAW_HEIGHT,
        SewnKind.ROW,
        SewnKind.COLUMN,
    )


def seen_odds(readings: Sequence[SewnReading]) -> dict[str, float]:
    """Discrete causes that only the eye finds, with their odds against none after what was seen."""
    seen = {r.kind for r in readings if r.kind in PLAIN}
    odds: dict[str, float] = {}
    if SewnKind.RIGHT_WHEN_TURNED in seen:
        # Seen right once turned: no mirror image can be.
        odds["turned_unit"], odds["wrong_hand"] = 40.0, 0.4
    elif SewnKind.PICTURE_WRONG in seen:
        odds["turned_unit"], odds["wrong_hand"] = 10.0, 8.0
    if SewnKind.BOWED in seen:
        odds["joined_in_turn"] = 6.0
    if SewnKind.FRAYED in seen:
        odds["blade"] = 6.0
    if SewnKind.SHADOW in seen:
        odds["pressed_to_light"] = 6.0
    return odds


_PLAIN_SAID = {
    "turned_unit": (
        "A unit lies turned",
        "The picture is wrong though sizes can be right; turning a unit puts it right.",
    ),
    "wrong_hand": (
        "A unit of the wrong hand",
        "The picture is wrong, and no turn puts it right: it is a mirror image.",
    ),
    "joined_in_turn": ("Rows joined one after another", "A row's two edges differ in length: it bows."),
    "pressed_to_light": (
        "Pressed to the light side",
        "The dark allowance lies under the light cloth. Press it to the dark, or trim the dark allowance a thread shorter.",
    ),
    "blade": ("A dull or nicked blade", "Edges fray and readings scatter rather than shift."),
}


def hypotheses_of(rivals: list[Rival], gains: Sequence[float], plain: Mapping[str, float]) -> tuple[Hypothesis, ...]:
    weights: list[tuple[str, Said, Said, float]] = [
        ("none", Said("None of these"), Said("The causes that grow by degrees explain the readings."), 0.0)
    ]
    weights += [(r.code, r.said, r.why, g + r.odds) for r, g in zip(rivals, gains, strict=False)]
    highest = max(w for *_, w in weights)
    total = sum(exp(w - highest) for *_, w in weights)
    found = [Hypothesis(c, s, y, exp(w - highest) / total) for c, s, y, w in weights]
    found = [h for h in found if h.code == "none" or h.probability > 0.005]
    # What only the eye finds has nothing to do with sizes, and is weighed by itself.
    among = sum(plain.values()) + 1.0
    for code, odds in plain.items():
        said, why = _PLAIN_SAID[code]
        found.append(Hypothesis(code, Said(said), Said(why), odds / among))
    return tuple(sorted(found, key=lambda h: -h.probability))
