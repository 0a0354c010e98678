"""A remedy, what it does to the block, and what remedies are worked out from.

Each says what it makes of the errors of units and seams: some are changed, some are sewn or made anew and vary as these hands do.
Source: docs/theory, section 14.10.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ...messages import Message
from ...planning.unit_plan import UnitPlan
from ..causes import Cause, Parameter, parameters_of
from ..faults import EASED, SEEN, Fault
from ..inference import Inference
from ..model import BlockModel, FeatureKind, Vector
from ..reading_kinds import OF_ANY_BLOCK, OF_THE_BLOCK, RAW_SIZES, ReadingKind
from ..verdict import Verdict

__all__ = ["FOLD_PAID", "LEAVE", "PINNED", "Change", "Remedy", "RemedyMinutes", "Work", "fold_taken"]

LEAVE = "leave"
"""The code of leaving a block as it is."""
PINNED = EASED + SEEN
"""Inches of a step at a crossing that pins take up so that no pucker is seen."""
_UNPICK = re.compile(r"\bunpick\b", re.IGNORECASE)
"""What the hand is told to do; "nothing is unpicked" is no such thing."""
FOLD_PAID = 1 / 110
"""Inches of each fabric that a fold takes, from which a scant seam pays for it: more than is held likely of one that nobody measured."""


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
    over an inch or two, where what rows and columns lose or gain is held in (craft: fine to about 1/16). ``held``: the numbers of
    features that are pinned so that they meet. ``habits``: by the number of an error that is renewed, that of the cause with which this
    hand does it again, whatever it is told."""

    by: Vector
    renewed: NDArray[np.bool_]
    to: Vector
    accepted: float = 0.0
    on_one_spot: bool = False
    held: tuple[int, ...] = ()
    habits: Mapping[int, int] = field(default_factory=dict)

    @staticmethod
    def none(model: BlockModel) -> Change:
        """A change that changes nothing."""
        zero = np.zeros(model.errors)
        return Change(zero, np.zeros(model.errors, dtype=bool), zero)

    def of(self, errors: NDArray[Any], causes: NDArray[Any]) -> NDArray[Any]:
        """The errors after it, (errors,) or (draws, errors), of a block where causes are as large as ``causes``, (parameters,) or
        (draws, parameters)."""
        after = np.where(self.renewed, self.to, errors + self.by).astype(errors.dtype)
        for n, p in self.habits.items():
            after[..., n] += causes[..., p]
        return np.asarray(after)

    def sewn_anew(self, model: BlockModel, seams: Iterable[int], at: float | None = None) -> Change:
        """These seams besides, all along: told to stitch ``at`` so many inches from the raw edge, or as this hand does. Their ends come out
        as it sews the ends of any."""
        renewed, to, habits = self.renewed.copy(), self.to.copy(), dict(self.habits)
        number = {p.cause: n for n, p in enumerate(parameters_of(model)) if p.batch < 0}
        for k in seams:
            for spot in ("mean", "start", "middle", "end"):
                renewed[model.of_seam(k, spot)] = True
            if at is None:
                habits[model.of_seam(k, "mean")] = number[Cause.SEAM]
            else:
                to[model.of_seam(k, "mean")] = at - float(model.allowance)
            habits[model.of_seam(k, "start")] = number[Cause.START]
            habits[model.of_seam(k, "end")] = number[Cause.END]
        return replace(self, renewed=renewed, to=to, habits=habits)

    def deviations(self, model: BlockModel, before: NDArray[Any], after: NDArray[Any]) -> NDArray[Any]:
        """What is off, inches, (features,) or (draws, features), when the errors ``before`` became those ``after``."""
        found = model.deviations(after)
        edges = [n for n, f in enumerate(model.features) if f.kind in (FeatureKind.ROW, FeatureKind.COLUMN)]
        if self.on_one_spot:
            found[..., edges] = model.deviations(before)[..., edges]
        found[..., edges] -= self.accepted
        held = list(self.held)
        found[..., held] = np.where(np.abs(found[..., held]) <= PINNED, 0.0, found[..., held])
        return found

    @property
    def is_drawn(self) -> bool:
        """Whether a drawing of the block shows it."""
        return bool(self.by.any() or self.renewed.any() or self.accepted)


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
    def promised(self) -> float | None:
        """Faults left on the mean; None where sizes do not tell, or where nothing is done about those that are listed."""
        return None if self.code == LEAVE else self.left

    @property
    def unpicks(self) -> bool:
        """Whether a seam ripper is taken in hand: then the usual care of its point stands there."""
        return any(_UNPICK.search(str(said)) for said in (self.title, self.how))


