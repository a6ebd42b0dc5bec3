"""A record as one zip: the sealed record in JSON, the same on paper, its pictures and readings, and a page that verifies all of it."""

__all__ = ["as_zip"]

import zipfile
from io import BytesIO

from django.template.loader import render_to_string

from shop.letterhead import letterhead
from work import bridge
from work.models import Engine
from work.pictures import picture_file
from work.record.in_one_file import as_html
from work.record.open_record import as_json
from work.record.paper import as_pdf
from work.record.table import as_csv, tables_csv


def as_zip(engine: Engine) -> bytes:
    """Return everything of an engine that is handed over."""
    written, serial = BytesIO(), engine.serial
    taken = {one.digest for one in bridge.ledger_of(engine).folded.states["pictures"].taken}
    with zipfile.ZipFile(written, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr(f"{serial}/record.json", "".join(as_json(engine)))
        packed.writestr(f"{serial}/record.pdf", as_pdf(engine))
        packed.writestr(f"{serial}/record.html", as_html(engine))
        packed.writestr(f"{serial}/readings.csv", "".join(as_csv(engine)))
        for name, lines in tables_csv(engine):
            packed.writestr(f"{serial}/{name}.csv", "".join(lines))
        packed.writestr(f"{serial}/verify.html", render_to_string("work/verify.html", {"engine": engine, "shop": letterhead()}))
        for digest in sorted(taken):
            file = picture_file(digest)
            if file.exists():  # one that is missing is named by whoever verifies
                packed.write(file, f"{serial}/pictures/{digest}.jpg", zipfile.ZIP_STORED)
    return written.getvalue()
