"""Trimming a half-square triangle before it is opened, or folded again. Source: docs/theory, section 6."""

from __future__ import annotations

from collections.abc import Sequence

from ..cautions import Risk, cautions
from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Line, Point, Polygon
from ..geometry.sewing import Needle, Patch, Piece, joined, laid_on, trim
from ..lengths import ZERO, Length, inches
from ..messages import Message
from ..planning.unit_plan import UnitPlan
from ..units.notes import Note
from .recipe import Cutter, LaidRuler, Recipe, RecipeStep
from .rulers import Ruler, fit

__all__ = ["closed_recipe", "folded_recipe", "opened_said", "opens_to"]


_HAIR = inches("1/32")


def opened_said(opens: Length, target: Length) -> Message | None:
    """Where a unit opens to another size than it is trimmed to, how large; nothing when they agree."""
    off = opens - target
    if not off.sign:
        return None
    if abs(off) < _HAIR:
        return (
            Message("This way the unit opens to a hair under {target}.", target=target)
            if off.sign < 0
            else Message("This way the unit opens to a hair over {target}.", target=target)
        )
    return Message("This way the unit opens to about {opens}.", opens=opens)


def opens_to(plan: UnitPlan) -> Length:
    """U - f/√2: the ruler measures from the stitching, the unit opens at the fold."""
    return plan.target_width - plan.choices.fold.over_root2()


def closed_recipe(plan: UnitPlan, rulers: Sequence[Ruler], cutter: Cutter) -> Recipe:
    """Before pressing: two cuts against the stitching."""
    target = plan.target_width
    found = fit([r for r in rulers if r.slotted], target, target, diagonal=False)
    slotted = found.ruler is not None
    if not slotted:
        found = fit(rulers, target, target, diagonal=False)
    named = (
        Message("{name}: cut in its slots for {u}.", name=found.ruler.name, u=target)
        if slotted and found.ruler
        else Message(
            "A square ruler with a diagonal line marked {u}, or one whose two {u} marks you join by eye.", u=target
        )
    )
    warnings = (
        () if found.ruler else (Note("ruler_small", Message("None of your rulers is as large as this unit."), True),)
    )
    return Recipe(
        "closed",
        Message("Closed, before pressing"),
        Message("Two cuts instead of four. Measures from the stitching, so the fold still comes off."),
        named,
        opens_to(plan),
        warnings,
        cautions(Risk.BLADE, Risk.IRON),
        _Closed(plan, cutter, slotted=slotted).steps(),
    )


class _Closed:
    """The pair unopened: right angle at the ruler's corner, long edge below and inward, stitching inside it."""

    def __init__(self, plan: UnitPlan, cutter: Cutter, *, slotted: bool) -> None:
        self.plan, self.cutter, self.slotted = plan, cutter, slotted
        _, raw, _, _ = plan.method.rungs(
            plan.method.ladders(plan.spec)[0], plan.spec, plan.cuts, plan.allowance, plan.take_up
        )
        seam = plan.choices.seam
        self.leg = float(raw + seam.take_up.times_root2())
        self.target, self.stitch, self.fold = float(plan.target_width), float(seam.stitch), float(seam.fold)
        # The ruler's diagonal for U lies on the stitching: legs of U from the corner to it.
        self.corner = (self.leg + 2**0.5 * self.stitch + self.target) / 2
        self.triangle: Polygon = ((0.0, self.leg), (self.leg, 0.0), (self.leg, self.leg))
        self.long_edge = Line((0.0, self.leg), (self.leg, 0.0))

    def steps(self) -> tuple[RecipeStep, ...]:
        target, fold = self.plan.target_width, self.plan.choices.fold
        opens = opens_to(self.plan)
        beside = "right" if self.cutter is Cutter.RIGHT else "left"
        leave = (
            Message("Leave the line a thread outside the stitching: the fold will take {loss}.", loss=target - opens)
            if fold > ZERO
            else Message("Exactly on the stitching, corner to corner, not on the drawn line.")
        )
        cut = (
            Message("Run the blade in both slots.")
            if self.slotted
            else Message("Cut up the {side} side and along the top.", side=beside)
        )
        return (
            RecipeStep(
                Message("Lay the ruler"),
                Message("Put the diagonal marked {target} on the line of stitching.", target=target),
                leave,
                self._flat(Message("The pair unopened, the ruler's diagonal on the stitching.")),
            ),
            RecipeStep(
                Message("Trim the two short sides"),
                cut,
                Message("Both layers cut, the long edge untouched."),
                self._flat(Message("Two cuts along the ruler's edges."), cutting=True),
            ),
            RecipeStep(
                Message("Press it open"),
                Message("Set the seam first, then open it and let it cool flat."),
                Message("The unit opens to {opens} a side.", opens=opens),
                self._open(Message("The unit pressed open, dog ears past two corners.")),
            ),
            RecipeStep(
                Message("Snip the dog ears"),
                Message("Cut the little tips off level with the edges."),
                Message("Nothing past the square; the seam runs into two corners."),
                self._open(Message("The unit with its dog ears gone."), snipped=True),
            ),
        )

    def _handed(self, p: Point) -> Point:
        """Left-handed cutters see it in the mirror: the pair has one fabric on either side, so nothing else changes."""
        return p if self.cutter is Cutter.RIGHT else (self.leg - p[0], p[1])

    def _flat(self, alt: Message, *, cutting: bool = False) -> Drawing:
        size = float((self.plan.target_width + Length.of(1)).round_up(Length.of(1)))
        q = self.corner
        sketch = Sketch().polygon("back", tuple(map(self._handed, self.triangle)), self.plan.spec.part_fabrics[1])
        stitching = self.long_edge.shifted(self.stitch)
        sketch.line("stitch", self._handed(stitching.start), self._handed(stitching.end))
        laid = LaidRuler(size, size, self._handed((q, q)), self.cutter)
        laid.lay(sketch)
        sketch.line("ruler-diagonal", self._handed((q - self.target, q)), self._handed((q, q - self.target)))
        pad = size * 0.1
        if cutting:
            laid.blade(sketch, q, q)
        else:
            above = self.leg + pad * 0.35
            ends = sorted((self._handed((q - self.target, above)), self._handed((q, above))))
            middle = ((ends[0][0] + ends[1][0]) / 2, above)
            sketch.dimension(ends[0], ends[1], middle, Message("{size}", size=self.plan.target_width))
        low = min(0.0, q - size) - pad
        across = (low, self.leg + pad) if self.cutter is Cutter.RIGHT else (-pad, self.leg - low)
        return sketch.to_drawing((across[0], low, across[1], self.leg + pad), alt)

    def _open(self, alt: Message, *, snipped: bool = False) -> Drawing:
        kept = (
            Line((self.corner, 0.0), (self.corner, self.corner)),
            Line((self.corner, self.corner), (0.0, self.corner)),
        )
        lower, upper = (
            trim(Piece((Patch(self.triangle, role),)), *kept)[0] for role in self.plan.spec.part_fabrics[:2]
        )
        laid = laid_on(upper, self.long_edge, self.long_edge)
        unit = joined(lower, laid, self.long_edge, "diagonal", Needle.of(self.stitch, self.fold)).at_origin()
        _, _, right, top = unit.extent
        if snipped:
            corners = ((0.0, 0.0), (right, 0.0), (right, top), (0.0, top))
            unit, _ = trim(unit, *(Line(corners[n], corners[(n + 1) % 4]) for n in range(4)))
        if self.cutter is Cutter.LEFT:
            unit = unit.turned(90).at_origin()
        pad = right * 0.16
        return Sketch().piece(unit).to_drawing((-pad, -pad, right + pad, top + pad), alt)


