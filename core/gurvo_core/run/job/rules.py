"""What more than one entry of the run must hold to, in the light of what stands; which marks are looked at in a step."""

__all__ = ["check_at", "check_looks", "check_put_on", "looks_at_stop", "looks_of", "planned_or_not", "step_doing"]

from collections.abc import Iterator, Sequence

from gurvo_core.clocks import read_clock
from gurvo_core.engine import WorkStep
from gurvo_core.errors import ReadingError
from gurvo_core.ledger import Doing, Objection, need
from gurvo_core.motion.told import told_by
from gurvo_core.run.job.entries import (
    MarkLook,
    ShaftAt,
)
from gurvo_core.run.job.off import own_looks
from gurvo_core.run.job.state import RunState
from gurvo_core.run.looks import LookAt, looks_at_turn, looks_while_laying, looks_while_parking
from gurvo_core.run.plan import PlanStep
from gurvo_core.sentence import listed

Objections = Iterator[Objection]
_DOING: dict[str, Doing] = {"park": "turn", "turn_over": "turn", "tighten": "tighten", "prime": "start", "first_start": "start"}


def step_doing(step: WorkStep) -> Doing:
    """What a step does, by the document."""
    return _DOING.get(step.does, "cover" if step.covers else "look")


def planned_or_not(now: RunState, step: str) -> PlanStep | Objection:
    """A step of the plan, or why there is none."""
    planned = now.plan.by_id.get(step)
    return planned or Objection("step", f"this engine's run has no step {step}; load the bench again")


def check_looks(asked: Sequence[LookAt], looks: Sequence[MarkLook]) -> Objections:
    """Each is looked at by its name, once; how far off is said only of what is off."""
    names, said = {one.id: one for one in asked}, {look.of: look for look in looks}
    yield from need(len(said) == len(looks), "looks", "one thing is said twice; say of each what was seen last")
    for name in said.keys() - names.keys():
        yield Objection(f"looks.{name}", f"nothing called {name} is looked at here; leave it out")
    for name, one in names.items():
        look = said.get(name)
        if look is None:
            yield Objection(f"looks.{name}", f"say what is seen of {one.name}: it {one.asks}, it is off, or it cannot be seen")
            continue
        yield from need(look.saw != "tool" or one.kind == "tool", f"looks.{name}", f"{one.name} is no tool: say whether it {one.asks}")
        far = look.teeth is not None or look.way is not None
        yield from need(look.saw in ("off", "less") or not far, f"looks.{name}", "how far is said only of what is off")
        yield from need(look.saw != "less" or look.teeth is None, f"looks.{name}", "less than a tooth is no count of teeth")


def check_put_on(now: RunState, thing_id: str) -> Objections:
    """A thing that is there, and not on already."""
    thing = now.document.thing(thing_id)
    if thing is None:
        yield Objection("thing", f"this engine's book has no thing {thing_id}")
        return
    on = now.on.get(thing_id, ())
    where = f" at {on[-1].place}" if on and on[-1].place else ""
    yield from need(len(on) < thing.count, "step", f"{thing.name} is on{where} already: take it off there first, then move it over")


def looks_of(now: RunState, step: WorkStep) -> tuple[LookAt, ...]:
    """What is looked at by name in a step that lays or parks: marks, coloured links, marks of one's own."""
    position = now.plan.position_at(step.id)
    if step.does == "lay":
        return (*looks_while_laying(now.document, step.loop, position), *own_looks(now))
    return looks_while_parking(now.document, position) if step.does == "park" else ()


def looks_at_stop(now: RunState, step: WorkStep, stop: int) -> tuple[LookAt, ...]:
    """What is looked at by name at a stop of turning over, counted from 1; marks of one's own where it ends."""
    turns, in_all = step.stops[stop - 1].turns, step.stops[-1].turns
    own = own_looks(now) if turns == in_all else ()
    return (*looks_at_turn(now.document, now.plan.position_at(step.id), in_all - turns, turns), *own)


def check_at(now: RunState, shaft: str, at: ShaftAt) -> Objections:
    """A place that the document tells of."""
    ways = told_by(now.document, shaft)
    names = listed([one.name for one in ways]) or "nothing yet: its marks have no clock position in the document"
    yield from need(at.of in {one.of for one in ways}, "at.of", f"where it stands is told by {names}")
    try:
        read_clock(at.clock)
    except ReadingError as error:
        yield Objection("at.clock", error.rule)
