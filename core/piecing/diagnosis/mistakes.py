"""Mistakes made at a stroke: a wrong mark, finished for unfinished size, a border counted; and those that only the eye finds.

Source: docs/theory, section 14.7.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from math import log

import numpy as np

from ..lengths import Length, inches
from ..messages import Message
from .equations import Equation
from .mistake import ALIKE, ODDS, OF_CUTTING, STEPS, AlikeGroup, Mistake, MistakeKind, far_off, groups_of, off_alike
from .model import BlockModel, Vector
from .one_side import mistakes_of_one_side
from .reading_kinds import ACROSS_SEAMS, SIZES, ReadingKind
from .readings import Reading

__all__ = ["BELIEVED", "headline", "mistakes_of"]

BELIEVED = 0.75
"""Probability from which a mistake is the headline."""
_BORDERS = (inches("1/2"), inches("1/4"))
_WHOLE_LENGTHS = (
    ReadingKind.CUT,
    ReadingKind.WIDTH,
    ReadingKind.HEIGHT,
    ReadingKind.RAW_WIDTH,
    ReadingKind.RAW_HEIGHT,
    *ACROSS_SEAMS,
)


def _struck(
    group: AlikeGroup, both: Length, far: Iterable[Length], of: Vector, sign: int, how: str
) -> Iterator[Mistake]:
    """What one group may be off at a stroke, too small or too large."""
    yield Mistake(
        f"{MistakeKind.FINISHED}-{group.which}-{how}",
        MistakeKind.FINISHED,
        sign * float(both),
        Message(
            "pieces for the {who} cut {size} too {how}: two seam allowances forgotten, or added twice"
            if group.cut
            else "{who} {sized} {size} too {how}: finished and unfinished size mixed up",
            who=group.name,
            sized=group.sized,
            size=both,
            how=how,
        ),
        Message("The error is exactly two seam allowances, on every one of them."),
        of * sign * float(both),
        log(ODDS["finished"] * (OF_CUTTING if group.cut else 1)),
        group.numbers,
    )
    for step in dict.fromkeys((*STEPS, *far)):
        if step == both:
            continue
        yield Mistake(
            f"{MistakeKind.MARK}-{group.which}-{float(step)}-{how}",
            MistakeKind.MARK,
            sign * float(step),
            Message(
                "pieces for the {who} cut at the wrong mark of the ruler, {size} too {how}"
                if group.cut
                else "{who} {sized} to the wrong mark of the ruler, {size} too {how}",
                who=group.name,
                sized=group.sized,
                size=step,
                how=how,
            ),
            Message(
                "The error is a whole step between marks, on every one of them."
                if step in STEPS
                else "The error is the same on every one of them, and no hand strays so far."
            ),
            of * sign * float(step),
            log(ODDS["mark"] * group.share * (OF_CUTTING if group.cut else 1)),
            group.numbers,
        )


def mistakes_of(
    model: BlockModel, readings: Sequence[Reading], equations: Sequence[Equation | None]
) -> tuple[Mistake, ...]:
    """Every mistake that would show in these readings."""
    return tuple(m for m in _all(model, readings, equations) if np.abs(m.change).max(initial=0.0) > 0)


def _all(model: BlockModel, readings: Sequence[Reading], equations: Sequence[Equation | None]) -> Iterator[Mistake]:
    for group in groups_of(model, readings, equations):
        numbers = list(group.numbers)
        of = np.array([0.0 if e is None else float(e.of_causes[numbers].sum()) for e in equations])
        for sign, how in ((-1, "small"), (1, "large")):
            yield from _struck(group, model.allowance * 2, far_off(readings, equations, group, sign), of, sign, how)
    for b in model.places.batches:
        yield from mistakes_of_one_side(model, b, readings, equations)
    yield from _borders(readings)
    yield from _inside(model, readings, equations)


_BORDER_SAID = {
    "all": "everything reads {size} too {how}: the ruler's border was counted",
    "units": "every unit reads {size} too {how}: the ruler's border was counted",
}
_BORDER_WHY = {
    "all": "The error is the same on a unit as on a whole row, which no cutting or sewing does.",
    "units": "What they were joined to is as long as true units make it.",
    "lengths": "The error is the same on every length that was read, and no hand strays so far.",
}


def _borders(readings: Sequence[Reading]) -> Iterator[Mistake]:
    """A border counted at every length, when lengths of two kinds were read; or at the units alone, as when these were read with a
    ruler of their own."""
    direct = np.array([float(r.kind in _WHOLE_LENGTHS) for r in readings])
    units = np.array([float(r.kind in SIZES) for r in readings])
    everything, at_units = ("all", direct, ODDS["border"]), ("units", units, ODDS["border"] / 2)
    kinds = {r.kind for r in readings if r.kind in _WHOLE_LENGTHS}
    if len(kinds) < 2:
        return
    joined = 0 < len(kinds.intersection(ACROSS_SEAMS)) < len(kinds)
    for which, of, odds in (everything, at_units) if 0 < units.sum() < direct.sum() else (everything,):
        for border in _BORDERS:
            for sign, how in ((1, "long"), (-1, "short")):
                yield Mistake(
                    f"{MistakeKind.BORDER}-{which}-{float(border)}-{how}",
                    MistakeKind.BORDER,
                    sign * float(border),
                    Message(_BORDER_SAID[which], size=border, how=how),
                    Message(_BORDER_WHY[which if joined or which == "units" else "lengths"]),
                    of * sign * float(border),
                    log(odds),
                )


def _inside(model: BlockModel, readings: Sequence[Reading], equations: Sequence[Equation | None]) -> Iterator[Mistake]:
    """What is joined measured from seam to seam, as when it is in the quilt already: every length short by its two allowances."""
    both = model.allowance * 2
    joined = [(r, e) for r, e in zip(readings, equations, strict=True) if r.kind in ACROSS_SEAMS and e is not None]
    size = off_alike(joined)
    if len(joined) < 2 or size is None or abs(float(size + both)) > ALIKE / 2:
        return
    yield Mistake(
        MistakeKind.INSIDE,
        MistakeKind.INSIDE,
        -float(both),
        Message("what is joined was measured from seam to seam: it reads {size} too short", size=both),
        Message("It is the finished size to the mark: just the two allowances are missing at every length."),
        np.array([-float(both) if r.kind in ACROSS_SEAMS else 0.0 for r in readings]),
        log(ODDS["finished"]),
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
            if other is not None and MistakeKind.BORDER in kinds:
                # The one that changes the block is the one to act on, once another ruler has said the same.
                first = other if first.kind == MistakeKind.BORDER else first
                said = Message(
                    "{first}, or a ruler's border counted (the same {size})", first=first.said, size=Length.near(size)
                )
            best = (first, said, min(1.0, total))
    return best
