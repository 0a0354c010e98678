"""One change to a layout as the screen asks for it: words to a function of the core, nothing more."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import replace
from typing import Any

from api.readers import name_reader
from piecing.blocks import editing
from piecing.blocks.file_format import Find, content_from
from piecing.blocks.pattern import MOST_TRACKS, Orientation, Pattern, UnitPlacement
from piecing.blocks.sizing import check_finished, tracks_from_text
from piecing.errors import PatternNotUnderstood
from piecing.lengths import Length, Measure

__all__ = ["EDITS", "Asked", "edited"]

Spot = tuple[int, int]


def _number(given: Any, low: int, high: int, field: str) -> int:
    if isinstance(given, bool) or not isinstance(given, int) or not low <= given <= high:
        raise PatternNotUnderstood("Give a whole number from {low} to {high}.", field=field, low=low, high=high)
    return given


def _spot(given: Any, field: str = "spots") -> Spot:
    if not isinstance(given, list | tuple) or len(given) != 2:
        raise PatternNotUnderstood("A place is a column and a row.", field=field)
    return _number(given[0], 0, MOST_TRACKS - 1, field), _number(given[1], 0, MOST_TRACKS - 1, field)


def _spots(edit: Mapping[str, Any], pattern: Pattern) -> list[Spot]:
    given = edit.get("spots") or []
    if not isinstance(given, list) or len(given) > MOST_TRACKS**2:
        raise PatternNotUnderstood("Places are a list of columns and rows.", field="spots")
    spots = [_spot(s) for s in given]
    outside = [s for s in spots if s[0] >= len(pattern.columns) or s[1] >= len(pattern.rows)]
    if outside:
        raise PatternNotUnderstood(
            "Row {row}, column {column} lies outside the grid.",
            field="spots",
            row=outside[0][1] + 1,
            column=outside[0][0] + 1,
        )
    return spots


def _role(edit: Mapping[str, Any], field: str) -> str:
    role = str(edit.get(field, ""))
    if len(role) != 1 or not "a" <= role <= "z":
        raise PatternNotUnderstood("A fabric role is one small letter.", field=field)
    return role


Edit = Callable[[Pattern, Mapping[str, Any], "Asked"], Pattern]


class Asked:
    """What an edit may need to know besides the pattern; ``finished`` is how wide the block finishes, after the edit what it then does."""

    def __init__(self, find: Find, key: str, finished: Length, measure: Measure) -> None:
        self.find, self.above, self.finished, self.measure = find, (key,) if key else (), finished, measure


def _place(p: Pattern, e: Mapping[str, Any], asked: Asked) -> Pattern:
    content = content_from(e.get("content"), asked.find, asked.above)
    orientation = Orientation(_number(e.get("turn", 0), 0, 3, "turn"), bool(e.get("mirrored", False)))
    return editing.placed(p, _spots(e, p), content, orientation)


def _paint(p: Pattern, e: Mapping[str, Any], _asked: Asked) -> Pattern:
    part = e.get("part")
    return editing.painted(p, _spots(e, p), None if part is None else _number(part, 0, 7, "part"), _role(e, "role"))


def _shape(p: Pattern, e: Mapping[str, Any], asked: Asked) -> Pattern:
    """Corners and strip of the units named."""
    made = p
    for spot in _spots(e, p):
        here = made.at(*spot)
        if here and isinstance(here.content, UnitPlacement):
            data = {"kind": here.content.kind, "fabrics": "".join(here.content.part_fabrics)}
            data |= {k: e[k] for k in ("corners", "strip") if k in e}
            made = editing.placed(made, [spot], content_from(data, asked.find), here.orientation)
    return made


def _symmetry(p: Pattern, e: Mapping[str, Any], _asked: Asked) -> Pattern:
    known = [s.value for s in editing.Symmetry]
    if e.get("symmetry") not in known:
        raise PatternNotUnderstood("Choose one of: {known}.", field="symmetry", known=", ".join(known))
    return editing.filled(p, editing.Symmetry(e["symmetry"]), _spots(e, p))


def _tracks(p: Pattern, e: Mapping[str, Any], asked: Asked) -> Pattern:
    columns, rows = (str(e.get(field, ""))[:400] for field in ("columns", "rows"))
    given = tracks_from_text(p, asked.finished, columns, rows, asked.measure, grows=e.get("grows") is True)
    made = editing.retracked(p, given.columns, given.rows, given.one)
    if not given.sized:
        return made
    asked.finished = Length.of(made.width)
    check_finished(asked.finished, "columns")
    return editing.in_least_parts(made)


EDITS: dict[str, Edit] = {
    "place": _place,
    "clear": lambda p, e, _a: editing.cleared(p, _spots(e, p)),
    "turn": lambda p, e, _a: editing.turned(p, _spots(e, p), _number(e.get("quarters", 1), -3, 3, "quarters")),
    "mirror": lambda p, e, _a: editing.mirrored(p, _spots(e, p)),
    "move": lambda p, e, _a: editing.moved(p, _spot(e.get("from"), "from"), _spot(e.get("to"), "to")),
    "repeat": lambda p, e, _a: editing.repeated_to(p, _spot(e.get("from"), "from"), _spots(e, p)),
    "paint": _paint,
    "shape": _shape,
    "symmetry": _symmetry,
    "span": lambda p, e, _a: editing.spanned(
        p,
        _spot(e.get("from"), "from"),
        _number(e.get("across", 1), 1, MOST_TRACKS, "across"),
        _number(e.get("down", 1), 1, MOST_TRACKS, "down"),
    ),
    "stretch": lambda p, e, _a: editing.stretched(
        p,
        _spot(e.get("from"), "from"),
        _number(e.get("across", 1), 1, MOST_TRACKS, "across"),
        _number(e.get("down", 1), 1, MOST_TRACKS, "down"),
    ),
    "grid": lambda p, e, _a: editing.regridded(
        p, _number(e.get("columns"), 1, MOST_TRACKS, "columns"), _number(e.get("rows"), 1, MOST_TRACKS, "rows")
    ),
    "tracks": _tracks,
    "turn_whole": lambda p, e, _a: editing.whole_turned(p, _number(e.get("quarters", 1), -3, 3, "quarters")),
    "mirror_whole": lambda p, _e, _a: editing.whole_mirrored(p),
    "exchange": lambda p, e, _a: editing.exchanged(p, _role(e, "one"), _role(e, "other")),
    "rename": lambda p, e, _a: replace(p, name=name_reader(80)(e.get("name"))),
}


def edited(pattern: Pattern, edit: Mapping[str, Any], asked: Asked) -> Pattern:
    """Raises ``PatternNotUnderstood`` for an edit there is none of, and whatever the core refuses."""
    do = EDITS.get(str(edit.get("do")))
    if do is None:
        raise PatternNotUnderstood(
            "“{given}” is no change of a layout. There are: {known}.",
            field="do",
            given=str(edit.get("do"))[:30],
            known=", ".join(EDITS),
        )
    made = do(pattern, edit, asked)
    return made if edit.get("bent") is True else editing.not_bent(pattern, made)
