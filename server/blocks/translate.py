"""Rows to core values."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction
from functools import cache, lru_cache
from typing import Any
from uuid import UUID

from api.looked_up import looked_up_once
from piecing.blocks.counting import BlockOrder, Colourway, MakingChoice, ScrapUnit, Spares
from piecing.blocks.file_format import Find, content_from, pattern_from
from piecing.blocks.library import library_data
from piecing.blocks.pattern import UPRIGHT, BlockPlacement, Orientation, Pattern, layout_of
from piecing.errors import LayoutIncomplete, PiecingError
from piecing.joining.order import Order, orders
from piecing.joining.seams import VALUES
from piecing.lengths import ZERO, Length, inches
from piecing.planning.schools import School
from piecing.prints import ClothPrint, Direction
from piecing.quilts.choices import BackingWay, Border, Corners, QuiltChoices, Setting, block_spots, filler_spots
from piecing.quilts.laid import Laid
from piecing.quilts.pieced import PiecedRow, RowFit, Runs
from piecing.quilts.top import TopLength
from projects.models import Project
from projects.translate import directions_of
from workrooms.models import Workroom

from .models import Block, OwnBlock, Quilt

__all__ = [
    "CENTRE",
    "ORIENTATIONS",
    "QuiltColourway",
    "apart_in",
    "colourways_of",
    "fillers_at",
    "find_in",
    "joining_of",
    "lies_at",
    "makings_of",
    "orders_of",
    "pattern_of",
    "quilt_choices",
    "row_from",
    "scrap_units_of",
    "set_from",
    "spares_of",
    "top_of",
    "values_of",
    "ways_at",
    "ways_of",
    "whats_laid",
]

CENTRE = "centre"
"""The part of a quilt that is laid by hand."""

ORIENTATIONS = {"upright": UPRIGHT, "quarter": Orientation(1), "half": Orientation(2), "mirrored": Orientation(0, True)}


def top_of(quilt: Quilt) -> dict[str, TopLength]:
    """What the top measured, by the name of the place."""
    return {
        place: TopLength(*(Length.of(Fraction(found[f])) for f in ("value", "planned")))
        for place, found in quilt.top.items()
    }


@looked_up_once
def find_in(room: Workroom) -> Find:
    """Blocks by key: those that come with the program, one's own, and those of any project here (removed ones too, so
    that what holds them stays whole). Each is looked up once: it is asked for one reading, in which nothing else changes."""

    @cache
    def find(key: str) -> Mapping[str, Any] | None:
        known = library_data(key)
        if known is not None:
            return known
        number = _number(key)
        if number is None:
            return None
        own = OwnBlock.objects.filter(pk=number, workroom=room).values_list("pattern", flat=True).first()
        if own is not None:
            return dict(own)
        # A part of a quilt is laid nowhere: it follows the quilt, which might then have to hold itself.
        block = (
            Block.objects.filter(pk=number, project__workroom=room, part="").values_list("pattern", flat=True).first()
        )
        return None if block is None else dict(block)

    return find


def pattern_of(block: Block, find: Find) -> Pattern:
    return pattern_from(block.pattern, find, str(block.pk))


def colourways_of(block: Block) -> tuple[Colourway, ...]:
    return tuple(Colourway(int(w["count"]), tuple(sorted(dict(w.get("roles", {})).items()))) for w in block.colourways)


def orders_of(blocks: list[Block], find: Find) -> list[BlockOrder]:
    found = []
    for b in blocks:
        pattern = pattern_of(b, find)
        found.append(BlockOrder(pattern, b.finished, colourways_of(b), str(b.pk), apart_in(b, pattern)))
    return found


def apart_in(block: Block, pattern: Pattern) -> frozenset[int]:
    """The places of the quilt's centre, by number, that hold a block of the project as it is made: its number is ordered for itself.
    One laid mirrored, or in another size, is made for this place alone and counts with the centre.
    """
    if block.part != CENTRE:
        return frozenset()
    rows = Block.objects.filter(project_id=block.project_id, part="", deleted_at=None)
    sizes = frozenset((str(pk), finished) for pk, finished in rows.values_list("pk", "finished"))
    return _as_made(pattern, block.finished, sizes)


@lru_cache(maxsize=64)
def _as_made(pattern: Pattern, finished: Length, blocks: frozenset[tuple[str, Length]]) -> frozenset[int]:
    sizes, part = dict(blocks), finished / pattern.width
    return frozenset(
        n
        for n, p in enumerate(pattern.places)
        if isinstance(p.content, BlockPlacement)
        and not p.orientation.mirrored
        and sizes.get(p.content.key) == part * pattern.box(p)[3 if p.orientation.across else 2]
    )


def _number(key: str) -> UUID | None:
    try:
        return UUID(key)
    except ValueError:
        return None


def joining_of(block: Block, pattern: Pattern) -> Order:
    """The order chosen, or the one proposed; a quilt laid by hand is joined in rows, as everybody expects of it."""
    if block.order or block.part == CENTRE:
        return Order(block.order or Order.ROWS)
    return orders(pattern)[0].order


def values_of(project: Project) -> dict[str, int]:
    return {f.role: VALUES[f.value] for f in project.fabrics.all()}


def makings_of(quilt: Quilt) -> dict[str, MakingChoice]:
    return {k: MakingChoice(m.get("method", ""), School(m.get("school", "little"))) for k, m in quilt.makings.items()}


def spares_of(quilt: Quilt) -> Spares:
    return Spares(Fraction(quilt.spare_percent), quilt.spare_number)


@lru_cache(maxsize=1)
def _bare_block() -> Length:
    return inches("21/2")


def set_from(quilt: Quilt, blocks: list[Block]) -> list[Block]:
    """The blocks that the quilt is set from: those laid by the quilter, or its centre where that is laid by hand."""
    by_hand = quilt.setting == Setting.BY_HAND.value
    return [b for b in blocks if (b.part == CENTRE if by_hand else not b.part)]


def _border_of(b: Mapping[str, Any], find: Find) -> Border:
    row = b.get("pieced")
    return Border(
        Length.of(Fraction(b["width"])),
        b["fabric"],
        Corners(b["corners"]),
        b.get("corner_fabric", ""),
        None if not row else row_from(row, find),
    )


def row_from(row: Mapping[str, Any], find: Find) -> PiecedRow:
    """A pieced border as it is kept. Raises ``PatternNotUnderstood``, ``UnknownBlock``, with the field it is about."""
    units = tuple(content_from(u, find, field=f"units.{n}") for n, u in enumerate(row["units"]))
    corner = content_from(row["corner"], find, field="corner") if row.get("corner") else None
    return PiecedRow(
        units,
        Orientation(int(row.get("turn", 0)) % 4),
        RowFit(row.get("fit", "spacer")),
        Runs(row.get("runs", "round")),
        corner,
        Orientation(int(row.get("corner_turn", 0)) % 4),
    )


def quilt_choices(quilt: Quilt, project: Project, blocks: list[Block], find: Find) -> QuiltChoices:
    """Sizes of the first block stand for all: a quilt is set from blocks of one size. One laid by hand is set of its centre alone."""
    by_hand = quilt.setting == Setting.BY_HAND.value
    blocks = set_from(quilt, blocks)
    width = blocks[0].finished if blocks else _bare_block()
    height = width
    if blocks:
        pattern = pattern_of(blocks[0], find)
        height = width / pattern.width * pattern.height
    borders = tuple(_border_of(b, find) for b in quilt.borders)
    return QuiltChoices(
        columns=1 if by_hand else quilt.columns,
        rows=1 if by_hand else quilt.rows,
        block_width=width,
        block_height=height,
        setting=Setting(quilt.setting),
        sash=ZERO if by_hand else quilt.sash,
        sash_fabric=quilt.sash_fabric,
        sash_round=quilt.sash_round,
        cornerstones=quilt.cornerstones,
        cornerstone_fabric=quilt.cornerstone_fabric,
        setting_fabric=quilt.setting_fabric,
        borders=borders,
        binding_strip=quilt.binding_strip,
        binding_fabric=quilt.binding_fabric,
        backing_fabric=quilt.backing_fabric,
        backing_over=quilt.backing_over,
        usable=quilt.usable,
        seam_allowance=project.seam_allowance,
        ruler_step=project.ruler_step,
        oversize=quilt.oversize,
        stagger=Fraction(quilt.stagger),
        half_blocks=quilt.half_blocks,
        backing_way=BackingWay(quilt.backing_way),
        backing_print=_print_of(quilt, project),
        sleeve=quilt.sleeve,
    )


def _print_of(quilt: Quilt, project: Project) -> ClothPrint:
    """Its direction is the fabric's; how often it comes round is told only where it is to go on across the backing's seams."""
    direction = directions_of(project).get(quilt.backing_fabric, Direction.NONE)
    return ClothPrint(direction, quilt.backing_repeat, quilt.backing_repeat_across)


@dataclass(frozen=True, slots=True)
class QuiltColourway:
    """One block in one colourway, the how-manieth of the block's, so many of it."""

    block: Block
    pattern: Pattern
    roles: tuple[tuple[str, str], ...]
    count: int
    number: int = 0


