"""Trimming an opened, pressed unit of any kind: two sides, half a turn, the other two. Source: docs/theory, section 6."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ..cautions import Risk, cautions
from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Point, bounds, rotated, sides_of
from ..geometry.sewing import Piece, trim
from ..lengths import ZERO, Length
from ..messages import Message
from ..planning.unit_plan import UnitPlan
from ..units.notes import Note
from .recipe import Cutter, LaidRuler, Recipe, RecipeStep
from .registers import Register, register_for
from .rulers import Fit, Ruler, fit

__all__ = ["made_for_geese", "opened_recipe", "ruler_notes"]


NO_RULER = {
    "small": "None of your rulers is as large as this unit: fold it on its diagonal, or lay two rulers edge to edge.",
    "diagonal": "None of your rulers that are large enough has a 45-degree line into its corner: draw the diagonal "
    "on the unit, or trim it folded.",
    "none": "You have no rulers listed. Add yours in the settings, and recipes follow them.",
}
"""What to do where no ruler owned will do, by why not."""


def opened_recipe(plan: UnitPlan, rulers: Sequence[Ruler], cutter: Cutter) -> Recipe:
    """After pressing. The unit comes to the target itself, whatever the seam did."""
    register = register_for(plan)
    found = fit(rulers, plan.target_width, plan.target_height, diagonal=register.diagonal)
    steps = _Table(plan, register, found.ruler, cutter).steps()
    return Recipe(
        "opened",
        Message("Opened, after pressing"),
        Message("Four cuts. Sees what it trims, so it also mends a unit that opened a little crooked."),
        _ruler_said(plan, register, found),
        plan.target_width,
        ruler_notes(found),
        cautions(Risk.BLADE),
        steps,
    )


def made_for_geese(plan: UnitPlan, rulers: Sequence[Ruler], cutter: Cutter) -> tuple[Recipe, ...]:
    """By a ruler made for flying geese, if one is owned that is large enough; for geese twice as wide as high."""
    spec = plan.spec
    good = [r for r in rulers if r.goose and r.width >= plan.target_width and r.height >= plan.target_height]
    if spec.kind != "flying_goose" or spec.width != spec.height * 2 or not good:
        return ()
    ruler = min(good, key=lambda r: float(r.width))
    lay, shave, turn, last = _Table(plan, register_for(plan), ruler, cutter).steps()
    return (
        Recipe(
            "goose_ruler",
            Message("With your goose ruler"),
            Message("Its two slanting lines find the seams, its mark the tip: no figure to look for."),
            Message("{name}, {w} by {h}.", name=ruler.name, w=ruler.width, h=ruler.height),
            plan.target_width,
            (),
            cautions(Risk.BLADE),
            (
                replace(
                    lay,
                    how=Message(
                        "Lay both slanting lines on the seams and the mark at their meeting on the tip; its upper edge is then "
                        "{s} above the tip.",
                        s=plan.allowance,
                    ),
                ),
                shave,
                replace(
                    turn,
                    how=Message(
                        "Set its {w} by {h} lines on the two fresh edges, the tip still in the middle.",
                        w=plan.target_width,
                        h=plan.target_height,
                    ),
                ),
                last,
            ),
        ),
    )


def _ruler_said(plan: UnitPlan, register: Register, found: Fit) -> Message:
    if found.ruler is None:
        return Message(
            "One on which {w} by {h} can be read, with a 45-degree line into its corner."
            if register.diagonal
            else "One on which {w} by {h} can be read.",
            w=plan.target_width,
            h=plan.target_height,
        )
    return Message(
        "{name}, {w} by {h}. Its groove sits on the seam."
        if found.ruler.grooved and register.diagonal
        else "{name}, {w} by {h}.",
        name=found.ruler.name,
        w=found.ruler.width,
        h=found.ruler.height,
    )


def ruler_notes(found: Fit) -> tuple[Note, ...]:
    """What the rulers owned mean for this unit."""
    if found.ruler is None:
        return (Note(f"ruler_{found.why_not}", Message(NO_RULER[found.why_not]), serious=found.why_not != "none"),)
    notes = []
    if found.ruler.border > ZERO:
        notes.append(
            Note(
                "ruler_border",
                Message(
                    "{name} has {border} before its first mark: count from the edge you cut along, or every unit is off by "
                    "just that.",
                    name=found.ruler.name,
                    border=found.ruler.border,
                ),
                serious=True,
            )
        )
    return tuple(notes)


class _Table:
    """The unit as it goes through the four cuts, drawn after the engine at every step."""

    def __init__(self, plan: UnitPlan, register: Register, ruler: Ruler | None, cutter: Cutter) -> None:
        self.plan, self.register, self.cutter = plan, register, cutter
        self.wide, self.high = float(plan.target_width), float(plan.target_height)
        made = plan.simulated
        raw, box = made.raw, made.box
        if cutter is Cutter.LEFT and register.diagonal:
            # The seam must run to the ruler's corner, which lies upper left: a quarter turn brings it there.
            raw, box = _quarter_turned(raw, box)
        self.raw, self.box = raw, box
        self.ruler = _sheet(plan, ruler)

    def steps(self) -> tuple[RecipeStep, ...]:
        p, register = self.plan, self.register
        right = self.cutter is Cutter.RIGHT
        beside = "right" if right else "left"
        first_corner = self.box[2] if right else self.box[3]
        half, half_box = self._after_two_cuts()
        second_corner = half_box[2] if right else half_box[3]
        marks = (
            Message("both {u} marks", u=p.target_width)
            if p.spec.is_square
            else Message("the {w} and {h} marks", w=p.target_width, h=p.target_height)
        )
        return (
            RecipeStep(
                Message("Lay the ruler"),
                register.lay,
                self._margin_shows(beside),
                self._picture(self.raw, first_corner, Message("The ruler on the raw unit.")),
            ),
            RecipeStep(
                Message("Shave two sides"),
                Message("Cut up the {side} side, then along the top. Do not lift the ruler between them.", side=beside),
                Message("Two fresh edges, square to each other."),
                self._picture(self.raw, first_corner, Message("Two cuts along the ruler's edges."), cutting=True),
            ),
            RecipeStep(
                Message("Turn half round"),
                Message("Set {marks} exactly on the two fresh edges, {keep}.", marks=marks, keep=register.keep)
                if register.keep is not None
                else Message("Set {marks} exactly on the two fresh edges.", marks=marks),
                Message("Fresh edges under the marks, cloth past the ruler on the other two sides."),
                self._picture(half, second_corner, Message("The unit turned half round under the ruler."), turned=True),
            ),
            RecipeStep(
                Message("Shave the other two"),
                Message(
                    "Cut the {side} side and the top again. Dog ears that still stand out are snipped now.", side=beside
                )
                if len(p.kind.parts) > 1
                else Message("Cut the {side} side and the top again.", side=beside),
                register.true,
                self._picture(half, second_corner, Message("The last two cuts."), turned=True, cutting=True),
            ),
        )

    def _margin_shows(self, beside: str) -> Message:
        margins = self.plan.margins
        side = margins.right if beside == "right" else margins.left
        if margins.top == ZERO:
            return Message(
                "About {side} of cloth shows past the ruler on the {where}, none at the top.", side=side, where=beside
            )
        if side == margins.top:
            return Message(
                "About {margin} of cloth shows past the ruler on the {where} and at the top.", margin=side, where=beside
            )
        return Message(
            "About {side} of cloth shows past the ruler on the {where}, {top} at the top.",
            side=side,
            where=beside,
            top=margins.top,
        )

    def _after_two_cuts(self) -> tuple[Piece, tuple[Point, ...]]:
        bottom, right, top, left = sides_of(self.box)
        del bottom
        cut = (right, top) if self.cutter is Cutter.RIGHT else (left, top)
        half, _ = trim(self.raw, *cut)
        about = ((self.box[0][0] + self.box[2][0]) / 2, (self.box[0][1] + self.box[2][1]) / 2)
        turned = half.mapped(lambda q: rotated(q, 180, about))
        return turned, self.box

    def _picture(
        self, piece: Piece, corner: Point, alt: Message, *, turned: bool = False, cutting: bool = False
    ) -> Drawing:
        width, height = self.ruler
        laid = LaidRuler(width, height, corner, self.cutter)
        low = self.box[0]
        sketch = Sketch().piece(piece)
        if turned:
            (x1, y1), (x2, y2) = self.box[0], self.box[2]
            fresh = x1 if self.cutter is Cutter.RIGHT else x2
            sketch.line("fresh", (x1, y1), (x2, y1)).line("fresh", (fresh, y1), (fresh, y2))
        laid.lay(sketch)
        laid.marks(sketch, self.plan.target_width, self.plan.target_height)
        if self.register.diagonal:
            laid.diagonal(sketch)
        if self.register.cross:
            self._cross(sketch, laid, low, turned=turned)
        if cutting:
            laid.blade(sketch, self.high, self.wide)
        return sketch.to_drawing(_window(piece, laid), alt)

    def _cross(self, sketch: Sketch, laid: LaidRuler, low: Point, *, turned: bool) -> None:
        assert self.register.cross is not None
        across, up = (float(x) for x in self.register.cross)
        at = (low[0] + (self.wide - across if turned else across), low[1] + (self.high - up if turned else up))
        laid.upright(sketch, abs(laid.corner[0] - at[0]))
        laid.level(sketch, laid.corner[1] - at[1])
        if self.register.slants:
            laid.slants(sketch, at, min(across, up), up=turned)


def _quarter_turned(raw: Piece, box: tuple[Point, ...]) -> tuple[Piece, tuple[Point, ...]]:
    about = ((box[0][0] + box[2][0]) / 2, (box[0][1] + box[2][1]) / 2)
    return raw.mapped(lambda q: rotated(q, 90, about)), box


def _sheet(plan: UnitPlan, ruler: Ruler | None) -> tuple[float, float]:
    """Width and height of the ruler as it lies; of one just large enough when none is owned."""
    if ruler is None:
        size = float(_whole_above(max(plan.target_width, plan.target_height)))
        return size, size
    width, height = float(ruler.width), float(ruler.height)
    if width < float(plan.target_width) or height < float(plan.target_height):
        width, height = height, width
    return width, height


def _whole_above(size: Length) -> Length:
    """The next whole inch with a finger's room."""
    return (size + Length.of(1) / 2).round_up(Length.of(1))


def _window(piece: Piece, laid: LaidRuler) -> tuple[float, float, float, float]:
    """Square, round the unit and as much of the ruler as is near it."""
    left, bottom, right, top = bounds(f.outline for f in piece.faces)
    reach = max(right - left, top - bottom)
    x, y = laid.corner
    far = laid.across(min(laid.width, reach * 1.35))
    low = laid.down(min(laid.height, reach * 1.35))
    left, right = min(left, far, x), max(right, far, x)
    bottom, top = min(bottom, low), max(top, y)
    side = max(right - left, top - bottom)
    pad = side * 0.08
    cx, cy = (left + right) / 2, (bottom + top) / 2
    half = side / 2 + pad
    return cx - half, cy - half, cx + half, cy + half
