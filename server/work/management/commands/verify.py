"""Verifies the whole shop, a record that was handed out, or the shop against what was kept elsewhere."""

import json
from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from gurvo_core.ledger.chain import record_misfit, short
from work.heads import against_backup, against_head, head_now
from work.models import Engine
from work.seals import record_against_shop
from work.verifying import faults_of_shop

SQLITE = b"SQLite format 3\x00"


class Command(BaseCommand):
    help = "Check that the shop, or a record that was handed out, is as it was sealed."

    def add_arguments(self, parser: ArgumentParser) -> None:
        parser.add_argument("record", nargs="?", type=Path, help="a record in JSON; the whole shop when left out")
        parser.add_argument("--against", help="a backup, a record, a file with a shop's head, or the head itself as it is printed")

    def handle(self, *_args: Any, **options: Any) -> None:
        record, against = options["record"], options["against"]
        faults = [*([_record_fault(record)] if record else faults_of_shop()), *(_against(against) if against else ())]
        for fault in filter(None, faults):
            self.stdout.write(fault)
        if any(faults):
            raise CommandError("not verified: see above. Nothing was changed; compare with a backup and with records handed out.")
        if record and not Engine.objects.exists():
            self.stdout.write("There is no engine in this place, so the record was looked at by itself.")
        self.stdout.write("verified: every seal fits.")
        if not record:
            self.stdout.write(f"The shop's head: {head_now().words}")


def _record_fault(file: Path) -> str:
    try:
        record = json.loads(file.read_text("utf-8"))
        serial, head = record["engine"]["serial"], record["head"]
        words = record_misfit(record)
        if not words and Engine.objects.exists():  # elsewhere there is nothing to hold it against
            words = record_against_shop(record) or (against_head(record["shop"]) if "shop" in record else "")
    except (OSError, ValueError, KeyError, TypeError) as error:
        return f"{file.name} is no record of version 3 or later ({type(error).__name__}: {error})"
    return f"{file.name}, {serial} {short(head)}: {words}" if words else ""


def _against(what: str) -> list[str]:
    """What is wrong by something that was kept elsewhere."""
    file = Path(what)
    if not file.is_file():
        return [against_head(what)]
    with file.open("rb") as stream:
        begins = stream.read(len(SQLITE))
    if begins == SQLITE:
        return against_backup(file)
    return [_record_fault(file)] if begins[:1] == b"{" else [against_head(file.read_text("utf-8", errors="replace"))]
