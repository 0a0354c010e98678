"""Blocks: patterns of units, at any size; what they need, how they are joined and pressed, and the quilt they make."""
