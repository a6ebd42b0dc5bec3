"""The page of a record that is for whoever pays: for whom, what is proven and how, what was judged, what is new, what was accepted."""

__all__ = ["first_page"]

from collections.abc import Callable, Iterable, Iterator
from typing import Any

from django.utils import timezone

from gurvo_core.joints.job.paper import JointPaper
from gurvo_core.run.job.standing import parts_ready
from gurvo_core.sentence import at_start, listed, within
from gurvo_core.work import TapeLine
from shop.letterhead import letterhead
from work import bridge
from work.record.proof import BY

Rows = Iterator[dict[str, str]]
Saying = Callable[[str], str]
MOST_PICTURES, MOST_ACCEPTED, MOST_CAME_IN = 3, 8, 8
WORST = ("out", "can't tell", "no limit known", "in")


def first_page(ledger: bridge.Ledger, more: dict[str, Any], say: Saying) -> dict[str, Any]:
    """Return what the first page says, by what the other pages show of the same record."""
    state = vars(ledger.shown)
    taken = [one for one in more["photographs"] if not one["is_past"]]
    makers = list(dict.fromkeys(entry.by for entry in ledger.entries))
    return {
        "shop": letterhead(),
        "order": state["order"],
        "proven": _proven(more["proofs"], say),
        "judged": [*_fits(more["fits"]), *_lashes(more["lashes"]), *_joints(joint for joint, _ in more["joints"])],
        "new": at_start(listed([within(name) for name in _new(ledger)])),
        "accepted": list(_accepted(line for line, _ in more["tape"]))[:MOST_ACCEPTED],
        "open": [say(end.title) for end in ledger.shown.loose_ends if not end.is_after and not end.clears],
        "shown_came_in": more["came_in"][:MOST_CAME_IN],
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


def _fits(fits: Iterable[dict[str, Any]]) -> Rows:
    for fit in fits:
        got = [float(row["value"]) for row in fit["rows"] if row["value"]]
        if got:
            wanted = "" if fit["limits"] == "no limit known" else fit["limits"]
            yield _row(_counted(fit["name"], len(got)), wanted, _range(got), fit["rows"])


def _lashes(lashes: Iterable[dict[str, Any]]) -> Rows:
    for lash in lashes:
        got = [float(row["left"]) for row in lash["rows"] if row["left"]]
        if got:
            yield _row(_counted("Valve clearances", len(got)), lash["limits"], _range(got), lash["rows"])


def _joints(joints: Iterable[JointPaper]) -> Rows:
    for joint in joints:
        flagged = [one for one in joint.flagged if not one.decided]
        values = [one.value for one in joint.siblings]
        got = f"{min(values):g} to {max(values):g}" if len(set(values)) > 1 else f"{values[0]:g}" if values else "all done"
        word = "see below" if flagged else "accepted" if joint.flagged else "in" if values and any(joint.windows) else ""
        what = _counted(joint.name, len(joint.rows))
        yield {"what": what, "wanted": " + ".join(joint.stages), "got": got, "word": word, "look": _look(word)}


def _row(what: str, wanted: str, got: str, rows: list[dict[str, Any]]) -> dict[str, str]:
    verdict = next((one for one in WORST if one in [row["verdict"] for row in rows]), "")
    apart = [row for row in rows if row["verdict"] in ("out", "can't tell")]
    taken = bool(apart) and all(row["decided"] for row in apart)
    word = "accepted" if taken else "" if verdict == "no limit known" else verdict
    return {"what": what, "wanted": wanted, "got": got, "word": word, "look": _look(word)}


def _look(word: str) -> str:
    return {"in": "in", "out": "out", "": "open"}.get(word, "tell")


def _range(values: list[float]) -> str:
    low, high = min(values), max(values)
    return f"{low:.3f} mm" if low == high else f"{low:.3f} to {high:.3f} mm"


def _counted(name: str, count: int) -> str:
    return f"{name}, {count}" if count > 1 else name


def _new(ledger: bridge.Ledger) -> Iterator[str]:
    said = parts_ready(ledger.folded.states["run"])
    yield from (part.name for part in ledger.folded.document.kit if said.get(part.id) == "new")


def _accepted(lines: Iterable[TapeLine]) -> Iterator[dict[str, Any]]:
    """What was taken although something was objected to, and what the lead accepted: by whom, when, and why."""
    for line in lines:
        if not line.struck and (line.because or line.kind in ("pull_decided", "fit_decided", "lash_decided", "step_skipped")):
            words = " ".join(filter(None, (line.title, line.value)))
            yield {"words": words, "why": line.because or line.detail, "by": line.by, "at": timezone.localtime(line.at)}
