"""When a cause may be named: how likely it has to be after how many readings, and what looks just like it.

Source: docs/theory, section 14.8.
"""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass

import numpy as np

from ..messages import Message
from .bearing import AS_DRIFT, is_denied
from .causes import Cause, Parameter
from .estimates import Estimate
from .groups import CauseGroup
from .inference import Inference
from .reading_kinds import ACROSS_SEAMS, DIAGONALS, RAW_SIZES, SEWN, SIZES, ReadingKind
from .readings import Reading

__all__ = [
    "NO_RULER",
    "ON_THE_BACK",
    "TRIMMED_OFF",
    "VARIES",
    "Telling",
    "chance_looked_at",
    "chance_unmeasured",
    "enough",
    "fold_leads",
    "is_left_over",
    "look_alike",
    "may_be_lesser",
    "readings_judged",
    "seams_take",
    "stands_alone",
    "sure_of",
    "taken_for_sure",
    "telling",
    "tells_apart",
    "told_sure",
    "units_look_so",
]

_NAMED, _FEW, _SOON = 0.71, 0.21, 5.0
"""Chance to lead from which a cause is named: the first after many readings, so much more after three, falling off by so
many readings: what is right by its own reckoning on two or three readings rests on what was held likely before."""
_TWO, _AT_LEAST = 0.985, 3
_UNLOOKED, _BLIND = 0.2, 0.06
"""So much more while so much that may lead was not looked at."""
_UNSEEN = 0.85
"""The most that seams are sure to be off of which none was read: likely, and not certain."""
_OF_RECORD = 3
"""Readings that her record of a seam counts for in a judgement (bench records: a third fewer on the block, and no more of them wrong)."""
_TAKEN, _TAKEN_SURE, _OF_BOTH = 1 / 48, 0.8, 0.25
"""Inches that each fabric loses to a seam, and how surely, from which that is said though stitching and fold are not told apart: the
guide is moved for either. The stitching answers for it from a chance to lead of so much of the fold's."""
_SPLIT, _STRETCHED = 0.12, 0.06
"""Chances that a look-alike leads, from which it is told apart first: the seam of a fold, a stretch of a large trim."""
_PLAINLY = 0.85
"""The chance that seams lead from which they are named though they may drift where nobody looked: a little more or less of them is no
reason to take it back."""
_UNSTRETCHED_FROM, _UNSTRETCHED, _OBLONG = 6, 0.3, 0.12
"""Readings from which a large trim is named for being so much the likelier of the two, of square units and of oblong ones: these
show by both their sides which it is."""
_LOOKED_ALONG = 7
_SEVERAL_ENDS = 2
"""Readings of an end from which every seam is said to stray there: one seam may do so by itself."""
_FIRST = 5
"""Readings before seams are turned over for the fold alone: the first few look round. Asked for at once, more blocks with another cause of 1/32
are called true (bench sewers: 10 in 100 told wrong in place of 7)."""
_BACKS, _FOLD_ALONE = 3, 0.85
"""Readings on the back of seams before what they leave over is called the fold's; and the chance that it leads from which it is without a strip
test (bench sewers: of 480 quilters with 1/32 of something else four were told of a fold, three of them on less)."""
_UNITS = 2
"""Sizes of units read before what lengths are short by is called the seams': one by itself may be the one that is right."""
_LOOKED_ROUND, _ANYWAY, _NOT_SEEN = 7, 0.9, 0.04
"""Readings until which less than ``AS_DRIFT`` is named only from such a chance to lead, where one that was not measured leads with more
than the last: with three seams a 1/32 narrow something is found, and a sixteenth may lie where nobody looked (bench sewers: of what was
told wrong at 1/16, two thirds)."""
_OF_SEAMS = (Cause.SEAM, Cause.FOLD, Cause.START, Cause.END, Cause.SOME_SEAMS, Cause.ONE_SEAM)
NO_RULER = (Cause.FOLD,)
"""What no ruler reads: it is what is left over of what seams take."""
TRIMMED_OFF = (Cause.TRIM, Cause.SHIFT, Cause.TIP)
"""How units were trimmed: what a ruler reads straight on one."""
_ALONE_FROM, _ALONE, _LITTLE = 6, 0.2, 0.4
"""Readings from which one of these stands alone; the chances of another, beside it, and of
nothing large at all, up to which it does."""
VARIES = 0.8
"""The chance from which the hand is said to vary. None of these stands alone then: what is a little less than a 1/32 is lost in that."""


