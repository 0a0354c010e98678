"""Scraps laid out and taken up again. One function, one transaction."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from statistics import fmean
from typing import Any
from uuid import UUID

from django.db import transaction

from api.problems import Refused
from piecing.errors import PiecingError, ScrapsImpossible
from piecing.quilts.scrap_places import neighbours
from piecing.quilts.scraps import ScrapStock, Value, arrange_scraps, darkness
from projects.commands import touch
from projects.models import Project
from projects.selectors import get_project
from projects.translate import style_of
from workrooms.models import Workroom
from workrooms.once import change

from .following import follow_blocks
from .quilt import quilt_of
from .readers import (
    stock_reader,
)
from .scraps import scrap_setting
from .translate import find_in

__all__ = ["lay_scraps", "take_scraps", "take_up_scraps"]


def lay_scraps(room: Workroom, project_key: UUID, body: Mapping[str, Any]) -> Project:
    """Arrange units so that no neighbours are alike, and keep the arrangement. The solving is not inside a transaction."""
    project = get_project(room, project_key)
    style = style_of(project)
    try:
        setting = scrap_setting(project, find_in(room), body["role"])
        stock = stock_reader(body["stock"])
        fixed = {int(k): str(v) for k, v in body.get("fixed", {}).items() if re.fullmatch("[0-9]{1,6}", str(k))}
        _same_letters(body["role"], [*stock, *fixed.values()])
        sets = body.get("sets", False) or len(body["role"]) > 1
        # Whole blocks alike are seen side by side across a sash too; single units are kept apart by it.
        reach = float(setting.sizes.choices.sash) if sets else 0.0
        pairs = neighbours(setting.places, corners=body.get("corners", False), reach=reach)
        shades = {f.role: darkness(Value(f.value), f.colour) for f in project.fabrics.all()}
        found = arrange_scraps(
            setting.places,
            pairs,
            [ScrapStock(f, n, fmean(shades.get(one, 1.0) for one in f)) for f, n in stock.items()],
            fixed=fixed,
            order=body.get("order", 0),
            seed=body.get("seed", 1),
            sets=sets,
        )
    except PiecingError as refusal:
        raise Refused([refusal], style) from None
    kept = {
        **{k: body.get(k) for k in ("role", "order", "seed", "corners")},
        "sets": sets,
        "stock": stock,
        "fixed": {str(k): v for k, v in fixed.items()},
        "laid": [[p.spot, p.cell, f] for p, f in zip(setting.places, found.fabrics, strict=True)],
        "alike": [list(pair) for pair in found.alike],
        "said": [s.text(style) for s in found.said],
    }
    with transaction.atomic():
        quilt = setting.quilt
        quilt.scraps = kept
        quilt.save()
        follow_blocks(project)
        touch(project)
    return get_project(room, project_key)


def _same_letters(role: str, scraps: Iterable[str]) -> None:
    if len(set(role)) < len(role):
        raise ScrapsImpossible(
            "A pair takes the place of two different fabrics. Choose another second one.", field="role"
        )
    if any(len(s) != len(role) for s in scraps):
        raise ScrapsImpossible(
            "Where a pair takes the place of two fabrics, pairs of two are given, and single fabrics where it is one.",
            field="stock",
        )


@change
def take_scraps(room: Workroom, project_key: UUID, scraps: Mapping[str, Any]) -> None:
    """Scraps laid out earlier, as a project's file has them."""
    quilt = quilt_of(get_project(room, project_key))
    quilt.scraps = dict(scraps)
    quilt.save()


@change
def take_up_scraps(room: Workroom, project_key: UUID) -> Project:
    """The arrangement put away; counts and fixed places stay."""
    project = get_project(room, project_key)
    quilt = quilt_of(project)
    quilt.scraps = {**quilt.scraps, "laid": [], "alike": [], "said": []}
    quilt.save()
    follow_blocks(project)
    touch(project)
    return get_project(room, project_key)
