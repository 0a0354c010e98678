"""Trimming a half-square triangle, opened or closed. Source: docs/theory.md, section 6."""

from __future__ import annotations

from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Line, Polygon, bounds, rectangle
from ..geometry.sewing import Patch, Piece, sew, trim
from ..lengths import ZERO, Length
from ..planning import UnitPlan
from ..units.pictures import edges_of
from ..wording import Said
from .recipe import BLADE, IRON, Recipe, RecipeStep, SquareRuler, square_ruler_for

__all__ = ["closed", "opened"]


def opened(plan: UnitPlan) -> Recipe:
    """After pressing: two sides, half a turn, the other two. The unit comes to the target itself."""
    return Recipe(
        "opened",
        Said("Opened, after pressing"),
        Said("Four cuts. Sees what it trims, so it also mends a unit that opened a little crooked."),
        Said(
            "A square ruler of {size} or more, with a 45-degree line into its corner.", size=square_ruler_for(plan.raw)
        ),
        plan.target,
        (BLADE,),
        _Opened(plan).steps(),
    )


class _Opened:
    """The unit as it goes through the four cuts, drawn after the engine at every step."""

    def __init__(self, plan: UnitPlan) -> None:
        self.plan = plan
        self.side, self.target, self.margin = float(plan.raw), float(plan.target), float(plan.margin)
        self.raw = plan.method.sew(float(plan.cut), plan.choices.seam)
        high = self.margin + self.target
        _, right, top, _ = edges_of(rectangle(high, high))
        half, _ = trim(self.raw, right, top)
        self.half = half.turned(2).at_origin()
        self.done, _ = trim(self.half, *edges_of(rectangle(self.target, self.target)))

    def steps(self) -> tuple[RecipeStep, ...]:
        target, margin = self.plan.target, self.plan.margin
        return (
            RecipeStep(
                Said("Lay the ruler"),
                Said(
                    "Put the 45-degree line on the seam, the {target} marks inside the left and lower edges.",
                    target=target,
                ),
                Said("About {margin} of cloth shows past the ruler on the right and at the top.", margin=margin),
                self._picture(
                    self.raw, self.margin + self.target, Said("Ruler on the raw unit, 45-degree line on the seam.")
                ),
            ),
            RecipeStep(
                Said("Shave two sides"),
                Said("Cut up the right side, then along the top. Do not lift the ruler between them."),
                Said("Two fresh edges that meet square at the end of the seam."),
                self._picture(
                    self.raw, self.margin + self.target, Said("Two cuts along the ruler's edges."), cutting=True
                ),
            ),
            RecipeStep(
                Said("Turn half round"),
                Said(
                    "Set both {target} marks exactly on the two fresh edges, the 45-degree line still on the seam.",
                    target=target,
                ),
                Said("Fresh edges under the marks; about {margin} left over right and top.", margin=margin),
                self._picture(self.half, self.target, Said("The unit turned half round under the ruler."), fresh=True),
            ),
            RecipeStep(
                Said("Shave the other two"),
                Said("Cut the right side and the top again."),
                Said("{target} both ways, the seam running into two corners.", target=target),
                self._picture(
                    self.half, self.target, Said("The last two cuts along the ruler's edges."), fresh=True, cutting=True
                ),
            ),
        )

    def _picture(
        self, piece: Piece, corner: float, alt: Said, *, fresh: bool = False, cutting: bool = False
    ) -> Drawing:
        size = float(square_ruler_for(self.plan.raw))
        ruler = SquareRuler(size, (corner, corner))
        sketch = Sketch().piece(piece)
        if fresh:
            sketch.line("fresh", (0.0, 0.0), (self.target + self.margin, 0.0))
            sketch.line("fresh", (0.0, 0.0), (0.0, self.target + self.margin))
        ruler.lay(sketch, marks_at=self.plan.target)
        if cutting:
            ruler.blade(sketch, corner, size * 0.06)
        pad = size * 0.1
        low = min(0.0, corner - size) - pad
        high = max(self.side, corner) + pad
        return sketch.drawn((low, low, high, high), alt)


