"""The job: engines on stands, and their ledgers."""

from django.apps import AppConfig


class WorkConfig(AppConfig):
    """Application of the room ``work``."""

    name = "work"

    def ready(self) -> None:
        """Engines hear of their family's newest revision."""
        from engine.services import revision_added
        from work.services import hear_of_revision

        revision_added.connect(hear_of_revision)
