"""Laying out: one change to a pattern at a time, each giving a new pattern. Nothing here has a size.

Source: docs/theory, section 12.2.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Mapping
from contextlib import suppress
from dataclasses import replace
from enum import StrEnum
from fractions import Fraction

from ..errors import PatternNotUnderstood, PiecingError, PlaceTaken, UnitBent, UnitDoesNotFit
from ..lengths import Length
from ..units import kind_of
from .pattern import (
    UPRIGHT,
    BlockPlacement,
    Content,
    Orientation,
    Pattern,
    Place,
    UnitPlacement,
    layout_of,
    whole_parts,
)

__all__ = [
    "Side",
    "Symmetry",
    "cleared",
    "exchanged",
    "filled",
    "in_least_parts",
    "mirrored",
    "moved",
    "not_bent",
    "painted",
    "placed",
    "regridded",
    "repeated_to",
    "retracked",
    "spanned",
    "stretched",
    "turned",
    "whole_mirrored",
    "whole_turned",
]

Spot = tuple[int, int]
"""Column and row."""


class Side(StrEnum):
    """Tracks side by side, or one below the other."""

    COLUMNS = "columns"
    ROWS = "rows"


class Symmetry(StrEnum):
    """How the rest of a block follows from a part of it."""

    QUARTER_TURNS = "quarter_turns"
    HALF_TURN = "half_turn"
    SIDEWAYS = "sideways"
    UP_AND_DOWN = "up_and_down"
    FOUR_WAYS = "four_ways"


def placed(pattern: Pattern, spots: Iterable[Spot], content: Content, orientation: Orientation = UPRIGHT) -> Pattern:
    """Something laid at every spot named, in place of what lies there; a place already spanned keeps its span. On empty ground where it
    would be bent, a unit with a shape of its own takes the empty place beside it or below it as well."""
    lying = dict(pattern.covering)
    free = set(pattern.empty)
    for spot in spots:
        old = lying.get(spot)
        one = Place(*spot, content, orientation)
        one = replace(old, content=content, orientation=orientation) if old else _with_room(pattern, one, free)
        now = _in_shape(pattern, one)
        lying.update((s, now) for s in now.spots)
        free.difference_update(now.spots)
    return _checked(_with_lying(pattern, lying))


def _with_room(pattern: Pattern, place: Place, free: Collection[Spot]) -> Place:
    """Over two places where that is the unit's own shape and the second one is empty."""
    if not _bent_to(pattern, _in_shape(pattern, place)):
        return place
    for across, down in ((2, 1), (1, 2)):
        wider = replace(place, across=across, down=down)
        if all(s in free for s in wider.spots) and not _bent_to(pattern, _in_shape(pattern, wider)):
            return wider
    return place


def _bent_to(pattern: Pattern, place: Place) -> tuple[str, Fraction] | None:
    """Of a unit with a shape of its own in a place of another: its kind, and how high it is there for its width as it is made."""
    if not isinstance(place.content, UnitPlacement):
        return None
    kind, one = kind_of(place.content.kind), Length.of(1)
    natural = kind.default_height(one)
    if len(kind.parts) == 1 or natural == one:
        return None
    _, _, wide, high = pattern.box(place)
    own = wide / high if place.orientation.across else high / wide
    return None if Length.of(own) == natural else (kind.name, own)


def not_bent(before: Pattern, after: Pattern) -> Pattern:
    """What was made of a pattern. Raises ``UnitBent`` where a unit is bent to a shape that none of its kind was bent to before."""
    was = {_bent_to(before, p) for p in before.places}
    for p in after.places:
        bent = _bent_to(after, p)
        if bent is not None and bent not in was:
            raise UnitBent(
                "At {place} the {unit} would be bent: the place is of another shape than it is made in. Give it a place of its shape, "
                "or bend it all the same.",
                field="layout",
                place=p.name,
                unit=kind_of(bent[0]).title.lower(),
            )
    return after


def _in_shape(pattern: Pattern, place: Place) -> Place:
    """A unit with a shape of its own, such as a goose twice as wide as high, is never bent to another one without being asked:
    where the place stands on its end, so does the unit. Plain cloth is whatever its place is."""
    turned_so = replace(place, orientation=place.orientation.turned(1))
    if _bent_to(pattern, place) and not _bent_to(pattern, turned_so):
        return turned_so
    return _as_cloth(pattern, place)


