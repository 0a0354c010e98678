"""Units to try things on: one of every kind, and the half-square triangle of the Lantern block."""

from __future__ import annotations

import random
from typing import Any

from piecing.cutting.strips import Item
from piecing.lengths import ZERO, Length, inches
from piecing.planning.unit_plan import Choices
from piecing.units import KINDS, METHODS, Method, UnitSpec, kind_of

__all__ = ["ALL_WAYS", "half_square", "instance", "sample"]

_RINGS = {
    "quarter_square_triangle": "abab",
    "split_quarter_square_triangle": "abc",
    "flying_goose": "abb",
    "corner_triangle": "abbbb",
    "strip_split_square": "abc",
    "square_in_square": "abbbb",
    "banded_hourglass": "abcd",
    "pieced_half": "abccb",
    "four_patch": "abab",
}


def half_square(finished: str | Length = "7/2", **choices: Any) -> Choices:
    """A half-square triangle by the pair method."""
    size = inches(finished) if isinstance(finished, str) else finished
    return Choices(UnitSpec("half_square_triangle", size, size, ("a", "b")), "pair", **choices)


def sample(kind: str, width: Length | None = None, part_fabrics: str = "") -> UnitSpec:
    """A unit of the kind that every method can make, 3 1/2 in. unless told otherwise (geese 5 1/2)."""
    k = kind_of(kind)
    size = width or (inches("11/2") if kind == "flying_goose" else inches("7/2"))
    height = size * 2 if kind == "strip" else size * 3 / 2 if kind == "rectangle" else k.default_height(size)
    roles = tuple(part_fabrics or _RINGS.get(kind, "abcde")[: len(k.parts)])
    corners = (size * 2 / 7, ZERO, size * 3 / 7, size * 2 / 7) if k.has_corners else (ZERO,) * 4
    return UnitSpec(kind, size, height, roles, corners, size / 7 if k.has_strip else ZERO)


ALL_WAYS: tuple[tuple[Method, UnitSpec], ...] = tuple((m, sample(m.kind)) for m in METHODS)
assert {m.kind for m in METHODS} == set(KINDS)


def instance(seed: int, pieces: int, sizes: int) -> list[Item]:
    """``pieces`` of ``sizes`` sizes, 2 to 10 1/2 in. in eighths, six in ten of them square; any may be turned."""
    rng = random.Random(seed)
    shapes = []
    for _ in range(sizes):
        wide = rng.randrange(16, 85)
        shapes.append((wide, wide if rng.random() < 0.6 else rng.randrange(16, 85)))
    counts = [0] * sizes
    for _ in range(pieces):
        counts[rng.randrange(sizes)] += 1
    return [Item(w, h, n, True) for (w, h), n in zip(shapes, counts, strict=True) if n]
