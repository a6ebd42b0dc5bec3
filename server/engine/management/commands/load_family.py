"""Loads an engine document: ./gurvo family FILE."""

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from engine.services import add_revision
from gurvo_core.errors import DocumentError
from gurvo_core.reading import read_text
from shop.errors import Conflict


class Command(BaseCommand):
    """Loads an engine document as a family's next revision."""

    help = "Load an engine document (JSON)"

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("file", type=Path)

    def handle(self, *_args: Any, **options: Any) -> None:
        try:
            revision = add_revision(read_text(options["file"].read_text("utf-8")), by=None)
        except OSError as error:
            raise CommandError(f"{options['file']} cannot be read: {error.strerror}.") from None
        except UnicodeDecodeError:
            raise CommandError(f"{options['file']} is no text in UTF-8.") from None
        except Conflict as error:
            raise CommandError(error.sentence) from None
        except DocumentError as error:
            raise CommandError("\n".join(f"{fault.path}: {fault.sentence}" for fault in error.faults)) from None
        print(f"{revision} is in.")
