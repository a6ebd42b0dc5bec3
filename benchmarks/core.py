"""The core alone: replay, the frames of a cycle."""

from benchmarks.timing import p50_p95, times_ms
from engine.bridge import document_of
from gurvo_core.motion import cycle_frames
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
