"""Remedies at the seams: sewn again, at once or on a stretch; pressed to hide a hair.

Source: docs/theory, section 14.10.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace

import numpy as np

from ...lengths import AlongSeam, Length
from ...messages import Listing, Message
from ...planning.seam import NARROWEST_ALLOWANCE
from ...tolerances import ABOUT
from ..causes import Cause, Parameter
from ..faults import EASED, Fault
from ..model import FeatureKind
from ..words import GuideSetting, Roughly
from .remedy import PINNED, Change, Remedy, RemedyMinutes, Work

__all__ = ["offers"]

_ONE, _TWO = AlongSeam(2), AlongSeam(4)
_HIDES = 1 / 64
"""Inches that a fold hides of a gap when it is pressed over it."""


def offers(work: Work) -> Iterator[Remedy]:
    """What mends seams: all of them, one, or the way they were pressed."""
    named = [p for p in (work.verdict.leading, work.verdict.beside) if p is not None]
    for p in named:
        if p.cause in (Cause.SEAM, Cause.FOLD):
            if not work.unjoined:
                yield from _all_seams(work)
        elif p.cause in (Cause.START, Cause.END):
            yield from _all_ends(work, p)
        elif p.cause is Cause.SOME_SEAMS:
            yield _some_seams(work, p)
        elif p.cause is Cause.ONE_SEAM:
            yield _one_seam(work, p)
    if work.unjoined:
        return
    tips = [f for f in work.faults if f.feature.kind is FeatureKind.EDGE_TIP]
    yield from _floating(work, [f for f in tips if f.size > 0])
    yield from _cut_off(work, [f for f in tips if f.size < 0])
    yield from _corners(work, [f for f in work.faults if f.feature.kind is FeatureKind.CORNER_TIP])
    yield from _crossings(work, [f for f in work.faults if f.feature.kind is FeatureKind.CROSSING])


def _anew(work: Work, seams: Sequence[int], spots: Sequence[str] = ()) -> Change:
    """These seams sewn anew so that each fabric loses just the allowance; only at some spots where they are named."""
    change = Change.none(work.model)
    if not spots:
        return change.sewn_anew(work.model, seams, float(work.model.allowance) - work.fold() / 2)
    renewed = change.renewed.copy()
    renewed[[work.model.of_seam(n, spot) for n in seams for spot in spots]] = True
    return replace(change, renewed=renewed)


def _all_seams(work: Work) -> Iterator[Remedy]:
    spared = work.verdict.spared
    seams = [n for n in range(len(work.model.places.seams)) if spared is None or n not in spared.seams]
    if seams:
        called = "all joining seams" if spared is None else f"all joining seams but those {spared.where}"
        again = _sewn_again(work, "all_seams", called, seams)
        effect = Message("Every row and column comes to its length, and tips meet their seams.")
        yield replace(again, effect=effect, spread=True)


def _some_seams(work: Work, p: Parameter) -> Remedy:
    group = work.model.places.seam_groups[p.place]
    own = tuple(f.number for f in work.faults if f.feature.seam in group.seams)
    again = _sewn_again(work, f"some_seams-{p.place}", group.name, group.seams)
    return replace(again, faults=own or again.faults)


def _sewn_again(work: Work, code: str, called: str, seams: Sequence[int]) -> Remedy:
    """These seams, unpicked first where they lie too deep on the whole; the others stay."""
    count, to = len(seams), GuideSetting(work.stitch_for())
    lost = float(np.mean([work.stitching_distance(n) for n in seams])) - float(work.model.allowance) + work.fold() / 2
    deeper = lost < 0
    return Remedy(
        code,
        Message("Sew {seams} again at {to}", seams=called, to=to),
        Message(
            "{count, plural, one {The one seam} other {Each of the # seams}}: stitch at {to}, just inside the old line. Nothing is unpicked."
            if deeper
            else "Unpick {count, plural, one {the seam} other {each of the # seams}}, press flat, and sew it at {to}.",
            count=count,
            to=to,
        ),
        Message("What they join comes to its length again."),
        Message("small" if deeper else "every seam is handled again: bias edges may stretch"),
        count * (RemedyMinutes.SEW + (0 if deeper else RemedyMinutes.UNPICK)),
        _anew(work, seams),
        faults=tuple(f.number for f in work.faults),
        cures=True,
    )


def _all_ends(work: Work, p: Parameter) -> Iterator[Remedy]:
    spot, count = p.cause.value, len(work.model.places.seams)
    deep = float(work.found.mean[work.found.parameters.index(p)]) > 0
    yield Remedy(
        f"ends-{spot}",
        Message(
            "Sew the first {two} of each seam again at {to}"
            if spot == "start"
            else "Sew the last {two} of each seam again at {to}",
            two=_TWO,
            to=GuideSetting(work.stitch_for()),
        ),
        Message(
            (
                "Unpick {two} at the {spot} of each seam, press flat, and sew that at {to}."
                if deep
                else "Sew over the {two} at the {spot} of each seam, at {to}. Nothing is unpicked."
            ),
            two=_TWO,
            spot=spot,
            to=GuideSetting(work.stitch_for()),
        ),
        Message("That end of every row comes to its length."),
        Message("bias edges may stretch" if deep else "small"),
        count * (RemedyMinutes.SEW + (RemedyMinutes.UNPICK if deep else 0)),
        _anew(work, range(count), (spot,)),
        faults=tuple(f.number for f in work.faults),
        cures=True,
        spread=True,
    )


def _one_seam(work: Work, p: Parameter) -> Remedy:
    seam = work.model.places.seams[p.place]
    name, end = seam.name, seam.spot_said(p.spot)
    size = work.found.estimate(p).size
    deep, whole = size > 0, p.spot == "whole"
    stretch = Message("all of it") if whole else Message("the {two} at its {end}", two=_TWO, end=end)
    return Remedy(
        f"one_seam-{p.place}",
        Message(
            ("Unpick {name} and sew it at {to}" if whole else "Unpick {two} at the {end} of {name} and sew it at {to}")
            if deep
            else (
                "Sew {name} again at {to}, all of it" if whole else "Sew {name} again at {to}, the {two} at its {end}"
            ),
            name=name,
            two=_TWO,
            end=end,
            to=GuideSetting(work.stitch_for()),
        ),
        Message(
            "Unpick {stretch}, press flat, and sew it again at {to}, easing in over {one}."
            if deep
            else "Sew over {stretch} at {to}, easing in over {one}. Nothing is unpicked.",
            stretch=stretch,
            one=_ONE,
            to=GuideSetting(work.stitch_for()),
        ),
        Message(
            "What crosses it there gains {twice}." if deep else "What crosses it there loses {twice}.",
            twice=Roughly(2 * size),
        ),
        Message("bias edges may stretch" if deep else "small"),
        RemedyMinutes.SEW + (RemedyMinutes.UNPICK if deep else 0),
        _anew(work, [p.place], () if whole else (p.spot,)),
        faults=tuple(f.number for f in work.faults if f.feature.seam == p.place)
        or tuple(f.number for f in work.faults),
        cures=True,
    )


def _spot(work: Work, seam: int, at: tuple[float, float]) -> str:
    t = work.model.places.seams[seam].along(at)
    return "start" if t < 0.25 else "end" if t > 0.75 else "middle"


def _change_at_seams(work: Work, faults: Sequence[Fault]) -> Change:
    """Each fault's seam moved at its spot by the fault's size, and there only."""
    change = Change.none(work.model)
    by = change.by.copy()
    for f in faults:
        at = work.model.of_seam(f.feature.seam, _spot(work, f.feature.seam, f.feature.at))
        by[at] = f.size if by[at] == 0 else (by[at] + f.size) / 2
    return replace(change, by=by, on_one_spot=True)


def _where(work: Work, faults: Sequence[Fault]) -> Message:
    cells = work.model.places.cells
    # A unit of several tips is gone to once, and unit after unit as they lie.
    names = [cells[n].name for n in sorted({f.feature.cell for f in faults})]
    return Message(
        "{names} and {more} more" if len(names) > 4 else "{names}", names=Listing(names[:4], "; "), more=len(names) - 4
    )


def _floating(work: Work, faults: list[Fault]) -> Iterator[Remedy]:
    if not faults:
        return
    can = [f for f in faults if f.size <= EASED + ABOUT]
    largest = max(f.size for f in faults)
    numbers = tuple(f.number for f in faults)
    deep = float(
        np.mean(
            [
                work.stitching_distance(f.feature.seam, _spot(work, f.feature.seam, f.feature.at)) + f.size
                for f in (can or faults)
            ]
        )
    )
    yield Remedy(
        "deeper_at_tips",
        Message("Sew again at the tips, {deep} from the raw edge", deep=GuideSetting(deep)),
        Message(
            "At {where}: start {one} before the tip, ease in to {deep}, and out again over {one}. Nothing is unpicked.",
            one=_ONE,
            where=_where(work, can or faults),
            deep=GuideSetting(deep),
        ),
        Message("The row loses up to {twice} there.", twice=Roughly(2 * largest)),
        Message("small"),
        RemedyMinutes.SEW * len(can or faults),
        _change_at_seams(work, can) if can else None,
        why_not=None
        if can
        else Message("They float by more than {most}: that cannot be eased in on one spot.", most=Length.near(EASED)),
        faults=numbers,
    )
    hidden = [f for f in faults if f.size <= 2 * _HIDES + 1e-3]
    yield Remedy(
        "press_toward",
        Message("Press the seam toward the loose side"),
        Message(
            "At {where}: press toward the tip; the fold hides a thread of the gap.",
            where=_where(work, hidden or faults),
        ),
        Message("Nothing else moves."),
        Message("none; it hides no more than a thread"),
        RemedyMinutes.PRESS * len(hidden or faults),
        replace(_change_at_seams(work, hidden), by=np.minimum(_change_at_seams(work, hidden).by, _HIDES))
        if hidden
        else None,
        why_not=None if hidden else Message("The gap of {size} is more than a fold hides.", size=Roughly(largest)),
        faults=numbers,
    )


def _cut_off(work: Work, faults: list[Fault]) -> Iterator[Remedy]:
    if not faults:
        return
    new = [work.stitching_distance(f.feature.seam, _spot(work, f.feature.seam, f.feature.at)) + f.size for f in faults]
    can = [f for f, n in zip(faults, new, strict=True) if n >= float(NARROWEST_ALLOWANCE) - ABOUT]
    to = max(float(np.mean(new)), float(NARROWEST_ALLOWANCE)) if can else min(new)
    yield Remedy(
        "shallower_at_tips",
        Message("Unpick at the tips and sew {to} from the raw edge", to=GuideSetting(to)),
        Message(
            "At {where}: unpick {two}, {one} either side of the tip, press flat, and sew {to} from the raw edge there.",
            two=_TWO,
            one=_ONE,
            where=_where(work, can or faults),
            to=GuideSetting(to),
        ),
        Message("The row gains up to {twice} there.", twice=Roughly(2 * max(abs(f.size) for f in faults))),
        Message("the cloth is handled once more, and less allowance is left"),
        (RemedyMinutes.UNPICK + RemedyMinutes.SEW) * len(can or faults),
        _change_at_seams(work, can) if can else None,
        why_not=None
        if can
        else Message(
            "That would leave less than {least} of allowance: cloth frays out of the seam.", least=NARROWEST_ALLOWANCE
        ),
        faults=tuple(f.number for f in faults),
    )


def _corners(work: Work, faults: list[Fault]) -> Iterator[Remedy]:
    """Where a diagonal misses its corner: the seam that it runs past made deeper there."""
    if not faults:
        return
    model, change = work.model, Change.none(work.model)
    by, can = change.by.copy(), []
    for f in faults:
        cell = model.places.cells[f.feature.cell]
        down, across = f.feature.edge.split()
        seam = cell.seam(down if f.size > 0 else across)
        if seam is not None and abs(f.size) <= EASED + ABOUT:
            at = model.of_seam(seam, _spot(work, seam, f.feature.at))
            by[at] = max(by[at], abs(f.size))
            can.append(f)
    yield Remedy(
        "deeper_at_corners",
        Message("Sew deeper at the corners that diagonals miss"),
        Message(
            "At {where}: sew the seam that the diagonal stops short of again, by as much as it misses, easing in and out over {one}.",
            one=_ONE,
            where=_where(work, can or faults),
        ),
        Message(
            "It costs up to {twice} of length there, and moves the neighbour's corner too.",
            twice=Roughly(2 * max(abs(f.size) for f in faults)),
        ),
        Message("a neighbour's point may be cut"),
        RemedyMinutes.SEW * len(can or faults),
        replace(change, by=by, on_one_spot=True) if can else None,
        why_not=None
        if can
        else Message("They miss by more than {most}: that cannot be eased in on one spot.", most=Length.near(EASED)),
        faults=tuple(f.number for f in faults),
    )


def _crossings(work: Work, faults: list[Fault]) -> Iterator[Remedy]:
    """Pins ease in what they hold between them; a step beyond that and what is seen puckers."""
    if not faults:
        return
    can = [f for f in faults if abs(f.size) <= PINNED + ABOUT]
    places = [work.model.find(f.feature.key) for f in can]
    yield Remedy(
        "match",
        Message("Unpick at the crossings and pin them to match"),
        Message(
            "At {where}: unpick {half_more} either side of the crossing, pin through both seams, and ease in what is over.",
            half_more=AlongSeam(3),
            where=_where(work, can or faults),
        ),
        Message("The step goes; the longer side is held in."),
        Message("a pucker, if the cloth does not give"),
        (RemedyMinutes.UNPICK + RemedyMinutes.SEW) * len(can or faults),
        replace(Change.none(work.model), held=tuple(k for k in places if k is not None)) if can else None,
        why_not=None
        if can
        else Message(
            "A step of {size} is more than pins ease in; the units beside it come first.",
            size=Roughly(min(abs(f.size) for f in faults)),
        ),
        faults=tuple(f.number for f in can or faults),
    )
