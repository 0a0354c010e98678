"""What an expert would say first: the cause that leads, that all is true, that hands vary, or that it is open.

Source: docs/theory, section 14.8.
"""

from __future__ import annotations

from collections.abc import Collection, Iterator
from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from ..messages import Listing, Message, MidSentence
from .bearing import OFF_ITS_MARK, STRAY, doubted_readings, is_denied, is_looked_at, read_alike, stray_reading
from .causes import Cause, Parameter
from .estimates import Estimate
from .groups import CauseGroup, cause_groups
from .inference import Inference
from .mistakes import BELIEVED
from .model import BlockModel
from .naming import (
    VARIES,
    Telling,
    chance_looked_at,
    chance_unmeasured,
    enough,
    is_left_over,
    look_alike,
    may_be_lesser,
    readings_judged,
    seams_take,
    stands_alone,
    sure_of,
    taken_for_sure,
)
from .places import SeamGroup
from .reading_kinds import SIZES, ReadingKind
from .said import cause_said, evidence_said, reading_off, seams_off_said, seams_take_said
from .seen import HEADLINES
from .truth import ends_unread, is_fold_open, looked_at_said, true_so_far
from .unsettled import lesser_said, open_said
from .words import Roughly, sure_in_words

__all__ = ["Lead", "Status", "Verdict", "judge"]

_BESIDE = 0.85
"""Probability of being large from which a second cause is named with the first."""
_BOTH = 0.7
"""Chance of being large from which two are named together that leave hardly a third to lead."""
_TELL_TWO = 5
"""Readings from which two are told together: two or three that lie off are as easily one cause and chance."""
_NOTHING_OFF = 0.6
"""The chance that nothing leads beside a hand that varies, from which that is all that is said."""
_BESIDE_IT = 0.92
"""The chance that nothing leads of what was looked at, from which that is said where few readings lie far off: a hand that varies hides a 1/32 of
something else (bench sewers: of 120 quilters with a 1/32 and twice the scatter five were told that nothing is off, now one)."""
_RIGHT = 1 / 48
"""Inches: seams off by less are right."""
_AGAIN = 0.5
"""Chance that nothing leads that was looked at from which a reading that nothing bears out is read again."""
_FAR_OFF = 1 / 20
"""Inches: what is off by a sixteenth."""
_MANY = 4
"""Readings of one kind that show how a hand varies."""
_BY_HAND = (ReadingKind.STITCH, *SIZES)
"""What one act of the hand leaves, sewing or trimming."""
_LEAST_REACH = 1 / 16
_UNSETTLED = Message("These readings do not settle it")


class Status(StrEnum):
    NO_READINGS = "no_readings"
    TRUE = "true"
    SETTLED = "settled"
    SEVERAL = "several"
    VARIES = "varies"
    MISTAKE = "mistake"
    DOUBTED = "doubted"
    UNSETTLED = "unsettled"


@dataclass(frozen=True, slots=True)
class Lead:
    """A cause with what the readings alone make of it (inches beyond what is wanted), and how likely it leads."""

    parameter: Parameter
    mean: float
    low: float
    high: float
    measured: bool
    leads: float
    said: Message


@dataclass(frozen=True)
class Verdict:
    """``said`` is the headline, ``why`` one sentence of evidence; ``sure`` the probability behind "certain", "likely", "open".
    ``spared`` are seams that are right while all others are off; ``again`` numbers the reading that is to be read again before anything
    is concluded, ``wanted`` are those that its sentence sends one to take."""

    status: Status
    said: Message
    why: Message
    sure: float
    leads: tuple[Lead, ...]
    leading: Parameter | None = None
    beside: Parameter | None = None
    code: str = ""
    spared: SeamGroup | None = None
    again: int | None = None
    wanted: Telling | None = None

    @property
    def sure_words(self) -> str:
        """How sure, in a word: certain, likely or open."""
        named = self.status not in (Status.UNSETTLED, Status.NO_READINGS, Status.DOUBTED)
        return sure_in_words(max(self.sure, 0.75)) if named else "open"

    @property
    def reach(self) -> float:
        """Inches either side of zero that hold every measured interval: half the width of a picture of them."""
        ends = [abs(x) for lead in self.leads if lead.measured for x in (lead.low, lead.high)]
        return 1.05 * max([_LEAST_REACH, *ends])


