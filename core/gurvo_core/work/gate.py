"""The one gate before the ledger: what holds an entry back, whatever its kind, and what each room says of its own."""

__all__ = ["check_entry", "held_back", "permission_of"]

from collections.abc import Iterator, Mapping
from itertools import chain
from typing import Any

from gurvo_core.errors import AskFirst, EntryRefused
from gurvo_core.ledger import NOW, Body, Doing, Fact, Facts, Folded, Kind, Objection, Room, Strike, find_kind, kept_with, known_gauge
from gurvo_core.sentence import within
from gurvo_core.work.hand_over import SIGNED, SignOff
from gurvo_core.work.state import Permission

NOT_NOW: dict[Doing, str] = {
    "turn": "do not turn: ",
    "tighten": "do not tighten: ",
    "cover": "do not cover: ",
    "start": "do not start: ",
}


def held_back(folded: Folded, doing: Doing) -> list[str]:
    """Return why something may not be done now. Every kind says what it does, and one gate asks before it is taken."""
    return _all_held_back(folded).get(doing, [])


@kept_with
def _all_held_back(folded: Folded) -> dict[str, list[str]]:
    """Why, by what would be done: it is asked of everything that may be done, after every entry."""
    found: dict[str, list[str]] = {}
    ends = ((f"{within(end.title)}: {end.until}", end.holds_back) for end in folded.loose_ends if end.holds_back)
    for reason, held in chain(ends, ((hold.reason, hold.holds_back) for hold in folded.holds)):
        for doing in held:
            found.setdefault(doing, []).append(reason)
    return found


def permission_of(folded: Folded) -> Permission:
    """Return whether the crank may be turned.

    Source: Practice: plugs out, stand locked, by hand; never against a stop that has done its work.
    >>> permission_of(fold(ROOMS, quern_4(), [])).free
    False
    """
    reasons = held_back(folded, "turn")
    if folded.facts.get(SIGNED) is not None:
        reasons = reasons[:-1]  # a signature holds back entries, not the crank
    if reasons:
        return Permission(free=False, careful=False, title="Do not turn", reasons=reasons, way="", how_far="")
    care = [word for room in folded.rooms for word in room.care(folded.states[room.name], folded.facts)]
    wary = [word for room in folded.rooms for word in room.wary(folded.states[room.name], folded.facts)]
    reach = [one for room in folded.rooms for one in room.reach(folded.states[room.name], folded.facts)]
    way = next((one.way for one in reach if one.way), "")
    how_far = "; ".join(one.how_far for one in reach if one.how_far)
    title = "Turn with care" if wary or how_far else "Free to turn"
    return Permission(free=True, careful=bool(wary or how_far), title=title, reasons=wary + care, way=way, how_far=how_far)


def check_entry(folded: Folded, body: Body, more: Mapping[Fact[Any], Any], *, because: str = "", is_lead: bool = False) -> None:
    """Refuse an entry that cannot be, or cannot be now.

    Raises CoreError with the field and one sentence: ``EntryRefused`` when it cannot be, ``AskFirst`` when somebody may take it all the
    same.
    Every kind says what it does, and one gate asks before it is taken.
    """
    if isinstance(body, Strike):
        _check_strike(folded, body)
        return
    room, kind = _find(folded, body)
    state = folded.states[room.name]
    _check_gate(folded, body, kind, state)
    facts = folded.facts.joined(more)
    for objection in chain(_no_such_gauge(kind, body, facts), kind.check(state, body, facts), _ran_out(kind, body, facts)):
        if objection.way_out == "none":
            raise EntryRefused(objection.field, None, objection.rule)
        if not because or (objection.way_out == "lead and reason" and not is_lead):
            raise AskFirst(objection.field, objection.rule, objection.way_out)


def _find(folded: Folded, body: Body) -> tuple[Room[Any], Kind[Any, Any]]:
    found = find_kind(folded.rooms, body.kind)
    assert found is not None  # only strikes belong to no room
    return found


def _no_such_gauge(kind: Kind[Any, Any], body: Body, facts: Facts) -> Iterator[Objection]:
    for named in kind.gauges(body):
        gauge = known_gauge(facts, named.code)
        if gauge is None or gauge.kind not in named.kinds:
            yield Objection(named.field, f"there is no {named.called} called {named.code}; choose one of the gauges")


def _ran_out(kind: Kind[Any, Any], body: Body, facts: Facts) -> Iterator[Objection]:
    """After what the kind itself has to say: a gauge that is overdue may be used for a reason."""
    clock = facts.get(NOW)
    for named in kind.gauges(body):
        gauge = known_gauge(facts, named.code)
        if clock is not None and gauge is not None and gauge.due is not None and gauge.due < clock.date():
            late = f"the calibration of {gauge.id} ran out on {gauge.due:%d %b %Y}"
            yield Objection(named.field, f"{late}: take another, or say why not", "reason")


def _check_gate(folded: Folded, body: Body, kind: Kind[Any, Any], state: Any) -> None:
    doing: Doing = kind.doing(state, body) if kind.doing else kind.does
    reasons = held_back(folded, doing)
    if not reasons:
        return
    signed = folded.facts.get(SIGNED) is not None and not isinstance(body, SignOff)
    words = reasons[-1] if signed else NOT_NOW.get(doing, "") + "; ".join(reasons)
    raise EntryRefused("kind", None, words)


def _objections(folded: Folded, body: Strike) -> Iterator[tuple[str, str]]:
    place = folded.place.get(body.strikes)
    if place is None:
        yield "strikes", "there is no such entry in this engine's ledger"
        return
    target = folded.entries[place]
    if isinstance(target.body, Strike):
        yield "strikes", "a strike cannot be struck: make the entry again instead"
        return
    _, kind = _find(folded, target.body)
    if kind.stays:
        yield "strikes", kind.stays
    if body.strikes in folded.struck:
        yield "strikes", "this entry is struck already"
    if not body.reason:
        yield "reason", "say why it is struck, in a word or two"
    signed = folded.facts.get(SIGNED)
    if signed is not None and target is not signed:
        yield "strikes", "the record is signed: strike the signature first"


def _check_strike(folded: Folded, body: Strike) -> None:
    for field, rule in _objections(folded, body):
        raise EntryRefused(field, str(body.strikes), rule)
