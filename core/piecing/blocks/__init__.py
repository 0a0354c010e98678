"""Blocks: patterns of units, at any size; what they need, how they are joined and pressed, and the quilt they make."""

from .pattern import Lie, Pattern, Place, UnitHere, laid
from .written import FORMAT, pattern_data, pattern_from

__all__ = ["FORMAT", "Lie", "Pattern", "Place", "UnitHere", "laid", "pattern_data", "pattern_from"]