def readings_judged(found: Inference) -> int:
    """How many readings a judgement rests on: those of the block, and the quilter's record of her seam as some more, since it was
    measured too."""
    return len(found.weighed) + (_OF_RECORD if found.prior.recorded and found.weighed else 0)


def enough(found: Inference, unlooked: float, more: int = 0) -> float:
    """The chance to lead from which a cause is named; ``unlooked`` is the chance that one leads that was not measured, ``more`` counts
    readings still to come."""
    count = readings_judged(found) + more
    few = _NAMED + _FEW * float(np.exp(-max(0, count - _AT_LEAST) / _SOON)) if count >= _AT_LEAST else _TWO
    return few + (0.0 if unlooked < _UNLOOKED else _BLIND)


def chance_unmeasured(found: Inference, beside: Collection[int], but: Collection[Cause] = ()) -> float:
    """The chance that a cause leads that was not measured, ``beside`` those of these numbers and ``but`` for such causes."""
    return sum(
        e.leads
        for n, e in enumerate(found.estimates)
        if not e.measured and n not in beside and e.parameter.cause not in but
    )


def fold_leads(found: Inference) -> float:
    """The chance that the fold leads and takes more than a thread; less than that is no reason to do anything."""
    return found.estimate(Parameter(Cause.FOLD)).leads - (found.nearly_none - found.chance(-1))


def chance_looked_at(found: Inference, beside: Collection[int] = ()) -> float:
    """The chance that what leads was measured, or one of ``beside``, or that nothing does. The fold is left out of it, looked at or not: no ruler
    reads it, and it is judged by itself."""
    return max(1 - chance_unmeasured(found, beside, NO_RULER) - fold_leads(found), 1e-9)


def may_be_lesser(found: Inference, group: CauseGroup) -> bool:
    """Whether what is a little off may be the lesser of two, the other where nobody looked. A fold is no reason: no ruler looks at it."""
    little = abs(group.best.size) < AS_DRIFT and not group.best.parameter.single
    # A strip test is two readings by itself: the middle one, and all three.
    count = readings_judged(found) + _count_of(found, ReadingKind.STRIP_TEST)
    early = count < _LOOKED_ROUND and group.chance < _ANYWAY
    return little and early and chance_unmeasured(found, group.numbers, NO_RULER) > _NOT_SEEN


def stands_alone(found: Inference, e: Estimate, chance: float, beside: Collection[int]) -> bool:
    """Whether hardly another cause than this one is left, though it may be a little less than what counts as large: who trims a thread
    too small is not told anything wrong. Only of what a ruler reads straight on a unit: behind a seam there are fold and drift, which
    take the blame of it and give it theirs. ``chance`` that it leads, by itself or as one of those numbered ``beside``."""
    if e.parameter.cause not in TRIMMED_OFF or readings_judged(found) < _ALONE_FROM or found.unsteady >= VARIES:
        return False
    looked, small = chance_looked_at(found, beside), found.nearly_none
    rest = looked - chance - small
    return fold_leads(found) < _ALONE and small < _LITTLE * looked and rest < _ALONE * (looked - small)


def look_alike(found: Inference, e: Estimate) -> bool:
    """Whether what looks just the same has not been told apart yet: a seam a little off all along and one that drifts, by both
    its ends; seam and fold, by the back of the work against a strip test; a unit trimmed large and one that was stretched, by
    both diagonals; seams and units, by either of them."""
    p = e.parameter
    if p.cause is Cause.SEAM and _only_lengths(found):
        return True
    if p.cause is Cause.SEAM and abs(e.size) < AS_DRIFT and not _ends_looked_at(found):
        return e.leads < _PLAINLY or readings_judged(found) < _FIRST
    if p.cause in (Cause.START, Cause.END):
        # Crossings miss as well where seams were not pinned to match, what is short through its middle is so for much else, and one seam may
        # stray by itself.
        return _read_at(found, p) < _SEVERAL_ENDS
    if p.cause is Cause.FOLD:
        # No ruler reads it: it is what is left once it is known how deep the stitching lies, and lengths have much else in them.
        plainly = e.leads >= _FOLD_ALONE or _count_of(found, ReadingKind.STRIP_TEST) > 0
        return found.chance(0) > _SPLIT or _count_of(found, ReadingKind.STITCH) < _BACKS or not plainly
    if p.cause is Cause.TRIM and e.size > 0:
        stretched = [x for x in found.estimates if x.parameter.cause is Cause.STRETCH and x.parameter.batch == p.batch]
        later = _OBLONG if _is_oblong(found, p) else _UNSTRETCHED
        limit = _STRETCHED if readings_judged(found) < _UNSTRETCHED_FROM else later
        return sum(x.leads for x in stretched) > limit
    return False


