"""What the fields of blocks and quilts take."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from rest_framework import serializers

from api.patches import Reader
from api.readers import length_reader, one_of_reader, whole_reader, yes_no_reader
from piecing.blocks.file_format import Find, pattern_data, pattern_from
from piecing.blocks.sizing import check_finished
from piecing.errors import CountOutOfRange, PatternNotUnderstood, QuiltImpossible, UnknownChoice
from piecing.joining.order import Order
from piecing.lengths import Length, Measure
from piecing.planning.schools import School
from piecing.quilts.choices import Corners
from piecing.units import KINDS, methods_of

from .models import LYINGS, ORDERS, SETTINGS, SPREADS
from .wire import ColourwayWire, PatternWire, WishesWire

__all__ = ["MOST_COLOURWAYS", "block_readers", "quilt_readers", "stock_reader"]

MOST_COLOURWAYS = 40
_MOST_EACH = 2_000
_MOST_SEAMS = 3_000


def block_readers(measure: Measure, find: Find, key: str) -> dict[str, Reader]:
    def finished(value: Any) -> Length:
        size: Length = length_reader(measure)(value)
        check_finished(size)
        return size

    return {
        "pattern": Reader(lambda v: pattern_data(pattern_from(v, find, key)), PatternWire),
        "finished": Reader(finished),
        "colourways": Reader(_colourways, lambda: ColourwayWire(many=True)),
        "order": Reader(_order, lambda: serializers.ChoiceField(choices=ORDERS, allow_blank=True)),
        "pressing": Reader(_pressing, WishesWire),
        "sewn_open": Reader(_seam_names, lambda: serializers.ListField(child=serializers.CharField())),
    }


class BorderWire(serializers.Serializer[Any]):
    width = serializers.CharField()
    fabric = serializers.CharField()
    corners = serializers.ChoiceField(choices=[c.value for c in Corners])
    corner_fabric = serializers.CharField()


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


def quilt_readers(measure: Measure) -> dict[str, Reader]:
    length = length_reader(measure)
    return {
        "columns": whole_reader(60, "Blocks across"),
        "rows": whole_reader(60, "Blocks down"),
        "setting": one_of_reader([s for s, _ in SETTINGS], "setting"),
        "spread": one_of_reader([s for s, _ in SPREADS], "way of spreading the blocks"),
        "every_second": one_of_reader([s for s, _ in LYINGS], "way of lying"),
        **dict.fromkeys(("sash", "binding_strip", "backing_over", "usable", "oversize"), length),
        **dict.fromkeys(("sash_round", "cornerstones", "begun"), yes_no_reader),
        **dict.fromkeys(
            ("sash_fabric", "cornerstone_fabric", "setting_fabric", "binding_fabric", "backing_fabric"), Reader(_role)
        ),
        "borders": Reader(_borders(length), lambda: BorderWire(many=True)),
        "makings": Reader(_makings, lambda: serializers.DictField(child=MakingWire())),
        "spare_percent": whole_reader(100, "Spares in a hundred", least=0),
        "spare_number": whole_reader(1000, "The number of spares", least=0),
    }


def _borders(length: Reader) -> Callable[[Any], list[dict[str, str]]]:
    def read(value: Any) -> list[dict[str, str]]:
        if not isinstance(value, list) or len(value) > 6:
            raise QuiltImpossible("A quilt has up to 6 borders.")
        found = []
        for b in value:
            if not isinstance(b, dict):
                raise QuiltImpossible("A border has a width, a fabric and its corners.")
            width: Length = length(b.get("width", ""))
            corners = one_of_reader([c.value for c in Corners], "kind of corner")(b.get("corners", "overlapped"))
            fabric = _role(b.get("fabric", "a"))
            corner = str(b.get("corner_fabric") or fabric)
            found.append(
                {"width": str(width.rational), "fabric": fabric, "corners": corners, "corner_fabric": _role(corner)}
            )
        return found

    return read


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
