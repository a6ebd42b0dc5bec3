"""Names that point nowhere, and names given twice."""

__all__ = ["link_faults", "missing"]

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from typing import Any

from gurvo_core.engine.document import EngineDocument
from gurvo_core.engine.drive import LoopStage
from gurvo_core.errors import Fault

# what a name may point to: how the sentence calls it
_Link = tuple[str, object, Iterable[object], str]


def link_faults(document: EngineDocument) -> list[Fault]:
    """Return names that are given twice or point to something that is not there. Every id is given once, every reference finds its part."""
    links = (*_cam_links(document), *_drive_links(document), *_mark_links(document), *_joint_links(document), *_other_links(document))
    return [*_twice(document), *(fault for link in links for fault in missing(*link))]


def missing(path: str, name: object, known: Iterable[object], what: str) -> Iterator[Fault]:
    """Yield a fault where a name points to something that is not there. Every reference finds its part."""
    names = sorted(map(str, known))
    if name is not None and str(name) not in names:
        there = f"there are {', '.join(names)}" if names else "there is none"
        yield Fault(path=path, sentence=f"This names {what} {name}, which is not there; {there}.")


def _twice(document: EngineDocument) -> Iterator[Fault]:
    drive = document.drive
    groups: tuple[tuple[str, str, Sequence[Any]], ...] = (
        ("banks", "banks", document.banks),
        ("camshafts", "camshafts", document.camshafts),
        ("profiles", "profiles", document.profiles),
        ("timing_positions", "timing positions", document.timing_positions),
        ("drive.shafts", "shafts", drive.shafts),
        ("drive.wheels", "wheels", drive.wheels),
        ("drive.stages", "stages", drive.stages),
        ("drive.marks", "marks or pointers", [*drive.pointers, *drive.marks]),
        ("drive.locks", "locks", drive.locks),
        ("drive.couplings", "couplings", drive.couplings),
        ("joints", "joints", document.joints),
        ("fits", "fits", document.fits),
        ("stages", "stages of work", document.stages),
    )
    for path, what, parts in groups:
        for name, count in Counter(part.id for part in parts).items():
            if count > 1:
                yield Fault(path=path, sentence=f"{count} {what} are called {name}; give each an id of its own.")


def _cam_links(document: EngineDocument) -> Iterator[_Link]:
    profiles = {profile.id for profile in document.profiles}
    banks = {bank.id for bank in document.banks}
    shafts = {shaft.id for shaft in document.drive.shafts if shaft.kind == "camshaft"}
    for at, cam in enumerate(document.camshafts):
        yield f"camshafts.{at}.id", cam.id, shafts, "a camshaft among the drive's shafts,"
        yield f"camshafts.{at}.bank", cam.bank, banks, "bank"
        sorts = {follower.valve for follower in cam.followers}
        for place, lobe in enumerate(cam.lobes):
            path = f"camshafts.{at}.lobes.{place}"
            yield f"{path}.cylinder", lobe.cylinder, document.cylinders, "cylinder"
            yield f"{path}.profile", lobe.profile, profiles, "profile"
            if sorts:
                yield f"{path}.valve", lobe.valve, sorts, "a follower for valve"


def _drive_links(document: EngineDocument) -> Iterator[_Link]:
    drive = document.drive
    shafts, wheels = {shaft.id for shaft in drive.shafts}, {wheel.id for wheel in drive.wheels}
    cams = {cam.id for cam in document.camshafts}
    for at, shaft in enumerate(drive.shafts):
        if shaft.kind == "camshaft":
            yield f"drive.shafts.{at}.id", shaft.id, cams, "camshaft"
    for at, wheel in enumerate(drive.wheels):
        yield f"drive.wheels.{at}.shaft", wheel.shaft, shafts, "shaft"
    for at, coupling in enumerate(drive.couplings):
        yield f"drive.couplings.{at}.driver", coupling.driver, shafts, "shaft"
        yield f"drive.couplings.{at}.driven", coupling.driven, shafts, "shaft"
    for at, stage in enumerate(drive.stages):
        path = f"drive.stages.{at}"
        if isinstance(stage, LoopStage):
            on_path = set(stage.wheel_ids)
            yield from ((f"{path}.path.{n}.wheel", step.wheel, wheels, "wheel") for n, step in enumerate(stage.path))
            yield from ((f"{path}.goes_over.{n}", name, wheels, "wheel") for n, name in enumerate(stage.goes_over))
            if stage.tightened_by:
                yield f"{path}.tensioner.after", stage.tightened_by.after, on_path, "a wheel of this path,"
                yield f"{path}.tensioner.shaft", stage.tightened_by.shaft, shafts, "shaft"
        else:
            for n, mesh in enumerate(stage.meshes):
                yield f"{path}.meshes.{n}.driver", mesh.driver, wheels, "wheel"
                yield f"{path}.meshes.{n}.driven", mesh.driven, wheels, "wheel"


