"""When a block is called true: everything that could lead was looked at closely enough to have shown, and nothing is seen.

Source: docs/theory, section 14.8.
"""

from __future__ import annotations

from collections.abc import Collection
from math import exp, log

from ..messages import Message
from .bearing import stray_reading
from .causes import Cause
from .faults import faults_of
from .inference import Inference
from .naming import TRIMMED_OFF, chance_looked_at, readings_judged
from .reading_kinds import ACROSS_SEAMS, ReadingKind

__all__ = ["ends_unread", "is_fold_open", "looked_at_said", "not_looked_at", "true_so_far"]

_FIVE, _SIX = 5, 6
_NO_CAUSE, _FEW, _SOON = 0.935, 0.04, 3.0
"""Chance that nothing leads of what was measured, but for the fold, from which the block is called true, and so much more after five readings,
falling off by so many: what few readings say rests on what was held likely before, as where a cause is named."""
_LEAST_TRUE, _SURE_TRUE = 0.68, 0.88
"""The same of everything, measured or not, after six readings and before."""
_OFF, _AS_LIKELY, _AS_LIKELY_UNREAD = 1 / 32, 0.5, 1.25
"""How units were trimmed is to be likelier right than off by so many inches by the readings alone: two to one where it was read itself. Of what
only lengths tell it is not to be likelier off, five to four: sizes answer for each other in rows and columns."""
_FINE, _COARSELY = 1 / 32, 0.25
"""Inches of a ruler's marks, beyond which four to one is wanted: by a sixteenth a 1/32 shows on one unit in two, and four to one is two units."""
_READS = 0.3
"""Inches that an inch of a cause makes of what reads it itself."""
_SHOWN = {Cause.SEAM: 0.036, Cause.START: 0.056, Cause.END: 0.056}
"""Inches that an interval may reach: all along, a 1/32 would have shown, at the ends a 1/16. A seam is not held against a 1/32 by itself, since a
scant one pays for its fold."""
_LISTED = 0.045
_FOLD_OPEN = 1 / 3
"""Chance to lead from which the fold keeps a block from being called true: it is what stitching and lengths leave over between them, so
its interval is wide where each of them lies on its mark."""
_SUBJECT = {
    Cause.SEAM: "the stitching",
    Cause.TRIM: "the size of some units",
    Cause.SHIFT: "where diagonals meet corners",
    Cause.TIP: "the cloth above tips",
    Cause.FOLD: "the fold",
    Cause.START: "the ends of seams",
    Cause.END: "the ends of seams",
}


def ends_unread(found: Inference) -> tuple[str, ...]:
    """The spots along seams where a drift would lie that no reading could have shown. None once the stitching of a seam was read at any
    spot: whoever turns it over sees it from end to end, and experts call a block true by that."""
    looked_at = any(found.readings[n].kind is ReadingKind.STITCH for n in found.weighed)
    if looked_at or not found.model.places.seams:
        return ()
    spots = {Cause.START: "start", Cause.END: "end"}
    return tuple(spots[e.parameter.cause] for e in found.estimates if e.parameter.cause in spots and not e.measured)


def is_fold_open(found: Inference) -> bool:
    """Whether the fold was looked at, by a length or a strip test, and may still be what leads."""
    return any(e.parameter.cause is Cause.FOLD and e.looked_at and e.leads >= _FOLD_OPEN for e in found.estimates)


def true_so_far(found: Inference) -> bool:
    """Whether what was looked at could have shown a 1/32 and nothing that is seen is off: true, if no seam may drift where nobody looked
    (``ends_unread``) and the fold is settled (``is_fold_open``)."""
    none, count = found.nearly_none, readings_judged(found)
    faults = [
        f for f in faults_of(found.model, found.model.deviations(found.block)) if abs(f.size) > _LISTED and not f.eased
    ]
    shown = all(_would_show(found, n) for n in range(found.common) if found.estimates[n].measured)
    enough = none >= _SURE_TRUE or (count >= _SIX and none >= _LEAST_TRUE)
    if stray_reading(found) is not None:
        return False
    seam = found.estimates[0].measured and count >= _FIVE
    no_cause = _NO_CAUSE + _FEW * exp(-(count - _FIVE) / _SOON)
    return seam and shown and not faults and enough and none / chance_looked_at(found) >= no_cause


def _would_show(found: Inference, n: int) -> bool:
    """Whether cause ``n``, which was measured, would have shown. How units were trimmed: by the density of what was read where they are off by
    ``_OFF``, to the side on which they were read, against that where they are right."""
    e = found.estimates[n]
    cause = e.parameter.cause
    if cause not in TRIMMED_OFF:
        limit = _SHOWN.get(cause, 1.0)
        return -limit < e.low and e.high < limit
    likelier = _OFF * (2 * abs(e.size) - _OFF) / (2 * e.spread**2)
    read = [found.equations[k] for k in found.weighed if _reads(found, k, n)]
    coarse = any(e is not None and e.ruler_mark > _FINE + 1e-9 for e in read)
    return likelier < log(_AS_LIKELY_UNREAD if not read else _COARSELY if coarse else _AS_LIKELY)


def _reads(found: Inference, k: int, n: int) -> bool:
    """Whether reading ``k`` is of cause ``n`` itself, on a unit or where it meets another, and not of the length of what it is sewn into."""
    equation = found.equations[k]
    along = found.readings[k].kind in ACROSS_SEAMS
    return equation is not None and not along and abs(float(equation.of_causes[n])) >= _READS


def not_looked_at(found: Inference, least: float = 0.0, but: Collection[Cause] = ()) -> tuple[str, ...]:
    """What of a block was not looked at closely enough to tell its size, in words: what leads with a chance of ``least``, the likeliest
    first, ``but`` for such causes."""
    chances: dict[str, float] = {}
    for e in found.estimates:
        p = e.parameter
        if p.cause in _SUBJECT and p.cause not in but and not e.measured and not p.single:
            chances[_SUBJECT[p.cause]] = chances.get(_SUBJECT[p.cause], 0.0) + e.leads
    return tuple(sorted((s for s in chances if chances[s] >= least), key=lambda s: -chances[s]))


def looked_at_said(found: Inference) -> Message:
    """What was looked at, and what was not."""
    left = sorted(not_looked_at(found))
    if not left:
        return Message("Everything that could lead was measured, and lies on its mark.")
    return Message("What was measured lies on its mark. Not looked at: {left}.", left=", ".join(left))
