"""What a trim recipe is made of, and the ruler that is drawn in it."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Line, Point, rectangle
from ..lengths import Length
from ..messages import Message
from ..units.notes import Note

__all__ = ["Cutter", "LaidRuler", "Recipe", "RecipeStep"]


class Cutter(StrEnum):
    """Which hand holds the blade."""

    RIGHT = "right"
    LEFT = "left"


@dataclass(frozen=True, slots=True)
class RecipeStep:
    """One thing to do: what, how, and what must show before the blade moves."""

    title: Message
    how: Message
    look_for: Message
    drawing: Drawing


@dataclass(frozen=True, slots=True)
class Recipe:
    """A way of trimming: ``opens_to`` is the side the unit really comes to; ``warnings`` are about the rulers owned."""

    code: str
    title: Message
    when: Message
    ruler: Message
    opens_to: Length
    warnings: tuple[Note, ...]
    cautions: tuple[Message, ...]
    steps: tuple[RecipeStep, ...]


@dataclass(frozen=True, slots=True)
class LaidRuler:
    """A ruler of ``width`` by ``height`` inches with its corner at ``corner``, covering what lies below and inward.

    A right-handed cutter cuts along its right and upper edges, a left-handed one along its left and upper edges.
    """

    width: float
    height: float
    corner: Point
    cutter: Cutter

    @property
    def inward(self) -> float:
        """The direction in x from the cutting edge to the ruler's middle."""
        return -1.0 if self.cutter is Cutter.RIGHT else 1.0

    def across(self, distance: float) -> float:
        """The x of its upright line ``distance`` from the cutting edge."""
        return self.corner[0] + self.inward * distance

    def down(self, distance: float) -> float:
        """Where a distance from its upper edge lies, in inches with y upward."""
        return self.corner[1] - distance

    def lay(self, sketch: Sketch) -> None:
        """Draws its outline."""
        x, y = self.corner
        sketch.polygon("ruler", rectangle(self.width, self.height, (min(x, self.across(self.width)), y - self.height)))

    def marks(self, sketch: Sketch, across: Length, down: Length) -> None:
        """The two lines that measure the unit, with their figures in the ruler's margins."""
        x, y = self.corner
        self.upright(sketch, float(across))
        self.level(sketch, float(down))
        foot = y - (self.height + float(down)) / 2
        far = self.across(float(across))
        if self.height - float(down) > 0.05 * self.height:
            sketch.dimension(
                (min(x, far), foot), (max(x, far), foot), ((x + far) / 2, foot), Message("{size}", size=across)
            )
        beside = self.across((self.width + float(across)) / 2)
        if across != down and self.width - float(across) > 0.2 * self.width:
            low = self.down(float(down))
            sketch.dimension((beside, low), (beside, y), (beside, (low + y) / 2), Message("{size}", size=down))

    def upright(self, sketch: Sketch, distance: float) -> None:
        """Draws the line so far from its working side."""
        x = self.across(distance)
        sketch.line("ruler-line", (x, self.corner[1]), (x, self.down(self.height)))

    def level(self, sketch: Sketch, distance: float) -> None:
        """Draws the line so far from its upper edge."""
        y = self.down(distance)
        sketch.line("ruler-line", (self.corner[0], y), (self.across(self.width), y))

    def diagonal(self, sketch: Sketch) -> None:
        """The 45-degree line into its corner."""
        reach = min(self.width, self.height)
        sketch.line("ruler-diagonal", (self.across(reach), self.down(reach)), self.corner)

    def slants(self, sketch: Sketch, tip: Point, reach: float, *, up: bool) -> None:
        """Two 45-degree lines from a point, downward, or upward once the unit is turned."""
        dy = reach if up else -reach
        for dx in (-reach, reach):
            sketch.line("ruler-diagonal", tip, (tip[0] + dx, tip[1] + dy))

    def blade(self, sketch: Sketch, upright: float, level: float) -> None:
        """The cuts along its two cutting edges, so many inches of cloth and a little more."""
        x, y = self.corner
        beyond = max(self.width, self.height) * 0.06
        sketch.stretch("blade", Line((x, y - upright), (x, y)), beyond)
        sketch.stretch("blade", Line((x, y), (self.across(level), y)), beyond)
