"""Reads of the quilt."""

from __future__ import annotations

from collections.abc import Iterable
from contextlib import suppress
from dataclasses import dataclass

from api.looked_up import looked_up_once
from piecing.blocks.pattern import UPRIGHT, layout_of
from piecing.drawings.quilt import quilt_picture
from piecing.errors import PiecingError
from piecing.geometry.drawing import Drawing
from piecing.lengths import Area, Measure, usual
from piecing.messages import Listing, Message
from piecing.quilts.beside import SettingBeside, settings_beside
from piecing.quilts.choices import QuiltChoices, Setting, block_spots
from piecing.quilts.laid import Laid
from piecing.quilts.sizes import QuiltSizes, quilt_sizes
from piecing.quilts.strips_between import StripsBetween, StripsCut, strips_between
from piecing.quilts.top import top_as_measured
from projects.models import Project

from .models import Block, Quilt
from .parts import half_pattern
from .selectors import blocks_of
from .translate import (
    CENTRE,
    QuiltColourway,
    fillers_at,
    find_in,
    joining_of,
    pattern_of,
    quilt_choices,
    top_of,
    ways_at,
    ways_of,
    whats_laid,
)

__all__ = [
    "Beside",
    "BlocksTaken",
    "QuiltSheet",
    "besides_of",
    "may_number_blocks",
    "planned_sizes_of",
    "quilt_of",
    "quilt_view",
    "sizes_of",
    "strips_between_of",
    "strips_cut_of",
]


@looked_up_once
def quilt_of(project: Project) -> Quilt:
    """The project's quilt, as usual when none was kept yet."""
    with suppress(Quilt.DoesNotExist):
        return project.quilt
    begin = usual(Measure(project.measure))
    sizes = {f: getattr(begin, f) for f in ("binding_strip", "backing_over", "usable", "oversize")}
    return Quilt(project=project, **sizes)


def may_number_blocks(project: Project, changes: Iterable[str]) -> bool:
    """Whether a change of these fields of the quilt may have changed blocks that the quilter laid: by hand the centre is one, and numbers the
    others; turned to or from, it comes and goes. Strips of borders and parts of blocks are not meant."""
    return "setting" in changes or quilt_of(project).setting == Setting.BY_HAND.value


@dataclass(frozen=True)
class BlocksTaken:
    """How many of a block in one of its colourways the quilt as it is set takes, and how many are planned."""

    block: Block
    colourway: int
    takes: int
    planned: int

    @property
    def called(self) -> Message:
        name = str(self.block.pattern.get("name", ""))
        if len(self.block.colourways) < 2:
            return Message("{block}", block=name)
        return Message("{block}, colourway {n}", block=name, n=self.colourway + 1)


def _blocks_taken(quilt: Quilt, choices: QuiltChoices, ways: list[QuiltColourway]) -> tuple[BlocksTaken, ...]:
    if choices.setting is Setting.BY_HAND or not ways:
        return ()
    laid_out = ways_at(quilt, ways, block_spots(choices))
    return tuple(BlocksTaken(w.block, w.number, sum(x is w for x in laid_out), w.count) for w in ways)


@dataclass(frozen=True)
class QuiltSheet:
    """``sizes`` go with what was measured of the top, as far as it was; the picture is as planned."""

    quilt: Quilt
    sizes: QuiltSizes | None
    picture: Drawing | None
    refusal: PiecingError | None
    counted: int
    left_out: tuple[str, ...]
    cloth: Area
    takes: tuple[BlocksTaken, ...] = ()

    @property
    def takes_said(self) -> Message | None:
        """What the quilt takes beside what is planned; nothing where they agree."""
        if all(t.takes == t.planned for t in self.takes):
            return None
        return Message(
            "The quilt takes {takes}; planned under How many: {planned}.",
            takes=Listing([Message("{n} of {block}", n=t.takes, block=t.called) for t in self.takes], ", "),
            planned=Listing([Message("{n}", n=t.planned) for t in self.takes], ", "),
        )


def _picture(quilt: Quilt, sized: QuiltSizes, ways: list[QuiltColourway]) -> Drawing:
    choices = sized.choices
    fillers = [
        Laid(layout_of(half_pattern(way.pattern, lies, choices.stagger, head=head)), UPRIGHT, way.roles)
        for head, way, lies in fillers_at(quilt, choices, ways)
    ]
    return quilt_picture(sized, whats_laid(quilt, choices, ways, block_spots(choices)), fillers)


