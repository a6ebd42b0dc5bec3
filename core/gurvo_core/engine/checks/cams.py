"""Profiles, lobes, valves, card, adjustments, and the plain lists."""

__all__ = ["cam_faults"]

from collections import Counter
from collections.abc import Iterator
from itertools import pairwise

from gurvo_core.engine.document import EngineDocument
from gurvo_core.engine.profiles import LiftProfile, PolynomialFlank, Profile
from gurvo_core.errors import Fault


def cam_faults(document: EngineDocument) -> list[Fault]:
    """Return faults of profiles, lobes, valves, card and adjustments."""
    checks = (_profiles, _lobes, _valves, _springs, _card, _adjustments, _limits)
    return [fault for check in checks for fault in check(document)]


def _table_fault(profile: LiftProfile) -> str | None:
    angles, lifts = profile.cam_deg, profile.lobe_lift_mm
    if len(angles) != len(lifts):
        return f"Profile {profile.id} has {len(angles)} angles but {len(lifts)} lifts."
    if any(not b > a for a, b in pairwise(angles)):
        return f"The angles of profile {profile.id} must grow from line to line."
    if angles[0] < -180 or angles[-1] > 180:
        return f"The angles of profile {profile.id} must lie between -180° and 180°, counted from the nose."
    if 0.0 not in angles:
        return f"Profile {profile.id} has no line at 0°, the nose."
    if lifts[0] != 0 or lifts[-1] != 0:
        return f"Profile {profile.id} must begin and end at 0 mm, on the base circle."
    nose = angles.index(0.0)
    rising, falling = lifts[: nose + 1], lifts[nose:]
    if any(b < a for a, b in pairwise(rising)) or any(b > a for a, b in pairwise(falling)) or lifts[nose] <= 0:
        return f"Profile {profile.id} must rise to the nose and fall after it, without a dip."
    return None


def _flank_fault(flank: PolynomialFlank, top_mm: float, side: str) -> str | None:
    if (flank.ramp_mm > 0) != (flank.ramp_cam_deg > 0):
        return f"The {side} ramp needs both a height and a length, or neither."
    if not flank.ramp_mm < top_mm:
        return f"The {side} ramp is as high as the nose; it must stay below {top_mm:g} mm."
    return None


def _profile_fault(profile: Profile) -> str | None:
    if isinstance(profile, LiftProfile):
        return _table_fault(profile)
    if profile.ends_deg - profile.begins_deg > 360 or max(-profile.begins_deg, profile.ends_deg) > 180:
        return f"Profile {profile.id} is longer than a turn of the cam."
    faults = (_flank_fault(flank, profile.top_mm, side) for side, flank in (("opening", profile.opening), ("closing", profile.closing)))
    return next((fault for fault in faults if fault), None)


def _profiles(document: EngineDocument) -> Iterator[Fault]:
    for place, profile in enumerate(document.profiles):
        sentence = _profile_fault(profile)
        if sentence:
            yield Fault(path=f"profiles.{place}", sentence=sentence)


def _lobes(document: EngineDocument) -> Iterator[Fault]:
    profiles = {profile.id: profile for profile in document.profiles}
    banks = {bank.id: bank for bank in document.banks}
    for at, shaft in enumerate(document.camshafts):
        for twice, count in Counter((lobe.cylinder, lobe.valve, lobe.place) for lobe in shaft.lobes).items():
            if count > 1:
                which = f"cylinder {twice[0]} {twice[1]}"
                yield Fault(
                    path=f"camshafts.{at}.lobes", sentence=f"{count} lobes of {shaft.name} are for {which}; tell them apart by place."
                )
        for valve, count in Counter(follower.valve for follower in shaft.followers).items():
            if count > 1:
                yield Fault(path=f"camshafts.{at}.followers", sentence=f"{shaft.name} has {count} followers for {valve}; keep one.")
        for place, lobe in enumerate(shaft.lobes):
            path, bank = f"camshafts.{at}.lobes.{place}", banks.get(shaft.bank or "")
            if bank and lobe.cylinder in document.cylinders and lobe.cylinder not in bank.cylinders:
                yield Fault(path=f"{path}.cylinder", sentence=f"Cylinder {lobe.cylinder} is not in {bank.name}, which {shaft.name} serves.")
            ratio = next((one.ratio for one in shaft.followers if one.valve == lobe.valve), None)
            lash_mm = lobe.lash_mm or 0.0
            if lobe.profile in profiles and ratio and not ratio * profiles[lobe.profile].top_mm > lash_mm:
                yield Fault(path=f"{path}.lash_mm", sentence=f"With {lash_mm:g} mm of lash this valve would never open.")


