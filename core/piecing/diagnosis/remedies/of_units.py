"""Remedies at the units: trimmed again, what they lack shared between seams, made again, cut again.

Source: docs/theory, section 14.10.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace
from math import sqrt

import numpy as np

from ...lengths import Length
from ...messages import Message
from ...planning.plan import plan as plan_unit
from ...planning.seam import NARROWEST_ALLOWANCE
from ...planning.unit_plan import pieces_said
from ...tolerances import ABOUT
from ..causes import Cause, Parameter
from ..equations import raw_sizes
from ..faults import EASED
from ..model import OF_UNIT, FeatureKind
from ..places import PlacedUnit, batch_name
from ..reading_kinds import RAW_SIZES, SIZES, ReadingKind
from ..said import off_a_side
from ..words import GuideSetting, Roughly
from .remedy import Change, Remedy, RemedyMinutes, Work

__all__ = ["of_cutting", "offers", "share_shortfall"]

_TRIMMED = 1 / 32
"""Inches: below this one unit that is off by itself is left, as pins ease it."""
_ROOM, _EVEN = 3 / 64, 1 / 128
"""Inches left to trim, across: enough to trim closely, about a thread on each side; and none."""


def offers(work: Work) -> Iterator[Remedy]:
    """What mends units: trimming again, cutting again, making one anew."""
    yield from _by_itself(work)
    for p in (work.verdict.leading, work.verdict.beside):
        if p is None:
            continue
        if p.cause in (Cause.TRIM, Cause.SHIFT, Cause.TIP, Cause.STRETCH):
            yield from _of_batch(work, p)
        elif p.cause is Cause.CUT:
            yield of_cutting(work, p, _size(work, p))
        elif p.cause is Cause.ONE_UNIT:
            yield from _one_unit(work, p)
        elif p.cause in (Cause.SEAM, Cause.FOLD) and work.unjoined:
            yield from (_raw_units(work, b.number) for b in work.model.places.batches if _read_raw(work, b.number))


def _by_itself(work: Work) -> Iterator[Remedy]:
    """One unit that was read twice and is off as no other is."""
    places = work.model.places
    for n, o in enumerate(work.found.lone):
        reading = work.found.readings[o.index]
        unit = places.unit(reading.unit) if reading.unit else None
        batch = next((b for b in places.batches if (b.number == unit.batch if unit else b.key == reading.batch)), None)
        if batch is None or abs(o.away) < _TRIMMED:
            continue
        if unit and reading.kind in (ReadingKind.MISS, ReadingKind.CLEARANCE):
            yield _off_its_lines(unit, n)
        if reading.kind not in SIZES:
            continue
        who, read, off = batch_name(places, batch.number), Length.near(reading.read), Roughly(o.away)
        width, height = (side + work.model.allowance * 2 for side in (batch.spec.width, batch.spec.height))
        if o.away > 0:
            yield Remedy(
                f"trim_one-{n}",
                Message("Trim the one that measures {read} again", read=read),
                Message(
                    "One of the {who} is {off} too large by itself. Trim it to {width} by {height}, before it is joined if it can be.",
                    who=who,
                    off=off,
                    width=width,
                    height=height,
                ),
                Message("It comes to the size of the others."),
                Message("none, while it is not joined"),
                RemedyMinutes.TRIM,
                cures=True,
                aside=True,
            )
        else:
            yield Remedy(
                f"make_one-{n}",
                Message("Make the one that measures {read} again", read=read),
                Message(
                    "One of the {who} is {off} too small by itself, and trimming adds nothing. Put another in its place, trimmed to "
                    "{width} by {height}.",
                    who=who,
                    off=off,
                    width=width,
                    height=height,
                ),
                Message("The row that it lies in comes to its length."),
                Message("cloth for one unit"),
                RemedyMinutes.UNIT,
                cures=True,
                aside=True,
            )


def _off_its_lines(unit: PlacedUnit, n: int) -> Remedy:
    """One unit whose corner or tip lies off, read twice; all others lie right."""
    return Remedy(
        f"make_one-{n}",
        Message("Make the unit in {name} again", name=unit.name),
        Message(
            "It was trimmed to size off its lines, and trimming again would make it small. Put another in its place."
        ),
        Message("Its points come out like those of the others."),
        Message("cloth for one unit"),
        RemedyMinutes.UNIT,
        cures=True,
        aside=True,
    )


def _size(work: Work, p: Parameter) -> float:
    return work.found.estimate(p).size


def _units_anew(work: Work, units: list[int]) -> Change:
    change = Change.none(work.model)
    renewed = change.renewed.copy()
    for n in units:
        first = work.model.of_unit(n, OF_UNIT[0])
        renewed[first : first + len(OF_UNIT)] = True
    beside = work.seams_beside(units) if work.joined else ()
    return replace(change, renewed=renewed).sewn_anew(work.model, beside)


def _of_batch(work: Work, p: Parameter) -> Iterator[Remedy]:
    batch = work.model.places.batches[p.batch]
    units = work.units_of(p.batch)
    yield from _trim_again(work, p, units)
    if p.cause is Cause.TRIM and _size(work, p) < 0:
        yield share_shortfall(work, p.batch, _size(work, p), work.seams_beside(units))
    plan = work.plans.get(p.batch)
    again = plan_unit(replace(plan.choices, count=batch.count, mirrored=0)) if plan else None
    yield Remedy(
        f"make_again-{p.batch}",
        Message(
            "Cut the {who} of this block again" if batch.plain else "Make the {who} of this block again",
            who=batch_name(work.model.places, p.batch),
        ),
        Message(
            "{unpick} Cut {count, plural, one {a new one} other {# new ones}}, {width} by {height}.{stays}"
            if batch.plain
            else "{unpick} Make {count, plural, one {a new one, and trim it} other {# new ones, and trim them}} to {width} by {height}, seam on "
            "the ruler's line.{stays}",
            unpick=work.unpicked_first(batch.count),
            stays=Message(" One that is right stays.") if batch.count > 1 else "",
            count=batch.count,
            width=batch.spec.width + work.model.allowance * 2,
            height=batch.spec.height + work.model.allowance * 2,
        ),
        Message(
            "Their points come right, those at the block's own edge too: they show once it is joined to others."
            if work.shows_later
            else "Only these units and their seams are touched."
        ),
        Message("cloth and time; the old ones stay as spares for a smaller size"),
        batch.count * (RemedyMinutes.CUT if batch.plain else RemedyMinutes.UNIT) + work.minutes_to_handle(units),
        _units_anew(work, units),
        pieces=pieces_said(again.pieces) if again else None,
        batch=p.batch,
        faults=tuple(f.number for f in work.faults),
        cures=True,
        spread=True,
    )


def _trim_again(work: Work, p: Parameter, units: list[int]) -> Iterator[Remedy]:
    """While there is cloth: too large in size, or off its lines with room all round. Slipped by o square to a diagonal, a true box inside
    the trimmed one is r2 o smaller; slipped along a side, 2 o."""
    size, name, batch = _size(work, p), batch_name(work.model.places, p.batch), work.model.places.batches[p.batch]
    aside = p.cause is Cause.SHIFT and off_a_side(work.model, p)
    smaller = abs(size) * (2 if aside else sqrt(2) if p.cause is Cause.SHIFT else 1)
    trim = (
        work.found.estimate(Parameter(Cause.TRIM, p.batch))
        if Parameter(Cause.TRIM, p.batch) in work.found.parameters
        else None
    )
    spare = trim.size if trim is not None and trim.measured else 0.0
    why_not: Message | None = None
    if p.cause is Cause.TRIM and size < 0:
        why_not = Message("They are too small: trimming adds nothing.")
    elif p.cause is Cause.TIP and size < 0:
        why_not = Message("The tip stands too near the edge: trimming only brings the edge nearer.")
    elif p.cause is Cause.TIP:
        # From one side above a tip, from all four round several of them.
        smaller = abs(size) * (2 if batch.several_tips else 1)
    if why_not is None and p.cause is not Cause.TRIM and spare < smaller - EASED / 2:
        why_not = Message("{size} would have to come off, and they are trimmed to size already.", size=Roughly(smaller))
    change = _units_anew(work, units)
    yield Remedy(
        f"trim_again-{p.batch}",
        Message("Trim the {who} again", who=name),
        Message(
            "{unpick} Take {size} off, across and up and down."
            if batch.plain
            else "{unpick} Lay the ruler's lines on the seams, and take {size} off: half on each side."
            if p.cause is Cause.TRIM or (p.cause is Cause.TIP and batch.several_tips)
            else "{unpick} Lay the ruler's lines on both seams, and take {size} off the fuller side."
            if aside
            else "{unpick} Lay the ruler's line on the seam, and take {size} off the fuller side.",
            unpick=work.unpicked_first(len(units)),
            size=Roughly(smaller),
        ),
        Message("Their rows come to their length." if p.cause is Cause.TRIM else "Diagonals meet their corners again."),
        Message("bias edges stretch while they are unpicked" if work.joined else "none, while they are not joined"),
        len(units) * RemedyMinutes.TRIM + work.minutes_to_handle(units),
        change if why_not is None else None,
        why_not=why_not,
        faults=tuple(f.number for f in work.faults),
        cures=True,
        spread=True,
    )


def share_shortfall(work: Work, batch: int, size: float, beside: Sequence[int]) -> Remedy:
    """Units a little short: what is missing shared between these seams beside them, made shallower."""
    model = work.model
    less = np.zeros(model.errors)
    for k in beside:
        less[model.of_seam(k, "mean")] = -1.0
    lengths = [k for k, f in enumerate(model.features) if f.kind in (FeatureKind.ROW, FeatureKind.COLUMN)]
    gained = float(np.mean((model.matrix @ less)[lengths])) if lengths else 0.0
    missing = float(np.mean(work.deviations[lengths])) if lengths else 0.0
    change = max(0.0, -missing) / gained if gained > 1e-9 else 0.0
    now = float(np.mean([work.stitching_distance(k) for k in beside])) if beside else 0.0
    why_not = None
    if abs(size) > EASED + ABOUT:
        why_not = Message(
            "They are short by {off}; more than {most} is made again.", off=Roughly(size), most=Length.near(EASED)
        )
    elif not beside or gained <= 1e-9:
        why_not = Message("No seam lies beside them yet: sew that one shallower when they are joined.")
    elif now - change < float(NARROWEST_ALLOWANCE) - 1e-9:
        why_not = Message(
            "That would leave less than {least} of allowance: cloth frays out of the seam.", least=NARROWEST_ALLOWANCE
        )
    return Remedy(
        f"share-{batch}",
        Message("Share what the {who} are short between the seams beside them", who=batch_name(model.places, batch)),
        Message(
            "Unpick {seams, plural, one {this seam and sew it} other {these # seams and sew each}} at {new}."
            if work.joined
            else "Sew {seams, plural, one {this seam} other {each of these # seams}} at {new}; unpick first what is joined.",
            seams=len(beside),
            new=GuideSetting(now - change),
        )
        if beside
        else Message("Nothing that they are short of lies in a seam of this block."),
        Message(
            "Rows and columns come to their length; tips at these seams float {change} more.", change=Roughly(change)
        ),
        Message("bias edges stretch while seams are unpicked" if work.joined else "small"),
        len(beside) * (RemedyMinutes.SEW + RemedyMinutes.UNPICK) if work.joined else 0,
        None if why_not else Change.none(model).sewn_anew(model, beside, now - change),
        why_not=why_not,
        faults=tuple(f.number for f in work.faults),
        spread=True,
    )


def _room(work: Work, p: Parameter, off: float) -> float:
    """What is left to trim, inches, across or up, whichever is less, of pieces cut ``off`` from the plan and sewn as these seams are;
    nothing where no plan says how they are made."""
    plan = work.plans.get(p.batch)
    if plan is None:
        return 0.0
    raw, deep = raw_sizes(plan), float(work.found.mean[0])
    across = raw.width + raw.width_gain * off - raw.width_loss * deep - float(plan.target_width)
    up = raw.height + raw.height_gain * off - raw.height_loss * deep - float(plan.target_height)
    return min(across, up)


def _read_raw(work: Work, batch: int) -> bool:
    places = work.model.places
    for n in work.found.weighed:
        r = work.found.readings[n]
        unit = places.unit(r.unit) if r.unit else None
        if r.kind in RAW_SIZES and (unit.batch == batch if unit else r.batch == places.batches[batch].key):
            return True
    return False


def _raw_units(work: Work, batch: int) -> Remedy:
    """What to do with units whose own seams took another allowance than planned: nothing is joined yet."""
    name, count = batch_name(work.model.places, batch), work.model.places.batches[batch].count
    room, to = _room(work, Parameter(Cause.CUT, batch), 0.0), GuideSetting(work.stitch_for())
    if room >= _ROOM:
        return Remedy(
            f"trim_closely-{batch}",
            Message("Go on with the {who}, and trim them to size", who=name),
            Message(
                "Of those that are sewn {room} is left to trim, half of it on each side. Lay the ruler's line on the seam first.",
                room=Roughly(room),
            ),
            Message("Units come to their size."),
            Message("a unit that was sewn askew may not reach"),
            count * RemedyMinutes.TRIM,
            batch=batch,
            spread=True,
        )
    plan = work.plans.get(batch)
    again = plan_unit(replace(plan.choices, count=count, mirrored=0)) if plan else None
    return Remedy(
        f"make_again-{batch}",
        Message("Make the {who} again, and keep these for a smaller block", who=name),
        Message(
            "Their own seams took too much, and leave nothing to trim. Sew one more at {to} and measure it before the others."
            if room < _EVEN
            else "Their own seams took too much, and leave a thread to trim at most. Sew one more at {to} and measure it before the others.",
            to=to,
        ),
        Message("They come to their size, with room to trim on all sides."),
        Message("cloth and time"),
        count * RemedyMinutes.UNIT,
        pieces=pieces_said(again.pieces) if again else None,
        batch=batch,
        cures=True,
        spread=True,
    )


def of_cutting(work: Work, p: Parameter, size: float) -> Remedy:
    """What to do with pieces cut ``size`` inches from the plan, be it a little or a wrong mark."""
    return replace(_of_pieces(work, p, size), batch=p.batch, cures=True, spread=True)


def _of_pieces(work: Work, p: Parameter, size: float) -> Remedy:
    batch = work.model.places.batches[p.batch]
    plan, name = work.plans.get(p.batch), batch_name(work.model.places, p.batch)
    again = plan_unit(replace(plan.choices, count=batch.count, mirrored=0)) if plan else None
    if size > 0:
        return Remedy(
            f"cut_again-{p.batch}",
            Message("Trim a little more off"),
            Message("They were cut {size} large: there is more to trim, nothing else.", size=Roughly(size)),
            Message("Units come out with room to trim on all sides."),
            Message("none"),
            batch.count * RemedyMinutes.TRIM,
        )
    room = _room(work, p, size)
    if room >= _ROOM:
        return Remedy(
            f"trim_closely-{p.batch}",
            Message("Go on with the {who}, and trim them closely", who=name),
            Message(
                "They were cut {size} small, and {room} is left to trim, half of it on each side. Lay the ruler's line on the seam first; "
                "cut again only for a unit that does not reach.",
                size=Roughly(size),
                room=Roughly(room),
            ),
            Message("Units come to their size, with less to trim."),
            Message("a unit that was sewn askew may not reach"),
            batch.count * RemedyMinutes.TRIM,
        )
    return Remedy(
        f"cut_again-{p.batch}",
        Message("Cut the pieces for the {who} again", who=name),
        Message(
            "They were cut {size} small, and leave no room to trim. Cut again, and lay these by for a smaller size."
            if room < _EVEN
            else "They were cut {size} small, and leave a thread to trim at most. Cut again, and lay these by for a smaller size.",
            size=Roughly(size),
        ),
        Message("Units come out with room to trim on all sides."),
        Message("cloth"),
        batch.count * RemedyMinutes.CUT,
        pieces=pieces_said(again.pieces) if again else None,
    )


def _one_unit(work: Work, p: Parameter) -> Iterator[Remedy]:
    unit = work.model.places.cells[p.place]
    size = _size(work, p)
    large = p.spot in ("size", "width", "height") and size > 0
    yield Remedy(
        f"one_unit-{p.place}",
        Message("Trim the unit in {name} again" if large else "Make the unit in {name} again", name=unit.name),
        Message(
            "{unpick} Take {size} off." if large else "{unpick} Make one more, and trim it true.",
            unpick=work.unpicked_first(1),
            size=Roughly(size),
        ),
        Message("Its row and column come to their length."),
        Message("its neighbours' seams are sewn once more"),
        (RemedyMinutes.TRIM if large else RemedyMinutes.UNIT) + work.minutes_to_handle([p.place]),
        _units_anew(work, [p.place]),
        faults=tuple(f.number for f in work.faults if f.feature.cell == p.place)
        or tuple(f.number for f in work.faults),
        cures=True,
    )
