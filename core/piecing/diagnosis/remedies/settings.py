"""What to change for the blocks not yet sewn: guide, marks, cut and handling, from the setting that was to the one to make.

Only what the readings leave no doubt about, and only by amounts that a guide or a mark can be moved.
Source: docs/theory, section 14.10.
"""

from __future__ import annotations

from collections.abc import Iterator
from math import sqrt

import numpy as np

from ...messages import Message
from ..causes import Cause, Parameter
from ..estimates import Estimate
from ..inference import Inference
from ..places import batch_name
from ..readings import two_settings
from ..said import off_a_side
from ..verdict import Status, Verdict
from ..words import GuideMove, GuideSetting, Roughly
from .remedy import FOLD_PAID, Remedy, fold_taken

__all__ = ["changes_for_the_rest"]

_LEAST, _A_THREAD = 1 / 96, 1.5 / 64
"""Inches below which no guide is moved, and below which what pays for a fold is called a thread."""


def changes_for_the_rest(found: Inference, verdict: Verdict) -> tuple[Remedy, ...]:
    """Changes to guide, mark, cut and handling for the blocks not yet sewn."""
    if verdict.status in (Status.DOUBTED, Status.NO_READINGS):
        return ()
    if verdict.status is Status.VARIES:
        return (_steadier(),)
    if verdict.status in (Status.TRUE, Status.MISTAKE):
        return ()
    return tuple(_changes(found, verdict))


def _steadier() -> Remedy:
    return Remedy(
        "steadier",
        Message("Steady the hand, and move no setting"),
        Message(
            "Fit a guide the cloth can run along, a fresh blade and a fresh needle, and sew slower; then measure six seams again."
        ),
        Message("Seams and edges vary less; on the whole they are right already."),
        Message("none"),
        10,
    )


def _changes(found: Inference, verdict: Verdict) -> Iterator[Remedy]:
    named = [p for p in (verdict.leading, verdict.beside) if p is not None]
    if any(p.cause in (Cause.SEAM, Cause.FOLD) for p in named):
        yield from _guide(found, verdict)
    for p in named:
        estimate = found.estimate(p)
        if p.cause in (Cause.START, Cause.END):
            yield _hold(p, estimate)
        elif p.batch >= 0 and estimate.sure_of_side:
            yield _mark(found, p, estimate.size)


def _guide(found: Inference, verdict: Verdict) -> Iterator[Remedy]:
    """From the stitching as it is to the allowance less half the fold; what both are named by adds up."""
    fold = fold_taken(found, verdict)
    allowance = float(found.model.allowance)
    lost = found.draws[:, 0] + found.draws[:, 3] / 2
    low, high = np.quantile(lost, (0.05, 0.95))
    if low * high <= 0 or abs(float(lost.mean())) < _LEAST:
        return
    scant = fold / 2 > FOLD_PAID
    seams = found.estimate(Parameter(Cause.SEAM))
    # What the readings say of the stitching, as the headline does; what is believed of it where none does.
    stitched = found.prior.offset + seams.size if seams.measured else float(found.mean[0])
    if verdict.leading == Parameter(Cause.FOLD):
        # Where the fold is said to take so much, the stitching answers for the rest of what is lost.
        stitched = float(lost.mean()) - fold / 2
    now, to = allowance + stitched, allowance - (fold / 2 if scant else 0.0)
    moved = two_settings(found.readings[n] for n in found.weighed)
    if moved is not None and abs(moved.after - fold / 2 * scant - allowance) < _LEAST:
        # It was moved since, and stands right.
        return
    shown = GuideSetting(allowance)
    seam = found.model.allowance
    yield Remedy(
        "move_guide",
        Message(
            "Stitch a thread {more} than now, at {shown}"
            if not scant and GuideSetting(now).set_in(None) == shown.set_in(None)
            else "Stitch at {shown}, not at {now}"
            if not scant
            else "Stitch a thread under {shown}, not at {shown}: the thread pays for the fold"
            if abs(now - allowance) < 1 / 128 and fold / 2 < _A_THREAD
            else "Stitch at {shown}, a thread less for the fold, not at {now}"
            if fold / 2 < _A_THREAD
            else "Stitch at {to}, not at {now}: {less} less pays for the fold",
            shown=shown,
            to=GuideSetting(to),
            less=Roughly(fold / 2),
            now=GuideSetting(now),
            more="shallower" if now > to else "deeper",
        ),
        Message(
            "Move the guide {way} the needle by {move}. Then sew three strips cut {strip} wide and press: the middle one should "
            "read {middle}, all three {whole}.",
            way="nearer to" if now > to else "away from",
            move=GuideMove(now, to),
            strip=seam * 6,
            middle=seam * 4,
            whole=seam * 14,
        ),
        Message("Each fabric then loses just {shown} to a seam.", shown=shown),
        Message("sew the strip test before anything else"),
        10,
    )


