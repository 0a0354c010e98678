"""Which cause leads, how sure that is, and what each adds to every fault.

Source: docs/theory.md, section 14.8.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..diagnosis.verdict import Status
from ..lengths import Length
from ..wording import Said
from .causes import LEADING, Parameter, SewnCause, shape_of
from .inference import INTERVAL_90, Inference
from .model import FeatureKind, SewnModel
from .places import batch_name
from .readings import feature_name

__all__ = ["NOTHING", "SETTLED", "Lead", "Share", "Status", "Verdict", "cause_said", "contenders_of", "judge"]

SETTLED = (0.9, 0.82, 0.42)
"""Probability from which one cause is named: while something that may lead was not looked at, once all was, and with ten
readings or more."""
_MANY = 10
_NEARLY = 0.2
"""Chance to lead from which a second cause that is sure is named beside the first."""
_MAY_LEAD, _LOOKED_AT = 0.04, 0.6
_LEAST_REACH = 1 / 16
NOTHING = 1 / 50
"""Inches; causes below this are the hand's own scatter."""


@dataclass(frozen=True, slots=True)
class Lead:
    """A cause with its estimate (inches beyond what is wanted), its 90% interval, and how likely it is the largest."""

    parameter: Parameter
    mean: float
    low: float
    high: float
    leads: float
    said: Said


@dataclass(frozen=True, slots=True)
class Share:
    """What each cause adds to one figure of the block, in inches; ``parts`` by parameter, ``rest`` the units' own scatter."""

    feature: str
    name: str
    whole: float
    low: float
    high: float
    parts: tuple[tuple[Parameter, float], ...]
    rest: float


@dataclass(frozen=True)
class Verdict:
    status: Status
    leads: tuple[Lead, ...]
    leading: Parameter | None
    beside: Parameter | None
    sure: float
    shares: tuple[Share, ...]

    @property
    def reach(self) -> float:
        """Inches either side of zero that hold every interval: half the width of a picture of them."""
        return 1.05 * max([_LEAST_REACH, *(abs(x) for lead in self.leads for x in (lead.low, lead.high))])


_WORDS: dict[SewnCause, tuple[str, str]] = {
    SewnCause.SEAM: ("seams sewn {size} too narrow", "seams sewn {size} too wide"),
    SewnCause.START: ("seams drift {size} narrow at their start", "seams drift {size} wide at their start"),
    SewnCause.END: ("seams drift {size} narrow at their end", "seams drift {size} wide at their end"),
    SewnCause.FOLD: ("each fold swallows {size} less than reckoned", "each fold swallows {size} more than reckoned"),
    SewnCause.TRIM: ("trimmed {size} too small", "trimmed {size} too large"),
    SewnCause.SHIFT: ("trimmed {size} off the diagonal", "trimmed {size} off the diagonal"),
    SewnCause.TIP: ("trimmed with {size} too little above the tip", "trimmed with {size} too much above the tip"),
    SewnCause.CUT: ("pieces cut {size} too small", "pieces cut {size} too large"),
    SewnCause.STRETCH: ("drawn in by {size} on the bias", "stretched by {size} on the bias"),
}


def cause_said(model: SewnModel, p: Parameter, mean: float) -> Said:
    """A cause of this size in words."""
    less, more = _WORDS[p.cause]
    who = f"{batch_name(model.places, p.batch)} " if p.batch >= 0 else ""
    return Said(who + (more if mean > 0 else less), size=Length.near(abs(mean)))


def contenders_of(found: Inference) -> list[int]:
    return [n for n, p in enumerate(found.parameters) if p.cause in LEADING]


def judge(found: Inference) -> Verdict:
    """The leading cause, or that the readings do not settle it."""
    contenders = contenders_of(found)
    sizes = np.abs((found.draws - found.prior.wanted)[:, contenders])
    first = np.argmax(sizes, axis=1)
    leads = np.bincount(first, minlength=len(contenders)) / len(first)
    small = float((sizes.max(axis=1) < NOTHING).mean())
    order = np.argsort(-leads)
    top = [found.parameters[contenders[k]] for k in order]
    by = {found.parameters[contenders[k]].key: float(leads[k]) for k in range(len(contenders))}
    count = sum(e is not None for e in found.equations)
    measured = count > 0
    looked = _all_measured(found, leads, contenders)
    enough = SETTLED[0] if not looked else SETTLED[1] if count < _MANY else SETTLED[2]
    sure = float(leads[order[0]])
    spoken = _spoken(found, contenders[order[0]])
    if not found.readings:
        status = Status.NO_READINGS
    elif measured and small >= SETTLED[0]:
        status, sure = Status.TRUE, small
    elif measured and all(_spoken(found, contenders[k]) for k in order[:2]) and leads[order[1]] > _NEARLY:
        status = Status.SEVERAL
    elif measured and sure >= enough and spoken:
        status = Status.SETTLED
    else:
        status = Status.UNSETTLED
    named = status in (Status.SETTLED, Status.SEVERAL)
    return Verdict(
        status,
        tuple(sorted(_leads(found, by), key=lambda x: (-x.leads, -abs(x.mean)))),
        top[0] if named else None,
        top[1] if status is Status.SEVERAL else None,
        sure,
        tuple(_shares(found)),
    )


def _all_measured(found: Inference, leads: NDArray[np.float64], contenders: list[int]) -> bool:
    """Whether the readings speak of every cause that may lead: a surprise can hide only in what was not looked at."""
    return all(found.narrowed[n] < _LOOKED_AT for n, p in zip(contenders, leads, strict=True) if p > _MAY_LEAD)


def _spoken(found: Inference, n: int) -> bool:
    """Whether its interval keeps one sign and it is more than the hand's own scatter."""
    low, high = (x - found.prior.wanted[n] for x in found.interval(n))
    return bool(low * high > 0) and abs(found.mean[n] - found.prior.wanted[n]) > NOTHING / 2


def _leads(found: Inference, by: Mapping[str, float]) -> Iterator[Lead]:
    for n, p in enumerate(found.parameters):
        mean = float(found.mean[n] - found.prior.wanted[n])
        low, high = (x - float(found.prior.wanted[n]) for x in found.interval(n))
        yield Lead(p, mean, low, high, by.get(p.key, 0.0), cause_said(found.model, p, mean))


def _shares(found: Inference) -> Iterator[Share]:
    """Every figure of the block that is off, or was measured, taken apart; the worst of each kind."""
    shape = found.model.matrix @ shape_of(found.model)
    own = found.model.matrix @ found.errors
    away = found.mean - found.prior.wanted
    nothing = found.model.matrix @ shape_of(found.model) @ found.prior.wanted
    seen: dict[FeatureKind, int] = {}
    values = shape @ found.mean + own
    for n in np.argsort(-np.abs(values)):
        f = found.model.features[n]
        if seen.get(f.kind, 0) >= 2:
            continue
        seen[f.kind] = seen.get(f.kind, 0) + 1
        parts = [(p, float(shape[n, k] * away[k])) for k, p in enumerate(found.parameters)]
        sd = float(np.sqrt(shape[n] @ found.covariance @ shape[n]))
        whole = float(values[n])
        yield Share(
            f.key,
            feature_name(found.model, int(n)),
            whole,
            whole - INTERVAL_90 * sd,
            whole + INTERVAL_90 * sd,
            tuple(x for x in sorted(parts, key=lambda x: -abs(x[1])) if abs(x[1]) > 1 / 256)[:5],
            float(own[n]) + float(nothing[n]),
        )
