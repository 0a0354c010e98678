"""A remedy, what it does to the block, and the order in which remedies are offered.

Each says what it makes of the errors of units and seams: some are changed, some are sewn or made anew and vary as these hands
do. Faults left are counted over the blocks that the readings leave possible, never on one of them.
Source: docs/theory, section 14.10.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

from ...messages import Message
from ...planning.unit_plan import UnitPlan
from ..causes import SOURCES, scatter_of, sources_of
from ..faults import Fault, faults_of, faults_seen
from ..inference import Inference
from ..model import BlockModel, FeatureKind, Vector
from ..readings import OF_ANY_BLOCK, OF_THE_BLOCK, ReadingKind
from ..verdict import Status, Verdict

__all__ = ["FOLD_PAID", "Change", "Remedy", "RemedyMinutes", "Work", "remedies_of"]

_DRAWS, _FEWEST = 300, 60
_RAW = (ReadingKind.RAW_WIDTH, ReadingKind.RAW_HEIGHT)
_UNPICK = re.compile(r"\bunpick\b", re.IGNORECASE)
"""What the hand is told to do; "nothing is unpicked" is no such thing."""
FOLD_PAID = 1 / 110
"""Inches of each fabric that a fold takes, from which a scant seam pays for it: more than is held likely of one that nobody measured."""
_NONE_LEFT = 0.8
_HARMS = 0.25
"""Faults; a remedy that is expected to leave so many more than there are is not offered."""


@dataclass(frozen=True, slots=True)
class RemedyMinutes:
    """At the bench, by practice: to unpick, sew, make, trim, press or cut the pieces of one seam or unit."""

    UNPICK = 3
    SEW = 2
    UNIT = 6
    TRIM = 1
    PRESS = 1
    CUT = 2


@dataclass(frozen=True)
class Change:
    """What a remedy makes of the errors: ``by`` (errors,) is added; those in ``renewed`` become ``to`` (errors,), each with
    the scatter of these hands. ``accepted`` is what every edge may be off because that is the new size, inches. ``on_one_spot``: done
    over an inch or two, where what rows and columns lose or gain is held in (craft: fine to about 1/16)."""

    by: Vector
    renewed: NDArray[np.bool_]
    to: Vector
    accepted: float = 0.0
    on_one_spot: bool = False

    @staticmethod
    def none(model: BlockModel) -> Change:
        """A change that changes nothing."""
        zero = np.zeros(model.errors)
        return Change(zero, np.zeros(model.errors, dtype=bool), zero)

    def of(self, errors: Vector) -> Vector:
        """The block's errors after it, on the mean: (errors,) or (draws, errors)."""
        return np.asarray(np.where(self.renewed, self.to, errors + self.by))


@dataclass(frozen=True)
class Remedy:
    """``change`` is None when nothing of it can be drawn. ``left`` is how many faults stay on the mean, ``none_left`` whether
    it is likely that none does; None when sizes do not tell. ``minutes`` are for this block, ``quilt_minutes`` for all that
    are sewn alike. ``why_not`` says why it cannot be done or is not worth it; ``faults`` are the numbers it answers; ``pieces`` what it
    cuts anew, for units of ``batch``. ``aside``: it answers what was read of one piece, beside the verdict."""

    code: str
    title: Message
    how: Message
    effect: Message
    risk: Message
    minutes: int
    change: Change | None = None
    pieces: Message | None = None
    batch: int | None = None
    why_not: Message | None = None
    left: float | None = None
    none_left: bool = False
    faults: tuple[int, ...] = ()
    cures: bool = False
    spread: bool = False
    """Whether all blocks sewn alike need it."""
    aside: bool = False
    """Whether it answers what was read of one piece, beside what the verdict is about: where a cause is named, that comes first."""
    quilt_minutes: int | None = None

    @property
    def possible(self) -> bool:
        """Whether it can be done; one that cannot says why not."""
        return self.why_not is None

    @property
    def unpicks(self) -> bool:
        """Whether a seam ripper is taken in hand: then the usual care of its point stands there."""
        return any(_UNPICK.search(said.template) for said in (self.title, self.how))


