"""Mistakes made at a stroke: a wrong mark, finished for unfinished size, a border counted; and those that only the eye finds.

Source: docs/theory, section 14.7.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import log

import numpy as np

from ..lengths import Length, inches
from ..messages import Message
from .causes import Cause, parameters_of
from .model import BlockModel, Vector
from .places import batch_name
from .readings import Equation, Reading, ReadingKind

__all__ = ["BELIEVED", "Mistake", "MistakeKind", "Seen", "headline", "mistakes_of", "seen_of"]

BELIEVED = 0.75
"""Probability from which a mistake is the headline."""
_STEPS = (inches("1/8"), inches("1/4"), inches("1/2"))
"""Between marks that are taken one for another."""
_BORDERS = (inches("1/2"), inches("1/4"))
_ODDS = {"finished": 0.010, "mark": 0.006, "border": 0.006}
_WHOLE_LENGTHS = (
    ReadingKind.CUT,
    ReadingKind.WIDTH,
    ReadingKind.HEIGHT,
    ReadingKind.RAW_WIDTH,
    ReadingKind.RAW_HEIGHT,
    ReadingKind.ROW,
    ReadingKind.COLUMN,
    ReadingKind.BLOCK_WIDTH,
    ReadingKind.BLOCK_HEIGHT,
)


class MistakeKind:
    FINISHED = "finished_for_unfinished"
    MARK = "wrong_mark"
    BORDER = "ruler_border"


@dataclass(frozen=True)
class Mistake:
    """``change`` (readings,) is what it does to each reading, inches; ``size`` its own, with its sign; ``odds`` a logarithm.

    ``parameters`` are the numbers of the causes that it is of the block itself; none when only the readings are wrong.
    """

    code: str
    kind: str
    size: float
    said: Message
    why: Message
    change: Vector
    odds: float
    parameters: tuple[int, ...] = ()


def mistakes_of(
    model: BlockModel, readings: Sequence[Reading], equations: Sequence[Equation | None]
) -> tuple[Mistake, ...]:
    """Every mistake that would show in these readings."""
    return tuple(m for m in _all(model, readings, equations) if np.abs(m.change).max(initial=0.0) > 0)


def _all(model: BlockModel, readings: Sequence[Reading], equations: Sequence[Equation | None]) -> Iterator[Mistake]:
    both = model.allowance * 2
    trims = [(n, p.batch) for n, p in enumerate(parameters_of(model)) if p.cause is Cause.TRIM]
    groups: list[tuple[tuple[int, ...], str, str]] = [
        ((n,), batch_name(model.places, batch), f"{batch}") for n, batch in trims
    ]
    if len(trims) > 1:
        groups.insert(0, (tuple(n for n, _ in trims), "all units", "all"))
    for numbers, name, which in groups:
        of = np.array([0.0 if e is None else float(e.of_causes[list(numbers)].sum()) for e in equations])
        for sign, how in ((-1, "small"), (1, "large")):
            yield Mistake(
                f"{MistakeKind.FINISHED}-{which}-{how}",
                MistakeKind.FINISHED,
                sign * float(both),
                Message(
                    "{who} trimmed {size} too {how}: finished and unfinished size mixed up",
                    who=name,
                    size=both,
                    how=how,
                ),
                Message("The error is exactly two seam allowances, on every one of them."),
                of * sign * float(both),
                log(_ODDS["finished"]),
                numbers,
            )
            for step in _STEPS:
                if step != both:
                    yield Mistake(
                        f"{MistakeKind.MARK}-{which}-{float(step)}-{how}",
                        MistakeKind.MARK,
                        sign * float(step),
                        Message(
                            "{who} trimmed to the wrong mark of the ruler, {size} too {how}",
                            who=name,
                            size=step,
                            how=how,
                        ),
                        Message("The error is a whole step between marks, on every one of them."),
                        of * sign * float(step),
                        log(_ODDS["mark"] / (1 if which == "all" or len(trims) == 1 else 2)),
                        numbers,
                    )
    direct = np.array([float(r.kind in _WHOLE_LENGTHS) for r in readings])
    for border in _BORDERS:
        for sign, how in ((1, "long"), (-1, "short")):
            yield Mistake(
                f"{MistakeKind.BORDER}-{float(border)}-{how}",
                MistakeKind.BORDER,
                sign * float(border),
                Message("everything reads {size} too {how}: the ruler's border was counted", size=border, how=how),
                Message("The error is the same on a unit as on a whole row, which no cutting or sewing does."),
                direct * sign * float(border),
                log(_ODDS["border"]),
            )


def headline(mistakes: Sequence[Mistake], probabilities: Sequence[float]) -> tuple[Mistake, Message, float] | None:
    """The mistake to say first, in words that name the other one which looks just the same in these readings; None when no
    group of the same size is believed."""
    best: tuple[Mistake, Message, float] | None = None
    for sign in (-1, 1):
        for size in sorted({abs(m.size) for m in mistakes}):
            alike = [(p, m) for m, p in zip(mistakes, probabilities, strict=True) if abs(m.size - sign * size) < 1e-9]
            total = sum(p for p, _ in alike)
            if total < BELIEVED or (best and total <= best[2]):
                continue
            alike.sort(key=lambda x: -x[0])
            first = alike[0][1]
            other = next((m for p, m in alike if m.kind != first.kind and p > 0.15 * total), None)
            kinds = {first.kind, other.kind if other else first.kind}
            said = first.said
            if MistakeKind.BORDER in kinds and len(kinds) == 2:
                trimmed = first if first.kind != MistakeKind.BORDER else other
                said = Message(
                    "{first}, or a ruler's border counted (the same {size})",
                    first=trimmed.said if trimmed else first.said,
                    size=Length.near(size),
                )
            best = (first, said, min(1.0, total))
    return best


@dataclass(frozen=True, slots=True)
class Seen:
    """A mistake that only the eye finds, with how likely it is after what was seen."""

    code: str
    said: Message
    why: Message
    probability: float


_SEEN = {
    "turned_unit": (
        "A unit lies turned",
        "The picture is wrong and comes right when one unit is turned; sizes have nothing to do with it.",
    ),
    "wrong_hand": (
        "A unit of the wrong hand",
        "The picture is wrong, and no turn puts it right: it is a mirror image.",
    ),
    "two_alike": (
        "Two units alike where a pair of mirrored ones is wanted",
        "Their seams do not nest: both lie the same way.",
    ),
    "wrong_sides": (
        "Two pieces sewn wrong sides together",
        "The allowance shows on the front: unpick before pressing.",
    ),
    "joined_in_turn": ("Rows joined one after another", "A row's two edges differ in length: it bows."),
    "pressed_to_light": (
        "Pressed to the light side",
        "The dark allowance lies under the light cloth. Press it to the dark, or trim the dark allowance a thread shorter.",
    ),
    "blade": ("A dull or nicked blade", "Edges fray and readings scatter rather than shift."),
}
HEADLINES = ("turned_unit", "wrong_hand", "two_alike", "wrong_sides")
"""Those that are the whole of the matter: nothing about sizes is said above them."""


def seen_of(readings: Sequence[Reading]) -> tuple[Seen, ...]:
    """What the eye found, the likeliest first. It has nothing to do with sizes, and is weighed by itself."""
    seen = {r.kind for r in readings}
    odds: dict[str, float] = {}
    if ReadingKind.RIGHT_WHEN_TURNED in seen:
        odds["turned_unit"] = 40.0
    elif ReadingKind.TWO_ALIKE in seen:
        odds["two_alike"] = 20.0
    elif ReadingKind.PICTURE_WRONG in seen:
        odds["turned_unit"], odds["wrong_hand"] = 10.0, 8.0
    for kind, code, by in (
        (ReadingKind.SEAM_INSIDE_OUT, "wrong_sides", 40.0),
        (ReadingKind.BOWED, "joined_in_turn", 6.0),
        (ReadingKind.FRAYED, "blade", 6.0),
        (ReadingKind.SHADOW, "pressed_to_light", 6.0),
    ):
        odds |= {code: by} if kind in seen else {}
    total = sum(odds.values()) + 1.0
    found = [Seen(c, Message(_SEEN[c][0]), Message(_SEEN[c][1]), o / total) for c, o in odds.items()]
    return tuple(sorted(found, key=lambda s: -s.probability))
