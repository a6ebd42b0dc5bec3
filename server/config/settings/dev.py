"""For a developer's own commands: makemigrations, shell, the OpenAPI document."""

from config.settings.base import *

SECRET_KEY = "for a developer's own machine only"  # noqa: S105 - guards nothing
DEBUG = True
ALLOWED_HOSTS = ["127.0.0.1", "localhost"]
