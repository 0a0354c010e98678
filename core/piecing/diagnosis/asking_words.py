"""What is said of the next reading: how to take it, and what each outcome of it would tell.

Source: docs/theory, section 14.9.
"""

from __future__ import annotations

from ..lengths import Length
from ..messages import Message
from .causes import Cause, Parameter
from .inference import Inference
from .model import BlockModel
from .names import Landing, landings, place_said, reading_said
from .places import batch_name
from .reading_kinds import SIDED, ReadingKind
from .readings import Reading
from .said import off_a_side
from .words import sure_in_words

__all__ = ["how_said", "outcome_said", "range_said", "sided_said", "sides_of", "subject_said"]


def outcome_said(found: Inference, reads: Message, p: Parameter | None, sure: float) -> Message:
    """What one outcome of a reading would tell: the cause ``p``, or that nothing is off, and how sure of it one is then."""
    cause = Message("nothing of note") if p is None else subject_said(found.model, p)
    return Message("{reads}: {cause} ({how})", reads=reads, cause=cause, how=sure_in_words(sure))


def range_said(
    model: BlockModel, reading: Reading, low: float | None, high: float | None, resolution: Length
) -> Message:
    """A range of what may be read; of what lies on one of two sides, by the side: nobody reads signs."""
    sides = sides_of(model, reading)
    if sides is not None:
        return sided_said(sides, low, high, resolution)
    ends = {k: Length.near(v).round_near(resolution) for k, v in (("low", low), ("high", high)) if v is not None}
    return Message(
        "whatever it reads"
        if not ends
        else "under {high}"
        if low is None
        else "{low} or more"
        if high is None
        else "from {low} to under {high}",
        **ends,
    )


def sides_of(model: BlockModel, reading: Reading) -> tuple[Landing, Landing] | None:
    """The two sides that a sided reading may lie on, the one above zero first."""
    if reading.kind not in SIDED:
        return None
    corner, upright = reading.corner, False
    if reading.feature:
        feature = model.features[model.find(reading.feature) or 0]
        corner = feature.edge if reading.kind is ReadingKind.CORNER_GAP else ""
        upright = reading.kind is ReadingKind.CROSSING and model.places.seams[feature.seam].upright
    first, second = landings(reading.kind, corner, upright=upright)
    return first, second


def sided_said(sides: tuple[Landing, Landing], low: float | None, high: float | None, resolution: Length) -> Message:
    """A range of what a reading with two ``sides`` shows, by where it lands; inches."""
    first, second = sides[0].said, sides[1].said

    def mark(size: float) -> Length:
        return Length.near(abs(size)).round_near(resolution)

    if low is None and high is None:
        return Message("whatever it reads")
    if low is not None and low >= 0:
        return (
            Message("{low} or more, and {side}", low=mark(low), side=first)
            if high is None
            else Message("from {low} to under {high}, and {side}", low=mark(low), high=mark(high), side=first)
        )
    if high is not None and high <= 0:
        return (
            Message("{low} or more, and {side}", low=mark(high), side=second)
            if low is None
            else Message("from {low} to under {high}, and {side}", low=mark(high), high=mark(low), side=second)
        )
    if low is None and high is not None:
        return Message("anything but {high} or more where {side}", high=mark(high), side=first)
    if high is None and low is not None:
        return Message("anything but {low} or more where {side}", low=mark(low), side=second)
    return Message("less, on either side")


_SUBJECTS = {
    Cause.SEAM: "the stitching distance",
    Cause.FOLD: "the fold",
    Cause.START: "seams that stray at their start",
    Cause.END: "seams that stray at their end",
    Cause.TRIM: "the trimmed size",
    Cause.SHIFT: "trimming off the diagonal",
    Cause.TIP: "the cloth above the tip",
    Cause.CUT: "the cut size",
    Cause.STRETCH: "stretched bias",
}


