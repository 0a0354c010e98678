"""Scraps: so many units of each fabric laid out so that no neighbours are alike.

Places are the units of a quilt that hold one fabric role. When it cannot be done, what is in the way is said, and the
arrangement with the fewest neighbours alike is given all the same. Source: docs/theory, section 12.9.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from random import Random

from ..errors import ScrapsImpossible
from ..messages import Message
from ..solver import Answered, cp, solve
from .scrap_places import ScrapPlace, named_scrap

__all__ = ["Arrangement", "ScrapStock", "Value", "alike", "arrange_scraps", "darkness", "touching"]


class Value(StrEnum):
    """How light a fabric looks among the others, as the quilter says."""

    LIGHT = "light"
    MEDIUM = "medium"
    DARK = "dark"


_OF_VALUE = {Value.LIGHT: 0.0, Value.MEDIUM: 1.0, Value.DARK: 2.0}
_WEIGHTS = (0.2126, 0.7152, 0.0722)
"""How much red, green and blue count for lightness (ITU-R BT.709)."""


def darkness(value: Value, colour: str) -> float:
    """A fabric's place from light to dark, 0 to 2.9: what she calls it first, then how dark its colour ``#rrggbb`` is."""
    shares = (int(colour[n : n + 2], 16) / 255 for n in (1, 3, 5))
    return _OF_VALUE[value] + 0.9 * (1 - sum(w * s for w, s in zip(_WEIGHTS, shares, strict=True)))


@dataclass(frozen=True, slots=True)
class ScrapStock:
    """``count`` units of a fabric, or blocks of a pair of two: ``fabric`` is the role of one, or both roles of a pair. ``darkness``
    puts scraps in order, the lightest lowest."""

    fabric: str
    count: int
    darkness: float = 0.0


@dataclass(frozen=True)
class Arrangement:
    """``fabrics`` by place; ``alike`` are the pairs of neighbours that could not be kept apart."""

    fabrics: tuple[str, ...]
    alike: tuple[tuple[int, int], ...]
    optimal: bool
    said: tuple[Message, ...]


def alike(scrap: str, other: str) -> bool:
    """Whether two scraps look alike side by side: they share a fabric."""
    return not set(scrap).isdisjoint(other)


def touching(fabrics: Sequence[str], pairs: Sequence[tuple[int, int]]) -> tuple[tuple[int, int], ...]:
    """The neighbours that are alike."""
    return tuple((a, b) for a, b in pairs if alike(fabrics[a], fabrics[b]))


def arrange_scraps(
    places: Sequence[ScrapPlace],
    pairs: Sequence[tuple[int, int]],
    stock: Sequence[ScrapStock],
    *,
    fixed: Mapping[int, str] | None = None,
    order: int = 0,
    seed: int = 1,
    sets: bool = False,
) -> Arrangement:
    """``order`` runs from 0, as random as can be, to 100, light to dark from the upper left to the lower right. In matched ``sets``
    all units of one block are of one fabric, or of one pair where ``stock`` is of pairs.

    Raises ``ScrapsImpossible`` when there are too few units, or a fixed place asks for what there is not.
    """
    fixed = dict(fixed or {})
    if sets and places:
        return _in_sets(places, pairs, stock, fixed, order, seed)
    return _arrange(places, pairs, stock, fixed, order, seed, sets=False)


def _arrange(
    places: Sequence[ScrapPlace],
    pairs: Sequence[tuple[int, int]],
    stock: Sequence[ScrapStock],
    fixed: Mapping[int, str],
    order: int,
    seed: int,
    *,
    sets: bool,
) -> Arrangement:
    _enough(places, stock, fixed, sets=sets)
    beside: list[set[int]] = [set() for _ in places]
    for a, b in pairs:
        beside[a].add(b)
        beside[b].add(a)
    tries = (_by_hand(beside, stock, fixed, Random(seed + n)) for n in range(8))
    fabrics: Sequence[str] = _first_apart(tries, pairs)
    fewest, proven = len(touching(fabrics, pairs)), False
    model = _ScrapModel(places, pairs, stock, fixed)
    if fewest:
        better = model.fewest_alike(fabrics, pairs, seed)
        proven = better.optimal
        if better.found and better.objective <= fewest:
            fabrics, fewest = model.read(better), better.objective
    reasons = () if fewest == 0 else _reasons(places, pairs, stock, fixed, proven)
    ordered = model.in_order(fabrics, pairs, fewest, _costs(places, stock, order, Random(seed)), seed)
    fabrics = model.read(ordered) if ordered.found else tuple(fabrics)
    near = touching(fabrics, pairs)
    if not near:
        return Arrangement(fabrics, (), ordered.optimal, (Message("No two neighbours are alike."),))
    told = Message(
        "{n, plural, one {One pair} other {# pairs}} of neighbours are alike; fewer cannot be had."
        if proven
        else "{n, plural, one {One pair} other {# pairs}} of neighbours are alike, the fewest found in the time there is.",
        n=len(near),
    )
    return Arrangement(fabrics, near, proven, (*reasons, told))


