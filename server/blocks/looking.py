"""Reads for looking a block over: what else a place could look like, and which unit lies wrong."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from api.problems import Refused
from piecing.blocks.comparing import Finding, alternatives, compare_patterns
from piecing.blocks.file_format import pattern_from
from piecing.blocks.pattern import Orientation, layout_of
from piecing.drawings.block import apart_picture, block_picture, side_by_side
from piecing.drawings.finding import finding_picture
from piecing.errors import PiecingError
from piecing.geometry.drawing import Drawing
from piecing.messages import Message
from projects.translate import style_of
from workrooms.models import Workroom

from .selectors import LaidBlock, block_and_pattern, layout_view
from .translate import (
    ORIENTATIONS,
    find_in,
)

__all__ = ["OtherWays", "TurnedFound", "find_of_turned", "other_ways"]


@dataclass(frozen=True, slots=True)
class AlternativeView:
    said: Message
    orientation: Orientation
    as_it_is: bool
    drawing: Drawing


@dataclass(frozen=True)
class OtherWays:
    apart: Drawing
    many: Drawing
    alternatives: tuple[AlternativeView, ...]


def other_ways(room: Workroom, key: UUID, across: int, every_second: str, spot: tuple[int, int] | None) -> OtherWays:
    """A saved block taken apart, several side by side, and the other looks of one place."""
    block, project, pattern = block_and_pattern(room, key)
    layout = layout_of(pattern)
    try:
        many = side_by_side(layout, block.finished, across, across, ORIENTATIONS[every_second])
        apart = apart_picture(layout, block.finished, project.seam_allowance)
    except PiecingError as refusal:
        raise Refused([refusal], style_of(project)) from None
    found = alternatives(pattern, spot) if spot else ()
    shown = (
        AlternativeView(a.said, a.orientation, a.as_it_is, block_picture(layout_of(a.pattern), block.finished))
        for a in found
    )
    return OtherWays(apart, many, tuple(shown))


@dataclass(frozen=True)
class TurnedFound:
    finding: Finding
    picture: Drawing
    view: LaidBlock


def find_of_turned(room: Workroom, key: UUID, seen: Any) -> TurnedFound:
    """What lies on the table against what the saved block is meant to be."""
    block, project, meant = block_and_pattern(room, key)
    try:
        pattern = pattern_from(seen, find_in(room), str(key))
        finding = compare_patterns(meant, pattern)
        return TurnedFound(
            finding, finding_picture(pattern, finding, block.finished), layout_view(pattern, block.finished, project)
        )
    except PiecingError as refusal:
        raise Refused([refusal.at("seen")], style_of(project)) from None
