"""Remedies counted by the faults that each would leave, and the order in which they are offered.

Faults left are counted over the blocks that the readings leave possible, never on one of them.
Source: docs/theory, section 14.10.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from ...messages import Message
from ...planning.unit_plan import UnitPlan
from ..causes import SOURCES, scatter_of, sources_of
from ..faults import all_off, faults_of, faults_seen
from ..inference import Inference
from ..model import Vector
from ..verdict import Status, Verdict
from . import of_mistakes, of_seams, of_units, of_whole
from .remedy import LEAVE, Change, Remedy, Work

__all__ = ["done_first", "remedies_of"]

_DRAWS, _FEWEST = 300, 60
_NONE_LEFT = 0.8
_HARMS, _GAINS, _SHARE = 0.25, 0.5, 0.25
"""Faults; a remedy that is expected to leave so many more than there are, or to take away fewer, is not worth it; where there are few, less than this
share of them: a row by itself has one."""
_WORSE = 0.15
"""Chance that a block is further off after it than before, from which it is not worth it either."""


def remedies_of(
    found: Inference,
    verdict: Verdict,
    plans: Mapping[int, UnitPlan] | None = None,
    *,
    blocks: int = 1,
    most_faults: int = 12,
) -> tuple[Remedy, ...]:
    """Every remedy that the faults and causes of this block call for: first what cures, by faults left, minutes and risk."""
    deviations = found.model.deviations(found.block)
    faults = tuple(f for f in faults_of(found.model, deviations) if not f.eased)[:most_faults]
    work = Work(found, verdict, plans or {}, faults, blocks, deviations)
    of_eye = list(of_mistakes.for_the_eye(work))
    if verdict.status is Status.MISTAKE:
        return (*_with_outcomes(work, list(of_mistakes.offers(work)), _now(found)), *of_eye)
    if verdict.status in (Status.DOUBTED, Status.NO_READINGS) or not found.measured:
        return tuple(of_eye)
    offered = [*of_seams.offers(work), *of_units.offers(work)]
    offered += of_whole.offers(work, cured=any(r.cures and r.possible for r in offered))
    before = _now(found)
    outcomes = _once(_with_outcomes(work, offered, before))
    if not any(r.possible for r in outcomes):
        outcomes += _with_outcomes(work, [of_whole.left_as_it_is(work)], before)
    ranked = _by_price(work, outcomes, float(faults_seen(found.model, before).mean()))
    # Nothing is left as it is before what was seen is answered.
    at = next((n for n, r in enumerate(ranked) if r.code == LEAVE and verdict.leading is None), len(ranked))
    return (*ranked[:at], *of_eye, *ranked[at:])


def done_first(verdict: Verdict, this_block: Sequence[Remedy], the_batch: Sequence[Remedy]) -> Remedy | None:
    """What is done before anything else: the first remedy that can be, for this block or else for the rest, as where this one is left as it
    is though its cause is known. Nothing is left as it is for good while a reading may yet tell why: then it is the reading that comes first."""
    first = next((r for r in this_block if r.possible), None)
    if first is None or (first.code == LEAVE and verdict.leading is not None):
        first = next(iter(the_batch), first)
    waits = verdict.status in (Status.UNSETTLED, Status.DOUBTED) and first is not None and first.code == LEAVE
    return None if verdict.status is Status.NO_READINGS or waits else first


def _now(found: Inference) -> Vector:
    """(draws, features): what is off in each possible block as it is, inches."""
    return found.model.deviations(found.sewn[_looked_at(found)])


def _looked_at(found: Inference) -> NDArray[np.int64]:
    """(draws,): the numbers of blocks that the readings leave possible, as far as was looked at. A cause of which nothing was read is
    asked for before anything is unpicked; a promise made here is of what is known."""
    looked = np.nonzero(found.looked)[0]
    return looked[:_DRAWS] if len(looked) >= _FEWEST else np.arange(min(_DRAWS, len(found.sewn)))


def _after(found: Inference, change: Change, rng: np.random.Generator) -> Vector:
    """(draws, features): what is off in each possible block after a change, inches."""
    these = _looked_at(found)
    sewn = found.sewn[these]
    factors = np.array([found.factors[s.value] for s in SOURCES])
    sd = scatter_of(found.model) * factors[sources_of(found.model)]
    after = change.of(sewn, found.draws[these])
    renewed = np.nonzero(change.renewed)[0]
    after[:, renewed] += rng.standard_normal((len(sewn), len(renewed))) * sd[renewed]
    return np.asarray(change.deviations(found.model, sewn, after))


def _with_outcomes(work: Work, offered: Sequence[Remedy], before: Vector) -> Iterator[Remedy]:
    model, now = work.model, float(faults_seen(work.model, before).mean())
    for r in offered:
        minutes = r.minutes * work.blocks if r.spread and work.blocks > 1 else None
        if r.change is None or not r.possible:
            yield replace(r, quilt_minutes=minutes)
            continue
        after = _after(work.found, r.change, np.random.default_rng(1859))
        left = faults_seen(model, after)
        mean, why_not = float(left.mean()), None
        if r.code != LEAVE and not (r.cures and work.shows_only_later):
            why_not = (
                Message("It would leave more faults than there are.")
                if mean > now + _HARMS
                else Message("It would take hardly any fault away.")
                if mean > now - min(_GAINS, now * _SHARE)
                else Message("It may leave the block further off than it is.")
                if (all_off(model, after) > all_off(model, before)).mean() > _WORSE
                else None
            )
        yield replace(
            r, left=mean, none_left=float((left == 0).mean()) >= _NONE_LEFT, why_not=why_not, quilt_minutes=minutes
        )


def _once(offered: Iterator[Remedy]) -> list[Remedy]:
    kept: dict[str, Remedy] = {}
    for r in offered:
        kept.setdefault(r.code, r)
    return list(kept.values())


_A_FAULT, _CURE = 12, 6
"""Minutes that one fault fewer is worth, and that it is to put the cause right."""


def _by_price(work: Work, offered: Sequence[Remedy], now: float) -> tuple[Remedy, ...]:
    """Faults left and minutes on one scale; of two alike, the one that puts the cause right. One that no size tells of mends what it
    answers."""

    def price(r: Remedy) -> float:
        left = now - max(len(r.faults), int(r.aside)) if r.left is None else r.left
        return _A_FAULT * left + r.minutes - (_CURE if r.cures else 0)

    named = work.verdict.leading is not None
    cured = any(r.possible and r.cures for r in offered)
    # What says to measure before anything is unpicked stands before all that is unpicked.
    # Nobody pins crossings that step because of what is named while that can be cured.
    return tuple(
        sorted(
            offered,
            key=lambda r: (
                not r.possible,
                r.code != "wait",
                named and (r.aside or (cured and r.code == "match")),
                price(r),
                r.code,
            ),
        )
    )