@dataclass(frozen=True)
class Work:
    """What remedies are worked out from: the diagnosis, the verdict, the block on the mean and its faults."""

    found: Inference
    verdict: Verdict
    plans: Mapping[int, UnitPlan]
    faults: tuple[Fault, ...]
    blocks: int = 1
    deviations: Vector = field(default_factory=lambda: np.zeros(0))

    @property
    def model(self) -> BlockModel:
        """The model of the block that is being mended."""
        return self.found.model

    @property
    def block(self) -> Vector:
        """The errors of the block as they are judged, in inches, shape (errors,)."""
        return self.found.block

    @property
    def unjoined(self) -> bool:
        """Whether units were read as they come from the machine, and nothing that they are joined to."""
        kinds = {self.found.readings[n].kind for n in self.found.weighed}
        named = any(self.found.readings[n].seam for n in self.found.weighed)
        return bool(kinds & {*_RAW}) and not kinds & {*OF_THE_BLOCK, *OF_ANY_BLOCK} and not named

    def stitched(self, seam: int, spot: str = "") -> float:
        """Stitching distance of one seam on the mean, at a spot or all along, inches."""
        m = self.model
        extra = float(self.block[m.of_seam(seam, spot)]) if spot else 0.0
        return float(m.allowance) + float(self.block[m.of_seam(seam, "mean")]) + extra

    def fold(self) -> float:
        """What a seam swallows in the fold, inches."""
        return max(0.0, float(self.found.mean[3]))

    def stitch_for(self, take_up: float = 0.0) -> float:
        """The distance to stitch at so that each fabric loses just the allowance, and ``take_up`` more; a fold that takes less than half a
        thread of each fabric is left out, since no guide is set so finely."""
        less = self.fold() / 2
        return float(self.model.allowance) - (less if less > FOLD_PAID else 0.0) + take_up


def remedies_of(
    found: Inference,
    verdict: Verdict,
    plans: Mapping[int, UnitPlan] | None = None,
    *,
    blocks: int = 1,
    most_faults: int = 12,
) -> tuple[Remedy, ...]:
    """Every remedy that the faults and causes of this block call for: first what cures, by faults left, minutes and risk."""
    from . import of_mistakes, of_seams, of_units, of_whole

    deviations = found.model.deviations(found.block)
    faults = tuple(f for f in faults_of(found.model, deviations) if not f.eased)[:most_faults]
    work = Work(found, verdict, plans or {}, faults, blocks, deviations)
    of_eye = list(of_mistakes.for_the_eye(work))
    if verdict.status is Status.MISTAKE:
        return (*_counted(work, list(of_mistakes.offered(work)), _faults_now(found)), *of_eye)
    if verdict.status in (Status.DOUBTED, Status.NO_READINGS) or not found.measured:
        return tuple(of_eye)
    offered = [*of_seams.offered(work), *of_units.offered(work)]
    offered += of_whole.offered(work, cured=any(r.cures and r.possible for r in offered))
    now = _faults_now(found)
    ranked = _ranked(work, _once(_counted(work, offered, now)), now)
    # Nothing is left as it is before what was seen is answered.
    at = next((n for n, r in enumerate(ranked) if r.code == "leave" and verdict.leading is None), len(ranked))
    return (*ranked[:at], *of_eye, *ranked[at:])


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


def _counted(work: Work, offered: Sequence[Remedy], now: float) -> Iterator[Remedy]:
    for r in offered:
        minutes = r.minutes * work.blocks if r.spread and work.blocks > 1 else None
        if r.change is None or not r.possible:
            yield replace(r, quilt_minutes=minutes)
            continue
        left = faults_left(work.found, r.change, np.random.default_rng(1859))
        mean = float(left.mean())
        why_not = None
        if mean > now + _HARMS and r.code != "leave":
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


def _ranked(work: Work, offered: Sequence[Remedy], now: float) -> tuple[Remedy, ...]:
    """Faults left and minutes on one scale; of two alike, the one that puts the cause right. One that no size tells of mends what it
    answers."""

    def price(r: Remedy) -> float:
        left = now - max(len(r.faults), int(r.aside)) if r.left is None else r.left
        return _A_FAULT * left + r.minutes - (_CURE if r.cures else 0) - (_OF_ONE if r.cures and one else 0)

    named = work.verdict.leading is not None
    one = work.verdict.leading is not None and work.verdict.leading.single
    # What says to measure before anything is unpicked stands before all that is unpicked.
    return tuple(sorted(offered, key=lambda r: (not r.possible, r.code != "wait", named and r.aside, price(r), r.code)))
