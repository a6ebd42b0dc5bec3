"""What the clearway shows: where shafts stand, what may be turned and how far, what a camshaft under its springs wants."""

__all__ = ["facts_of", "loose_ends_of", "reach_of", "view_of", "warnings_of", "wary_of"]

from collections.abc import Iterator, Mapping
from typing import Any

from gurvo_core.clearway.job.caps import caps_words
from gurvo_core.clearway.job.state import ClearwayState, GapRead
from gurvo_core.clearway.job.thought import Reached, Thought, thought_of
from gurvo_core.clearway.job.view import ClearwayView, MeasuredView, ReachView, ShaftView
from gurvo_core.clearway.job.whereabouts import ShaftPlace
from gurvo_core.clearway.job.words import crank_words, own_deg, reach_words, rest_words, stands_words, tells_of
from gurvo_core.clearway.least import likely_meetings
from gurvo_core.clearway.stands import CRANK
from gurvo_core.ledger import CLEAR, CURRENT_STEP, Beside, Fact, Facts, LooseEnd, Reach, ShaftsTold, kept_last, kept_with, told_shafts
from gurvo_core.sentence import at_start, listed, within

LIKELY = 3


def _thought(now: ClearwayState, facts: Facts) -> Thought | None:
    """None where nobody has looked where any shaft stands: nothing is then said that was not said before."""
    told = told_shafts(facts)
    return thought_of(now, told) if told is not None and told.told and told.cams else None


def loose_ends_of(now: ClearwayState, facts: Facts) -> Iterator[LooseEnd]:
    """A camshaft that its springs would turn."""
    thought = _thought(now, facts)
    for shaft, rest in thought.rests.items() if thought else ():
        if thought is not None and rest.stays == "snaps":
            yield LooseEnd(
                title=f"{thought.names[shaft]} under spring load",
                since=thought.where.of(shaft).seq,
                holds_back=frozenset(),
                until=f"{rest_words(thought, shaft, rest)}: hold it or bring it to rest",
                kept_from="letting go",
            )


def facts_of(now: ClearwayState, facts: Facts) -> Mapping[Fact[Any], Any]:
    """What turning would meet, for whoever takes an entry that turns something."""
    thought = _thought(now, facts)
    return {CLEAR: thought} if thought is not None else {}


def reach_of(now: ClearwayState, facts: Facts) -> Iterator[Reach]:
    """How far the crank may be turned; what each camshaft may do stands beside it by name."""
    thought, told = _thought(now, facts), told_shafts(facts)
    parked = told is not None and told.parked is not None and not told.laid  # then it is turned no further anyway
    for one in thought.reached if thought and not parked else ():
        if thought is not None and one.shaft == CRANK and not one.is_free:
            yield Reach(how_far=crank_words(thought, one))


def wary_of(now: ClearwayState, facts: Facts) -> Iterator[str]:
    """Camshafts that want to turn; and those of which nobody can say that they are clear."""
    thought = _thought(now, facts)
    if thought is None:
        return
    loaded = [within(thought.names[shaft]) for shaft, rest in thought.rests.items() if rest.stays == "snaps"]
    if loaded:
        yield f"{loaded[0]} is under spring load" if len(loaded) == 1 else f"{len(loaded)} camshafts are under spring load"
    if thought.blind:
        names = listed([within(thought.names[cam]) for cam in thought.blind])
        yield f"of {names} too little is known to say how near its valves come"


def warnings_of(now: ClearwayState, facts: Facts) -> Iterator[str]:
    """What may have met at a dead stop, and the look that tells."""
    met = list(_met(now, facts))
    if met:
        look = "Look down the plug holes with a light before it is turned back the way it came."
        yield f"By the document likeliest here: {listed(met)}. {look}"


def _met(now: ClearwayState, facts: Facts) -> Iterator[str]:
    told, thought = told_shafts(facts), _thought(now, facts)
    stopped = [one for one in thought.where.places if one.then == "dead_stop"] if thought and told and told.stopped else []
    for place in stopped:
        if thought is None or thought.stands is None:
            return
        ways = [place.way] if place.way else [1, -1]
        found = [one for way in ways for one in likely_meetings(thought.ground, thought.stands, thought.where.key_of(place.shaft), way)]
        for one in sorted(found, key=lambda each: abs(each.off_deg))[:LIKELY]:
            off = own_deg(thought, thought.where.key_of(place.shaft), one.off_deg)
            yield f"{one.words}{f' ({off:.0f}° off)' if off >= 1 else ''}"


def view_of(now: ClearwayState, facts: Facts) -> ClearwayView | None:
    """All of it; None before anything can be turned by itself."""
    told = told_shafts(facts)
    if told is None or not told.cams:
        return None
    thought = thought_of(now, told)
    current = facts.get(CURRENT_STEP) or ""
    key = Beside(thought, current, *facts.values) if told.stopped else Beside(thought, current)
    return kept_last(now, "view", key, lambda: _view(now, facts, thought, told))


def _view(now: ClearwayState, facts: Facts, thought: Thought, told: ShaftsTold) -> ClearwayView:
    # nobody has looked: nothing is worked out of gaps and springs, but one can say where a shaft stands
    return ClearwayView(
        shafts=_shafts(thought, bool(told.told)),
        blind=[thought.names[cam] for cam in thought.blind] if told.told else [],
        asks=[thought.names[thought.where.key_of(shaft)] for shaft in thought.where.unknown],
        measured=[_measured(one) for one in now.read.values()],
        caps=list(caps_words(now.document, facts.get(CURRENT_STEP) or "")),
        met=[at_start(words) for words in _met(now, facts)],
    )


@kept_with
def _shafts(thought: Thought, looked: bool) -> list[ShaftView]:
    """As all stand; a step that is done moves nothing of it."""
    return [_shaft(thought, place, thought.reach_of(place.shaft) if looked else None, looked) for place in thought.where.places]


def _shaft(thought: Thought, place: ShaftPlace, reached: Reached | None, looked: bool) -> ShaftView:
    key, rest = thought.where.key_of(place.shaft), thought.rests.get(place.shaft) if looked else None
    return ShaftView(
        shaft=place.shaft,
        name=thought.names[key],
        how=place.how,
        place_deg=place.place_deg if place.is_known else None,
        words=stands_words(thought, place),
        rest=rest_words(thought, place.shaft, rest),
        loaded=rest is not None and rest.stays == "snaps",
        reach=_reach(thought, reached) if reached else None,
        told_by=tells_of(thought, key, round(place.place_deg) if place.is_known else None),
    )


def _reach(thought: Thought, reached: Reached) -> ReachView:
    return ReachView(
        forward_deg=own_deg(thought, reached.shaft, reached.forward_deg) if reached.forward else None,
        back_deg=own_deg(thought, reached.shaft, reached.back_deg) if reached.back else None,
        words=reach_words(thought, reached),
    )


def _measured(one: GapRead) -> MeasuredView:
    return MeasuredView(
        name=one.name,
        how=one.body.how,
        least_mm=one.least.value,
        expanded_mm=one.least.expanded,
        wanted_mm=one.least_mm,
        verdict=one.verdict,
        by=one.by,
    )
