"""Causes, and the readings that speak for them, in the quilter's words.

Source: docs/theory, section 14.8.
"""

from __future__ import annotations

from ..messages import Message, MidSentence
from .bearing import read_alike, strongest_reading
from .causes import CAUSE_WORDS, Cause, Parameter
from .estimates import Estimate
from .inference import Inference
from .model import BlockModel
from .names import reading_said
from .places import batch_name
from .reading_kinds import SEWN, ReadingKind
from .words import Roughly

__all__ = [
    "beside_said",
    "cause_name",
    "cause_of_whom",
    "cause_said",
    "evidence_said",
    "off_a_side",
    "reading_off",
    "seams_off_said",
    "seams_take_said",
]

_WORDS: dict[Cause, tuple[str, str]] = {
    Cause.SEAM: ("all seams are {size} narrow", "all seams are {size} wide"),
    Cause.START: ("every seam strays narrow by {size} at its start", "every seam strays deep by {size} at its start"),
    Cause.END: ("every seam strays narrow by {size} at its end", "every seam strays deep by {size} at its end"),
    Cause.FOLD: (
        "the fold takes less than was allowed for",
        "the fold is not paid for: it takes {size} of each fabric",
    ),
    Cause.TRIM: ("{who} {sized} {size} too small", "{who} {sized} {size} too large"),
    Cause.SHIFT: ("{who} trimmed {size} off the diagonal", "{who} trimmed {size} off the diagonal"),
    Cause.TIP: (
        "{who} trimmed with {size} too little above the tip",
        "{who} trimmed with {size} too much above the tip",
    ),
    Cause.CUT: ("pieces for the {who} cut {size} too small", "pieces for the {who} cut {size} too large"),
    Cause.STRETCH: ("{who} drawn in by {size} on the bias", "{who} stretched by {size} on the bias"),
}
_ALL_TIPS = (
    "{who} trimmed with {size} too little outside their tips",
    "{who} trimmed with {size} too much outside their tips",
)
"""Where tips point at several sides: size and clearance cannot both be put right by trimming."""
_ONE_UNIT = {
    "slip": ("the unit in {name} lies {size} off its lines", "the unit in {name} lies {size} off its lines"),
    "tip": (
        "the unit in {name} has {size} too little above its tip",
        "the unit in {name} has {size} too much above its tip",
    ),
    "tips": (
        "the unit in {name} has {size} too little outside its tips",
        "the unit in {name} has {size} too much outside its tips",
    ),
    "width": ("the unit in {name} is {size} too small across", "the unit in {name} is {size} too large across"),
    "height": (
        "the unit in {name} is {size} too small up and down",
        "the unit in {name} is {size} too large up and down",
    ),
    "size": ("the unit in {name} is {size} too small", "the unit in {name} is {size} too large"),
}
_ALONG = 1e-6


def cause_said(model: BlockModel, p: Parameter, size: float) -> Message:
    """A cause of this size, in inches with its sign, in words."""
    if p.cause is Cause.SOME_SEAMS:
        return seams_off_said(model.places.seam_groups[p.place].name, size)
    if p.cause is Cause.ONE_SEAM:
        seam = model.places.seams[p.place]
        spot = (
            ""
            if p.spot == "whole"
            else f" in its {p.spot}"
            if p.spot == "middle"
            else f" at its {seam.spot_said(p.spot)}"
        )
        return Message(
            "{seam} strays {way} by {size}{spot}",
            seam=seam.name,
            way="deep" if size > 0 else "narrow",
            size=Roughly(size),
            spot=spot,
        )
    if p.cause is Cause.ONE_UNIT:
        name = model.places.cells[p.place].name
        spot = p.spot if p.spot in _ONE_UNIT else "size"
        if spot == "tip" and model.places.batches[model.places.cells[p.place].batch].several_tips:
            spot = "tips"
        return Message(_ONE_UNIT[spot][size > 0], name=name, size=Roughly(size))
    # Half of what a fold swallows is each fabric's.
    said = size / 2 if p.cause is Cause.FOLD else size
    who = batch_name(model.places, p.batch) if p.batch >= 0 else ""
    if p.cause is Cause.SHIFT and off_a_side(model, p):
        upright = _is_upright(model, p)
        return Message(
            "{who} trimmed {size} too far up or down" if upright else "{who} trimmed {size} off to one side",
            size=Roughly(said),
            who=who,
        )
    if p.cause is Cause.TIP and model.places.batches[p.batch].several_tips:
        return Message(_ALL_TIPS[size > 0], size=Roughly(said), who=who)
    sized = model.places.batches[p.batch].sized if p.batch >= 0 else ""
    return Message(_WORDS[p.cause][size > 0], size=Roughly(said), who=who, sized=sized)


