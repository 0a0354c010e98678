"""A cutting plan and its piles, out of a project's file."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from fractions import Fraction
from typing import Any

from django.utils.dateparse import parse_datetime

from api.problems import Refused
from piecing.cutting.ledger import of_pile, ticked_pieces
from piecing.errors import NothingToCut, PiecingError
from piecing.lengths import Length
from projects.models import Project
from projects.selectors import get_project

from .models import CutPile, CutPlan
from .translate import (
    piles_of,
    plan_from,
)

__all__ = ["take_cutting"]


def take_cutting(project: Project, data: Mapping[str, Any] | None, renewed: Mapping[str, str]) -> None:
    """A cutting plan from a project's file; ``renewed`` gives the cloths their new keys. Raises ``Refused``.

    Read through as it is when it is shown, so that nothing is kept that could not be.
    """
    if data is None:
        return
    # As it is by now: what the file brought in before this is not in what was read of the project at its beginning.
    project = get_project(project.workroom, project.pk)
    made = parse_datetime(data["made_at"]) if data.get("made_at") else None
    row = CutPlan(project=project, goal=data["goal"], along=data["along"], made_at=made)
    row.binding = data.get("binding", {})
    row.done, row.extra = list(data["done"]), [list(e) for e in data["extra"]]
    try:
        row.laid = _with_keys(data["laid"], renewed)
        row.save(force_insert=True)
        _take_piles(project, data["piles"] if "piles" in data else _piles_of(data["laid"]))
        _without_cloth(row, renewed)
        # With what is ticked: pieces spoiled may have come from strips that were not put down yet.
        if any(p.have < 0 for p in piles_of(project, row)):
            raise ValueError("more spoiled than cut")
    except (KeyError, ValueError, TypeError, IndexError, ZeroDivisionError, PiecingError):
        raise Refused([NothingToCut("The cutting plan cannot be read as one.", field="laid")]) from None


def _without_cloth(row: CutPlan, renewed: Mapping[str, str]) -> None:
    """A plan whose cloth did not come along is not kept; what is ticked on it was cut all the same."""
    kept = plan_from(row)
    missing = kept and any(
        not of_pile(c.cloth) and c.cloth.key.split("#")[0] not in renewed.values() for c in kept[0].cloths
    )
    if kept and missing:
        cut, given = ticked_pieces(kept[0], row.done)
        for pile in CutPile.objects.filter(project=row.project):
            pile.cut += cut.get(pile.letter, 0)
            pile.given += given.get(pile.letter, 0)
            pile.save()
        row.laid, row.done = {}, []
        row.save()


def _piles_of(laid: Mapping[str, Any]) -> Iterable[Iterable[Any]]:
    """Of a file from before there was a ledger: the piles of its plan, under the letters that stand in it."""
    found: dict[tuple[Any, ...], list[Any]] = {}
    for letter, role, width, height, _count, name, _turns, gives, *_ in laid.get("pieces", ()):
        found.setdefault((role, width, height, gives), [letter, role, width, height, gives, name, 0, 0, 0])
    return found.values()


def _take_piles(project: Project, piles: Iterable[Iterable[Any]]) -> None:
    fabrics = {f.role: f for f in project.fabrics.all()}
    for letter, role, width, height, gives, name, cut, spoiled, given, *put_by in piles:
        CutPile.objects.create(
            project=project,
            fabric=fabrics[role],
            letter=letter,
            width=Length.of(Fraction(width)),
            height=Length.of(Fraction(height)),
            gives=gives,
            name=name,
            cut=cut,
            spoiled=spoiled,
            given=given,
            put_by=put_by[0] if put_by else 0,
        )


def _with_keys(laid: Mapping[str, Any], renewed: Mapping[str, str]) -> dict[str, Any]:
    """A plan as it is kept, its cloths under their new keys; ``#n`` behind a key is the nth of several alike."""
    cloths = []
    for cloth in laid.get("cloths", []):
        key, nth, number = str(cloth["cloth"][0]).partition("#")
        cloths.append({**cloth, "cloth": [renewed.get(key, key) + nth + number, *cloth["cloth"][1:]]})
    return {**laid, "cloths": cloths} if laid else {}