def _in_sets(
    places: Sequence[ScrapPlace],
    pairs: Sequence[tuple[int, int]],
    stock: Sequence[ScrapStock],
    fixed: Mapping[int, str],
    order: int,
    seed: int,
) -> Arrangement:
    """Blocks arranged in place of units: one that is fixed anywhere is fixed as a whole, and neighbours are blocks that have
    neighbouring units."""
    spots = sorted({p.spot for p in places})
    held = [[n for n, p in enumerate(places) if p.spot == spot] for spot in spots]
    in_pairs = any(len(s.fabric) > 1 for s in stock)
    # A pair is told by the blocks it makes, a fabric by its units.
    sizes = {1} if in_pairs else {len(h) for h in held}
    if len(sizes) > 1:
        raise ScrapsImpossible(
            "Matched sets need as many units in every block, and here blocks have from {least} to {most}. Lay the scraps out "
            "singly, or choose another role.",
            field="sets",
            least=min(sizes),
            most=max(sizes),
        )
    size, of = sizes.pop(), {n: k for k, h in enumerate(held) for n in h}
    pinned: dict[int, str] = {}
    for n, fabric in fixed.items():
        if n in of and pinned.setdefault(of[n], fabric) != fabric:
            raise ScrapsImpossible(
                "Two places of one block are fixed to different scraps, and a matched set is of one.", field="fixed"
            )
    blocks = [
        ScrapPlace(
            spot,
            0,
            (
                min(places[n].box[0] for n in h),
                min(places[n].box[1] for n in h),
                max(places[n].box[2] for n in h),
                max(places[n].box[3] for n in h),
            ),
            f"block {spot + 1}",
        )
        for spot, h in zip(spots, held, strict=True)
    ]
    between = tuple(sorted({(min(of[a], of[b]), max(of[a], of[b])) for a, b in pairs if of[a] != of[b]}))
    whole = [ScrapStock(s.fabric, s.count // size, s.darkness) for s in stock]
    found = _arrange(blocks, between, whole, pinned, order, seed, sets=True)
    fabrics = tuple(found.fabrics[of[n]] for n in range(len(places)))
    near = tuple((a, b) for a, b in pairs if of[a] != of[b] and alike(fabrics[a], fabrics[b]))
    return Arrangement(fabrics, near, found.optimal, found.said)


def _first_apart(tries: Iterable[Sequence[str]], pairs: Sequence[tuple[int, int]]) -> Sequence[str]:
    """The first try with no neighbours alike, or else the best one."""
    best: Sequence[str] = ()
    for t in tries:
        if not best or len(touching(t, pairs)) < len(touching(best, pairs)):
            best = t
        if not touching(best, pairs):
            break
    return best


# What refusals say of blocks that are each of one scrap (True), and of units laid singly.
_NOTHING = {
    True: "Type what there is for the blocks: {places, plural, one {one block asks for a set} other {# blocks ask for a set each}}.",
    False: "Type how many units of each fabric there may be: {places, plural, one {one place asks} other {# places ask}} for as many.",
}
_SHORT = {
    True: "The quilt has {places, plural, one {one block} other {# blocks}} and there {total, plural, =0 {is no whole set} one {is a "
    "set for one} other {are sets for #}}: {short, plural, one {one more is} other {# more are}} needed.",
    False: "The layout has {places, plural, one {one place} other {# places}} and there {total, plural, one {is one unit} other {are # "
    "units}}: {short, plural, one {one more is} other {# more are}} needed.",
}
_NONE_OF_IT = {
    True: "A fixed block asks for {fabric}, of which there is none.",
    False: "A fixed place asks for fabric {fabric}, of which there is none.",
}
_TOO_MANY_FIXED = {
    True: "{wanted, plural, one {One fixed block asks} other {# fixed blocks ask}} for {fabric}, and there {count, plural, =0 {is no "
    "whole set} one {is a set for one block} other {are sets for # blocks}} of it.",
    False: "{wanted, plural, one {One fixed place asks} other {# fixed places ask}} for fabric {fabric}, and there {count, plural, one "
    "{is one unit} other {are # units}} of it.",
}


def _enough(places: Sequence[ScrapPlace], stock: Sequence[ScrapStock], fixed: Mapping[int, str], *, sets: bool) -> None:
    if any(s.count < 0 for s in stock):
        raise ScrapsImpossible("Counts are zero or more.", field="stock")
    total = sum(s.count for s in stock)
    if not stock or (not total and not sets):
        raise ScrapsImpossible(_NOTHING[sets], field="stock", places=len(places))
    if total < len(places):
        raise ScrapsImpossible(_SHORT[sets], field="stock", places=len(places), total=total, short=len(places) - total)
    have = {s.fabric: s.count for s in stock}
    for n, fabric in fixed.items():
        if fabric not in have or not 0 <= n < len(places):
            raise ScrapsImpossible(_NONE_OF_IT[sets], field="fixed", fabric=named_scrap(fabric))
    for fabric, count in have.items():
        wanted = sum(1 for f in fixed.values() if f == fabric)
        if wanted > count:
            raise ScrapsImpossible(
                _TOO_MANY_FIXED[sets], field="fixed", wanted=wanted, fabric=named_scrap(fabric), count=count
            )


def _costs(places: Sequence[ScrapPlace], stock: Sequence[ScrapStock], order: int, rng: Random) -> list[list[int]]:
    """What each fabric costs in each place: how far it is from its turn light to dark, and chance."""
    lo, hi = min(s.darkness for s in stock), max(s.darkness for s in stock)
    span = (hi - lo) or 1.0
    by_place = sorted(range(len(places)), key=lambda n: (round(places[n].box[0] - places[n].box[3], 6), n))
    ranks = {n: k for k, n in enumerate(by_place)}
    row = [s.darkness for s in sorted(stock, key=lambda s: s.darkness) for _ in range(s.count)]
    costs = []
    for n in range(len(places)):
        wanted = row[min(len(row) - 1, ranks[n] * len(row) // len(places))]
        costs.append(
            [
                round(order * 10 * abs(s.darkness - wanted) / span) + round((100 - order) / 10 * rng.random() * 10)
                for s in stock
            ]
        )
    return costs


def _by_hand(near: Sequence[set[int]], stock: Sequence[ScrapStock], fixed: Mapping[int, str], rng: Random) -> list[str]:
    """As one would lay them: place by place, of the fabrics no neighbour has the one with most left; then the ones that
    are alike changed for others, as long as that helps."""
    left = {s.fabric: s.count for s in stock}
    laid = dict(fixed)
    for fabric in laid.values():
        left[fabric] -= 1
    for n in range(len(near)):
        if n not in laid:
            beside = {laid[m] for m in near[n] if m in laid}
            laid[n] = max(
                (f for f in left if left[f] > 0),
                key=lambda f: (not any(alike(f, b) for b in beside), left[f] + rng.random()),
            )
            left[laid[n]] -= 1
    fabrics = [laid[n] for n in range(len(near))]
    for _ in range(4):
        clashing = [
            n for n in range(len(near)) if n not in fixed and any(alike(fabrics[n], fabrics[m]) for m in near[n])
        ]
        if not any(_change_one(n, fabrics, near, left, fixed, rng) for n in clashing):
            break
    return fabrics


def _change_one(
    n: int, fabrics: list[str], near: Sequence[set[int]], left: dict[str, int], fixed: Mapping[int, str], rng: Random
) -> bool:
    """One place given an unused unit, or changed for another place's, if fewer neighbours are alike then."""

    def clashes(k: int, fabric: str, but: int = -1) -> int:
        return sum(1 for m in near[k] if m != but and alike(fabrics[m], fabric))

    now = clashes(n, fabrics[n])
    for fabric in left:
        if left[fabric] > 0 and clashes(n, fabric) < now:
            left[fabric], left[fabrics[n]], fabrics[n] = left[fabric] - 1, left[fabrics[n]] + 1, fabric
            return True
    others = [m for m in range(len(near)) if m not in fixed and fabrics[m] != fabrics[n]]
    rng.shuffle(others)
    for m in others:
        before = now + clashes(m, fabrics[m])
        if clashes(n, fabrics[m], m) + clashes(m, fabrics[n], n) < before:
            fabrics[n], fabrics[m] = fabrics[m], fabrics[n]
            return True
    return False


class _ScrapModel:
    """Who lies where: one fabric a place, no more of a fabric than there is, and what it costs when neighbours are alike."""

    def __init__(
        self,
        places: Sequence[ScrapPlace],
        pairs: Sequence[tuple[int, int]],
        stock: Sequence[ScrapStock],
        fixed: Mapping[int, str],
    ) -> None:
        self.stock = stock
        self.model = model = cp().CpModel()
        self.grid = grid = [[model.new_bool_var("") for _ in stock] for _ in places]
        for row in grid:
            model.add_exactly_one(row)
        for k, s in enumerate(stock):
            model.add(sum(row[k] for row in grid) <= s.count)
        for n, fabric in fixed.items():
            model.add(grid[n][next(k for k, s in enumerate(stock) if s.fabric == fabric)] == 1)
        self.alike = []
        for a, b in pairs:
            missed = model.new_bool_var("")
            self.alike.append(missed)
            for k, s in enumerate(stock):
                for m, other in enumerate(stock):
                    if alike(s.fabric, other.fabric):
                        model.add_bool_or(~grid[a][k], ~grid[b][m], missed)

    def fewest_alike(self, known: Sequence[str], pairs: Sequence[tuple[int, int]], seed: int) -> Answered:
        """As few neighbours alike as can be, begun at an arrangement known."""
        self._begin_at(known, pairs)
        self.model.minimize(sum(self.alike))
        return solve(self.model, 2.2, seed=seed)

    def in_order(
        self, known: Sequence[str], pairs: Sequence[tuple[int, int]], fewest: int, costs: list[list[int]], seed: int
    ) -> Answered:
        """The wished-for order among arrangements that keep as many neighbours apart."""
        self._begin_at(known, pairs)
        self.model.add(sum(self.alike) <= fewest)
        self.model.minimize(
            sum(c * v for row, line in zip(self.grid, costs, strict=True) for v, c in zip(row, line, strict=True))
        )
        return solve(self.model, 1.5, seed=seed, workers=4)

    def _begin_at(self, fabrics: Sequence[str], pairs: Sequence[tuple[int, int]]) -> None:
        self.model.clear_hints()
        for row, fabric in zip(self.grid, fabrics, strict=True):
            for s, v in zip(self.stock, row, strict=True):
                self.model.add_hint(v, s.fabric == fabric)
        for (a, b), v in zip(pairs, self.alike, strict=True):
            self.model.add_hint(v, alike(fabrics[a], fabrics[b]))

    def read(self, answer: Answered) -> tuple[str, ...]:
        return tuple(next(s.fabric for s, v in zip(self.stock, row, strict=True) if answer.on(v)) for row in self.grid)


def _reasons(
    places: Sequence[ScrapPlace],
    pairs: Sequence[tuple[int, int]],
    stock: Sequence[ScrapStock],
    fixed: Mapping[int, str],
    proven: bool,
) -> tuple[Message, ...]:
    """What is in the way: fixed neighbours that are alike, and fabrics that must fill more places than can lie apart."""
    said = [
        Message(
            "{one} and {other} are neighbours, and both are fixed to {n, plural, one {fabric} other {fabrics}} {fabric}.",
            one=places[a].name.capitalize(),
            other=places[b].name,
            n=len(set(fixed[a]) & set(fixed[b])),
            fabric=named_scrap("".join(f for f in fixed[a] if f in fixed[b])),
        )
        for a, b in pairs
        if a in fixed and b in fixed and alike(fixed[a], fixed[b])
    ]
    total = sum(s.count for s in stock)
    for fabric in sorted({f for s in stock for f in s.fabric}):
        others = total - sum(s.count for s in stock if fabric in s.fabric)
        needed = len(places) - others
        # A quarter of the places of a grid can always lie apart; only more than that needs looking into.
        if needed * 4 > len(places):
            apart = _most_apart(len(places), pairs, {n for n, f in fixed.items() if fabric not in f}, needed)
            if needed > apart:
                said.append(
                    Message(
                        "Fabric {fabric} has to fill {needed} of {places, plural, one {one place} other {# places}}, since there {others, plural, =0 {is none} one {is only one} other {are only #}} of others; {apart} at most "
                        "can lie apart. {more, plural, one {One more of another fabric} other {# more of other fabrics}} would do.",
                        fabric=fabric.upper(),
                        needed=needed,
                        places=len(places),
                        others=others,
                        apart=apart,
                        more=needed - apart,
                    )
                )
    if said or not proven:
        return tuple(said)
    return (Message("The fixed places and the counts together leave no way to keep all neighbours apart."),)


def _most_apart(count: int, pairs: Sequence[tuple[int, int]], barred: set[int], enough: int) -> int:
    """How many places can be chosen with no two neighbours among them; looked for no further than ``enough``."""
    model = cp().CpModel()
    chosen = [model.new_bool_var("") for _ in range(count)]
    for n in barred:
        model.add(chosen[n] == 0)
    for a, b in pairs:
        model.add_bool_or(~chosen[a], ~chosen[b])
    model.add(sum(chosen) <= enough)
    model.maximize(sum(chosen))
    answer = solve(model, 0.6)
    return answer.bound if answer.found else enough
