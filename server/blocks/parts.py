"""What a quilt is pieced of beside its blocks follows the quilt: strips of pieced borders, parts of blocks at the ends of columns.

They stand as blocks of the project, so that they are counted, cut, pressed, joined and kept account of as these are. A centre laid
by hand is one, too; the blocks that lie in it take their numbers from there.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from django.db.models import Q
from django.utils import timezone

from piecing.blocks.boxes import cropped, in_whole_parts
from piecing.blocks.editing import whole_mirrored, whole_turned
from piecing.blocks.file_format import Find, pattern_data
from piecing.blocks.pattern import BlockPlacement, Orientation, Pattern
from piecing.errors import PiecingError
from piecing.lengths import Length
from piecing.quilts.by_rule import Sampled, SashStrip, StripCrossing, as_set, sampler, sashed_pattern
from piecing.quilts.choices import QuiltChoices, Setting
from piecing.quilts.sizes import QuiltSizes, quilt_sizes
from projects.models import Project

from .models import Block, Quilt
from .translate import (
    CENTRE,
    QuiltColourway,
    apart_in,
    fillers_at,
    find_in,
    lying_at,
    pattern_of,
    quilt_choices,
    ways_of,
)

__all__ = [
    "LAST",
    "FollowedParts",
    "centre_as_set",
    "follow_parts",
    "half_pattern",
    "sample_of",
    "sashed_centre",
]

LAST = 500
"""Parts stand after all blocks of a project."""


@dataclass(frozen=True)
class _Part:
    key: str
    pattern: Pattern
    finished: Length
    colourways: list[dict[str, Any]]


@dataclass(frozen=True)
class FollowedParts:
    """The blocks and parts that there are then, and whether any part changed."""

    blocks: list[Block]
    changed: bool


def follow_parts(project: Project, quilt: Quilt) -> FollowedParts:
    """Brings the parts up to what the quilt says, and the numbers of blocks to what a centre laid by hand holds. A quilt that cannot
    be put together as it stands keeps its parts."""
    find = find_in(project.workroom)
    # Parts that are put by, too: they are taken up again as they were.
    every = list(Block.objects.filter(Q(deleted_at=None) | ~Q(part=""), project=project))
    rows = {b.part: b for b in every if b.part}
    _follow_centre(rows.pop(CENTRE, None), quilt, [b for b in every if not b.part], find)
    blocks = [b for b in every if b.deleted_at is None]
    try:
        parts = list(_parts(quilt, project, blocks, find)) if quilt.begun and blocks else []
    except PiecingError:
        return FollowedParts(blocks, changed=False)
    stay, changed = [b for b in blocks if not b.part or b.part == CENTRE], False
    for n, part in enumerate(parts):
        row = rows.pop(part.key, None) or Block(project=project, part=part.key)
        changed |= _put(row, part, LAST + n)
        stay.append(row)
    if gone := [r.pk for r in rows.values() if r.deleted_at is None]:
        Block.objects.filter(pk__in=gone).update(deleted_at=timezone.now())
    return FollowedParts(stay, changed or bool(gone))


def _put(row: Block, part: _Part, position: int) -> bool:
    """Whether there was anything to change."""
    now = {
        "pattern": pattern_data(in_whole_parts(part.pattern)),
        "finished": part.finished,
        "colourways": part.colourways,
        "deleted_at": None,
    }
    before = {f: getattr(row, f) for f in now}
    if not row._state.adding and before == now:
        return False
    for field, value in now.items():
        setattr(row, field, value)
    row.position = position
    row.save()
    return True


def _parts(quilt: Quilt, project: Project, blocks: list[Block], find: Find) -> Iterator[_Part]:
    choices = quilt_choices(quilt, project, blocks, find)
    sized = quilt_sizes(choices)
    ways = ways_of(quilt, blocks, find)
    if not ways:
        return
    yield from _halves(quilt, choices, ways)
    yield from _strips(sized)


def _strips(sized: QuiltSizes) -> Iterator[_Part]:
    for part in sized.parts:
        if part.pattern is not None:
            yield _Part(part.key, part.pattern, part.width, [{"count": part.count, "roles": {}}])


def half_pattern(pattern: Pattern, lies: Orientation, share: Fraction, *, head: bool) -> Pattern:
    """The part of a block, as it lies, at the head of a lower column, its lower end, or at the foot, its upper one. Raises
    ``QuiltImpossible`` where the cut runs through a unit.
    """
    lying = whole_turned(whole_mirrored(pattern) if lies.mirrored else pattern, lies.turn)
    if head:
        return cropped(lying, 1 - share, share, f"{pattern.name}, lower part")
    return cropped(lying, Fraction(0), 1 - share, f"{pattern.name}, upper part")


def _halves(quilt: Quilt, choices: QuiltChoices, ways: list[QuiltColourway]) -> Iterator[_Part]:
    """One for each block and end: at one end all of them lie alike, since only every second column is lower."""
    found: dict[tuple[Any, bool], tuple[Pattern, dict[tuple[tuple[str, str], ...], int]]] = {}
    for head, way, lies in fillers_at(quilt, choices, ways):
        pattern = half_pattern(way.pattern, lies, choices.stagger, head=head)
        _, numbers = found.setdefault((way.block.pk, head), (pattern, {}))
        numbers[way.roles] = numbers.get(way.roles, 0) + 1
    for (key, head), (pattern, numbers) in found.items():
        colourways = [{"count": n, "roles": dict(roles)} for roles, n in numbers.items()]
        yield _Part(f"{'head' if head else 'foot'} {key}", pattern, choices.block_width, colourways)


def _follow_centre(row: Block | None, quilt: Quilt, blocks: Iterable[Block], find: Find) -> None:
    if row is None:
        return
    wanted = quilt.begun and quilt.setting == Setting.BY_HAND.value
    if (row.deleted_at is None) != wanted:
        row.deleted_at = None if wanted else timezone.now()
        row.save(update_fields=["deleted_at"])
    if wanted:
        with suppress(PiecingError):
            pattern = pattern_of(row, find)
            _number(blocks, pattern, apart_in(row, pattern))


def _number(blocks: Iterable[Block], centre: Pattern, apart: Iterable[int]) -> None:
    """Each block is wanted as often as it lies in the centre, in the colours that it has there."""
    found: dict[str, dict[tuple[tuple[str, str], ...], int]] = {}
    for n in apart:
        held = centre.places[n].content
        assert isinstance(held, BlockPlacement)
        numbers = found.setdefault(held.key, {})
        numbers[held.fabrics] = numbers.get(held.fabrics, 0) + 1
    for block in blocks:
        numbers = found.get(str(block.pk), {})
        now = [{"count": n, "roles": dict(roles)} for roles, n in sorted(numbers.items())]
        now = now or [{"count": 0, "roles": {}}]
        if block.colourways != now:
            block.colourways = now
            block.save(update_fields=["colourways"])


def sample_of(
    numbers: Iterable[tuple[Block, int]], width: Length, gap: Length, fabric: str, step: Length, find: Find
) -> tuple[Pattern, Length]:
    """So many of each block in rows of a width, each in its first colours; the pattern and what it finishes across."""
    found = []
    for block, n in numbers:
        pattern = pattern_of(block, find).complete()
        roles = tuple(sorted(dict(block.colourways[0].get("roles", {})).items()))
        height = block.finished / pattern.width * pattern.height
        found += [Sampled(BlockPlacement(str(block.pk), pattern, roles), block.finished, height)] * n
    return in_whole_parts(sampler(found, width, gap, fabric, step, "Centre")), width


def sashed_centre(
    project: Project,
    straight: Quilt,
    across: Sequence[SashStrip],
    down: Sequence[SashStrip],
    crossing: StripCrossing,
    cornerstone: str,
    find: Find,
) -> tuple[Pattern, Length]:
    """The blocks of a quilt set straight with sashes of several strips; the pattern and what it finishes across. Raises what that refuses."""
    blocks = list(project.blocks.filter(deleted_at=None))
    choices = quilt_choices(straight, project, blocks, find)
    pattern = sashed_pattern(
        choices, _lying(straight, choices, blocks, find), across, down, crossing, cornerstone, "Centre"
    )
    # In inches, before its parts are made whole.
    return in_whole_parts(pattern), Length.of(pattern.width)


def _lying(
    quilt: Quilt, choices: QuiltChoices, blocks: list[Block], find: Find
) -> list[tuple[BlockPlacement, Orientation]]:
    return [
        (BlockPlacement(str(way.block.pk), way.pattern, way.roles), lies)
        for way, lies in lying_at(quilt, choices, blocks, find)
    ]


def centre_as_set(project: Project, before: Quilt, find: Find) -> Block:
    """The centre to go on from by hand: the quilt as it was set ``before``. Raises what that refuses."""
    blocks = list(project.blocks.filter(deleted_at=None))
    choices = quilt_choices(before, project, blocks, find)
    sized = quilt_sizes(choices)
    lying = _lying(before, choices, blocks, find)
    pattern = (
        in_whole_parts(as_set(choices, lying, "Centre")) if lying else Pattern("Centre", (Fraction(1),), (Fraction(1),))
    )
    return Block(
        project=project,
        part=CENTRE,
        position=LAST - 1,
        pattern=pattern_data(pattern),
        finished=sized.centre_width,
        colourways=[{"count": 1, "roles": {}}],
    )
