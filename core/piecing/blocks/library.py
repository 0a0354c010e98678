"""The arrangements that come with the program, each a plain data file in ``library/`` in the project's own format.

The names are the craft's common old ones, or this project's own. Source: docs/theory, section 12.
"""

from __future__ import annotations

import json
from collections.abc import Mapping
from functools import lru_cache
from importlib.resources import files
from typing import Any

from .file_format import pattern_from
from .pattern import Pattern

__all__ = ["library_data", "library_keys", "library_pattern"]


@lru_cache(maxsize=1)
def _all() -> dict[str, Mapping[str, Any]]:
    folder = files(__package__) / "library"
    found = ((f.name.removesuffix(".json"), f) for f in folder.iterdir() if f.name.endswith(".json"))
    return {key: json.loads(f.read_text("utf-8")) for key, f in sorted(found)}


def library_keys() -> tuple[str, ...]:
    """Smaller grids first, then by name."""
    return tuple(sorted(_all(), key=lambda k: (len(_all()[k]["layout"]), _all()[k]["name"])))


def library_data(key: str) -> Mapping[str, Any] | None:
    """The written pattern; None for a key there is none for."""
    return _all().get(key)


@lru_cache(maxsize=128)
def library_pattern(key: str) -> Pattern:
    """Raises ``KeyError`` for a key there is none for."""
    return pattern_from(_all()[key], library_data, key)
