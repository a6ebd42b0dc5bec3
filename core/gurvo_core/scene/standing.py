"""How far each part of the engine has come: to come, in and loose, in, or undone, by the steps that are done."""

__all__ = ["Brings", "Stands", "brought_by", "is_seen", "part_stands"]

import re
from collections.abc import Collection, Iterator, Mapping, Sequence
from typing import Literal

from gurvo_core.engine import EngineDocument, WorkStep
from gurvo_core.scene.asked import SEALED, bead_id, noses_id, part_id, parts_of_joint, parts_said, shafts_held
from gurvo_core.scene.names import BY_BANK, PartKind
from gurvo_core.scene.shapes import ScenePart

Stands = Literal["to come", "loose", "in", "undone", "held"]  # held: by something that is on for a while
Brings = Sequence[tuple[str, Mapping[str, Stands]]]  # by step, in their order: what stands how once it is done
# of which a run that says nothing has them in from the beginning
THERE_ALREADY: tuple[PartKind, ...] = ("block", "bores", "crank", "mains", "rods", "pistons", "heads", "cams")
NOTHING: Mapping[str, Collection[str]] = {}
_PUTS_IN = re.compile(r"^(?!.*\b(looked|look|before)\b).*\b(in|on|fitted|together)\b", re.IGNORECASE)


def brought_by(document: EngineDocument, steps: Sequence[WorkStep]) -> Brings:
    """Return what each step of a run brings in; worked out once for a run."""
    return [(step.id, brings) for step in steps if (brings := dict(_brings(document, step)))]


def _brings(document: EngineDocument, step: WorkStep) -> Iterator[tuple[str, Stands]]:
    if step.does == "lay" and step.loop:
        yield f"loop:{step.loop}", "in"
    elif step.does in ("plugs_out", "plugs_in"):
        yield from ((part_id("plugs", bank.id), "in" if step.does == "plugs_in" else "to come") for bank in document.banks)
    elif step.does == "tighten":
        joint = document.joint(step.joint)
        is_last = joint is None or step.stage is None or step.stage >= joint.last_stage
        yield from ((part, "in" if is_last else "loose") for part in parts_of_joint(document, step))
    elif step.does == "fit" or (step.does in ("do", "seal") and _PUTS_IN.search(step.says)):
        held = parts_of_joint(document, step)
        said = [part for part in parts_said(document, step) if not part.startswith("loop:")]  # that is laid in a step of its own
        if said and said[0] == "seals":
            said = said[:1]  # what they go into is not put on by it
        yield from ((part, "in") for part in said if part not in held)
        yield from ((part, "loose") for part in held if not part.startswith("loop:"))
        if step.does == "seal":
            yield from ((bead_id(part), "in") for part in (*said, *held) if part in SEALED)


def part_stands(
    document: EngineDocument, brings: Brings, done: Collection[str], opened: Collection[str], on: Mapping[str, Collection[str]] = NOTHING
) -> dict[str, Stands]:
    """Return how far each part has come that a run says something of, and those that were there before it.

    done, opened: ids of steps that are done, and that are open again.
    on: where things are that are on for a while, by their ids.
    """
    named = {part for _, brought in brings for part in brought}
    there: list[str] = [kind for kind in THERE_ALREADY if kind not in BY_BANK]
    there += [part_id(kind, bank.id) for kind in THERE_ALREADY if kind in BY_BANK for bank in document.banks]
    there += [f"loop:{stage.id}" for stage in document.drive.stages]
    stands: dict[str, Stands] = {**dict.fromkeys(there, "in"), **dict.fromkeys(named, "to come")}
    for step, brought in brings:
        if step in opened:
            stands |= dict.fromkeys(brought, "undone")
        elif step in done:
            stands |= brought
    if all(stands[f"loop:{stage.id}"] == "in" for stage in document.drive.stages):  # before that nobody knows how a cam stands
        stands |= {noses_id(bank.id): "in" for bank in document.banks if stands[part_id("cams", bank.id)] == "in"}
    heads = [stands[part_id("heads", bank.id)] for bank in document.banks]
    stands |= {part_id("gaskets", bank.id): stands[part_id("heads", bank.id)] for bank in document.banks}  # under the head
    stands.setdefault("rings", stands["pistons"])
    stands["valves"] = "in" if any(one in ("in", "loose") for one in heads) else "to come"  # they come with the head
    for thing in document.things:
        if thing.id in on:
            stands |= dict.fromkeys((f"thing:{thing.id}", *(f"shaft:{shaft}" for shaft in shafts_held(thing, on[thing.id]))), "held")
    return stands


def is_seen(part: ScenePart, stands: Mapping[str, Stands], asked: Collection[str]) -> bool:
    """Return whether a part is drawn: not where nothing is said of it, nor below what is in, unless it is asked."""
    if part.id in asked:
        return True
    return part.id in stands and not any(stands.get(other) in ("in", "loose") for other in part.hidden_by)
