"""The next reading: of all that can still be taken the one that is worth most to what is done next, and what it would mean.

Source: docs/theory, section 14.8.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from ..errors import ReadingMisplaced
from ..lengths import Length, inches
from ..messages import Message
from .asking_words import how_said, outcome_said, range_said
from .bearing import Bow, bow_of
from .candidates import candidates, of_any
from .causes import SOURCES, Parameter
from .equations import Equation, RawSizes, equation_of
from .inference import Inference
from .names import reading_said
from .naming import TRIMMED_OFF, told_sure
from .parting import partings
from .possible import NOTHING
from .reading_kinds import ACROSS_SEAMS, ReadingKind
from .readings import Reading
from .verdict import Status, Verdict

__all__ = ["NextReading", "Outcome", "next_readings"]

_COST = 1 / 64
"""Inches: what acting on the wrong cause costs, the time of it and the cloth handled once more."""
_TOLD = 1 / 400
"""Inches that a nat about which cause leads is worth by itself: it may decide later what no single reading decides."""
_WORTH_WHILE = 1 / 2000
_LEANS = 0.5
"""Chance that nothing leads from which what is asked is what would show a cause, rather than what decides between acts: by what is believed so
far hardly any would be done, and what was looked at once would not be looked at again (bench sewers: a third fewer of those with 1/32 are
called true)."""
_AS_GOOD = 0.7
"""Of two spots along a seam: worth so much of the other."""
_AT_THE_BOW = 3
"""Readings at the end of seams where rows are shorter, after which others are asked for again."""
_HANDY = {ReadingKind.DIAGONAL_RISING: 0.75, ReadingKind.DIAGONAL_FALLING: 0.75, ReadingKind.STRIP_TEST: 0.6}
"""What takes longer, or is read less surely, counts for so much: a ruler from corner to corner, strips that are sewn first."""
_FIRST_LOOK = 2.0
"""What is looked at for the first time counts for so much more of how units were trimmed: what nobody looked at is held to be right, and most
of what is told wrong lies there (bench sewers)."""
_LOOKS_AT = 0.3
"""Inches that an inch of a cause makes of a reading that looks at it."""
_RARE = 0.004
"""Share of draws below which an outcome is not told of by itself."""
_OFF, _AT_FIRST = 1 / 10, 2
"""Inches from which a length that is off is what is asked about, among so many readings: with more of them, what is worth most is."""
_OF_LENGTHS = (
    ReadingKind.WIDTH,
    ReadingKind.HEIGHT,
    ReadingKind.STITCH,
    ReadingKind.STRIP_TEST,
    ReadingKind.ROW,
    ReadingKind.COLUMN,
)


@dataclass(frozen=True, slots=True)
class Outcome:
    """If the reading falls in this range, the cause that it would speak for and how surely."""

    low: float | None
    high: float | None
    cause: Parameter | None
    sure: float
    chance: float
    said: Message


@dataclass(frozen=True)
class NextReading:
    """``worth`` is in inches of error that it helps to put right; ``needed`` whether it could change what to do.
    ``sure_now`` and ``sure_after`` are the chances of naming the leading cause rightly, without it and with it."""

    reading: Reading
    said: Message
    worth: float
    needed: bool
    sure_now: float
    sure_after: float
    outcomes: tuple[Outcome, ...]


@dataclass(frozen=True)
class _Weighed:
    """One that may be taken: what it ``reads`` in each block that is possible, and the ``score`` by which it is asked for, where it ``counts`` for
    so much of one that is as handy and looks at nothing new."""

    reading: Reading
    equation: Equation
    reads: NDArray[np.float64]
    step: float
    counts: float
    score: float
    worth: float
    sure: float


def next_readings(
    found: Inference,
    verdict: Verdict | None = None,
    *,
    resolution: Length = inches("1/32"),
    raw: Mapping[int, RawSizes] | None = None,
    joined: bool = True,
    by_hand: bool = False,
    rng: np.random.Generator | None = None,
    options: Sequence[Reading] | None = None,
) -> tuple[NextReading, ...]:
    """Every reading that could be taken, the one worth most first.

    The worth of acting on a cause is the error it puts right less what acting costs; a reading is worth what the best acts are
    worth after it, on the mean of its outcomes, beyond what they are worth now. ``options`` are weighed instead of
    all there can be; ``by_hand`` no unit and no seam is known by its place. What the verdict wants read again comes before all of them,
    then what its sentence sends one to read.
    """
    rng = rng or np.random.default_rng(1853)
    labels, gains = _acts(found)
    best_now = float(np.maximum(gains.mean(axis=0) - gains.std(axis=0) / np.sqrt(len(gains)), 0.0).sum())
    sure_now = float(np.bincount(labels).max() / len(labels))
    noise = rng.standard_normal(len(labels))
    factors = np.array([found.factors[s.value] for s in SOURCES]) ** 2
    weighed: list[_Weighed] = []
    unseen = _unseen(found)
    again = _again(found, verdict) if options is None else None
    asked = options if options is not None else (of_any if by_hand else candidates)(found, joined=joined)
    for reading in asked if again is None else [again, *(r for r in asked if r != again)]:
        try:
            e = equation_of(reading, found.model, resolution, raw)
        except ReadingMisplaced:
            continue
        spread = float(np.sqrt(e.hand + e.mark + e.loose @ factors))
        reads = e.nominal + _true_readings(found, e) + spread * noise
        step = max(float(resolution), spread / 2)
        told, sure, worth = _information(reads, labels, gains, step)
        gain = max(0.0, worth - best_now)
        first = _FIRST_LOOK if np.any(np.abs(e.of_causes[unseen]) > _LOOKS_AT) else 1.0
        counts = first * _HANDY.get(reading.kind, 1.0)
        score = (gain + _TOLD * max(told, 0.0)) * counts
        weighed.append(_Weighed(reading, e, reads, step, counts, score, gain, sure))
    weighed = _by_parting(found, weighed)
    _put_in_order(found, verdict, weighed, again)
    settled = verdict is not None and verdict.status in (Status.TRUE, Status.SETTLED, Status.SEVERAL, Status.MISTAKE)
    return tuple(
        NextReading(
            w.reading,
            how_said(w.reading, found.model, more=_read_before(found, w.reading))
            if w.reading is not again or verdict is None
            else _again_said(found, verdict.again or 0),
            w.worth,
            not settled or w.worth > _WORTH_WHILE,
            sure_now,
            max(sure_now, w.sure),
            tuple(_outcomes(found, w.reading, labels, w.reads, w.step, resolution)) if k == 0 else (),
        )
        for k, w in enumerate(weighed)
    )


def _by_parting(found: Inference, weighed: list[_Weighed]) -> list[_Weighed]:
    """While it is likelier than not that nothing leads, scored by how well each would part a true block from one that is not."""
    if not weighed or not found.measured or found.chance(-1) < _LEANS:
        return weighed
    parted = partings(found, [w.reading for w in weighed], [w.equation for w in weighed])
    return [replace(w, score=float(x) * w.counts) for w, x in zip(weighed, parted, strict=True)]


def _put_in_order(found: Inference, verdict: Verdict | None, weighed: list[_Weighed], again: Reading | None) -> None:
    """What is to be read ``again`` first, then what the verdict's sentence sends one to read, then by worth."""
    # What a length is off by is looked for in what it is made of, before anything else is.
    lengths = again is None and _length_open(found, verdict)
    weighed.sort(key=lambda w: (w.reading is not again, lengths and w.reading.kind not in _OF_LENGTHS, -w.score))
    if weighed and again is None:
        _as_said(verdict, weighed)
        if verdict is None or verdict.wanted is None or not verdict.wanted.spots:
            _along_the_seam(found, weighed)
        _at_the_bow(found, verdict, weighed)


