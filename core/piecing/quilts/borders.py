"""Borders, cut to the length of what they are sewn to. Source: docs/theory, section 12.8."""

from __future__ import annotations

from ..lengths import Length
from ..messages import Message
from .choices import Corners, PlainPiece, QuiltChoices, plain_piece

__all__ = ["add_borders"]


def add_borders(c: QuiltChoices, width: Length, height: Length, pieces: list[PlainPiece]) -> tuple[Length, Length]:
    """Adds the pieces of every border to ``pieces``, from the inside out; returns the finished width and height with
    all of them.
    """
    measure = Message("Measure the quilt through its middle before cutting to length.")
    for n, b in enumerate(c.borders, 1):
        name = f"border {n}" if len(c.borders) > 1 else "border"
        wider = width + b.width * 2
        pieces.append(plain_piece(c, f"{name}, sides", b.fabric, b.width, height, 2, c.oversize, measure))
        if b.corners is Corners.SQUARE:
            pieces.append(plain_piece(c, f"{name}, top and bottom", b.fabric, b.width, width, 2, c.oversize, measure))
            pieces.append(plain_piece(c, f"{name}, corner squares", b.corner_fabric or b.fabric, b.width, b.width, 4))
        else:
            pieces.append(plain_piece(c, f"{name}, top and bottom", b.fabric, b.width, wider, 2, c.oversize, measure))
        width, height = wider, height + b.width * 2
    return width, height