def folded_recipe(plan: UnitPlan, rulers: Sequence[Ruler], cutter: Cutter) -> Recipe:
    """Folded back on its diagonal: both layers trimmed at once, measured across from the fold to the corner."""
    across = plan.target_width.over_root2()
    found = fit(rulers, across, Length.of(1), diagonal=False)
    named = (
        Message("{name}, by its 45-degree line; or a tape across the unit.", name=found.ruler.name)
        if found.ruler
        else Message("Any straight edge with a 45-degree line, and a tape.")
    )
    return Recipe(
        "folded",
        Message("Folded on the diagonal"),
        Message("For a unit wider than any ruler, or with a band down its diagonal."),
        named,
        plan.target_width,
        (),
        cautions(Risk.BLADE),
        _Folded(plan, cutter).steps(across),
    )


class _Folded:
    """The unit folded wrong sides together: fold level below, the corner to come above its middle."""

    def __init__(self, plan: UnitPlan, cutter: Cutter) -> None:
        self.plan, self.cutter = plan, cutter
        self.leg = float(plan.raw_width)
        self.high, self.base = self.leg / 2**0.5, self.leg * 2**0.5
        self.reach = float(plan.target_width) / 2**0.5

    def steps(self, across: Length) -> tuple[RecipeStep, ...]:
        sides = ("right", "left") if self.cutter is Cutter.RIGHT else ("left", "right")
        return (
            RecipeStep(
                Message("Fold it on the diagonal"),
                Message("Wrong sides together, the fold along the seam or down the middle of the band."),
                Message("The fold is straight; the raw edges need not match."),
                self._picture(Message("The unit folded on its diagonal.")),
            ),
            RecipeStep(
                Message("Mark the corner"),
                Message("From the middle of the fold measure {across} square across, and make a dot.", across=across),
                Message("The dot lies inside both layers."),
                self._picture(Message("The corner marked, measured from the fold."), dot=across),
            ),
            RecipeStep(
                Message("Trim one side"),
                Message(
                    "Lay the ruler's 45-degree line on the fold, its edge through the dot; cut the {side} side.",
                    side=sides[0],
                ),
                Message("The line on the fold from end to end."),
                self._picture(Message("The first cut, through the dot at 45 degrees to the fold."), cuts=sides[:1]),
            ),
            RecipeStep(
                Message("Trim the other"),
                Message("The same on the {side} side. Snip dog ears that are left once it is opened.", side=sides[1]),
                Message("Opened, {u} a side, square, the seam into two corners.", u=self.plan.target_width),
                self._picture(Message("Both cuts."), cuts=sides),
            ),
        )

    def _picture(self, alt: Message, *, dot: Length | None = None, cuts: Sequence[str] = ()) -> Drawing:
        middle = self.base / 2
        sketch = Sketch().polygon(
            "face", ((0.0, 0.0), (self.base, 0.0), (middle, self.high)), self.plan.spec.part_fabrics[0]
        )
        sketch.line("seam", (0.0, 0.0), (self.base, 0.0))
        apex = (middle, self.reach)
        if dot is not None:
            sketch.mark("tip", apex)
            sketch.dimension((middle, 0.0), apex, (middle, self.reach / 2), Message("{size}", size=dot))
        for side in cuts:
            foot = (middle + self.reach if side == "right" else middle - self.reach, 0.0)
            sketch.stretch("blade", Line(foot, apex), self.base * 0.06)
        pad = self.base * 0.1
        low = -(self.base - self.high) / 2 - pad
        return sketch.to_drawing((-pad, low, self.base + pad, low + self.base + 2 * pad), alt)
