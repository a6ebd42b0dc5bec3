"""What every start begins with: the database in its newest shape, and what the Floor shows of engines whose summary is of other rules."""

from collections.abc import Iterator

from django.apps import apps
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandError
from django.db import connection
from django.db.migrations.loader import MigrationLoader

from shop.daybook import book_all
from shop.models import DayLine
from work.models import Engine
from work.services import refresh_summaries
from work.shop_views import put_views, take_views_away


def _missing() -> Iterator[str]:
    """Tables and columns of ours that the database should have by its own list of migrations, and has not."""
    with connection.cursor() as cursor:
        tables = set(connection.introspection.table_names(cursor))
        for model in apps.get_models(include_auto_created=True):
            options = model._meta
            if options.db_table not in tables:
                yield f"table {options.db_table}"
                continue
            has = {column.name for column in connection.introspection.get_table_description(cursor, options.db_table)}
            yield from (f"column {options.db_table}.{field.column}" for field in options.local_concrete_fields if field.column not in has)


def _of_a_newer_version() -> list[str]:
    """Changes of shape that were made here by a version that came later than this one."""
    loader = MigrationLoader(connection)
    ours = {config.label for config in apps.get_app_configs()}
    return sorted(f"{app} {name}" for app, name in loader.applied_migrations if app in ours and (app, name) not in loader.disk_migrations)


class Command(BaseCommand):
    help = "Bring the database and the Floor's summaries up to date."

    def handle(self, *_args: object, **_options: object) -> None:
        """Migrate, then go through all engines whose summary is stale."""
        newer = _of_a_newer_version()
        if newer:
            raise CommandError(
                f"This database was in use by a newer Gurvo ({', '.join(newer)}): start that one, or restore a backup from before it."
            )
        take_views_away()
        call_command("migrate", verbosity=0)
        missing = list(_missing())
        if missing:
            raise CommandError(f"This database is not whole: it has no {', '.join(missing)}. Take another copy.")
        put_views()
        if not DayLine.objects.exists():  # a new shop, or one from before there was a daybook: it begins with what is there
            book_all()
        refresh_summaries(Engine.objects.stale().iterator())
