"""Remedies for a block that is small or large as a whole and cannot be cured, and for one that is best left.

Source: docs/theory, section 14.10.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from math import sqrt

import numpy as np

from ...lengths import Length, inches
from ...messages import Message
from ..causes import Cause
from ..faults import EASED
from ..model import FeatureKind
from ..reading_kinds import ACROSS_SEAMS
from ..said import off_a_side
from ..verdict import Status
from ..words import Roughly
from .remedy import LEAVE, Change, Remedy, RemedyMinutes, Work

__all__ = ["left_as_it_is", "offers"]

_MARK = inches("1/32")


def offers(work: Work, *, cured: bool) -> Iterator[Remedy]:
    """What is done with the block as it is: leave it, ease it, bring the set to its size; ``cured`` when its cause
    has a remedy already.
    """
    unsettled, aside = work.verdict.status is Status.UNSETTLED, bool(work.found.odd)
    named = work.verdict.status in (Status.SETTLED, Status.SEVERAL)
    leading = work.verdict.leading
    sewn = leading is not None and leading.cause is not Cause.CUT and not work.unjoined
    unseen = (unsettled or (named and sewn)) and not aside and not work.shows_here
    if unseen or work.verdict.status in (Status.TRUE, Status.VARIES):
        yield left_as_it_is(work)
    edges = [n for n, f in enumerate(work.model.features) if f.kind in (FeatureKind.ROW, FeatureKind.COLUMN)]
    if not edges:
        return
    mean = float(np.mean(work.deviations[edges]))
    short = mean < -EASED and not work.unjoined
    # What is not joined yet has no size of its own: it comes out as it is joined.
    if mean < -EASED and not cured and not unsettled and not work.unjoined:
        yield from _small(work, mean)
    elif unsettled and (mean < -EASED or work.faults or aside):
        yield Remedy(
            "wait",
            Message("Measure before anything is mended"),
            Message(
                "What was set aside is read again before anything is mended or left."
                if aside
                else "The block is short, and the readings do not say why: what is asked for next comes before the ripper."
                if short and _read_short(work)
                else "The block may come out short, and the readings do not say why: what is asked for next comes before the ripper."
                if short
                else "What is off may have more than one cause: what is asked for next comes before the ripper."
            ),
            Message("Nothing is unpicked in vain."),
            Message("none"),
            2,
        )


def left_as_it_is(work: Work) -> Remedy:
    """Nothing is done to the block, and why that will do."""
    off = float(np.max(np.abs(work.deviations), initial=0.0))
    return Remedy(
        LEAVE,
        Message("Leave it" if not work.faults else "Leave this block as it is"),
        Message(
            "What is wrong shows most at the block's own edge, once it is joined to others: points there miss by {later}."
            if work.shows_only_later
            else "The most that anything is off is {off}; pins ease that in."
            if off <= EASED and not work.found.lone
            else "Of what all have in common the most that anything is off is {off}; the one that is off by itself is not left."
            if off <= EASED
            else "Ease in what pins take; the rest is seen only up close.",
            off=Roughly(off),
            later=Roughly(_shows_by(work)),
        ),
        Message("Nothing changes."),
        Message("none"),
        0,
        Change.none(work.model),
    )


def _shows_by(work: Work) -> float:
    """Inches along a seam between a point and the corner that it should meet, or square to it below the edge: r2 of what a diagonal is off by,
    just what a tip is, or the foot of a unit that lies to one side."""
    p = work.verdict.leading
    if p is None:
        return 0.0
    size = work.found.estimate(p).size
    return size * sqrt(2) if p.cause is Cause.SHIFT and not off_a_side(work.model, p) else size


def _read_short(work: Work) -> bool:
    """Whether a row, a column or the block itself was read short of what it should be."""
    return any(work.found.readings[n].kind in ACROSS_SEAMS and work.found.off[n] < -EASED for n in work.found.weighed)


def _small(work: Work, mean: float) -> Iterator[Remedy]:
    """To the smallest edge measured, on the ruler's mark below; never for a block that is too large first."""
    raw = work.model.places.finished + work.model.allowance * 2
    lengths = [r.value for r in work.found.readings if r.kind in ACROSS_SEAMS and r.value is not None]
    smallest = min(lengths, default=raw + Length.near(mean))
    size = -(-smallest).round_up(_MARK)
    accepted = float(size - raw)
    yield Remedy(
        "bring_down",
        Message("Bring the set to this size"),
        Message(
            "Trim every block to {size}, raw edge to raw edge, and cut sashing and borders to what is then measured: each block finishes {finished}.",
            size=size,
            finished=size - work.model.allowance * 2,
        ),
        Message(
            "Every block of the quilt changes by {off}; its outer tips keep their allowance.", off=Roughly(accepted)
        ),
        Message("none for this block, if no other is smaller still"),
        RemedyMinutes.TRIM * 4,
        replace(Change.none(work.model), accepted=accepted),
        spread=True,
    )
    strip = Length.near(-mean / 2) + work.model.allowance * 2 + inches("1/4")
    yield Remedy(
        "frame",
        Message("Sew a narrow strip round the block and trim to size"),
        Message(
            "Cut strips {strip} wide, sew them round, and trim the block to {size}.",
            strip=strip.round_up(inches("1/8")),
            size=raw,
        ),
        Message("The block comes to its size with a frame {width} wide inside its seam.", width=Roughly(mean / 2)),
        Message("a frame narrower than {least} looks like a mistake", least=inches("1/4")),
        4 * RemedyMinutes.SEW + 6,
        why_not=None if -mean / 2 >= 1 / 8 else Message("Only {width} of it would show.", width=Roughly(mean / 2)),
        spread=True,
    )