def _unseen(found: Inference) -> list[int]:
    """The numbers of how units of a batch may be trimmed off that no reading looked at, whichever way."""
    common = found.estimates[: found.common]
    seen = {(e.parameter.cause, e.parameter.batch) for e in common if e.looked_at}
    return [
        n
        for n, e in enumerate(common)
        if e.parameter.cause in TRIMMED_OFF and (e.parameter.cause, e.parameter.batch) not in seen
    ]


def _along_the_seam(found: Inference, weighed: list[_Weighed]) -> None:
    """Where any seam is asked for first, the spot along it that was read least, if that is worth about as much: a drift shows at its
    ends alone."""
    first = weighed[0]
    if first.reading.kind is not ReadingKind.STITCH or first.reading.seam:
        return
    taken = Counter(r.spot for r in found.readings if r.kind is ReadingKind.STITCH)
    spots = [w for w in weighed if w.reading.kind is ReadingKind.STITCH and not w.reading.seam]
    as_good = [w for w in spots if w.score >= _AS_GOOD * first.score]
    weighed.insert(0, weighed.pop(weighed.index(min(as_good, key=lambda w: (taken[w.reading.spot], -w.score)))))


def _as_said(verdict: Verdict | None, weighed: list[_Weighed]) -> None:
    """What the verdict's own sentence sends one to read comes first: the one of these that tells most."""
    wanted = verdict.wanted if verdict is not None else None
    first = next((w for w in weighed if wanted is not None and wanted.holds(w.reading)), None)
    if first is not None:
        weighed.insert(0, weighed.pop(weighed.index(first)))


