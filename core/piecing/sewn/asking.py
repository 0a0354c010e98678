"""The next reading: of all that could be taken the one that settles most, and what each outcome would mean.

Source: docs/theory.md, section 14.8.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..diagnosis.verdict import sure_in_words
from ..errors import ReadingMisplaced
from ..lengths import Length, inches
from ..wording import Said
from .causes import Parameter, SewnCause, scatter_of
from .inference import INTERVAL_90, Inference
from .model import FeatureKind, SewnModel
from .places import CornerTip, batch_name
from .readings import Equation, RawSizes, SewnKind, SewnReading, equation_of, reading_said
from .verdict import NOTHING, contenders_of

__all__ = ["NextReading", "Outcome", "candidates", "next_readings"]

_NARROWING = 0.5
"""Nats that narrowing a cause that may lead, all the way, is worth beside what a reading tells of which one does."""
_RARE = 0.002
"""Share of draws below which an outcome is not told of by itself."""


@dataclass(frozen=True, slots=True)
class Outcome:
    """If the reading falls in this range, the cause that it would speak for and how surely."""

    low: float | None
    high: float | None
    cause: Parameter | None
    sure: float
    chance: float
    said: Said


@dataclass(frozen=True)
class NextReading:
    """``sure_now`` and ``sure_after`` are the chances of naming the leading cause rightly, without it and with it; ``about`` is
    the cause that it narrows most, from ``doubt_now`` to ``doubt_after`` inches either side, nine times in ten."""

    reading: SewnReading
    said: Said
    sure_now: float
    sure_after: float
    about: Parameter
    doubt_now: float
    doubt_after: float
    outcomes: tuple[Outcome, ...]


def candidates(found: Inference, *, joined: bool = True) -> list[SewnReading]:
    """Readings that could still be taken: of each batch, of the seams, and, when the block is joined, of the block."""
    model = found.model
    one = Length.of(1)
    options: list[SewnReading] = []
    for b in model.places.batches:
        options.append(SewnReading(SewnKind.WIDTH, one, batch=b.number))
        if not b.plain:
            options.append(SewnReading(SewnKind.CUT, one, batch=b.number))
            options.append(SewnReading(SewnKind.RAW_WIDTH, one, batch=b.number))
            options.append(SewnReading(SewnKind.DIAGONAL_RISING, one, batch=b.number))
        if b.tips:
            options.append(SewnReading(SewnKind.CLEARANCE, one, batch=b.number))
        if b.corners:
            tip = _least_measured(found, b.number)
            options.append(SewnReading(SewnKind.MISS, one, cell=tip.cell, corner=f"{tip.down} {tip.across}"))
    options += [SewnReading(SewnKind.STITCH, one, spot=spot) for spot in ("start", "middle", "end")]
    options.append(SewnReading(SewnKind.STRIP_TEST, one, whole=inches("7/2")))
    if joined:
        seen: dict[FeatureKind, int] = {}
        for f in model.features:
            if seen.get(f.kind, 0) < 2:
                seen[f.kind] = seen.get(f.kind, 0) + 1
                options.append(SewnReading(SewnKind(f.kind.value), one, feature=f.key))
    return options


def _least_measured(found: Inference, batch: int) -> CornerTip:
    """A corner of the unit of a batch whose diagonal was measured least often: one unit again tells little of the batch."""
    places = found.model.places
    taken = Counter(r.cell for r in found.readings if r.kind is SewnKind.MISS)
    tips = [t for t in places.corner_tips if places.cells[t.cell].batch == batch]
    return min(tips, key=lambda t: (taken[t.cell], t.cell))


def next_readings(
    found: Inference,
    *,
    resolution: Length = inches("1/32"),
    raw: Mapping[int, RawSizes] | None = None,
    joined: bool = True,
    rng: np.random.Generator | None = None,
    options: Sequence[SewnReading] | None = None,
) -> tuple[NextReading, ...]:
    """Every reading that could be taken, the one that settles most first.

    What a reading settles is the information it gives on which cause leads, and half as much again for what it narrows of
    the causes that may. ``options`` are weighed instead of all readings there can be.
    """
    rng = rng or np.random.default_rng(1853)
    contenders = contenders_of(found)
    draws = found.draws - found.prior.wanted
    first = np.argmax(np.abs(draws[:, contenders]), axis=1)
    # One more than there are causes: nothing of note.
    nothing = len(contenders)
    told_apart = np.where(np.abs(draws[:, contenders]).max(axis=1) < NOTHING, nothing, first)
    now = float(np.bincount(told_apart, minlength=nothing + 1).max() / len(first))
    noise = rng.standard_normal(len(draws))
    measured: list[tuple[float, float, SewnReading, Equation, NDArray[np.float64], float]] = []
    leads = np.bincount(first, minlength=len(contenders)) / len(first)
    open_ = leads * (1 - leads) / np.diagonal(found.covariance)[contenders]
    for reading in options if options is not None else candidates(found, joined=joined):
        try:
            e = equation_of(reading, found.model, resolution, raw)
        except ReadingMisplaced:
            continue
        scatter = _own_variance(found, e) + e.noise
        reads = e.nominal + (draws + found.prior.wanted) @ e.of_causes + np.sqrt(scatter) * noise
        gain = found.covariance @ e.of_causes
        less = float((open_ * gain[contenders] ** 2).sum() / (e.of_causes @ gain + scatter))
        step = max(float(resolution), float(np.sqrt(scatter)) / 2)
        told, after = _told(reads, told_apart, nothing + 1, step)
        measured.append((told + _NARROWING * less, after, reading, e, reads, step))
    measured.sort(key=lambda m: -m[0])
    return tuple(
        NextReading(
            reading,
            how_said(reading, found.model),
            now,
            max(now, after),
            *_narrowed(found, contenders, e),
            tuple(_outcomes(found, contenders, told_apart, reads, step, resolution)) if k == 0 else (),
        )
        for k, (_, after, reading, e, reads, step) in enumerate(measured)
    )


def _narrowed(found: Inference, contenders: list[int], e: Equation) -> tuple[Parameter, float, float]:
    """The cause whose doubt a reading narrows most, and that doubt before and after."""
    gain = found.covariance @ e.of_causes
    less = gain**2 / (e.of_causes @ gain + _own_variance(found, e) + e.noise)
    n = max(contenders, key=lambda k: float(less[k]))
    now = float(found.covariance[n, n])
    after = max(now - float(less[n]), 0.0)
    return found.parameters[n], INTERVAL_90 * float(np.sqrt(now)), INTERVAL_90 * float(np.sqrt(after))


def _own_variance(found: Inference, e: Equation) -> float:
    return float(((e.of_errors * scatter_of(found.model)) ** 2).sum())


def _told(reads: NDArray[np.float64], first: NDArray[np.int64], count: int, step: float) -> tuple[float, float]:
    """What a reading tells of which cause leads, in nats, and the chance of then naming it rightly.

    By the table of draws over marks and leading causes; the excess that a table of so few draws shows by chance is taken off
    (Miller 1955).
    """
    marks = np.round(reads / step).astype(np.int64)
    marks -= marks.min()
    table = np.zeros((int(marks.max()) + 1, count))
    np.add.at(table, (marks, first), 1)
    share = table / len(first)
    by_mark, by_cause = share.sum(axis=1, keepdims=True), share.sum(axis=0, keepdims=True)
    with np.errstate(divide="ignore", invalid="ignore"):
        told = float(np.nansum(share * np.log(share / (by_mark * by_cause))))
    cells = int((table > 0).sum()) - int((by_mark > 0).sum()) - int((by_cause > 0).sum()) + 1
    best = table.max(axis=1)
    return told - cells / (2 * len(first)), float(np.maximum(best - 0.5 * np.sqrt(best), 0).sum() / len(first))


def _outcomes(
    found: Inference,
    contenders: list[int],
    first: NDArray[np.int64],
    reads: NDArray[np.float64],
    step: float,
    resolution: Length,
) -> Iterator[Outcome]:
    """The range of readings parted where the likeliest cause changes; at most four parts."""
    marks = np.round(reads / step).astype(np.int64)
    low = int(marks.min())
    table = np.zeros((int(marks.max()) - low + 1, len(contenders) + 1))
    np.add.at(table, (marks - low, first), 1)
    groups = _ranges(table, len(first) * _RARE)
    for n, (a, b) in enumerate(groups):
        counts = table[a : b + 1].sum(axis=0)
        k = int(counts.argmax())
        p = found.parameters[contenders[k]] if k < len(contenders) else None
        sure, chance = float(counts[k] / counts.sum()), float(counts.sum() / len(first))
        lower = None if n == 0 else (a + low - 0.5) * step
        upper = None if n == len(groups) - 1 else (b + low + 0.5) * step
        yield Outcome(lower, upper, p, sure, chance, _outcome_said(found, lower, upper, p, sure, resolution))


def _ranges(table: NDArray[np.float64], least: float) -> list[tuple[int, int]]:
    """Runs of marks with one likeliest cause; what holds too few draws goes to the neighbour before it, the first to the next."""
    groups: list[list[int]] = []
    for k, row in enumerate(table):
        best = int(row.argmax())
        if groups and (groups[-1][2] == best or not row.any()):
            groups[-1][1] = k
        else:
            groups.append([k, k, best])
    while len(groups) > 1:
        sizes = [table[a : b + 1].sum() for a, b, _ in groups]
        small = int(np.argmin(sizes))
        if sizes[small] >= least:
            break
        into = small - 1 if small else 1
        groups[into][0], groups[into][1] = (
            min(groups[into][0], groups[small][0]),
            max(groups[into][1], groups[small][1]),
        )
        groups.pop(small)
        for n in range(len(groups) - 1, 0, -1):
            if groups[n][2] == groups[n - 1][2]:
                groups[n - 1][1] = groups[n][1]
                groups.pop(n)
    return [(a, b) for a, b, _ in groups[:5]]


def _outcome_said(
    found: Inference, low: float | None, high: float | None, p: Parameter | None, sure: float, resolution: Length
) -> Said:
    if p is None:
        cause = "nothing of note"
    else:
        cause = (f"{batch_name(found.model.places, p.batch)}: " if p.batch >= 0 else "") + _PLAIN[p.cause]
    how = sure_in_words(sure)
    ends = {k: Length.near(v).round_near(resolution) for k, v in (("low", low), ("high", high)) if v is not None}
    if low is None and high is None:
        return Said(f"whatever it reads: {how} {cause}")
    if low is None:
        return Said(f"{{high}} or less: {how} {cause}", **ends)
    if high is None:
        return Said(f"{{low}} or more: {how} {cause}", **ends)
    return Said(f"from {{low}} to {{high}}: {how} {cause}", **ends)


_PLAIN = {
    SewnCause.SEAM: "the stitching distance",
    SewnCause.TRIM: "the trimmed size",
    SewnCause.SHIFT: "trimming off the diagonal",
    SewnCause.TIP: "the tip's clearance",
    SewnCause.CUT: "the cut size",
}


def how_said(reading: SewnReading, model: SewnModel) -> Said:
    """Where to lay the ruler."""
    who = batch_name(model.places, reading.batch) if reading.batch >= 0 else ""
    match reading.kind:
        case SewnKind.WIDTH:
            return Said(f"Measure one more of the {who}, trimmed, raw edge to raw edge, before it is joined.")
        case SewnKind.CUT:
            return Said(f"Measure one more piece cut for the {who}, before it is sewn.")
        case SewnKind.RAW_WIDTH:
            return Said(f"Measure one of the {who} as sewn and pressed, before it is trimmed.")
        case SewnKind.DIAGONAL_RISING:
            return Said(f"Measure one of the {who} from its lower left to its upper right corner.")
        case SewnKind.CLEARANCE:
            return Said(f"Measure from the tip of one of the {who} to the raw edge above it, before it is joined.")
        case SewnKind.MISS:
            cell = model.places.cells[reading.cell]
            return Said(
                f"On the unit at {cell.name}, lay the ruler's diagonal on the seam and read how far it passes the "
                f"{reading.corner} corner."
            )
        case SewnKind.STITCH:
            return Said(
                f"Turn the work over and measure from raw edge to stitching at the {reading.spot} of one more seam."
            )
        case SewnKind.STRIP_TEST:
            return Said("Sew three strips of one width side by side, press, and measure the middle one and the whole.")
        case SewnKind.ROW | SewnKind.COLUMN:
            return Said(f"Measure {reading_said(reading, model)}, pressed and lying flat, raw edge to raw edge.")
        case SewnKind.TIP_GAP:
            return Said(
                f"{reading_said(reading, model)}: measure from the tip to the seam; below zero when it is cut off."
            )
        case SewnKind.CORNER_GAP:
            return Said(
                f"{reading_said(reading, model)}: measure along the seam from where the diagonal ends to the corner."
            )
        case _:
            return Said(f"{reading_said(reading, model)}: measure the step between the two seams that should meet.")
