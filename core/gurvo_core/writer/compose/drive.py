"""What stands between crank and cams: shafts, wheels, chains, belts and gears, and the marks on them."""

__all__ = ["TENSIONERS", "drive_parts", "is_tensioned", "tensioner_of"]

from typing import Any

from gurvo_core.writer.answers import Answers, said, slug
from gurvo_core.writer.compose.engine import known_by, position_of
from gurvo_core.writer.shape import DriveShape, Shape, WheelShape, shaft_id
from gurvo_core.writer.shorthand.links import read_links
from gurvo_core.writer.shorthand.mark import MarkSaid, read_mark
from gurvo_core.writer.shorthand.words import counting

Parts = dict[str, Any]
TENSIONERS = ("hydraulic", "ratchet", "press_and_release", "oil_fed", "eccentric", "spring_then_lock", "manual")


def tensioner_of(answers: Answers, drive: DriveShape) -> str | None:
    """The sort of a drive's tensioner, ``none`` where it has none; None while not known."""
    return "none" if drive.kind == "gears" else said(answers, f"tensioner.{drive.id}", str)


def is_tensioned(answers: Answers, drive: DriveShape) -> bool:
    """Whether a drive has a tensioner, of whatever sort: one that was asked about and not denied, or one that it passes."""
    known = f"tensioner.{drive.id}" in answers or any(wheel.kind == "tensioner" for wheel in drive.wheels)
    return known and tensioner_of(answers, drive) != "none"


def drive_parts(answers: Answers, shape: Shape) -> Parts:
    """The drive of an engine, as far as it is known."""
    pointers, marks = _marks(answers, shape)
    return {
        "shafts": _shafts(shape),
        "wheels": [_wheel(answers, wheel) for wheel in shape.wheels],
        "stages": [_stage(answers, shape, drive) for drive in shape.drives if drive.wheels],
        "pointers": pointers,
        "marks": marks,
    }


def _shafts(shape: Shape) -> list[Parts]:
    found: dict[str, Parts] = {"crank": {"id": "crank", "name": "Crankshaft", "kind": "crank"}}
    for cam in shape.cams:
        found[cam.id] = {"id": cam.id, "name": cam.name, "kind": "camshaft", "position_matters": True}
    for wheel in shape.wheels:
        found.setdefault(wheel.shaft, {"id": wheel.shaft, "name": wheel.name, "kind": wheel.kind})
    return list(found.values())


def _wheel(answers: Answers, wheel: WheelShape) -> Parts:
    found: Parts = {"id": wheel.id, "shaft": wheel.shaft, "name": wheel.called}
    teeth = said(answers, f"teeth.{wheel.id}", counting("number of teeth", 6, 400))
    if teeth:
        found["teeth"] = teeth
    fixed = said(answers, f"fixed.{wheel.id}", str)
    return {**found, "fixed_by": fixed} if fixed else found


def _stage(answers: Answers, shape: Shape, drive: DriveShape) -> Parts:
    if drive.kind == "gears":
        meshes = [{"driver": driver, "driven": driven} for driver, driven in drive.meshes]
        return {"kind": "gears", "id": drive.id, "name": drive.name, "meshes": meshes}
    found: Parts = {"kind": drive.kind, "id": drive.id, "name": drive.name}
    count = said(answers, f"count.{drive.id}", counting("number", 8, 2000))
    if count:
        found["count"] = count
    found["path"] = [{"wheel": wheel.id, **({"side": "back"} if wheel.on_back else {})} for wheel in drive.wheels]
    sort = tensioner_of(answers, drive)
    if sort == "none":
        found["tensioner"] = "none"
    elif is_tensioned(answers, drive):
        found["tensioner"] = _tensioner(answers, drive, sort)
    links = _links(answers, shape, drive)
    return {**found, "marked": links} if links else found


def _tensioner(answers: Answers, drive: DriveShape, sort: str | None) -> Parts:
    found: Parts = {"kind": sort, "name": "Tensioner" if len(drive.name.split()) == 1 else f"Tensioner of the {drive.name.lower()}"}
    place = next((n for n, wheel in enumerate(drive.wheels) if wheel.kind == "tensioner"), None)
    if place is not None:
        found |= {"shaft": drive.wheels[place].shaft, "after": drive.wheels[place - 1].id}
        return found
    after = said(answers, f"after.{drive.id}", str)
    return {**found, "after": after} if after in {wheel.id for wheel in drive.wheels} else found


