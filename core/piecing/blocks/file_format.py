"""A pattern as plain data: the project's own block format, ``entretoile-block/1``.

    {"format": "entretoile-block/1", "name": "Lantern",
     "columns": [1, 1, 1], "rows": [1, 1, 1],
     "units": {"A": {"kind": "half_square_triangle", "fabrics": "ab"},
               "B": {"kind": "plain_square", "fabrics": "c"},
               "C": {"block": "goose_pair", "fabrics": {"a": "c"}}},
     "layout": ["A0 B0 A1", "B0 C0 B0", "A3 B0 A2"]}

A word of the layout is a name of the legend, quarter turns clockwise, and ``m`` when mirrored first. ``.`` is an empty
place, ``<`` goes on from the left, ``^`` from above. Tracks are parts, whole or such as "3/2". Corners and strips are
shares of the unit's side, such as "1/3". Source: docs/theory, section 12.
"""

from __future__ import annotations

import json
import re
from collections.abc import Callable, Mapping
from fractions import Fraction
from functools import lru_cache
from typing import Any

from ..errors import BlockHoldsItself, PatternNotUnderstood, PiecingError, UnknownBlock
from ..typed_text import can_be_seen, one_line
from ..units import KINDS, kind_of
from .pattern import BlockPlacement, Content, Orientation, Pattern, Place, UnitPlacement

__all__ = ["FORMAT", "Find", "content_data", "content_from", "pattern_data", "pattern_from"]

FORMAT = "entretoile-block/1"
Find = Callable[[str], Mapping[str, Any] | None]
"""The data of a block known by its key; None when there is none."""
_WORD = re.compile(r"([A-Z][a-z]?)([0-3])(m?)")
_DEEPEST = 5
_MOST_UNITS = 100
_LONGEST = 100_000
"""Characters of a pattern that is remembered by what it says."""


def pattern_from(data: Any, find: Find, key: str = "") -> Pattern:
    """Read a pattern; blocks in it are looked up by ``find``.

    Raises ``PatternNotUnderstood`` (its field the path of what is wrong), ``UnknownBlock``, ``BlockHoldsItself``, and
    what ``Pattern`` refuses.
    """
    return _pattern(data, find, (key,) if key else ())


@lru_cache(maxsize=1024)
def _alone(text: str) -> Pattern:
    """One that holds no other: what it says is all there is to know."""
    return _read(json.loads(text), lambda _key: None, ())


def _pattern(data: Any, find: Find, above: tuple[str, ...]) -> Pattern:
    text = _text_alone(data)
    return _read(data, find, above) if text is None else _alone(text)


def _text_alone(data: Any) -> str | None:
    """What a pattern that holds no other says, to know it by when it is read again, as at every change beside it."""
    units = data.get("units") if isinstance(data, dict) else None
    if not isinstance(units, dict) or any("block" in u for u in units.values() if isinstance(u, dict)):
        return None
    try:
        text = json.dumps(data)
    except (TypeError, ValueError, RecursionError):
        return None
    return text if len(text) <= _LONGEST else None


def _read(data: Any, find: Find, above: tuple[str, ...]) -> Pattern:
    if not isinstance(data, Mapping):
        raise PatternNotUnderstood(
            "A block is written as an object with a name, columns, rows, units and a layout.", field=""
        )
    if data.get("format", FORMAT) != FORMAT:
        raise PatternNotUnderstood(
            "This block is in the format “{given}”; {known} is read here.",
            field="format",
            given=str(data["format"])[:40],
            known=FORMAT,
        )
    columns, rows = (_tracks(data.get(f), f) for f in ("columns", "rows"))
    units = data.get("units")
    if not isinstance(units, Mapping) or len(units) > _MOST_UNITS:
        raise PatternNotUnderstood("Units are given by name, {most} at most.", field="units", most=_MOST_UNITS)
    legend: dict[str, Content] = {}
    for name, unit in units.items():
        if not isinstance(name, str) or not re.fullmatch(r"[A-Z][a-z]?", name):
            raise PatternNotUnderstood(
                "A unit's name in the layout is a capital, perhaps with a small letter.", field=f"units.{str(name)[:8]}"
            )
        legend[name] = content_from(unit, find, above, f"units.{name}")
    name = one_line(str(data.get("name") or ""), 80)
    layout = data.get("layout")
    lines = tuple(str(line) for line in layout) if isinstance(layout, list | tuple) else ()
    return _same(name if can_be_seen(name) else "Block", columns, rows, lines, tuple(legend.items()))


