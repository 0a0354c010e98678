"""Cutting: what there is of each cloth, which piece comes from where, what to buy, and how to cut it."""

from .check import Flaw, flaws
from .plan import CuttingPlan, Goal, cutting_plan
from .stock import Cloth, ClothKind, WantedPiece

__all__ = ["Cloth", "ClothKind", "CuttingPlan", "Flaw", "Goal", "WantedPiece", "cutting_plan", "flaws"]
