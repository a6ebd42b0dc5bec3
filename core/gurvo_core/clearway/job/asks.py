"""The way to where a step wants crank and camshafts: asked move by move before it, once somebody has said where they all stand."""

__all__ = ["ask_moves"]

from collections.abc import Iterator, Mapping, Sequence
from functools import lru_cache

from gurvo_core.angles import signed_deg
from gurvo_core.clearway.choose import Choice
from gurvo_core.clearway.ground import CYCLE
from gurvo_core.clearway.job.state import ClearwayState
from gurvo_core.clearway.job.thought import Thought, thought_of
from gurvo_core.clearway.job.view import MoveQuestion, MoveWay
from gurvo_core.clearway.job.words import gap_view, move_views
from gurvo_core.clearway.stands import CRANK, Stands
from gurvo_core.engine import EngineDocument, WorkStep
from gurvo_core.engine.same import Same
from gurvo_core.ledger import DONE_ELSEWHERE, STEPS_DONE, WHY_STEP_WAITS, Facts, ShaftsTold, Step, told_shafts
from gurvo_core.sentence import listed, within

OVER = ("turn_over", "find_tdc")  # turned right round, or nearly: from one side of a stop to the other
THERE_DEG = 3  # nearer than this a shaft is where it must be: that is for its marks to say


def ask_moves(now: ClearwayState, steps: Mapping[str, Step], facts: Facts) -> Mapping[str, Sequence[MoveQuestion]]:
    """The next move before each step that can be done, wants a shaft elsewhere, and whose way was not left."""
    told = told_shafts(facts)
    if told is None or not told.told or not told.cams or told.stopped:
        return {}  # nobody has looked where anything stands, or something was met: steps ask as they always did
    found, thought = {}, thought_of(now, told)
    for planned in _to_be_done(now, steps, facts):
        goal = goal_of(now.document, planned, told, thought)
        if goal:
            found[planned.id] = [_question(steps[planned.id], thought, goal)]
    return found


def _to_be_done(now: ClearwayState, steps: Mapping[str, Step], facts: Facts) -> Iterator[WorkStep]:
    """Steps that want shafts somewhere and that nothing keeps from being done."""
    done, elsewhere, why = facts.get(STEPS_DONE) or (), facts.get(DONE_ELSEWHERE) or (), facts.get(WHY_STEP_WAITS)
    for key, planned in _steps(Same(now.document)).items():
        if key in steps and key not in now.left and key not in done and planned.does not in elsewhere and not (why and why(key, facts)):
            yield planned


@lru_cache(maxsize=64)
def _steps(of: Same) -> Mapping[str, WorkStep]:
    """The steps that want shafts somewhere, by their ids."""
    listed_ones = [step for stage in of.document.stages for step in stage.listed]
    return {step.id: step for step in listed_ones if step.does in (*OVER, "park", "lay", "put_on")}


def goal_of(document: EngineDocument, step: WorkStep, told: ShaftsTold, thought: Thought) -> tuple[tuple[str, int], ...]:
    """Return where a step wants shafts that turn by themselves, by crank degrees; nothing where they are there, or nobody knows."""
    stands = thought.stands
    if stands is None:
        return ()
    if step.does in OVER:
        return tuple(sorted(thought.out_of_the_way().items()))
    goal = dict(_wanted(document, step, told, stands))
    off = {shaft: place for shaft, place in goal.items() if _is_off(stands, shaft, place)}
    return tuple(sorted(goal.items())) if off else ()


def _is_off(stands: Stands, shaft: str, place: int) -> bool:
    circle = CYCLE // 2 if shaft == CRANK and not stands.coupled else CYCLE
    return abs(signed_deg(stands.place(shaft) - place, circle)) > THERE_DEG


def _wanted(document: EngineDocument, step: WorkStep, told: ShaftsTold, stands: Stands) -> list[tuple[str, int]]:
    if step.does == "park":
        known = step.position is not None and document.is_placed(step.position)
        return [(CRANK, round(document.position_deg(step.position)))] if known and step.position else []
    if told.parked is None or not document.is_placed(told.parked):
        return []
    place = round(document.position_deg(told.parked))
    if step.does == "lay":
        stage = next((one for one in document.drive.stages if one.id == step.loop), None)
        on = {document.drive.wheel(wheel).shaft for wheel in stage.wheel_ids} if stage else set()
    else:
        thing = document.thing(step.thing)
        at = dict(zip(thing.places, thing.holds, strict=False)) if thing and len(thing.places) == len(thing.holds) else {}
        on = ({at[step.place]} if step.place in at else set(thing.holds)) if thing else set()
    firsts = {stands.first_of(cam): cam for cam in stands.cams if cam in on and cam not in stands.coupled}
    # of camshafts that are tied to each other the first is turned, as far as any of them has to go
    cams = [(first, (place + stands.cams[first] - stands.cams[cam]) % CYCLE) for first, cam in firsts.items()]
    return [(CRANK, place), *cams] if cams else []


def _question(step: Step, thought: Thought, goal: tuple[tuple[str, int], ...]) -> MoveQuestion:
    choices = thought.ways(goal)
    if not choices:
        return _no_way(step, thought, goal)
    ways = [_way_view(thought, choice) for choice in choices]
    first = ways[0].moves[0]
    count = len(ways[0].moves)
    return MoveQuestion(
        key=f"{step.key}:way",
        title=f"{first.name}: {first.turn_deg:.0f}°",
        ask=f"{first.words}.",
        hint=f"Move 1 of {count} to “{step.title}”. {first.hold or 'By hand, feeling.'}",
        status="open",
        waits=f"{within(first.name)} on its way to “{step.title}”",
        doing="turn" if choices[0].moves[0].shaft == CRANK else "",
        step=step.key,
        ways=ways,
        near=[],
        opens=[],
    )


def _no_way(step: Step, thought: Thought, goal: tuple[tuple[str, int], ...]) -> MoveQuestion:
    near, without = thought.opens(goal)
    names = [within(thought.names[cam]) for cam in without]
    opened = f" With {' or '.join(names)} out there is one." if names else ""
    met = f"Where they stand, {listed([gap.words for gap in near[:2]])} may touch already." if near else ""
    return MoveQuestion(
        key=f"{step.key}:way",
        title=f"No way to “{step.title}”",
        ask=f"No way was found to “{step.title}” that is clear.",
        hint=f"{met}{opened} Look where they really stand before anything is turned; then by feel, on your own word.".strip(),
        status="open",
        waits="a clear way",
        step=step.key,
        ways=[],
        near=[gap.words for gap in near[:4]],
        opens=names,
    )


def _way_view(thought: Thought, choice: Choice) -> MoveWay:
    stands = thought.stands
    assert stands is not None  # ways are looked for from somewhere
    moves, least = move_views(thought, stands, choice), choice.least
    turned = [move.shaft for move in choice.moves if move.shaft != CRANK]
    camshaft = turned[0] if turned else least.valve.camshaft if least is not None else next(iter(stands.cams))
    path = [[stands.crank, stands.cams[camshaft]]]
    for move in choice.moves:
        # turned on from where it was, so that a drawing sees which way round it went
        crank, cam = path[-1]
        path.append([crank + (move.by if move.shaft == CRANK else 0), cam + (move.by if camshaft in stands.along(move.shaft) else 0)])
    return MoveWay(moves=moves, gap=gap_view(least), better=choice.better, level=choice.way.level, path=path, camshaft=camshaft)
