"""What the book forgets: steps that can never be done, and things begun that no step ends."""

__all__ = ["run_faults"]

from collections import Counter
from collections.abc import Iterator

from gurvo_core.engine import EngineDocument, LoopStage, WorkStep
from gurvo_core.engine.checks.links import missing
from gurvo_core.errors import Fault
from gurvo_core.run.plan import Plan, has_run, plan_of

# which names a step must give for what it does
_NAMES: dict[str, tuple[str, ...]] = {
    "put_on": ("thing",),
    "take_off": ("thing",),
    "park": ("position",),
    "lay": ("loop",),
    "tension": ("loop", "how_far"),
    "tighten": ("joint",),
    "measure": ("fits",),
    "turn_over": ("stops",),
    "ready": ("parts",),
}


def run_faults(document: EngineDocument) -> list[Fault]:
    """Return the faults of a document's run of work.

    Source: Practice: what is put on comes off, what is left loose is come back to, what is tensioned is proven.
    >>> run_faults(quern_4())
    []
    """
    if not has_run(document):
        return []
    faults = [*_names(document), *_twice(document)]
    if faults:
        return faults
    plan = plan_of(document, every=True)
    faults = [
        *_circles(document, plan),
        *_things(document, plan),
        *_joints(document, plan),
        *_reported(document, plan),
        *_tensioners(document, plan),
    ]
    return faults or list(_held_for_ever(document, plan))


def _steps(document: EngineDocument) -> Iterator[tuple[str, WorkStep]]:
    for at, stage in enumerate(document.stages):
        yield from ((f"stages.{at}.steps.{n}", step) for n, step in enumerate(stage.steps) if isinstance(step, WorkStep))


def _path(document: EngineDocument, step_id: str) -> str:
    return next((path for path, step in _steps(document) if step.id == step_id), "stages")


def _names(document: EngineDocument) -> Iterator[Fault]:
    loops, shafts = {stage.id for stage in document.drive.stages}, {shaft.id for shaft in document.drive.shafts}
    positions, joints = {one.id for one in document.timing_positions}, {one.id: one for one in document.joints}
    things, parts, fits = {one.id for one in document.things}, {one.id for one in document.kit}, {one.id for one in document.fits}
    options = {option.id for group in document.variants for option in group.options}
    steps, cams = {step.id for _, step in _steps(document)}, {cam.id for cam in document.camshafts}
    one_of = {
        "coupling": {one.id for one in document.drive.couplings},
        "thing": things,
        "position": positions,
        "loop": loops,
        "joint": joints,
        "until": steps,
        "only_in": options,
    }
    many_of = {"parts": parts, "fits": fits}
    needed = {"done": steps, "parked": positions, "on": things, "off": things, "held": shafts, "tensioned": loops, "proven": loops}
    needed |= {"decided": cams, "cured": steps}
    for path, step in _steps(document):
        for key in _NAMES.get(step.does, ()):
            if not getattr(step, key):
                yield Fault(path=f"{path}.{key}", sentence=f"A step that does {step.does} says its {key}; give it.")
        for key, known in one_of.items():
            yield from missing(f"{path}.{key}", getattr(step, key), known, key.replace("_", " "))
        for key, known in many_of.items():
            yield from (fault for n, name in enumerate(getattr(step, key)) for fault in missing(f"{path}.{key}.{n}", name, known, key))
        for n, need in enumerate(step.needs):
            key, named = need.given
            where = f"{path}.needs.{n}.{key}"
            if key == "tight":
                yield from missing(f"{where}.joint", named.joint, joints, "joint")
                yield from _stage(where, named.stage, len(joints[named.joint].stages) if named.joint in joints else 12)
            elif key in needed:
                yield from missing(where, named, needed[key], key)
            there = {place for thing in document.things if named in (thing.id, *thing.holds) for place in thing.places}
            yield from missing(f"{path}.needs.{n}.place", need.place, there, "place")
        if step.joint in joints and step.stage:
            yield from _stage(path, step.stage, len(joints[step.joint].stages))
    for at, thing in enumerate(document.things):
        yield from (fault for n, name in enumerate(thing.holds) for fault in missing(f"things.{at}.holds.{n}", name, shafts, "shaft"))
        yield from missing(f"things.{at}.position", thing.position, positions, "timing position")
    for at, part in enumerate(document.kit):
        yield from missing(f"kit.{at}.only_in", part.only_in, options, "option")


def _stage(path: str, stage: int, count: int) -> Iterator[Fault]:
    if stage > max(count, 1):
        yield Fault(path=f"{path}.stage", sentence=f"This is stage {stage} of a joint that has {count}; give one of them.")


def _twice(document: EngineDocument) -> Iterator[Fault]:
    options = [option.id for group in document.variants for option in group.options]
    groups = {
        "stages": [step.id for _, step in _steps(document)],
        "things": [thing.id for thing in document.things],
        "kit": [part.id for part in document.kit],
        "variants": options,
    }
    for path, names in groups.items():
        for name, count in Counter(names).items():
            if count > 1:
                yield Fault(path=path, sentence=f"{count} are called {name} here; give each an id of its own.")


