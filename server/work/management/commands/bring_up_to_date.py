"""Works out anew what the Floor shows of engines whose summary is of other rules, as after an update of Gurvo."""

from django.core.management.base import BaseCommand

from work.models import Engine
from work.services import refresh_summaries


class Command(BaseCommand):
    help = "Bring the Floor's summaries up to date."

    def handle(self, *_args: object, **_options: object) -> None:
        """Go through all engines whose summary is stale."""
        refresh_summaries(Engine.objects.stale().iterator())
