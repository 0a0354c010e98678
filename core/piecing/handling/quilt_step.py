"""One step of putting a quilt together, and what is said of the size that comes out.

Source: docs/theory, section 15.
"""

from __future__ import annotations

from dataclasses import dataclass

from ..lengths import Length
from ..messages import Message

__all__ = ["QuiltStep", "measures_said"]


@dataclass(frozen=True, slots=True)
class QuiltStep:
    """``key`` is its name for good; ``width`` by ``height``, raw edge to raw edge, is what comes out when all is true."""

    key: str
    title: Message
    said: tuple[Message, ...]
    look: tuple[Message, ...]
    width: Length
    height: Length


def measures_said(w: Length, h: Length) -> tuple[Message, ...]:
    """What comes out of a step, raw edge to raw edge."""
    return (Message("It should measure {w} by {h}, raw edge to raw edge.", w=w, h=h),)
