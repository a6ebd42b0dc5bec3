"""The core alone: replay, the largest document checked, the frames of a cycle and of the twin."""

import json

from benchmarks.timing import p50_p95, times_ms
from demo.documents import FAMILIES
from engine.bridge import document_of
from gurvo_core.drive import show_twin
from gurvo_core.motion import cycle_frames, twin_frames
from gurvo_core.reading import read_document
from gurvo_core.work import replay
from work.bridge import ledger_of
from work.models import Engine


def measure(serial: str) -> None:
    """Print replay per 1,000 entries (and that it grows in a straight line) and the frames of a four-stroke cycle."""
    engine = Engine.objects.get(serial=serial)
    document, ledger = document_of(engine.revision_id), ledger_of(engine).entries
    half = p50_p95(times_ms(lambda: replay(document, ledger[:1000]), 20))[0]
    whole = p50_p95(times_ms(lambda: replay(document, ledger), 20))[0]
    print(f"replay per 1,000 entries        {1000 * whole / len(ledger):8.2f}   twice the ledger takes {whole / half:.2f} times as long")
    frames = p50_p95(times_ms(lambda: cycle_frames(document), 50))[0]
    print(f"frames of a cycle at 1 degree   {frames:8.2f}   {frames / whole:.2f} of a replay of {len(ledger)} entries")
    _documents(frames)


def _documents(cycle_ms: float) -> None:
    """Print what checking the largest family and working out its twin take."""
    largest = max(FAMILIES.glob("*.json"), key=lambda file: file.stat().st_size)
    data = json.loads(largest.read_text("utf-8"))
    parse = p50_p95(times_ms(lambda: json.loads(largest.read_text("utf-8")), 50))[0]
    check = p50_p95(times_ms(lambda: read_document(data), 50))
    engine = read_document(data)
    twin = p50_p95(times_ms(lambda: twin_frames(engine), 50))
    sent = p50_p95(times_ms(lambda: show_twin(engine, {}).model_dump_json(), 20))[0]
    ratios = check[0] / parse, twin[0] / cycle_ms
    print(f"check of the largest document   {check[0]:8.2f}   p95 {check[1]:.2f}, aim: under 50; {ratios[0]:.0f} times reading its JSON")
    print(f"its twin's frames               {twin[0]:8.2f}   p95 {twin[1]:.2f}, aim: under 60; {ratios[1]:.0f} times a bare cycle")
    print(f"its whole twin, ready to send   {sent:8.2f}   kept for each revision")
