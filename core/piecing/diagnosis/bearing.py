"""What readings bear out, deny, or leave standing by themselves: the checks that a verdict passes before it is given.

Source: docs/theory, section 14.8.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from .causes import Cause, Parameter, effect_of
from .equations import Equation
from .estimates import Estimate
from .inference import Inference
from .reading_kinds import ACROSS_SEAMS, DIAGONALS, SIZES, ReadingKind

__all__ = [
    "AS_DRIFT",
    "AT_ONE_PLACE",
    "LENGTHS",
    "OFF_ITS_MARK",
    "STRAY",
    "Bow",
    "bow_of",
    "doubted_readings",
    "is_denied",
    "is_looked_at",
    "read_alike",
    "says_why",
    "stray_reading",
    "strongest_reading",
]

LENGTHS = (*SIZES, *ACROSS_SEAMS)
AT_ONE_PLACE = (ReadingKind.TIP_GAP, ReadingKind.CORNER_GAP, ReadingKind.CROSSING)
"""Read where one or two seams and units meet."""
_OF_ONE = (
    *AT_ONE_PLACE,
    ReadingKind.STITCH,
    ReadingKind.MISS,
    ReadingKind.CLEARANCE,
    *DIAGONALS,
)
"""What one seam, one unit or one place may be off by, all by itself."""
_FAR = 1 / 10
_OF_THE_PEN = 5 / 8
"""Inches off its mark: no piece and no seam is so far off by a hand or a ruler's border."""
_PART = 0.3
"""Share of what a length is off by that a cause has to make to be named among what it may be."""
_ENOUGH_SEAMS, _DENIED = 3, 1 / 48
"""Seams that read alike and are believed to be off by so much less, inches: fewer may be slips."""
OFF_ITS_MARK = 1 / 100
"""Inches: what is off at all."""
STRAY = 1 / 16
"""Inches by which a length is off beyond what is believed makes of it, and is read again."""
AS_DRIFT = 3 / 64
"""Inches: what is off by less may be seams that drift at one end, read where they do;
unless so many readings bear it out."""
_TELL_IT = {
    Cause.SEAM: (ReadingKind.STITCH,),
    Cause.TRIM: SIZES,
    Cause.FOLD: (ReadingKind.STRIP_TEST,),
}
"""What is read of the very thing that a cause is said of."""
_READ_TWICE, _STRIPS_SEWN = 2, 1
"""Readings of it that deny a cause; a strip test is two by itself."""
_OF_A_MARK = 0.52
"""Of a ruler's mark: what is less off is not denied by readings that do not show it."""
_TOLD = 1e-9
_BOW, _ONE_BOW = 3 / 32 - 1e-6, 1 / 8 - 1e-6
"""Inches by which the two edges of rows, or of one, differ before that is no scatter of hands."""
_EDGES = {ReadingKind.ROW: ("top", "bottom"), ReadingKind.COLUMN: ("left", "right")}


def doubted_readings(found: Inference) -> list[int]:
    """Readings set aside, when all of their kind are, and there is more than one: nothing is left to go by."""
    stitched = _stitched_otherwise(found)
    if stitched or not found.odd:
        return stitched
    aside = found.aside
    families = (
        ACROSS_SEAMS,
        SIZES,
        (ReadingKind.STITCH,),
    )
    for kinds in families:
        of_kind = [n for n in found.weighed if found.readings[n].kind in kinds]
        some = any(n in aside for n in of_kind)
        if len(of_kind) >= 2 and (all(n in aside for n in of_kind) or (some and _against(found, kinds, aside))):
            return of_kind
    return sorted(aside) if len(aside) > 1 and 3 * len(aside) > len(found.weighed) else []


def _stitched_otherwise(found: Inference) -> list[int]:
    """Seams that all read wide, or all narrow, while what was joined by them is as long as true ones make it."""
    of = [n for n in found.weighed if found.readings[n].kind is ReadingKind.STITCH]
    off = [float(found.off[n]) for n in of]
    one_way = min(off, default=0.0) > AS_DRIFT or max(off, default=0.0) < -AS_DRIFT
    left = all(abs(float(found.residuals[n])) > _DENIED for n in of)
    return of if len(of) >= _ENOUGH_SEAMS and one_way and left else []


def _against(found: Inference, kinds: tuple[ReadingKind, ...], aside: frozenset[int]) -> bool:
    """Whether, of readings of these kinds that are not set aside, all lie far off though nothing is known to be the cause."""
    left = [n for n in found.weighed if found.readings[n].kind in kinds and n not in aside]
    far = [n for n in left if abs(found.off[n]) > _FAR]
    return bool(left) and len(far) == len(left) and max(e.leads for e in found.estimates) < 0.6


@dataclass(frozen=True, slots=True)
class Bow:
    """Rows, or columns, that measure ``by`` inches less along one ``edge`` of theirs than along the other; ``spot`` of their seams lies
    there."""

    kind: ReadingKind
    edge: str
    by: float
    spot: str