def _apart(quilt: Quilt, blocks: Iterable[Block]) -> list[Block]:
    """Blocks that would be missed in the picture: those laid by the quilter, and of a centre laid by hand those that lie in it
    nowhere."""
    by_hand = quilt.setting == Setting.BY_HAND.value
    return [b for b in blocks if not b.part and not (by_hand and any(w["count"] for w in b.colourways))]


def _block_count(blocks: Iterable[Block]) -> int:
    return sum(int(w["count"]) for b in blocks if not b.part for w in b.colourways)


@looked_up_once
def sizes_of(project: Project) -> QuiltSizes | None:
    """Every size of the quilt as far as it was measured, once it was put together from blocks that can be laid; without its picture."""
    quilt = quilt_of(project)
    planned = planned_sizes_of(project)
    return planned and _as_measured(quilt, planned)


def _as_measured(quilt: Quilt, planned: QuiltSizes) -> QuiltSizes:
    return top_as_measured(planned, top_of(quilt)).sizes if quilt.top else planned


@looked_up_once
def planned_sizes_of(project: Project) -> QuiltSizes | None:
    """Every size of the quilt by its plan alone, once it was put together from blocks that can be laid."""
    quilt, blocks, find = quilt_of(project), blocks_of(project), find_in(project.workroom)
    if not quilt.begun or not blocks:
        return None
    try:
        sized = quilt_sizes(quilt_choices(quilt, project, blocks, find))
        return sized if ways_of(quilt, blocks, find) else None
    except PiecingError:
        return None


@looked_up_once
def strips_between_of(project: Project) -> tuple[StripsBetween, ...]:
    """Plain strips between blocks of a centre laid by hand; none while it cannot be sewn."""
    quilt = quilt_of(project)
    if not quilt.begun or quilt.setting != Setting.BY_HAND.value:
        return ()
    centre = next((b for b in blocks_of(project) if b.part == CENTRE), None)
    if centre is None:
        return ()
    try:
        pattern = pattern_of(centre, find_in(project.workroom)).complete()
        return strips_between(pattern, joining_of(centre, pattern), centre.finished, project.seam_allowance)
    except PiecingError:
        return ()


@looked_up_once
def strips_cut_of(project: Project) -> tuple[StripsCut, ...]:
    """Those of them that were measured, with what they are cut to."""
    between = strips_between_of(project)
    sized = planned_sizes_of(project) if between else None
    return top_as_measured(sized, top_of(quilt_of(project)), between).strips if sized else ()


@looked_up_once
def quilt_view(project: Project) -> QuiltSheet:
    """The quilt as it is set; why it cannot be drawn, when it cannot."""
    quilt, blocks, find = quilt_of(project), blocks_of(project), find_in(project.workroom)
    if not quilt.begun or not blocks:
        return QuiltSheet(quilt, None, None, None, _block_count(blocks), (), Area.sum(()))
    try:
        choices = quilt_choices(quilt, project, blocks, find)
        sized = quilt_sizes(choices)
        ways = ways_of(quilt, blocks, find)
        counted_blocks = sum(w.count for w in ways)
        used = {w.block.pk for w in ways}
        left_out = tuple(str(b.pattern.get("name", "")) for b in _apart(quilt, blocks) if b.pk not in used)
        picture = _picture(quilt, sized, ways) if ways else None
        now = _as_measured(quilt, sized)
        return QuiltSheet(
            quilt,
            now,
            picture,
            None,
            counted_blocks,
            left_out,
            Area.sum(p.area for p in now.pieces),
            _blocks_taken(quilt, choices, ways),
        )
    except PiecingError as refusal:
        return QuiltSheet(quilt, None, None, refusal, 0, (), Area.sum(()))


@dataclass(frozen=True)
class Beside:
    setting: SettingBeside
    picture: Drawing


def besides_of(project: Project) -> list[Beside]:
    """The quilt in other settings of about its size, each with its picture; none while none is put together, or while it is laid by
    hand."""
    quilt, blocks, find = quilt_of(project), blocks_of(project), find_in(project.workroom)
    sized = planned_sizes_of(project)
    if sized is None or sized.choices.setting is Setting.BY_HAND:
        return []
    found = []
    for one in settings_beside(sized):
        c = one.sizes.choices
        as_set = Quilt(setting=c.setting.value, spread=quilt.spread, every_second=quilt.every_second)
        ways = ways_of(quilt, blocks, find)
        found.append(Beside(one, _picture(as_set, one.sizes, ways)))
    return found
