"""Which piece comes from where: strips across each cloth, cut across to pieces, then diagonals; the largest first.

One fabric is planned at a time. Source: docs/theory, section 13.
"""

from __future__ import annotations

import time
from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from itertools import count

from ..errors import NothingToCut
from ..lengths import ZERO, Area, Length, inches
from ..messages import Message
from ..solver import Stop
from .packing import pack_bins
from .stock import Cloth, ClothKind, WantedPiece, grid_of
from .strips import Bin, Item, Packed, PackedStrip, shelves

__all__ = [
    "GOAL_WORDS",
    "ClothPlan",
    "CutStrip",
    "CuttingPlan",
    "Goal",
    "LeftOver",
    "Missing",
    "Placed",
    "PlanCost",
    "bolt_length",
    "cutting_plan",
    "laid_again",
    "number_strips",
    "shelf_cloths",
    "shelf_plan",
]

_LAYERS = 4
"""Layers that a blade goes through well."""
_FINEST = inches("1/128")
_WORTH_KEEPING = inches(2)
"""Left-overs at least so long and so wide are offered back as scraps."""


class Goal(StrEnum):
    LEAST = "least"
    FEWEST = "fewest"
    SPARE = "spare"


GOAL_WORDS = {Goal.LEAST: "least fabric", Goal.FEWEST: "fewest strips", Goal.SPARE: "spare the large pieces"}


@dataclass(frozen=True, slots=True)
class Placed:
    """One piece on its cloth: ``x`` from the left selvedge, ``y`` along it, and its size there."""

    piece: WantedPiece
    x: Length
    y: Length
    width: Length
    height: Length

    @property
    def turned(self) -> bool:
        """Whether the piece lies across its strip instead of along it."""
        return self.width != self.piece.width


@dataclass(frozen=True, slots=True)
class CutStrip:
    """A strip across the cloth, ``number`` in the order of cutting."""

    number: int
    y: Length
    depth: Length
    placed: tuple[Placed, ...]

    @property
    def makeup(self) -> object:
        """What is cut from it where: strips of one makeup are cut in a stack."""
        return self.depth, tuple(
            sorted((float(p.x), float(p.y - self.y), float(p.width), float(p.height)) for p in self.placed)
        )

    @property
    def cuts_across(self) -> int:
        """Cuts from edge to edge of the strip, and those below pieces that are not as deep as it."""
        foot = self.y + self.depth
        return len({p.x + p.width for p in self.placed}) + sum(p.y + p.height < foot for p in self.placed)


@dataclass(frozen=True, slots=True)
class LeftOver:
    """Cloth that remains, large enough to keep; ``name`` says from where."""

    name: str
    fabric: str
    x: Length
    y: Length
    width: Length
    height: Length


@dataclass(frozen=True, slots=True)
class ClothPlan:
    """One cloth: its strips, how far along it they reach, what is left."""

    cloth: Cloth
    strips: tuple[CutStrip, ...]
    used: Length
    left: tuple[LeftOver, ...]

    @property
    def placed(self) -> tuple[Placed, ...]:
        """Every piece cut from this cloth."""
        return tuple(p for s in self.strips for p in s.placed)


@dataclass(frozen=True, slots=True)
class Missing:
    piece: WantedPiece
    count: int


