"""How much warmer air is at the click is worked out where nobody found it: the usual value of
before is taken out of files in which it was not typed."""

from django.apps.registry import Apps
from django.db import migrations
from django.db.backends.base.schema import BaseDatabaseSchemaEditor

_WAS, _PATH = 3.5, "system.click_warming_k"


def forget_the_usual(apps: Apps, schema_editor: BaseDatabaseSchemaEditor) -> None:
    """Compressors whose value is the usual one of before, not typed."""
    systems = apps.get_model("sites", "System").objects
    for system in systems.filter(document__system__click_warming_k=_WAS):
        if _PATH not in system.document.get("entered", {}):
            system.document["system"]["click_warming_k"] = None
            system.save(update_fields=["document"])


class Migration(migrations.Migration):
    dependencies = [("sites", "0002_summary")]
    operations = [migrations.RunPython(forget_the_usual, migrations.RunPython.noop)]
