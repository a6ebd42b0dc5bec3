"""Cross-checks of an engine document beyond types: each fault is one sentence with its path, and all are found at once.

Whether the cam card fits its profile is not asked here: that needs ``timing``, which asks it when a wheel is set up.
"""

__all__ = ["find_faults"]

from collections import Counter
from collections.abc import Iterable, Iterator
from itertools import pairwise

from gurvo_core.angles import signed_deg
from gurvo_core.engine.camshaft import LiftProfile
from gurvo_core.engine.document import EngineDocument
from gurvo_core.errors import Fault

FIRING_TOLERANCE_DEG = 0.01


def find_faults(document: EngineDocument) -> list[Fault]:
    """Return every fault of a document whose types are right.

    Parameters
    ----------
    document : EngineDocument
        A document that pydantic accepted.

    Returns
    -------
    faults : list of Fault
        Empty when the document is sound.

    Source
    ------
    House rules; the firing order must bring each cylinder to TDC when its throw does.

    Example
    -------
    >>> find_faults(quern_4())
    []
    """
    checks = (_numbering, _firing, _cranktrain, _profiles, _camshafts, _card, _adjustments)
    return [fault for check in checks for fault in check(document)]


def _twice(values: Iterable[object]) -> list[object]:
    return [value for value, count in Counter(values).items() if count > 1]


def _numbering(document: EngineDocument) -> Iterator[Fault]:
    for number in _twice(document.cylinders):
        yield Fault(path="cylinders", sentence=f"Cylinder {number} is listed twice; give each cylinder one number.")
    if document.reference_cylinder not in document.cylinders:
        yield Fault(path="reference_cylinder", sentence=f"There is no cylinder {document.reference_cylinder}; name one of the cylinders.")
    if sorted(document.firing_order) != sorted(document.cylinders):
        yield Fault(path="firing_order", sentence="The firing order must name every cylinder once and no other.")
    elif document.firing_order[0] != document.cylinders[0]:
        first = document.cylinders[0]
        yield Fault(path="firing_order.0", sentence=f"Write the firing order beginning with cylinder {first}, from which angles count.")
    throws = [throw.cylinder for throw in document.cranktrain.throws]
    for number in sorted(set(document.cylinders) - set(throws)):
        yield Fault(path="cranktrain.throws", sentence=f"Cylinder {number} has no throw; add one with its tdc_deg.")
    for number in sorted(set(throws) - set(document.cylinders)):
        yield Fault(path="cranktrain.throws", sentence=f"A throw names cylinder {number}, which is not there.")
    for number in _twice(throws):
        yield Fault(path="cranktrain.throws", sentence=f"Cylinder {number} has two throws; keep one.")


def _firing(document: EngineDocument) -> Iterator[Fault]:
    intervals = document.firing_intervals_deg
    if intervals is not None and (len(intervals) != len(document.firing_order) or abs(sum(intervals) - 720) > FIRING_TOLERANCE_DEG):
        yield Fault(path="firing_intervals_deg", sentence="The firing intervals must be one a cylinder and add up to 720°.")
        return
    firing_deg = document.firing_deg
    for place, throw in enumerate(document.cranktrain.throws):
        fires_at = firing_deg.get(throw.cylinder)
        if fires_at is not None and abs(signed_deg(fires_at - throw.tdc_deg)) > FIRING_TOLERANCE_DEG:
            yield Fault(
                path=f"cranktrain.throws.{place}.tdc_deg",
                sentence=f"Cylinder {throw.cylinder} fires at {fires_at:g}° but its throw is at TDC at {throw.tdc_deg:g}°; correct one.",
            )


def _cranktrain(document: EngineDocument) -> Iterator[Fault]:
    train = document.cranktrain
    if not train.rod_mm > train.stroke_mm / 2 + abs(train.pin_offset_mm):
        yield Fault(
            path="cranktrain.rod_mm", sentence=f"A rod of {train.rod_mm:g} mm cannot turn over with a stroke of {train.stroke_mm:g} mm."
        )
    if not abs(train.pin_offset_mm) < train.bore_mm / 2:
        yield Fault(path="cranktrain.pin_offset_mm", sentence="The pin offset must be less than half the bore.")


