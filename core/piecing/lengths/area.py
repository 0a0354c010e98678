"""Areas in square inches."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from .format import Measure, Style
from .length import Length
from .surd import Surd

__all__ = ["Area"]


@dataclass(frozen=True, slots=True)
class Area:
    """An area in square inches: exact, or to the nearest 1/8192 when it comes off the engine."""

    value: Surd

    @classmethod
    def near(cls, square_inches: float) -> Area:
        """The area nearest to a figure in square inches; for what was measured or simulated, never for what is cut."""
        return cls(Length.near(square_inches).value)

    @classmethod
    def sum(cls, areas: Iterable[Area]) -> Area:
        """All of them together, exactly."""
        total = Surd()
        for a in areas:
            total = total + a.value
        return cls(total)

    def set_in(self, style: Style | None) -> str:
        """To a tenth of a square inch, which is left out where there is none, or whole square centimetres."""
        if style and style.measure is Measure.MILLIMETRES:
            return f"{float(self.value) * 6.4516:.0f}\u00a0cm²"
        return f"{float(self.value):.1f}".removesuffix(".0") + "\u00a0sq\u00a0in"
