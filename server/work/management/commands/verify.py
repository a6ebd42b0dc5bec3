"""Walks the seals of every ledger, or of a record that was handed out."""

import json
from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from gurvo_core.ledger.chain import record_misfit, short
from work.models import Engine, EngineSummary
from work.seals import engine_misfit, record_against_shop


class Command(BaseCommand):
    help = "Check that every ledger, or a record that was handed out, is as it was sealed."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("record", nargs="?", type=Path, help="a record in JSON; every ledger of the shop when left out")

    def handle(self, *_args: Any, **options: Any) -> None:
        faults = [_record_fault(options["record"])] if options["record"] else list(_ledger_faults())
        for fault in filter(None, faults):
            self.stdout.write(fault)
        if any(faults):
            raise CommandError("not verified: see above. Nothing was changed; compare with a backup and with records handed out.")
        self.stdout.write("verified: every seal fits.")


def _ledger_faults() -> list[str]:
    faults = []
    for engine in Engine.objects.order_by("serial"):
        words = engine_misfit(engine)
        EngineSummary.objects.filter(engine=engine).update(chain=words)
        if words:
            faults.append(f"{engine.serial}: {words}")
    return faults


def _record_fault(file: Path) -> str:
    try:
        record = json.loads(file.read_text("utf-8"))
        serial, head = record["engine"]["serial"], record["head"]
        words = record_misfit(record) or record_against_shop(record)
    except (OSError, ValueError, KeyError, TypeError) as error:
        return f"{file.name} is no record of version 3 or later ({type(error).__name__}: {error})"
    return f"{file.name}, {serial} {short(head)}: {words}" if words else ""
