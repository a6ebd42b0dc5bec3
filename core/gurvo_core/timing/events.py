"""Lift events: where a valve passes a checking lift, and what follows: duration, centreline, separation, overlap, advance.

Event angles here are crank degrees after the *firing* TDC of the valve's own cylinder, 0 to 720: the exhaust valve opens
before 180, the overlap TDC is 360, the intake valve closes after 540. Centrelines are said as trade says them: intake after
the overlap TDC, exhaust before it.
"""

__all__ = [
    "advance_deg",
    "card_event_deg",
    "centreline_deg",
    "event_deg",
    "in_words",
    "lift_slope_mm_per_deg",
    "nose_deg",
    "nose_half_width_deg",
    "overlap_deg",
    "profile_event_deg",
    "separation_cam_deg",
]

from gurvo_core.angles import nearest_turn_deg, signed_deg
from gurvo_core.engine import Camshaft, CardLine, Flank, Lobe, Profile, Valve
from gurvo_core.errors import GeometryError
from gurvo_core.motion import crossing_cam_deg, valve_lift_mm
from gurvo_core.motion.lobe import ratio_and_lash

OVERLAP_TDC_DEG = 360.0
SLOPE_STEP_CAM_DEG = 0.02


def card_event_deg(line: CardLine, flank: Flank) -> float:
    """Return a card's event as a crank angle.

    Returned: crank degrees after the cylinder's firing TDC [deg].
    Raises GeometryError if the card does not say it.
    Definition of the card's figures, see ``engine/card.py``.
    """
    said_deg = line.opens_deg if flank == "opening" else line.closes_deg
    if said_deg is None:
        raise GeometryError(flank, said_deg, f"the card does not say where the {line.valve} valve is {flank}")
    dead_centre_deg = OVERLAP_TDC_DEG + {("intake", "closing"): 180.0, ("exhaust", "opening"): -180.0}.get((line.valve, flank), 0.0)
    return dead_centre_deg - said_deg if flank == "opening" else dead_centre_deg + said_deg


def nose_deg(lobe: Lobe) -> float:
    """Return where a lobe's nose stands, by its document.

    Returned: crank degrees after the cylinder's firing TDC [deg].
    Raises GeometryError if it is not known.
    Definition of the document's nose, see ``engine/camshaft.py``.
    """
    if lobe.nose_after_overlap_deg is None:
        raise GeometryError("nose_deg", None, f"where the {lobe.valve} nose of cylinder {lobe.cylinder} stands is not known")
    return OVERLAP_TDC_DEG + lobe.nose_after_overlap_deg


def profile_event_deg(profile: Profile, camshaft: Camshaft, lobe: Lobe, lift_mm: float, flank: Flank) -> float:
    """Return where a lobe should pass a lift, from its profile, nose and lash.

    lift_mm: valve lift [mm].
    Returned: crank degrees after the cylinder's firing TDC [deg].
    Raises ReadingError if the lobe never passes that lift.
    """
    ratio, lash_mm = ratio_and_lash(camshaft, lobe)
    lobe_lift_mm = (lift_mm + lash_mm) / ratio
    return nose_deg(lobe) + 2 * crossing_cam_deg(profile, lobe_lift_mm, flank)


def lift_slope_mm_per_deg(profile: Profile, camshaft: Camshaft, lobe: Lobe, lift_mm: float, flank: Flank) -> float:
    """Return how fast the valve moves where it passes a lift.

    lift_mm: valve lift [mm].
    Returned: valve lift per crank degree, always positive [mm/deg].
    Raises ReadingError if the lobe never passes that lift.
    Central difference on the profile; a cam degree is two crank degrees.
    """
    ratio, lash_mm = ratio_and_lash(camshaft, lobe)
    at_cam_deg = crossing_cam_deg(profile, (lift_mm + lash_mm) / ratio, flank)
    either_side = [at_cam_deg - SLOPE_STEP_CAM_DEG, at_cam_deg + SLOPE_STEP_CAM_DEG]
    before_mm, after_mm = valve_lift_mm(either_side, profile, camshaft, lobe)
    return abs(float(after_mm - before_mm)) / (4 * SLOPE_STEP_CAM_DEG)