def _mark_links(document: EngineDocument) -> Iterator[_Link]:
    drive = document.drive
    wheels, positions = {wheel.id for wheel in drive.wheels}, {position.id for position in document.timing_positions}
    marks = {mark.id for mark in drive.marks}
    met = marks | {pointer.id for pointer in drive.pointers}
    for at, stage in enumerate(drive.stages):
        if isinstance(stage, LoopStage):
            yield from ((f"drive.stages.{at}.marked.{n}.meets", link.meets, marks, "mark") for n, link in enumerate(stage.marked))
            for n, count in enumerate(stage.counts):
                yield f"drive.stages.{at}.counts.{n}.from_mark", count.from_mark, marks, "mark"
                yield f"drive.stages.{at}.counts.{n}.to_mark", count.to_mark, marks, "mark"
    for at, mark in enumerate(drive.marks):
        yield f"drive.marks.{at}.wheel", mark.wheel, wheels, "wheel"
        yield f"drive.marks.{at}.position", mark.position, positions, "timing position"
        yield f"drive.marks.{at}.meets", mark.meets, met - {mark.id}, "pointer or mark"
        yield from ((f"drive.marks.{at}.seen.{n}.position", one.position, positions, "timing position") for n, one in enumerate(mark.seen))
    for at, lock in enumerate(drive.locks):
        yield f"drive.locks.{at}.holds", lock.holds, {shaft.id for shaft in drive.shafts}, "shaft"
        yield f"drive.locks.{at}.position", lock.position, positions, "timing position"


def _joint_links(document: EngineDocument) -> Iterator[_Link]:
    joints, cams = {joint.id for joint in document.joints}, {cam.id for cam in document.camshafts}
    positions = {position.id for position in document.timing_positions}
    for at, joint in enumerate(document.joints):
        for n, name in enumerate(joint.also_clamps):
            yield f"joints.{at}.also_clamps.{n}", name, joints, "joint"
        for n, stage in enumerate(joint.figures):
            if stage.draw is not None:
                yield f"joints.{at}.stages.{n}.draw.camshaft", stage.draw.camshaft, cams, "camshaft"
                yield f"joints.{at}.stages.{n}.draw.position", stage.draw.position, positions, "timing position"


def _other_links(document: EngineDocument) -> Iterator[_Link]:
    banks, cams = {bank.id for bank in document.banks}, {cam.id for cam in document.camshafts}
    yield "reference_cylinder", document.reference_cylinder, document.cylinders, "cylinder"
    for at, position in enumerate(document.timing_positions):
        yield f"timing_positions.{at}.cylinder", position.cylinder, document.cylinders, "cylinder"
        yield f"timing_positions.{at}.bank", position.bank, banks, "bank"
    for at, stop in enumerate(document.lash_stops):
        yield f"lash_stops.{at}.cylinder", stop.cylinder, document.cylinders, "cylinder"
        for n, one in enumerate(stop.valves):
            yield f"lash_stops.{at}.valves.{n}.cylinder", one.cylinder, document.cylinders, "cylinder"
    if document.chamber:
        gaps = {fit.id for fit in document.fits if fit.gap is not None}
        yield "chamber.protrusion_fit", document.chamber.protrusion_fit, gaps, "a fit with a gap called"
    if document.sides:
        yield "sides.right_bank", document.sides.right_bank, banks, "bank"
    for at, valve in enumerate(document.valves):
        yield f"valves.{at}.bank", valve.bank, banks, "bank"
    for at, line in enumerate(document.cam_card):
        yield f"cam_card.{at}.camshaft", line.camshaft, cams, "camshaft"
        yield f"cam_card.{at}.cylinder", line.cylinder, document.cylinders, "cylinder"
    for at, adjustment in enumerate(document.adjustments):
        yield from ((f"adjustments.{at}.camshafts.{n}", cam, cams, "camshaft") for n, cam in enumerate(adjustment.camshafts))
