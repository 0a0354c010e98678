"""What to do about a mistake made at a stroke: nothing of it is a matter of small sizes.

Source: docs/theory, section 14.10.
"""

from __future__ import annotations

from collections.abc import Iterator

from ...lengths import Length
from ...messages import Message
from ..causes import Cause, parameters_of
from ..mistake import Edge, Mistake, MistakeKind
from ..places import batch_name
from ..reading_kinds import ACROSS_SEAMS
from ..words import Roughly
from .of_units import of_cutting, share_shortfall
from .remedy import Remedy, RemedyMinutes, Work

__all__ = ["for_the_eye", "offers"]

_PICTURE = {
    "turned_unit": (
        "Unpick the unit that lies turned, turn it, and sew it in again",
        "Lay the block beside its picture (Look it over finds the unit). Unpick before pressing, if it is not pressed yet.",
        4 * (RemedyMinutes.UNPICK + RemedyMinutes.SEW),
    ),
    "wrong_hand": (
        "Put a unit of the other hand there",
        "No turn puts a mirror image right. Keep it for a place that asks for its hand, and make one from loose triangles.",
        4 * (RemedyMinutes.UNPICK + RemedyMinutes.SEW) + RemedyMinutes.UNIT,
    ),
    "two_alike": (
        "Take one of the two apart and make it the other way round",
        "Lay the pair beside the picture: their seams must run against each other. Unpick one, exchange its halves, and sew it again.",
        RemedyMinutes.UNPICK + RemedyMinutes.UNIT,
    ),
    "wrong_sides": (
        "Unpick before pressing, and sew right sides together",
        "Slide the ripper under every third stitch, pull the thread, press flat, and lay right side to right side.",
        RemedyMinutes.UNPICK + RemedyMinutes.SEW,
    ),
}


def offers(work: Work) -> Iterator[Remedy]:
    """What mends a discrete mistake, such as a unit turned or two alike."""
    code = work.verdict.code
    if sum(seen.code in _PICTURE for seen in work.found.seen) > 1:
        yield Remedy(
            "look_over",
            Message("Lay the block beside its picture before anything is unpicked"),
            Message(
                "Look it over finds the unit that differs. If the picture comes right when that one is turned, it lies turned; if no turn puts it "
                "right, it is its mirror image."
            ),
            Message("Nothing is unpicked in vain."),
            Message("none"),
            2,
        )
    if code in _PICTURE:
        minutes = _PICTURE[code][2]
        yield Remedy(
            code,
            Message(_PICTURE[code][0]),
            Message(_PICTURE[code][1]),
            Message("Sizes stay."),
            Message("its neighbours' seams are sewn once more"),
            minutes,
            cures=True,
        )
        return
    mistake = work.found.mistake
    if mistake is None:
        return
    made = mistake[0]
    if made.kind == MistakeKind.INSIDE:
        yield _raw_edge_to_raw_edge(work, made)
        return
    if made.kind == MistakeKind.SIDE:
        yield from _one_side(work, made)
        return
    # A length of what is joined, read with the same ruler's marks, tells a border from a wrong mark.
    lengths = any(work.found.readings[n].kind in ACROSS_SEAMS for n in work.found.weighed)
    if not lengths or made.kind == MistakeKind.BORDER:
        yield _measured_otherwise(made)
    for n in made.parameters:
        p = parameters_of(work.model)[n]
        if p.cause is Cause.TRIM and made.size > 0:
            yield _trimmed_again(work, p.batch, made.size)
        elif p.cause is Cause.CUT:
            yield of_cutting(work, p, made.size)
        elif p.cause is Cause.TRIM:
            yield _made_again(work, p.batch, made.size)


_EYE = {
    "pressed_to_light": (
        "Press that seam to the dark, or trim the dark allowance back",
        "Press it closed once more and fold it to the other side. Where another seam nests with it, leave it, and trim the dark allowance "
        "a thread shorter than the light one.",
        "The dark no longer shows through.",
        RemedyMinutes.PRESS,
    ),
    "joined_in_turn": (
        "Measure both long edges of the bowed row",
        "Where they differ, the seams in it run off at one end: what they measure at start and end says which. For the next rows, join in "
        "pairs and sew from alternate ends.",
        "Nothing is unpicked before it is known.",
        2,
    ),
    "blade": (
        "Change the blade and the needle",
        "A nicked blade skips and drags; take the old one out in its case. Then measure six more: they should lie closer together.",
        "Edges are clean, and readings scatter less.",
        2,
    ),
}


