"""Databases made before the apps had their names of today: tables and records of migrations are
renamed, data stays as it is.

Up to then there were four apps of other names. `adopt` runs before every `migrate` and does nothing
where there is nothing to do.
"""

from typing import Any

from django.db import transaction
from django.db.backends.base.base import BaseDatabaseWrapper

__all__ = ["adopt"]

_APPS = {"people": "accounts", "papers": "documents", "journal": "audit"}
# The app that was divided, its last migration then, and the migrations that stand for all of it
# now.
_DIVIDED, _LAST, _NOW = "plants", "0005_by", ("sites", "practice", "gauges")
_TABLES = {
    "people_user": "accounts_user",
    "people_user_groups": "accounts_user_groups",
    "people_user_user_permissions": "accounts_user_user_permissions",
    "people_workspace": "accounts_workspace",
    "people_membership": "accounts_membership",
    "plants_site": "sites_site",
    "plants_system": "sites_system",
    "plants_decision": "sites_decision",
    "plants_habits": "practice_workspacepractice",
    "plants_gauge": "gauges_gauge",
    "papers_link": "documents_link",
    "papers_feed": "documents_feed",
    "journal_entry": "audit_auditevent",
}
_CONTENT_TYPES = {
    ("plants", "habits"): ("practice", "workspacepractice"),
    ("plants", "gauge"): ("gauges", "gauge"),
    ("plants", "site"): ("sites", "site"),
    ("plants", "system"): ("sites", "system"),
    ("plants", "decision"): ("sites", "decision"),
    ("journal", "entry"): ("audit", "auditevent"),
}


def adopt(connection: BaseDatabaseWrapper) -> bool:
    """Renames what an earlier version made; whether there was anything. Raises RuntimeError for a
    database that is older than the last version with those names."""
    with connection.cursor() as cursor:
        tables = connection.introspection.table_names(cursor)
    if "plants_system" not in tables:
        return False
    with transaction.atomic(using=connection.alias), connection.cursor() as cursor:
        _check(cursor)
        for old, new in _TABLES.items():
            cursor.execute(f'alter table "{old}" rename to "{new}"')
        cursor.execute("alter index if exists journal_ent_about_0f3297_idx rename to events_about")
        _rename_migrations(cursor)
        _rename_content_types(cursor)
    return True


def _check(cursor: Any) -> None:
    cursor.execute(
        "select 1 from django_migrations where app = %s and name = %s", [_DIVIDED, _LAST]
    )
    if cursor.fetchone() is None:
        raise RuntimeError(
            "This database is too old: start it once with the version before this one."
        )


def _rename_migrations(cursor: Any) -> None:
    for old, new in _APPS.items():
        cursor.execute("update django_migrations set app = %s where app = %s", [new, old])
    cursor.execute("delete from django_migrations where app = %s", [_DIVIDED])
    for app in _NOW:
        cursor.execute(
            "insert into django_migrations (app, name, applied) values (%s, '0001_initial', now())",
            [app],
        )


def _rename_content_types(cursor: Any) -> None:
    change = (
        "update django_content_type set app_label = %s, model = %s where app_label = %s and model"
        " = %s"
    )
    for (app, model), (new_app, new_model) in _CONTENT_TYPES.items():
        cursor.execute(change, [new_app, new_model, app, model])
    for old, new in _APPS.items():
        cursor.execute(
            "update django_content_type set app_label = %s where app_label = %s", [new, old]
        )