def subject_said(model: BlockModel, p: Parameter) -> Message:
    """A cause as what a reading would tell of."""
    if p.single:
        where = place_said(model, p)
        if p.cause is Cause.SOME_SEAMS:
            return Message("{where} by themselves", where=model.places.seam_groups[p.place].name)
        return (
            Message("{seam} by itself", seam=where)
            if p.cause is Cause.ONE_SEAM
            else Message("the unit in {name} by itself", name=where)
        )
    if p.batch < 0:
        return Message(_SUBJECTS[p.cause])
    what = _SUBJECTS[p.cause]
    if p.cause is Cause.SHIFT and off_a_side(model, p):
        what = "trimming off to one side"
    elif p.cause is Cause.TIP and model.places.batches[p.batch].several_tips:
        what = "the cloth outside the tips"
    return Message("{who}: {what}", who=batch_name(model.places, p.batch), what=what)


_HOW = {
    ReadingKind.WIDTH: "Measure {one} of the {who} across, as {sized}, raw edge to raw edge.",
    ReadingKind.HEIGHT: "Measure {one} of the {who} up and down, as {sized}, raw edge to raw edge.",
    ReadingKind.CUT: "Measure {one} piece cut for the {who}, before it is sewn.",
    ReadingKind.RAW_WIDTH: "Measure {one} of the {who} across, as sewn and pressed, before it is trimmed.",
    ReadingKind.RAW_HEIGHT: "Measure {one} of the {who} up and down, as sewn and pressed, before it is trimmed.",
    ReadingKind.DIAGONAL_RISING: "Measure {one} of the {who} from its lower left to its upper right corner.",
    ReadingKind.DIAGONAL_FALLING: "Measure {one} of the {who} from its upper left to its lower right corner.",
    ReadingKind.CLEARANCE: "Measure from the tip of {one} of the {who} to the raw edge above it.",
}


def how_said(reading: Reading, model: BlockModel, *, more: bool = False) -> Message:
    """Where to lay the ruler; ``more`` where one like it was read before."""
    k, places, one = reading.kind, model.places, "one more" if more else "one"
    if k in _HOW:
        unit = places.unit(reading.unit) if reading.unit else None
        if unit is not None:
            return Message("On the unit in {name}: {what}.", name=unit.name, what=reading_said(reading, model))
        batch = places.batch(reading.batch)
        who, sized = (batch_name(places, batch.number), batch.sized) if batch else ("units", "trimmed")
        if k is ReadingKind.CLEARANCE and reading.corner:
            return Message(
                "Measure from the {side} tip of {one} of the {who}, as it is made, to the raw edge it points at.",
                side=reading.corner,
                one=one,
                who=who,
            )
        return Message(_HOW[k], one=one, who=who, sized=sized)
    if k is ReadingKind.MISS and not reading.unit:
        return Message(
            "Lay the ruler's diagonal on the seam of {one} unit and read how far from its corner it passes.", one=one
        )
    if k is ReadingKind.MISS:
        unit = places.unit(reading.unit)
        return Message(
            "On the unit in {name}, lay the ruler's diagonal on the seam and read how far from the {corner} corner it passes, "
            "and on which side.",
            name=unit.name if unit else reading.unit,
            corner=reading.corner,
        )
    if k is ReadingKind.STITCH and (n := places.seam(reading.seam)) is not None:
        return Message(
            "Turn the work over and measure {seam} at its {spot}, from raw edge to stitching.",
            seam=reading.seam,
            spot=places.seams[n].spot_said(reading.spot),
        )
    if k is ReadingKind.STITCH:
        return Message(
            "Turn the work over and measure {one} seam at its {spot}, from raw edge to stitching.",
            one=one,
            spot=reading.spot,
        )
    if k is ReadingKind.STRIP_TEST:
        return Message("Sew three strips of one width side by side, press, and measure the middle one and the whole.")
    what = reading_said(reading, model)
    if k in (ReadingKind.ROW, ReadingKind.COLUMN):
        return Message("Measure {what}, pressed and lying flat, raw edge to raw edge.", what=what)
    if k is ReadingKind.TIP_GAP:
        return Message(
            "{what}: measure from the tip to the seam, and say whether it floats short of it or is cut off.", what=what
        )
    if k is ReadingKind.CORNER_GAP:
        return Message(
            "{what}: measure from the corner to where the diagonal ends, and say on which seam that is.", what=what
        )
    return Message("{what}: measure the step between the two seams that should meet.", what=what)
