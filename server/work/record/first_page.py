"""The page of a record that is for whoever pays: for whom, what is proven and how, what was judged, what is new, what was accepted."""

__all__ = ["first_page"]

from collections.abc import Callable, Iterable, Iterator, Sequence
from typing import Any

from django.utils import timezone

from gurvo_core.ledger import Paper
from gurvo_core.run.job.standing import parts_ready
from gurvo_core.sentence import at_start, listed, within
from gurvo_core.work import TapeLine
from shop.letterhead import letterhead
from work import bridge
from work.record.parts import first_rows, judged_lines
from work.record.proof import BY

Saying = Callable[[str], str]
MOST_PICTURES, MOST_ACCEPTED, MOST_CAME_IN = 3, 8, 8


def first_page(ledger: bridge.Ledger, papers: Sequence[Paper], more: dict[str, Any], say: Saying) -> dict[str, Any]:
    """Return what the first page says, by what the other pages show of the same record."""
    state = vars(ledger.shown)
    taken = [one for one in more["photographs"] if not one["is_past"]]
    makers = list(dict.fromkeys(entry.by for entry in ledger.entries))
    return {
        "shop": letterhead(),
        "order": state["order"],
        "proven": _proven(more["proofs"], say),
        "judged": list(judged_lines(papers, say)),
        "new": at_start(listed([within(name) for name in _new(ledger)])),
        "accepted": list(_accepted(line for line, _ in more["tape"]))[:MOST_ACCEPTED],
        "open": [say(end.title) for end in ledger.shown.loose_ends if not end.is_after and not end.clears],
        "shown_came_in": first_rows(papers)[:MOST_CAME_IN],
        "shown_pictures": taken[:MOST_PICTURES],
        "pictures_in_all": len(more["photographs"]),
        "built_by": listed(makers[:4]),
        "entries": len(ledger.entries),
    }


def _proven(proofs: list[dict[str, str]], say: Saying) -> dict[str, Any]:
    """By what the timing is proven, in a line for all camshafts, and what was seen of each."""
    lacking = [one["name"] for one in proofs if not one["by"]]
    looks = {one["look"] for one in proofs}
    ways = list(dict.fromkeys(BY[one["by"]] for one in proofs if one["by"]))
    if lacking:
        title = f"Not proven yet: {listed([within(name) for name in lacking])}"
    else:
        title = f"Timing proven by {listed(ways)}" if ways else ""
    look = "open" if lacking else "out" if "out" in looks else "tell" if "tell" in looks else "in"
    word = {"in": "in", "out": "out", "tell": "see below", "open": ""}[look]
    said = [", ".join(filter(None, (f"{one['name']}: {one['words']}", one["who"]))) for one in proofs if one["by"]]
    return {"title": title, "look": look, "word": word, "said": [say(one) for one in said]}


def _new(ledger: bridge.Ledger) -> Iterator[str]:
    said = parts_ready(ledger.folded.states["run"])
    yield from (part.name for part in ledger.folded.document.kit if said.get(part.id) == "new")


def _accepted(lines: Iterable[TapeLine]) -> Iterator[dict[str, Any]]:
    """What was taken although something was objected to, and what the lead accepted: by whom, when, and why."""
    for line in lines:
        if not line.struck and (line.because or line.kind in ("pull_decided", "fit_decided", "lash_decided", "step_skipped")):
            words = " ".join(filter(None, (line.title, line.value)))
            yield {"words": words, "why": line.because or line.detail, "by": line.by, "at": timezone.localtime(line.at)}