def _at_the_bow(found: Inference, verdict: Verdict | None, weighed: list[_Weighed]) -> None:
    """Where rows are shorter along one edge and it is open why, their seams at that end come first, until three were read there."""
    bow = bow_of(found) if verdict is not None and verdict.status is Status.UNSETTLED else None
    if bow is None or sum(found.readings[n].spot == bow.spot for n in found.weighed) >= _AT_THE_BOW:
        return
    there = [w for w in weighed if w.reading.kind is ReadingKind.STITCH and w.reading.spot == bow.spot]
    if there:
        # Of any seam there is to be asked, it is one that can be pointed at.
        first = there[0]
        weighed.remove(first)
        weighed.insert(
            0, replace(first, reading=replace(first.reading, seam=first.reading.seam or _seam_there(found, bow)))
        )


def _seam_there(found: Inference, bow: Bow) -> str:
    """The first seam within these rows or columns of which nothing was read at that end."""
    upright = bow.kind is ReadingKind.ROW
    read = {r.seam for r in found.readings if r.spot == bow.spot}
    return next((s.name for s in found.model.places.seams if s.upright is upright and s.name not in read), "")


def _length_open(found: Inference, verdict: Verdict | None) -> bool:
    """Whether it is open why something across seams is as long or short as it was read."""
    if verdict is None or verdict.status is not Status.UNSETTLED or len(found.weighed) > _AT_FIRST:
        return False
    lengths = [n for n in found.weighed if found.readings[n].kind in ACROSS_SEAMS and n not in found.aside]
    return any(abs(found.off[n]) > _OFF for n in lengths)


def _again(found: Inference, verdict: Verdict | None) -> Reading | None:
    """What is to be read again, as it can be asked for."""
    if verdict is None or verdict.again is None:
        return None
    r = found.readings[verdict.again]
    return replace(r, value=Length.of(1), confirmed=False)


def _read_before(found: Inference, asked: Reading) -> bool:
    """Whether another one of these was read: a seam, wherever along it; a unit of this batch, the same way."""
    places = found.model.places
    seam, batch = asked.kind is ReadingKind.STITCH, places.batch_of(asked.unit, asked.batch)
    return any(
        r.kind is asked.kind and (seam or (r.corner == asked.corner and places.batch_of(r.unit, r.batch) == batch))
        for r in found.readings
    )


def _again_said(found: Inference, n: int) -> Message:
    r = found.readings[n]
    return Message(
        "Read once more what read {value}: {what}.",
        value=r.value or Length.near(r.read),
        what=reading_said(r, found.model),
    )


def _true_readings(found: Inference, e: Equation) -> NDArray[np.float64]:
    """(draws,): what the reading would be in each block that is possible, beyond its nominal, before the hand that takes it."""
    if e.of_errors.any():
        return found.read_off(e.of_errors)
    return np.asarray(found.draws[:, : found.common] @ e.of_causes)


def _acts(found: Inference) -> tuple[NDArray[np.int64], NDArray[np.float64]]:
    """(draws,) which cause leads, zero for none, and (draws, causes) what acting on each cause is worth, inches: the error it
    puts right, less what it costs. Several may be acted on at once."""
    leading = found.leading
    labels = np.zeros(len(leading), dtype=np.int64)
    for k, n in enumerate(sorted({int(n) for n in leading if n >= 0})):
        labels[leading == n] = k + 1
    some = np.nonzero((found.sizes > NOTHING).mean(axis=0) > _RARE)[0]
    sizes = found.sizes[:, some]
    return labels, np.where(sizes > NOTHING, sizes, 0.0) - _COST


