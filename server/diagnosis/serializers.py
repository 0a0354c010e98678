from functools import lru_cache
from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from api.ladders import LadderSerializer
from api.wire import DrawingField, LengthAnswerField, LengthSerializer, MessageField, length_out
from measuring.models import KINDS
from piecing.diagnosis.causes import Cause, parameters_of
from piecing.diagnosis.model import BlockModel
from piecing.diagnosis.names import against, feature_name, landings, place_said, reading_said
from piecing.diagnosis.places import batch_name
from piecing.diagnosis.reading_kinds import ReadingKind, kinds_offered
from piecing.diagnosis.said import beside_said, cause_name, cause_of_whom
from piecing.diagnosis.verdict import Status
from piecing.diagnosis.words import SizeRead
from piecing.lengths import Length, Style, hair
from projects.serializers import KINDS as UNIT_KINDS

from .models import TURNED_OUT

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


class ParameterSerializer(serializers.Serializer[Any]):
    key = serializers.CharField()
    cause = serializers.ChoiceField(choices=CAUSES)
    batch = serializers.IntegerField()
    name = serializers.SerializerMethodField()

    def get_name(self, p: Any) -> str:
        return cause_name(self.context["model"], p).text()


class SeenFaultSerializer(serializers.Serializer[Any]):
    number = serializers.IntegerField()
    key = serializers.CharField(source="feature.key")
    kind = serializers.CharField(source="feature.kind.value")
    said = MessageField()
    eased = serializers.BooleanField()


class BatchSerializer(serializers.Serializer[Any]):
    number = serializers.IntegerField()
    key = serializers.CharField()
    kind = serializers.CharField()
    name = serializers.SerializerMethodField()
    oblong = serializers.SerializerMethodField()
    count = serializers.IntegerField()
    tips = serializers.BooleanField()
    tip_sides = serializers.SerializerMethodField()
    corners = serializers.BooleanField()
    plain = serializers.BooleanField()

    def get_tip_sides(self, b: Any) -> list[str]:
        return list(self.context["model"].places.tip_sides(b))

    def get_name(self, b: Any) -> str:
        return batch_name(self.context["model"].places, b.number)

    def get_oblong(self, b: Any) -> bool:
        return bool(b.spec.width != b.spec.height)


class LandingSerializer(serializers.Serializer[Any]):
    """One of the sides that a reading may lie on, as it is picked."""

    code = serializers.CharField()
    said = MessageField()


class CornerSerializer(serializers.Serializer[Any]):
    corner = serializers.CharField()
    landings = LandingSerializer(many=True)


class CellSerializer(serializers.Serializer[Any]):
    """A unit to pick on the drawing; ``box`` is left, top, width, height."""

    number = serializers.IntegerField()
    key = serializers.CharField()
    name = serializers.CharField()
    batch = serializers.IntegerField()
    across = serializers.BooleanField()
    box = serializers.ListField(child=serializers.FloatField())
    corners = CornerSerializer(many=True)
    tips = serializers.ListField(child=serializers.CharField())

    def to_representation(self, c: Any) -> dict[str, Any]:
        # Written out by hand: a block has thousands of them.
        places = self.context["model"].places
        left, bottom, right, top = c.box
        corners = [f"{t.down} {t.across}" for t in places.corner_tips_of.get(c.number, ())]
        return {
            "number": c.number,
            "key": c.key,
            "name": c.name,
            "batch": c.batch,
            "across": c.orientation.across,
            "box": [round(v, 4) for v in (left, -top, right - left, top - bottom)],
            "corners": [{"corner": corner, "landings": _landed(ReadingKind.MISS, corner)} for corner in corners],
            "tips": [t.side for t in places.edge_tips_of.get(c.number, ())],
        }


class SeamSerializer(serializers.Serializer[Any]):
    name = serializers.CharField()
    upright = serializers.BooleanField()
    start = PointField()
    end = PointField()
    pressed_open = serializers.SerializerMethodField()

    def get_pressed_open(self, s: Any) -> bool:
        model = self.context["model"]
        return bool(model.folds[model.places.seam(s.name)] < 1)


class FeatureSerializer(serializers.Serializer[Any]):
    key = serializers.CharField()
    kind = serializers.CharField()
    name = serializers.CharField()
    at = PointField()
    nominal = InchesField()
    landings = LandingSerializer(many=True)

    def to_representation(self, f: Any) -> dict[str, Any]:
        # Written out by hand: a block has thousands of them.
        model, fields = self.context["model"], self.fields
        upright = f.seam >= 0 and model.places.seams[f.seam].upright
        return {
            "key": f.key,
            "kind": f.kind.value,
            "name": str(feature_name(model, model.find(f.key)).text(self.context["style"])),
            "at": fields["at"].to_representation(f.at),
            "nominal": fields["nominal"].to_representation(f.nominal),
            "landings": _landed(ReadingKind(f.kind.value), f.edge if " " in f.edge else "", upright),
        }


