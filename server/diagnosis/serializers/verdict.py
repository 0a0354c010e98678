"""What is concluded from readings, what is asked next, and what mends it."""

from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.wire import MessageField
from measuring.models import KINDS
from piecing.diagnosis.names import place_said
from piecing.diagnosis.said import cause_of_whom
from piecing.diagnosis.verdict import Status

from ..models import TURNED_OUT
from .fields import STATUSES, InchesField, percent
from .places import ParameterSerializer


class SeenFaultSerializer(serializers.Serializer[Any]):
    number = serializers.IntegerField()
    key = serializers.CharField(source="feature.key")
    kind = serializers.CharField(source="feature.kind.value")
    said = MessageField()
    eased = serializers.BooleanField()


class LeadSerializer(serializers.Serializer[Any]):
    """``where`` names the seam, seams or unit of a cause that only these have."""

    parameter = ParameterSerializer()
    where = serializers.SerializerMethodField()
    said = MessageField()
    mean = InchesField()
    low = InchesField()
    high = InchesField()
    measured = serializers.BooleanField()
    leads_percent = serializers.SerializerMethodField()
    at = serializers.SerializerMethodField()
    from_at = serializers.SerializerMethodField()
    to_at = serializers.SerializerMethodField()

    def get_where(self, lead: Any) -> str:
        return place_said(self.context["model"], lead.parameter)

    def _place(self, inches: float) -> float:
        """On the picture's scale from -1 to 1."""
        return float(round(inches / self.context["reach"], 4))

    def get_at(self, lead: Any) -> float:
        return self._place(lead.mean)

    def get_from_at(self, lead: Any) -> float:
        return self._place(lead.low)

    def get_to_at(self, lead: Any) -> float:
        return self._place(lead.high)

    def get_leads_percent(self, lead: Any) -> int:
        return percent(lead.leads)


class PartSerializer(serializers.Serializer[Any]):
    key = serializers.CharField()
    name = serializers.CharField()
    adds = InchesField()


class ShareSerializer(serializers.Serializer[Any]):
    """One figure of the block taken apart into what each cause adds to it."""

    feature = serializers.CharField()
    name = MessageField()
    whole = InchesField()
    low = InchesField()
    high = InchesField()
    rest = InchesField()
    parts = serializers.SerializerMethodField()

    @extend_schema_field(PartSerializer(many=True))
    def get_parts(self, share: Any) -> Any:
        model = self.context["model"]
        parts = [
            {
                "key": p.key,
                "name": cause_of_whom(model, p).text(),
                "adds": by,
            }
            for p, by in share.parts
        ]
        return PartSerializer(parts, many=True, context=self.context).data


class OutcomeSerializer(serializers.Serializer[Any]):
    said = MessageField()
    sure_percent = serializers.SerializerMethodField()
    chance_percent = serializers.SerializerMethodField()

    def get_sure_percent(self, o: Any) -> int:
        return percent(o.sure)

    def get_chance_percent(self, o: Any) -> int:
        return percent(o.chance)


class AskedSerializer(serializers.Serializer[Any]):
    """A reading to take: its fields as ``put_reading`` takes them. ``needed`` whether it could change what to do."""

    kind = serializers.ChoiceField(choices=KINDS, source="reading.kind.value")
    batch = serializers.CharField(source="reading.batch")
    at_unit = serializers.CharField(source="reading.unit")
    corner = serializers.CharField(source="reading.corner")
    seam = serializers.CharField(source="reading.seam")
    spot = serializers.CharField(source="reading.spot")
    feature = serializers.CharField(source="reading.feature")
    said = MessageField()
    needed = serializers.BooleanField()
    now_percent = serializers.SerializerMethodField()
    after_percent = serializers.SerializerMethodField()
    outcomes = OutcomeSerializer(many=True)

    def get_now_percent(self, n: Any) -> int:
        return percent(n.sure_now)

    def get_after_percent(self, n: Any) -> int:
        return percent(n.sure_after)


class SeenSerializer(serializers.Serializer[Any]):
    """A mistake that only the eye finds."""

    code = serializers.CharField()
    said = MessageField()
    why = MessageField()
    noticed = serializers.BooleanField()


