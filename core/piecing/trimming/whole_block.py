"""Trimming a whole block, or units joined: the middle crossing under the ruler's middle, the diagonal to the corners, the bulk.

Source: docs/theory, section 6.
"""

from __future__ import annotations

from collections.abc import Sequence

from ..blocks.geometry import cell_middle, placed_parts
from ..blocks.pattern import Layout, Pattern, layout_of
from ..cautions import Risk, cautions
from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Point, rectangle, rotated
from ..lengths import Length
from ..messages import Message
from ..units.notes import Note
from .opened import NO_RULER, ruler_notes
from .recipe import Cutter, LaidRuler, Recipe, RecipeStep
from .rulers import Fit, Ruler, fit

__all__ = ["middle_crossing", "trim_block"]

_NEAR = 1e-6


def middle_crossing(pattern: Pattern) -> bool:
    """Whether corners of four places meet in the middle of the block, so that there is a crossing to lay the ruler on."""
    x, y = pattern.width / 2, pattern.height / 2
    boxes = [pattern.box(p) for p in pattern.places]
    corners = [(left + dx * wide, top + dy * high) for left, top, wide, high in boxes for dx in (0, 1) for dy in (0, 1)]
    return corners.count((x, y)) >= 4


def trim_block(
    pattern: Pattern, finished: Length, allowance: Length, rulers: Sequence[Ruler], cutter: Cutter = Cutter.RIGHT
) -> Recipe:
    """How a joined block is trimmed square. ``rulers`` are those owned. Raises what ``layout_of`` refuses."""
    layout = layout_of(pattern)
    width = finished + allowance * 2
    height = layout.part(finished) * pattern.height + allowance * 2
    found = fit(rulers, width, height, diagonal=width == height)
    crossing = middle_crossing(pattern)
    table = _Table(layout, finished, allowance, found.ruler, cutter, crossing=crossing)
    diagonal = (
        Message(" The 45-degree line runs into both corners of the block.")
        if width == height and found.ruler is not None and found.ruler.corner_diagonal
        else Message("")
    )
    lay = Message("{lay}{diagonal}", lay=_lay_said(width, height, crossing=crossing), diagonal=diagonal)
    return Recipe(
        "whole_block",
        Message("The whole block"),
        Message("Only where it came out larger than it should: a little all round, never one side alone."),
        _ruler_said(found, width, height),
        width,
        _notes(found),
        cautions(Risk.BLADE),
        _recipe(table, lay, width, height, allowance),
    )


def _lay_said(width: Length, height: Length, *, crossing: bool) -> Message:
    if crossing and width == height:
        return Message("Put the {half} lines on the crossing in the middle.", half=width / 2)
    if crossing:
        return Message("Put the {w} and {h} lines on the crossing in the middle.", w=width / 2, h=height / 2)
    return Message("Lay the {w} and {h} marks so that as much cloth shows beyond on all sides.", w=width, h=height)


def _ruler_said(found: Fit, width: Length, height: Length) -> Message:
    if found.ruler:
        return Message("{name}, {w} by {h}.", name=found.ruler.name, w=found.ruler.width, h=found.ruler.height)
    return Message(
        "One at least as large as the block, {w} by {h}, whose 45-degree line reaches its corner.", w=width, h=height
    )


def _notes(found: Fit) -> tuple[Note, ...]:
    if found.ruler is not None or found.why_not not in ("small", "diagonal"):
        return ruler_notes(found)
    if found.why_not == "diagonal":
        return (Note("ruler_diagonal", Message(NO_RULER["diagonal"]), serious=True),)
    said = Message(
        "None of your rulers is as large as this block: trim it with two laid edge to edge, or on the mat's lines."
    )
    return (Note("ruler_small", said, serious=True),)


