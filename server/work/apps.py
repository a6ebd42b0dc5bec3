"""The job: engines on stands, and their ledgers."""

from django.apps import AppConfig


class WorkConfig(AppConfig):
    """Application of the room ``work``."""

    name = "work"
