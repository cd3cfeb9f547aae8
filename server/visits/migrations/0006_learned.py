"""What was learned of the nuts is kept by class of switch and by nut; what Rounds shows of past
visits is the next check."""

import django.db.models.deletion
from django.db import migrations, models

from zerodip.fileformat.document import plain
from zerodip.switch.classes import CLASSES
from zerodip.switch.learned import learned_from


def by_nut(apps, schema_editor):
    """Numbers in the order of the nuts become slopes by nut, for the switch that the system's file
    had then."""
    for visit in (
        apps.get_model("visits", "Visit").objects.exclude(learned=[]).select_related("system")
    ):
        file = visit.document or visit.system.document
        switch = (file["system"].get("switch") or {}).get("nuts") or "two"
        known = switch if switch in CLASSES else "two"
        visit.learned = [plain(slope) for slope in learned_from(visit.learned, known)]
        visit.save(update_fields=["learned"])


class Migration(migrations.Migration):
    dependencies = [("visits", "0005_open_index"), ("sites", "0002_summary")]
    operations = [
        migrations.RenameField("visit", "slopes", "learned"),
        migrations.RunPython(by_nut, migrations.RunPython.noop),
        migrations.RenameModel("Outlook", "NextCheck"),
        migrations.AlterField(
            "nextcheck",
            "system",
            models.OneToOneField(
                on_delete=django.db.models.deletion.CASCADE,
                primary_key=True,
                related_name="next_check",
                serialize=False,
                to="sites.system",
            ),
        ),
    ]
