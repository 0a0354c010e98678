"""Saving as you go without overwriting what another window saved.

A change names the fields it sets and what its writer last saw in them. A field that holds something
else by now is a conflict, said field by field; every other field goes in. See docs/decisions/0002.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from django.db import models

from piecing.errors import PiecingError
from piecing.lengths import Length, Measure, Style

from .problems import ChangedElsewhere, Refused

__all__ = ["Reader", "apply_changes"]

Reader = Callable[[Any], Any]


def _read(readers: Mapping[str, Reader], values: Mapping[str, Any], style: Style) -> dict[str, Any]:
    read: dict[str, Any] = {}
    refusals: list[PiecingError] = []
    for field, value in values.items():
        try:
            read[field] = readers[field](value)
        except PiecingError as refusal:
            refusals.append(refusal.at(field))
    if refusals:
        raise Refused(refusals, style)
    return read


def _shown(value: Any, style: Style) -> str:
    if isinstance(value, Length):
        return style.text(value)
    if isinstance(value, Mapping) and "layout" in value:
        return " / ".join(map(str, value["layout"]))
    if isinstance(value, Mapping):
        return ", ".join(f"{name} {_shown(size, style)}" for name, size in value.items())
    if isinstance(value, list | tuple):
        return ", ".join(_shown(v, style) for v in value)
    return "" if value is None else str(value)


def apply_changes(
    row: models.Model,
    readers: Mapping[str, Reader],
    changes: Mapping[str, Any],
    seen: Mapping[str, Any],
    measure: Measure,
) -> list[str]:
    """Set ``changes`` on ``row`` (not saved); returns the fields set.

    Texts are read, and refusals said, in ``measure``. Raises ``Refused`` for values that cannot be read, ``ChangedElsewhere`` (naming what is kept here) when a
    field holds neither what was seen nor what is wanted.
    """
    style = Style(measure)
    wanted = _read(readers, {k: v for k, v in changes.items() if k in readers}, style)
    before = _read(readers, {k: v for k, v in seen.items() if k in wanted}, style)
    clashes = {
        f: _shown(getattr(row, f), style) for f, old in before.items() if getattr(row, f) not in (old, wanted[f])
    }
    if clashes:
        raise ChangedElsewhere(
            "Another window changed this since it was read here. Choose which to keep; nothing was overwritten.",
            clashes,
        )
    for field, value in wanted.items():
        setattr(row, field, value)
    return list(wanted)
