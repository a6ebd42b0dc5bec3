"""The shop: people, stands, gauges."""

from django.apps import AppConfig
from django.db.backends.signals import connection_created

from shop.in_use import share


class ShopConfig(AppConfig):
    """Application of the room ``shop``."""

    name = "shop"

    def ready(self) -> None:
        """Share the lock of every database that is opened; keep the shop's own tables in the daybook."""
        connection_created.connect(share, dispatch_uid="share")
        from shop.booked import begin

        begin()
