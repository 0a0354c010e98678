"""Strips across a cloth: what lies in one, how deep it is, and the plain plan. Everything is in whole steps.

A strip has a depth; in it lie pieces side by side, the lesser ones stacked when several fit the depth, all trimmed to size
afterwards. Source: docs/theory, section 13.2.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

__all__ = [
    "Bin",
    "Counts",
    "Item",
    "Packed",
    "PackedStrip",
    "counts_in",
    "depths_of",
    "segments_in",
    "shelves",
    "trim_strips",
]

Counts = tuple[int, ...]


@dataclass(frozen=True, slots=True)
class Item:
    """``count`` pieces, each ``wide`` by ``deep`` as it lies, or turned when ``turns``."""

    wide: int
    deep: int
    count: int
    turns: bool

    @property
    def ways(self) -> tuple[tuple[int, int], ...]:
        """Length along a strip and depth, either way it may lie."""
        return (
            ((self.wide, self.deep), (self.deep, self.wide))
            if self.turns and self.wide != self.deep
            else ((self.wide, self.deep),)
        )


@dataclass(frozen=True, slots=True)
class Bin:
    """``count`` cloths alike: strips are ``width`` long, and ``depth`` of them fit below each other.

    ``price`` is what a step of depth costs, ``strip`` what one more strip costs, ``opening`` what using the cloth at all
    costs.
    """

    width: int
    depth: int
    count: int
    price: int
    strip: int = 0
    opening: int = 0

    def cost(self, depth: int) -> int:
        """Of one strip."""
        return self.price * depth + self.strip


@dataclass(frozen=True, slots=True)
class PackedStrip:
    """``segments``: item, whether turned, and how many are stacked in one segment, side by side from the left."""

    bin: int
    depth: int
    segments: tuple[tuple[int, bool, int], ...]


@dataclass(frozen=True)
class Packed:
    """``strips`` by cloth (a bin and which of its cloths); ``missing`` pieces by item; cost and its proven bound."""

    strips: tuple[tuple[int, int, PackedStrip], ...]
    missing: Counts
    cost: int
    bound: float
    optimal: bool


def segments_in(items: Sequence[Item], depth: int, width: int) -> list[tuple[int, bool, int, int]]:
    """What can lie in a strip of a depth: item, turned, stacked, length along it."""
    found = []
    for n, item in enumerate(items):
        for turned, (along, deep) in enumerate(item.ways):
            if deep <= depth and along <= width:
                most = min(depth // deep, item.count)
                found += [(n, bool(turned), k, along) for k in {1, most} if k >= 1]
    return found


def counts_in(items: Sequence[Item], segments: Sequence[tuple[int, bool, int]]) -> Counts:
    """How many of each item the segments (item, turned, number) of a strip hold."""
    counts = [0] * len(items)
    for n, _, k in segments:
        counts[n] += k
    return tuple(counts)


def depths_of(items: Sequence[Item]) -> list[int]:
    """Depths that strips can have for these items, deepest first."""
    return sorted({deep for i in items for _, deep in i.ways}, reverse=True)


def shelves(items: Sequence[Item], bins: Sequence[Bin]) -> list[tuple[int, int, PackedStrip]]:
    """First fit by decreasing height: the plain plan that anything better is held against. Pieces that fit nowhere are left."""
    pieces = sorted(
        (
            (max(i.ways, key=lambda w: w[1] <= w[0]) if i.turns else i.ways[0], n)
            for n, i in enumerate(items)
            for _ in range(i.count)
        ),
        key=lambda p: (-p[0][1], -p[0][0]),
    )
    open_strips: list[list[int]] = []
    laid: list[list[tuple[int, bool, int]]] = []
    used: dict[tuple[int, int], int] = {}
    same, first, cloth = (0, 0, 0), 0, [0] * len(bins)
    for (along, deep), n in pieces:
        # Where the last piece of this size found no room, this one finds none either.
        if same != (along, deep, n):
            same, first, cloth = (along, deep, n), 0, [0] * len(bins)
        turned = items[n].turns and (along, deep) != items[n].ways[0]
        while first < len(open_strips) and not (along <= open_strips[first][3] and deep <= open_strips[first][2]):
            first += 1
        if first == len(open_strips):
            spot = _first_room(bins, used, cloth, along, deep)
            if spot is None:
                continue
            used[spot] = used.get(spot, 0) + deep
            open_strips.append([*spot, deep, bins[spot[0]].width])
            laid.append([])
        open_strips[first][3] -= along
        laid[first].append((n, turned, 1))
    return [
        (b, c, PackedStrip(b, deep, tuple(segments)))
        for (b, c, deep, _), segments in zip(open_strips, laid, strict=True)
    ]


def _first_room(
    bins: Sequence[Bin], used: dict[tuple[int, int], int], cloth: list[int], along: int, deep: int
) -> tuple[int, int] | None:
    """The first cloth with depth left; ``cloth`` remembers where to go on looking."""
    for b, bin_ in enumerate(bins):
        if along > bin_.width:
            continue
        while cloth[b] < bin_.count and used.get((b, cloth[b]), 0) + deep > bin_.depth:
            cloth[b] += 1
        if cloth[b] < bin_.count:
            return b, cloth[b]
    return None


def trim_strips(
    items: Sequence[Item], strips: Sequence[tuple[int, int, PackedStrip]]
) -> tuple[tuple[int, int, PackedStrip], ...]:
    """Pieces beyond those wanted are left out of the strips; deepest strips first."""
    left = [i.count for i in items]
    found = []
    for b, c, s in sorted(strips, key=lambda t: (t[0], t[1], -t[2].depth)):
        kept = []
        for n, turned, k in s.segments:
            use = min(k, left[n])
            if use:
                kept.append((n, turned, use))
                left[n] -= use
        if kept:
            found.append((b, c, PackedStrip(b, s.depth, tuple(kept))))
    return tuple(found)
