"""The rulers a quilter owns, and which of them will do. All lengths in inches. Source: docs/theory, section 6."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..errors import RulerImpossible
from ..lengths import ZERO, Length, Measure, inches, mm

__all__ = ["Fit", "Ruler", "fit", "starting_set"]

_SHORTEST, _LONGEST = inches(1), inches(120)


@dataclass(frozen=True, slots=True)
class Ruler:
    """``corner_diagonal``: a 45-degree line runs into its corner. ``border``: the extra strip before its first mark.

    ``slotted`` rulers trim unpressed units through slots; ``grooved`` ones sit on the seam by a groove;
    ``goose`` ones are made for flying geese: two slanting lines meet an allowance below their upper edge.
    Raises ``RulerImpossible`` for sizes no ruler has.
    """

    name: str
    width: Length
    height: Length
    corner_diagonal: bool = True
    border: Length = ZERO
    slotted: bool = False
    grooved: bool = False
    goose: bool = False

    def __post_init__(self) -> None:
        if not min(self.width, self.height) >= _SHORTEST or max(self.width, self.height) > _LONGEST:
            raise RulerImpossible(
                "A ruler is between {least} and {most} long and wide.", field="width", least=_SHORTEST, most=_LONGEST
            )
        if self.border < ZERO or self.border * 2 >= min(self.width, self.height):
            raise RulerImpossible("The border before the first mark is narrower than half the ruler.", field="border")

    @property
    def reach(self) -> Length:
        """The largest square it measures."""
        return min(self.width, self.height)

    def covers(self, width: Length, height: Length) -> bool:
        """Whether both sizes can be read on it at once, either way round."""
        return (self.width >= width and self.height >= height) or (self.width >= height and self.height >= width)


@dataclass(frozen=True, slots=True)
class Fit:
    """The ruler to take; None when none will do."""

    ruler: Ruler | None
    why_not: str = ""


def starting_set(measure: Measure) -> tuple[Ruler, ...]:
    """Three rulers most people begin with."""
    if measure is Measure.MILLIMETRES:
        return (
            Ruler("Small square", mm(150), mm(150)),
            Ruler("Large square", mm(300), mm(300)),
            Ruler("Long ruler", mm(150), mm(600), corner_diagonal=False),
        )
    return (
        Ruler("Small square", inches("13/2"), inches("13/2")),
        Ruler("Large square", inches("25/2"), inches("25/2")),
        Ruler("Long ruler", inches(6), inches(24), corner_diagonal=False),
    )


def fit(rulers: Sequence[Ruler], width: Length, height: Length, *, diagonal: bool) -> Fit:
    """The smallest ruler on which both sizes can be read, with a diagonal into the corner when that is needed."""
    plain = [r for r in rulers if not r.goose]
    large = [r for r in plain if r.covers(width, height)]
    if not large:
        return Fit(None, "small" if plain else "none")
    good = [r for r in large if r.corner_diagonal or not diagonal]
    if not good:
        return Fit(None, "diagonal")
    return Fit(min(good, key=lambda r: (r.border > ZERO, float(r.width) * float(r.height))))
