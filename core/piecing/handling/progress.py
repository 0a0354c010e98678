"""What is done and what is left at the bench: of a lot, of a unit, of a block. Pure counting; whoever did it and when is kept
elsewhere.

Source: docs/theory, section 15.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass

from ..errors import MoreThanMade
from .steps import BenchStage

__all__ = ["HowFar", "LotDone", "Tally", "check_count", "how_far", "tally_of", "to_make_of"]


@dataclass(frozen=True, slots=True)
class HowFar:
    """Whether everything that is to be sewn of a lot is, whether it is pressed too, and whether every step is done."""

    sewn: bool
    pressed: bool
    whole: bool


def how_far(steps: Mapping[str, BenchStage], done: Collection[str]) -> HowFar:
    """How far a lot is: the stage of each of its ``steps`` by name, and those that are ``done``. Pressed is only what is sewn."""
    sew = [k for k, s in steps.items() if s is BenchStage.SEW]
    press = [k for k, s in steps.items() if s is BenchStage.PRESS]
    sewn = bool(sew) and all(k in done for k in sew)
    return HowFar(sewn, sewn and all(k in done for k in press), bool(steps) and all(k in done for k in steps))


@dataclass(frozen=True, slots=True)
class LotDone:
    """The ``units`` out of a lot, and how far they are. ``counts`` unless it was made to an earlier plan of another unit."""

    units: int
    sewn: bool
    pressed: bool
    counts: bool = True


def to_make_of(wanted: int, ready: int, spoiled: int) -> int:
    """How many units have to be made when so many are ready from elsewhere: spoiled ones again."""
    return max(0, wanted - ready) + spoiled


@dataclass(frozen=True, slots=True)
class Tally:
    """Units ``wanted``, ``ready`` from elsewhere, and through each stage; ``spoiled`` ones are made again."""

    wanted: int
    ready: int
    sewn: int
    pressed: int
    trimmed: int
    spoiled: int

    @property
    def to_make(self) -> int:
        """How many have to be made at this bench, spoiled ones again."""
        return to_make_of(self.wanted, self.ready, self.spoiled)

    @property
    def good(self) -> int:
        """Trimmed and sound, those ready from elsewhere with them."""
        return self.ready + max(0, self.trimmed - self.spoiled)

    @property
    def left_to_trim(self) -> int:
        """Units still to trim of those wanted."""
        return max(0, self.to_make - self.trimmed)

    @property
    def trim_now(self) -> int:
        """Units that are sewn and not trimmed yet."""
        return max(0, self.sewn - self.trimmed)

    @property
    def finished(self) -> bool:
        """Whether there are as many sound ones as are wanted."""
        return self.good >= self.wanted


def tally_of(
    wanted: int, ready: int, lots: Iterable[LotDone], trimmed: int, spoiled: int, *, sewn: bool = True
) -> Tally:
    """Counted from its lots. A unit without a seam (``sewn`` false) is as far as it is trimmed, or cut."""
    counted = [lot for lot in lots if lot.counts]
    through = sum(lot.units for lot in counted if lot.sewn)
    pressed = sum(lot.units for lot in counted if lot.pressed)
    if not sewn:
        through = pressed = to_make_of(wanted, ready, spoiled)
    return Tally(wanted, ready, through, pressed, trimmed, spoiled)


def check_count(stage: str, count: int, now: int, there: int) -> None:
    """Raises ``MoreThanMade`` when a count would go above what there is, or under nothing."""
    if now + count > there:
        raise MoreThanMade(
            "{n, plural, one {One unit is} other {# units are}} there to be {stage}; {now} of them are already. Count again, or put "
            "down first what was made.",
            field="count",
            n=there,
            stage=stage,
            now=now,
        )
    if now + count < 0:
        raise MoreThanMade(
            "Only {now} are put down as {stage}: no more can be taken back.", field="count", now=now, stage=stage
        )
