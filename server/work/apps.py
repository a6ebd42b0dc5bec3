"""The job: engines on stands, and their ledgers."""

from django.apps import AppConfig


class WorkConfig(AppConfig):
    """Application of the room ``work``."""

    name = "work"

    def ready(self) -> None:
        """Engines hear of their family's newest revision; what they are begun with is in the daybook, the rest in their ledgers."""
        from engine.services import revision_added
        from shop.daybook import booked
        from work.follows import engine_says
        from work.models import Engine
        from work.services import hear_of_revision

        booked("engine", Engine, engine_says, once=True)
        revision_added.connect(hear_of_revision)
