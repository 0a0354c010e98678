from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("projects", "0003_prints")]

    operations = [migrations.RenameField(model_name="plannedunit", old_name="ring", new_name="part_fabrics")]
