"""Whether a cutting plan can be cut, found again from the placed rectangles alone. Shares no code with the planning.

Source: docs/theory, section 13.4.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from ..messages import Message
from .plan import CuttingPlan, Placed
from .stock import Cloth, WantedPiece

__all__ = ["Flaw", "flaws"]

Box = tuple[Fraction, Fraction, Fraction, Fraction]


@dataclass(frozen=True, slots=True)
class Flaw:
    """``code`` is off_the_cloth, overlap, missing, grain, size, or cannot_be_cut."""

    code: str
    said: Message


def flaws(plan: CuttingPlan, pieces: Sequence[WantedPiece], cloths: Sequence[Cloth]) -> tuple[Flaw, ...]:
    """Everything wrong with a plan; empty for a sound one."""
    found: list[Flaw] = []
    counts: dict[str, int] = {}
    used: dict[str, int] = {}
    for c in plan.cloths:
        used[c.cloth.key.split("#")[0]] = used.get(c.cloth.key.split("#")[0], 0) + 1
        boxes = [_box(p) for p in c.placed]
        for p, box in zip(c.placed, boxes, strict=True):
            counts[p.piece.key] = counts.get(p.piece.key, 0) + 1
            found += _piece_flaws(p, box, c.cloth)
        found += _overlaps(boxes)
        if not _guillotine(boxes):
            found.append(
                Flaw(
                    "cannot_be_cut",
                    Message("The cuts of {cloth} do not run from edge to edge.", cloth=c.cloth.name or c.cloth.key),
                )
            )
    for cloth in cloths:
        if used.get(cloth.key, 0) > cloth.count:
            found.append(
                Flaw(
                    "off_the_cloth",
                    Message("{cloth} is cut more often than there is of it.", cloth=cloth.name or cloth.key),
                )
            )
    short = {m.piece.key: m.count for m in plan.missing}
    for w in pieces:
        if counts.get(w.key, 0) + short.get(w.key, 0) != w.count:
            found.append(
                Flaw(
                    "missing",
                    Message(
                        "{name}: {wanted} wanted, {placed} placed.",
                        name=w.name or w.key,
                        wanted=w.count,
                        placed=counts.get(w.key, 0),
                    ),
                )
            )
    return tuple(found)


def _box(p: Placed) -> Box:
    x, y = p.x.rational, p.y.rational
    return x, y, x + p.width.rational, y + p.height.rational


def _piece_flaws(p: Placed, box: Box, cloth: Cloth) -> list[Flaw]:
    name, found = p.piece.name or p.piece.key, []
    if box[0] < 0 or box[1] < 0 or box[2] > cloth.across.rational or box[3] > cloth.along.rational:
        found.append(Flaw("off_the_cloth", Message("{name} hangs over the edge of its cloth.", name=name)))
    if {p.width, p.height} != {p.piece.width, p.piece.height}:
        found.append(Flaw("size", Message("{name} is cut in another size than it is wanted.", name=name)))
    if p.piece.fabric != cloth.fabric:
        found.append(Flaw("size", Message("{name} is cut from another fabric.", name=name)))
    if (not p.piece.turns or p.piece.along_cloth) and p.width != p.piece.width:
        found.append(Flaw("grain", Message("{name} is turned, and its grain or print does not allow it.", name=name)))
    return found


def _overlaps(boxes: Sequence[Box]) -> list[Flaw]:
    found = []
    for n, a in enumerate(boxes):
        for b in boxes[n + 1 :]:
            if a[0] < b[2] and b[0] < a[2] and a[1] < b[3] and b[1] < a[3]:
                found.append(Flaw("overlap", Message("Two pieces lie over each other.")))
    return found


def _guillotine(boxes: Sequence[Box]) -> bool:
    """Whether cuts from edge to edge take every piece apart from all others."""
    stack = [list(boxes)]
    while stack:
        held = stack.pop()
        if len(held) <= 1:
            continue
        for axis in (1, 0):
            parts = _groups(held, axis)
            if len(parts) > 1:
                stack.extend(parts)
                break
        else:
            return False
    return True


def _groups(held: Sequence[Box], axis: int) -> list[list[Box]]:
    """Groups between which a straight cut runs."""
    ordered = sorted(held, key=lambda b: b[axis])
    groups, reach = [[ordered[0]]], ordered[0][axis + 2]
    for b in ordered[1:]:
        if b[axis] >= reach:
            groups.append([b])
        else:
            groups[-1].append(b)
        reach = max(reach, b[axis + 2])
    return groups
