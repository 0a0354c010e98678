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
from ..faults import faults_of, faults_seen
from ..inference import Inference
from ..model import FeatureKind
from ..verdict import Status, Verdict
from . import of_mistakes, of_seams, of_units, of_whole
from .remedy import LEAVE, Change, Remedy, Work

__all__ = ["done_first", "faults_left", "possible_blocks", "remedies_of"]

_DRAWS, _FEWEST = 300, 60
_NONE_LEFT = 0.8
_HARMS = 0.25
"""Faults; a remedy that is expected to leave so many more than there are is not offered."""


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
        return (*_with_outcomes(work, list(of_mistakes.offers(work)), _faults_now(found)), *of_eye)
    if verdict.status in (Status.DOUBTED, Status.NO_READINGS) or not found.measured:
        return tuple(of_eye)
    offered = [*of_seams.offers(work), *of_units.offers(work)]
    offered += of_whole.offers(work, cured=any(r.cures and r.possible for r in offered))
    now = _faults_now(found)
    ranked = _by_price(work, _once(_with_outcomes(work, offered, now)), now)
    # Nothing is left as it is before what was seen is answered.
    at = next((n for n, r in enumerate(ranked) if r.code == LEAVE and verdict.leading is None), len(ranked))
    return (*ranked[:at], *of_eye, *ranked[at:])


def done_first(verdict: Verdict, this_block: Sequence[Remedy], the_batch: Sequence[Remedy]) -> Remedy | None:
    """What is done before anything else: the first remedy that can be, for this block or else for the rest. Nothing is left as it is for
    good while a reading may yet tell why: then it is the reading that comes first."""
    first = next((r for r in this_block if r.possible), None) or next(iter(the_batch), None)
    waits = verdict.status in (Status.UNSETTLED, Status.DOUBTED) and first is not None and first.code == LEAVE
    return None if verdict.status is Status.NO_READINGS or waits else first


def _faults_now(found: Inference) -> float:
    """How many faults that pins do not ease the block has, expected over those that are possible."""
    return float(faults_seen(found.model, found.model.deviations(possible_blocks(found))).mean())


def possible_blocks(found: Inference) -> NDArray[np.float32]:
    """(draws, errors): blocks that the readings leave possible, as far as was looked at. A cause of which nothing was read is
    asked for before anything is unpicked; a promise made here is of what is known."""
    looked = np.nonzero(found.looked)[0]
    return np.asarray(found.sewn[looked[:_DRAWS]] if len(looked) >= _FEWEST else found.sewn[:_DRAWS])


def faults_left(found: Inference, change: Change, rng: np.random.Generator) -> NDArray[np.int64]:
    """(draws,): how many faults that pins do not ease in each possible block has after a change."""
    sewn = possible_blocks(found)
    factors = np.array([found.factors[s.value] for s in SOURCES])
    sd = scatter_of(found.model) * factors[sources_of(found.model)]
    after = sewn + change.by.astype(np.float32)
    renewed = np.nonzero(change.renewed)[0]
    after[:, renewed] = change.to[renewed] + rng.standard_normal((len(sewn), len(renewed))) * sd[renewed]
    deviations = found.model.deviations(after)
    if change.on_one_spot:
        lengths = [n for n, f in enumerate(found.model.features) if f.kind in (FeatureKind.ROW, FeatureKind.COLUMN)]
        deviations[:, lengths] = found.model.deviations(sewn)[:, lengths]
    return faults_seen(found.model, deviations, change.accepted)


def _with_outcomes(work: Work, offered: Sequence[Remedy], now: float) -> Iterator[Remedy]:
    for r in offered:
        minutes = r.minutes * work.blocks if r.spread and work.blocks > 1 else None
        if r.change is None or not r.possible:
            yield replace(r, quilt_minutes=minutes)
            continue
        left = faults_left(work.found, r.change, np.random.default_rng(1859))
        mean = float(left.mean())
        why_not = None
        if mean > now + _HARMS and r.code != LEAVE:
            why_not = Message("It would leave more faults than there are.")
        yield replace(
            r, left=mean, none_left=float((left == 0).mean()) >= _NONE_LEFT, why_not=why_not, quilt_minutes=minutes
        )


def _once(offered: Iterator[Remedy]) -> list[Remedy]:
    kept: dict[str, Remedy] = {}
    for r in offered:
        kept.setdefault(r.code, r)
    return list(kept.values())


_A_FAULT, _CURE, _OF_ONE = 12, 6, 14
"""Minutes that one fault fewer is worth, that it is to put the cause right, and what more where that is one seam or one unit: nobody
patches round it."""


def _by_price(work: Work, offered: Sequence[Remedy], now: float) -> tuple[Remedy, ...]:
    """Faults left and minutes on one scale; of two alike, the one that puts the cause right. One that no size tells of mends what it
    answers."""

    def price(r: Remedy) -> float:
        left = now - max(len(r.faults), int(r.aside)) if r.left is None else r.left
        return _A_FAULT * left + r.minutes - (_CURE if r.cures else 0) - (_OF_ONE if r.cures and one else 0)

    named = work.verdict.leading is not None
    one = work.verdict.leading is not None and work.verdict.leading.single
    # What says to measure before anything is unpicked stands before all that is unpicked.
    return tuple(sorted(offered, key=lambda r: (not r.possible, r.code != "wait", named and r.aside, price(r), r.code)))
