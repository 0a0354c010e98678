"""What crosses to the browser by the quick way is what the usual one says."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from django.test import SimpleTestCase
from rest_framework import serializers

from api.wire import FlatSerializer, LengthAnswerField, told_by
from blocks.selectors import layout_view
from blocks.serializers import LyingSerializer, SpotSerializer, TrackSerializer
from piecing.blocks.library import library_keys, library_pattern
from piecing.lengths import Measure, Style, inches
from projects.models import Project


class FlatTest(SimpleTestCase):
    def same(self, wire: type[FlatSerializer], values: Iterable[Any], style: Style) -> None:
        for value in values:
            quick = wire(value, context={"style": style})
            self.assertEqual(dict(quick.data), dict(serializers.Serializer.to_representation(quick, value)))

    def test_spots_and_tracks_of_the_library_are_told_as_usual(self) -> None:
        project = Project(seam_allowance=inches("1/4"), ruler_step=inches("1/8"))
        for style in (Style(), Style(measure=Measure.MILLIMETRES)):
            for key in library_keys()[::4]:
                view = layout_view(library_pattern(key), inches(9), project)
                self.same(SpotSerializer, view.spots, style)
                self.same(LyingSerializer, view.lying, style)
                self.same(TrackSerializer, (*view.sizes.columns, *view.sizes.rows), style)


class _SizeSerializer(serializers.Serializer[Any]):
    size = LengthAnswerField()
    by = serializers.SerializerMethodField()

    def get_by(self, _value: Any) -> str:
        return str(self.context["by"])


class ToldByTest(SimpleTestCase):
    """One serializer serves every answer of a thread: nothing of one answer stays for the next."""

    def test_each_answer_has_its_own_style_and_context(self) -> None:
        size = {"size": inches("5/2")}
        first = told_by(_SizeSerializer, size, {"style": Style(), "by": "a table"})
        other = told_by(_SizeSerializer, size, {"style": Style(Measure.MILLIMETRES), "by": "a tablet"})
        self.assertEqual((first["size"]["text"], first["by"]), ("2 1/2", "a table"))
        self.assertEqual((other["size"]["text"], other["by"]), ("63.5 mm", "a tablet"))

    def test_what_failed_leaves_nothing_behind(self) -> None:
        with self.assertRaises(AttributeError):
            told_by(_SizeSerializer, {"size": "no length"}, {"by": "a table"})
        with self.assertRaises(KeyError):
            told_by(_SizeSerializer, {"size": inches("5/2")}, {"style": Style()})
