"""The record on paper: HTML and CSS to PDF. Fonts ship with the app."""

from collections.abc import Iterable, Iterator
from typing import Any

import segno
from django.template.loader import render_to_string
from django.utils import timezone
from django.utils.safestring import SafeString, mark_safe

from gurvo_core.sentence import Reader, say
from gurvo_core.timing.job import TimingState, TimingView
from gurvo_core.timing.job.view import LiftCurve
from gurvo_core.verdict import judged_by
from gurvo_core.work import BenchState, TapeLine
from gurvo_core.work.hand_over import SIGNED
from press.aside import Stopped
from press.fonts_of import cannot_show
from press.ledger_rows import LedgerPages, LedgerRow
from press.pdf import pdf_of
from shop.errors import Conflict
from shop.letterhead import in_shops_time, letterhead, on_shops_paper
from work import bridge
from work.heads import head_now
from work.models import Engine
from work.pictures import pictures_folder
from work.record.diagram import arcs, ticks
from work.record.drawing import drawings_on_paper
from work.record.first_page import first_page
from work.record.first_start import first_start
from work.record.front import front_on_paper
from work.record.gauges import said_of, with_gauges
from work.record.parts import parts_on_paper
from work.record.photographs import photographs
from work.record.proof import proof_on_paper
from work.record.signers import same_day_signers
from work.record.turns import STOPPED

ON_PAPER = Reader(
    length=lambda length_mm: f"{length_mm:.2f} mm",
    fine=lambda length_mm: f"{length_mm:.3f} mm",
    clock=lambda clock_deg: f"{clock_deg:.0f}° clockwise from the top",
    turn=lambda way: "the running way" if way == "running" else "against the running way",
)


def _said(sentence: str) -> str:
    return say(sentence, ON_PAPER)


def _tape(ledger: bridge.Ledger) -> list[tuple[TapeLine, str]]:
    """Every line of the ledger, oldest first, with the gauges a reading was taken with."""
    lines = reversed(bridge.tape_of(ledger))
    gauges = [said_of(entry, set_up) for entry, set_up in with_gauges(ledger.entries)]
    return list(zip(lines, gauges, strict=True))


def _curves(timing: TimingView) -> list[str]:
    """Whole lift curves, where they were read."""
    read = [(cam.name, valve.valve, valve.curve) for cam in timing.cams for valve in cam.valves if valve.curve]
    return [
        f"{cam}, {valve}, whole curve of {curve.readings} readings: {_nose_of(curve)}{_said(curve.words)}" for cam, valve, curve in read
    ]


def _nose_of(curve: LiftCurve) -> str:
    if curve.centreline_deg is None:
        return ""
    card = "" if curve.card_deg is None else f", card {curve.card_deg:.1f}°"
    return f"nose at {curve.centreline_deg:.1f}° ± {curve.expanded_deg:.1f}°{card}. "


def _ledger_pages(tape: Iterable[tuple[TapeLine, str]]) -> LedgerPages:
    """The ledger as the press draws it: each reading's gauges where they are other than those of the reading before."""
    rows = tuple(_row(line, gauges) for line, gauges in _gauges_once(tape))
    heading = f"Ledger, every entry · time of {timezone.get_current_timezone_name()}"
    return LedgerPages(letterhead().paper, heading, ("no.", "when", "entry", "value as typed, gauge", "who"), rows)


def _gauges_once(tape: Iterable[tuple[TapeLine, str]]) -> Iterator[tuple[TapeLine, str]]:
    said = ""
    for line, gauges in tape:
        yield line, gauges if gauges != said else ""
        said = gauges or said


def _row(line: TapeLine, gauges: str) -> LedgerRow:
    at = timezone.localtime(line.at)
    told = " · ".join(words for words in (line.detail, gauges) if words)
    return LedgerRow(
        f"{at:%-d %B %Y}", str(line.seq), f"{at:%H:%M:%S}", line.title, line.value, told, line.by, tuple(_remarks(line)), bool(line.struck)
    )


def _remarks(line: TapeLine) -> Iterator[str]:
    if line.goes_back:
        yield "dated before the entry above: a clock was wrong"
    if line.typed_at:
        yield f"typed {timezone.localtime(line.typed_at):%-d %b %H:%M:%S}"
    if line.because:
        yield f"taken all the same: {line.because}"
    if line.struck:
        yield f"struck by {line.struck.by}: {line.struck.reason}"


def square_code(text: str) -> SafeString:
    """A square code that a camera reads; drawn here, nothing is fetched."""
    return mark_safe(segno.make(text, error="m", micro=False).svg_inline(scale=2, border=0, dark="#1C2226"))  # noqa: S308 - of our own making


def _stood_deg(timing: TimingView) -> float:
    """Where the crank stood last, as far as the ledger knows; else at the first cylinder's firing TDC."""
    return timing.crank.cycle_deg if timing.crank and timing.crank.cycle_deg is not None else 0.0


def _one_drawing(ledger: bridge.Ledger, state: BenchState) -> SafeString | None:
    """What proves the timing, drawn: the front with its marks, where it was by them; a degreed engine has its diagram on the next pages."""
    by_marks = any(one.by in ("marks", "lock", "counts") for one in vars(state)["hand_over"].proofs)
    return front_on_paper(ledger.folded.document) if by_marks else None


def as_pdf(engine: Engine) -> bytes:
    """Return the record of an engine as PDF, by the shop's clock."""
    with in_shops_time():
        shown = shown_on_paper(engine)
        page = on_shops_paper(render_to_string("work/record.html", {**shown, "is_printed": True}))
        ledger = _ledger_pages(shown["tape"])
    try:
        return pdf_of(page, pictures_folder(), ledger)
    except Stopped:
        raise Conflict(STOPPED) from None


def shown_on_paper(engine: Engine) -> dict[str, Any]:
    """Return all that a record says on paper, as its pages are filled with it."""
    ledger = bridge.ledger_of(engine)
    state = bridge.HOUSE.show(ledger.folded)
    timing: TimingView = vars(state)["timing"]
    set_up: TimingState = ledger.folded.states["timing"]
    tape, papers = _tape(ledger), bridge.HOUSE.papers(ledger.folded)
    drawings = drawings_on_paper(ledger.folded.document, vars(state)["run"].stands, _stood_deg(timing))
    shown = {
        "engine": engine,
        "document": ledger.folded.document,
        "judged_by": judged_by(ledger.folded.document.decision_rule),
        "timing": timing,
        "curves": _curves(timing),
        **proof_on_paper(state, _said),
        "warnings": [*same_day_signers(engine), *(say(warning, ON_PAPER) for warning in state.warnings)],
        "gauges": set_up.gauges.values(),
        "drawings": drawings,
        "front_drawing": _one_drawing(ledger, state) or (drawings[0] if drawings else ""),
        "photographs": photographs(ledger),
        "papers": parts_on_paper(papers, _said),
        "tape": tape,
        "missing": cannot_show("".join(f"{line.value}{line.detail}{line.by}{line.because}" for line, _ in tape)),
        "signed": ledger.folded.facts.get(SIGNED),
        "arcs": arcs(timing),
        "ticks": ticks(),
        "printed": timezone.localtime(),
        "misfit": ledger.misfit,
        "head": ledger.code,
        "shop_head": head_now().words,
        "code": square_code(f"{engine.serial} {ledger.head}"),
        "zone": timezone.get_current_timezone_name(),
        **first_start(ledger),
    }
    return {**shown, **first_page(ledger, papers, shown, _said)}
