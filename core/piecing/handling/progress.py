"""What is done and what is left at the bench: of a lot, of a unit, of a block. Pure counting; whoever did it and when is kept
elsewhere.

Source: docs/theory, section 15.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass

from ..errors import MoreThanMade
from .steps import BenchStage

__all__ = ["LotDone", "Tally", "check_count", "first_left", "tally_of"]


@dataclass(frozen=True, slots=True)
class LotDone:
    """A lot with the names of its steps by stage, and of those that are done; ``units`` come out of it. ``counts`` unless it
    was made to an earlier plan of another unit."""

    units: int
    steps: tuple[tuple[str, BenchStage], ...]
    done: frozenset[str]
    counts: bool = True

    def through(self, *stages: BenchStage) -> bool:
        """Whether every step of these stages is done; a lot without any step of them is through when all it has is done."""
        wanted = [k for k, s in self.steps if s in stages]
        return all(k in self.done for k in wanted) if wanted else self.finished

    @property
    def finished(self) -> bool:
        """Whether all of its steps are done."""
        return all(k in self.done for k, _ in self.steps)

    @property
    def begun(self) -> bool:
        """Whether anything of it is done."""
        return any(k in self.done for k, _ in self.steps)


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
        return max(0, self.wanted - self.ready) + self.spoiled

    @property
    def good(self) -> int:
        """Trimmed and sound, those ready from elsewhere with them."""
        return self.ready + max(0, self.trimmed - self.spoiled)

    @property
    def left_to_trim(self) -> int:
        """Units still to trim of those wanted."""
        return max(0, self.to_make - self.trimmed)

    @property
    def finished(self) -> bool:
        """Whether there are as many sound ones as are wanted."""
        return self.good >= self.wanted


def tally_of(
    wanted: int, ready: int, lots: Iterable[LotDone], trimmed: int, spoiled: int, *, sewn: bool = True
) -> Tally:
    """Counted from its lots. A unit without a seam (``sewn`` false) is as far as it is trimmed, or cut."""
    counted = [lot for lot in lots if lot.counts]
    through = sum(lot.units for lot in counted if lot.steps and lot.through(BenchStage.SEW))
    pressed = sum(lot.units for lot in counted if lot.steps and lot.through(BenchStage.SEW, BenchStage.PRESS))
    if not sewn:
        through = pressed = max(0, wanted - ready) + spoiled
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


def first_left(steps: Sequence[str], done: Collection[str]) -> str | None:
    """The first step that is not done."""
    return next((s for s in steps if s not in done), None)
