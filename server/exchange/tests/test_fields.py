"""The fields of a row stand in one list, its readers; schema, project file and plan follow it."""

from __future__ import annotations

from django.test import SimpleTestCase

from blocks.readers import quilt_readers
from exchange.project import schema
from measuring.translate import reading_readers
from piecing.lengths import Measure
from planning.serializers import PlanRequestSerializer
from projects.models import PlannedUnit
from projects.readers import fabric_readers, project_readers, unit_readers
from projects.serializers import PlannedUnitSerializer, UnitChangeSerializer


class FieldsTest(SimpleTestCase):
    def test_every_field_of_a_unit_is_a_column_an_answer_a_change_and_can_be_asked(self) -> None:
        fields = set(unit_readers(Measure.INCHES))
        columns = {f.name for f in PlannedUnit._meta.get_fields() if f.concrete}
        self.assertEqual(
            fields,
            columns - {"id", "project", "position", "deleted_at", "of_blocks", "spares_kept", "trimmed", "spoiled"},
        )
        self.assertLessEqual(fields, set(PlannedUnitSerializer().fields))
        self.assertEqual(
            fields,
            set(UnitChangeSerializer().fields["changes"].get_fields()),  # type: ignore[attr-defined]
        )
        self.assertLessEqual(fields, set(PlanRequestSerializer().fields))

    def test_the_project_file_names_them_all(self) -> None:
        properties = schema()["properties"]
        for readers, written in (
            (unit_readers(Measure.INCHES), properties["units"]["items"]["properties"]),
            (project_readers(Measure.INCHES), properties),
            (fabric_readers(), properties["fabrics"]["items"]["properties"]),
        ):
            self.assertLessEqual(set(readers), set(written))

    def test_readings_and_the_quilt_are_written_whole(self) -> None:
        from exchange.project import _QUILT, _READING

        self.assertEqual({*_READING, "value"}, set(reading_readers(Measure.INCHES)))
        self.assertEqual({*_QUILT, "borders", "top"}, set(quilt_readers(Measure.INCHES)))