def for_the_eye(work: Work) -> Iterator[Remedy]:
    """What answers something that was seen and is no matter of size."""
    for seen in work.found.seen:
        if seen.code in _EYE and seen.noticed:
            yield Remedy(
                seen.code,
                Message(_EYE[seen.code][0]),
                Message(_EYE[seen.code][1]),
                Message(_EYE[seen.code][2]),
                Message("none"),
                _EYE[seen.code][3],
            )


def _raw_edge_to_raw_edge(work: Work, made: Mistake) -> Remedy:
    return Remedy(
        "measure_outside",
        Message("Measure one of them again, from raw edge to raw edge"),
        Message(
            "It should be {both} longer so. Where it is joined on both sides already, add {allowance} for each seam to what you read.",
            both=Length.near(abs(made.size)),
            allowance=work.model.allowance,
        ),
        Message("Nothing is unpicked for a length that is right."),
        Message("none"),
        1,
        cures=True,
    )


def _measured_otherwise(made: Mistake) -> Remedy:
    return Remedy(
        "measure_mark",
        Message("Measure one unit with another ruler, from its very edge"),
        Message("A border counted and a wrong mark look alike. A second ruler or a tape tells them apart in a minute."),
        Message("Nothing is cut in vain."),
        Message("none"),
        1,
        cures=made.kind == MistakeKind.BORDER,
    )


def _trimmed_again(work: Work, batch: int, size: float) -> Remedy:
    units = work.units_of(batch)
    return Remedy(
        f"trim_again-{batch}",
        Message("Trim the {who} again", who=batch_name(work.model.places, batch)),
        Message(
            "They are {size} too large. {unpick} Set the ruler on the mark for the unfinished size, and trim.",
            size=Roughly(size),
            unpick=work.unpicked_first(len(units)),
        ),
        Message("They come to their size."),
        Message("bias edges stretch while they are unpicked" if work.joined else "none, while they are not joined"),
        len(units) * RemedyMinutes.TRIM + work.minutes_to_handle(units),
        cures=True,
    )


def _made_again(work: Work, batch: int, size: float, *, small: bool = False) -> Remedy:
    of, units = work.model.places.batches[batch], work.units_of(batch)
    return Remedy(
        f"make_again-{batch}",
        Message(
            "Cut the {who} again, and keep these for a smaller block"
            if of.plain
            else "Make the {who} again, and keep these for a smaller block",
            who=batch_name(work.model.places, batch),
        ),
        Message(
            "They are {size} too small. {unpick}"
            if small
            else "They are {size} too small: no seam shares so much out. {unpick}",
            size=Roughly(size),
            unpick=work.unpicked_first(len(units)),
        ),
        Message("They come to their size."),
        Message("cloth and time"),
        len(units) * (RemedyMinutes.CUT if of.plain else RemedyMinutes.UNIT) + work.minutes_to_handle(units),
        cures=True,
    )


def _one_side(work: Work, made: Mistake) -> Iterator[Remedy]:
    """Of one side too much is trimmed off in a minute; too little is shared between the seams at its ends, and only then made again."""
    who, units = batch_name(work.model.places, made.batch), work.units_of(made.batch)
    if made.size > 0:
        yield Remedy(
            f"trim_again-{made.batch}",
            Message("Trim the {who} again, on that side only", who=who),
            Message(
                "{unpick} Lay the ruler on the mark for the unfinished size and take {size} off; the other side is right. At a corner with a "
                "diagonal or above a tip, take it off where the cloth stands over.",
                size=Roughly(made.size),
                unpick=work.unpicked_first(len(units)),
            ),
            Message("They come to their size."),
            Message("bias edges stretch while they are unpicked" if work.joined else "none, while they are not joined"),
            len(units) * RemedyMinutes.TRIM + work.minutes_to_handle(units),
            cures=True,
        )
        return
    share = share_shortfall(work, made.batch, made.size, _beside(work, made))
    again = _made_again(work, made.batch, made.size, small=share.possible)
    yield from (share, again) if share.possible else (again, share)


def _beside(work: Work, made: Mistake) -> list[int]:
    """The seams at the ends of the side that is off; of a unit with a tip the one at the edge where it was trimmed off."""
    model, tip = work.model, work.model.places.batches[made.batch].tip
    found: set[int | None] = set()
    for c in model.places.cells:
        if c.batch != made.batch:
            continue
        left, right, bottom, top = c.seams
        if made.edge is Edge.ANY or tip is None:
            found |= {left, right} if model.of_unit(c.number, "width") in made.errors else {bottom, top}
            continue
        x, y = c.toward(tip)
        x, y = (x, y) if made.edge is Edge.TIP else (-x, -y)
        found.add((right if x > 0 else left) if abs(x) > abs(y) else (top if y > 0 else bottom))
    return sorted(k for k in found if k is not None)