_TELLS_APART = {
    Cause.SEAM: "Seams that drift look just so: read one at both its ends.",
    Cause.START: "Pieces that were not pinned to match look just so: read a seam at its start.",
    Cause.END: "Pieces that were not pinned to match look just so: read a seam at its end.",
    Cause.FOLD: "Seams that are a little wide look just so: read the stitching on the back, and sew a strip test.",
    Cause.TRIM: "Units drawn out on the bias look just so: measure both diagonals of one.",
}


def tells_apart(found: Inference, e: Estimate) -> Message:
    """What looks just like a cause, and the reading that tells them apart."""
    if e.parameter.cause is Cause.SEAM and _only_lengths(found):
        raw = any(found.readings[n].kind in RAW_SIZES for n in found.weighed)
        return Message(
            "Pieces cut {way} look just so: measure one as it was cut, or the stitching on the back."
            if raw
            else "Units trimmed {way} look just so: measure one, or the stitching on the back.",
            way="small" if e.size > 0 else "large",
        )
    if e.parameter.cause is Cause.TRIM and _is_oblong(found, e.parameter):
        return Message(
            "Units drawn out on the bias look just so, but more along their longer side: measure one both ways."
        )
    if e.parameter.cause in (Cause.START, Cause.END) and _read_at(found, e.parameter):
        return Message(
            "One seam that strays by itself looks just so: read another at its {end}.", end=e.parameter.cause.value
        )
    if e.parameter.cause is Cause.FOLD and (units := units_look_so(found)) is not None:
        return units
    if e.parameter.cause is Cause.FOLD and _count_of(found, ReadingKind.STRIP_TEST):
        return Message("Seams that are a little wide look just so: read the stitching on the back.")
    if e.parameter.cause is Cause.FOLD and _count_of(found, ReadingKind.STITCH) >= _BACKS:
        return Message("Units that are a little small look just so: sew a strip test, which has none in it.")
    return Message(_TELLS_APART[e.parameter.cause])


@dataclass(frozen=True, slots=True)
class Telling:
    """Readings that tell a cause from what looks just like it: of these kinds, along a seam at one of these spots, of a batch by its
    key ("" of any)."""

    kinds: tuple[ReadingKind, ...]
    spots: tuple[str, ...] = ()
    batch: str = ""

    def holds(self, reading: Reading) -> bool:
        """Whether a reading is one of them."""
        along = not self.spots or reading.spot in self.spots
        return reading.kind in self.kinds and along and self.batch in ("", reading.batch)


ON_THE_BACK = Telling((ReadingKind.STITCH,))


def telling(found: Inference, p: Parameter) -> Telling | None:
    """What of ``tells_apart`` was not read yet."""
    if p.cause is Cause.SEAM and _only_lengths(found):
        return Telling((ReadingKind.STITCH, ReadingKind.WIDTH, ReadingKind.HEIGHT, ReadingKind.CUT))
    if p.cause is Cause.FOLD:
        if len(found.weighed) < _FIRST:
            return None
        if not _units_told_from_seams(found):
            return Telling(SIZES)
        if _count_of(found, ReadingKind.STITCH) < _BACKS:
            return ON_THE_BACK
        return None if _count_of(found, ReadingKind.STRIP_TEST) else Telling((ReadingKind.STRIP_TEST,))
    if p.cause is Cause.SEAM:
        read = {found.readings[n].spot for n in found.weighed}
        left = tuple(s for s in ("start", "end") if s not in read)
        return Telling((ReadingKind.STITCH,), left) if left else None
    if p.cause in (Cause.START, Cause.END):
        return Telling((ReadingKind.STITCH,), (p.cause.value,)) if _read_at(found, p) < _SEVERAL_ENDS else None
    if p.cause is Cause.TRIM:
        places = found.model.places
        key = places.batches[p.batch].key
        of_these = (r for n in found.weighed if places.batch_of((r := found.readings[n]).unit, r.batch) == key)
        read_ways = {r.kind for r in of_these}
        both = SIZES if _is_oblong(found, p) else DIAGONALS
        ways = tuple(k for k in both if k not in read_ways)
        return Telling(ways, batch=key) if ways else None
    return None


