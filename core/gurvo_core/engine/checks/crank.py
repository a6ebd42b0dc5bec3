"""Numbering, firing order against throws, rods that turn over, timing positions that are what they say."""

__all__ = ["crank_faults"]

import math
from collections import Counter
from collections.abc import Iterator

from gurvo_core.angles import signed_deg
from gurvo_core.engine.document import CYCLE_DEG, EngineDocument
from gurvo_core.engine.position import TimingPosition
from gurvo_core.errors import Fault
from gurvo_core.sentence import at_place, at_start

FIRING_TOLERANCE_DEG = 0.05
HALF_WAY_WITHIN = 0.15  # of the stroke, for a position that says mid-stroke
PROUD_AT_MOST_MM = 3.0


def crank_faults(document: EngineDocument) -> list[Fault]:
    """Return faults of cylinders, crank, rods and timing positions.

    Source: Geometry: a cylinder is at TDC when its crank pin stands in its bank's axis (but for the pin offset).
    >>> crank_faults(quern_4())
    []
    """
    numbering = list(_numbering(document))
    deeper = [] if numbering else [*_firing(document), *_positions(document)]
    return [*numbering, *_rods(document), *deeper]


def _numbering(document: EngineDocument) -> Iterator[Fault]:
    for number, count in Counter(document.cylinders).items():
        if count > 1:
            yield Fault(path="banks", sentence=f"Cylinder {number} is listed {count} times; give each cylinder one number in one bank.")
    if document.firing_order and sorted(document.firing_order) != list(document.cylinders):
        yield Fault(path="firing_order", sentence="The firing order must name every cylinder once and no other.")
    elif document.firing_order and document.firing_order[0] != document.cylinders[0]:
        first = document.cylinders[0]
        yield Fault(path="firing_order.0", sentence=f"Write the firing order beginning with cylinder {first}, from which angles count.")
    throws = [throw.cylinder for throw in document.throws]
    for number in sorted(set(document.cylinders) - set(throws)) if throws else ():
        yield Fault(path="throws", sentence=f"Cylinder {number} has no throw; add one with its pin_deg.")
    for number in sorted(set(throws) - set(document.cylinders)):
        yield Fault(path="throws", sentence=f"A throw names cylinder {number}, which is not there.")
    for number, count in Counter(throws).items():
        if count > 1:
            yield Fault(path="throws", sentence=f"Cylinder {number} has {count} throws; keep one.")
    intervals = document.firing_intervals_deg
    if intervals is not None and (
        len(intervals) != len(document.firing_order) or abs(sum(intervals) - CYCLE_DEG) > FIRING_TOLERANCE_DEG or min(intervals) < 0
    ):
        yield Fault(path="firing_intervals_deg", sentence="The firing intervals must be one a cylinder and add up to 720°.")


def _firing(document: EngineDocument) -> Iterator[Fault]:
    if not document.firing_order or not document.throws or any(bank.axis_deg is None for bank in document.banks):
        return
    pins = {throw.cylinder: throw.pin_deg for throw in document.throws}
    first = document.firing_order[0]

    def stands_deg(cylinder: int) -> float:
        """Where a pin has to stand for TDC, running way from straight up."""
        bank = document.bank_of(cylinder)
        return document.rotation_sign * (bank.axis_deg or 0.0) + bank.cranktrain.tdc_pin_angle_deg

    if abs(signed_deg(pins[first])) > FIRING_TOLERANCE_DEG:
        at = next(n for n, throw in enumerate(document.throws) if throw.cylinder == first)
        yield Fault(path=f"throws.{at}.pin_deg", sentence=f"Pins count from cylinder {first}'s, so its own pin_deg is 0.")
        return
    for at, throw in enumerate(document.throws):
        fires_deg = document.firing_deg[throw.cylinder]
        top_deg = (stands_deg(throw.cylinder) - stands_deg(first) - throw.pin_deg) % 360
        off_deg = signed_deg(fires_deg - top_deg)
        if abs(off_deg) > FIRING_TOLERANCE_DEG:
            right_deg = round((throw.pin_deg - off_deg) % 360, 2)
            yield Fault(
                path=f"throws.{at}.pin_deg",
                sentence=f"Cylinder {throw.cylinder} fires at {fires_deg:g}°, but its pin reaches its bank's axis at {top_deg:g}° "
                f"and half a cycle on; pin_deg {right_deg:g} would fit, or correct the firing order.",
            )


def _rods(document: EngineDocument) -> Iterator[Fault]:
    for at, bank in enumerate(document.banks):
        train, path = bank.cranktrain, f"banks.{at}.cranktrain"
        if train.rod_mm and train.stroke_mm and not train.rod_mm > train.stroke_mm / 2 + abs(train.offset_mm):
            sentence = f"A rod of {train.rod_mm:g} mm cannot turn over with a stroke of {train.stroke_mm:g} mm."
            yield Fault(path=f"{path}.rod_mm", sentence=sentence)
        if train.bore_mm and not abs(train.offset_mm) < train.bore_mm / 2:
            yield Fault(path=f"{path}.pin_offset_mm", sentence="The pin offset must be less than half the bore.")
        clearance = train.deck_clearance_mm
        if clearance is not None and not -PROUD_AT_MOST_MM < clearance < (train.stroke_mm or 0.0) / 4:
            yield Fault(
                path=f"{path}.deck_height_mm",
                sentence=f"Rod, half the stroke and compression height leave {clearance:.2f} mm to the deck; correct one of the four.",
            )


def _positions(document: EngineDocument) -> Iterator[Fault]:
    for at, position in enumerate(document.timing_positions):
        if not document.is_known(position):
            continue
        path = f"timing_positions.{at}.after_tdc_deg"
        if position.kind == "tdc" and position.offset_deg != 0:
            yield Fault(path=path, sentence="At TDC this is 0; use the kind “offset” for a place away from it.")
        elif position.kind == "offset" and position.after_tdc_deg == 0:
            yield Fault(path=path, sentence="Say how many degrees after TDC (negative = before it), or use the kind “tdc”.")
        elif position.kind == "mid_stroke":
            yield from _half_way(document, position, path)


def _half_way(document: EngineDocument, position: TimingPosition, path: str) -> Iterator[Fault]:
    """At mid-stroke every piston stands about half-way."""
    at_deg = document.position_deg(position.id)
    for cylinder in document.firing_deg:
        train = document.bank_of(cylinder).cranktrain
        if train.stroke_mm is None or train.rod_mm is None:
            continue
        throw_mm, turned = train.stroke_mm / 2, math.radians(at_deg - document.firing_deg[cylinder])
        side_mm = min(throw_mm * abs(math.sin(turned)), train.rod_mm)
        drop_mm = throw_mm * (1 - math.cos(turned)) + train.rod_mm - math.sqrt(train.rod_mm**2 - side_mm**2)
        if abs(drop_mm / train.stroke_mm - 0.5) > HALF_WAY_WITHIN:
            place = at_place(position.name)
            down = f"is {drop_mm:.0f} mm down a stroke of {train.stroke_mm:g} mm, not half-way."
            sentence = f"{at_start(place)} cylinder {cylinder} {down}"
            yield Fault(path=path, sentence=sentence)
            return
