"""How many of each unit: by kind, size, fabrics and hand, over several blocks, colourways and twins.

Two units are one when a turn lays one on the other; they are two hands of one when only a mirror does. Source:
docs/theory, section 12.5.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from fractions import Fraction
from functools import lru_cache

from ..errors import CountOutOfRange, PiecingError, RoleWithoutFabric
from ..lengths import Length, inches
from ..planning.plan import plan
from ..planning.room import QuilterRecord
from ..planning.schools import School
from ..planning.unit_plan import MOST_UNITS, Choices, UnitPlan
from ..units import UnitSpec, kind_of, methods_of
from ..units.design import Design
from .pattern import Pattern, layout_of

__all__ = [
    "BlockOrder",
    "Colourway",
    "Counted",
    "MakingChoice",
    "ScrapUnit",
    "Spares",
    "UnitCount",
    "ordered_plans",
    "unit_counts",
]

Signature = tuple[tuple[str, tuple[tuple[int, int], ...]], ...]


@dataclass(frozen=True, slots=True)
class Colourway:
    """``count`` blocks in which roles stand for other ones (a role not named stays itself)."""

    count: int
    roles: tuple[tuple[str, str], ...] = ()

    def twin(self, one: str, other: str, count: int) -> Colourway:
        """So many with two roles exchanged."""
        now = dict(self.roles)
        swap = {**now, one: now.get(other, other), other: now.get(one, one)}
        return Colourway(count, tuple(sorted(swap.items())))


@dataclass(frozen=True, slots=True)
class BlockOrder:
    """So many of a block at a finished size; ``key`` tells it from others of its name. Its places in ``apart``, by number, hold
    blocks that are ordered for themselves: their units are not counted here.
    """

    pattern: Pattern
    finished: Length
    colourways: tuple[Colourway, ...]
    key: str = ""
    apart: frozenset[int] = frozenset()


@dataclass(frozen=True, slots=True)
class ScrapUnit:
    """One unit of one block, of a colourway, in which a role is another fabric than in the others: a scrap laid out. ``role`` and
    ``fabric`` are one letter each, or two where a pair of fabrics takes the place of two roles."""

    block: str
    cell: int
    roles: tuple[tuple[str, str], ...]
    role: str
    fabric: str


@dataclass(frozen=True, slots=True)
class UnitCount:
    """One unit, ``as_drawn`` of it and ``mirrored`` of the other hand; ``blocks`` names where they go, ``by_block`` holds key, name
    and both numbers of each."""

    spec: UnitSpec
    as_drawn: int
    mirrored: int
    handed: bool
    by_block: tuple[tuple[str, str, int, int], ...] = ()

    @property
    def blocks(self) -> tuple[str, ...]:
        """Where they go, each name once."""
        return tuple(dict.fromkeys(name for _, name, _, _ in self.by_block))

    @property
    def total(self) -> int:
        """Units of this kind wanted in all, in both hands."""
        return self.as_drawn + self.mirrored


def _signature(design: Design) -> Signature:
    x, y = design.width / 2, design.height / 2
    return tuple(
        sorted(
            (p.role, tuple(sorted((round((a - x) * 4096), round((b - y) * 4096)) for a, b in p.outline)))
            for p in design.parts
        )
    )


@lru_cache(maxsize=8192)
def _faces(spec: UnitSpec) -> tuple[Signature, Signature]:
    """What the unit looks like, and its mirror image, whichever way they are turned."""
    design = kind_of(spec.kind).design(spec)
    mirror = design.mirrored()
    return tuple(min(_signature(d.turned(t)) for t in d.quarter_turns) for d in (design, mirror))  # type: ignore[return-value]


def unit_counts(
    orders: Iterable[BlockOrder], fabrics: Iterable[str] | None = None, scraps: Iterable[ScrapUnit] = ()
) -> tuple[UnitCount, ...]:
    """Count every unit, most first within a size; of the units with ``scraps`` each is one fewer as drawn and one of its own.

    Raises ``LayoutIncomplete`` for a block with empty places and ``RoleWithoutFabric`` when a role stands for none of
    the ``fabrics`` there are.
    """
    known = None if fabrics is None else set(fabrics)
    tallies: dict[tuple[object, Signature], _Tally] = {}
    orders = list(orders)
    for order in orders:
        pattern = order.pattern.complete()
        base = _in_one(pattern, order.finished, order.apart)
        for way in order.colourways:
            if way.count <= 0:
                continue
            roles = dict(way.roles)
            _need_fabrics(pattern, roles, known)
            for made, mirrored, n in base:
                dyed = replace(made, part_fabrics=tuple(roles.get(r, r) for r in made.part_fabrics)) if roles else made
                _add(tallies, dyed, mirrored, n * way.count, (order.key, pattern.name))
    _exchange(tallies, {o.key: o for o in orders}, scraps, known)
    found = [t.told for t in tallies.values() if t.told.total]
    return tuple(sorted(found, key=lambda u: (-float(u.spec.width * 1), u.spec.kind, -u.total)))


@lru_cache(maxsize=1024)
def _in_one(pattern: Pattern, finished: Length, apart: frozenset[int]) -> tuple[tuple[UnitSpec, bool, int], ...]:
    """The units of one block in its own colours: each, whether it lies mirrored, and how often."""
    layout = layout_of(pattern)
    base: dict[tuple[UnitSpec, bool], int] = {}
    for cell, spec in zip(layout.cells, layout.specs(layout.part(finished)), strict=True):
        if cell.place in apart:
            continue
        key = (spec, cell.orientation.mirrored)
        base[key] = base.get(key, 0) + 1
    return tuple((made, mirrored, n) for (made, mirrored), n in base.items())


def _exchange(
    tallies: dict[tuple[object, Signature], _Tally],
    orders: Mapping[str, BlockOrder],
    scraps: Iterable[ScrapUnit],
    known: set[str] | None,
) -> None:
    """Scraps in place of the fabric of their role, no more of them than there are units of that colourway."""
    scraps = tuple(scraps)
    if not scraps:
        return
    left = {
        (o.key, w.roles, cell): w.count
        for o in orders.values()
        for w in o.colourways
        for cell in range(len(layout_of(o.pattern).cells))
    }
    for s in scraps:
        order = orders.get(s.block)
        if (
            order is None
            or (known is not None and not known.issuperset(s.fabric))
            or left.get((s.block, s.roles, s.cell), 0) <= 0
        ):
            continue
        left[s.block, s.roles, s.cell] -= 1
        cell = layout_of(order.pattern).cells[s.cell]
        spec, mirrored = cell.spec(order.finished / order.pattern.width), cell.orientation.mirrored
        roles = dict(s.roles)
        drawn = replace(spec, part_fabrics=tuple(roles.get(r, r) for r in spec.part_fabrics))
        other = {**roles, **dict(zip(s.role, s.fabric, strict=True))}
        scrap = replace(spec, part_fabrics=tuple(other.get(r, r) for r in spec.part_fabrics))
        block = (order.key, order.pattern.name)
        _add(tallies, drawn, mirrored, -1, block)
        _add(tallies, scrap, mirrored, 1, block)


def _need_fabrics(pattern: Pattern, roles: Mapping[str, str], known: set[str] | None) -> None:
    missing = sorted({roles.get(r, r) for r in pattern.roles} - known) if known is not None else []
    if missing:
        raise RoleWithoutFabric(
            "“{name}” uses role {role}, and no fabric has it. Give the role a fabric, or add one.",
            field="fabrics",
            name=pattern.name,
            role=", ".join(m.upper() for m in missing),
        )


@dataclass
class _Tally:
    spec: UnitSpec
    face: Signature
    handed: bool
    blocks: dict[tuple[str, str], list[int]] = field(default_factory=dict)

    @property
    def told(self) -> UnitCount:
        by_block = tuple((key, name, *numbers) for (key, name), numbers in self.blocks.items() if any(numbers))
        drawn, mirrored = (sum(n[k] for n in self.blocks.values()) for k in (0, 1))
        return UnitCount(self.spec, drawn, mirrored, self.handed, by_block)  # type: ignore[arg-type]


def _add(
    tallies: dict[tuple[object, Signature], _Tally], spec: UnitSpec, mirrored: bool, n: int, block: tuple[str, str]
) -> None:
    face, mirror = _faces(spec)
    size = (spec.kind, spec.width, spec.height)
    seen = mirror if mirrored else face
    tally = tallies.setdefault((size, min(face, mirror)), _Tally(spec, face, face != mirror))
    other = tally.handed and seen != tally.face
    tally.blocks.setdefault(block, [0, 0])[int(other)] += n


@dataclass(frozen=True, slots=True)
class Spares:
    """More units than needed: so many in a hundred, rounded up, or a number."""

    percent: Fraction = Fraction(0)
    number: int = 0

    def on(self, wanted: int) -> int:
        """Spare units on so many wanted: the share rounded up, or the number, whichever is set. Raises
        ``CountOutOfRange``.
        """
        if not 0 <= self.percent <= 100 or not 0 <= self.number <= MOST_UNITS:
            raise CountOutOfRange(
                "Spares are 0 to 100 percent, or a number up to {most}.", field="spares", most=f"{MOST_UNITS:,}"
            )
        return max(self.number, -(-wanted * self.percent // 100)) if wanted else 0

    def with_spares(self, spec: UnitSpec, as_drawn: int, mirrored: int) -> tuple[int, int]:
        """Both numbers with their spares. Plain pieces get none: they are cut, not sewn. Raises ``CountOutOfRange``."""
        if len(kind_of(spec.kind).parts) == 1:
            return as_drawn, mirrored
        return as_drawn + self.on(as_drawn), mirrored + self.on(mirrored)


@dataclass(frozen=True, slots=True)
class MakingChoice:
    """How units of a kind are made: method and school; the kind's usual ones when not named."""

    method: str = ""
    school: School = School.LITTLE


