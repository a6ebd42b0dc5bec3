"""What a step says and asks and what its picture shows, as its document alone has it."""

__all__ = ["Said", "said_of", "where_of"]

from functools import lru_cache
from typing import NamedTuple

from gurvo_core.engine import Drive, LoopStage, Thing, WorkStep
from gurvo_core.engine.joint import Joint
from gurvo_core.engine.things import KitPart
from gurvo_core.run.job.asked import AskedField
from gurvo_core.run.job.fields import fields_of, stage_words
from gurvo_core.run.job.view import PartPlaces
from gurvo_core.run.plan import Plan
from gurvo_core.sentence import at_start, listed, within


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

    Raises KeyError if the run has no such step.
    """
    step = plan.by_id[step_id].step
    thing = plan.document.thing(step.thing)
    kit = {part.id: part for part in plan.document.kit}
    own = [kit[name] for name in step.parts]
    parts = [PartPlaces(name=one.name, places=list(one.places), returns=one.returns, way_round=_way_round(one)) for one in own]
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


ORDERS = {
    "middle_outward": "From the middle to the ends",
    "crosswise": "Crosswise, each as far as may be from the one before",
    "opposing": "Opposite pairs, stepping round",
    "round": "Once round",
}


def _hint(plan: Plan, step: WorkStep) -> str:
    """Why, and what the document says elsewhere about what is done here."""
    said = [step.why] if step.why else []
    joint = plan.document.joint(step.joint)
    if joint is not None and step.does == "tighten":
        said += _joint_words(plan, step, joint)
    kit = {part.id: part for part in plan.document.kit}
    if step.does == "fit":
        for part in (kit[name] for name in step.parts):
            said += [f"{at_start(part.name)}: each back in its own place."] if part.returns else []
            said += [f"{at_start(part.name)}: {part.lubricant}."] if part.lubricant else []
            said += [f"{at_start(part.name)}: {_way_round(part)}."] if part.way_round else []
        said += [f"{joint.name} finger tight."] if joint is not None else []
    loop = next((stage for stage in plan.document.drive.stages if stage.id == step.loop), None)
    if step.does == "tension" and isinstance(loop, LoopStage) and loop.tightened_by:
        words = {"fitted": loop.tightened_by.fit, "armed": loop.tightened_by.arm, "proven": loop.tightened_by.prove}[
            step.how_far or "fitted"
        ]
        said += [f"{words.rstrip('.')}."] if words else []
    if step.does == "lay" and isinstance(loop, LoopStage):
        said += _laying_words(plan.document.drive, loop)
    for part in (kit[name] for name in step.parts if step.does == "lay" and kit[name].way_round):
        said.append(f"{at_start(part.name)}: {_way_round(part)}.")
    if step.does == "lay" and plan.document.drive.couplings == () and loop is not None and not isinstance(loop, LoopStage):
        said += _decoy_words(plan.document.drive, loop.wheel_ids)
    thing = plan.document.thing(step.thing)
    if step.does == "put_on" and thing is not None:
        said += [f"It goes on {where_of(thing, step.place)}."] if thing.at else []
        said += [f"Shops use: {thing.made_of.rstrip('.')}."] if thing.made_of else []
        real = thing.stands_in(step.place)
        said += [f"It stands in for {real}: a loose end until that is in."] if real else []
    if step.does == "seal" and step.working_minutes:
        said.append(f"Closed within {step.working_minutes:g} minutes of opening it.")
    said += [f"A picture is wanted: {step.picture.rstrip('.')}."] if step.picture else []
    return " ".join(said)


def _laying_words(drive: Drive, loop: LoopStage) -> list[str]:
    """What is easily taken for a mark, and how links and sprockets stand while a loop is laid."""
    said, names = [], {mark.id: mark.name for mark in drive.marks}
    for link in loop.marked:
        said += [f"{link.name} stand astride {within(names[link.meets])}."] if link.how == "astride" else []
        said += [f"{link.name} is a help to the eye alone."] if link.how == "help" else []
    said += _decoy_words(drive, loop.wheel_ids)
    mid = [drive.shaft(wheel.shaft).name for wheel in drive.wheels if wheel.id in loop.wheel_ids and wheel.lay == "mid_slot"]
    said += [f"Slots mid-travel: {', '.join(mid)}."] if mid else []
    return said


def _decoy_words(drive: Drive, wheels: tuple[str, ...]) -> list[str]:
    """What is easily taken for a mark on some wheels: of chains, belts and gears alike."""
    own = [mark for mark in drive.marks if mark.wheel in wheels]
    decoys = [mark.name for mark in own if mark.decoy]
    said = [f"No mark, though it looks like one: {listed([within(name) for name in decoys])}."] if decoys else []
    groups = dict.fromkeys(mark.alike for mark in own if mark.alike)
    alike = (listed([within(mark.name) for mark in own if mark.alike == group]) for group in groups)
    return [*said, *(f"{at_start(names)} look alike: do not mistake them." for names in alike)]


def _way_round(part: KitPart) -> str:
    return f"{part.way_round.rstrip('.')}{f', told by {part.told_by}' if part.told_by else ''}".rstrip(".")


def _joint_words(plan: Plan, step: WorkStep, joint: Joint) -> list[str]:
    """How many, which thread, how far, how the threads are left, what holds against the wrench; what is not known is left to be asked."""
    count = (
        f"{joint.fasteners} × {joint.thread or within(joint.name)}: " if joint.fasteners else f"{joint.thread}: " if joint.thread else ""
    )
    words = stage_words(plan, step)
    said = [f"{count}{words}."] if words else [f"{count}as tight as its thread takes; no figure is known."]
    said += [f"{ORDERS[joint.rule]}."] if joint.rule and joint.fasteners != 1 else []
    said += [f"Threads: {joint.lubrication}."] if joint.lubrication else []
    said += [f"{at_start(joint.held_by)} holds against the wrench."] if joint.held_by else []
    said += ["Left-hand thread: it tightens the other way round."] if joint.hand == "left" else []
    notes = dict.fromkeys(note for note in (joint.washer, joint.thread_note) if note and note not in joint.lubrication)
    return [*said, *(f"{at_start(note)}." for note in notes)]


def where_of(thing: Thing, place: str | None = None) -> str:
    """Return where a thing goes."""
    ends = {"front": "at the front", "rear": "at the flywheel end", "top": "from above"}
    return ", ".join([*([ends[thing.at]] if thing.at else []), *([place] if place else thing.places)])
