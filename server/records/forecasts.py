"""Whether arrangements of the library will come out, by one's own hands."""

from __future__ import annotations

import time
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, field, replace
from functools import lru_cache

from django.db import DatabaseError, connection

from api.problems import NotHere
from blocks.models import OwnBlock
from blocks.translate import find_in
from cutting.shelf import on_shelf
from cutting.translate import cloth_of
from measuring.selectors import habit_figure, own_seams, record_for
from piecing.blocks.file_format import pattern_from
from piecing.blocks.library import library_keys, library_pattern
from piecing.blocks.pattern import Pattern, layout_of
from piecing.cutting.enough import cloth_of_block, enough_for
from piecing.diagnosis import BlockModel, block_geometry, model_of
from piecing.diagnosis.causes import Source
from piecing.diagnosis.faults import EASED, SEEN
from piecing.diagnosis.habits import Habit
from piecing.errors import PiecingError
from piecing.lengths import Length, Measure, inches, mm
from piecing.planning.room import QuilterRecord
from piecing.planning.schools import School
from piecing.records import BlockRooms, Forecast, Help, OwnHands, block_rooms, forecast, helps, steady_record
from workrooms.models import Workroom
from workrooms.selectors import current_workroom

__all__ = [
    "ForecastAsked",
    "Forecasts",
    "Foretold",
    "cloth_on_shelf",
    "forecasts_of",
    "helps_of",
    "own_hands",
    "usual_asked",
    "work_out_behind",
]

_AFTER_START, _RESTS = 8.0, 2.0
"""Seconds until the first pages are there, and how many times as long as it works a thread behind rests."""
_AT_A_TIME = 0.7
"""Seconds that one answer works; what is left is worked out when it is asked for again."""
_SIZE = inches(12)
"""Errors do not grow with a block: one size answers for its tips and its sides. Whether its units have room is asked at its own."""


@dataclass(frozen=True)
class Foretold:
    """One arrangement, and what would come of it; ``enough`` is for about how many blocks there is cloth on the shelf."""

    key: str
    name: str
    forecast: Forecast
    rooms: BlockRooms
    enough: int = 0

    @property
    def worth(self) -> float:
        """Blocks that come out, with their tips, of units that can all be trimmed."""
        return self.forecast.worth * (1.0 if self.rooms.share is None else self.rooms.share)


@dataclass(frozen=True)
class ForecastAsked:
    """At which finished size the blocks are asked for, and cut by which school; ``cloths`` are the square inches of each cloth there is."""

    finished: Length
    school: School = School.LITTLE
    cloths: tuple[float, ...] = ()


def cloth_on_shelf(room: Workroom) -> tuple[float, ...]:
    """Square inches of each cloth that no project has reserved; pieces of one name are one cloth."""
    found: dict[str, float] = {}
    for row in on_shelf(room):
        cloth = cloth_of(row)
        if cloth.kind.is_cloth:
            name = (row.cloth or (row.fabric.name if row.fabric else "")).casefold()
            found[name] = found.get(name, 0.0) + float(cloth.across) * float(cloth.along) * cloth.count
    return tuple(sorted(found.values(), reverse=True))


@dataclass(frozen=True)
class Forecasts:
    """The whole library, the surest first; ``readings`` of seams and ``trimmed`` of units stand behind it. ``left`` of it are not worked
    out yet, with these hands: whoever asks again finds more."""

    asked: ForecastAsked
    blocks: list[Foretold]
    left: int
    readings: int
    trimmed: int
    tip_borne: Length = field(default_factory=lambda: Length.near(SEEN))
    side_borne: Length = field(default_factory=lambda: Length.near(EASED))


def own_hands(room: Workroom) -> tuple[OwnHands, int, int]:
    """Her seam and trimming as her records have them, rounded so that the same hands are the same; and on how many readings of each
    they rest. Without enough of them: steady hands, all true."""
    seams, trim = own_seams(room), habit_figure(room, Habit.TRIMMING)
    unsteady: list[tuple[Source, float]] = []
    seam = 0.0
    if seams is not None:
        figure = seams.figures[Habit.SEAM]
        seam = round(figure.mean if figure.off else 0.0, 4)
        share = round(figure.spread / figure.assumed, 2)
        unsteady += [(Source.SEAMS, share), (Source.ALONG, share)]
    off = 0.0
    if trim is not None and trim.sure != "open":
        off = round(trim.mean if trim.off else 0.0, 4)
        unsteady.append((Source.UNITS, round(trim.spread / trim.assumed, 2)))
    return (
        OwnHands(seam, off, tuple(unsteady)),
        seams.record.readings if seams else 0,
        trim.readings if trim else 0,
    )


