"""Reads of units laid out from scraps."""

from __future__ import annotations

from dataclasses import dataclass

from piecing.blocks.file_format import Find
from piecing.drawings.quilt import block_middles
from piecing.errors import PiecingError, ScrapsImpossible
from piecing.geometry.plane import rotated
from piecing.quilts.choices import Setting, block_spots
from piecing.quilts.laid import Laid
from piecing.quilts.scrap_places import ScrapPlace, cell_box, scrap_places
from piecing.quilts.sizes import QuiltSizes, quilt_sizes
from projects.models import Project

from .models import Quilt
from .quilt import quilt_of
from .selectors import blocks_of
from .translate import QuiltColourway, find_in, quilt_choices, ways_of, whats_laid

__all__ = ["ScrapBox", "ScrapSetting", "scrap_boxes", "scrap_setting", "scraps_laid"]


@dataclass(frozen=True)
class ScrapSetting:
    """What scraps are laid out on: the quilt, what lies where, and the places for one role, or the two of a pair."""

    quilt: Quilt
    sizes: QuiltSizes
    laid: list[Laid]
    places: tuple[ScrapPlace, ...]


def scrap_setting(project: Project, find: Find, role: str) -> ScrapSetting:
    """Raises what the quilt and the scraps refuse."""
    quilt, blocks = quilt_of(project), blocks_of(project)
    if quilt.setting == Setting.BY_HAND.value:
        raise ScrapsImpossible(
            "Scraps are laid out over blocks in rows, on point or staggered. In a quilt laid by hand give the places their fabrics "
            "there.",
            field="role",
        )
    choices = quilt_choices(quilt, project, blocks, find)
    sized = quilt_sizes(choices)
    ways: list[QuiltColourway] = ways_of(quilt, blocks, find)
    bare = Quilt(setting=quilt.setting, spread=quilt.spread, every_second=quilt.every_second)
    lying = whats_laid(bare, choices, ways, block_spots(choices)) if ways else []
    return ScrapSetting(quilt, sized, lying, scrap_places(sized, lying, role) if ways else ())


@dataclass(frozen=True, slots=True)
class ScrapBox:
    """One place by name, in the block at its ``spot``, and where it lies."""

    name: str
    spot: int
    box: tuple[float, float, float, float]


def scrap_boxes(setting: ScrapSetting) -> list[ScrapBox]:
    """Where each place lies in the quilt's picture: its middle, with a box about it that fits inside."""
    q, middles = setting.sizes, block_middles(setting.sizes)
    wide, high = float(q.width), float(q.height)
    inset = ((wide - float(q.centre_width)) / 2, (high - float(q.centre_height)) / 2)
    tilted = q.choices.setting is Setting.ON_POINT
    size = (float(q.choices.block_width), float(q.choices.block_height))
    found = []
    for p in setting.places:
        left, bottom, w, h = cell_box(setting.laid[p.spot], p.cell, q.choices.block_width)
        x, y = left + w / 2 - size[0] / 2, bottom + h / 2 - size[1] / 2
        if tilted:
            (x, y), w, h = rotated((x, y), 45), w * 0.7, h * 0.7
        mx, my = middles[p.spot]
        x, y = inset[0] + mx + x, inset[1] + my + y
        found.append(ScrapBox(p.name, p.spot, ((x - w / 2) / wide, 1 - (y + h / 2) / high, w / wide, h / high)))
    return found


def scraps_laid(project: Project) -> list[tuple[ScrapBox, str]]:
    """Every place with the role of the scrap that lies there; empty when none are laid out, or the quilt has changed since."""
    kept = quilt_of(project).scraps
    fabrics = {(spot, cell): fabric for spot, cell, fabric in kept.get("laid") or ()}
    if not fabrics:
        return []
    try:
        setting = scrap_setting(project, find_in(project.workroom), kept.get("role", ""))
    except PiecingError:
        return []
    places = zip(setting.places, scrap_boxes(setting), strict=True)
    return [(box, fabrics[p.spot, p.cell]) for p, box in places if (p.spot, p.cell) in fabrics]