def cause_name(model: BlockModel, p: Parameter) -> Message:
    """What a cause is called, beside the others of its batch: which of two diagonals a unit is trimmed off, or drawn out along."""
    if p.cause is Cause.SHIFT:
        batch = model.places.batches[p.batch]
        if off_a_side(model, p):
            return Message("Off up or down") if _is_upright(model, p) else Message("Off to one side")
        if len(batch.slips) > 1:
            # What slips one way misses the diagonal that lies the other.
            return Message("Off the {diagonal} diagonal", diagonal=_diagonal(batch.slips[p.axis], across=True))
    if p.cause is Cause.TRIM and model.places.batches[p.batch].plain:
        return Message("Size as cut")
    if p.cause is Cause.TIP and model.places.batches[p.batch].several_tips:
        return Message("Clearance outside the tips")
    if p.cause is Cause.STRETCH:
        drawn = model.places.batches[p.batch].strains
        if len(drawn) > 1 and len(drawn[p.axis]) == 1:
            return Message("Stretch along the {diagonal} diagonal", diagonal=_diagonal(drawn[p.axis][0]))
    return Message("{name}", name=CAUSE_WORDS[p.cause])


def cause_of_whom(model: BlockModel, p: Parameter) -> Message:
    """A cause within a sentence, with the units that it is of."""
    name = MidSentence(cause_name(model, p))
    who = batch_name(model.places, p.batch) if p.batch >= 0 else ""
    return Message("{name} of {who}", name=name, who=who) if who else Message("{name}", name=name)


def off_a_side(model: BlockModel, p: Parameter) -> bool:
    """Whether units slipped along their sides, as those with tips do, and not square to a diagonal."""
    return min(map(abs, model.places.batches[p.batch].slips[p.axis])) < _ALONG


def _is_upright(model: BlockModel, p: Parameter) -> bool:
    """Whether units slipped up or down, not to one side."""
    across, up = model.places.batches[p.batch].slips[p.axis]
    return abs(up) > abs(across)


def _diagonal(way: tuple[float, float], *, across: bool = False) -> str:
    """The diagonal that runs this way, or ``across`` it."""
    return "rising" if (way[0] * way[1] > 0) != across else "falling"


_NOTHING = 1 / 128
"""Inches: half a thread, which no ruler tells."""


def beside_said(off: float) -> Message:
    """A length that lies ``off`` inches beyond what it should be."""
    if abs(off) < _NOTHING:
        return Message("right")
    return Message("{size} over" if off > 0 else "{size} short", size=Roughly(off))


def seams_off_said(seams: str, size: float) -> Message:
    """That these seams are narrow or wide, by ``size`` inches."""
    return Message("{seams} are {size} {way}", seams=seams, size=Roughly(size), way="wide" if size > 0 else "narrow")


def seams_take_said(size: float) -> Message:
    """That seams take ``size`` inches too much of each fabric, by stitching and fold together."""
    return Message("all seams take {size} too much of each fabric, by stitching and fold together", size=Roughly(size))


def evidence_said(found: Inference, e: Estimate) -> Message:
    """The reading that speaks most for a cause, as one sentence."""
    best = strongest_reading(found, e)
    if best is None:
        return Message("The readings together say so; no single one does.")
    more = read_alike(found, best)
    return Message(
        "{reading}, and {more} more like it." if more else "{reading}.", reading=reading_off(found, best), more=more
    )


def reading_off(found: Inference, n: int) -> Message:
    """What was read and how far it lies off its mark."""
    r, off = found.readings[n], float(found.off[n])
    what, size = reading_said(r, found.model), Roughly(off)
    if r.kind is ReadingKind.MISS:  # Its own name says which way.
        return Message("{what} by {size}", what=what, size=size)
    return Message("{what}: {size} {way}", what=what, size=size, way=_way(r.kind, off))


def _way(kind: ReadingKind, off: float) -> str:
    if kind in SEWN:
        return "wide" if off > 0 else "narrow"
    if kind is ReadingKind.TIP_GAP:
        return "short of the seam" if off > 0 else "cut off"
    if kind in (ReadingKind.CORNER_GAP, ReadingKind.CROSSING):
        return "past it"
    return "over" if off > 0 else "short"
