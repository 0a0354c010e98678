"""The seams of a quilt beside those within its blocks. Source: docs/theory, section 13.7."""

from __future__ import annotations

from ..lengths import Length
from .choices import PlainPiece
from .sizes import QuiltSizes

__all__ = ["binding_seam_length", "quilt_join_length", "quilt_parts"]


def quilt_join_length(sizes: QuiltSizes) -> Length:
    """The seams that join blocks, sashing, setting pieces and borders, each from raw edge to raw edge.

    Every inch of such a seam is an edge of two parts, and the rest of the parts' edges are the quilt's own; joining n parts
    takes n - 1 seams.
    """
    c = sizes.choices
    edges = float((c.block_width + c.block_height) * 2) * c.blocks
    edges += sum(float(p.edge) * _count(p) for p in _of_the_top(sizes))
    edges += sum(float(p.width + p.height) * 2 * p.count for p in sizes.parts)
    inside = (edges - 2 * float(sizes.width + sizes.height)) / 2
    return Length.near(inside + 2 * float(c.seam_allowance) * (quilt_parts(sizes) - 1))


def quilt_parts(sizes: QuiltSizes) -> int:
    """How many parts are joined to one: blocks, sashing, cornerstones, setting pieces, borders, half blocks."""
    pieced = sum(p.count for p in sizes.parts)
    return sizes.choices.blocks + pieced + sum(_count(p) for p in _of_the_top(sizes))


def _of_the_top(sizes: QuiltSizes) -> list[PlainPiece]:
    return [p for p in sizes.pieces if not p.joined and not p.apart]


def _count(piece: PlainPiece) -> int:
    return piece.needed or piece.count * piece.cut_into


def binding_seam_length(sizes: QuiltSizes, strips: int) -> Length:
    """The binding sewn on once round, and the joins of so many strips, each over the diagonal of a strip's width."""
    strip = sizes.binding.strip
    return sizes.binding.round_about + Length.near(float(strip.times_root2()) * (strips - 1))
