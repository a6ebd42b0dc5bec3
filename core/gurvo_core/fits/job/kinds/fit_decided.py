"""What is done about a place that is out or cannot be told, or that is read anew."""

__all__ = ["KIND", "FitDecisionQuestion"]

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal

from gurvo_core.fits.job.entries import FitDecided
from gurvo_core.fits.job.named import named_today
from gurvo_core.fits.job.rules import NO_SUCH
from gurvo_core.fits.job.state import FitDecision, FitsState
from gurvo_core.fits.job.take import weighed, without_readings
from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, PlainQuestion, Topic, Words, need
from gurvo_core.verdict import Verdict


class FitDecisionQuestion(PlainQuestion):
    """What is done about a place that is out or cannot be told."""

    kind: Literal["fit_decided"] = "fit_decided"
    step: str
    fit: str
    place: str
    verdict: Verdict


TOPIC = Topic(
    id="fit_decided",
    title="Out, or not to be told",
    drawing="bore",
    meant="A clearance outside its limits, or so near that these gauges cannot tell.",
    by_hand=["Measure once more with a better gauge, change the part, or let the lead accept it with a reason."],
    goes_wrong=["It is measured again until it is in."],
)


DECIDED = {"accepted": "accepted by the lead", "read_again": "is read again", "replaced": "has another part"}


def _say(body: FitDecided) -> Words:
    """What is done about a place."""
    return Words(title=body.called or body.place, value=DECIDED[body.decision], detail=body.reason, look_again=body.decision != "accepted")


def _check(now: FitsState, body: FitDecided, _facts: Facts) -> Iterator[Objection]:
    """A place that was read, and who may say what of it."""
    fit = now.book.in_step(body.step, body.fit)
    if fit is None or body.place not in fit.at_place:
        yield Objection("place", NO_SUCH)
        return
    yield from need(bool(body.reason), "reason", "say why")
    read = now.of_fit(body.fit)
    yield from need(any(spot.key in read for spot in fit.at_place[body.place]), "place", "nothing has been read there yet")
    if body.decision != "accepted":
        return
    stands = now.stands(body.fit, body.place)
    verdict = stands.judged.verdict if stands else None
    yield from need(verdict in ("out", "can't tell"), "decision", "there is nothing to accept: it is not out, and it can be told")
    if verdict is not None:
        rule = f"{fit.names_place(body.place)} {'is out' if verdict == 'out' else 'cannot be told'}: only the lead accepts that"
        yield Objection("decision", f"{rule}, with the reason", "lead and reason")


def _take(now: FitsState, entry: LedgerEntry, body: FitDecided) -> FitsState:
    """Accepted by the lead; or its readings are gone, and it is read again."""
    fit = now.book.in_step(body.step, body.fit)
    if fit is None or body.place not in fit.at_place:
        return now
    if body.decision == "accepted":
        decision = FitDecision(seq=entry.seq, decision=body.decision, reason=body.reason, by=entry.by)
        return weighed(replace(now, decided={**now.decided, (body.fit, body.place): decision}), fit, [])
    because = f"{fit.names_place(body.place)} {'has another part' if body.decision == 'replaced' else 'is read again'}: {body.reason}"
    opened = {**now.opened, body.step: (entry.seq, because)} if body.step in now.complete else now.opened
    now = without_readings(replace(now, opened=opened), fit, {spot.key for spot in fit.at_place[body.place]})
    return weighed(now, fit, [body.place])


KIND: Kind[FitDecided, FitsState] = Kind(
    body=FitDecided,
    question=FitDecisionQuestion,
    topic=TOPIC,
    happening="clearance decided",
    does="decide",
    completes=named_today,
    words=_say,
    take=_take,
    check=_check,
)