def seams_take(found: Inference) -> Estimate | None:
    """The stitching, or the fold, where it is one of them for sure and each fabric loses more than a thread, though not told
    which: while the one is read on the back of the work, the other shows only beside it."""
    seam, fold = found.estimate(Parameter(Cause.SEAM)), found.estimate(Parameter(Cause.FOLD))
    one_of_them = np.isin(found.leading, [found.parameters.index(e.parameter) for e in (seam, fold)])
    sure = float((one_of_them & (found.lost > _TAKEN)).mean())
    if sure < _TAKEN_SURE or len(found.weighed) < _AT_LEAST or not _ends_looked_at(found) or _only_lengths(found):
        return None
    # Strips that lose nothing speak of both, and what lengths are short by may be of their units.
    if is_denied(found, fold) or not _units_told_from_seams(found):
        return None
    denied = is_denied(found, seam) and _count_of(found, ReadingKind.STITCH) >= _BACKS
    return fold if seam.leads < _OF_BOTH * fold.leads or denied else seam


def taken_for_sure(found: Inference) -> float:
    """Chance that each fabric loses more to a seam than a thread."""
    return float((found.lost > _TAKEN).mean())


def sure_of(found: Inference, p: Parameter, chance: float, also: ReadingKind | None = None) -> float:
    """How sure one is told to be of a cause that leads with this chance: of seams no more than likely where neither a seam nor strips
    sewn for a test were looked at, nor are by a reading ``also`` taken."""
    seen = p.cause not in _OF_SEAMS or also in SEWN or _count_of(found, *SEWN)
    return chance if seen else min(chance, _UNSEEN)


def told_sure(found: Inference, reading: Reading, p: Parameter | None, chance: float) -> float:
    """How sure one is told to be of a cause, or of none, that leads with this chance once a reading more is taken: no surer than the
    verdict then is."""
    if chance < enough(found, 0.0, more=1):
        return 0.0
    return chance if p is None else sure_of(found, p, chance, reading.kind)


def _is_oblong(found: Inference, p: Parameter) -> bool:
    spec = found.model.places.batches[p.batch].spec
    return spec.width != spec.height


def _count_of(found: Inference, *kinds: ReadingKind) -> int:
    """Readings of these kinds."""
    return sum(found.readings[n].kind in kinds for n in found.weighed)


def _only_lengths(found: Inference) -> bool:
    """Whether no more is known than how long rows and columns are, or units as they came from the machine: what they were made of and
    how is not."""
    return all(found.readings[n].kind in (*ACROSS_SEAMS, *RAW_SIZES) for n in found.weighed)


def _read_at(found: Inference, p: Parameter) -> int:
    """Readings of seams at the end where they drift, and of rows and columns along an edge, which a drift makes unlike the other."""
    read = [found.readings[n] for n in found.weighed]
    return sum(r.spot == p.cause.value or _along_an_edge(r) for r in read)


def units_look_so(found: Inference) -> Message | None:
    """That units may be what lengths are short by, while too few were measured to blame it on what seams take."""
    if _units_told_from_seams(found):
        return None
    return Message(
        "Units that are a little small look just so, and one by itself may be right: measure another."
        if _count_of(found, *SIZES)
        else "Units that are a little small look just so: measure one."
    )


def is_left_over(found: Inference) -> bool:
    """Whether so much is known of units and of the stitching that what they leave over is the fold's."""
    return _units_told_from_seams(found) and _count_of(found, ReadingKind.STITCH) >= _BACKS


def _units_told_from_seams(found: Inference) -> bool:
    """Whether units were measured, or a strip test was sewn, which has none in it."""
    return _count_of(found, *SIZES) >= _UNITS or _count_of(found, ReadingKind.STRIP_TEST) > 0


def _along_an_edge(reading: Reading) -> bool:
    """Whether a row or column was measured along one of its edges, which a drift makes unlike the other."""
    return reading.kind in ACROSS_SEAMS and bool(reading.feature) and not reading.feature.endswith("middle")


def _ends_looked_at(found: Inference) -> bool:
    """Whether both ends of seams were, or so much that a drift would have shown."""
    ends = [e.measured for e in found.estimates if e.parameter.cause in (Cause.START, Cause.END)]
    # A strip test is two readings by itself: the middle one, and all three.
    strips = _count_of(found, ReadingKind.STRIP_TEST)
    return all(ends) or readings_judged(found) + strips >= _LOOKED_ALONG
