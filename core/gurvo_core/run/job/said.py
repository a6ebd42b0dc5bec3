"""What a step says and asks and what its picture shows, as its document alone has it."""

__all__ = ["Said", "said_of", "where_of"]

from functools import lru_cache
from typing import NamedTuple

from gurvo_core.engine import Drive, LoopStage, Thing, WorkStep
from gurvo_core.run.job.asked import AskedField
from gurvo_core.run.job.fields import fields_of, stage_words
from gurvo_core.run.job.view import PartPlaces
from gurvo_core.run.plan import Plan


class Said(NamedTuple):
    """What a step says, asks and shows, whatever stands."""

    hint: str
    fields: list[AskedField]
    thing: str
    shafts: list[str]
    parts: list[PartPlaces]


@lru_cache(maxsize=4096)
def said_of(plan: Plan, step_id: str) -> Said:
    """Return what a step says, asks and shows.

    Parameters
    ----------
    plan : Plan
        The engine's run.
    step_id : str
        One of its steps.

    Returns
    -------
    said : Said
        Kept with the plan, since it follows from the document alone.

    Raises
    ------
    KeyError
        If the run has no such step.

    Source
    ------
    The document.

    Example
    -------
    >>> said_of(plan_of(quern_4()), "x")
    Traceback (most recent call last):
    KeyError: 'x'
    """
    step = plan.by_id[step_id].step
    thing = plan.document.thing(step.thing)
    kit = {part.id: part for part in plan.document.kit}
    parts = [PartPlaces(name=one.name, places=list(one.places), returns=one.returns) for one in (kit[name] for name in step.parts)]
    return Said(
        hint=_hint(plan, step),
        fields=fields_of(plan, step),
        thing=f"{thing.name}, {where_of(thing, step.place)}".rstrip(", ") if thing else "",
        shafts=_held_there(step, thing) if thing else [],
        parts=[one for one in parts if one.places] if step.does == "fit" else [],
    )


def _held_there(step: WorkStep, thing: Thing) -> list[str]:
    """The shafts that a thing holds where this step puts it; all of them where its places are not told apart."""
    if step.place and len(thing.places) == len(thing.holds):
        return [shaft for place, shaft in zip(thing.places, thing.holds, strict=True) if place == step.place]
    return list(thing.holds)


def _hint(plan: Plan, step: WorkStep) -> str:
    """Why, and what the document says elsewhere about what is done here."""
    said = [step.why] if step.why else []
    joint = plan.document.joint(step.joint)
    if joint is not None and step.does == "tighten":
        count = f"{joint.fasteners} × {joint.thread or 'fasteners'}: " if joint.fasteners else ""
        said.append(f"{count}{stage_words(plan, step)}.")
        said += [f"Threads: {joint.lubrication}."] if joint.lubrication else []
    kit = {part.id: part for part in plan.document.kit}
    if step.does == "fit":
        for part in (kit[name] for name in step.parts):
            said += [f"{part.name}: each back in its own place."] if part.returns else []
            said += [f"{part.name}: {part.lubricant}."] if part.lubricant else []
        said += [f"{joint.name} finger tight."] if joint is not None else []
    loop = next((stage for stage in plan.document.drive.stages if stage.id == step.loop), None)
    if step.does == "tension" and isinstance(loop, LoopStage) and loop.tensioner:
        words = {"fitted": loop.tensioner.fit, "armed": loop.tensioner.arm, "proven": loop.tensioner.prove}[step.how_far or "fitted"]
        said += [f"{words.rstrip('.')}."] if words else []
    if step.does == "lay" and isinstance(loop, LoopStage):
        said += _laying_words(plan.document.drive, loop)
    thing = plan.document.thing(step.thing)
    if step.does == "put_on" and thing is not None:
        said += [f"It goes on {where_of(thing, step.place)}."] if thing.at else []
        said += [f"It stands in for {thing.stands_in_for}: a loose end until that is in."] if thing.stands_in_for else []
    if step.does == "seal" and step.working_minutes:
        said.append(f"Closed within {step.working_minutes:g} minutes of opening it.")
    return " ".join(said)


def _laying_words(drive: Drive, loop: LoopStage) -> list[str]:
    """What is easily taken for a mark, and how links and sprockets stand while a loop is laid."""
    said, names = [], {mark.id: mark.name for mark in drive.marks}
    for link in loop.marked:
        said += [f"{link.name} stand astride {names[link.meets]}."] if link.how == "astride" else []
        said += [f"{link.name} is a help to the eye alone."] if link.how == "help" else []
    own = [mark for mark in drive.marks if mark.wheel in loop.wheel_ids]
    decoys = [mark.name for mark in own if mark.decoy]
    said += [f"No mark, though it looks like one: {', '.join(decoys)}."] if decoys else []
    for group in dict.fromkeys(mark.alike for mark in own if mark.alike):
        said.append(f"{' and '.join(mark.name for mark in own if mark.alike == group)} look alike: do not mistake them.")
    mid = [drive.shaft(wheel.shaft).name for wheel in drive.wheels if wheel.id in loop.wheel_ids and wheel.lay == "mid_slot"]
    said += [f"Slots mid-travel: {', '.join(mid)}."] if mid else []
    return said


def where_of(thing: Thing, place: str | None = None) -> str:
    """Return where a thing goes.

    Parameters
    ----------
    thing : Thing
        Something put on for a while.
    place : str, optional
        The one of its places that is meant; all of them when left out.

    Returns
    -------
    words : str
        The end of the engine and its places; empty where nothing is said.

    Source
    ------
    The document.

    Example
    -------
    >>> where_of(Thing(id="p", name="Pin", kind="pin", stops_turning=True, at="rear"))
    'at the flywheel end'
    """
    ends = {"front": "at the front", "rear": "at the flywheel end", "top": "from above"}
    return ", ".join([*([ends[thing.at]] if thing.at else []), *([place] if place else thing.places)])