def nose_half_width_deg(profile: Profile, camshaft: Camshaft, lobe: Lobe, resolution_mm: float) -> float:
    """Return how far either side of the nose a dial cannot see the valve move.

    resolution_mm: smallest step of the dial at the valve [mm].
    Returned: half the crank angle over which the lift is within one step of its greatest [deg].
    Raises ReadingError if the step is as large as the lift.
    """
    just_below_mm = profile.top_mm - resolution_mm / ratio_and_lash(camshaft, lobe)[0]
    return crossing_cam_deg(profile, just_below_mm, "closing") - crossing_cam_deg(profile, just_below_mm, "opening")


def event_deg(wheel_deg: float, zero_deg: float, near_deg: float) -> float:
    """Return the crank angle of an event from its wheel reading.

    wheel_deg: DegreeWheel degrees where the lift was passed [deg].
    zero_deg: DegreeWheel zero: wheel degrees at true TDC [deg].
    near_deg: where the card has the event; it decides on which of the two turns the reading lies [deg].
    Returned: crank degrees after the cylinder's firing TDC [deg].
    Definition of wheel zero.
    """
    return nearest_turn_deg(wheel_deg - zero_deg, near_deg)


def centreline_deg(valve: Valve, opening_deg: float, closing_deg: float) -> float:
    """Return a lobe's centreline as the middle of two equal lifts.

    opening_deg, closing_deg: crank angles at the same lift either side of the nose [deg].
    Returned: intake: after the overlap TDC. Exhaust: before it [deg].
    Source: Practice: middle of equal lifts. On an asymmetric lobe it moves with the lift: compare at the same lift only.
    >>> centreline_deg("intake", 344.0, 592.0)
    108.0
    """
    from_overlap_deg = (opening_deg + closing_deg) / 2 - OVERLAP_TDC_DEG
    return from_overlap_deg if valve == "intake" else -from_overlap_deg


def separation_cam_deg(intake_centreline_deg: float, exhaust_centreline_deg: float) -> float:
    """Return lobe separation.

    intake_centreline_deg: after the overlap TDC, crank degrees [deg].
    exhaust_centreline_deg: before the overlap TDC, crank degrees [deg].
    Returned: angle between the lobes, cam degrees [deg].
    Half of their crank angle apart.
    """
    return (intake_centreline_deg + exhaust_centreline_deg) / 2


def overlap_deg(intake_opening_deg: float, exhaust_closing_deg: float) -> float:
    """Return valve overlap at one checking lift.

    intake_opening_deg, exhaust_closing_deg: crank angles at the same checking lift [deg].
    Returned: crank degrees with both valves above that lift; negative when there are none [deg].
    Intake opening to exhaust closing.
    """
    return exhaust_closing_deg - intake_opening_deg


def advance_deg(valve: Valve, card_deg: float, measured_deg: float) -> float:
    """Return how far a cam is advanced against its card.

    card_deg, measured_deg: centrelines by the same method at the same lift [deg].
    Returned: positive = events come earlier than the card [deg].
    An exhaust centreline counts before TDC, so its sign turns.
    """
    return card_deg - measured_deg if valve == "intake" else measured_deg - card_deg


def in_words(crank_deg: float) -> str:
    """Return a crank angle as a builder says it, from the nearest dead centre. crank_deg: crank degrees after a TDC [deg]."""
    from_tdc_deg = round(signed_deg(crank_deg), 1)
    centre, away_deg = "TDC", from_tdc_deg
    if abs(from_tdc_deg) > 90:
        centre, away_deg = "BDC", round(signed_deg(crank_deg - 180), 1)
    if away_deg == 0:
        return f"at {centre}"
    return f"{abs(away_deg):.1f}° {'after' if away_deg > 0 else 'before'} {centre}"
