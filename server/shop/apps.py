"""The shop: people, stands, gauges."""

from django.apps import AppConfig


class ShopConfig(AppConfig):
    """Application of the room ``shop``."""

    name = "shop"
