"""What is said while it is open: what may be the cause, what is seen that no cause explains yet, and what tells.

Source: docs/theory, section 14.8.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

import numpy as np

from ..days import day_words
from ..messages import Listing, Message
from .bearing import AT_ONE_PLACE, LENGTHS, OFF_ITS_MARK, STRAY, Bow, bow_of, is_denied, read_alike, says_why
from .causes import Cause, Parameter
from .estimates import Estimate
from .groups import CauseGroup
from .inference import Inference
from .naming import NO_RULER, ON_THE_BACK, Telling, look_alike, telling, tells_apart, units_look_so
from .reading_kinds import RAW_SIZES, SIZES, ReadingKind
from .readings import TwoSettings, two_settings
from .said import cause_said, reading_off
from .truth import not_looked_at
from .words import GuideSetting, Roughly

__all__ = ["Open", "lesser_said", "open_said"]

_NAMED_OPEN, _ONE_WAY, _MAY_BE = 0.12, 0.25, 0.3
"""Chances from which a cause is named while it is open: surely on one side, so if it is the one, or on either."""
_MAY_BE_MORE = 0.02
"""Chance to lead from which what nobody looked at is told."""
_BY_STRIPS = 1 / 48
"""Inches by which strip tests are off: more than a thread."""
_SEEN_FIRST = (*LENGTHS, *AT_ONE_PLACE, ReadingKind.MISS, ReadingKind.CLEARANCE)
"""What shows in the block; how a seam was sewn or a piece cut is told where none of these is off,
and a size before trimming only when it is off by twice as much."""
_UNITS_OR_STRIPS = Telling((*SIZES, ReadingKind.STRIP_TEST))
"""What tells units that are a little small from a fold that strips do not show."""


@dataclass(frozen=True, slots=True)
class Open:
    """What is said while it is open; ``wanted`` are the readings that it sends one to take."""

    said: Message
    wanted: Telling | None = None


def open_said(found: Inference, groups: Sequence[CauseGroup], none: float, far: int | None) -> Open:
    """What may be the cause, in one sentence, and what tells; ``none`` is the chance that nothing leads, ``far`` numbers a reading that
    nothing else bears out."""
    if far is None and (taken := _taken_by_strips(found)) is not None:
        return Open(taken, ON_THE_BACK)
    if (seen := _seen_alone(found, far)) is not None:
        return Open(seen)
    may = _may_be(found, groups)
    names = [
        cause_said(found.model, g.best.parameter, g.best.size if g.best.measured else _likely(found, g.best))
        for g in may
    ]
    if not names:
        return Open(_standing_out(found))
    if len(may) == 1 and look_alike(found, may[0].best):
        alike = tells_apart(found, may[0].best)
        return Open(
            Message("Perhaps {cause}. {alike}", cause=names[0], alike=alike), telling(found, may[0].best.parameter)
        )
    if len(may) == 1 and may[0].best.parameter.cause is Cause.FOLD and is_denied(found, may[0].best):
        return Open(
            Message(
                "Perhaps {cause}, though the strips that were sewn for a test do not show it: measure one more unit, or sew the test again.",
                cause=names[0],
            ),
            _UNITS_OR_STRIPS,
        )
    of_seams = {g.best.parameter.cause for g in may} == {Cause.SEAM, Cause.FOLD}
    if of_seams and (units := units_look_so(found)) is not None:
        return Open(
            Message("Perhaps {causes}. {alike}", causes=Listing(names, "; or "), alike=units),
            telling(found, Parameter(Cause.FOLD)),
        )
    if none >= 0.25:
        return Open(Message("Perhaps {causes}; or nothing at all.", causes=Listing(names, "; or ")))
    return Open(Message("Perhaps {causes}.", causes=Listing(names, "; or ")))


def _seen_alone(found: Inference, far: int | None) -> Message | None:
    """What is said of the readings themselves, where that says more than any cause."""
    if far is not None:
        again = read_alike(found, far)
        return Message(
            "{reading}, and {more} more like it; nothing else that was measured says why."
            if again
            else "{reading}, and nothing else that was measured says so. Read it again.",
            reading=reading_off(found, far),
            more=again,
        )
    if len(found.weighed) == 1:
        return _standing_out(found)
    if (settings := two_settings(found.readings[n] for n in found.weighed)) is not None:
        return _at_two_settings(found, settings)
    if (bow := bow_of(found)) is not None:
        return _bow_said(found, bow)
    return None


def _may_be(found: Inference, groups: Sequence[CauseGroup]) -> list[CauseGroup]:
    """Causes that are named while it is open: what was not looked at may be anything, and is not named for that."""
    may = [
        g
        for g in groups
        if g.chance >= (_NAMED_OPEN if g.sided else _ONE_WAY if g.one_way else _MAY_BE)
        and g.best.looked_at
        and says_why(found, g.best)
    ][:3]
    surer = [g for g in may if g.sided or g.chance >= _MAY_BE]
    # What looks just like the first is said with what tells them apart, which says more than both names.
    if len(surer) == 1 and look_alike(found, surer[0].best):
        may = surer
    return may


_BOWED = {
    "top": ("rows", "upper", "lower", "a seam within them at its upper end"),
    "bottom": ("rows", "lower", "upper", "a seam within them at its lower end"),
    "left": ("columns", "left", "right", "a seam between the rows at its left end"),
    "right": ("columns", "right", "left", "a seam between the rows at its right end"),
}
"""By the shorter edge: what it is of, it and the other one in words, and which end of a seam lies there."""


def _taken_by_strips(found: Inference) -> Message | None:
    """Where nothing but strip tests was read, and they are off: they measure what is taken up, and not by what."""
    off = [float(found.off[n]) for n in found.weighed if found.readings[n].kind is ReadingKind.STRIP_TEST]
    if len(off) < len(found.weighed) or abs(float(np.mean(off))) < _BY_STRIPS:
        return None
    return Message(
        "By the strip test each fabric loses {size} too much to a seam, by stitching and fold together. Read the stitching on the back of "
        "the strips: what it does not account for is the fold."
        if np.mean(off) > 0
        else "By the strip test each fabric loses {size} too little to a seam: the stitching lies too near the edge. Read it on the back, "
        "and sew the test again.",
        size=Roughly(float(np.mean(off))),
    )


def _at_two_settings(found: Inference, s: TwoSettings) -> Message:
    allowance = float(found.model.allowance)
    return Message(
        "Seams sewn on {first} lie {before} from the edge, those sewn on {last} {after}: the guide was moved. Measure a row of this block: it "
        "tells on which of these days it was sewn."
        if abs(s.after - allowance) < abs(s.before - allowance)
        else "Seams sewn on {first} lie {before} from the edge, those sewn on {last} {after}: the guide was moved, and not for the better. "
        "Sew a strip test, and measure a row of this block: it tells on which of these days it was sewn.",
        first=day_words(date.fromisoformat(s.first)),
        before=GuideSetting(s.before),
        last=day_words(date.fromisoformat(s.last)),
        after=GuideSetting(s.after),
    )


def _bow_said(found: Inference, bow: Bow) -> Message:
    of, edge, other, seam = _BOWED[bow.edge]
    there = [
        float(found.off[n])
        for n in found.weighed
        if found.readings[n].kind is ReadingKind.STITCH and found.readings[n].spot == bow.spot
    ]
    return Message(
        "The {of} read {by} less along their {edge} edge than along their {other} one: read {seam}."
        if not there
        else "The {of} read {by} less along their {edge} edge than along their {other} one: their seams run a little deeper there."
        if np.mean(there) > OFF_ITS_MARK
        else "The {of} read {by} less along their {edge} edge than along their {other} one, and seams are right there: measure both "
        "edges once more.",
        of=of,
        by=Roughly(bow.by),
        edge=edge,
        other=other,
        seam=seam,
    )


def _standing_out(found: Inference) -> Message:
    """What is off though no cause is likelier than others: the length that is off most, or that none is."""
    aside = {o.index for o in (*found.odd, *found.lone)}
    off = {n: abs(float(found.off[n])) for n in found.weighed if n not in aside}
    far = [n for n in off if off[n] >= (2 * STRAY if found.readings[n].kind in RAW_SIZES else STRAY)]
    most = max(far, key=lambda n: (found.readings[n].kind in _SEEN_FIRST, off[n]), default=None)
    if most is None:
        if found.odd:
            return Message(
                "Apart from what is to be read again nothing stands out, but too little was looked at to call it true."
            )
        return Message("Nothing that was measured stands out, but too little was looked at to call it true.")
    return Message(
        "{reading}. One reading does not say why."
        if len(found.weighed) == 1
        else "{reading}, and what else was measured does not say why.",
        reading=reading_off(found, most),
    )


def lesser_said(found: Inference, group: CauseGroup) -> Message:
    """A cause that is small and the likeliest so far, and where nobody looked yet, what may be off most first."""
    cause = cause_said(found.model, group.best.parameter, group.best.size)
    left = not_looked_at(found, _MAY_BE_MORE, NO_RULER)
    if not left:
        return Message("Perhaps {causes}.", causes=cause)
    return Message(
        "Perhaps {cause}. More may be off where nobody looked yet: {left}.",
        cause=cause,
        left=Listing(left, last=" and "),
    )


def _likely(found: Inference, e: Estimate) -> float:
    n = found.parameters.index(e.parameter)
    drawn = found.draws[found.leading == n, n]
    return float(np.median(drawn)) if len(drawn) else e.size
