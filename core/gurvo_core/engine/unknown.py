"""What a document leaves open: not known, so not checked, and what Gurvo does in its stead; and what is only a guess or generic."""

__all__ = ["not_known"]

from collections.abc import Iterator

from gurvo_core.engine.camshaft import Camshaft
from gurvo_core.engine.document import EngineDocument
from gurvo_core.engine.drive import LoopStage, Stage
from gurvo_core.errors import Fault
from gurvo_core.sentence import listed

Found = Iterator[tuple[str, str]]


def not_known(document: EngineDocument) -> list[Fault]:
    """Return what is not known of an engine. What is not known is said, and nothing is judged against a guess."""
    parts = (_way, _firing, _rods, _cams, _drive, _marks, _positions, _joints, _fits, _origins)
    return [Fault(path=path, sentence=sentence) for part in parts for path, sentence in part(document)]


def _way(document: EngineDocument) -> Found:
    if document.running_direction is None:
        yield "running_direction", "Which way the engine runs is not known: it is asked at the bench before anything is turned."
    for at, bank in enumerate(document.banks):
        if not bank.cylinders:
            yield f"banks.{at}.cylinders", f"How many cylinders {bank.name} has is not known."
        if bank.axis_deg is None and len(document.banks) > 1:
            yield f"banks.{at}.axis_deg", f"Where {bank.name} leans is not known: its pistons are drawn upright."
    if len(document.banks) > 1 and document.sides is not None and document.sides.right_bank is None:
        yield "sides.right_bank", "Which bank the book calls the right one is not known: it is asked at the bench."


def _firing(document: EngineDocument) -> Found:
    if not document.firing_order and len(document.cylinders) > 1:
        reference = document.reference_cylinder
        yield "firing_order", f"The firing order is not known: only the strokes of cylinder {reference} are told."
    elif document.firing_order and not document.throws:
        yield "throws", "Where the crank pins stand is not known: the firing order is not checked against them."


def _rods(document: EngineDocument) -> Found:
    for at, bank in enumerate(document.banks):
        if bank.cranktrain.reach_mm is None:
            sentence = (
                f"Stroke or rod of {bank.name} is not known: true TDC is found by a stop or by equal drops, and pistons are only sketched."
            )
            yield f"banks.{at}.cranktrain", sentence
        elif bank.cranktrain.pin_offset_mm is None:
            yield f"banks.{at}.cranktrain.pin_offset_mm", f"Whether the pins of {bank.name} are offset is not known: worked with as none."


def _cams(document: EngineDocument) -> Found:
    on_card = {line.camshaft for line in document.cam_card if line.opens_deg is not None and line.closes_deg is not None}
    for at, cam in enumerate(document.camshafts):
        if not cam.valves:
            yield f"camshafts.{at}", f"What {cam.name} opens is not known: it cannot be degreed."
            continue
        if not _lifts_are_known(document, cam):
            yield (
                f"camshafts.{at}.lobes",
                f"Profile, nose or lash of {cam.name} is not known: measure or import it; its lifts are not drawn.",
            )
        if cam.id not in on_card:
            yield "cam_card", f"No card says when the valves of {cam.name} move: it is kept as it is measured, no limit is known."
        if cam.phaser and cam.phaser.rests is None:
            yield f"camshafts.{at}.phaser.rests", f"On which stop the phaser of {cam.name} rests is not known: look before it is locked."
        if cam.phaser and cam.phaser.travel_deg is None:
            yield f"camshafts.{at}.phaser", f"How far the phaser of {cam.name} moves is not known: its other stop is not drawn."


def _lifts_are_known(document: EngineDocument, cam: Camshaft) -> bool:
    return bool(cam.lobes) and all(document.shape(cam, lobe) and lobe.nose_deg is not None for lobe in cam.lobes)


def _drive(document: EngineDocument) -> Found:
    drive = document.drive
    if not drive.stages:
        yield "drive.stages", "What drives the camshafts is not known: they are taken to turn once for two turns of the crank."
    adrift = [shaft.name for shaft in drive.shafts if shaft.place is None]
    if adrift:
        yield "drive.shafts", f"Where {listed(adrift)} stand{'s' * (len(adrift) == 1)} is not known: the front is a sketch, not to scale."
    for at, wheel in enumerate(drive.wheels):
        if wheel.teeth is None and wheel.diameter_mm is None:
            yield f"drive.wheels.{at}", f"Neither teeth nor size of {wheel.name or wheel.id} are known: nothing is counted over it."
    for at, stage in enumerate(drive.stages):
        yield from ((f"drive.stages.{at}.{key}", sentence) for key, sentence in _stage(stage))


