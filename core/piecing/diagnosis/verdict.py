"""What an expert would say first: the cause that leads, that all is true, that hands vary, or that it is open.

Source: docs/theory, section 14.8.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from ..messages import Listing, Message, MidSentence
from .causes import Cause, Parameter, effect_of, shape_of
from .faults import faults_of
from .inference import Estimate, Inference
from .mistakes import BELIEVED, HEADLINES
from .model import BlockModel, FeatureKind
from .names import feature_name, reading_said, seam_said
from .places import SeamGroup, batch_name
from .readings import ACROSS_SEAMS, Equation, ReadingKind
from .words import Roughly, sure_in_words

__all__ = ["Lead", "Share", "Status", "Verdict", "cause_said", "judge", "shares_of"]

_NAMED, _FEW, _SOON = 0.70, 0.20, 5.0
"""Chance to lead from which a cause is named: the first after many readings, so much more after three, falling off by so
many readings: what is right by its own reckoning on two or three readings rests on what was held likely before."""
_TWO = 0.985
_BLIND = 0.06
"""So much more while much that may lead was not looked at."""
_BESIDE = 0.85
"""Probability of being large from which a second cause is named with the first."""
_NO_CAUSE, _LEAST_TRUE, _SURE_TRUE = 0.91, 0.7, 0.88
_OF_RECORD = 3
"""Readings that her record of a seam counts for in a judgement (bench records: a third fewer on the block, and no more of them wrong)."""
_FIVE, _SIX = 5, 6
"""Of what was measured, and of everything: chances that nothing leads from which the block is called true."""
_VARIES = 0.8
_UNLOOKED = 0.2
_SPLIT = 0.12
_AS_DRIFT = 3 / 64
"""Inches: what is off by less may be seams that drift at one end, read where they do;
unless so many readings bear it out."""
_LOOKED_ALONG = 7
_SHOWN = {Cause.SEAM: 0.036, Cause.SHIFT: 0.038, Cause.TIP: 0.038, Cause.TRIM: 0.05}
"""Inches that an interval may reach for the block to be called true: a 1/32 would have shown. Sizes of units answer for each
other in rows and columns, so theirs may reach a little further."""
_PLAIN_SHOWN = 0.07
_RIGHT = 1 / 48
"""Inches: seams off by less are right."""
_FAR = 1 / 10
_OF_THE_PEN = 5 / 8
"""Inches off its mark: no piece and no seam is so far off by a hand or a ruler's border."""
_AGAIN = 0.5
"""Chance that nothing leads that was looked at from which a reading that nothing bears out is read again."""
_NAMED_OPEN, _MAY_BE = 0.12, 0.3
"""Chances from which a cause is named while it is open: surely on one side, or on either."""
_SEEN_ALONE = 0.5
"""From which what the eye found is said first, while nothing is measured."""
_PART = 0.3
"""Share of what a length is off by that a cause has to make to be named among what it may be."""
_ENOUGH_SEAMS, _DENIED = 3, 1 / 48
"""Seams that read alike and are believed to be off by so much less, inches: fewer may be slips."""
_OFF_ITS_MARK, _STRAY = 1 / 100, 1 / 16
"""Inches: what is off at all; and a length that is off by so much more than what is believed makes of it, which is read again."""
_TOLD = 1e-9
_LENGTHS = (ReadingKind.WIDTH, ReadingKind.HEIGHT, *ACROSS_SEAMS)
_AT_ONE_PLACE = (ReadingKind.TIP_GAP, ReadingKind.CORNER_GAP, ReadingKind.CROSSING)
"""Read where one or two seams and units meet."""
_LISTED = 0.045
_LEAST_REACH = 1 / 16


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


@dataclass(frozen=True, slots=True)
class Share:
    """What each cause adds to one figure of the block, in inches; ``parts`` by parameter, ``rest`` the units' own scatter."""

    feature: str
    name: Message
    whole: float
    low: float
    high: float
    parts: tuple[tuple[Parameter, float], ...]
    rest: float


