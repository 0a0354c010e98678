"""Every word for a code that crosses the wire, from the one place in the core where each is written."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from piecing.cutting.plan import GOAL_WORDS
from piecing.cutting.stock import CLOTH_WORDS
from piecing.diagnosis.reading_kinds import NEEDS_RAW, READING_WORDS
from piecing.drawings.ladder import DIMENSION_WORDS, RUNG_WORDS
from piecing.handling.marking import MARKING_WORDS
from piecing.handling.spoiled import WHY_WORDS
from piecing.joining.order import ORDER_WORDS
from piecing.planning.schools import SCHOOL_WORDS
from piecing.timing import STAGE_WORDS
from piecing.units import KINDS, METHODS
from piecing.units.method import CUT_WORDS

__all__ = ["WordsView"]


class NamedSerializer(serializers.Serializer[Any]):
    """``name`` is what one calls it, ``line`` what it is in a line."""

    name = serializers.CharField()
    line = serializers.CharField()


class KindWordsSerializer(NamedSerializer):
    many = serializers.CharField()  # type: ignore[assignment]


class ReadingWordsSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    on = serializers.CharField()
    where = serializers.CharField(allow_blank=True)
    before_trimming = serializers.BooleanField()
    plain = serializers.CharField(allow_blank=True)


class ClothWordsSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()


def _by_code(child: serializers.Field[Any, Any, Any, Any]) -> serializers.DictField:
    return serializers.DictField(child=child)


class WordsSerializer(serializers.Serializer[Any]):
    """Words by code; those of methods by "kind/method"."""

    kinds = _by_code(KindWordsSerializer())
    methods = _by_code(NamedSerializer())
    schools = _by_code(NamedSerializer())
    cuts = _by_code(serializers.CharField())
    readings = _by_code(ReadingWordsSerializer())
    cloths = _by_code(ClothWordsSerializer())
    goals = _by_code(serializers.CharField())
    orders = _by_code(NamedSerializer())
    markings = _by_code(NamedSerializer())
    rungs = _by_code(serializers.CharField())
    dimensions = _by_code(serializers.CharField())
    reasons = _by_code(serializers.CharField())
    work = _by_code(serializers.CharField())


def _name_words(words: dict[Any, tuple[str, str]]) -> dict[str, dict[str, str]]:
    return {code.value: {"name": name, "line": line} for code, (name, line) in words.items()}


def all_words() -> dict[str, Any]:
    return {
        "kinds": {k.name: {"name": k.title, "many": k.many, "line": k.line} for k in KINDS.values()},
        "methods": {f"{m.kind}/{m.name}": {"name": m.title, "line": m.line} for m in METHODS},
        "schools": _name_words(SCHOOL_WORDS),
        "cuts": CUT_WORDS | {name: word for m in METHODS for name, word in m.size_words.items()},
        "readings": {
            k.value: {
                "name": w.title,
                "on": w.on.value,
                "where": w.where,
                "before_trimming": k in NEEDS_RAW,
                "plain": w.plain,
            }
            for k, w in READING_WORDS.items()
        },
        "cloths": {k.value: {"name": name} for k, name in CLOTH_WORDS.items()},
        "goals": {g.value: words for g, words in GOAL_WORDS.items()},
        "orders": _name_words(ORDER_WORDS),
        "markings": _name_words(MARKING_WORDS),
        "rungs": RUNG_WORDS,
        "dimensions": DIMENSION_WORDS,
        "reasons": {w.value: words for w, words in WHY_WORDS.items()},
        "work": {s.value: words for s, words in STAGE_WORDS.items()},
    }


class WordsView(APIView):
    """What every kind, method, school, cause and reading is called."""

    @extend_schema(operation_id="words", responses=WordsSerializer)
    def get(self, _request: Request) -> Response:
        return Response(WordsSerializer(all_words()).data)
