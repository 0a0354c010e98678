"""What a trim recipe is made of, and the ruler that is drawn in it."""

from __future__ import annotations

from dataclasses import dataclass

from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Line, Point, rectangle
from ..lengths import Length
from ..wording import Said

__all__ = ["BLADE", "IRON", "Recipe", "RecipeStep", "SquareRuler", "square_ruler_for"]


BLADE = Said(
    "Close the blade every time you put it down. Cut away from yourself, fingers clear of the ruler's edge. "
    "Change a nicked blade."
)
IRON = Said("The iron's steam burns. Leave nothing under it, and unplug it when you walk away.")


@dataclass(frozen=True, slots=True)
class RecipeStep:
    """One thing to do: what, how, and what must show before the blade moves."""

    title: Said
    how: Said
    look_for: Said
    drawing: Drawing


@dataclass(frozen=True, slots=True)
class Recipe:
    """A way of trimming: ``opens_to`` is the side the unit really comes to."""

    code: str
    title: Said
    when: Said
    ruler: Said
    opens_to: Length
    cautions: tuple[Said, ...]
    steps: tuple[RecipeStep, ...]


@dataclass(frozen=True, slots=True)
class SquareRuler:
    """A square ruler of ``size`` inches whose 45-degree line runs into its corner, laid with that corner at ``corner``.

    It lies below and to the left of the corner, so that a right-handed cutter cuts along its right and upper edges.
    """

    size: float
    corner: Point

    def lay(self, sketch: Sketch, *, marks_at: Length | None = None, diagonal: bool = True) -> None:
        """Draw the sheet, its two ``marks_at`` lines and its 45-degree line."""
        x, y = self.corner
        sketch.polygon("ruler", rectangle(self.size, self.size, (x - self.size, y - self.size)))
        if marks_at is not None:
            mark = float(marks_at)
            sketch.line("ruler-line", (x - mark, y), (x - mark, y - self.size))
            sketch.line("ruler-line", (x, y - mark), (x - self.size, y - mark))
            foot = y - (self.size + mark) / 2
            sketch.dimension((x - mark, foot), (x, foot), (x - mark / 2, foot), Said("{size}", size=marks_at))
        if diagonal:
            sketch.line("ruler-diagonal", (x - self.size, y - self.size), (x, y))

    def blade(self, sketch: Sketch, length: float, beyond: float) -> None:
        """The cuts along its right and upper edges, ``length`` inches of cloth and a little more."""
        x, y = self.corner
        sketch.stretch("blade", Line((x, y - length), (x, y)), beyond)
        sketch.stretch("blade", Line((x, y), (x - length, y)), beyond)


def square_ruler_for(raw: Length) -> Length:
    """The smallest whole-inch square ruler that covers a raw unit with a finger's room."""
    return (raw + Length.of(1) / 2).round_up(Length.of(1))
