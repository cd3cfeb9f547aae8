"""What Rounds shows of a system is called a summary."""

from django.db import migrations


class Migration(migrations.Migration):
    dependencies = [("sites", "0001_initial")]
    operations = [migrations.RenameField("system", "glance", "summary")]
