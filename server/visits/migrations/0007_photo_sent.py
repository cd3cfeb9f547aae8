"""A photo is written anew when it comes in; what was sent is known by its digest, so that sending
it again is the same photo."""

from django.db import migrations, models


class Migration(migrations.Migration):
    dependencies = [("visits", "0006_learned")]
    operations = [
        migrations.AddField(
            model_name="photo",
            name="sent",
            field=models.CharField(max_length=64, default=""),
        )
    ]