@lru_cache(maxsize=1024)
def _same(
    name: str,
    columns: tuple[Fraction, ...],
    rows: tuple[Fraction, ...],
    lines: tuple[str, ...],
    legend: tuple[tuple[str, Content], ...],
) -> Pattern:
    """One object for all patterns that are written alike: a large layout is read once, and what is remembered of it is then found
    without comparing all that is in it."""
    return _one(Pattern(name, columns, rows, _places(lines, dict(legend), len(columns), len(rows))))


@lru_cache(maxsize=1024)
def _one(pattern: Pattern) -> Pattern:
    """Written with other names in the legend, it is still the same."""
    return pattern


def _tracks(given: Any, field: str) -> tuple[Fraction, ...]:
    if not isinstance(given, list | tuple):
        raise PatternNotUnderstood("Tracks are a list of parts, such as [1, 1, 1].", field=field)
    # In a long strip all but the corners are alike, and one share stands for them all.
    known: dict[tuple[type, str], Fraction] = {}
    found = []
    for n, g in enumerate(given):
        key = (type(g), str(g))
        if key not in known:
            known[key] = _share(g, f"{field}.{n}", most=1000)
        found.append(known[key])
    return tuple(found)


def _share(given: Any, field: str, most: int = 1) -> Fraction:
    text = str(given) if isinstance(given, int | str) and not isinstance(given, bool) else ""
    found = re.fullmatch(r"([0-9]{1,6})(?:/([0-9]{1,4}))?", text)
    if not found or found[2] == "0" * len(found[2] or " ") or Fraction(text) > most:
        raise PatternNotUnderstood(
            "“{given}” is no share: write it as 1 or 3/2, {most} at most.",
            field=field,
            given=str(given)[:20],
            most=most,
        )
    return Fraction(text)


def content_from(data: Any, find: Find, above: tuple[str, ...] = (), field: str = "unit") -> Content:
    """A unit or a smaller block as written in the legend."""
    if not isinstance(data, Mapping) or ("kind" in data) == ("block" in data):
        raise PatternNotUnderstood("A place holds a unit, by its kind, or a block, by its key.", field=field)
    if "block" in data:
        return _inner_block(data, find, above, field)
    if not isinstance(data["kind"], str) or data["kind"] not in KINDS:
        raise PatternNotUnderstood(
            "“{given}” is no kind of unit. Known are {known}.",
            field=f"{field}.kind",
            given=str(data["kind"])[:40],
            known=", ".join(KINDS),
        )
    kind = kind_of(data["kind"])
    part_fabrics = _ring(data.get("fabrics", kind.usual), f"{field}.fabrics")
    if len(part_fabrics) != len(kind.parts):
        raise PatternNotUnderstood(
            "This kind has {parts} parts: {names}. Give each a fabric.",
            field=f"{field}.fabrics",
            parts=len(kind.parts),
            names=", ".join(kind.parts),
        )
    corners = data.get("corners", ["1/3" if n == 2 else 0 for n in range(4)] if kind.has_corners else [0] * 4)
    if not isinstance(corners, list | tuple) or len(corners) != 4:
        raise PatternNotUnderstood(
            "Corners are four shares: lower left, lower right, upper right, upper left.", field=f"{field}.corners"
        )
    strip = _share(data.get("strip", "1/7" if kind.has_strip else 0), f"{field}.strip")
    return UnitPlacement(
        kind.name, part_fabrics, tuple(_share(c, f"{field}.corners.{n}") for n, c in enumerate(corners)), strip
    )


def _ring(given: Any, field: str) -> tuple[str, ...]:
    if not isinstance(given, str | list | tuple) or not all(
        isinstance(r, str) and re.fullmatch("[a-z]", r) for r in given
    ):
        raise PatternNotUnderstood("Fabrics are roles, small letters, one for each part.", field=field)
    return tuple(given)


