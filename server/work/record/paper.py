"""The record on paper: HTML and CSS to PDF. Fonts ship with the app."""

import re
from pathlib import Path

from django.template.loader import render_to_string
from django.utils import timezone
from weasyprint import HTML
from weasyprint.text.fonts import FontConfiguration

from engine.bridge import document_of
from gurvo_core.work import TapeLine, present
from work import bridge
from work.models import Engine
from work.record.diagram import arcs, ticks
from work.record.gauges import said_of, with_gauges

FONTS = Path(__file__).parent / "fonts"
LENGTH = re.compile(r"\{mm:([\d.]+)\}")


def lengths_in_mm(sentence: str) -> str:
    """Return a sentence of the core with its lengths written in mm."""
    return LENGTH.sub(lambda found: f"{float(found[1]):.2f} mm", sentence)


def _tape(ledger: bridge.Ledger) -> list[tuple[TapeLine, str]]:
    """Every line of the ledger, oldest first, with the gauges a reading was taken with."""
    lines = reversed(bridge.tape_of(ledger.entries))
    gauges = [said_of(entry, set_up) for entry, set_up in with_gauges(ledger.entries)]
    return list(zip(lines, gauges, strict=True))


def as_pdf(engine: Engine) -> bytes:
    """Return the record of an engine as PDF."""
    ledger = bridge.ledger_of(engine)
    situation = ledger.situation
    state = present(situation)
    page = render_to_string(
        "work/record.html",
        {
            "engine": engine,
            "document": document_of(engine.revision_id),
            "state": state,
            "gauges": [gauge for gauge in (situation.wheel_gauge, situation.dial_gauge) if gauge],
            "tape": _tape(ledger),
            "signed": situation.signed,
            "arcs": arcs(state),
            "ticks": ticks(),
            "printed": timezone.localtime(),
        },
    )
    pdf = HTML(string=lengths_in_mm(page), base_url=f"{FONTS}/").write_pdf(font_config=FontConfiguration())
    assert isinstance(pdf, bytes)
    return pdf
