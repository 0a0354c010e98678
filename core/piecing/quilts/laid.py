"""What lies where in a quilt."""

from __future__ import annotations

from dataclasses import dataclass

from ..blocks.pattern import UPRIGHT, Layout, Orientation

__all__ = ["Laid"]


@dataclass(frozen=True)
class Laid:
    """What lies at one spot of the quilt: a block, how it lies, its roles as fabrics, and fabrics of single units.

    ``units`` holds roles by the number of a cell of the layout.
    """

    layout: Layout
    orientation: Orientation = UPRIGHT
    roles: tuple[tuple[str, str], ...] = ()
    units: tuple[tuple[int, tuple[tuple[str, str], ...]], ...] = ()