def judge(found: Inference) -> Verdict:
    """The headline, by what the readings leave possible."""
    leads = tuple(_leads(found))
    none = found.chance(-1)
    if not found.readings:
        return Verdict(
            Status.NO_READINGS,
            Message("Nothing is measured yet"),
            Message("Start with what is asked for first."),
            0.0,
            leads,
        )
    seen = [s for s in found.seen if s.code in HEADLINES]
    if sum(s.probability for s in seen) >= BELIEVED:
        first = seen[0]
        said = (
            first.said
            if len(seen) == 1
            else Message(
                "{one}, or {other}",
                one=first.said,
                other=MidSentence(seen[1].said),
            )
        )
        why = (
            first.why
            if len(seen) == 1
            else Message("The picture is wrong. Whether it comes right when a unit is turned tells which.")
        )
        return Verdict(Status.MISTAKE, said, why, sum(s.probability for s in seen), leads, code=first.code)
    if found.mistake is not None:
        mistake, said, sure = found.mistake
        return Verdict(Status.MISTAKE, said, mistake.why, sure, leads, code=mistake.code)
    if not found.measured and found.seen and found.seen[0].noticed:
        first = found.seen[0]
        return Verdict(Status.MISTAKE, first.said, first.why, first.probability, leads, code=first.code)
    doubted = doubted_readings(found)
    if doubted:
        return Verdict(
            Status.DOUBTED,
            Message("These readings contradict each other: read them again before anything is concluded"),
            Message(
                "{count} of {all} cannot be true together with the rest.", count=len(doubted), all=len(found.weighed)
            ),
            none,
            leads,
        )
    return _by_chances(found, leads, none)


@dataclass(frozen=True)
class _Weighed:
    """What the readings leave possible, weighed: the causes in groups, the first and second of them, and whether the first is
    ``named``, alone or ``with_it`` the second, or ``both`` together; ``lesser`` where it would be named if more could not lie where nobody
    looked."""

    found: Inference
    leads: tuple[Lead, ...]
    none: float
    groups: list[CauseGroup]
    first: CauseGroup
    second: CauseGroup
    named: bool
    with_it: bool
    both: bool
    lesser: bool


def _weigh(found: Inference, leads: tuple[Lead, ...], none: float) -> _Weighed:
    groups = cause_groups(found)
    first = groups[0]
    second = max(groups[1:], key=lambda g: (g.large, g.chance))
    # What was not looked at may be anything; the lead is among what was.
    unlooked = chance_unmeasured(found, first.numbers)
    chance = first.chance / max(1 - unlooked, 1e-9)
    # A single seam or unit may be sure to be off while by how much is open.
    sized = first.best.measured or first.best.parameter.single
    likely = chance >= enough(found, unlooked) or stands_alone(found, first.best, first.chance, first.numbers)
    named = likely and not look_alike(found, first.best) and first.sided and sized
    named = named and is_looked_at(found, first.best.parameter) and not is_denied(found, first.best)
    lesser = named and may_be_lesser(found, first)
    with_it = second.large >= _BESIDE and second.sided and second.best.measured
    with_it = with_it and not is_denied(found, second.best)
    both = first.large >= _BOTH <= second.large and all(
        g.sided
        and g.best.measured
        and not is_denied(found, g.best)
        and (g.best.parameter.cause is not Cause.FOLD or is_left_over(found))
        for g in (first, second)
    )
    both = both and first.chance + second.chance >= _BESIDE and readings_judged(found) >= _TELL_TWO
    return _Weighed(found, leads, none, groups, first, second, named and not lesser, with_it, both, lesser)


def _by_chances(found: Inference, leads: tuple[Lead, ...], none: float) -> Verdict:
    if not found.measured:
        return Verdict(
            Status.UNSETTLED,
            Message("Nothing is measured yet"),
            Message("What was seen alone does not tell sizes."),
            none,
            leads,
        )
    w = _weigh(found, leads, none)
    if _varies(found, none):
        return Verdict(
            Status.VARIES,
            Message("Nothing is off on the whole: the hand varies"),
            Message(
                "The readings lie on both sides of what they should be, by up to {most}.", most=Roughly(_widest(found))
            ),
            found.unsteady,
            leads,
        )
    if not w.named and not w.lesser and not w.both and (taken := seams_take(found)) is not None:
        return Verdict(
            Status.SETTLED,
            seams_take_said(float(np.median(found.lost))),
            evidence_said(found, taken),
            sure_of(found, taken.parameter, taken_for_sure(found)),
            leads,
            taken.parameter,
        )
    if w.named:
        return _one_cause(w)
    if w.both:
        return _two_together(w)
    if not true_so_far(found):
        return _open(w)
    unread = ends_unread(found)
    if unread:
        return _no_seam_read(w, unread)
    return _but_the_fold(w) if is_fold_open(found) else _true(w)


def _one_cause(w: _Weighed) -> Verdict:
    best, leading = w.first.best, w.first.best.parameter
    spared = _spared_group(w.found.model, best, w.second.best) if w.with_it else None
    return Verdict(
        Status.SETTLED,
        cause_said(w.found.model, leading, best.size)
        if spared is None
        else seams_off_said(f"all seams but those {spared.where}", best.size),
        evidence_said(w.found, best),
        sure_of(w.found, leading, w.first.chance),
        w.leads,
        leading,
        w.second.best.parameter if w.with_it and spared is None else None,
        spared=spared,
    )


