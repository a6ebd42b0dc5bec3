"""Several like figures in one line of what was judged."""

__all__ = ["judged_mm"]

from collections.abc import Iterator, Sequence

from gurvo_core.ledger.paper import Judged, WordOfPaper
from gurvo_core.verdict import Verdict

WORST: tuple[Verdict, ...] = ("out", "can't tell", "no limit known", "in")


def judged_mm(name: str, wanted: str, read: Sequence[tuple[float, Verdict | None, bool]]) -> Iterator[Judged]:
    """What like figures came to: from the least to the most, with the word for the worst of them; nothing where none was read.

    read: each figure [mm] with its verdict, and whether somebody has taken it as it is.
    """
    if not read:
        return
    low, high = min(value for value, *_ in read), max(value for value, *_ in read)
    got = f"{low:.3f} mm" if f"{low:.3f}" == f"{high:.3f}" else f"{low:.3f} to {high:.3f} mm"
    yield Judged(what=f"{name}, {len(read)}" if len(read) > 1 else name, wanted=wanted, got=got, word=_word(read))


def _word(read: Sequence[tuple[float, Verdict | None, bool]]) -> WordOfPaper:
    apart = [is_taken for _, verdict, is_taken in read if verdict in ("out", "can't tell")]
    if apart and all(apart):
        return "accepted"
    worst = next((one for one in WORST if one in {verdict for _, verdict, _ in read}), None)
    return "" if worst is None or worst == "no limit known" else worst