@dataclass(frozen=True)
class Verdict:
    """``said`` is the headline, ``why`` one sentence of evidence; ``sure`` the probability behind "certain", "likely", "open".
    ``spared`` are seams that are right while all others are off; ``again`` numbers the reading that is to be read again before anything
    is concluded."""

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
_ONE_UNIT = {
    "slip": ("the unit in {name} lies {size} off its lines", "the unit in {name} lies {size} off its lines"),
    "tip": (
        "the unit in {name} has {size} too little above its tip",
        "the unit in {name} has {size} too much above its tip",
    ),
    "width": ("the unit in {name} is {size} too small across", "the unit in {name} is {size} too large across"),
    "height": (
        "the unit in {name} is {size} too small up and down",
        "the unit in {name} is {size} too large up and down",
    ),
    "size": ("the unit in {name} is {size} too small", "the unit in {name} is {size} too large"),
}
_SPOTS = {"start": " at its start", "end": " at its end", "middle": " in its middle", "whole": ""}


def cause_said(model: BlockModel, p: Parameter, size: float) -> Message:
    """A cause of this size, in inches with its sign, in words."""
    if p.cause is Cause.SOME_SEAMS:
        return _seams_off(model.places.seam_groups[p.place].name, size)
    if p.cause is Cause.ONE_SEAM:
        seam = model.places.seams[p.place]
        spot = _ends(p, seam.upright)
        return Message(
            "{seam} strays {way} by {size}{spot}",
            seam=seam_said(seam.name),
            way="deep" if size > 0 else "narrow",
            size=Roughly(size),
            spot=spot,
        )
    if p.cause is Cause.ONE_UNIT:
        name = model.places.cells[p.place].name
        spot = p.spot if p.spot in _ONE_UNIT else "size"
        return Message(_ONE_UNIT[spot][size > 0], name=name, size=Roughly(size))
    # Half of what a fold swallows is each fabric's.
    said = size / 2 if p.cause is Cause.FOLD else size
    who = batch_name(model.places, p.batch) if p.batch >= 0 else ""
    if p.cause is Cause.SHIFT and not model.places.batches[p.batch].corners:
        return Message("{who} trimmed {size} off to one side", size=Roughly(said), who=who)
    sized = model.places.batches[p.batch].sized if p.batch >= 0 else ""
    return Message(_WORDS[p.cause][size > 0], size=Roughly(said), who=who, sized=sized)


def _seams_off(seams: str, size: float) -> Message:
    return Message("{seams} are {size} {way}", seams=seams, size=Roughly(size), way="wide" if size > 0 else "narrow")


def _ends(p: Parameter, upright: bool) -> str:
    if p.spot in ("start", "end"):
        first = p.spot == "start"
        return f" at its {('upper' if first else 'lower') if upright else ('left' if first else 'right')} end"
    return _SPOTS[p.spot]