def bow_of(found: Inference) -> Bow | None:
    """Where both edges of the same rows or columns were measured and all of them are shorter at the same one."""
    for kind, (first, second) in _EDGES.items():
        off: dict[tuple[int, str], list[float]] = {}
        for n in found.weighed:
            at = found.model.find(found.readings[n].feature) if found.readings[n].kind is kind else None
            if at is not None:
                f = found.model.features[at]
                off.setdefault((f.row, f.edge), []).append(float(found.off[n]))
        longer = [
            float(np.mean(off[row, first]) - np.mean(off[row, second]))
            for row in sorted({row for row, _ in off})
            if (row, first) in off and (row, second) in off
        ]
        by = float(np.mean(longer)) if longer else 0.0
        if abs(by) >= (_BOW if len(longer) > 1 else _ONE_BOW) and all(x * by > 0 for x in longer):
            return Bow(kind, second if by > 0 else first, abs(by), "end" if by > 0 else "start")
    return None


def says_why(found: Inference, e: Estimate) -> bool:
    """Whether a cause makes a fair part of what the length that speaks most for it is off by."""
    n = strongest_reading(found, e)
    if n is None or found.readings[n].kind not in ACROSS_SEAMS:
        return True
    off = float(found.off[n])
    return abs(off) < STRAY or _by(found, e, n) * e.size / off >= _PART


def is_denied(found: Inference, e: Estimate) -> bool:
    """Whether units, or seams, were read themselves, more than once, and are not as is said of them; or strips were sewn for a test
    that lose to seam and fold nothing of what the fold is said to take."""
    p = e.parameter
    kinds = _TELL_IT.get(p.cause)
    if kinds is None:
        return False
    column, aside = found.parameters.index(p), found.aside
    read = [
        (float(found.off[n] / equation.of_causes[column]), equation.ruler_mark)
        for n in found.weighed
        if n not in aside
        and found.readings[n].kind in kinds
        and (equation := found.equations[n]) is not None
        and abs(float(equation.of_causes[column])) > _TOLD
    ]
    if len(read) < (_STRIPS_SEWN if p.cause is Cause.FOLD else _READ_TWICE):
        return False
    # What is half a mark off reads as if it were not.
    if abs(e.size) < _OF_A_MARK * max(mark for _, mark in read):
        return False
    return bool(np.mean([off for off, _ in read]) * np.sign(e.size) < abs(e.size) / 3)


def is_looked_at(found: Inference, p: Parameter) -> bool:
    """Whether a single seam or unit was itself measured: what a row is short by may be of any of its seams and units, and none is
    unpicked before it was looked at."""
    if not p.single:
        return True
    places = found.model.places
    if p.cause is Cause.SOME_SEAMS:
        names = {"", *(places.seams[n].name for n in places.seam_groups[p.place].seams)}
        read = (found.readings[n] for n in found.weighed)
        return any(r.kind is ReadingKind.STITCH and r.seam in names for r in read)
    of_seam = p.cause is Cause.ONE_SEAM
    name = places.seams[p.place].name if of_seam else places.cells[p.place].key
    return any(
        (r.seam if of_seam else r.unit) == name
        or (r.kind in AT_ONE_PLACE and (e := found.equations[n]) is not None and _moves(found, e, p))
        for n in found.weighed
        for r in (found.readings[n],)
    )


def _moves(found: Inference, e: Equation, p: Parameter) -> bool:
    return abs(float(e.of_errors @ effect_of(found.model, p))) > _TOLD


def stray_reading(found: Inference) -> int | None:
    """A length or a seam that lies far off its mark though nothing that is believed makes it so, the farthest of them; one that was set
    aside as well, unless nothing on the table can measure so much."""
    lone, aside = {o.index for o in found.lone}, found.aside
    far = [
        n
        for n in found.weighed
        if n not in lone
        and (_may_be_so(found, n) if n in aside else found.readings[n].kind in LENGTHS)
        and _is_unexplained(found, n)
    ]
    return max(far, key=lambda n: abs(float(found.residuals[n])), default=None)


def _may_be_so(found: Inference, n: int) -> bool:
    """Whether one piece, or one seam, may really be as it was read: by more it is a slip of the pen."""
    return found.readings[n].kind in (*LENGTHS, *_OF_ONE) and abs(float(found.off[n])) < _OF_THE_PEN


def _is_unexplained(found: Inference, n: int) -> bool:
    return abs(float(found.off[n])) > _FAR and abs(float(found.residuals[n])) > STRAY


def strongest_reading(found: Inference, e: Estimate) -> int | None:
    """The reading that speaks most for a cause."""
    best, most = None, 0.0
    aside = found.aside
    for k in found.weighed:
        equation = found.equations[k]
        if equation is None or k in aside:
            continue
        made = _by(found, e, k) * e.size
        speaks = abs(made) / np.sqrt(equation.noise)
        if made * found.off[k] > 0 and speaks > most:
            best, most = k, speaks
    return best


def _by(found: Inference, e: Estimate, k: int) -> float:
    """What an inch of a cause makes of a reading."""
    n, equation = found.parameters.index(e.parameter), found.equations[k]
    assert equation is not None
    if n < found.common:
        return float(equation.of_causes[n])
    return float(equation.of_errors @ effect_of(found.model, e.parameter))


def read_alike(found: Inference, n: int) -> int:
    """How many other readings of the same kind lie off to the same side."""
    kind = found.readings[n].kind
    return sum(
        k != n and found.readings[k].kind is kind and bool(found.off[k] * found.off[n] > 0) for k in found.weighed
    )
