"""What to do about a mistake made at a stroke: nothing of it is a matter of small sizes.

Source: docs/theory, section 14.10.
"""

from __future__ import annotations

from collections.abc import Iterator

from ...messages import Message
from ..causes import Cause, parameters_of
from ..mistakes import MistakeKind
from ..places import batch_name
from ..words import Roughly
from .of_units import of_cutting
from .remedy import Remedy, RemedyMinutes, Work

__all__ = ["offered"]

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


def offered(work: Work) -> Iterator[Remedy]:
    """What mends a discrete mistake, such as a unit turned or two alike."""
    code = work.verdict.code
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
    yield Remedy(
        "measure_mark",
        Message("Measure one unit with another ruler, from its very edge"),
        Message("A border counted and a wrong mark look alike. A second ruler or a tape tells them apart in a minute."),
        Message("Nothing is cut in vain."),
        Message("none"),
        1,
        cures=made.kind == MistakeKind.BORDER,
    )
    for n in made.parameters:
        p = parameters_of(work.model)[n]
        name = batch_name(work.model.places, p.batch)
        count = work.model.places.batches[p.batch].count
        if p.cause is Cause.TRIM and made.size > 0:
            yield Remedy(
                f"trim_again-{p.batch}",
                Message("Trim the {who} again", who=name),
                Message(
                    "They are {size} too large: set the ruler on the mark for the unfinished size, and trim.",
                    size=Roughly(made.size),
                ),
                Message("They come to their size."),
                Message("none, while they are not joined"),
                count * RemedyMinutes.TRIM,
                cures=True,
            )
        elif p.cause is Cause.CUT:
            yield of_cutting(work, p, made.size)
        elif p.cause is Cause.TRIM:
            yield Remedy(
                f"make_again-{p.batch}",
                Message("Make the {who} again, and keep these for a smaller block", who=name),
                Message("They are {size} too small: no seam shares so much out.", size=Roughly(made.size)),
                Message("They come to their size."),
                Message("cloth and time"),
                count * RemedyMinutes.UNIT,
                cures=True,
            )
