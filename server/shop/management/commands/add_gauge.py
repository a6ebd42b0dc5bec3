"""Adds a gauge to the shop: ./gurvo gauge CODE KIND RESOLUTION UNCERTAINTY [NAME] [--due DAY]."""

from argparse import ArgumentParser
from datetime import date
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from shop.models import Gauge


class Command(BaseCommand):
    """Adds a degree wheel or a dial."""

    help = "Add a gauge: code, wheel or dial, smallest step read, expanded uncertainty (k = 2), in degrees or mm"

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("code")
        parser.add_argument("kind", choices=Gauge.Kind.values)
        parser.add_argument("resolution", type=float)
        parser.add_argument("uncertainty", type=float)
        parser.add_argument("name", nargs="?", default="")
        parser.add_argument("--due", type=date.fromisoformat, default=None)

    def handle(self, *_args: Any, **options: Any) -> None:
        code, resolution, uncertainty = options["code"], options["resolution"], options["uncertainty"]
        if Gauge.objects.filter(code=code).exists():
            raise CommandError(f"There is a gauge {code} already; choose another code.")
        if not (0 < resolution <= 5 and 0 <= uncertainty <= 5):
            raise CommandError("A gauge reads to a step above 0 and up to 5, with an uncertainty from 0 to 5, in degrees or mm.")
        Gauge.objects.create(
            code=code,
            name=options["name"] or options["kind"],
            kind=options["kind"],
            resolution=resolution,
            expanded_uncertainty=uncertainty,
            due=options["due"],
        )
        print(f"{code} is in.")
