"""Blocks to try things on, and patterns at random."""

from __future__ import annotations

from fractions import Fraction
from typing import Any

from hypothesis import strategies as st

from piecing.blocks.file_format import pattern_from
from piecing.blocks.library import library_data
from piecing.blocks.pattern import Orientation, Pattern, Place, UnitPlacement
from piecing.units import KINDS, kind_of

__all__ = ["BOX", "grid", "none", "patterns"]

BOX: dict[str, Any] = {"name": "Box", "columns": [1], "rows": [1], "layout": ["A0"]}
"""A grid of one place."""


def none(_key: str) -> None:
    """No other blocks."""
    return


def grid(
    layout: list[str], units: dict[str, Any], columns: list[Any] | None = None, rows: list[Any] | None = None
) -> Pattern:
    """A pattern in short; even tracks unless told otherwise."""
    data = {"name": "Grid", "columns": columns or [1] * len(layout[0].split()), "rows": rows or [1] * len(layout)}
    return pattern_from({**data, "units": units, "layout": layout}, library_data)


@st.composite
def patterns(draw: st.DrawFn) -> Pattern:
    """An even square grid with units of any kind lying anyhow, some places empty."""
    size = draw(st.integers(1, 4))
    places = []
    for row in range(size):
        for column in range(size):
            if draw(st.booleans()):
                kind = kind_of(draw(st.sampled_from(sorted(KINDS))))
                part_fabrics = tuple(draw(st.sampled_from("abc")) for _ in kind.parts)
                corners = (
                    tuple(Fraction(n, 4) for n in (draw(st.integers(0, 2)), 0, 1, 0))
                    if kind.has_corners
                    else (Fraction(0),) * 4
                )
                strip = Fraction(1, 5) if kind.has_strip else Fraction(0)
                orientation = Orientation(draw(st.integers(0, 3)), draw(st.booleans()))
                places.append(Place(column, row, UnitPlacement(kind.name, part_fabrics, corners, strip), orientation))
    tracks = (Fraction(1),) * size
    return Pattern("Random", tracks, tracks, tuple(places))
