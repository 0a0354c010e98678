"""Readings as they were put down."""

from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.wire import LengthAnswerField, MessageField
from measuring.models import KINDS
from piecing.diagnosis.names import against, landings, reading_said
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.words import SizeRead
from piecing.lengths import Length


class PinSerializer(serializers.Serializer[Any]):
    dimension = serializers.CharField()
    rung = serializers.CharField()
    at = serializers.FloatField()


class ReadingSerializer(serializers.Serializer[Any]):
    """A reading of this subject. ``should`` is what it would read if all were true, ``odd`` why it is set aside."""

    id = serializers.UUIDField(source="pk")
    kind = serializers.ChoiceField(choices=KINDS)
    text = serializers.SerializerMethodField()
    pretty = serializers.SerializerMethodField()
    said = serializers.SerializerMethodField()
    should = serializers.SerializerMethodField()
    value = LengthAnswerField(allow_null=True)
    lands = serializers.SerializerMethodField()
    which = serializers.SerializerMethodField()
    off = serializers.SerializerMethodField()
    pin = serializers.SerializerMethodField()
    confirmed = serializers.BooleanField()
    day = serializers.CharField()
    note = serializers.CharField()
    odd = serializers.SerializerMethodField()

    def _off(self, row: Any) -> float | None:
        nominal, reading = self.context["nominal"].get(row.pk), self.context["by_row"].get(row.pk)
        return None if nominal is None or reading is None else float(reading.read - nominal)

    def get_which(self, row: Any) -> str:
        """Beside what it should be, in words."""
        off = self._off(row)
        return "" if off is None else str(against(ReadingKind(row.kind), off).text(self.context["style"]))

    def get_off(self, row: Any) -> bool:
        return abs(self._off(row) or 0.0) >= 1 / 64

    @extend_schema_field(PinSerializer(allow_null=True))
    def get_pin(self, row: Any) -> Any:
        """Where it stands on the size ladder; null for what is no unit's size."""
        rung = {"width": "trimmed", "height": "trimmed", "raw_width": "raw"}.get(row.kind)
        wanted = {"height": ("size", "height")}.get(row.kind, ("size", "width", "half"))
        scale = next((s for s in self.context["ladders"] if s.dimension in wanted), None)
        if rung is None or scale is None or row.value is None:
            return None
        return {"dimension": scale.dimension, "rung": rung, "at": scale.place(row.value).at}

    def get_text(self, row: Any) -> str:
        """As it can be typed again; the side it lies on is picked, not typed."""
        return "" if row.value is None else str(self.context["style"].text(abs(row.value)))

    def get_pretty(self, row: Any) -> str:
        style = self.context["style"]
        if row.value is None:
            return ""
        return SizeRead(abs(row.value)).set_in(style) + (
            f" of {style.pretty(row.whole)}" if row.whole is not None else ""
        )

    def get_said(self, row: Any) -> str:
        reading = self.context["by_row"].get(row.pk)
        return "" if reading is None else str(reading_said(reading, self.context["model"]).text(self.context["style"]))

    def get_lands(self, row: Any) -> str:
        if row.value is None or not row.value.sign:
            return ""
        corner = row.corner or (row.feature.split(" ", 2)[2] if row.kind == "corner_tip" else "")
        seam = row.feature.split(" of ", 1)[1] if row.kind == "crossing" else ""
        number = self.context["model"].places.seam(seam) if seam else None
        upright = number is not None and self.context["model"].places.seams[number].upright
        found = landings(ReadingKind(row.kind), corner, upright=upright)
        return next((x.said.text() for x in found if x.sign == row.value.sign), "")

    def get_should(self, row: Any) -> str:
        """Empty where nothing of the kind is seen here, and for what is a gap or a miss: those should be none."""
        nominal = self.context["nominal"].get(row.pk)
        return "" if nominal is None or nominal < 1 / 64 else str(self.context["style"].pretty(Length.near(nominal)))

    def get_odd(self, row: Any) -> str:
        said = self.context["odd"].get(row.pk)
        return "" if said is None else str(said.text(self.context["style"]))


class MisplacedSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField()
    kind = serializers.ChoiceField(choices=KINDS)
    why = MessageField()