def ways_of(quilt: Quilt, blocks: list[Block], find: Find) -> list[QuiltColourway]:
    """Every block in every colourway, of the first block's size, that has no empty place."""
    found: list[QuiltColourway] = []
    blocks = set_from(quilt, blocks)
    for block in blocks:
        pattern = pattern_of(block, find)
        try:
            pattern.complete()
        except LayoutIncomplete:
            continue
        same = (
            block.finished == blocks[0].finished
            and pattern.width * found[0].pattern.height == pattern.height * found[0].pattern.width
            if found
            else True
        )
        if same:
            ways = enumerate(colourways_of(block))
            found += [QuiltColourway(block, pattern, w.roles, w.count, n) for n, w in ways if w.count > 0]
    return found


def whats_laid(
    quilt: Quilt, choices: QuiltChoices, ways: list[QuiltColourway], spots: list[tuple[int, int]]
) -> list[Laid]:
    """What lies at each spot: colourways by turns, or in their order and number; scraps laid out go on top."""
    scraps = _scrap_fabrics(quilt)
    return [
        Laid(layout_of(way.pattern), lies, way.roles, scraps.get(n, ()))
        for n, (way, lies) in enumerate(_lying(quilt, choices, ways, spots))
    ]


def lies_at(quilt: Quilt, choices: QuiltChoices, spot: tuple[int, int]) -> Orientation:
    """How the block at a spot lies: every second one as was chosen, but for a quarter turn of one that is not square."""
    x, y = spot
    second = ORIENTATIONS[quilt.every_second]
    odd = (x if choices.setting is Setting.ON_POINT else x + y) % 2
    bent = second.across and choices.block_width != choices.block_height
    return second if odd and not bent else UPRIGHT


