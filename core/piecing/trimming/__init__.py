"""Trim recipes: where each line of the ruler lies, which sides are cut, when to turn."""

from __future__ import annotations

from ..planning import UnitPlan
from .half_square_triangle import closed, opened
from .recipe import Recipe, RecipeStep

__all__ = ["Recipe", "RecipeStep", "recipes"]


def recipes(plan: UnitPlan) -> tuple[Recipe, ...]:
    """Every way of trimming this unit, the commonest first."""
    return opened(plan), closed(plan)