def _as_cloth(pattern: Pattern, place: Place) -> Place:
    """Plain cloth cut to the shape of its place, a rectangle in an oblong one; anything else as it is."""
    if not isinstance(place.content, UnitPlacement):
        return place
    kind = kind_of(place.content.kind)
    _, _, wide, high = pattern.box(place)
    cloth = kind.in_square if wide == high else kind.in_oblong
    return replace(place, content=replace(place.content, kind=cloth)) if cloth else place


def _cloth_shaped(pattern: Pattern) -> Pattern:
    return replace(pattern, places=tuple(_as_cloth(pattern, p) for p in pattern.places))


def cleared(pattern: Pattern, spots: Iterable[Spot]) -> Pattern:
    """The places at these spots (column, row) taken out; spots that are empty stay so."""
    gone = [pattern.at(*s) for s in spots]
    return replace(pattern, places=tuple(p for p in pattern.places if p not in gone))


def _each(pattern: Pattern, spots: Iterable[Spot], change: Callable[[Place], Place]) -> Pattern:
    touched = {id(p) for s in spots if (p := pattern.at(*s))}
    return _checked(replace(pattern, places=tuple(change(p) if id(p) in touched else p for p in pattern.places)))


def _checked(pattern: Pattern) -> Pattern:
    layout_of(pattern)
    return pattern


def turned(pattern: Pattern, spots: Iterable[Spot], quarters: int = 1) -> Pattern:
    """What lies there turned clockwise. In a place that is not square the place turns with it, about its first corner, where
    there is room; elsewhere a quarter becomes a half turn."""
    lying = dict(pattern.covering)
    for one in dict.fromkeys(p for s in spots if (p := pattern.at(*s))):
        _, _, wide, high = pattern.box(one)
        now = replace(one, orientation=one.orientation.turned(quarters))
        if wide != high and quarters % 2:
            ended = replace(now, across=one.down, down=one.across)
            half = replace(one, orientation=one.orientation.turned(quarters * 2))
            now = ended if _stands(pattern, lying, one, ended) else half
        for spot in one.spots:
            del lying[spot]
        lying.update((s, now) for s in now.spots)
    return _checked(_with_lying(pattern, lying))


def _stands(pattern: Pattern, lying: Mapping[Spot, Place], one: Place, ended: Place) -> bool:
    """Whether what is turned has room on its end, and is as large there."""
    if ended.column + ended.across > len(pattern.columns) or ended.row + ended.down > len(pattern.rows):
        return False
    if any(lying.get(s, one) is not one for s in ended.spots):
        return False
    return pattern.box(ended)[2:] == pattern.box(one)[:1:-1]


def _with_lying(pattern: Pattern, lying: Mapping[Spot, Place]) -> Pattern:
    """With just this; one of several places is found at each of them."""
    return replace(pattern, places=tuple({id(p): p for p in lying.values()}.values()))


def mirrored(pattern: Pattern, spots: Iterable[Spot]) -> Pattern:
    """What lies there seen in a mirror, left and right exchanged."""
    return _each(pattern, spots, lambda p: replace(p, orientation=p.orientation.then(Orientation(0, True))))


def moved(pattern: Pattern, start: Spot, end: Spot) -> Pattern:
    """What lies at the start, moved; what lay at the end takes its place."""
    here, there = pattern.at(*start), pattern.at(*end)
    if here is None or here is there:
        return pattern
    changed = [replace(here, column=there.column if there else end[0], row=there.row if there else end[1])]
    if there:
        changed = [
            replace(there, content=here.content, orientation=here.orientation),
            replace(here, content=there.content, orientation=there.orientation),
        ]
    rest = tuple(p for p in pattern.places if p is not here and p is not there)
    made = replace(pattern, places=(*rest, *changed))
    return _checked(replace(made, places=(*rest, *(_as_cloth(made, p) for p in changed))))


def repeated_to(pattern: Pattern, source: Spot, spots: Iterable[Spot]) -> Pattern:
    """The same thing, lying the same way, at every spot named; over as many places as it covers, where these are empty."""
    here = pattern.at(*source)
    if here is None:
        return cleared(pattern, spots)
    made = pattern
    for column, row in spots:
        copy = replace(here, column=column, row=row)
        if made.at(column, row) is here:
            continue
        if set(copy.spots) <= set(made.empty):
            made = replace(made, places=(*made.places, copy))
        else:
            made = placed(made, [(column, row)], here.content, here.orientation)
    return _checked(made)