@dataclass(frozen=True)
class Counted:
    """One unit with its plan, or why it has none; ``spares`` are asked for, the plan's own ones come on top."""

    unit: UnitCount
    spares: int
    method: str
    school: School
    plan: UnitPlan | None
    refusal: PiecingError | None = None


def ordered_plans(
    units: Iterable[UnitCount],
    makings: Mapping[str, MakingChoice],
    spares: Spares = Spares(),
    *,
    seam_allowance: Length = inches("1/4"),
    stitch: Length | None = None,
    fold: Length = inches(0),
    ruler_step: Length = inches("1/8"),
    own_margin: Length | None = None,
    record: QuilterRecord | None = None,
) -> tuple[Counted, ...]:
    """Every counted unit planned in batches that come out even; spares are added to each hand that is wanted.

    ``makings`` is by kind. Plain pieces get no spares: they are cut, not sewn. Raises ``CountOutOfRange`` for spares
    that cannot be.
    """
    found = []
    for unit in units:
        making = makings.get(unit.spec.kind, MakingChoice())
        method = making.method or _usual_method(unit, seam_allowance)
        count, mirrored = spares.with_spares(unit.spec, unit.as_drawn, unit.mirrored)
        over = count + mirrored - unit.total
        choices = Choices(
            unit.spec,
            method,
            making.school,
            count,
            mirrored,
            seam_allowance,
            stitch,
            fold,
            ruler_step,
            own_margin,
        )
        try:
            found.append(Counted(unit, over, method, making.school, plan(choices, record)))
        except PiecingError as refusal:
            found.append(Counted(unit, over, method, making.school, None, refusal))
    return tuple(found)


def _usual_method(unit: UnitCount, allowance: Length) -> str:
    """The kind's first way that makes this unit; for units wanted in one hand only, one that gives that hand alone."""
    ways = []
    for m in methods_of(unit.spec.kind):
        try:
            m.refuse(unit.spec, allowance)
            ways.append(m)
        except PiecingError:
            continue
    one_handed = unit.handed and 0 in (unit.as_drawn, unit.mirrored)
    if one_handed:
        for m in ways:
            batch = m.batch(unit.spec, m.minimum_cuts(unit.spec, allowance, allowance), allowance, allowance)
            if batch.hands == "as_wanted":
                return m.name
    return (ways or list(methods_of(unit.spec.kind)))[0].name
