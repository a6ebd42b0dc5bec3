"""What every start begins with: the database in its newest shape, and what the Floor shows of engines whose summary is of other rules."""

from django.core.management import call_command
from django.core.management.base import BaseCommand

from work.models import Engine
from work.services import refresh_summaries


class Command(BaseCommand):
    help = "Bring the database and the Floor's summaries up to date."

    def handle(self, *_args: object, **_options: object) -> None:
        """Migrate, then go through all engines whose summary is stale."""
        call_command("migrate", verbosity=0)
        refresh_summaries(Engine.objects.stale().iterator())
