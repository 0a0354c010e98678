"""Which strips to cut: a whole-number choice among those known, or every strip a choice of its own. By CP-SAT.

Neither proves anything by itself: strips that are not known, or more of them than allowed for, could do better.
"""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from math import ceil
from typing import Any

from ..solver import Answered, Stop, cp, solve
from .pricing import Column, Master, as_laid
from .strips import Bin, Item, Packed, PackedStrip, counts_in, depths_of, segments_in, trim_strips

__all__ = ["chosen", "strip_by_strip"]


def chosen(
    master: Master,
    plain: list[tuple[int, int, PackedStrip]],
    bound: float,
    seconds: float,
    tidy: bool,
    stop: Stop | None,
) -> Packed:
    """The strips that cost least among all known ones, by CP-SAT (Google OR-Tools) within ``seconds``; ``bound`` is
    the cost below which no plan can be. Stops early when ``stop`` is asked.
    """
    items, bins, columns = master.items, master.bins, master.columns
    model = cp().CpModel()
    cloths = [(b, n) for b, bin_ in enumerate(bins) for n in range(bin_.count)]
    take = {
        (k, c): model.new_int_var(0, _most(columns[k], bins[c[0]], items), "")
        for k in range(len(columns))
        for c in cloths
        if columns[k].bin == c[0]
    }
    missing = [model.new_int_var(0, i.count, "") for i in items]
    for n, item in enumerate(items):
        model.add(
            sum(columns[k].counts[n] * v for (k, _), v in take.items() if columns[k].counts[n]) + missing[n]
            >= item.count
        )
    opened, depth = {}, {}
    for c in cloths:
        bin_ = bins[c[0]]
        depth[c] = sum(columns[k].depth * v for (k, cc), v in take.items() if cc == c)
        opened[c] = model.new_bool_var("")
        model.add(depth[c] <= bin_.depth * opened[c])
        if c[1]:
            model.add(depth[c] <= depth[c[0], c[1] - 1])
    strips = {c: sum(v for (_, cc), v in take.items() if cc == c) for c in cloths}
    cost = sum(
        bins[c[0]].price * depth[c] + bins[c[0]].strip * strips[c] + bins[c[0]].opening * opened[c] for c in cloths
    ) + master.missing * sum(missing)
    _begin(model, take, columns, plain, items)
    model.minimize(cost)
    answer = solve(model, seconds * (0.7 if tidy else 1.0), linear=2, workers=4, stop=stop)
    best, optimal = answer.objective, answer.optimal
    if tidy and answer.found:
        _go_on(model, answer, [*take.values(), *missing, *opened.values()])
        depths = {d: model.new_bool_var("") for d in {c.depth for c in columns}}
        for (k, _), v in take.items():
            model.add(v == 0).only_enforce_if(~depths[columns[k].depth])
        model.add(cost <= best)
        model.minimize(4 * sum(depths.values()) + sum(take.values()))
        neater = solve(model, seconds * 0.3, linear=1, workers=4, stop=stop)
        answer = neater if neater.found else answer
    if not answer.found:
        return as_laid(master, items, plain, bound)
    taken = [
        (c[0], c[1], PackedStrip(c[0], columns[k].depth, columns[k].segments))
        for (k, c), v in take.items()
        for _ in range(answer.value(v))
    ]
    return Packed(trim_strips(items, taken), tuple(answer.value(m) for m in missing), best, min(bound, best), optimal)