def painted(pattern: Pattern, spots: Iterable[Spot], part: int | None, role: str) -> Pattern:
    """One part of a unit in another fabric; every part when ``part`` is None. Of a block in the block it is one of its fabrics, by
    their order in the alphabet, that gives way."""

    def change(p: Place) -> Place:
        if isinstance(p.content, BlockPlacement):
            own = p.content.pattern.roles
            now = {**dict(p.content.fabrics), **{r: role for n, r in enumerate(own) if part in (None, n)}}
            fabrics = tuple(sorted((r, f) for r, f in now.items() if r != f))
            return replace(p, content=replace(p.content, fabrics=fabrics))
        part_fabrics = tuple(role if part in (None, n) else r for n, r in enumerate(p.content.part_fabrics))
        return replace(p, content=replace(p.content, part_fabrics=part_fabrics))

    return _each(pattern, spots, change)


def exchanged(pattern: Pattern, one: str, other: str) -> Pattern:
    """The twin: two fabric roles exchanged throughout."""
    roles = {one: other, other: one}
    return replace(pattern, places=tuple(replace(p, content=p.content.dyed(roles)) for p in pattern.places))


def spanned(pattern: Pattern, spot: Spot, across: int, down: int) -> Pattern:
    """A place over several tracks. What else lies under it must be cleared first (``PlaceTaken``). A square unit grows and
    shrinks both ways at once when one is asked for; a unit with a shape of its own stands on its end in a place that does."""
    here = pattern.at(*spot)
    if here is None:
        raise PlaceTaken("Nothing lies there that could be made larger. Lay a unit first.", field="spot")
    rest = tuple(p for p in pattern.places if p is not here)

    def over(wide: int, high: int) -> Pattern:
        larger = replace(here, across=wide, down=high)
        # The grid is looked at first: a place outside it has no shape.
        bare = replace(pattern, places=(*rest, larger))
        return _checked(replace(pattern, places=(*rest, _in_shape(bare, larger))))

    try:
        return over(across, down)
    except UnitDoesNotFit:
        if (across == here.across) == (down == here.down):
            raise
        return over(*(across, across) if across != here.across else (down, down))


def stretched(pattern: Pattern, spot: Spot, across: int, down: int) -> Pattern:
    """A place made larger or smaller by its edges: it takes the room of what lies wholly under it, and what it leaves is filled with
    the same plain cloth, or left empty by a unit that has seams. A square unit grows both ways where that fits.

    Raises ``PlaceTaken`` where something would be cut through, ``UnitDoesNotFit`` for a shape that the unit cannot take.
    """
    here = pattern.at(*spot)
    if here is None:
        raise PlaceTaken("Nothing lies there that could be made larger. Lay a unit first.", field="spot")
    try:
        return _stretched(pattern, here, across, down)
    except UnitDoesNotFit:
        if (across == here.across) == (down == here.down):
            raise
        both = across if across != here.across else down
        with suppress(PiecingError):
            return _stretched(pattern, here, both, both)
        raise


def _stretched(pattern: Pattern, here: Place, across: int, down: int) -> Pattern:
    larger = replace(here, across=across, down=down)
    under = set(larger.spots)
    gone = [p for p in pattern.places if p is not here and set(p.spots) & under]
    if any(not set(p.spots) <= under for p in gone):
        raise PlaceTaken("That would cut through what lies there. Drag to an edge of it.", field="spot")
    rest = tuple(p for p in pattern.places if p is not here and p not in gone)
    bare = replace(pattern, places=(*rest, larger))
    made = _checked(replace(pattern, places=(*rest, _in_shape(bare, larger))))
    plain = isinstance(here.content, UnitPlacement) and len(kind_of(here.content.kind).parts) == 1
    left = [s for s in here.spots if s in set(made.empty)] if plain else []
    return placed(made, left, here.content, here.orientation) if left else made


def regridded(pattern: Pattern, columns: int, rows: int) -> Pattern:
    """More or fewer tracks at the right and below; new ones as wide as the last. What no longer fits is cleared."""

    def fitted(tracks: tuple[Fraction, ...], count: int) -> tuple[Fraction, ...]:
        return (*tracks[:count], *(tracks[-1:] * max(0, count - len(tracks))))

    kept = tuple(p for p in pattern.places if p.column + p.across <= columns and p.row + p.down <= rows)
    return replace(pattern, columns=fitted(pattern.columns, columns), rows=fitted(pattern.rows, rows), places=kept)


