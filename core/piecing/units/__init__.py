"""Unit kinds, one module each; ``METHODS`` finds a way of making one by kind and name."""

from __future__ import annotations

from ..errors import UnknownChoice
from .half_square_triangle import PAIR
from .method import Batch, CutPieces, UnitMethod

__all__ = ["METHODS", "Batch", "CutPieces", "UnitMethod", "method_for"]

METHODS: dict[tuple[str, str], UnitMethod] = {(m.kind, m.name): m for m in (PAIR,)}


def method_for(kind: str, name: str) -> UnitMethod:
    """The method of that kind and name; ``UnknownChoice`` lists what there is."""
    try:
        return METHODS[kind, name]
    except KeyError:
        known = ", ".join(sorted(f"{k}/{n}" for k, n in METHODS))
        raise UnknownChoice(
            "There is no method “{name}” for “{kind}” here. Known: {known}.",
            field="method",
            name=name,
            kind=kind,
            known=known,
        ) from None