class RemedySerializer(serializers.Serializer[Any]):
    code = serializers.CharField()
    title = MessageField()
    how = MessageField()
    effect = MessageField()
    risk = MessageField()
    minutes = serializers.IntegerField()
    pieces = MessageField(allow_null=True)
    why_not = MessageField(allow_null=True)
    possible = serializers.BooleanField()
    unpicks = serializers.BooleanField()
    stock = serializers.SerializerMethodField()
    can_try = serializers.SerializerMethodField()
    left = serializers.SerializerMethodField()
    quilt_minutes = serializers.IntegerField(allow_null=True)
    faults = serializers.ListField(child=serializers.IntegerField())

    def get_left(self, r: Any) -> str:
        """Faults left on the mean, in words; empty where nothing is promised."""
        if r.promised is None:
            return ""
        if r.none_left:
            return "likely no fault is left"
        about = max(1, round(r.promised))
        return "one fault may be left" if about == 1 else f"about {about} faults are left"

    def get_stock(self, r: Any) -> str:
        said = self.context.get("stock", {}).get(r.code)
        return "" if said is None else str(said.text(self.context["style"]))

    def get_can_try(self, r: Any) -> bool:
        return r.change is not None and r.change.is_drawn and r.possible


class TermSerializer(serializers.Serializer[Any]):
    key = serializers.CharField(source="parameter.key")
    said = MessageField()
    times = serializers.FloatField()
    adds = InchesField()


class WorkingSerializer(serializers.Serializer[Any]):
    said = MessageField()
    equation = serializers.CharField()
    section = serializers.CharField()
    read = InchesField()
    nominal = InchesField()
    terms = TermSerializer(many=True)
    own = InchesField()
    fitted = InchesField()
    left_over = InchesField()
    odd = serializers.BooleanField()


class VerdictSerializer(serializers.Serializer[Any]):
    """``said`` is the headline, ``why`` one sentence of evidence."""

    status = serializers.ChoiceField(choices=STATUSES)
    said = MessageField()
    why = MessageField()
    code = serializers.CharField(allow_blank=True)
    sure_percent = serializers.SerializerMethodField()
    sure_words = serializers.CharField()
    leading = ParameterSerializer(allow_null=True)
    beside = ParameterSerializer(allow_null=True)
    beside_said = serializers.SerializerMethodField()
    leads = LeadSerializer(many=True)

    def get_sure_percent(self, v: Any) -> int:
        return min(99, percent(v.sure))

    def get_beside_said(self, v: Any) -> str:
        """A second cause that is sure too; empty when the headline names it already."""
        if v.beside is None or v.status is Status.SEVERAL:
            return ""
        said = next((x.said for x in v.leads if x.parameter == v.beside), None)
        return "" if said is None else str(said.text(self.context["style"]))


class SavedSaidSerializer(serializers.Serializer[Any]):
    status = serializers.ChoiceField(choices=STATUSES)
    headline = serializers.SerializerMethodField()
    sure = serializers.FloatField()
    leading = serializers.CharField(allow_blank=True)
    causes = serializers.ListField(child=serializers.CharField())
    readings = serializers.ListField(child=serializers.CharField())
    faults = serializers.ListField(child=serializers.CharField())
    this_block = serializers.ListField(child=serializers.CharField())
    the_batch = serializers.ListField(child=serializers.CharField())

    def get_headline(self, said: Any) -> str:
        """Diagnoses kept before headlines were said have their first cause."""
        return str(said.get("headline") or next(iter(said.get("causes", [])), ""))


class SavedSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField(source="pk")
    saved_at = serializers.DateTimeField()
    said = SavedSaidSerializer()
    turned_out = serializers.ChoiceField(choices=TURNED_OUT, allow_blank=True)
    later = serializers.CharField(allow_blank=True)


class ScatterSerializer(serializers.Serializer[Any]):
    """How much more or less than steady hands these vary, by where."""

    where = serializers.CharField()
    times = serializers.FloatField()
