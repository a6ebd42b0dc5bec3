"""Describing engines on screen."""

from django.apps import AppConfig


class WriterConfig(AppConfig):
    """Application of the room ``writer``. Nothing is built by a draft, so that it is no part of the daybook."""

    name = "writer"