def _hold(p: Parameter, e: Estimate) -> Remedy:
    where = p.cause.value
    return Remedy(
        f"hold-{where}",
        Message("Hold the work at the {where} of each seam", where=where),
        Message(
            "Seams stray by {size} at their {where}. Begin on a scrap, sew over the {where} slowly, and keep the edge on the guide to the last stitch.",
            size=Roughly(e.size),
            where=where,
        ),
        Message("Rows keep their length at both edges."),
        Message("none"),
        0,
    )


def _mark(found: Inference, p: Parameter, off: float) -> Remedy:
    """What to do otherwise with the rest of a batch that was cut, trimmed or handled off."""
    title, how = _marks(found, p, off)
    code = f"{p.cause.value}-{p.batch}"
    return Remedy(code, title, how, Message("The next ones come out true."), Message("none"), 2)


def _between_the_tips(who: str, size: Roughly, *, one: bool) -> tuple[Message, Message]:
    """Of units with ``one`` tip, or several, that were trimmed with it off its place."""
    return Message(
        "Lay the ruler's lines on both seams of the {who}"
        if one
        else "Lay the ruler's lines on opposite tips of the {who}",
        who=who,
    ), Message(
        "They were trimmed {size} off to one side. Set a line on each seam, so that the tip lies half way across, trim the top and one "
        "side, turn, and set them again before the other two."
        if one
        else "They were trimmed {size} off to one side. Set the ruler's middle lines on opposite tips, trim two sides, turn, and set "
        "them again before the other two.",
        size=size,
    )


def _centre(who: str, off: float) -> tuple[Message, Message]:
    """Of units with tips on several sides, trimmed to size: t = (U - r2 (c - 2e))/2, so r2 of what lies outside a tip is the
    centre's, and 1/r2 of it the seams'."""
    way, further = ("smaller", "in") if off < 0 else ("larger", "out")
    return Message("Make the centre of the {who} {way}", who=who, way=way), Message(
        "Cut it {centre} {way}; where its corners are flipped, sew them {seam} further {further}. Trimming alone cannot put both the size "
        "and the tips right: look at the tips of the first one before it is trimmed.",
        centre=Roughly(sqrt(2) * off),
        way=way,
        seam=Roughly(off / sqrt(2)),
        further=further,
    )


_TRIMMED_TO = {
    (True, False): "Cut the {who} to {to}, not to {now}",
    (False, False): "Trim the {who} to {to}, not to {now}",
    (True, True): "Cut the {who} to {to} by {high}, not {size} {more} each way",
    (False, True): "Trim the {who} to {to} by {high}, not {size} {more} each way",
}
"""By whether they are cut and not trimmed, and whether they are oblong."""


def _marks(found: Inference, p: Parameter, off: float) -> tuple[Message, Message]:
    """Title and way, ``off`` inches beyond what was wanted."""
    model = found.model
    who, size = batch_name(model.places, p.batch), Roughly(off)
    target = float(model.places.batches[p.batch].spec.width + model.allowance * 2)
    match p.cause:
        case Cause.TRIM:
            batch = model.places.batches[p.batch]
            return Message(
                _TRIMMED_TO[batch.plain, batch.spec.width != batch.spec.height],
                who=who,
                to=batch.spec.width + model.allowance * 2,
                now=GuideSetting(target + off),
                high=batch.spec.height + model.allowance * 2,
                size=size,
                more="more" if off > 0 else "less",
            ), Message("Look which mark of the ruler lies on the fresh edge, and check the next unit before the batch.")
        case Cause.SHIFT if off_a_side(model, p):
            return _between_the_tips(who, size, one=not model.places.batches[p.batch].several_tips)
        case Cause.SHIFT:
            return Message("Lay the ruler's line on the seam of the {who}", who=who), Message(
                "They were trimmed {size} off it. Set the line on the seam from corner to corner, trim two sides, turn, and set "
                "it on the seam again before the other two.",
                size=size,
            )
        case Cause.TIP:
            now = GuideSetting(float(model.allowance) + off)
            if model.places.batches[p.batch].several_tips:
                return _centre(who, off)
            return Message(
                "Leave {to} above the tip of the {who}, not {now}", who=who, to=model.allowance, now=now
            ), Message("Set the ruler's mark on the tip first, then trim the top.")
        case Cause.CUT:
            way = "small" if off < 0 else "large"
            return Message("Check the pieces cut for the {who}", who=who), Message(
                "They are {size} too {way}. Measure the next ones before sewing.", size=size, way=way
            )
        case _:
            return Message("Starch the {who}, and true them up on the corners that were not sewn", who=who), Message(
                "They are drawn out by {size}. Starch before cutting, press up and down, and sew with the bias side below.",
                size=size,
            )
