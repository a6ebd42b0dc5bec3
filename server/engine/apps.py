"""Engine families and their documents."""

from django.apps import AppConfig


class EngineConfig(AppConfig):
    """Application of the room ``engine``."""

    name = "engine"

    def ready(self) -> None:
        """Keep families and their documents in the daybook."""
        from engine.models import Family, Revision
        from gurvo_core.ledger.chain import digest_of
        from shop.daybook import booked, fields_of

        plain = fields_of("document")
        booked("family", Family, fields_of())
        booked("document", Revision, lambda row: {**plain(row), "document": digest_of(row.document)})
