"""What the fields of blocks and quilts take."""

from __future__ import annotations

import re
from collections.abc import Callable
from fractions import Fraction
from json import loads
from typing import Any

from rest_framework import serializers

from api.patches import Reader
from api.readers import length_reader, maybe_length_reader, one_of_reader, whole_reader, yes_no_reader
from piecing.blocks.file_format import Find, content_data, content_from, pattern_data, pattern_from
from piecing.blocks.sizing import check_finished
from piecing.errors import CountOutOfRange, PatternNotUnderstood, PiecingError, QuiltImpossible, UnknownChoice
from piecing.joining.order import Order
from piecing.lengths import Length, Measure
from piecing.planning.schools import School
from piecing.quilts.by_rule import SashStrip
from piecing.quilts.choices import BackingWay, Corners
from piecing.quilts.pieced import RowFit, Runs
from piecing.quilts.sizes import MOST_BORDERS
from piecing.quilts.top import check_top_length
from piecing.units import KINDS, methods_of

from .models import LYINGS, ORDERS, SETTINGS, SPREADS, Block
from .wire import ColourwayWire, PatternWire, PiecedWire, WishesWire

__all__ = [
    "MOST_COLOURWAYS",
    "as_asked",
    "block_readers",
    "quilt_readers",
    "sampler_readers",
    "sashing_readers",
    "stock_reader",
    "top_readers",
]

MOST_COLOURWAYS = 40
_MOST_EACH = 2_000
_MOST_SEAMS = 3_000
_MOST_PLACES = 400
"""Where a top is measured: sixty rows, and six places of each border, with what earlier plans left."""


def _nothing(_key: str) -> None:
    return None


def block_readers(measure: Measure, find: Find, key: str) -> dict[str, Reader]:
    def read_finished(value: Any) -> Length:
        size: Length = length_reader(measure)(value)
        check_finished(size)
        return size

    return {
        "pattern": Reader(lambda v: pattern_data(pattern_from(v, find, key)), PatternWire),
        "finished": Reader(read_finished),
        "colourways": Reader(_colourways, lambda: ColourwayWire(many=True)),
        "order": Reader(_order, lambda: serializers.ChoiceField(choices=ORDERS, allow_blank=True)),
        "pressing": Reader(_pressing, WishesWire),
        "sewn_open": Reader(_seam_names, lambda: serializers.ListField(child=serializers.CharField())),
    }


def as_asked(block: Block, order: str | None, wishes: str | None) -> None:
    """The block as it would be joined in this order and pressed by these wishes, JSON; None leaves what is kept. Nothing is saved.
    Raises what cannot be read."""
    if order is not None:
        block.order = _order(order)
    if wishes is not None:
        try:
            block.pressing = _pressing(loads(wishes))
        except (ValueError, RecursionError):
            raise PatternNotUnderstood("Wishes for pressing are given by name.") from None


class BorderWire(serializers.Serializer[Any]):
    width = serializers.CharField()
    fabric = serializers.CharField()
    corners = serializers.ChoiceField(choices=[c.value for c in Corners])
    corner_fabric = serializers.CharField()
    pieced = PiecedWire(required=False, allow_null=True)


class TopLengthWire(serializers.Serializer[Any]):
    """What the top measured at one place, and what was planned there when it did."""

    value = serializers.CharField()
    planned = serializers.CharField()


class MakingWire(serializers.Serializer[Any]):
    method = serializers.CharField(allow_blank=True)
    school = serializers.CharField()


def _order(value: Any) -> str:
    return "" if value in (None, "") else str(one_of_reader([o.value for o in Order], "order of joining")(value))


def _role(value: Any) -> str:
    if not re.fullmatch("[a-z]", str(value)):
        raise UnknownChoice("A fabric is chosen by its letter.")
    return str(value)


def _colourways(value: Any) -> list[dict[str, Any]]:
    if not isinstance(value, list) or not 1 <= len(value) <= MOST_COLOURWAYS:
        raise CountOutOfRange("A block has 1 to {most} colourways.", most=MOST_COLOURWAYS)
    found = []
    for way in value:
        if not isinstance(way, dict) or not isinstance(way.get("roles", {}), dict):
            raise PatternNotUnderstood("A colourway is a count and roles by role.")
        count = whole_reader(_MOST_EACH, "The number of blocks", least=0)(way.get("count", 1))
        roles = {_role(a): _role(b) for a, b in way.get("roles", {}).items() if a != b}
        found.append({"count": count, "roles": roles})
    return found


