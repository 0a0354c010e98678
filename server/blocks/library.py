"""The library of arrangements, one's own among them."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from piecing.blocks.file_format import pattern_from
from piecing.blocks.library import library_data, library_keys, library_pattern
from piecing.blocks.pattern import Pattern, layout_of
from piecing.drawings.block import block_picture
from piecing.errors import PiecingError
from piecing.geometry.drawing import Drawing
from piecing.lengths import Length
from workrooms.models import Workroom

from .models import OwnBlock
from .translate import (
    find_in,
)

__all__ = ["LibraryBlock", "library_of"]


@dataclass(frozen=True)
class LibraryBlock:
    key: str
    own: bool
    pattern: dict[str, Any]
    name: str
    columns: int
    rows: int
    picture: Drawing
    kinds: tuple[str, ...]


def library_of(room: Workroom) -> list[LibraryBlock]:
    """What comes with the program, then what was kept."""
    found = [_library_block(k, library_pattern(k), dict(library_data(k) or {}), own=False) for k in library_keys()]
    find = find_in(room)
    for row in OwnBlock.objects.filter(workroom=room, deleted_at=None):
        try:
            found.append(
                _library_block(str(row.pk), pattern_from(row.pattern, find, str(row.pk)), row.pattern, own=True)
            )
        except PiecingError:  # what it held is gone for good: it is left out, not in the way of the others
            continue
    return found


def _library_block(key: str, pattern: Pattern, data: dict[str, Any], *, own: bool) -> LibraryBlock:
    layout = layout_of(pattern)
    kinds = tuple(sorted({c.unit.kind for c in layout.cells}))
    picture = block_picture(layout, Length.of(10))
    return LibraryBlock(key, own, data, pattern.name, len(pattern.columns), len(pattern.rows), picture, kinds)
