"""What crosses to the browser by the quick way is what the usual one says."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from django.test import SimpleTestCase
from rest_framework import serializers

from api.wire import FlatSerializer
from blocks.selectors import viewed
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
                view = viewed(library_pattern(key), inches(9), project)
                self.same(SpotSerializer, view.spots, style)
                self.same(LyingSerializer, view.lying, style)
                self.same(TrackSerializer, (*view.sizes.columns, *view.sizes.rows), style)
