"""Sentences with lengths in them, kept apart from how this quilter likes lengths set.

The core says ``Said("cut {size}", size=length)``; the edge of the program renders it in inches or
millimetres. Nothing in the core decides on a display.
"""

from __future__ import annotations

from typing import TYPE_CHECKING, Protocol, runtime_checkable

if TYPE_CHECKING:
    from .lengths import Style

__all__ = ["Said", "Settable"]


@runtime_checkable
class Settable(Protocol):
    """A value whose text depends on the style: a length or an area."""

    def set_in(self, style: Style | None) -> str: ...


class Said:
    """A sentence template and the values that go into it."""

    __slots__ = ("template", "values")

    def __init__(self, template: str, **values: Settable | str | int) -> None:
        self.template = template
        self.values = values

    def text(self, style: Style | None = None) -> str:
        """The sentence, with lengths set in ``style`` (inches when none is given)."""
        shown = {k: v.set_in(style) if isinstance(v, Settable) else v for k, v in self.values.items()}
        return self.template.format(**shown)

    def set_in(self, style: Style | None) -> str:
        """A sentence may stand inside another one."""
        return self.text(style)

    def __str__(self) -> str:
        return self.text()

    def __repr__(self) -> str:
        return f"Said({self.text()!r})"

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Said) and (self.template, self.values) == (other.template, other.values)

    def __hash__(self) -> int:
        return hash(self.template)
