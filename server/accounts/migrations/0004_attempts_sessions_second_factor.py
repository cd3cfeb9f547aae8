"""Wrong tries and sessions in tables of their own; second factor; endings of sign-in names."""

import django.db.models.deletion
from django.conf import settings
from django.db import migrations, models

import accounts.models


def give_handles(apps, schema_editor):
    for each in apps.get_model("accounts", "Workspace").objects.all():
        each.handle = accounts.models.new_handle(each.name)
        each.save(update_fields=["handle"])


class Migration(migrations.Migration):
    dependencies = [("accounts", "0003_user_demo")]

    operations = [
        migrations.CreateModel(
            name="Attempt",
            fields=[
                (
                    "id",
                    models.BigAutoField(
                        auto_created=True, primary_key=True, serialize=False, verbose_name="ID"
                    ),
                ),
                ("key", models.CharField(max_length=64)),
                ("at", models.DateTimeField(db_index=True)),
            ],
        ),
        migrations.AddIndex(
            "attempt", models.Index(fields=["key", "at"], name="accounts_at_key_at")
        ),
        migrations.CreateModel(
            name="Session",
            fields=[
                (
                    "session_key",
                    models.CharField(
                        max_length=40, primary_key=True, serialize=False, verbose_name="session key"
                    ),
                ),
                ("session_data", models.TextField(verbose_name="session data")),
                ("expire_date", models.DateTimeField(db_index=True, verbose_name="expire date")),
                (
                    "user",
                    models.ForeignKey(
                        null=True,
                        on_delete=django.db.models.deletion.CASCADE,
                        related_name="sessions",
                        to=settings.AUTH_USER_MODEL,
                    ),
                ),
            ],
            options={
                "verbose_name": "session",
                "verbose_name_plural": "sessions",
                "abstract": False,
            },
        ),
        migrations.AddField("workspace", "second_factor", models.BooleanField(default=False)),
        migrations.AddField("workspace", "handle", models.CharField(default="", max_length=30)),
        migrations.RunPython(give_handles, migrations.RunPython.noop),
        migrations.AlterField("workspace", "handle", models.CharField(max_length=30, unique=True)),
        # What counted wrong tries before.
        migrations.RunSQL(
            "drop table if exists axes_accessattempt, axes_accesslog, axes_accessfailurelog,"
            " axes_accessattemptexpiration cascade",
            migrations.RunSQL.noop,
        ),
    ]
