"""Readings and diagnoses from the two pools there were before, into the one there is now. Nothing is left behind.

The apps that held them are gone, so their tables are read as they lie; a database that never had them has nothing to carry.
"""

import json
import uuid

from django.db import migrations

BEFORE = ("readings_readingrow", "sewn_measured", "sewn_kept")


def _rows(cursor, table):
    cursor.execute(f"SELECT * FROM {table}")
    names = [c[0] for c in cursor.description]
    return [dict(zip(names, row)) for row in cursor.fetchall()]


def _model(block, find):
    from blocks.translate import pattern_of
    from piecing.blocks.pattern import layout_of
    from piecing.diagnosis import model_of, block_geometry
    from piecing.errors import PiecingError

    try:
        places = block_geometry(layout_of(pattern_of(block, find)), block.finished)
        return model_of(places, block.project.seam_allowance)
    except PiecingError:
        return None


def _length(text):
    from piecing.lengths import inches

    if text in (None, ""):
        return None
    return -inches(text[1:]) if str(text).startswith("-") else inches(str(text)) if str(text) != "0" else inches(0)


def _when(value):
    from datetime import timezone as zone

    from django.utils.dateparse import parse_datetime

    found = parse_datetime(str(value)) if value else None
    return found.replace(tzinfo=zone.utc) if found is not None and found.tzinfo is None else found


def _finish(reading, model, fields):
    """The row with what lies there now, where it has a place."""
    from measuring.translate import reading_of
    from piecing.diagnosis.readings import marked
    from piecing.errors import PiecingError

    for name, value in fields.items():
        if value is not None:
            setattr(reading, name, value)
    if model is not None and not reading.mark:
        try:
            found = marked(reading_of(reading), model)
            reading.mark, reading.batch = found.mark, found.batch or reading.batch
        except PiecingError:
            reading.mark = "?"


def carry(apps, schema_editor):
    connection = schema_editor.connection
    tables = set(connection.introspection.table_names())
    if not tables.intersection(BEFORE):
        return
    from diagnosis.earlier import of_block, of_unit

    Reading = apps.get_model("measuring", "ReadingRow")
    Saved = apps.get_model("diagnosis", "SavedDiagnosis")
    Block = apps.get_model("blocks", "Block")
    Unit = apps.get_model("projects", "PlannedUnit")
    with connection.cursor() as cursor:
        old = {t: _rows(cursor, t) if t in tables else [] for t in BEFORE}
    models, orders = {}, {}

    def put(project, key, order, taken, deleted, fields, model=None, **subject):
        reading = Reading(pk=uuid.UUID(str(key)), project=project, deleted_at=_when(deleted), **subject)
        # Two orders become one: readings of units first, then those of blocks, each in its own.
        orders[project.pk] = reading.order = orders.get(project.pk, 0) + 1
        _finish(reading, model, fields)
        reading.save(force_insert=True)
        Reading.objects.filter(pk=reading.pk).update(taken_at=_when(taken))

    for r in sorted(old["readings_readingrow"], key=lambda r: (r["order"], str(r["taken_at"]))):
        unit = Unit.objects.select_related("project").get(pk=uuid.UUID(str(r["unit_id"])))
        fields = of_unit(r) | {"value": _length(r["value"]), "whole": _length(r["whole"])}
        if fields["kind"] not in ("stitch", "strip_test"):
            from projects.translate import spec_of

            # The field's name on that day's rows.
            if hasattr(unit, "ring"):
                unit.part_fabrics = unit.ring
            spec = spec_of(unit)
            fields["batch"] = f"{spec.kind} {spec.width.rational} x {spec.height.rational}"
        put(unit.project, r["id"], r["order"], r["taken_at"], r["deleted_at"], fields, unit=unit)
    for r in sorted(old["sewn_measured"], key=lambda r: (r["order"], str(r["taken_at"]))):
        block = Block.objects.select_related("project__workroom").get(pk=uuid.UUID(str(r["block_id"])))
        if block.pk not in models:
            models[block.pk] = _model(block, _finder(apps, block))
        model = models[block.pk]
        fields = of_block(r, model) | {"value": _length(r["value"]), "whole": _length(r["whole"])}
        fields["confirmed"] = bool(r["confirmed"])
        put(block.project, r["id"], r["order"], r["taken_at"], r["deleted_at"], fields, model, block=block)
    for k in old["sewn_kept"]:
        said = json.loads(k["said"]) if isinstance(k["said"], str) else k["said"]
        said.setdefault("headline", next(iter(said.get("causes", [])), ""))
        block = Block.objects.get(pk=uuid.UUID(str(k["block_id"])))
        row = Saved(
            pk=uuid.UUID(str(k["id"])),
            block=block,
            said=said,
            turned_out=k["turned_out"],
            later=k["later"],
            deleted_at=_when(k["deleted_at"]),
        )
        row.save(force_insert=True)
        Saved.objects.filter(pk=row.pk).update(saved_at=_when(k["kept_at"]))


def _finder(apps, block):
    """Patterns by key, as ``blocks.translate.find_in`` finds them, on the models of this migration."""
    from piecing.blocks.library import library_data

    def find(key):
        known = library_data(key)
        if known is not None:
            return known
        try:
            number = uuid.UUID(key)
        except ValueError:
            return None
        for model in (apps.get_model("blocks", "OwnBlock"), apps.get_model("blocks", "Block")):
            held = model.objects.filter(pk=number).values_list("pattern", flat=True).first()
            if held is not None:
                return dict(held)
        return None

    return find


def drop(apps, schema_editor):
    """Only once all is carried over."""
    tables = set(schema_editor.connection.introspection.table_names())
    for table in BEFORE:
        if table in tables:
            schema_editor.execute(f"DROP TABLE {table}")


class Migration(migrations.Migration):
    dependencies = [
        ("diagnosis", "0001_initial"),
        ("measuring", "0001_initial"),
        ("blocks", "0001_initial"),
        ("projects", "0003_prints"),
    ]
    operations = [
        migrations.RunPython(carry, migrations.RunPython.noop),
        migrations.RunPython(drop, migrations.RunPython.noop),
    ]
