"""Blocks under new keys, as a copy of a project or a file that is taken in has them: wherever a key stands."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

__all__ = ["borders_renamed", "part_renamed", "pattern_renamed"]


def _content(held: Any, renamed: Mapping[str, str]) -> Any:
    key = held.get("block") if isinstance(held, dict) else None
    return {**held, "block": renamed.get(key, key)} if key else held


def pattern_renamed(pattern: Mapping[str, Any], renamed: Mapping[str, str]) -> dict[str, Any]:
    """The blocks that lie in a block."""
    return {**pattern, "units": {n: _content(u, renamed) for n, u in pattern["units"].items()}}


def part_renamed(part: str, renamed: Mapping[str, str]) -> str:
    """The block that a part of a quilt is a part of."""
    head, _, key = part.partition(" ")
    return f"{head} {renamed[key]}" if key in renamed else part


def borders_renamed(borders: Any, renamed: Mapping[str, str]) -> Any:
    """The blocks that borders are pieced of. What is no list of borders stays as it is, for its reader to refuse."""

    def row(given: Any) -> Any:
        if not isinstance(given, dict) or not isinstance(given.get("units"), list):
            return given
        units = [_content(u, renamed) for u in given["units"]]
        return {**given, "units": units, "corner": _content(given.get("corner"), renamed)}

    if not isinstance(borders, list):
        return borders
    return [{**b, "pieced": row(b.get("pieced"))} if isinstance(b, dict) and b.get("pieced") else b for b in borders]
