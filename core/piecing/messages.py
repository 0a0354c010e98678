"""Sentences as data: a template, and the values that go into it.

The core says ``Message("cut {size}", size=length)``; the edge of the program sets it in inches or millimetres. What a person
typed is only ever a value, never part of a template. A template may choose by number, as ICU messages do:

    Message("{n, plural, one {one unit is} other {# units are}} left over", n=units)
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from functools import lru_cache
from typing import Any, Protocol

__all__ = ["Capital", "Listing", "Message", "MidSentence", "Settable"]


class Settable(Protocol):
    """A value whose text depends on how this quilter likes lengths set: a length, an area, another message.

    ``style`` is a ``piecing.lengths.Style``, or None for inches. It is not named here: lengths are refused by errors, and
    errors say messages.
    """

    def set_in(self, style: Any, /) -> str:
        """The value as text in a style of lengths."""


Value = Settable | str | int
Part = str | tuple[str, tuple[tuple[str, "Parts"], ...]]
"""Text, or the name of a value with the branches that its number chooses from; no branches: the value itself."""
Parts = tuple[Part, ...]


class Message:
    """A sentence template and the values that go into it.

    Raises ``ValueError`` for a template whose braces do not match, ``KeyError`` when it names a value that is not given.
    """

    __slots__ = ("template", "values")

    def __init__(self, template: str, **values: Value) -> None:
        self.template = template
        self.values = values

    def text(self, style: Any = None) -> str:
        """The sentence, with lengths set in ``style`` (inches when none is given)."""
        return _shown(_parts(self.template), self.values, style, "")

    def set_in(self, style: Any, /) -> str:
        """A sentence may stand inside another one."""
        return self.text(style)

    def __str__(self) -> str:
        return self.text()

    def __repr__(self) -> str:
        return f"Message({self.text()!r})"

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Message) and (self.template, self.values) == (other.template, other.values)

    def __hash__(self) -> int:
        return hash(self.template)


class Listing:
    """Several values in a row, such as "2, 3 and 5": ``between`` stands between two of them, ``last`` before the last."""

    __slots__ = ("between", "items", "last")

    def __init__(self, items: Iterable[Value], between: str = ", ", last: str | None = None) -> None:
        self.items: Sequence[Value] = tuple(items)
        self.between = between
        self.last = between if last is None else last

    def set_in(self, style: Any, /) -> str:
        """The items in a row, each in this style."""
        shown = [_set(item, style) for item in self.items]
        if len(shown) < 2:
            return "".join(shown)
        return self.between.join(shown[:-1]) + self.last + shown[-1]

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Listing) and repr(self) == repr(other)

    def __hash__(self) -> int:
        return hash(repr(self))

    def __repr__(self) -> str:
        return f"Listing({list(self.items)!r}, {self.between!r}, {self.last!r})"


class MidSentence:
    """A message that stands inside another one: its first letter small."""

    __slots__ = ("message",)

    def __init__(self, message: Message) -> None:
        self.message = message

    def set_in(self, style: Any, /) -> str:
        """The message with a small first letter."""
        shown = self.message.text(style)
        return shown[:1].lower() + shown[1:]


class Capital:
    """A message that begins a sentence or a heading: its first letter large."""

    __slots__ = ("message",)

    def __init__(self, message: Message) -> None:
        self.message = message

    def set_in(self, style: Any, /) -> str:
        """The message with a large first letter."""
        shown = self.message.text(style)
        return shown[:1].upper() + shown[1:]


def _set(value: Value, style: Any) -> str:
    # Whether something keeps to a protocol is asked by name: to ask the protocol itself takes longer than all the rest.
    return str(value) if isinstance(value, str | int) or not hasattr(value, "set_in") else value.set_in(style)


def _shown(parts: Parts, values: dict[str, Value], style: Any, number: str) -> str:
    told = []
    for part in parts:
        if isinstance(part, str):
            told.append(part.replace("#", number) if number else part)
            continue
        name, branches = part
        if not branches:
            told.append(_set(values[name], style))
            continue
        count = values[name]
        chosen = dict(branches)
        wanted = f"={count}" if f"={count}" in chosen else "one" if count in (1, "1") else "other"
        told.append(_shown(chosen[wanted if wanted in chosen else "other"], values, style, str(count)))
    return "".join(told)


_NAME = re.compile(r"\s*(\w+)\s*(,\s*plural\s*,)?")
_BRANCH = re.compile(r"\s*(=\d+|one|other)\s*\{")


@lru_cache(maxsize=4096)
def _parts(template: str) -> Parts:
    parts, end = _read(template, 0)
    if end != len(template):
        raise ValueError(f"one brace too many in {template!r}")
    return parts


def _read(text: str, at: int) -> tuple[Parts, int]:
    """Parts from ``at`` to the brace that closes them, or to the end."""
    parts: list[Part] = []
    while at < len(text) and text[at] != "}":
        opened = min((n for n in (text.find("{", at), text.find("}", at)) if n >= 0), default=len(text))
        if opened > at:
            parts.append(text[at:opened])
            at = opened
        elif text[at] == "{":
            part, at = _value(text, at + 1)
            parts.append(part)
    return tuple(parts), at


def _value(text: str, at: int) -> tuple[Part, int]:
    name = _NAME.match(text, at)
    if not name:
        raise ValueError(f"a value without a name in {text!r}")
    at, branches = name.end(), []
    while name[2] and (branch := _BRANCH.match(text, at)):
        inner, at = _read(text, branch.end())
        branches.append((branch[1], inner))
        at += 1
    while at < len(text) and text[at] == " ":
        at += 1
    if text[at : at + 1] != "}" or (name[2] and "other" not in dict(branches)):
        raise ValueError(f"the value {name[1]!r} is not closed, or has no branch for other numbers, in {text!r}")
    return (name[1], tuple(branches)), at + 1