def lying_at(
    quilt: Quilt, choices: QuiltChoices, blocks: list[Block], find: Find
) -> list[tuple[QuiltColourway, Orientation]]:
    """Which block, in which colours and how it lies, at each spot of a quilt set by rule, in the order of ``block_spots``; nothing where no
    block can be laid."""
    ways = ways_of(quilt, blocks, find)
    return _lying(quilt, choices, ways, block_spots(choices)) if ways else []


def _lying(
    quilt: Quilt, choices: QuiltChoices, ways: list[QuiltColourway], spots: list[tuple[int, int]]
) -> list[tuple[QuiltColourway, Orientation]]:
    return [(w, lies_at(quilt, choices, s)) for w, s in zip(ways_at(quilt, ways, spots), spots, strict=True)]


def ways_at(quilt: Quilt, ways: list[QuiltColourway], spots: list[tuple[int, int]]) -> list[QuiltColourway]:
    """Which block, in which colours, lies at each spot."""
    in_order = [w for w in ways for _ in range(w.count)]
    if quilt.spread == "in_order":
        return [in_order[n % len(in_order)] for n in range(len(spots))]
    if quilt.spread == "set_in":
        # On point the spots between the rows are the odd ones; in rows every second one is.
        on_point = quilt.setting == Setting.ON_POINT.value
        first = [w for w in ways if w.block.pk == ways[0].block.pk]
        others = [w for w in ways if w.block.pk != ways[0].block.pk] or first
        found = []
        for n, (x, y) in enumerate(spots):
            among = others if (x if on_point else x + y) % 2 else first
            found.append(among[(n if on_point else x + y) // 2 % len(among)])
        return found
    if quilt.setting == Setting.ON_POINT.value:
        # There both numbers of a spot are even, or both are odd: half their sum counts on from spot to spot.
        return [ways[(x + y) // 2 % len(ways)] for x, y in spots]
    return [ways[(x + y) % len(ways)] for x, y in spots]


def fillers_at(
    quilt: Quilt, choices: QuiltChoices, ways: list[QuiltColourway]
) -> list[tuple[bool, QuiltColourway, Orientation]]:
    """Of which block, in which colours and how it lies, a part is at each end of a lower column (whether at its head), in the order of
    ``filler_spots``: of the one whose turn it would be there."""
    ends = filler_spots(choices) if choices.half_blocks and ways else []
    spots = [(x, -1 if head else choices.rows - 1) for x, head in ends]
    at = zip(ends, ways_at(quilt, ways, spots) if ways else [], spots, strict=False)
    return [(head, way, lies_at(quilt, choices, spot)) for (_, head), way, spot in at]


def scrap_units_of(quilt: Quilt, project: Project, blocks: list[Block], find: Find) -> list[ScrapUnit]:
    """The units that scraps were laid out for, as they count for cutting; none where the quilt cannot be put together."""
    role, laid_out = quilt.scraps.get("role", ""), quilt.scraps.get("laid") or ()
    if not laid_out or not quilt.begun or not blocks or quilt.setting == Setting.BY_HAND.value:
        return []
    try:
        spots = block_spots(quilt_choices(quilt, project, blocks, find))
        ways = ways_of(quilt, blocks, find)
    except PiecingError:
        return []
    if not ways:
        return []
    at = ways_at(quilt, ways, spots)
    return [
        ScrapUnit(str(at[spot].block.pk), cell, at[spot].roles, role, fabric)
        for spot, cell, fabric in laid_out
        if spot < len(at) and cell < len(layout_of(at[spot].pattern).cells)
    ]


def _scrap_fabrics(quilt: Quilt) -> dict[int, tuple[tuple[int, tuple[tuple[str, str], ...]], ...]]:
    """Fabrics of single units by spot, as an arrangement of scraps was kept."""
    role = quilt.scraps.get("role", "")
    found: dict[int, list[tuple[int, tuple[tuple[str, str], ...]]]] = {}
    for spot, cell, fabric in quilt.scraps.get("laid", ()):
        found.setdefault(spot, []).append((cell, tuple(zip(role, fabric, strict=True))))
    return {n: tuple(units) for n, units in found.items()}
