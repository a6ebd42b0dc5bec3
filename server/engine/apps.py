"""Engine families and their documents."""

from django.apps import AppConfig


class EngineConfig(AppConfig):
    """Application of the room ``engine``."""

    name = "engine"
