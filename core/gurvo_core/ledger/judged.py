"""Several like figures in one line of what was judged."""

__all__ = ["APART", "counted", "judged_mm"]

from collections.abc import Sequence

from gurvo_core.ledger.paper import Judged, WordOfPaper
from gurvo_core.verdict import Verdict

APART: tuple[Verdict, ...] = ("out", "can't tell")  # what is looked at again
WORST: tuple[Verdict, ...] = (*APART, "no limit known", "in")


def counted(name: str, number: int) -> str:
    """A name with how many there are of it, where it is not one alone."""
    return f"{name}, {number}" if number > 1 else name


def judged_mm(name: str, wanted: str, read: Sequence[tuple[float, Verdict | None, bool]]) -> Judged | None:
    """What like figures came to: from the least to the most, with the word for the worst of them; None where none was read.

    read: each figure [mm] with its verdict, and whether somebody has taken it as it is.
    """
    if not read:
        return None
    low, high = min(value for value, *_ in read), max(value for value, *_ in read)
    got = f"{low:.3f} mm" if f"{low:.3f}" == f"{high:.3f}" else f"{low:.3f} to {high:.3f} mm"
    return Judged(what=counted(name, len(read)), wanted=wanted, got=got, word=_word(read))


def _word(read: Sequence[tuple[float, Verdict | None, bool]]) -> WordOfPaper:
    apart = [is_taken for _, verdict, is_taken in read if verdict in APART]
    if apart and all(apart):
        return "accepted"
    worst = next((one for one in WORST if one in {verdict for _, verdict, _ in read}), None)
    return "" if worst is None or worst == "no limit known" else worst
