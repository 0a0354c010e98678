"""Blocks: patterns of units, at any size; what they need, how they are joined and pressed, and the quilt they make."""

from .file_format import FORMAT, pattern_data, pattern_from
from .pattern import Orientation, Pattern, Place, UnitPlacement, layout_of

__all__ = ["FORMAT", "Orientation", "Pattern", "Place", "UnitPlacement", "layout_of", "pattern_data", "pattern_from"]