def fold_taken(found: Inference, verdict: Verdict) -> float:
    """What a seam swallows in the fold, inches: as the headline says where it is named, what is believed of it where it is not."""
    named = found.estimate(Parameter(Cause.FOLD))
    says = verdict.leading == named.parameter and named.measured
    return max(0.0, named.size if says else float(found.mean[3]))


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
        return bool(kinds & {*RAW_SIZES}) and not kinds & {*OF_THE_BLOCK, *OF_ANY_BLOCK} and not named

    @property
    def joined(self) -> bool:
        """Whether something that was read is seen only where units are joined. If not they may be, and nobody said so."""
        kinds = {self.found.readings[n].kind for n in self.found.weighed}
        return not self.unjoined and bool(kinds & {*OF_THE_BLOCK, *OF_ANY_BLOCK, ReadingKind.STITCH})

    @cached_property
    def shows_later(self) -> bool:
        """Whether what leads moves points that lie at the block's own edge: no seam of it shows them, and the quilt will."""
        p, places = self.verdict.leading, self.model.places
        if p is None or p.cause not in (Cause.SHIFT, Cause.TIP):
            return False
        cells = places.cells
        ends = [(t.cell, t.side) for t in places.edge_tips]
        ends += [(t.cell, side) for t in places.corner_tips for side in (t.across, t.down)]
        return any(cells[n].batch == p.batch and cells[n].seam(side) is None for n, side in ends)

    @property
    def shows_here(self) -> bool:
        """Whether a fault is listed that comes of what leads, or of anything where that shows in this block."""
        p, cells = self.verdict.leading, self.model.places.cells
        if p is None or not self.shows_later:
            return bool(self.faults)
        points = (FeatureKind.EDGE_TIP, FeatureKind.CORNER_TIP)
        return any(f.feature.kind in points and cells[f.feature.cell].batch == p.batch for f in self.faults)

    @property
    def shows_only_later(self) -> bool:
        """Whether no fault of this block comes of what leads, and the quilt will have some."""
        return self.shows_later and not self.shows_here

    def units_of(self, batch: int) -> list[int]:
        """The numbers of the units of a batch."""
        return [c.number for c in self.model.places.cells if c.batch == batch]

    def seams_beside(self, units: Iterable[int]) -> list[int]:
        """Every seam beside one of these units, once."""
        return sorted({k for n in units for k in self.model.places.cells[n].seams if k is not None})

    def unpicked_first(self, count: int) -> Message:
        """What is said before so many units are taken in hand again."""
        return Message(
            "Unpick {count, plural, one {it} other {them}}."
            if self.joined
            else "Unpick {count, plural, one {it if it is} other {them if they are}} joined.",
            count=count,
        )

    def minutes_to_handle(self, units: Sequence[int]) -> int:
        """Minutes to unpick these units and to sew them in again."""
        return len(self.seams_beside(units)) * (RemedyMinutes.UNPICK + RemedyMinutes.SEW) if self.joined else 0

    def stitching_distance(self, seam: int, spot: str = "") -> float:
        """Stitching distance of one seam on the mean, at a spot or all along, inches."""
        m = self.model
        extra = float(self.block[m.of_seam(seam, spot)]) if spot else 0.0
        return float(m.allowance) + float(self.block[m.of_seam(seam, "mean")]) + extra

    def fold(self) -> float:
        """What a seam swallows in the fold, inches."""
        return fold_taken(self.found, self.verdict)

    def stitch_for(self, take_up: float = 0.0) -> float:
        """The distance to stitch at so that each fabric loses just the allowance, and ``take_up`` more; a fold that takes less than half a
        thread of each fabric is left out, since no guide is set so finely."""
        less = self.fold() / 2
        return float(self.model.allowance) - (less if less > FOLD_PAID else 0.0) + take_up