def _pressing(value: Any) -> dict[str, Any]:
    """Wishes for the pressing map; what is not named is as usual."""
    if not isinstance(value, dict):
        raise PatternNotUnderstood("Wishes for pressing are given by name.")
    layers = value.get("layers")
    return {
        "to_dark": yes_no_reader(value.get("to_dark", True)),
        "from_bulk": yes_no_reader(value.get("from_bulk", True)),
        "layers": None if layers in (None, "") else whole_reader(40, "The number of layers", least=3)(layers),
        "repeats": yes_no_reader(value.get("repeats", False)),
        "spun": _points(value.get("spun", [])),
    }


def _seam_names(value: Any) -> list[str]:
    if not isinstance(value, list) or len(value) > _MOST_SEAMS or not all(isinstance(v, str) for v in value):
        raise PatternNotUnderstood("Seams pressed open are a list of their names.")
    return sorted({v[:80] for v in value})


def _points(value: Any) -> list[list[float]]:
    good = isinstance(value, list) and len(value) <= 600 and all(isinstance(p, list) and len(p) == 2 for p in value)
    if not good or not all(isinstance(x, int | float) and abs(x) < 1e6 for p in value for x in p):
        raise PatternNotUnderstood("Crossings to spin are a list of points.")
    return [[float(x) for x in p] for p in value]


def sampler_readers(measure: Measure) -> dict[str, Reader]:
    """Of blocks of several sizes laid by rule."""
    length, number = length_reader(measure), whole_reader(_MOST_EACH, "How many of each block", least=0)
    return {
        "numbers": Reader(lambda value: {str(k): number(n) for k, n in value.items()}),
        "width": length,
        "gap": length,
    }


def sashing_readers(measure: Measure) -> dict[str, Reader]:
    """Of sashes of several strips laid by rule."""
    length, of_quilt = length_reader(measure), quilt_readers(measure)
    strips = Reader(lambda value: [SashStrip(length(s["width"]), s["fabric"]) for s in value])
    return {"columns": of_quilt["columns"], "rows": of_quilt["rows"], "across": strips, "down": strips}


def quilt_readers(measure: Measure, find: Find = _nothing) -> dict[str, Reader]:
    length = length_reader(measure)
    return {
        "columns": whole_reader(60, "Blocks across"),
        "rows": whole_reader(60, "Blocks down"),
        "setting": one_of_reader(SETTINGS, "setting"),
        "spread": one_of_reader(SPREADS, "way of spreading the blocks"),
        "every_second": one_of_reader(LYINGS, "way of lying"),
        **dict.fromkeys(
            (
                "sash",
                "binding_strip",
                "backing_over",
                "usable",
                "oversize",
                "sleeve",
                "backing_repeat",
                "backing_repeat_across",
            ),
            length,
        ),
        **dict.fromkeys(("sash_round", "cornerstones", "begun", "half_blocks"), yes_no_reader),
        "stagger": Reader(_stagger),
        "backing_way": one_of_reader([w.value for w in BackingWay], "way of piecing a backing"),
        **dict.fromkeys(
            ("sash_fabric", "cornerstone_fabric", "setting_fabric", "binding_fabric", "backing_fabric"), Reader(_role)
        ),
        "borders": Reader(_borders(length, find), lambda: BorderWire(many=True)),
        "makings": Reader(_makings, lambda: serializers.DictField(child=MakingWire())),
        "top": Reader(_top(length), lambda: serializers.DictField(child=TopLengthWire())),
        "spare_percent": whole_reader(100, "Spares in a hundred", least=0),
        "spare_number": whole_reader(1000, "The number of spares", least=0),
    }


def _stagger(value: Any) -> str:
    text = str(value).strip()
    found = re.fullmatch(r"([0-9]{1,3})\s*/\s*([1-9][0-9]{0,2})", text)
    share = Fraction(int(found[1]), int(found[2])) if found else Fraction(0)
    if not 0 < share < 1:
        raise QuiltImpossible("Columns lie lower by a part of the block, such as 1/2 or 1/3.", field="stagger")
    return str(share)


