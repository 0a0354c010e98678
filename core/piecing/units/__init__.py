"""Unit kinds, one module each, and every way of making them."""

from __future__ import annotations

from ..errors import UnknownChoice
from . import (
    banded_hourglass,
    corner_triangle,
    flying_goose,
    half_square_triangle,
    pieced_half,
    plain,
    quarter_square_triangle,
    split_quarter_square_triangle,
    square_in_square,
    strip_split_square,
)
from .kind import Kind
from .method import Method
from .spec import UnitSpec

__all__ = ["KINDS", "METHODS", "Kind", "Method", "UnitSpec", "kind_of", "method_for", "methods_of"]

_MODULES = (
    half_square_triangle,
    quarter_square_triangle,
    split_quarter_square_triangle,
    flying_goose,
    corner_triangle,
    strip_split_square,
    square_in_square,
    banded_hourglass,
    pieced_half,
)
KINDS: dict[str, Kind] = {k.name: k for k in (*(m.KIND for m in _MODULES), *plain.KINDS)}
METHODS: tuple[Method, ...] = (
    half_square_triangle.PAIR,
    half_square_triangle.FOUR,
    half_square_triangle.EIGHT,
    half_square_triangle.LOOSE,
    half_square_triangle.FLIPPED,
    quarter_square_triangle.TWO_UNITS,
    quarter_square_triangle.TWO_TRIMMED,
    quarter_square_triangle.LOOSE,
    split_quarter_square_triangle.UNIT_AND_SQUARE,
    split_quarter_square_triangle.LOOSE,
    flying_goose.FOUR,
    flying_goose.LOOSE,
    flying_goose.FLIPPED,
    flying_goose.TWO_UNITS,
    flying_goose.TEMPLATES,
    corner_triangle.FLIPPED,
    strip_split_square.STRIP,
    square_in_square.CORNER_TRIANGLES,
    square_in_square.FLIPPED,
    banded_hourglass.LOOSE,
    pieced_half.TRIANGLES,
    plain.SQUARES,
    plain.STRIPS,
    *plain.CUT,
)


def kind_of(name: str) -> Kind:
    """The kind of that name; ``UnknownChoice`` lists what there is."""
    if name not in KINDS:
        known = ", ".join(KINDS)
        raise UnknownChoice("“{name}” is no kind of unit here. Known: {known}.", field="kind", name=name, known=known)
    return KINDS[name]


def methods_of(kind: str) -> tuple[Method, ...]:
    """Every way of making a kind, the commonest first."""
    return tuple(m for m in METHODS if m.kind == kind_of(kind).name)


def method_for(kind: str, name: str) -> Method:
    """The method of that kind and name; ``UnknownChoice`` lists what there is."""
    for method in methods_of(kind):
        if method.name == name:
            return method
    known = ", ".join(m.name for m in methods_of(kind))
    raise UnknownChoice(
        "“{name}” is no way of making this unit. Known: {known}.", field="method", name=name, kind=kind, known=known
    )