def _inner_block(data: Mapping[str, Any], find: Find, above: tuple[str, ...], field: str) -> BlockPlacement:
    key = str(data["block"])[:80]
    if key in above or len(above) >= _DEEPEST:
        raise BlockHoldsItself(
            "This block would lie inside itself, without end. Lay another one there."
            if key in above
            else "Blocks lie in blocks {deepest} deep at most.",
            field=f"{field}.block",
            deepest=_DEEPEST,
        )
    found = find(key)
    if found is None:
        raise UnknownBlock(
            "There is no block “{key}” here. It may have been removed; lay another one there.",
            field=f"{field}.block",
            key=key,
        )
    roles = data.get("fabrics", {})
    if not isinstance(roles, Mapping) or not all(re.fullmatch("[a-z]", str(r)) for pair in roles.items() for r in pair):
        raise PatternNotUnderstood(
            "Fabrics of a block in a block are roles by role, such as a: c.", field=f"{field}.fabrics"
        )
    try:
        inner = _pattern(found, find, (*above, key))
    except PiecingError as refusal:
        raise refusal.at(f"{field}.block") from None
    inner.complete()
    return BlockPlacement(key, inner, tuple(sorted((str(a), str(b)) for a, b in roles.items() if a != b)))


def _places(lines: tuple[str, ...], legend: Mapping[str, Content], wide: int, high: int) -> tuple[Place, ...]:
    words = [line.split() for line in lines]
    if len(words) != high or any(len(line) != wide for line in words):
        raise PatternNotUnderstood(
            "The layout has {high} lines of {wide} words, one for each place.", field="layout", high=high, wide=wide
        )
    places = []
    for row, line in enumerate(words):
        for column, word in enumerate(line):
            if word in (".", "<", "^"):
                continue
            found = _WORD.fullmatch(word)
            if not found or found[1] not in legend:
                raise PatternNotUnderstood(
                    "“{word}” in row {row}, column {column} names no unit of this block.",
                    field="layout",
                    word=word[:20],
                    row=row + 1,
                    column=column + 1,
                )
            across = _run(lambda k, c=column, r=row: words[r][c + k] == "<", wide - column)  # type: ignore[misc]
            down = _run(lambda k, c=column, r=row: words[r + k][c] == "^", high - row)  # type: ignore[misc]
            places.append(
                Place(column, row, legend[found[1]], Orientation(int(found[2]), bool(found[3])), across, down)
            )
    covered = sum(p.across * p.down for p in places) + sum(line.count(".") for line in words)
    if covered != wide * high:
        raise PatternNotUnderstood(
            "In the layout < goes on from something at its left and ^ from something above; one of them does not.",
            field="layout",
        )
    return tuple(places)


def _run(goes_on: Callable[[int], bool], most: int) -> int:
    n = 1
    while n < most and goes_on(n):
        n += 1
    return n


def content_data(content: Content) -> dict[str, Any]:
    """A unit or a smaller block as it is written in the legend."""
    if isinstance(content, BlockPlacement):
        return {"block": content.key, "fabrics": dict(content.fabrics)}
    written: dict[str, Any] = {"kind": content.kind, "fabrics": "".join(content.part_fabrics)}
    kind = kind_of(content.kind)
    if kind.has_corners:
        written["corners"] = [str(c) for c in content.corners]
    if kind.has_strip:
        written["strip"] = str(content.strip)
    return written


def pattern_data(pattern: Pattern) -> dict[str, Any]:
    """The pattern in the format above; ``pattern_from`` gives it back."""
    names: dict[Content, str] = {}
    words = [["." for _ in pattern.columns] for _ in pattern.rows]
    for p in pattern.places:
        name = names.setdefault(p.content, _name(len(names)))
        for column, row in p.spots:
            words[row][column] = "<" if row == p.row else "^"
        words[p.row][p.column] = f"{name}{p.orientation.turn}{'m' if p.orientation.mirrored else ''}"
        for row in range(p.row + 1, p.row + p.down):
            for column in range(p.column + 1, p.column + p.across):
                words[row][column] = "<"
    return {
        "format": FORMAT,
        "name": pattern.name,
        "columns": [_share_data(t) for t in pattern.columns],
        "rows": [_share_data(t) for t in pattern.rows],
        "units": {name: content_data(c) for c, name in names.items()},
        "layout": [" ".join(line) for line in words],
    }


def _name(n: int) -> str:
    letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZ"
    return letters[n % 26] + ("" if n < 26 else "abcdefghijklmnopqrstuvwxyz"[n // 26 - 1])


def _share_data(track: Fraction) -> int | str:
    return int(track) if track.denominator == 1 else str(track)