def closed(plan: UnitPlan) -> Recipe:
    """Before pressing: two cuts against the stitching. The unit opens to U - f/√2."""
    return Recipe(
        "closed",
        Said("Closed, before pressing"),
        Said("Two cuts instead of four. Measures from the stitching, so the fold still comes off."),
        Said("A square ruler with a diagonal line marked {target}.", target=plan.target),
        _opens_to(plan),
        (BLADE, IRON),
        _Closed(plan).steps(),
    )


def _opens_to(plan: UnitPlan) -> Length:
    return plan.target - plan.choices.fold.over_root2()


class _Closed:
    """The pair unopened: right angle upper right, long edge below left, stitching ``stitch`` inside it."""

    def __init__(self, plan: UnitPlan) -> None:
        self.plan = plan
        self.cut, self.target = float(plan.cut), float(plan.target)
        self.stitch = float(plan.choices.seam.stitch)
        # The ruler's diagonal for U lies on the stitching: x + y = C + √2 d, corner at half of that plus U/2.
        self.corner = (self.cut + 2**0.5 * self.stitch + self.target) / 2
        self.triangle: Polygon = ((0.0, self.cut), (self.cut, 0.0), (self.cut, self.cut))
        self.long_edge = Line(self.triangle[1], self.triangle[0]).reversed()

    def steps(self) -> tuple[RecipeStep, ...]:
        target, fold = self.plan.target, self.plan.choices.fold
        opens = _opens_to(self.plan)
        leave = (
            Said("Leave the line a thread outside the stitching: the fold will take {loss}.", loss=target - opens)
            if fold > ZERO
            else Said("Exactly on the stitching, corner to corner, not on the drawn line.")
        )
        return (
            RecipeStep(
                Said("Lay the ruler"),
                Said("Put the diagonal marked {target} on the line of stitching.", target=target),
                leave,
                self._flat(Said("The pair unopened, the ruler's diagonal on the stitching.")),
            ),
            RecipeStep(
                Said("Trim the two short sides"),
                Said("Cut up the right side and along the top."),
                Said("Both layers cut, the long edge untouched."),
                self._flat(Said("Two cuts along the ruler's edges."), cutting=True),
            ),
            RecipeStep(
                Said("Press it open"),
                Said("Set the seam first, then open it and let it cool flat."),
                Said("The unit opens to {opens} a side.", opens=opens),
                self._open(Said("The unit pressed open, dog ears past two corners.")),
            ),
            RecipeStep(
                Said("Snip the dog ears"),
                Said("Cut the little tips off level with the edges."),
                Said("Nothing past the square; the seam runs into two corners."),
                self._open(Said("The unit with its dog ears gone."), snipped=True),
            ),
        )

    def _flat(self, alt: Said, *, cutting: bool = False) -> Drawing:
        size = float(square_ruler_for(self.plan.raw))
        q = self.corner
        sketch = Sketch().polygon("back", self.triangle, "b")
        stitching = self.long_edge.shifted(self.stitch)
        sketch.line("stitch", stitching.start, stitching.end)
        ruler = SquareRuler(size, (q, q))
        ruler.lay(sketch, diagonal=False)
        sketch.line("ruler-diagonal", (q - self.target, q), (q, q - self.target))
        pad = size * 0.1
        if cutting:
            ruler.blade(sketch, q, size * 0.06)
        else:
            above = self.cut + pad * 0.35
            sketch.dimension(
                (q - self.target, above),
                (q, above),
                (q - self.target / 2, above),
                Said("{size}", size=self.plan.target),
            )
        low = min(0.0, q - size) - pad
        return sketch.drawn((low, low, self.cut + pad, self.cut + pad), alt)

    def _open(self, alt: Said, *, snipped: bool = False) -> Drawing:
        kept = (
            Line((self.corner, 0.0), (self.corner, self.corner)),
            Line((self.corner, self.corner), (0.0, self.corner)),
        )
        halves = [trim(Piece((Patch(self.triangle, role),)), *kept)[0] for role in ("a", "b")]
        unit = sew(halves[0], halves[1], self.long_edge, float(self.plan.choices.seam.take_up)).at_origin()
        if snipped:
            unit, _ = trim(unit, *edges_of(rectangle(*unit.extent[2:])))
        _, _, right, top = bounds([p.outline for p in unit.faces])
        pad = right * 0.16
        return Sketch().piece(unit).drawn((-pad, -pad, right + pad, top + pad), alt)