def _recipe(table: _Table, lay: Message, width: Length, height: Length, allowance: Length) -> tuple[RecipeStep, ...]:
    side = "right" if table.cutter is Cutter.RIGHT else "left"
    bulk = Message(
        "A hill of seams in the middle rocks the ruler: press on the edge that you cut along, let the other rock."
        if table.crossing
        else "Press on the edge that you cut along."
    )
    return (
        RecipeStep(
            Message("Measure first"),
            Message(
                "Measure the block across its middle both ways. Over {w} by {h} it is trimmed; under that it is measured and "
                "diagnosed, not trimmed.",
                w=width,
                h=height,
            ),
            Message("Every tip at the edge keeps {s} of cloth outside it.", s=allowance),
            table.picture(Message("The joined block."), ruler=False),
        ),
        RecipeStep(Message("Lay the ruler"), lay, bulk, table.picture(Message("The ruler on the block."))),
        RecipeStep(
            Message("Shave two sides"),
            Message("Cut up the {side} side, then along the top. Do not lift the ruler between them.", side=side),
            Message("No tip is cut, and both edges are square to each other."),
            table.picture(Message("Two cuts along the ruler's edges."), cutting=True),
        ),
        RecipeStep(
            Message("Turn half round"),
            Message("Set the {w} and {h} marks on the two fresh edges; cut the other two.", w=width, h=height),
            Message("{w} by {h}, the same at both ends of every side.", w=width, h=height),
            table.picture(Message("The block turned half round under the ruler."), turned=True, cutting=True),
        ),
    )


class _Table:
    """The block with its allowances under a ruler."""

    def __init__(
        self, layout: Layout, finished: Length, s: Length, ruler: Ruler | None, cutter: Cutter, *, crossing: bool
    ) -> None:
        self.layout, self.part, self.s, self.cutter, self.crossing = (
            layout,
            layout.part(finished),
            float(s),
            cutter,
            crossing,
        )
        self.wide = float(finished) + 2 * self.s
        self.high = float(self.part * layout.pattern.height) + 2 * self.s
        size = max(self.wide, self.high) + 1.5
        self.ruler = (float(ruler.width), float(ruler.height)) if ruler else (size, size)
        if self.ruler[0] < self.wide - _NEAR or self.ruler[1] < self.high - _NEAR:
            self.ruler = self.ruler[1], self.ruler[0]
        self.diagonal = abs(self.wide - self.high) < _NEAR and (ruler is None or ruler.corner_diagonal)

    def picture(self, alt: Message, *, ruler: bool = True, turned: bool = False, cutting: bool = False) -> Drawing:
        """The block as it lies, a little larger than its target all round."""
        over = max(self.wide, self.high) * 0.03
        sketch = Sketch()
        outer = rectangle(self.wide + 2 * over, self.high + 2 * over, (-over, -over))
        sketch.polygon("allowance", outer)
        about = (self.wide / 2, self.high / 2)

        def here(p: Point) -> Point:
            q = (p[0] + self.s, p[1] + self.s)
            return rotated(q, 180, about) if turned else q

        for cell in self.layout.cells:
            x, y = cell_middle(self.layout, cell, float(self.part))
            for part in placed_parts(cell.spec(self.part), cell.orientation):
                sketch.polygon("face", tuple(here((px + x, py + y)) for px, py in part.outline), part.role)
        sketch.polygon("target", rectangle(self.wide, self.high))
        if ruler:
            right = self.cutter is Cutter.RIGHT
            laid_ruler = LaidRuler(*self.ruler, (self.wide if right else 0.0, self.high), self.cutter)
            laid_ruler.lay(sketch)
            if self.crossing:
                laid_ruler.upright(sketch, self.wide / 2)
                laid_ruler.level(sketch, self.high / 2)
            if self.diagonal:
                laid_ruler.diagonal(sketch)
            if cutting:
                laid_ruler.blade(sketch, self.high, self.wide)
        reach = max(self.wide, self.high) * 0.12
        return sketch.to_drawing((-reach, -reach, self.wide + reach, self.high + reach), alt)
