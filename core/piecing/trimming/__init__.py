"""Trim recipes: where each line of the ruler lies, which sides are cut, when to turn, and what must show."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ..lengths import Measure
from ..planning.plan import plan as plan_unit
from ..planning.schools import School
from ..planning.unit_plan import UnitPlan
from ..units import flying_goose, half_square_triangle
from ..units.method import Cuts
from .diagonal import closed_recipe, folded_recipe, opened_said
from .expectation import Expectation, expectation, margin_read
from .opened import made_for_geese, opened_recipe
from .recipe import Cutter, Recipe, RecipeStep
from .rulers import Fit, Ruler, fit, starting_set
from .whole_block import trim_block

__all__ = [
    "Cutter",
    "Expectation",
    "Fit",
    "Recipe",
    "RecipeStep",
    "Ruler",
    "expectation",
    "fit",
    "margin_read",
    "opened_said",
    "recipes",
    "starting_set",
    "trim_block",
    "trimmed_plan",
]

_CLOSED = (half_square_triangle.PAIR, half_square_triangle.FOUR, half_square_triangle.EIGHT, half_square_triangle.LOOSE)
_FOLDED = ("half_square_triangle", "strip_split_square", "banded_hourglass")


def trimmed_plan(plan: UnitPlan) -> UnitPlan:
    """The plan of what is really trimmed: a goose from two half-square triangles is trimmed before they are joined."""
    if plan.method is not flying_goose.TWO_UNITS:
        return plan
    spec = replace(
        plan.spec, kind="half_square_triangle", width=plan.spec.height, part_fabrics=plan.spec.part_fabrics[:2]
    )
    choices = replace(
        plan.choices, spec=spec, method="pair", school=School.EXACT, cuts=Cuts(square=plan.cuts["square"])
    )
    return plan_unit(choices)


def recipes(plan: UnitPlan, rulers: Sequence[Ruler] | None = None, cutter: Cutter = Cutter.RIGHT) -> tuple[Recipe, ...]:
    """Every way of trimming this unit, the one for the rulers owned first.

    ``rulers`` are those owned; the starting set when None. A unit that no ruler covers is best folded, when it can be.
    """
    owned = starting_set(Measure.INCHES) if rulers is None else rulers
    shown = trimmed_plan(plan)
    ways = [*made_for_geese(shown, owned, cutter), opened_recipe(shown, owned, cutter)]
    if shown.method in _CLOSED:
        ways.append(closed_recipe(shown, owned, cutter))
    if shown.spec.kind in _FOLDED:
        ways.append(folded_recipe(shown, owned, cutter))
    too_large = any(n.code == "ruler_small" for r in ways if r.code == "opened" for n in r.warnings)
    return tuple(sorted(ways, key=lambda r: not (too_large and r.code == "folded")))