@lru_cache(maxsize=256)
def _landed(kind: ReadingKind, corner: str, upright: bool = False) -> list[dict[str, str]]:
    return [{"code": x.code, "said": x.said.text()} for x in landings(kind, corner, upright=upright)]


class PlacesSerializer(serializers.Serializer[Any]):
    """What can be picked and measured."""

    batches = BatchSerializer(many=True)
    cells = CellSerializer(many=True)
    seams = SeamSerializer(many=True)
    features = serializers.SerializerMethodField()
    parameters = serializers.SerializerMethodField()
    kinds = serializers.SerializerMethodField()

    def get_kinds(self, _places: Any) -> list[str]:
        """What can be read here, in the order of the work."""
        return [k.value for k in kinds_offered(self.context["model"], of_row=self.context["of_row"])]

    @extend_schema_field(FeatureSerializer(many=True))
    def get_features(self, _places: Any) -> Any:
        return FeatureSerializer(self.context["model"].features, many=True, context=self.context).data

    @extend_schema_field(ParameterSerializer(many=True))
    def get_parameters(self, _places: Any) -> Any:
        return ParameterSerializer(self.context["parameters"], many=True, context=self.context).data


@lru_cache(maxsize=32)
def _places_told(model: BlockModel, style: Style, of_row: bool) -> Any:
    """The same for every answer about one block, however many readings there are."""
    context = {"model": model, "parameters": parameters_of(model), "style": style, "of_row": of_row}
    return PlacesSerializer(model.places, context=context).data


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
        """Faults left on the mean, in words; empty where sizes do not tell."""
        if r.left is None:
            return ""
        if r.none_left:
            return "likely no fault is left"
        about = max(1, round(r.left))
        return "about one fault is left" if about == 1 else f"about {about} faults are left"

    def get_stock(self, r: Any) -> str:
        said = self.context.get("stock", {}).get(r.code)
        return "" if said is None else str(said.text(self.context["style"]))

    def get_can_try(self, r: Any) -> bool:
        return r.change is not None and r.possible


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


class DiagnosisSerializer(serializers.Serializer[Any]):
    """A block, a kind of unit or sizes typed by hand, as the readings make it. ``before`` is the drawing without the remedy that
    is tried. ``expected``: nothing was read of seams, rows or tips, so that its faults rest on records and on what is usual."""

    drawing = DrawingField()
    before = DrawingField(allow_null=True)
    factor = serializers.FloatField()
    slider_step = serializers.SerializerMethodField()
    tried = serializers.CharField(allow_blank=True)
    places = serializers.SerializerMethodField()
    ladders = LadderSerializer(many=True)
    faults = SeenFaultSerializer(many=True)
    expected = serializers.BooleanField(source="found.expected")
    readings = ReadingSerializer(many=True, source="newest")
    earlier = serializers.IntegerField()
    elsewhere = serializers.SerializerMethodField()
    misplaced = serializers.SerializerMethodField()
    verdict = VerdictSerializer()
    seen = SeenSerializer(many=True, source="found.seen")
    odd = serializers.SerializerMethodField()
    lone = serializers.SerializerMethodField()
    scatter = serializers.SerializerMethodField()
    next = AskedSerializer(many=True)
    this_block = RemedySerializer(many=True)
    the_batch = RemedySerializer(many=True)
    saved = SavedSerializer(many=True)

    def get_slider_step(self, _sheet: Any) -> float:
        """Inches: half a hair of this measure, what a slider of the what-if moves by."""
        return float(hair(self.context["style"].measure) / 2)

    def get_elsewhere(self, sheet: Any) -> int:
        """Readings taken elsewhere in the project that count here too."""
        return len(sheet.pool.elsewhere)

    @extend_schema_field(PlacesSerializer)
    def get_places(self, _sheet: Any) -> Any:
        return _places_told(self.context["model"], self.context["style"], self.context["of_row"])

    @extend_schema_field(MisplacedSerializer(many=True))
    def get_misplaced(self, sheet: Any) -> Any:
        rows = [{"id": r.pk, "kind": r.kind, "why": why} for r, why in sheet.pool.misplaced]
        return MisplacedSerializer(rows, many=True, context=self.context).data

    @extend_schema_field(serializers.ListField(child=serializers.CharField()))
    def get_odd(self, sheet: Any) -> list[str]:
        return [o.said.text(self.context["style"]) for o in sheet.found.odd]

    @extend_schema_field(serializers.ListField(child=serializers.CharField()))
    def get_lone(self, sheet: Any) -> list[str]:
        """Read again and found right: that one is off by itself."""
        return [o.said.text(self.context["style"]) for o in sheet.found.lone]

    @extend_schema_field(ScatterSerializer(many=True))
    def get_scatter(self, sheet: Any) -> Any:
        rows = [{"where": k, "times": round(v, 2)} for k, v in sheet.found.factors.items()]
        return ScatterSerializer(rows, many=True).data