def _most(c: Column, b: Bin, items: Sequence[Item]) -> int:
    wanted = max(-(-items[n].count // k) for n, k in enumerate(c.counts) if k)
    return min(b.depth // c.depth, wanted)


def _begin(
    model: object,
    take: dict[tuple[int, tuple[int, int]], object],
    columns: Sequence[Column],
    plain: Sequence[tuple[int, int, PackedStrip]],
    items: Sequence[Item],
) -> None:
    known = {(c.bin, c.depth, c.counts): k for k, c in enumerate(columns)}
    wanted: dict[tuple[int, tuple[int, int]], int] = {}
    for b, n, s in plain:
        key = (known[b, s.depth, counts_in(items, s.segments)], (b, n))
        wanted[key] = wanted.get(key, 0) + 1
    for key, v in take.items():
        model.add_hint(v, wanted.get(key, 0))  # type: ignore[attr-defined]


def _go_on(model: object, answer: Answered, variables: Sequence[object]) -> None:
    model.clear_hints()  # type: ignore[attr-defined]
    for v in variables:
        model.add_hint(v, answer.value(v))  # type: ignore[attr-defined]


def strip_by_strip(
    items: Sequence[Item], bin_: Bin, known: Packed, seconds: float, *, tidy: bool, stop: Stop | None
) -> Packed:
    """Every strip a choice of its own: its depth, and how much of what lies in it. Begun at the plan known.

    The cheapest; or, with ``tidy``, of those that cost no more than the plan known the one with fewest depths and strips.
    """
    model, depths = cp().CpModel(), sorted(depths_of(items))
    segments = segments_in(items, max(depths), bin_.width)
    deep = [items[n].ways[int(t)][1] * k for n, t, k, _ in segments]
    most = len(known.strips) + (1 if bin_.strip == 0 else 0)
    isdepth = [[model.new_bool_var("") for _ in depths] for _ in range(most)]
    lies = [
        [model.new_int_var(0, min(items[n].count // k, bin_.width // along), "") for n, _, k, along in segments]
        for _ in range(most)
    ]
    down = []
    for strip, row in zip(isdepth, lies, strict=True):
        model.add_at_most_one(strip)
        down.append(sum(d * v for d, v in zip(depths, strip, strict=True)))
        for g, v in enumerate(row):
            n, _, k, along = segments[g]
            limit = min(items[n].count // k, bin_.width // along)
            model.add(v <= limit * sum(z for d, z in zip(depths, strip, strict=True) if d >= deep[g]))
        model.add(sum(s[3] * v for s, v in zip(segments, row, strict=True)) <= bin_.width * sum(strip))
    for one, other in pairwise(down):
        model.add(one >= other)
    for n, item in enumerate(items):
        laid = sum(s[2] * row[g] for row in lies for g, s in enumerate(segments) if s[0] == n)
        model.add(laid >= item.count)
    used = sum(sum(strip) for strip in isdepth)
    cost = bin_.price * sum(down) + bin_.strip * used + bin_.opening
    model.add(sum(down) <= bin_.depth)
    model.add(cost <= known.cost)
    model.add(cost >= ceil(known.bound - 1e-6))
    _hint_strips(model, isdepth, lies, depths, segments, known)
    kinds = [model.new_bool_var("") for _ in depths]
    for strip in isdepth:
        for kind, v in zip(kinds, strip, strict=True):
            model.add_implication(v, kind)
    model.minimize(4 * sum(kinds) + used if tidy else cost)
    answer = solve(model, seconds, linear=1 if tidy else 2, workers=2, stop=stop)
    if not answer.found:
        return known
    found = []
    for strip, row in zip(isdepth, lies, strict=True):
        deep_as = [d for d, v in zip(depths, strip, strict=True) if answer.value(v)]
        held = [(s[0], s[1], s[2]) for s, v in zip(segments, row, strict=True) for _ in range(answer.value(v))]
        if deep_as and held:
            found.append((0, 0, PackedStrip(0, deep_as[0], tuple(held))))
    reached = sum(bin_.cost(s.depth) for _, _, s in found) + bin_.opening
    return Packed(trim_strips(items, found), known.missing, reached, min(known.bound, reached), known.optimal)


def _hint_strips(
    model: Any,
    isdepth: Sequence[Sequence[Any]],
    lies: Sequence[Sequence[Any]],
    depths: Sequence[int],
    segments: Sequence[tuple[int, bool, int, int]],
    known: Packed,
) -> None:
    ordered = sorted((s for _, _, s in known.strips), key=lambda s: -s.depth)
    names = {(n, t, k): g for g, (n, t, k, _) in enumerate(segments)}
    for r, (strip, row) in enumerate(zip(isdepth, lies, strict=True)):
        s = ordered[r] if r < len(ordered) else None
        counts: dict[int, int] = {}
        for segment in s.segments if s else ():
            g = names.get(segment)
            if g is not None:
                counts[g] = counts.get(g, 0) + 1
        for d, v in zip(depths, strip, strict=True):
            model.add_hint(v, s is not None and s.depth == d)
        for g, v in enumerate(row):
            model.add_hint(v, counts.get(g, 0))