def _marks(answers: Answers, shape: Shape) -> tuple[list[Parts], list[Parts]]:
    """Pointers and marks: of chains and belts a mark and what stands still, of gears two marks that meet."""
    position = position_of(answers)
    pointers: dict[str, Parts] = {}
    marks: list[Parts] = []
    if not {"marks", "links"} & known_by(answers):
        return [], []
    for wheel in shape.wheels:
        mark = said(answers, f"mark.{wheel.id}", read_mark)
        if mark is None or mark.name.lower() == "none" or any(one["wheel"] == wheel.id for one in marks):
            continue
        found = _mark(wheel, mark, position)
        if mark.meets:
            pointers[slug(mark.meets)] = {"id": slug(mark.meets), "name": mark.meets[:1].upper() + mark.meets[1:]}
            if mark.clock_deg is not None:
                pointers[slug(mark.meets)]["clock_deg"] = mark.clock_deg
            found["meets"] = slug(mark.meets)
        marks.append(found)
    for drive in shape.drives:
        names = {wheel.id: wheel.called for wheel in drive.wheels}
        for driver, driven in drive.meshes:
            mark = said(answers, f"meet.{driver}.{driven}", read_mark)
            if mark is not None and mark.name.lower() != "none":
                marks += _facing(names, driver, driven, mark, position)
    marks += _for_links(answers, shape, {one["wheel"] for one in marks}, position)
    return _alone(pointers, marks), marks


def _alone(pointers: dict[str, Parts], marks: list[Parts]) -> list[Parts]:
    """Pointers that two wheels' marks meet are looked at from two places: no clock position is said of them."""
    for ident, pointer in pointers.items():
        if sum(mark.get("meets") == ident for mark in marks) > 1:
            pointer.pop("clock_deg", None)
    return list(pointers.values())


def _mark(wheel: WheelShape, mark: MarkSaid, position: str) -> Parts:
    name = f"{mark.name[:1].upper()}{mark.name[1:]} of the {wheel.called.lower()}"
    found: Parts = {"id": f"mark-{wheel.id}", "name": name, "wheel": wheel.id, "position": position, "decides": True}
    if mark.clock_deg is not None:
        found["clock_deg"] = mark.clock_deg
    return found


def _facing(names: dict[str, str], driver: str, driven: str, mark: MarkSaid, position: str) -> list[Parts]:
    """The two marks of a mesh, each towards the other."""
    a, b = f"mark-{driver}-{driven}", f"mark-{driven}-{driver}"
    found = [
        {"id": one, "name": f"{names[wheel]}, {mark.name}", "wheel": wheel, "position": position, "meets": other, "decides": True}
        for one, wheel, other in ((a, driver, b), (b, driven, a))
    ]
    if mark.clock_deg is not None:
        found[0]["clock_deg"] = mark.clock_deg
        found[1]["clock_deg"] = (mark.clock_deg + 180) % 360
    return found


def _link_wheels(answers: Answers, shape: Shape, drive: DriveShape) -> list[tuple[WheelShape, float | None]]:
    links = said(answers, f"links.{drive.id}", read_links) if "links" in known_by(answers) else None
    of = {wheel.shaft: wheel for wheel in drive.wheels}
    found = []
    for one in links or ():
        shaft = shaft_id(one.wheel, shape.cams)
        if shaft in of:
            found.append((of[shaft], one.to_next))
    return found


def _links(answers: Answers, shape: Shape, drive: DriveShape) -> list[Parts]:
    called = "Coloured link" if drive.kind == "chain" else "Line"
    return [
        {
            "id": f"link-{wheel.id}",
            "name": f"{called} at the {wheel.name.lower()}",
            "meets": f"mark-{wheel.id}",
            **({"to_next": to_next} if to_next else {}),
        }
        for wheel, to_next in _link_wheels(answers, shape, drive)
    ]


def _for_links(answers: Answers, shape: Shape, marked: set[str], position: str) -> list[Parts]:
    """Marks that coloured links stand on and of which nothing else is said: looked at, they decide nothing by themselves."""
    return [
        {"id": f"mark-{wheel.id}", "name": f"Mark of the {wheel.called.lower()}", "wheel": wheel.id, "position": position}
        for drive in shape.drives
        for wheel, _ in _link_wheels(answers, shape, drive)
        if wheel.id not in marked
    ]