def _borders(length: Reader, find: Find) -> Callable[[Any], list[dict[str, Any]]]:
    def read(value: Any) -> list[dict[str, Any]]:
        if not isinstance(value, list) or len(value) > MOST_BORDERS:
            raise QuiltImpossible("A quilt has up to {most} borders.", most=MOST_BORDERS)
        found = []
        for n, b in enumerate(value):
            if not isinstance(b, dict):
                raise QuiltImpossible("A border has a width, a fabric and its corners.")
            width: Length = length(b.get("width", ""))
            corners = one_of_reader([c.value for c in Corners], "kind of corner")(b.get("corners", "overlapped"))
            fabric = _role(b.get("fabric", "a"))
            corner = str(b.get("corner_fabric") or fabric)
            border: dict[str, Any] = {
                "width": str(width.rational),
                "fabric": fabric,
                "corners": corners,
                "corner_fabric": _role(corner),
            }
            if b.get("pieced"):
                try:
                    border["pieced"] = _pieced_border(b["pieced"], find)
                except PiecingError as refusal:
                    raise refusal.within(f"borders.{n}.pieced") from None
            found.append(border)
        return found

    return read


def _top(length: Reader) -> Callable[[Any], dict[str, dict[str, str]]]:
    def top(value: Any) -> dict[str, dict[str, str]]:
        if (
            not isinstance(value, dict)
            or len(value) > _MOST_PLACES
            or not all(isinstance(v, dict) for v in value.values())
        ):
            raise QuiltImpossible(
                "What a top measures is given by places, each with what it measured and what was planned."
            )
        read = {
            str(place)[:80]: {f: length(found.get(f, "")) for f in ("value", "planned")}
            for place, found in value.items()
        }
        for found in read.values():
            check_top_length(found["value"])
        return {place: {f: str(size.rational) for f, size in found.items()} for place, found in read.items()}

    return top


def top_readers(measure: Measure) -> dict[str, Reader]:
    """Of one length of a top; nothing typed takes it away."""
    maybe = maybe_length_reader(measure)

    def value(typed: Any) -> Length | None:
        found: Length | None = maybe(typed)
        if found is not None:
            check_top_length(found)
        return found

    return {"value": Reader(value)}


def _pieced_border(value: Any, find: Find) -> dict[str, Any]:
    if not isinstance(value, dict) or not isinstance(value.get("units"), list) or not 1 <= len(value["units"]) <= 4:
        raise QuiltImpossible("A pieced border is made of 1 to 4 units by turns.", field="units")
    corner = value.get("corner")
    turns = {f: whole_reader(3, "Quarter turns", least=0)(value.get(f, 0)) for f in ("turn", "corner_turn")}
    return {
        "units": [content_data(content_from(u, find, field=f"units.{n}")) for n, u in enumerate(value["units"])],
        "corner": content_data(content_from(corner, find, field="corner")) if corner else None,
        **turns,
        "fit": one_of_reader([f.value for f in RowFit], "way of fitting")(value.get("fit", "spacer")),
        "runs": one_of_reader([r.value for r in Runs], "way of running")(value.get("runs", "round")),
    }


def _makings(value: Any) -> dict[str, dict[str, str]]:
    if not isinstance(value, dict):
        raise UnknownChoice("Ways of making are given by kind.")
    found = {}
    for kind, making in value.items():
        one_of_reader(list(KINDS), "kind of unit")(kind)
        method = str(making.get("method", "")) if isinstance(making, dict) else ""
        school = str(making.get("school", "little")) if isinstance(making, dict) else ""
        if method:
            one_of_reader([m.name for m in methods_of(kind)], "way of making this unit")(method)
        one_of_reader([s.value for s in School], "school")(school)
        found[kind] = {"method": method, "school": school}
    return found


def stock_reader(value: Any) -> dict[str, int]:
    """Units there are of each fabric, or blocks there are of each pair of two."""
    if not isinstance(value, dict) or len(value) > MOST_COLOURWAYS:
        raise UnknownChoice("Units are given by fabric.", field="stock")
    return {_scrap(f): whole_reader(10_000, "The number of units", least=0)(n) for f, n in value.items()}


def _scrap(value: Any) -> str:
    letters = [_role(f) for f in value] if isinstance(value, str) else []
    if not 1 <= len(letters) <= 2 or len(set(letters)) < len(letters):
        raise UnknownChoice("A scrap is of one fabric, or a pair of two different ones.", field="stock")
    return "".join(letters)