class WorkingSheetSerializer(serializers.Serializer[Any]):
    shares = ShareSerializer(many=True)
    readings = WorkingSerializer(many=True)
    left_over = InchesField()


class WhatIfSerializer(serializers.Serializer[Any]):
    """Errors in inches by the key of their cause. ``blocks`` of them are drawn at random for the figures of many."""

    causes = serializers.DictField(child=serializers.FloatField(min_value=-1, max_value=1))
    factor = serializers.FloatField(min_value=1, max_value=16, default=1)
    scatter = serializers.FloatField(min_value=0, max_value=4, default=1)
    blocks = serializers.IntegerField(min_value=0, max_value=100_000, default=0)


class SpreadSerializer(serializers.Serializer[Any]):
    mean = BesideField()
    low = BesideField()
    high = BesideField()
    rss = InchesField()
    worst = InchesField()


class ManySerializer(serializers.Serializer[Any]):
    blocks = serializers.IntegerField()
    width = SpreadSerializer()
    height = SpreadSerializer()
    tips_cut = serializers.FloatField(allow_null=True)
    tips_floating = serializers.FloatField(allow_null=True)
    corners_off = serializers.FloatField(allow_null=True)
    crossings_off = serializers.FloatField(allow_null=True)
    blocks_small = serializers.FloatField()
    histogram = serializers.ListField(child=serializers.IntegerField())
    narrowest = BesideField()
    widest = BesideField()
    planned_at = serializers.FloatField(allow_null=True)


class RoomSerializer(serializers.Serializer[Any]):
    batch = serializers.IntegerField()
    school = serializers.CharField()
    share = serializers.FloatField(allow_null=True)


class AtWorkSerializer(serializers.Serializer[Any]):
    key = serializers.CharField()
    said = serializers.CharField()


class TriedSerializer(serializers.Serializer[Any]):
    drawing = DrawingField()
    causes = serializers.SerializerMethodField()
    faults = SeenFaultSerializer(many=True)
    width = BesideField()
    height = BesideField()
    across = InchesField()
    down = InchesField()
    seen = InchesField()
    eased = InchesField()
    seams_across = serializers.IntegerField()
    seams_down = serializers.IntegerField()
    quilt_across = InchesField()
    quilt_down = InchesField()
    of_many = ManySerializer(allow_null=True)
    rooms = RoomSerializer(many=True)

    @extend_schema_field(AtWorkSerializer(many=True))
    def get_causes(self, tried: Any) -> list[dict[str, str]]:
        return [{"key": key, "said": said.text(self.context["style"])} for key, said in tried.causes]


class ByHandSerializer(serializers.Serializer[Any]):
    """A row of units without a project: sizes and readings as typed."""

    measure = serializers.ChoiceField(choices=["in", "mm"], default="in")
    kind = serializers.ChoiceField(choices=UNIT_KINDS, default="half_square_triangle")
    finished = serializers.CharField(max_length=40)
    units = serializers.IntegerField(min_value=2, max_value=20, default=4)
    seam_allowance = serializers.CharField(max_length=40, default="1/4")
    factor = serializers.FloatField(min_value=1, max_value=16, default=4)
    readings = serializers.ListField(
        child=serializers.DictField(child=serializers.JSONField(allow_null=True)), max_length=5000, default=list
    )


class SymptomSerializer(serializers.Serializer[Any]):
    """What one sees; the further answers hang below it, in one flat list by ``under``."""

    code = serializers.CharField()
    under = serializers.CharField(allow_blank=True)
    said = serializers.CharField()
    question = serializers.CharField(allow_blank=True)
    because = serializers.CharField(allow_blank=True)
    measure = serializers.ListField(child=serializers.CharField())
    observe = serializers.CharField(allow_blank=True)
    picture = DrawingField()
    true_picture = DrawingField()