def _information(
    reads: NDArray[np.float64], labels: NDArray[np.int64], gains: NDArray[np.float64], step: float
) -> tuple[float, float, float]:
    """What a reading tells of which cause leads, in nats; the chance of then naming it rightly; and what the best act is then
    worth.

    By the table of draws over marks and leading causes; the excess that a table of so few draws shows by chance is taken off
    (Miller 1955).
    """
    marks = np.round(reads / step).astype(np.int64)
    _, marks = np.unique(marks, return_inverse=True)
    table = np.zeros((int(marks.max()) + 1, int(labels.max()) + 1))
    np.add.at(table, (marks, labels), 1)
    share = table / len(labels)
    by_mark, by_cause = share.sum(axis=1, keepdims=True), share.sum(axis=0, keepdims=True)
    with np.errstate(divide="ignore", invalid="ignore"):
        told = float(np.nansum(share * np.log(share / (by_mark * by_cause))))
    cells = int((table > 0).sum()) - int((by_mark > 0).sum()) - int((by_cause > 0).sum()) + 1
    best = table.max(axis=1)
    summed = np.zeros((table.shape[0], gains.shape[1]))
    np.add.at(summed, marks, gains)
    # The best of few draws is too good by chance: a standard error of each sum is taken off.
    chance = np.outer(np.sqrt(table.sum(axis=1)), gains.std(axis=0))
    worth = np.maximum(summed - chance, 0.0).sum()
    sure = float(np.maximum(best - 0.5 * np.sqrt(best), 0).sum() / len(labels))
    return told - cells / (2 * len(labels)), sure, float(worth / len(labels))


def _outcomes(
    found: Inference,
    reading: Reading,
    labels: NDArray[np.int64],
    reads: NDArray[np.float64],
    step: float,
    resolution: Length,
) -> Iterator[Outcome]:
    """The range of readings parted where the likeliest cause changes; at most four parts."""
    numbers = [-1, *sorted({int(n) for n in found.leading if n >= 0})]
    marks = np.round(reads / step).astype(np.int64)
    low = int(marks.min())
    table = np.zeros((int(marks.max()) - low + 1, len(numbers)))
    np.add.at(table, (marks - low, labels), 1)
    groups = _ranges(table, len(labels) * _RARE)
    for n, (a, b) in enumerate(groups):
        counts = table[a : b + 1].sum(axis=0)
        k = int(counts.argmax())
        p = found.parameters[numbers[k]] if numbers[k] >= 0 else None
        sure, chance = float(counts[k] / counts.sum()), float(counts.sum() / len(labels))
        lower = None if n == 0 else (a + low - 0.5) * step
        upper = None if n == len(groups) - 1 else (b + low + 0.5) * step
        range_ = range_said(found.model, reading, lower, upper, resolution)
        yield Outcome(lower, upper, p, sure, chance, outcome_said(found, range_, p, told_sure(found, reading, p, sure)))


def _ranges(table: NDArray[np.float64], rare: float) -> list[tuple[int, int]]:
    """Neighbouring marks with the same likeliest cause; rare ones go with a neighbour."""
    groups: list[list[int]] = []
    for mark, counts in enumerate(table):
        if counts.sum() < max(rare, 1):
            if groups:
                groups[-1][1] = mark
            continue
        best = int(counts.argmax())
        if groups and groups[-1][2] == best:
            groups[-1][1] = mark
        else:
            groups.append([mark, mark, best])
    while len(groups) > 4:
        sizes = [table[a : b + 1].sum() for a, b, _ in groups]
        k = int(np.argmin(sizes))
        other = k - 1 if k > 0 else 1
        groups[other][0], groups[other][1] = min(groups[k][0], groups[other][0]), max(groups[k][1], groups[other][1])
        groups.pop(k)
        for n in range(len(groups) - 1, 0, -1):
            if groups[n][2] == groups[n - 1][2]:
                groups[n - 1][1] = groups[n][1]
                groups.pop(n)
    return [(a, b) for a, b, _ in groups]
