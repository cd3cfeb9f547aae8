"""An import keeps its file's digest: sent again under its id, it must be the same file."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("exchange", "0001_import")]
    operations = [
        migrations.AddField(
            model_name="import",
            name="digest",
            field=models.CharField(max_length=64, default=""),
        )
    ]