def _circles(document: EngineDocument, plan: Plan) -> Iterator[Fault]:
    """Steps that wait for each other, however far round."""
    left = {one.step.id: one.needs for one in plan.steps}
    while free := [name for name, needs in left.items() if not needs & left.keys()]:
        for name in free:
            del left[name]
    if left:
        sentence = f"These steps wait for each other and can never be done: {', '.join(left)}; let one of them need less."
        yield Fault(path=f"{_path(document, next(iter(left)))}.needs", sentence=sentence)


def _things(document: EngineDocument, plan: Plan) -> Iterator[Fault]:
    names = {thing.id: thing.name for thing in document.things}
    on: list[tuple[str, str | None]] = []
    for one in plan.steps:
        step = one.step
        if step.does == "put_on" and step.thing:
            on.append((step.thing, step.place))
        elif step.does == "take_off" and step.thing:
            found = next((put for put in on if put[0] == step.thing and (step.place is None or put[1] in (None, step.place))), None)
            if found is None:
                sentence = f"{names[step.thing]} is taken off here and was never put on; put it on in an earlier step."
                yield Fault(path=_path(document, step.id), sentence=sentence)
            else:
                on.remove(found)
    for thing, place in on:
        last = [one.step.id for one in plan.steps if one.step.thing == thing and one.step.place == place][-1]
        sentence = f"{names[thing]} is put on here and no later step takes it off: the book forgets it; add that step."
        yield Fault(path=_path(document, last), sentence=sentence)


def _joints(document: EngineDocument, plan: Plan) -> Iterator[Fault]:
    """A joint that is begun is brought to its last stage."""
    stages = {joint.id: (joint.name, joint.last_stage) for joint in document.joints}
    reached: dict[str, tuple[int, str]] = {}
    for one in plan.steps:
        step = one.step
        if step.joint and step.does in ("fit", "tighten"):
            reached[step.joint] = ((step.stage or stages[step.joint][1]) if step.does == "tighten" else 0, step.id)
    for joint, (stage, step_id) in reached.items():
        name, last = stages[joint]
        if stage < last:
            left = f"at stage {stage} of {last}" if stage else "finger tight"
            sentence = f"{name} are left {left} here and no later step comes back to them: the book forgets them; add that step."
            yield Fault(path=_path(document, step_id), sentence=sentence)


def _reported(document: EngineDocument, plan: Plan) -> Iterator[Fault]:
    """Whoever pulls a joint bolt by bolt, or measures place by place, does not sign it in the same step."""
    for one in plan.steps:
        if one.step.id in plan.reported and one.step.hold_point:
            sentence = "What is entered one by one is no hold point itself; add a step after it for the signature."
            yield Fault(path=f"{_path(document, one.step.id)}.hold_point", sentence=sentence)


def _held_for_ever(document: EngineDocument, plan: Plan) -> Iterator[Fault]:
    """A cover over a joint that is tightened only after it; a turn with something in that comes out only after it."""
    things, joints = {thing.id: thing for thing in document.things}, {joint.id: joint.name for joint in document.joints}
    below = {one.step.id: plan.below(one.step.id) for one in plan.steps}
    for one in plan.steps:
        is_turn = one.step.does in ("park", "turn_over")
        if not is_turn and not one.step.covers:
            continue
        later = [other.step for other in plan.steps if one.step.id in below[other.step.id]]
        begun = [plan.by_id[name].step for name in below[one.step.id]]
        for step in begun:
            words = ""
            if step.does == "put_on" and step.thing in {other.thing for other in later if other.does == "take_off"}:
                off = any(other.does == "take_off" and other.thing == step.thing for other in begun)
                thing = things[step.thing or ""]
                words = f"{thing.name} is on here and comes off only afterwards" if not off and (not is_turn or thing.stops_turning) else ""
            elif one.step.covers and step.joint and step.joint != one.step.joint and step.does == "fit":
                finals = [other for other in plan.of_joint[step.joint] if other.does == "tighten"]
                late = finals and finals[-1] in later
                words = f"{joints[step.joint]} are tight only afterwards" if late else ""
            if words:
                doing = "turn" if is_turn else "cover"
                sentence = f"{words}, so this {doing} can never be done; change the order, or what the steps need."
                yield Fault(path=_path(document, one.step.id), sentence=sentence)


def _tensioners(document: EngineDocument, plan: Plan) -> Iterator[Fault]:
    loops = {stage.id: stage for stage in document.drive.stages if isinstance(stage, LoopStage) and stage.tightened_by}
    done = {(one.step.loop, one.step.how_far) for one in plan.doing("tension")}
    for one in plan.doing("lay"):
        loop = one.step.loop
        if loop not in loops:
            continue
        tensioner = loops[loop].tightened_by
        by_oil = tensioner is not None and tensioner.kind == "oil_fed"
        starts = by_oil and bool(plan.doing("prime", "first_start"))
        missing = [] if starts else [how_far for how_far in ("armed", "proven") if (loop, how_far) not in done]
        if missing:
            sentence = (
                f"{loops[loop].name} is laid here and its tensioner is never {' or '.join(missing)}: the book forgets it; add that step."
            )
            yield Fault(path=_path(document, one.step.id), sentence=sentence)
