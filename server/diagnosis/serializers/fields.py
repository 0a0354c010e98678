"""Figures of a diagnosis as the quilter reads them."""

from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.wire import LengthSerializer, length_out
from piecing.diagnosis.causes import Cause
from piecing.diagnosis.said import beside_said
from piecing.diagnosis.verdict import Status
from piecing.lengths import Length, Style

STATUSES = [(s.value, s.name.lower()) for s in Status]


CAUSES = [(c.value, c.name.lower()) for c in Cause]


def percent(share: float) -> int:
    return round(100 * share)


@extend_schema_field(LengthSerializer)
class InchesField(serializers.Field):  # type: ignore[type-arg]
    """A figure in inches, set as the quilter reads lengths."""

    def __init__(self, **kwargs: Any) -> None:
        kwargs["read_only"] = True
        super().__init__(**kwargs)

    def to_representation(self, value: float) -> dict[str, Any]:
        return length_out(Length.near(value), self.context.get("style") or Style())


@extend_schema_field(str)
class BesideField(serializers.Field):  # type: ignore[type-arg]
    """A figure in inches beyond what it should be, in words: so much over, or short."""

    def __init__(self, **kwargs: Any) -> None:
        super().__init__(read_only=True, **kwargs)

    def to_representation(self, value: float) -> str:
        return beside_said(value).text(self.context.get("style") or Style())


class PointField(serializers.ListField):
    """x and y of a drawing: inches, y downward."""

    child = serializers.FloatField()

    def to_representation(self, data: Any) -> list[float]:
        return [round(float(data[0]), 4), round(-float(data[1]), 4)]