def _stage(stage: Stage) -> Found:
    if not isinstance(stage, LoopStage):
        if stage.module_mm is None:
            yield "module_mm", f"The module of {stage.name} is not known: whether its gears mesh is not checked."
        return
    if not stage.path:
        yield "path", f"Which way {stage.name} goes round is not known: it is drawn as a sketch, in no order."
    if stage.tensioner is None:
        yield "tensioner", f"Whether {stage.name} has a tensioner is not known; where there is none, write “none”."
    elif stage.tightened_by is not None and stage.tightened_by.kind is None:
        yield "tensioner.kind", f"What sort of tensioner {stage.tightened_by.name} is is not known: it is asked for in words."
    if stage.tightened_by is not None and stage.tightened_by.after is None:
        yield "tensioner.after", f"On which run {stage.tightened_by.name} works is not known: where the slack goes is not drawn."
    for n, link in enumerate(stage.marked):
        if link.to_next is None and len(stage.marked) > 1:
            yield f"marked.{n}.to_next", f"How many {stage.counted_in} follow {link.name} is not known: count them at the bench."
    for n, count in enumerate(stage.counts):
        if count.number is None:
            yield f"counts.{n}.number", f"{count.name}: how many is not known; count them at the bench."
    if stage.pitch_mm is None:
        yield "pitch_mm", f"The pitch of {stage.name} is not known: its length is not checked."
    if stage.count is None:
        yield "count", f"How many {stage.counted_in} {stage.name} has is not known: count them; when its marks meet again is not told."


def _marks(document: EngineDocument) -> Found:
    adrift = [mark.name for mark in document.drive.marks if mark.clock_deg is None and not mark.decoy]
    if adrift:
        yield "drive.marks", f"Where {listed(adrift)} stand{'s' * (len(adrift) == 1)} is not known: looked at by name, not drawn."


def _joints(document: EngineDocument) -> Found:
    for at, joint in enumerate(document.joints):
        if joint.fasteners is None and not joint.bolts:
            yield f"joints.{at}.fasteners", f"How many fasteners {joint.name} has is not known: they are counted at the bench."
        figures = joint.figures
        if any(one.does == "torque" and one.torque_nm is None for one in figures) and not (joint.thread and joint.property_class):
            yield f"joints.{at}", f"No torque of {joint.name} is known, nor thread and class: there is not even a generic figure."
        if any(one.does in ("angle", "torque_angle") and one.angle_deg is None for one in figures):
            yield f"joints.{at}.stages", f"An angle of {joint.name} is not known: it is turned as whoever pulls it sees fit, and said."
        if any(one.draw and one.draw.turn_deg is None for one in figures):
            yield f"joints.{at}.stages", f"How far {joint.name} are turned in one pass is not known: a little at a time, evenly."


def _positions(document: EngineDocument) -> Found:
    for at, position in enumerate(document.timing_positions):
        if position.offset_deg is not None and position.stroke is None:
            sentence = f"Whether {position.name} is a firing or an overlap TDC is not known: look at the valves there."
            yield f"timing_positions.{at}.stroke", sentence
        elif not document.is_known(position):
            yield f"timing_positions.{at}", f"How far {position.name} is from TDC is not known: turns are counted from it."
        elif not document.is_placed(position.id):
            sentence = f"How {position.name} lies to {document.timing_positions[0].name} is not known: its marks are not drawn."
            yield f"timing_positions.{at}", sentence


def _fits(document: EngineDocument) -> Found:
    for at, fit in enumerate(document.fits):
        if fit.least_mm is None and fit.most_mm is None:
            yield f"fits.{at}", f"No limit of {fit.name} is known: its figures are kept, not judged."


def _origins(document: EngineDocument) -> Found:
    for pointer, origin in document.origins.items():
        note = f" ({origin.note})" if origin.note else ""
        if origin.is_ == "guess":
            yield pointer.strip("/").replace("/", "."), f"A guess{note}: {_named(document, pointer)}. Nothing is judged against it."
        elif origin.is_ == "generic":
            yield pointer.strip("/").replace("/", "."), f"Generic{note}, not this engine's own: {_named(document, pointer)}."


def _named(document: EngineDocument, pointer: str) -> str:
    """What a JSON Pointer leads to, by the names of the parts on its way."""
    at: object = document
    words = []
    for key in filter(None, pointer.split("/")):
        at = at[int(key)] if isinstance(at, tuple) and key.isdigit() and int(key) < len(at) else getattr(at, key, None)
        words.append(getattr(at, "name", None) or (f"line {int(key) + 1}" if key.isdigit() else key.replace("_", " ")))
    return ", ".join(words) or "the whole document"