def _two_together(w: _Weighed) -> Verdict:
    one, other = (cause_said(w.found.model, g.best.parameter, g.best.size) for g in (w.first, w.second))
    return Verdict(
        Status.SEVERAL,
        Message("Two things together: {one}; and {other}", one=one, other=other),
        evidence_said(w.found, w.first.best),
        min(w.first.large, w.second.large),
        w.leads,
        w.first.best.parameter,
        w.second.best.parameter,
    )


def _true(w: _Weighed) -> Verdict:
    alone = sorted((o for o in w.found.lone if abs(o.away) >= STRAY), key=lambda o: -abs(o.away))
    said, why = Message("All is true, as far as it was measured"), looked_at_said(w.found)
    if alone:
        said = Message(
            "All but one is true: {reading}" if len(alone) == 1 else "All but {count} are true; most off is {reading}",
            count=len(alone),
            reading=reading_off(w.found, alone[0].index),
        )
        why = alone[0].said
    return Verdict(Status.TRUE, said, why, w.none, w.leads)


def _no_seam_read(w: _Weighed, spots: tuple[str, ...]) -> Verdict:
    """True so far, but for seams that may drift: nobody looked at their ``spots``."""
    return Verdict(
        Status.UNSETTLED,
        Message("All is true so far, and no seam was looked at"),
        Message(
            "A seam that runs off its line shows at its {spots} only: read one there, from the raw edge to the stitching.",
            spots=Listing(spots, last=" and "),
        ),
        w.none,
        w.leads,
        wanted=Telling((ReadingKind.STITCH,), spots),
    )


def _but_the_fold(w: _Weighed) -> Verdict:
    """True so far, but for the fold, which what was read leaves room for."""
    return Verdict(
        Status.UNSETTLED,
        Message("All is true so far, but for the fold"),
        Message(
            "It is what stitching and lengths leave over between them, and may take a thread more of each fabric than is allowed for."
        ),
        w.none,
        w.leads,
    )


def _open(w: _Weighed) -> Verdict:
    found = w.found
    if w.lesser:
        return Verdict(Status.UNSETTLED, _UNSETTLED, lesser_said(found, w.first), w.first.chance, w.leads)
    # What nothing was read of is no reason for what was.
    free = w.none + sum(e.leads for e in found.estimates if not e.looked_at)
    far = stray_reading(found) if free >= _AGAIN else None
    left_open = open_said(found, w.groups, w.none, far)
    return Verdict(
        Status.UNSETTLED,
        _UNSETTLED,
        left_open.said,
        max(w.first.chance, w.none),
        w.leads,
        again=far if far is not None and not read_alike(found, far) else None,
        wanted=left_open.wanted,
    )


def _spared_group(model: BlockModel, one: Estimate, other: Estimate) -> SeamGroup | None:
    """The group of seams that strays back by as much as all of them stray: these are right, and are not sewn again."""
    if one.parameter.cause is not Cause.SEAM or other.parameter.cause is not Cause.SOME_SEAMS:
        return None
    return model.places.seam_groups[other.parameter.place] if abs(one.size + other.size) < _RIGHT else None


def _varies(found: Inference, none: float) -> bool:
    # Where as much is seen on both sides, what nobody measured is no reason to leave it open.
    many = _on_both_sides(found, _FAR_OFF, _BY_HAND, _MANY)
    right = found.nearly_none if many else none
    alone = right >= _NOTHING_OFF and (many or found.nearly_none >= _BESIDE_IT * chance_looked_at(found))
    return found.unsteady >= VARIES and alone and _on_both_sides(found, OFF_ITS_MARK)


def _on_both_sides(
    found: Inference, by: float, kinds: Collection[ReadingKind] = tuple(ReadingKind), least: int = 2
) -> bool:
    """Whether of at least so many readings of one of the kinds some lie over what they should be and some short of it, by so many
    inches: else it is no hand that varies."""
    off: dict[ReadingKind, list[float]] = {}
    for n in found.weighed:
        off.setdefault(found.readings[n].kind, []).append(float(found.off[n]))
    return any(len(of) >= least and min(of) < -by and max(of) > by for kind, of in off.items() if kind in kinds)


def _widest(found: Inference) -> float:
    off = (abs(float(found.off[n])) for n in found.weighed if found.readings[n].kind in _BY_HAND)
    return max(off, default=1 / 32)


def _leads(found: Inference) -> Iterator[Lead]:
    ordered = sorted(found.estimates, key=lambda e: (-e.leads, not e.measured, -abs(e.size)))
    for e in ordered:
        yield Lead(
            e.parameter, e.size, e.low, e.high, e.measured, e.leads, cause_said(found.model, e.parameter, e.size)
        )
