"""What a step of the run is about, and from where that is seen: by its joint, fits, parts and loop; else by what it says."""

__all__ = ["bead_id", "looking_at", "noses_id", "part_id", "parts_of_joint", "parts_said", "shafts_held", "step_scene"]

import re
from collections.abc import Collection, Iterator, Sequence

from gurvo_core.engine import EngineDocument, Thing, WorkStep
from gurvo_core.scene.names import BY_BANK, PartKind, banks_named, kinds_named
from gurvo_core.scene.shapes import Looking, StepScene

ABOVE = ("bores", "heads", "followers", "cams", "cam caps", "rockers", "plugs", "cam covers")
FRONT = ("drive", "pump", "front cover", "loop", "shaft")
SEALED = ("sump", "mains")  # what is drawn with a bead between it and what it is on
CYLINDER = ("valves", "rings")
TURNED = ("set_up_wheel", "find_tdc", "park", "turn_over", "degree", "tension", "as_found")
CAM_WHEELS = ("sprocket", "wheel", "pulley", "cam gear", "cam bolt", "phaser")


def part_id(kind: PartKind, bank: str) -> str:
    """Return the id of a part that each bank has."""
    return f"{kind}:{bank}"


def bead_id(part: str) -> str:
    """Return the id of the bead of sealant on a part."""
    return f"bead:{part}"


def noses_id(bank: str) -> str:
    """Return the id of the noses of a bank's lobes."""
    return f"noses:{bank}"


def step_scene(document: EngineDocument, step: WorkStep) -> StepScene:
    """Return what a step is about, and from where it is seen."""
    parts = list(dict.fromkeys(_parts(document, step))) or ["block"]
    has_gaps = any(part.gaps_deg for part in document.kit)
    if "pistons" in parts and has_gaps:
        parts.append("rings")  # they are looked at once more before the bore hides them
    if step.does == "seal":
        parts += [bead_id(part) for part in parts if part in SEALED]
    parts += [part_id("gaskets", part.partition(":")[2]) for part in parts if part.startswith("heads:") and _names_gasket(step)]
    looking: Looking = "rings" if parts[0] == "rings" and has_gaps else looking_at(parts[0])
    return StepScene(step=step.id, looking=looking, parts=parts)


def _names_gasket(step: WorkStep) -> bool:
    return "gasket" in step.says.lower()


def looking_at(part: str) -> Looking:
    """Return from where a part is seen."""
    kind = part.partition(":")[0]
    return "above" if kind in ABOVE else "front" if kind in FRONT else "cylinder" if kind in CYLINDER else "side"


def parts_of_joint(document: EngineDocument, step: WorkStep) -> Sequence[str]:
    """Return what the joint of a step holds; nothing where it has none, or its name says nothing."""
    joint = document.joint(step.joint)
    return list(_named(document, joint.name, joint.id.replace("-", " "), step.says)) if joint else []


def parts_said(document: EngineDocument, step: WorkStep) -> Sequence[str]:
    """Return what a step itself names; what it only comes before is not meant."""
    return list(_named(document, step.says.partition(" before ")[0]))


def _parts(document: EngineDocument, step: WorkStep) -> Iterator[str]:
    if step.loop:
        yield f"loop:{step.loop}"
    elif step.does in ("plugs_out", "plugs_in"):
        yield from _with_banks(document, "plugs", step.says)
    elif step.does == "lash":
        yield "valves"
    elif step.does in ("prime", "first_start"):
        yield "oil"
    elif step.does in ("put_on", "take_off"):
        yield from _of_thing(document, step)
    elif step.does in TURNED:
        yield from (f"shaft:{shaft.id}" for shaft in document.drive.shafts if shaft.kind == "crank")
    elif step.joint:
        yield from parts_said(document, step) if step.does == "fit" else ()
        yield from parts_of_joint(document, step) or parts_said(document, step)
    elif step.fits:
        names = [fit.name for fit in document.fits if fit.id in step.fits]
        yield from _named(document, *names, step.says)
    else:
        parts = [part.name for part in document.kit if part.id in step.parts]
        yield from parts_said(document, step) if step.does != "ready" else ()
        yield from _named(document, *parts)


def _of_thing(document: EngineDocument, step: WorkStep) -> Iterator[str]:
    """The shafts that a thing holds where it goes, and what it is put on; then the thing itself."""
    thing = document.thing(step.thing)
    if thing is None:
        return
    named = ["pistons"] if thing.kind == "piston_stop" else [one for one in _named(document, step.says, thing.name) if one != "drive"]
    shafts = [f"shaft:{shaft}" for shaft in shafts_held(thing, [step.place] if step.place else ())]
    # what goes into the flywheel is seen from the side, though it holds the crank in front as well
    yield from (*named, *shafts) if "flywheel" in named else (*shafts, *named)
    yield f"thing:{thing.id}"


def shafts_held(thing: Thing, places: Collection[str]) -> Sequence[str]:
    """Return the shafts that a thing holds at some of its places, where it holds one at each; else all that it holds."""
    if not places or len(thing.places) != len(thing.holds):
        return thing.holds
    return [shaft for shaft, place in zip(thing.holds, thing.places, strict=True) if place in places]


def _named(document: EngineDocument, *said: str) -> Iterator[str]:
    """The parts that some words name; the first of them that name any count, the others only tell the bank."""
    kinds = next((found for words in said if (found := kinds_named(words))), ())
    for kind in kinds:
        if kind == "drive":
            yield from _of_drive(document, said)
        yield from _with_banks(document, kind, *said)


def _with_banks(document: EngineDocument, kind: PartKind, *said: str) -> Iterator[str]:
    if kind not in BY_BANK:
        yield kind
        return
    yield from (part_id(kind, bank) for bank in banks_named(document, *said))


def _of_drive(document: EngineDocument, said: Sequence[str]) -> Iterator[str]:
    """The shafts and loops that are meant, as far as the words tell."""
    text, banks = " ".join(said).lower(), banks_named(document, *said)
    wanted = ["camshaft"] if any(word in text for word in CAM_WHEELS) else []
    wanted += [kind for kind in ("idler", "tensioner", "pump") if kind in text]
    other = {cam.id for cam in document.camshafts if cam.bank is not None and cam.bank not in banks}
    shafts = [f"shaft:{shaft.id}" for shaft in document.drive.shafts if shaft.kind in wanted and shaft.id not in other]
    yield from shafts or _loops_meant(document, text)


def _loops_meant(document: EngineDocument, text: str) -> Sequence[str]:
    """The loops whose names have most words of a text; all where none has any."""
    said = set(re.findall(r"\w+", text))
    counts = {stage.id: len(said & set(stage.name.lower().split())) for stage in document.drive.stages}
    most = max(counts.values(), default=0)
    return [f"loop:{name}" for name, count in counts.items() if count == most]