def _profile_fault(profile: LiftProfile) -> str | None:
    angles, lifts = profile.cam_deg, profile.lobe_lift_mm
    if len(angles) != len(lifts):
        return f"Profile {profile.id} has {len(angles)} angles but {len(lifts)} lifts."
    if any(not b > a for a, b in pairwise(angles)):
        return f"The angles of profile {profile.id} must grow from line to line."
    if 0.0 not in angles:
        return f"Profile {profile.id} has no line at 0°, the nose."
    if lifts[0] != 0 or lifts[-1] != 0:
        return f"Profile {profile.id} must begin and end at 0 mm, on the base circle."
    nose = angles.index(0.0)
    rising, falling = lifts[: nose + 1], lifts[nose:]
    if any(b < a for a, b in pairwise(rising)) or any(b > a for a, b in pairwise(falling)) or lifts[nose] <= 0:
        return f"Profile {profile.id} must rise to the nose and fall after it, without a dip."
    return None


def _profiles(document: EngineDocument) -> Iterator[Fault]:
    for twice in _twice(profile.id for profile in document.profiles):
        yield Fault(path="profiles", sentence=f"There are two profiles called {twice}.")
    for place, profile in enumerate(document.profiles):
        sentence = _profile_fault(profile)
        if sentence:
            yield Fault(path=f"profiles.{place}", sentence=sentence)


def _camshafts(document: EngineDocument) -> Iterator[Fault]:
    profiles = {profile.id for profile in document.profiles}
    for twice in _twice(shaft.id for shaft in document.camshafts):
        yield Fault(path="camshafts", sentence=f"There are two camshafts called {twice}.")
    for at, shaft in enumerate(document.camshafts):
        for twice in _twice((lobe.cylinder, lobe.valve) for lobe in shaft.lobes):
            yield Fault(path=f"camshafts.{at}.lobes", sentence=f"Two lobes of {shaft.name} work the same valve: {twice}.")
        for place, lobe in enumerate(shaft.lobes):
            path = f"camshafts.{at}.lobes.{place}"
            if lobe.cylinder not in document.cylinders:
                yield Fault(
                    path=f"{path}.cylinder", sentence=f"A lobe of {shaft.name} names cylinder {lobe.cylinder}, which does not exist."
                )
            if lobe.profile not in profiles:
                yield Fault(path=f"{path}.profile", sentence=f"A lobe of {shaft.name} names profile {lobe.profile}, which is not there.")


def _card(document: EngineDocument) -> Iterator[Fault]:
    profiles = {profile.id: profile for profile in document.profiles}
    for place, line in enumerate(document.cam_card):
        shaft = document.camshaft(line.camshaft)
        if shaft is None:
            yield Fault(path=f"cam_card.{place}.camshaft", sentence=f"The card names camshaft {line.camshaft}, which is not there.")
            continue
        lobe = document.lobe(shaft.id, document.reference_cylinder, line.valve)
        if lobe is None:
            yield Fault(path=f"cam_card.{place}.valve", sentence=f"{shaft.name} has no {line.valve} lobe for the reference cylinder.")
        elif lobe.profile in profiles:
            most = shaft.rocker_ratio * max(profiles[lobe.profile].lobe_lift_mm) - lobe.lash_mm
            if not line.lift_mm < most:
                sentence = f"The card checks at {line.lift_mm:g} mm, but the {line.valve} valve lifts {most:.2f} mm at most."
                yield Fault(path=f"cam_card.{place}.lift_mm", sentence=sentence)
        if not -180 < line.opens_deg + line.closes_deg < 360:
            yield Fault(path=f"cam_card.{place}", sentence="The card's valve would close before it opens, or never close.")


def _adjustments(document: EngineDocument) -> Iterator[Fault]:
    for place, adjustment in enumerate(document.adjustments):
        if adjustment.kind == "key_slots":
            names = [slot.name for slot in adjustment.slots]
            for twice in _twice(names):
                yield Fault(path=f"adjustments.{place}.slots", sentence=f"Two key slots are called {twice}.")
            if adjustment.fitted not in names:
                yield Fault(path=f"adjustments.{place}.fitted", sentence=f"There is no slot {adjustment.fitted}; name one of them.")