def retracked(
    pattern: Pattern, columns: tuple[Fraction, ...], rows: tuple[Fraction, ...], one: Side | None = None
) -> Pattern:
    """Other tracks; ``one`` is the side that alone was typed. Where a unit would no longer fit its place, columns and rows that were
    alike both become as the one typed: one after the other, they are meant to stay alike. Plain cloth takes the shape of its place where
    it must. Raises what ``layout_of`` refuses when a unit fits in none of these ways."""
    as_typed = replace(regridded(pattern, len(columns), len(rows)), columns=columns, rows=rows)
    ways = [as_typed]
    if pattern.columns == pattern.rows and one is not None:
        both = columns if one is Side.COLUMNS else rows
        ways.append(_cloth_shaped(replace(regridded(pattern, len(both), len(both)), columns=both, rows=both)))
    for way in ways:
        with suppress(UnitDoesNotFit):
            return _checked(way)
    return _checked(_cloth_shaped(as_typed))


def in_least_parts(pattern: Pattern) -> Pattern:
    """The same block with its tracks in the smallest whole numbers that they are to one another as."""
    least = whole_parts((*pattern.columns, *pattern.rows))
    columns, rows = (tuple(t * least for t in tracks) for tracks in (pattern.columns, pattern.rows))
    return replace(pattern, columns=columns, rows=rows)


def whole_turned(pattern: Pattern, quarters: int = 1) -> Pattern:
    """The whole block turned clockwise."""
    made = pattern
    for _ in range(quarters % 4):
        high = len(made.rows)
        places = tuple(
            replace(
                p,
                column=high - p.row - p.down,
                row=p.column,
                across=p.down,
                down=p.across,
                orientation=p.orientation.turned(1),
            )
            for p in made.places
        )
        made = replace(made, columns=tuple(reversed(made.rows)), rows=made.columns, places=places)
    return made


def whole_mirrored(pattern: Pattern) -> Pattern:
    """The whole block seen in a mirror, left and right exchanged."""
    wide = len(pattern.columns)
    places = tuple(
        replace(p, column=wide - p.column - p.across, orientation=p.orientation.then(Orientation(0, True)))
        for p in pattern.places
    )
    return replace(pattern, columns=tuple(reversed(pattern.columns)), places=places)


_STEPS: dict[Symmetry, tuple[Callable[[Pattern], Pattern], ...]] = {
    Symmetry.QUARTER_TURNS: tuple(lambda p, q=q: whole_turned(p, q) for q in (1, 2, 3)),  # type: ignore[misc]
    Symmetry.HALF_TURN: (lambda p: whole_turned(p, 2),),
    Symmetry.SIDEWAYS: (whole_mirrored,),
    Symmetry.UP_AND_DOWN: (lambda p: whole_turned(whole_mirrored(p), 2),),
    Symmetry.FOUR_WAYS: (whole_mirrored, lambda p: whole_turned(whole_mirrored(p), 2), lambda p: whole_turned(p, 2)),
}


def filled(pattern: Pattern, symmetry: Symmetry, spots: Iterable[Spot] = ()) -> Pattern:
    """The rest of the block from what lies at ``spots`` (from all that lies there, when none are named).

    What is named stays; its images take the place of whatever lies where they fall. Raises ``PatternNotUnderstood``
    when the grid is not its own image.
    """
    named = tuple(spots)
    kept = {id(p) for s in named if (p := pattern.at(*s))} if named else {id(p) for p in pattern.places}
    seeds = replace(pattern, places=tuple(p for p in pattern.places if id(p) in kept))
    taken = {s for p in seeds.places for s in p.spots}
    images: list[Place] = []
    for step in _STEPS[symmetry]:
        image = step(seeds)
        if (image.columns, image.rows) != (pattern.columns, pattern.rows):
            raise PatternNotUnderstood(
                "This grid does not fall on itself that way: its tracks differ.", field="symmetry"
            )
        for p in image.places:
            if not taken & set(p.spots):
                taken |= set(p.spots)
                images.append(p)
    rest = tuple(p for p in pattern.places if id(p) not in kept and not taken & set(p.spots))
    return _checked(replace(pattern, places=(*seeds.places, *images, *rest)))
