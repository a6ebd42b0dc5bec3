"""Which joints an engine has by its layout, and how each is tightened as far as that is known."""

__all__ = [
    "BY_OIL",
    "BY_SCREW",
    "NONE",
    "JointPlace",
    "begins_bare",
    "fasteners_of",
    "joint_groups",
    "joints_in",
    "joints_of",
    "places_of_joints",
]

from collections.abc import Iterator
from typing import Any, NamedTuple

from gurvo_core.writer.answers import Answers, said
from gurvo_core.writer.compose.drive import tensioner_of
from gurvo_core.writer.shape import Shape
from gurvo_core.writer.shorthand.pattern import Bolts, read_pattern
from gurvo_core.writer.shorthand.stages import read_stages

BY_SCREW = ("eccentric", "spring_then_lock", "manual")  # tensioners that a bolt locks
BY_OIL = "oil_fed"
NONE = "none"  # an answer: this engine has no such joint


class JointPlace(NamedTuple):
    """One joint: its id and name, of which group its figures are asked, and of what it is one."""

    id: str
    name: str
    group: str  # head, caps, wheel, tension, rockers, front, damper, valve
    of: str = ""  # id of its bank, camshaft or drive


def places_of_joints(answers: Answers, shape: Shape) -> list[JointPlace]:
    """The joints of an engine, in the order in which they are come to; a group that it is said not to have is left out."""
    return [one for one in _places(answers, shape) if said(answers, f"stages.{one.group}", str) != NONE]


def joints_in(answers: Answers, shape: Shape, group: str) -> list[JointPlace]:
    """The joints of one group."""
    return [place for place in places_of_joints(answers, shape) if place.group == group]


def joint_groups(answers: Answers, shape: Shape) -> list[str]:
    """The groups of joints that are asked about, each once."""
    return list(dict.fromkeys(one.group for one in _places(answers, shape)))


def begins_bare(answers: Answers) -> bool:
    """Whether the run begins with the bare block, crank and pistons still to go in."""
    return said(answers, "begins", str) == "bare"


def _places(answers: Answers, shape: Shape) -> Iterator[JointPlace]:
    is_one = len(shape.banks) == 1
    if begins_bare(answers):
        yield JointPlace("mains", "Case bolts" if shape.layout == "flat" else "Main cap bolts", "mains")
        yield JointPlace("rods", "Rod bolts", "rods")
    for bank in shape.banks:
        yield JointPlace("head" if is_one else f"head-{bank.id}", "Head bolts" if is_one else f"{bank.name} head bolts", "head", bank.id)
    if shape.cams_at in ("one", "two"):
        for bank in shape.banks:
            name = "Cam cap bolts" if is_one else f"{bank.name} cam cap bolts"
            yield JointPlace("caps" if is_one else f"caps-{bank.id}", name, "caps", bank.id)
    for cam in shape.cams:
        wheel = shape.wheel_of(cam.id)
        if wheel is not None:
            yield JointPlace(f"bolt-{cam.id}", f"{wheel.called} bolt", "wheel", cam.id)
    for drive in shape.drives:
        if drive.wheels and tensioner_of(answers, drive) in BY_SCREW:
            yield JointPlace(f"lock-{drive.id}", f"Tensioner bolt of the {drive.name.lower()}", "tension", drive.id)
    if shape.cams_at == "block":
        for bank in shape.banks:
            yield JointPlace(
                "rockers" if is_one else f"rockers-{bank.id}", "Rocker bolts" if is_one else f"{bank.name} rocker bolts", "rockers", bank.id
            )
    yield JointPlace("front", "Front cover screws", "front")
    yield JointPlace("damper", "Crank bolt", "damper")
    yield JointPlace("valve-cover", "Valve cover screws", "valve")


def joints_of(answers: Answers, shape: Shape) -> list[dict[str, Any]]:
    """The joints as the document has them; how many and how tight is asked at the bench where nobody has said."""
    return [_joint(answers, place) for place in places_of_joints(answers, shape)]


def _joint(answers: Answers, place: JointPlace) -> dict[str, Any]:
    found: dict[str, Any] = {"id": place.id, "name": place.name}
    bolts = said(answers, f"bolts.{place.group}", read_pattern)
    if bolts is not None:
        found |= fasteners_of(bolts)
    # a torque without a figure: thread and class are asked where it is pulled, and only a generic figure is offered
    found["stages"] = list(said(answers, f"stages.{place.group}", read_stages) or [{"does": "torque"}])
    return found


def fasteners_of(bolts: Bolts) -> dict[str, Any]:
    """How many and where they stand, as the document writes it."""
    found: dict[str, Any] = {"fasteners": bolts.number}
    if bolts.kind is not None:
        columns = {"columns": bolts.columns} if bolts.kind in ("rows", "pairs") else {}
        rows = {"rows": bolts.rows} if bolts.kind == "rows" else {}
        found["pattern"] = {"kind": bolts.kind, **columns, **rows}
    return {**found, "rule": bolts.rule} if bolts.rule else found