def judge(found: Inference) -> Verdict:
    """The headline, by what the readings leave possible."""
    leads = tuple(_leads(found))
    none = found.chance(-1)
    if not found.readings:
        return Verdict(
            Status.NO_READINGS,
            Message("Nothing is measured yet."),
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
    if not found.measured and found.seen and found.seen[0].probability >= _SEEN_ALONE:
        first = found.seen[0]
        return Verdict(Status.MISTAKE, first.said, first.why, first.probability, leads, code=first.code)
    doubted = _doubted(found)
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


def _doubted(found: Inference) -> list[int]:
    """Readings set aside, when all of their kind are, and there is more than one: nothing is left to go by."""
    stitched = _stitched_otherwise(found)
    if stitched or not found.odd:
        return stitched
    aside = {o.index for o in found.odd}
    families = (
        ACROSS_SEAMS,
        (ReadingKind.WIDTH, ReadingKind.HEIGHT),
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
    off = [found.readings[n].read - e.nominal for n in of if (e := found.equations[n]) is not None]
    one_way = min(off, default=0.0) > _AS_DRIFT or max(off, default=0.0) < -_AS_DRIFT
    left = all(abs(float(found.residuals[n])) > _DENIED for n in of)
    return of if len(of) >= _ENOUGH_SEAMS and one_way and left else []


def _against(found: Inference, kinds: tuple[ReadingKind, ...], aside: set[int]) -> bool:
    """Whether, of readings of these kinds that are not set aside, all lie far off though nothing is known to be the cause."""
    left = [n for n in found.weighed if found.readings[n].kind in kinds and n not in aside]
    far = [n for n in left if (e := found.equations[n]) is not None and abs(found.readings[n].read - e.nominal) > _FAR]
    return bool(left) and len(far) == len(left) and max(e.leads for e in found.estimates) < 0.6


@dataclass(frozen=True, slots=True)
class _Group:
    """Causes that say the same of the same place: how likely one of them leads, and which."""

    chance: float
    large: float
    best: Estimate


def _groups(found: Inference) -> list[_Group]:
    of: dict[tuple[Cause, int, int], list[int]] = {}
    for n, p in enumerate(found.parameters):
        of.setdefault((p.cause, p.batch, p.place), []).append(n)
    groups = []
    for numbers in of.values():
        chance = sum(found.chance(n) for n in numbers)
        best = _likeliest(found, [found.estimates[n] for n in numbers])
        groups.append(_Group(chance, max(found.estimates[n].large for n in numbers), best))
    return sorted(groups, key=lambda g: -g.chance)


def _likeliest(found: Inference, same: Sequence[Estimate]) -> Estimate:
    """Of what may be so of one place the likeliest; of a seam read at one spot only, that it is so all along, unless less likely."""
    best = max(same, key=lambda e: (e.leads, e.large))
    if best.parameter.cause is not Cause.ONE_SEAM:
        return best
    name = found.model.places.seams[best.parameter.place].name
    spots = {r.spot for n in found.weighed if (r := found.readings[n]).seam == name}
    whole = [e for e in same if e.parameter.spot == "whole" and len(spots) < 2 and e.leads > best.leads / 2]
    return whole[0] if whole else best


def _by_chances(found: Inference, leads: tuple[Lead, ...], none: float) -> Verdict:
    groups = _groups(found)
    first = groups[0]
    second = max(groups[1:], key=lambda g: (g.large, g.chance))
    model = found.model
    if not found.measured:
        return Verdict(
            Status.UNSETTLED,
            Message("Nothing is measured yet"),
            Message("What was seen alone does not tell sizes."),
            none,
            leads,
        )
    # What was not looked at may be anything; the lead is among what was.
    unlooked = sum(e.leads for e in found.estimates if not e.measured)
    chance = first.chance / max(1 - unlooked, 1e-9)
    enough = _enough(_looked(found)) + (0.0 if unlooked < _UNLOOKED else _BLIND)
    # A single seam or unit may be sure to be off while by how much is open.
    sized = first.best.measured or first.best.parameter.single
    named = chance >= enough and not _look_alike(found, first.best) and first.best.sure_of_side and sized
    named = named and _looked_there(found, first.best.parameter) and not _denied(found, first.best)
    with_it = second.large >= _BESIDE and second.best.sure_of_side and second.best.measured
    with_it = with_it and not _denied(found, second.best)
    both = with_it and first.large >= _BESIDE and first.best.sure_of_side and first.chance + second.chance >= _BESIDE
    both = both and not _denied(found, first.best)
    if _varies(found, none, first):
        return Verdict(
            Status.VARIES,
            Message("Nothing is off on the whole: the hand varies"),
            Message(
                "The readings lie on both sides of what they should be, by up to {most}.", most=Roughly(_widest(found))
            ),
            found.unsteady,
            leads,
        )
    if both and not named:
        one, other = (cause_said(model, g.best.parameter, g.best.size) for g in (first, second))
        return Verdict(
            Status.SEVERAL,
            Message("Two things together: {one}; and {other}", one=one, other=other),
            _evidence(found, first.best),
            min(first.large, second.large),
            leads,
            first.best.parameter,
            second.best.parameter,
        )
    if named:
        leading, size = first.best.parameter, first.best.size
        spared = _spared(model, first.best, second.best) if with_it else None
        return Verdict(
            Status.SETTLED,
            cause_said(model, leading, size)
            if spared is None
            else _seams_off(f"all seams but those {spared.where}", size),
            _evidence(found, first.best),
            chance,
            leads,
            leading,
            second.best.parameter if with_it and spared is None else None,
            spared=spared,
        )
    if _true(found, none):
        return Verdict(Status.TRUE, Message("All is true, as far as it was measured"), _looked_at(found), none, leads)
    # What nothing was read of is no reason for what was.
    free = none + sum(e.leads for e in found.estimates if not e.looked_at)
    far = _stray(found) if free >= _AGAIN else None
    return Verdict(
        Status.UNSETTLED,
        Message("These readings do not settle it"),
        _open(found, groups, none, far),
        max(first.chance, none),
        leads,
        again=far if far is not None and not _read_alike(found, far) else None,
    )


def _spared(model: BlockModel, one: Estimate, other: Estimate) -> SeamGroup | None:
    """The group of seams that strays back by as much as all of them stray: these are right, and are not sewn again."""
    if one.parameter.cause is not Cause.SEAM or other.parameter.cause is not Cause.SOME_SEAMS:
        return None
    return model.places.seam_groups[other.parameter.place] if abs(one.size + other.size) < _RIGHT else None


def _look_alike(found: Inference, e: Estimate) -> bool:
    """Whether what looks just the same has not been told apart yet: a seam a little off all along and one that drifts, by both
    its ends; seam and fold, by the back of the work against a strip test; a unit trimmed large and one that was stretched, by
    both diagonals."""
    p = e.parameter
    if p.cause is Cause.SEAM and abs(e.size) < _AS_DRIFT and _looked(found) < _LOOKED_ALONG:
        ends = [x.measured for x in found.estimates if x.parameter.cause in (Cause.START, Cause.END)]
        if not all(ends):
            return True
    if p.cause in (Cause.START, Cause.END):
        # Crossings miss as well where seams were not pinned to match.
        strongest = _strongest(found, e)
        at_its_end = any(found.readings[n].spot == p.cause.value for n in found.weighed)
        return not at_its_end and strongest is not None and found.readings[strongest].kind in _AT_ONE_PLACE
    if p.cause is Cause.FOLD:
        return found.chance(0) > _SPLIT
    if p.cause is Cause.TRIM and e.size > 0:
        stretched = [x for x in found.estimates if x.parameter.cause is Cause.STRETCH and x.parameter.batch == p.batch]
        return sum(x.leads for x in stretched) > _SPLIT / 2
    return False


def _says_why(found: Inference, e: Estimate) -> bool:
    """Whether a cause makes a fair part of what the length that speaks most for it is off by."""
    n = _strongest(found, e)
    if n is None or found.readings[n].kind not in ACROSS_SEAMS:
        return True
    equation = found.equations[n]
    assert equation is not None
    off = found.readings[n].read - equation.nominal
    return abs(off) < _STRAY or _by(found, e, n) * e.size / off >= _PART


def _denied(found: Inference, e: Estimate) -> bool:
    """Whether units, or seams, were read themselves, more than once, and are not as is said of them."""
    p = e.parameter
    kinds = _TELL_IT.get(p.cause)
    if kinds is None:
        return False
    column, aside = found.parameters.index(p), {o.index for o in found.odd}
    off = [
        found.readings[n].read - equation.nominal
        for n in found.weighed
        if n not in aside
        and found.readings[n].kind in kinds
        and (equation := found.equations[n]) is not None
        and abs(float(equation.of_causes[column])) > _TOLD
    ]
    return len(off) > 1 and float(np.mean(off)) * np.sign(e.size) < abs(e.size) / 3


_TELL_IT = {Cause.SEAM: (ReadingKind.STITCH,), Cause.TRIM: (ReadingKind.WIDTH, ReadingKind.HEIGHT)}
"""What is read of the very thing that a cause is said of."""


def _looked(found: Inference) -> int:
    """How many readings a judgement rests on: those of the block, and the quilter's record of her seam as some more, since it was
    measured too."""
    return len(found.weighed) + (_OF_RECORD if found.prior.recorded and found.weighed else 0)


def _enough(count: int) -> float:
    return _NAMED + _FEW * float(np.exp(-max(0, count - 3) / _SOON)) if count >= 3 else _TWO


def _varies(found: Inference, none: float, first: _Group) -> bool:
    single = first.best.parameter.single
    varied = found.unsteady >= _VARIES and (none >= 0.5 or (single and not first.large >= 0.97))
    return varied and _on_both_sides(found)


def _on_both_sides(found: Inference) -> bool:
    """Whether of readings of one kind some lie over what they should be and some short of it: else it is no hand that varies."""
    sides: dict[ReadingKind, set[bool]] = {}
    for n in found.weighed:
        e, r = found.equations[n], found.readings[n]
        if e is not None and abs(r.read - e.nominal) > _OFF_ITS_MARK:
            sides.setdefault(r.kind, set()).add(r.read > e.nominal)
    return any(len(s) == 2 for s in sides.values())


def _looked_there(found: Inference, p: Parameter) -> bool:
    """Whether a single seam or unit was itself measured: what a row is short by may be of any of its seams and units, and none is
    unpicked before it was looked at."""
    if not p.single or p.cause is Cause.SOME_SEAMS:
        return True
    places = found.model.places
    of_seam = p.cause is Cause.ONE_SEAM
    name = places.seams[p.place].name if of_seam else places.cells[p.place].key
    return any(
        (r.seam if of_seam else r.unit) == name
        or (r.kind in _AT_ONE_PLACE and (e := found.equations[n]) is not None and _moves(found, e, p))
        for n in found.weighed
        for r in (found.readings[n],)
    )


def _moves(found: Inference, e: Equation, p: Parameter) -> bool:
    return abs(float(e.of_errors @ effect_of(found.model, p))) > _TOLD


def _stray(found: Inference) -> int | None:
    """A length or a seam that lies far off its mark though nothing that is believed makes it so, the farthest of them; one that was set
    aside as well, unless nothing on the table can measure so much."""
    lone = {o.index for o in found.lone}
    aside = {o.index for o in found.odd}
    far = [
        n
        for n in found.weighed
        if n not in lone
        and (_may_be_so(found, n) if n in aside else found.readings[n].kind in _LENGTHS)
        and _unexplained(found, n)
    ]
    return max(far, key=lambda n: abs(float(found.residuals[n])), default=None)


def _may_be_so(found: Inference, n: int) -> bool:
    """Whether one piece, or one seam, may really be as it was read: by more it is a slip of the pen."""
    equation = found.equations[n]
    one = found.readings[n].kind in (*_LENGTHS, ReadingKind.STITCH)
    return one and equation is not None and abs(found.readings[n].read - equation.nominal) < _OF_THE_PEN


def _unexplained(found: Inference, n: int) -> bool:
    e = found.equations[n]
    return e is not None and abs(found.readings[n].read - e.nominal) > _FAR and abs(float(found.residuals[n])) > _STRAY


def _widest(found: Inference) -> float:
    off = [
        abs(found.readings[n].read - e.nominal)
        for n in found.weighed
        if (e := found.equations[n]) is not None
        and found.readings[n].kind in (ReadingKind.STITCH, ReadingKind.WIDTH, ReadingKind.HEIGHT)
    ]
    return max(off, default=1 / 32)


def _true(found: Inference, none: float) -> bool:
    """Only when what was looked at could have shown a 1/32, and nothing that is seen is off."""
    none, count = found.nearly_none, _looked(found)
    unlooked = sum(e.leads for e in found.estimates if not e.measured)
    faults = [
        f for f in faults_of(found.model, found.model.deviations(found.block)) if abs(f.size) > _LISTED and not f.eased
    ]
    shown = all(
        -limit < e.low and e.high < limit
        for e in found.estimates
        if e.measured and (limit := _to_be_shown(found.model, e.parameter)) is not None
    )
    enough = none >= _SURE_TRUE or (count >= _SIX and none >= _LEAST_TRUE)
    if _stray(found) is not None:
        return False
    seam = found.estimates[0].measured and count >= _FIVE
    return seam and shown and not faults and enough and none / max(1 - unlooked, 1e-9) >= _NO_CAUSE


def _to_be_shown(model: BlockModel, p: Parameter) -> float | None:
    """Inches that its interval may reach; a plain square is cut, not trimmed, and answers through its rows and columns."""
    plain = p.cause is Cause.TRIM and model.places.batches[p.batch].plain
    return _PLAIN_SHOWN if plain else _SHOWN.get(p.cause)


def _looked_at(found: Inference) -> Message:
    missing = [lead for lead in _leads(found) if not lead.measured and not lead.parameter.single]
    left = sorted({_SUBJECT[lead.parameter.cause] for lead in missing if lead.parameter.cause in _SUBJECT})
    if not left:
        return Message("Everything that could lead was measured, and lies on its mark.")
    return Message("What was measured lies on its mark. Not looked at: {left}.", left=", ".join(left))


_SUBJECT = {
    Cause.SEAM: "the stitching",
    Cause.TRIM: "the size of some units",
    Cause.SHIFT: "where diagonals meet corners",
    Cause.TIP: "the cloth above tips",
    Cause.FOLD: "the fold",
    Cause.START: "the ends of seams",
    Cause.END: "the ends of seams",
}


def _open(found: Inference, groups: Sequence[_Group], none: float, far: int | None) -> Message:
    """``far`` numbers a reading that nothing else bears out."""
    if far is not None:
        again = _read_alike(found, far)
        return Message(
            "{reading}, and {more} more like it; nothing else that was measured says why."
            if again
            else "{reading}, and nothing else that was measured says so. Read it again.",
            reading=_reading_off(found, far),
            more=again,
        )
    if len(found.weighed) == 1:
        return _standing_out(found)
    # What was not looked at may be anything, and is not named for that.
    may = [
        g
        for g in groups
        if g.chance >= (_NAMED_OPEN if g.best.sure_of_side else _MAY_BE)
        and g.best.looked_at
        and _says_why(found, g.best)
    ][:3]
    names = [
        cause_said(found.model, g.best.parameter, g.best.size if g.best.measured else _likely(found, g.best))
        for g in may
    ]
    if not names:
        return _standing_out(found)
    if none >= 0.25:
        return Message("It may be that {causes}; or nothing at all.", causes=Listing(names, "; or "))
    return Message("It may be that {causes}.", causes=Listing(names, "; or "))


def _standing_out(found: Inference) -> Message:
    """What is off though no cause is likelier than others: the length that is off most, or that none is."""
    aside = {o.index for o in (*found.odd, *found.lone)}
    off = {
        n: abs(found.readings[n].read - e.nominal)
        for n in found.weighed
        if n not in aside
        and found.readings[n].kind in (*_LENGTHS, *_AT_ONE_PLACE, ReadingKind.MISS, ReadingKind.CLEARANCE)
        and (e := found.equations[n]) is not None
    }
    most = max(off, key=lambda n: off[n], default=None)
    if most is None or off[most] < _STRAY:
        return Message("Nothing that was measured stands out, but too little was looked at to call it true.")
    return Message(
        "{reading}. One reading does not say why."
        if len(found.weighed) == 1
        else "{reading}, and what else was measured does not say why.",
        reading=_reading_off(found, most),
    )


def _reading_off(found: Inference, n: int) -> Message:
    """What was read and how far it lies off its mark."""
    r, equation = found.readings[n], found.equations[n]
    assert equation is not None
    off = r.read - equation.nominal
    return Message("{what}: {size} {way}", what=reading_said(r, found.model), size=Roughly(off), way=_way(r.kind, off))


def _likely(found: Inference, e: Estimate) -> float:
    n = found.parameters.index(e.parameter)
    drawn = found.draws[found.leading == n, n]
    return float(np.median(drawn)) if len(drawn) else e.size


def _evidence(found: Inference, e: Estimate) -> Message:
    """The reading that speaks most for a cause, as one sentence."""
    best = _strongest(found, e)
    if best is None:
        return Message("The readings together say so; no single one does.")
    more = _read_alike(found, best)
    return Message(
        "{reading}, and {more} more like it." if more else "{reading}.", reading=_reading_off(found, best), more=more
    )


def _strongest(found: Inference, e: Estimate) -> int | None:
    """The reading that speaks most for a cause."""
    best, most = None, 0.0
    aside = {o.index for o in found.odd}
    for k in found.weighed:
        equation, r = found.equations[k], found.readings[k]
        if equation is None or k in aside:
            continue
        made = _by(found, e, k) * e.size
        speaks = abs(made) / np.sqrt(equation.noise)
        if made * (r.read - equation.nominal) > 0 and speaks > most:
            best, most = k, speaks
    return best


def _by(found: Inference, e: Estimate, k: int) -> float:
    """What an inch of a cause makes of a reading."""
    n, equation = found.parameters.index(e.parameter), found.equations[k]
    assert equation is not None
    if n < found.common:
        return float(equation.of_causes[n])
    return float(equation.of_errors @ effect_of(found.model, e.parameter))


def _read_alike(found: Inference, n: int) -> int:
    """How many other readings of the same kind lie off to the same side."""
    r, equation = found.readings[n], found.equations[n]
    assert equation is not None
    return sum(
        k != n
        and (other := found.equations[k]) is not None
        and found.readings[k].kind is r.kind
        and (found.readings[k].read - other.nominal) * (r.read - equation.nominal) > 0
        for k in found.weighed
    )


def _way(kind: ReadingKind, off: float) -> str:
    if kind in (ReadingKind.STITCH, ReadingKind.STRIP_TEST):
        return "wide" if off > 0 else "narrow"
    if kind is ReadingKind.TIP_GAP:
        return "short of the seam" if off > 0 else "cut off"
    if kind in (ReadingKind.MISS, ReadingKind.CORNER_GAP, ReadingKind.CROSSING):
        return "past it"
    return "over" if off > 0 else "short"


def _leads(found: Inference) -> Iterator[Lead]:
    ordered = sorted(found.estimates, key=lambda e: (-e.leads, not e.measured, -abs(e.size)))
    for e in ordered:
        yield Lead(
            e.parameter, e.size, e.low, e.high, e.measured, e.leads, cause_said(found.model, e.parameter, e.size)
        )


def shares_of(found: Inference) -> tuple[Share, ...]:
    """Every figure of the block that is off, or was measured, taken apart; the worst two of each kind."""
    model = found.model
    causes = shape_of(model)
    shape = model.matrix @ causes
    values = model.deviations(found.block)
    taken: dict[FeatureKind, int] = {}
    shares = []
    for n in np.argsort(-np.abs(values)):
        f = model.features[n]
        if taken.get(f.kind, 0) >= 2:
            continue
        taken[f.kind] = taken.get(f.kind, 0) + 1
        parts = [(p, float(shape[n, k] * found.mean[k])) for k, p in enumerate(found.parameters[: found.common])]
        kept = tuple(x for x in sorted(parts, key=lambda x: -abs(x[1])) if abs(x[1]) > 1 / 256)[:5]
        rest = float(values[n]) - sum(v for _, v in kept)
        low, high = np.quantile(found.read_off(model.response(int(n))), (0.05, 0.95))
        shares.append(Share(f.key, feature_name(model, int(n)), float(values[n]), float(low), float(high), kept, rest))
    return tuple(shares)
