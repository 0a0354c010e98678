"""What every way of making a unit answers. A new method is a new implementation of ``UnitMethod``.

All lengths in inches. Source of every size formula: docs/theory.md, section 4.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

from ..geometry.sewing import Piece
from ..lengths import Length
from ..seams import Seam
from ..surd import Surd

__all__ = ["Batch", "CutPieces", "UnitMethod"]


@dataclass(frozen=True, slots=True)
class CutPieces:
    """``count`` squares of side ``size`` from the fabric in ``role`` ("a", "b", ...)."""

    role: str
    count: int
    size: Length


@dataclass(frozen=True, slots=True)
class Batch:
    """What one go of a method takes and gives: squares of each fabric in, units out."""

    squares_per_role: tuple[tuple[str, int], ...]
    units: int


class UnitMethod(Protocol):
    """One way of making one kind of unit from squares of one cut size."""

    @property
    def kind(self) -> str: ...
    @property
    def name(self) -> str: ...
    @property
    def batch(self) -> Batch: ...

    def raw(self, cut: Length, take_up: Length) -> Length:
        """R: raw side of the sewn and pressed unit, before trimming."""

    def cut_for(self, raw: Length, take_up: Length) -> Length:
        """C, unrounded: the square whose raw unit is exactly ``raw``. Inverse of ``raw``."""

    def rule_size(self, finished: Length, allowance: Length, generosity: int) -> Length:
        """The rule-of-thumb cut of a school: finished size plus so many seam allowances."""

    def trimmings(self, cut: Length, target: Length, take_up: Length) -> Surd:
        """Square inches of cloth cut off one unit in trimming it to ``target``, dog ears included."""

    def sew(self, cut: float, seam: Seam, take_up_at_end: float | None = None) -> Piece:
        """One raw unit, made step by step on the engine; lower left visible corner at the origin."""