@lru_cache(maxsize=128)
def _model(pattern: Pattern, allowance: Length) -> BlockModel:
    return model_of(block_geometry(layout_of(pattern), _SIZE), allowance)


@lru_cache(maxsize=16)
def _worked_out(allowance: Length, hands: OwnHands) -> dict[Pattern, Forecast]:  # noqa: ARG001
    """What was worked out with these hands, which others add to: no more arrangements than the library holds."""
    return {}


def _forecast(pattern: Pattern, allowance: Length, hands: OwnHands) -> Forecast:
    known = _worked_out(allowance, hands)
    if pattern not in known:
        known[pattern] = forecast(_model(pattern, allowance), hands)
    return known[pattern]


def _patterns(room: Workroom) -> list[tuple[str, Callable[[], Pattern]]]:
    found: list[tuple[str, Callable[[], Pattern]]] = [(k, lambda k=k: library_pattern(k)) for k in library_keys()]  # type: ignore[misc]
    find = find_in(room)
    for row in OwnBlock.objects.filter(workroom=room, deleted_at=None):
        found.append((str(row.pk), lambda row=row: pattern_from(row.pattern, find, str(row.pk))))  # type: ignore[misc]
    return found


def forecasts_of(room: Workroom, asked: ForecastAsked) -> Forecasts:
    """Those that cannot be sewn yet are left out."""
    hands, readings, trimmed = own_hands(room)
    record, known = _record(room), _worked_out(room.seam_allowance, hands)
    told, left, fresh, began = [], 0, 0, time.monotonic()
    for key, pattern in _patterns(room):
        try:
            one = pattern()
            if one not in known:
                # One at the least, so that whoever asks again gets on.
                if fresh and time.monotonic() - began > _AT_A_TIME:
                    left += 1
                    continue
                fresh += 1
            told.append(_foretold(room, key, one, hands, record, asked))
        except PiecingError:
            continue
    return Forecasts(asked, sorted(told, key=lambda f: (-f.worth, f.name)), left, readings, trimmed)


def _foretold(
    room: Workroom,
    key: str,
    pattern: Pattern,
    hands: OwnHands,
    record: QuilterRecord,
    asked: ForecastAsked,
    *,
    ways: bool = False,
) -> Foretold:
    rooms = block_rooms(pattern, asked.finished, room.seam_allowance, room.ruler_step, record, asked.school, ways=ways)
    try:
        needs = dict(cloth_of_block(pattern, asked.finished, room.seam_allowance, room.ruler_step))
    except PiecingError:
        needs = {}
    return Foretold(
        key, pattern.name, _forecast(pattern, room.seam_allowance, hands), rooms, enough_for(needs, asked.cloths)
    )


def _record(room: Workroom) -> QuilterRecord:
    """Her own, or that of steady hands; rounded, so that the same hands are the same."""
    record = record_for(room, room.seam_allowance) or steady_record(room.seam_allowance)
    return replace(
        record,
        take_up_mean=round(record.take_up_mean, 4),
        take_up_sd=round(record.take_up_sd, 5),
        cut_sd=round(record.cut_sd, 5),
        mean_sd=round(record.mean_sd, 5),
    )


def usual_asked(room: Workroom) -> ForecastAsked:
    """A block of a usual size, from the cloth on the shelf."""
    metric = Measure(room.measure) is Measure.MILLIMETRES
    return ForecastAsked(mm(300) if metric else inches(12), cloths=cloth_on_shelf(room))


def work_out_behind() -> None:
    """For a thread of the server: the library is worked out once before anybody asks for it, one arrangement after another with rests
    between, so that whoever asks for something else meanwhile is not held up."""
    time.sleep(_AFTER_START)
    # What goes wrong here goes wrong again where it is asked for, and is told there.
    with suppress(DatabaseError):
        room = current_workroom()
        (hands, *_), record, asked = own_hands(room), _record(room), usual_asked(room)
        for key, pattern in _patterns(room):
            began = time.monotonic()
            with suppress(PiecingError):
                _foretold(room, key, pattern(), hands, record, asked)
            time.sleep(_RESTS * (time.monotonic() - began))
    connection.close()


def helps_of(room: Workroom, key: str, asked: ForecastAsked) -> tuple[Foretold, tuple[Help, ...]]:
    """Raises ``NotHere``."""
    hands, _, _ = own_hands(room)
    for known, pattern in _patterns(room):
        if known == key:
            one = pattern()
            told = _foretold(room, key, one, hands, _record(room), asked, ways=True)
            return told, helps(_model(one, room.seam_allowance), hands)
    raise NotHere("This arrangement is not in the library.")