def _valves(document: EngineDocument) -> Iterator[Fault]:
    for at, valve in enumerate(document.valves):
        bores = [bank.cranktrain.bore_mm for bank in document.banks if valve.bank in (None, bank.id) and bank.cranktrain.bore_mm]
        if bores and not valve.head_mm < min(bores):
            yield Fault(path=f"valves.{at}.head_mm", sentence=f"A head of {valve.head_mm:g} mm does not fit a bore of {min(bores):g} mm.")


def _springs(document: EngineDocument) -> Iterator[Fault]:
    """Coils that touch before the valve is fully open bend something."""
    profiles = {profile.id: profile for profile in document.profiles}
    for at, spring in enumerate(document.springs):
        lifts = [
            (cam.ratio(lobe.valve) or 0.0) * profiles[lobe.profile].top_mm - (lobe.lash_mm or 0.0)
            for cam in document.camshafts
            for lobe in cam.lobes
            if lobe.valve == spring.valve and lobe.profile in profiles
        ]
        if spring.bind_lift_mm is not None and lifts and not spring.bind_lift_mm > max(lifts):
            sentence = f"These coils touch at {spring.bind_lift_mm:g} mm, but the {spring.valve} valves lift {max(lifts):.2f} mm."
            yield Fault(path=f"springs.{at}.bind_lift_mm", sentence=sentence)


def _card(document: EngineDocument) -> Iterator[Fault]:
    profiles = {profile.id: profile for profile in document.profiles}
    for place, line in enumerate(document.cam_card):
        shaft = document.camshaft(line.camshaft)
        cylinder = document.card_cylinder(line)
        if shaft is None or cylinder not in document.cylinders:
            continue
        lobe = document.lobe(shaft.id, cylinder, line.valve)
        ratio = next((one.ratio for one in shaft.followers if one.valve == line.valve), None)
        if lobe is None and shaft.lobes:
            sentence = f"{shaft.name} has no {line.valve} lobe for cylinder {cylinder}; name one it has with “cylinder”."
            yield Fault(path=f"cam_card.{place}.valve", sentence=sentence)
        elif lobe is not None and lobe.profile in profiles and ratio:
            most = ratio * profiles[lobe.profile].top_mm - (lobe.lash_mm or 0.0)
            if not line.lift_mm < most:
                sentence = f"The card checks at {line.lift_mm:g} mm, but the {line.valve} valve lifts {most:.2f} mm at most."
                yield Fault(path=f"cam_card.{place}.lift_mm", sentence=sentence)
        if cylinder not in document.firing_deg:
            sentence = (
                f"Cylinder {cylinder} can only be measured once the firing order is known; give it, or measure on the reference cylinder."
            )
            yield Fault(path=f"cam_card.{place}.cylinder", sentence=sentence)
        if line.opens_deg is not None and line.closes_deg is not None and not -180 < line.opens_deg + line.closes_deg < 360:
            yield Fault(path=f"cam_card.{place}", sentence="The card's valve would close before it opens, or never close.")


def _adjustments(document: EngineDocument) -> Iterator[Fault]:
    for name, count in Counter(adjustment.name for adjustment in document.adjustments).items():
        if count > 1:
            yield Fault(path="adjustments", sentence=f"{count} adjustments are called {name}; tell them apart.")
    for place, adjustment in enumerate(document.adjustments):
        if adjustment.kind == "key_slots":
            names = [slot.name for slot in adjustment.slots]
            for twice, count in Counter(names).items():
                if count > 1:
                    yield Fault(path=f"adjustments.{place}.slots", sentence=f"{count} key slots are called {twice}.")
            if adjustment.fitted not in names:
                yield Fault(path=f"adjustments.{place}.fitted", sentence=f"There is no slot {adjustment.fitted}; name one of them.")


def _limits(document: EngineDocument) -> Iterator[Fault]:
    fits = [(f"fits.{place}.most_mm", fit.least_mm, fit.most_mm) for place, fit in enumerate(document.fits)]
    fits += [(f"lash.{place}.most_mm", lash.least_mm, lash.most_mm) for place, lash in enumerate(document.lash)]
    for path, least_mm, most_mm in fits:
        if least_mm is not None and most_mm is not None and not least_mm <= most_mm:
            yield Fault(path=path, sentence=f"The most ({most_mm:g} mm) is less than the least; swap them.")
