"""Adds a gauge to the shop: ./gurvo gauge CODE KIND RESOLUTION UNCERTAINTY [NAME] [--due DAY] [--least FIGURE] [--most FIGURE]."""

from argparse import ArgumentParser
from datetime import date
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from shop.models import Gauge


class Command(BaseCommand):
    """Adds a gauge or wrench."""

    help = "Add a gauge: code, kind, smallest step read, expanded uncertainty (k = 2), in degrees, mm or N·m"

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("code")
        parser.add_argument("kind", choices=Gauge.Kind.values)
        parser.add_argument("resolution", type=float)
        parser.add_argument("uncertainty", type=float)
        parser.add_argument("name", nargs="?", default="")
        parser.add_argument("--due", type=date.fromisoformat, default=None)
        parser.add_argument("--least", type=float, default=None)
        parser.add_argument("--most", type=float, default=None)

    def handle(self, *_args: Any, **options: Any) -> None:
        code, resolution, uncertainty = options["code"], options["resolution"], options["uncertainty"]
        if Gauge.objects.filter(code=code).exists():
            raise CommandError(f"There is a gauge {code} already; choose another code.")
        if not (0 < resolution <= 20 and 0 <= uncertainty <= 20):
            raise CommandError("A gauge reads to a step above 0 and up to 20, with an uncertainty from 0 to 20, in degrees, mm or N·m.")
        Gauge.objects.create(
            code=code,
            name=options["name"] or options["kind"],
            kind=options["kind"],
            resolution=resolution,
            expanded_uncertainty=uncertainty,
            due=options["due"],
            least=options["least"],
            most=options["most"],
        )
        print(f"{code} is in.")
