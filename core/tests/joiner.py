"""Someone who joins a block and does what the steps say: lays named parts side by side, sews, and calls the result by its name.

Knows where a place lies in the picture of the layout and how a trimmed unit lies there; nothing of how the order was found.
"""

from __future__ import annotations

from collections.abc import Sequence

from piecing.blocks.editing import whole_mirrored
from piecing.blocks.geometry import lying, sew_unit
from piecing.blocks.pattern import BlockPlacement, Orientation, Pattern
from piecing.geometry.plane import Line
from piecing.geometry.sewing import Needle, Piece, Stack
from piecing.handling.joining_steps import JoinAct, JoinStep
from piecing.lengths import Length

__all__ = ["join"]


def _lying(piece: Piece, orientation: Orientation) -> Piece:
    left, bottom, right, top = piece.extent
    middle = ((left + right) / 2, (bottom + top) / 2)
    moved = piece.mapped(
        lambda p: lying((p[0] - middle[0], p[1] - middle[1]), orientation), mirrored=orientation.mirrored
    )
    return moved.at_origin()


def _side_by_side(parts: Sequence[Piece], needle: Needle, *, upright: bool) -> Piece:
    whole = parts[0].at_origin()
    for n, part in enumerate(parts[1:]):
        left, bottom, right, top = whole.extent
        one = part.at_origin()
        # Turned over onto its neighbour like a page, edges together.
        if upright:
            edge = Line((right, bottom), (right, top))
            upper = one.mapped(lambda p, r=right: (r - p[0], p[1]), mirrored=True)  # type: ignore[misc]
        else:
            edge = Line((left, bottom), (right, bottom))
            height = one.extent[3]
            upper = one.mapped(lambda p, h=height: (p[0], h - p[1]), mirrored=True)  # type: ignore[misc]
        whole = Stack(whole, upper).sewn(f"join {n}", edge, needle).opened().at_origin()
    return whole


def _round(parts: Sequence[Piece], s: float) -> Piece:
    """Four round a middle: the first one's end is left open, so what shows is put together by its finished edges."""
    middle, *arms = [p.at_origin() for p in parts]
    width, height = middle.extent[2], middle.extent[3]
    ways = {}
    for clockwise in (True, False):
        a, b, c, d = arms
        top, right, foot, left = (a, b, c, d) if clockwise else (a, d, c, b)
        th, rw, fh, lw = top.extent[3], right.extent[2], foot.extent[3], left.extent[2]
        x, y = lw - 2 * s, fh - 2 * s
        placed = [middle.shifted(x, y)]
        if clockwise:
            fits = abs(top.extent[2] - (lw + width - 2 * s)) < 1e-6
            placed += [
                top.shifted(0, y + height - 2 * s),
                right.shifted(x + width - 2 * s, y + height + th - 2 * s - right.extent[3]),
            ]
            placed += [foot.shifted(x, 0), left.shifted(0, 0)]
        else:
            fits = abs(top.extent[2] - (rw + width - 2 * s)) < 1e-6
            placed += [top.shifted(x, y + height - 2 * s), left.shifted(0, y + height + th - 2 * s - left.extent[3])]
            placed += [foot.shifted(0, 0), right.shifted(x + width - 2 * s, 0)]
        if fits:
            ways[clockwise] = placed
    placed = next(iter(ways.values()))
    faces = tuple(f for p in placed for f in p.faces)
    return Piece(faces)


def join(steps: Sequence[JoinStep], pattern: Pattern, finished: Length, s: Length) -> Piece:
    """The joined block, from units trimmed true."""
    return _joined([x for x in steps if x.key.startswith("join")], "", pattern, {}, finished, s)


def _joined(
    steps: Sequence[JoinStep], key: str, pattern: Pattern, roles: dict[str, str], finished: Length, s: Length
) -> Piece:
    part, needle = finished / pattern.width, Needle.of(float(s))
    known: dict[str, Piece] = {}
    inner: list[tuple[Pattern, object, Length]] = []
    for place in pattern.places:
        held = place.content
        wide, high = pattern.box(place)[2:]
        if isinstance(held, BlockPlacement):
            own = whole_mirrored(held.pattern) if place.orientation.mirrored else held.pattern
            size = part * (high if place.orientation.across else wide)
            if (own, held.fabrics, size) not in inner:
                inner.append((own, held.fabrics, size))
            n = inner.index((own, held.fabrics, size)) + 1
            now = {r: roles.get(q, q) for r, q in ({r: dict(held.fabrics).get(r, r) for r in own.roles}).items()}
            piece = _joined(steps, f"{key}block {n} ", own, now, size, s)
            known[place.name] = _lying(piece, Orientation(place.orientation.turn))
        else:
            across, down = (high, wide) if place.orientation.across else (wide, high)
            unit = sew_unit(held.dyed(roles).spec(part * across, part * down), float(s))
            assert unit is not None
            known[place.name] = _lying(unit, place.orientation)
    mine = [x for x in steps if x.key.removeprefix(f"join {key}")[:1].isdigit() and x.key.startswith(f"join {key}")]
    if not mine:
        (only,) = known.values()
        return only
    for step in mine:
        act: JoinAct = step.act
        parts = [known[p] for p in act.parts]
        piece = _round(parts, float(s)) if act.round_middle else _side_by_side(parts, needle, upright=act.upright)
        left, bottom, right, top = piece.extent
        assert abs(right - left - float(step.width)) < 1e-6, f"{step.key} measures {right - left}, not {step.width}"
        assert abs(top - bottom - float(step.height)) < 1e-6, f"{step.key} measures {top - bottom}, not {step.height}"
        known[act.name] = piece.at_origin()
    return known["the block"]
