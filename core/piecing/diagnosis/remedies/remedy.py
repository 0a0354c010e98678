"""A remedy, what it does to the block, and what remedies are worked out from.

Each says what it makes of the errors of units and seams: some are changed, some are sewn or made anew and vary as these hands do.
Source: docs/theory, section 14.10.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from ...messages import Message
from ...planning.unit_plan import UnitPlan
from ..causes import Cause, Parameter
from ..faults import Fault
from ..inference import Inference
from ..model import BlockModel, Vector
from ..reading_kinds import OF_ANY_BLOCK, OF_THE_BLOCK, RAW_SIZES
from ..verdict import Verdict

__all__ = ["FOLD_PAID", "LEAVE", "Change", "Remedy", "RemedyMinutes", "Work", "fold_taken"]

LEAVE = "leave"
"""The code of leaving a block as it is."""
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
