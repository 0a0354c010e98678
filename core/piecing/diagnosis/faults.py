"""What one sees on a sewn block: tips cut off or floating, diagonals past their corner, steps, edges short or long.

Source: docs/theory.md, section 14.4.
"""

from __future__ import annotations

from dataclasses import dataclass

from ..lengths import Length
from ..wording import Said
from .model import Feature, FeatureKind, BlockModel, Vector

__all__ = ["EASED", "SEEN", "Fault", "faults_of"]

SEEN = 1 / 32
"""Inches from which a tip's fault is seen."""
EASED = 1 / 16
"""Inches that pins ease in."""
_LEAST = {
    FeatureKind.EDGE_TIP: SEEN,
    FeatureKind.CORNER_TIP: SEEN,
    FeatureKind.CROSSING: SEEN,
    FeatureKind.ROW: EASED,
    FeatureKind.COLUMN: EASED,
}


@dataclass(frozen=True, slots=True)
class Fault:
    """``size`` is the deviation in inches with its sign; ``eased`` whether pins take it up."""

    number: int
    feature: Feature
    size: float
    said: Said
    eased: bool


def faults_of(model: BlockModel, deviations: Vector) -> tuple[Fault, ...]:
    """Every fault that is seen: tips, then crossings, then edges, the worst of each kind first."""
    order = list(_LEAST)
    seen = [(f, float(d)) for f, d in zip(model.features, deviations, strict=True) if abs(d) >= _LEAST[f.kind] - 1e-9]
    seen.sort(key=lambda s: (order.index(s[0].kind), -abs(s[1])))
    return tuple(
        Fault(
            n,
            f,
            d,
            said_of(model, f, d),
            f.kind in (FeatureKind.CROSSING, FeatureKind.ROW, FeatureKind.COLUMN) and abs(d) <= EASED,
        )
        for n, (f, d) in enumerate(seen, 1)
    )


def said_of(model: BlockModel, f: Feature, deviation: float) -> Said:
    """A figure of the block in words, its sign among them."""
    size = Length.near(abs(deviation))
    less = deviation < 0
    match f.kind:
        case FeatureKind.EDGE_TIP:
            name = model.places.cells[f.cell].name
            if abs(deviation) < SEEN / 4:
                return Said(f"{name}: the tip at its {f.edge} touches the seam")
            if less:
                return Said(f"{name}: the tip at its {f.edge} is cut off by {{size}}", size=size)
            return Said(f"{name}: the tip at its {f.edge} floats {{size}} short of the seam", size=size)
        case FeatureKind.CORNER_TIP:
            name = model.places.cells[f.cell].name
            down, across = f.edge.split()
            if abs(deviation) < SEEN / 4:
                return Said(f"{name}: the diagonal meets its {down} {across} corner")
            seam = f"the {across} seam" if deviation > 0 else f"the {down} seam"
            return Said(f"{name}: the diagonal runs into {seam}, {{size}} from its {down} {across} corner", size=size)
        case FeatureKind.CROSSING:
            first, other = ("left", "right") if model.places.seams[f.seam].upright else ("upper", "lower")
            longer = other if less else first
            said = f"{model.places.seams[f.seam].name}, crossing {f.nth}: "
            if abs(deviation) < SEEN / 4:
                return Said(said + "the seams meet")
            return Said(said + f"the {longer} side reaches {{size}} further", size=size)
        case _:
            what = "row" if f.kind is FeatureKind.ROW else "column"
            edge = {"top": "upper", "bottom": "lower"}.get(f.edge, f.edge)
            if abs(deviation) < SEEN / 4:
                return Said(f"{what} {f.row + 1}, {edge} edge: as it should be")
            return Said(f"{what} {f.row + 1}, {edge} edge: {{size}} {'short' if less else 'long'}", size=size)