@dataclass(frozen=True)
class CuttingPlan:
    """``gap`` is how far, as a share, the plan's cost may be above the best there is; 0 when it is proven best."""

    goal: Goal
    cloths: tuple[ClothPlan, ...]
    missing: tuple[Missing, ...]
    gap: float
    proven: bool

    @property
    def cut_area(self) -> Area:
        """Of the pieces placed."""
        return Area.sum(Area(p.width.area_with(p.height)) for c in self.cloths for p in c.placed)

    @property
    def used_area(self) -> Area:
        """Of the cloth that strips were cut from, edge to edge."""
        return Area.sum(Area(c.cloth.across.area_with(c.used)) for c in self.cloths)

    @property
    def depths(self) -> int:
        """How many different strip widths have to be set on the ruler."""
        return len({(c.cloth.fabric, s.depth) for c in self.cloths for s in c.strips})

    @property
    def strips(self) -> int:
        """Strips over all cloths."""
        return sum(len(c.strips) for c in self.cloths)

    @property
    def cuts(self) -> int:
        """Times the blade goes: once for every strip, then across, through strips that are cut alike in stacks of up to four."""
        alike = Counter((c.cloth.fabric, s.makeup) for c in self.cloths for s in c.strips)
        across = {(c.cloth.fabric, s.makeup): s.cuts_across for c in self.cloths for s in c.strips}
        return self.strips + sum(-(-n // _LAYERS) * across[key] for key, n in alike.items())


@dataclass(frozen=True, slots=True)
class PlanCost:
    """What a plan takes: cloth in square inches, strips and how many widths of them, cuts, pieces that it is short of."""

    goal: Goal
    used: Area
    strips: int
    depths: int
    cuts: int
    short: int

    @classmethod
    def of(cls, plan: CuttingPlan) -> PlanCost:
        """The cost of a plan."""
        return cls(plan.goal, plan.used_area, plan.strips, plan.depths, plan.cuts, sum(m.count for m in plan.missing))

    @property
    def said(self) -> Message:
        """In a line, so that two plans can be weighed."""
        return Message(
            "{goal}: {strips, plural, one {one strip} other {# strips}} in {depths, plural, one {one width} other {# widths}}, "
            "{cuts, plural, one {one cut} other {# cuts}} with like strips stacked by four, {used} of cloth{short, plural, =0 {} one {, short of one piece} other {, short of # pieces}}.",
            goal=GOAL_WORDS[self.goal].capitalize(),
            strips=self.strips,
            depths=self.depths,
            cuts=self.cuts,
            used=self.used,
            short=self.short,
        )


def cutting_plan(
    pieces: Iterable[WantedPiece],
    cloths: Iterable[Cloth],
    goal: Goal = Goal.LEAST,
    seconds: float = 5.0,
    stop: Stop | None = None,
) -> CuttingPlan:
    """Plan every fabric. Pieces for which no cloth is large enough, or none is left, are told as missing.

    Raises ``NothingToCut`` when no piece is wanted.
    """
    wanted = [p for p in pieces if p.count > 0]
    if not wanted:
        raise NothingToCut("Nothing is wanted from the stock yet. Plan a unit or a quilt first.")
    by_fabric = sorted({p.fabric for p in wanted})
    stock = list(cloths)
    # What one fabric does not need of its share of the time, the others have.
    until, made = time.monotonic() + seconds, []
    for k, fabric in enumerate(by_fabric):
        share = (until - time.monotonic()) / (len(by_fabric) - k)
        made.append(_one_fabric(fabric, wanted, stock, goal, max(share, seconds / 20), stop))
    weights = [max(1, found.cost) for found, _, _ in made]
    gap = sum(g * w for (_, _, g), w in zip(made, weights, strict=True)) / sum(weights)
    plans = [plan for _, plan, _ in made]
    return CuttingPlan(
        goal,
        number_strips(c for p in plans for c in p.cloths),
        tuple(m for p in plans for m in p.missing),
        gap,
        all(p.proven for p in plans),
    )


def number_strips(cloths: Iterable[ClothPlan]) -> tuple[ClothPlan, ...]:
    """Strips counted through all cloths, in the order of cutting."""
    numbers = count(1)
    return tuple(
        laid_again(replace(c, strips=tuple(replace(s, number=next(numbers)) for s in c.strips))) for c in cloths
    )


def _one_fabric(
    fabric: str, wanted: Sequence[WantedPiece], stock: Sequence[Cloth], goal: Goal, seconds: float, stop: Stop | None
) -> tuple[Packed, CuttingPlan, float]:
    pieces = [p for p in wanted if p.fabric == fabric]
    cloths = [c for c in stock if c.fabric == fabric and c.count > 0]
    step, items, bins = _in_steps(pieces, cloths, goal)
    found = pack_bins(items, bins, seconds, stop=stop)
    plan = _plan_of(goal, step, pieces, cloths, found.strips, found.missing)
    gap = 0.0 if found.optimal or any(found.missing) else (found.cost - found.bound) / max(1.0, found.bound)
    proven = _proven(found)
    return found, replace(plan, gap=0.0 if proven else gap, proven=proven), 0.0 if proven else gap


def shelf_plan(pieces: Sequence[WantedPiece], cloths: Sequence[Cloth]) -> CuttingPlan:
    """The plain plan, first fit by decreasing height, of one fabric: what others are held against."""
    step, items, bins = _in_steps(pieces, cloths, Goal.LEAST)
    strips = shelves(items, bins)
    return _plan_of(Goal.LEAST, step, pieces, cloths, strips, _short(items, strips))


def shelf_cloths(pieces: Sequence[WantedPiece], cloths: Sequence[Cloth]) -> int | None:
    """How many cloths the plain plan takes, None when it is short of some: thousands of pieces are not laid out only to be counted."""
    _, items, bins = _in_steps(pieces, cloths, Goal.LEAST)
    strips = shelves(items, bins)
    return None if any(_short(items, strips)) else len({(b, n) for b, n, _ in strips})


def bolt_length(pieces: Sequence[WantedPiece], bolt: Cloth, seconds: float) -> tuple[Length, bool]:
    """How much of one long cloth the plan that takes least of it needs, and whether less is proven not to do."""
    step, items, bins = _in_steps(pieces, [bolt], Goal.LEAST)
    found = pack_bins(items, bins, seconds)
    return step * sum(s.depth for _, _, s in found.strips), _proven(found)


def _proven(found: Packed) -> bool:
    return found.optimal and not any(found.missing) and found.cost - found.bound < 1


def _short(items: Sequence[Item], strips: Sequence[tuple[int, int, PackedStrip]]) -> tuple[int, ...]:
    placed = Counter[int]()
    for _, _, s in strips:
        for n, _, stacked in s.segments:
            placed[n] += stacked
    return tuple(i.count - placed[n] for n, i in enumerate(items))


def _in_steps(
    pieces: Sequence[WantedPiece], cloths: Sequence[Cloth], goal: Goal
) -> tuple[Length, list[Item], list[Bin]]:
    """Sizes in whole steps: pieces up, cloths down."""
    sizes = [x if x.is_rational else x.round_up(_FINEST) for p in pieces for x in (p.width, p.height)]
    step = Length.of(grid_of(sizes))
    items = [
        Item(
            step.whole_times(p.width, up=True),
            step.whole_times(p.height, up=True),
            p.count,
            p.turns and not p.along_cloth,
        )
        for p in pieces
    ]
    bins = [_bin(c, step, goal) for c in cloths]
    return step, items, bins


def _bin(c: Cloth, step: Length, goal: Goal) -> Bin:
    across, along = step.whole_times(c.across), step.whole_times(c.along)
    price, strip, opening = across, 0, across // 2
    if goal is Goal.FEWEST:
        price, strip = max(1, across // 40), across * 4
    if goal is Goal.SPARE:
        price = (
            across
            * {
                ClothKind.SCRAP: 1,
                ClothKind.STRIP: 2,
                ClothKind.SQUARE: 2,
                ClothKind.FAT_QUARTER: 3,
                ClothKind.YARDAGE: 6,
            }[c.kind]
        )
        opening = across if c.kind is ClothKind.FAT_QUARTER else opening
    return Bin(across, along, c.count, price, strip, opening if c.kind is not ClothKind.YARDAGE else 0)


def _plan_of(
    goal: Goal,
    step: Length,
    pieces: Sequence[WantedPiece],
    cloths: Sequence[Cloth],
    strips: Sequence[tuple[int, int, PackedStrip]],
    missing: Sequence[int],
) -> CuttingPlan:
    by_cloth: dict[tuple[int, int], list[PackedStrip]] = {}
    for b, n, s in strips:
        by_cloth.setdefault((b, n), []).append(s)
    plans, number = [], 0
    for (b, n), held in sorted(by_cloth.items()):
        cloth, y, cut = cloths[b].one(n) if cloths[b].count > 1 else cloths[b], ZERO, []
        for s in sorted(held, key=lambda s: (-s.depth, -len(s.segments))):
            number += 1
            cut.append(CutStrip(number, y, step * s.depth, tuple(_in_strip(s, pieces, step, y))))
            y = y + step * s.depth
        plans.append(ClothPlan(cloth, tuple(cut), y, tuple(_left_overs(cloth, cut, y))))
    short = tuple(Missing(p, m) for p, m in zip(pieces, missing, strict=True) if m)
    return CuttingPlan(goal, tuple(plans), short, 0.0, False)


def _in_strip(s: PackedStrip, pieces: Sequence[WantedPiece], step: Length, y: Length) -> Iterable[Placed]:
    """Widest first; stacked ones below each other."""
    x = ZERO
    sizes = {n: (pieces[n].width, pieces[n].height) for n, _, _ in s.segments}
    for n, turned, stacked in sorted(s.segments, key=lambda g: (-float(max(sizes[g[0]])), g)):
        wide, high = sizes[n][::-1] if turned else sizes[n]
        down = y
        for _ in range(stacked):
            yield Placed(pieces[n], x, down, wide, high)
            down = down + (step * step.whole_times(high, up=True))
        x = x + step * step.whole_times(wide, up=True)


def _left_overs(cloth: Cloth, strips: Sequence[CutStrip], used: Length) -> Iterable[LeftOver]:
    rest = cloth.along - used
    name = cloth.called
    if rest >= _WORTH_KEEPING and cloth.across >= _WORTH_KEEPING:
        yield LeftOver(f"rest of {name}", cloth.fabric, ZERO, used, cloth.across, rest)
    for s in strips:
        for letter, x, foot, wide in _below(s):
            deep = s.y + s.depth - foot
            if deep >= _WORTH_KEEPING and wide >= _WORTH_KEEPING:
                yield LeftOver(f"below {letter} in strip {s.number}, {name}", cloth.fabric, x, foot, wide, deep)
        right = max((p.x + p.width for p in s.placed), default=ZERO)
        if cloth.across - right >= _WORTH_KEEPING and s.depth >= _WORTH_KEEPING:
            yield LeftOver(f"end of strip {s.number}, {name}", cloth.fabric, right, s.y, cloth.across - right, s.depth)


def _below(s: CutStrip) -> Iterable[tuple[str, Length, Length, Length]]:
    """What lies under the pieces of a strip: letter, left edge, where it begins, how wide; neighbours alike together."""
    found: list[tuple[str, Length, Length, Length]] = []
    for x in sorted({p.x for p in s.placed}, key=float):
        held = [p for p in s.placed if p.x == x]
        foot, wide = max(p.y + p.height for p in held), max(p.width for p in held)
        if found and found[-1][2] == foot and found[-1][1] + found[-1][3] == x:
            letter, left, _, so_far = found.pop()
            found.append((letter, left, foot, so_far + wide))
        else:
            found.append((held[0].piece.key, x, foot, wide))
    return found


def laid_again(plan: ClothPlan) -> ClothPlan:
    """The same cloth with its left-overs worked out anew."""
    return replace(plan, left=tuple(_left_overs(plan.cloth, plan.strips, plan.used)))
