"""How the valves are reached, with what they are read, and that the engine is as it must be."""

__all__ = ["KIND"]

from collections.abc import Iterator

from gurvo_core.lash.job.book import LashValve
from gurvo_core.lash.job.entries import LashReady
from gurvo_core.lash.job.figures import typed_deg
from gurvo_core.lash.job.named import feelers_named
from gurvo_core.lash.job.rules import NO_SUCH, ONCE_DONE
from gurvo_core.lash.job.state import LashState
from gurvo_core.lash.job.take import take_ready
from gurvo_core.ledger import Facts, Kind, Objection, Words, known_gauge, may_be_done, need

WAYS = {"fewest": "in the fewest stops", "book": "by the book's stops", "firing": "each cylinder at its firing TDC"}


def _say(body: LashReady) -> Words:
    """Which way, with what."""
    said = [WAYS[body.way], f"engine {body.engine_is}", f"feelers {body.gauge}" if body.gauge else "no feelers named"]
    said += [f"crank at {body.stands_deg}°"] if body.stands_deg else []
    return Words(title="Valve clearances, before the first", detail=", ".join(said))


def _check(now: LashState, body: LashReady, facts: Facts) -> Iterator[Objection]:
    """The engine as the book has it, feelers of the shelf, a way that there is."""
    valves = now.book.valves(body.step)
    if not valves:
        yield Objection("step", NO_SUCH)
        return
    yield from may_be_done(body.step, facts, ONCE_DONE)
    typed_deg(body.stands_deg)
    asked = {one.lash.engine_is for one in valves.values() if one.lash}
    rule = f"the book has the clearances of a {' and a '.join(sorted(asked))} engine: wait, or say why not"
    yield from need(not asked or body.engine_is in asked, "engine_is", rule, "reason")
    yield from need(body.way != "book" or bool(now.document.lash_stops), "way", "this document has no stops of its own: take the fewest")
    if body.gauge is None:
        hydraulic = all(one.lash is not None and one.lash.set_by == "hydraulic" for one in valves.values())
        yield from need(hydraulic, "gauge", "no feelers are named: take a set of the shelf, or say by what it is read", "reason")
        return
    gauge = known_gauge(facts, body.gauge)
    if gauge is None:
        return  # the gate says so
    narrow = _narrowest(list(valves.values()))
    rule = f"leaves of {gauge.id} are {gauge.resolution:g} mm apart and the limits only {narrow or 0:g}: nothing could be in"
    fine_enough = narrow is None or 2 * (gauge.resolution / 12**0.5) <= narrow / 2
    yield from need(fine_enough, "gauge", f"{rule}; take finer ones, or say why not", "reason")


def _narrowest(valves: list[LashValve]) -> float | None:
    widths = [high - low for low, high in (one.limits_mm for one in valves) if low is not None and high is not None and high > low]
    return min(widths) if widths else None


KIND: Kind[LashReady, LashState] = Kind(body=LashReady, does="look", words=_say, take=take_ready, check=_check, gauges=feelers_named)
