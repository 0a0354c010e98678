"""When a block is called true: everything that could lead was looked at closely enough to have shown, and nothing is seen.

Source: docs/theory, section 14.8.
"""

from __future__ import annotations

from collections.abc import Collection

from ..messages import Message
from .bearing import stray_reading
from .causes import Cause, Parameter
from .faults import faults_of
from .inference import Inference
from .model import BlockModel
from .naming import chance_unmeasured, readings_judged
from .reading_kinds import ReadingKind

__all__ = ["ends_unread", "is_fold_open", "looked_at_said", "not_looked_at", "true_so_far"]

_FIVE, _SIX = 5, 6
_NO_CAUSE, _LEAST_TRUE, _SURE_TRUE = 0.91, 0.68, 0.88
"""Of what was measured, and of everything after six readings or before: chances that nothing leads from which the block is called
true."""
_SHOWN = {
    Cause.SEAM: 0.036,
    Cause.SHIFT: 0.038,
    Cause.TIP: 0.038,
    Cause.TRIM: 0.05,
    Cause.START: 0.056,
    Cause.END: 0.056,
}
"""Inches that an interval may reach for the block to be called true: a 1/32 would have shown. Sizes of units answer for each
other in rows and columns, so theirs may reach a little further."""
_PLAIN_SHOWN = 0.07
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
    unlooked = chance_unmeasured(found, ())
    faults = [
        f for f in faults_of(found.model, found.model.deviations(found.block)) if abs(f.size) > _LISTED and not f.eased
    ]
    shown = all(
        -limit < e.low and e.high < limit
        for e in found.estimates
        if e.measured and (limit := _to_be_shown(found.model, e.parameter)) is not None
    )
    enough = none >= _SURE_TRUE or (count >= _SIX and none >= _LEAST_TRUE)
    if stray_reading(found) is not None:
        return False
    seam = found.estimates[0].measured and count >= _FIVE
    return seam and shown and not faults and enough and none / max(1 - unlooked, 1e-9) >= _NO_CAUSE


def _to_be_shown(model: BlockModel, p: Parameter) -> float | None:
    """Inches that its interval may reach; a plain square is cut, not trimmed, and answers through its rows and columns."""
    plain = p.cause is Cause.TRIM and model.places.batches[p.batch].plain
    return _PLAIN_SHOWN if plain else _SHOWN.get(p.cause)


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
