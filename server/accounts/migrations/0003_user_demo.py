"""Accounts that the demo made are marked, and are technicians of the demo's workspace alone."""

from typing import Any

from django.db import migrations, models

_NAMES, _WORKSPACE = ("demo", "demo-second", "demo-office"), "Demo rounds"


def mark(apps: Any, schema_editor: Any) -> None:
    """Those of before: by their names, where they belong to no other workspace."""
    user, membership = (apps.get_model("accounts", name) for name in ("User", "Membership"))
    elsewhere = membership.objects.exclude(workspace__name=_WORKSPACE).values("user_id")
    made = user.objects.filter(username__in=_NAMES, memberships__workspace__name=_WORKSPACE)
    ids = list(made.exclude(pk__in=elsewhere).values_list("pk", flat=True))
    user.objects.filter(pk__in=ids).update(demo=True)
    membership.objects.filter(user_id__in=ids, role="owner").update(role="technician")


class Migration(migrations.Migration):
    dependencies = [("accounts", "0002_user_one_person_per_name")]
    operations = [
        migrations.AddField(
            model_name="user", name="demo", field=models.BooleanField(default=False)
        ),
        migrations.RunPython(mark, migrations.RunPython.noop),
    ]
