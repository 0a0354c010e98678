from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from common.wire import LengthField, LengthSerializer, SaidField, length_out
from piecing.diagnosis import Cause, Contribution, Status, Verdict, sure_in_words
from piecing.lengths import Length, Style
from readings.models import KINDS

CAUSES = [(c.value, c.name.lower()) for c in Cause]
STATUSES = [(s.value, s.name.lower()) for s in Status]


@extend_schema_field(LengthSerializer)
class EstimateField(serializers.Field):  # type: ignore[type-arg]
    """An estimate in inches, set as the quilter reads lengths."""

    def __init__(self, **kwargs: Any) -> None:
        kwargs["read_only"] = True
        super().__init__(**kwargs)

    def to_representation(self, value: float) -> dict[str, Any]:
        return length_out(Length.near(value), self.context.get("style") or Style())


class CauseEstimateSerializer(serializers.Serializer[Any]):
    """A cause's size, the clause that says it, and the readings that speak of it directly."""

    cause = serializers.ChoiceField(choices=CAUSES, source="estimate.cause")
    said = SaidField()
    grounds = SaidField()
    mean = EstimateField(source="estimate.mean")
    low = EstimateField(source="estimate.low")
    high = EstimateField(source="estimate.high")
    sd = EstimateField(source="estimate.sd")


class ContributionSerializer(serializers.Serializer[Any]):
    """What a cause adds to the row. ``at``, ``from_at`` and ``to_at`` place it on a scale from -1 to 1."""

    cause = serializers.ChoiceField(choices=CAUSES)
    mean = EstimateField()
    low = EstimateField()
    high = EstimateField()
    share_percent = serializers.SerializerMethodField()
    leads_percent = serializers.SerializerMethodField()
    at = serializers.SerializerMethodField()
    from_at = serializers.SerializerMethodField()
    to_at = serializers.SerializerMethodField()

    def get_share_percent(self, c: Any) -> int | None:
        return None if c.share is None else round(100 * c.share)

    def get_leads_percent(self, c: Contribution) -> int:
        return round(100 * c.leads)

    def _place(self, value: float) -> float:
        return float(round(value / self.context["reach"], 4))

    def get_at(self, c: Any) -> float:
        return self._place(c.mean)

    def get_from_at(self, c: Any) -> float:
        return self._place(c.low)

    def get_to_at(self, c: Any) -> float:
        return self._place(c.high)


class NextReadingSerializer(serializers.Serializer[Any]):
    kind = serializers.ChoiceField(choices=KINDS)
    said = SaidField()
    between = serializers.ListField(child=serializers.ChoiceField(choices=CAUSES))
    doubt_now = EstimateField()
    doubt_after = EstimateField()


class VerdictSerializer(serializers.Serializer[Any]):
    status = serializers.ChoiceField(choices=STATUSES)
    row_units = serializers.IntegerField()
    said = SaidField()
    deviation = EstimateField()
    measured = serializers.SerializerMethodField()
    expected = EstimateField()
    expected_sd = EstimateField()
    unexplained = EstimateField(allow_null=True)
    contributions = ContributionSerializer(many=True)
    leading = serializers.ChoiceField(choices=CAUSES, allow_null=True)
    beside = serializers.ChoiceField(choices=CAUSES, allow_null=True)
    sure_percent = serializers.SerializerMethodField()
    sure_words = serializers.SerializerMethodField()
    next_reading = NextReadingSerializer(allow_null=True)

    def get_measured(self, v: Any) -> bool:
        return v.observed is not None

    def get_sure_percent(self, v: Verdict) -> int:
        return min(99, round(100 * v.sure))

    def get_sure_words(self, v: Any) -> str:
        return sure_in_words(v.sure)


class AloneSerializer(serializers.Serializer[Any]):
    cause = serializers.ChoiceField(choices=CAUSES)
    reads = EstimateField()


class EvidenceSerializer(serializers.Serializer[Any]):
    """One reading: as it should be, as it is, as each cause alone and all together would make it."""

    id = serializers.CharField(source="reading.key")
    kind = serializers.ChoiceField(choices=KINDS, source="reading.kind")
    row_units = serializers.IntegerField(source="reading.row_units", allow_null=True)
    value = EstimateField()
    nominal = EstimateField()
    together = EstimateField()
    left_over = EstimateField()
    apart = serializers.BooleanField()
    alone = serializers.SerializerMethodField()

    @extend_schema_field(AloneSerializer(many=True))
    def get_alone(self, e: Any) -> list[dict[str, Any]]:
        rows = [{"cause": c, "reads": value} for c, value in e.alone]
        return list(AloneSerializer(rows, many=True, context=self.context).data)


class AdviceSerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    title = SaidField()
    how = SaidField()
    row_becomes = LengthField(allow_null=True)
    possible = serializers.BooleanField()
    why_not = SaidField(allow_null=True)


class DiagnosisSerializer(serializers.Serializer[Any]):
    row_target = LengthField()
    estimates = CauseEstimateSerializer(many=True)
    verdict = VerdictSerializer()
    evidence = EvidenceSerializer(many=True)
    this_row = AdviceSerializer(many=True)
    the_rest = AdviceSerializer(many=True)
