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

    Parameters
    ----------
    line : CardLine
        One line of the cam card.
    flank : {"opening", "closing"}
        Which event.

    Returns
    -------
    event_deg : float
        Crank degrees after the cylinder's firing TDC [deg].

    Raises
    ------
    GeometryError
        If the card does not say it.

    Source
    ------
    Definition of the card's figures, see ``engine/card.py``.

    Example
    -------
    >>> card_event_deg(CardLine(camshaft="c", valve="intake", lift_mm=1, opens_deg=16, closes_deg=52, tolerance_deg=2), "closing")
    592.0
    """
    said_deg = line.opens_deg if flank == "opening" else line.closes_deg
    if said_deg is None:
        raise GeometryError(flank, said_deg, f"the card does not say where the {line.valve} valve is {flank}")
    dead_centre_deg = OVERLAP_TDC_DEG + {("intake", "closing"): 180.0, ("exhaust", "opening"): -180.0}.get((line.valve, flank), 0.0)
    return dead_centre_deg - said_deg if flank == "opening" else dead_centre_deg + said_deg


def nose_deg(lobe: Lobe) -> float:
    """Return where a lobe's nose stands, by its document.

    Parameters
    ----------
    lobe : Lobe
        The lobe.

    Returns
    -------
    nose_deg : float
        Crank degrees after the cylinder's firing TDC [deg].

    Raises
    ------
    GeometryError
        If it is not known.

    Source
    ------
    Definition of the document's nose, see ``engine/camshaft.py``.

    Example
    -------
    >>> nose_deg(Lobe(cylinder=1, valve="exhaust", profile="p", nose_deg=110, lash_mm=0))
    250.0
    """
    if lobe.nose_after_overlap_deg is None:
        raise GeometryError("nose_deg", None, f"where the {lobe.valve} nose of cylinder {lobe.cylinder} stands is not known")
    return OVERLAP_TDC_DEG + lobe.nose_after_overlap_deg


def profile_event_deg(profile: Profile, camshaft: Camshaft, lobe: Lobe, lift_mm: float, flank: Flank) -> float:
    """Return where a lobe should pass a lift, from its profile, nose and lash.

    Parameters
    ----------
    profile : Profile
        The lobe's shape.
    camshaft : Camshaft
        For its follower's ratio.
    lobe : Lobe
        For nose and lash.
    lift_mm : float
        Valve lift [mm].
    flank : {"opening", "closing"}
        Which event.

    Returns
    -------
    event_deg : float
        Crank degrees after the cylinder's firing TDC [deg].

    Raises
    ------
    ReadingError
        If the lobe never passes that lift.

    Source
    ------
    Inverse of valve lift = ratio x lobe lift - lash, on the profile.

    Example
    -------
    >>> table = LiftProfile(id="p", cam_deg=(-60, -30, 0, 30, 60), lobe_lift_mm=(0, 3, 6, 3, 0))
    >>> lobe = Lobe(cylinder=1, valve="intake", profile="p", nose_deg=108, lash_mm=0)
    >>> shaft = Camshaft(id="c", name="c", followers=({"valve": "intake", "kind": "bucket", "clock_deg": 180, "ratio": 1},), lobes=(lobe,))
    >>> round(profile_event_deg(table, shaft, lobe, 3.0, "closing"), 6)
    528.0
    """
    ratio, lash_mm = ratio_and_lash(camshaft, lobe)
    lobe_lift_mm = (lift_mm + lash_mm) / ratio
    return nose_deg(lobe) + 2 * crossing_cam_deg(profile, lobe_lift_mm, flank)


def lift_slope_mm_per_deg(profile: Profile, camshaft: Camshaft, lobe: Lobe, lift_mm: float, flank: Flank) -> float:
    """Return how fast the valve moves where it passes a lift.

    Parameters
    ----------
    profile, camshaft, lobe
        As for ``profile_event_deg``.
    lift_mm : float
        Valve lift [mm].
    flank : {"opening", "closing"}
        Which side.

    Returns
    -------
    slope : float
        Valve lift per crank degree, always positive [mm/deg].

    Raises
    ------
    ReadingError
        If the lobe never passes that lift.

    Source
    ------
    Central difference on the profile; a cam degree is two crank degrees.

    Example
    -------
    >>> table = LiftProfile(id="p", cam_deg=(-60, -30, 0, 30, 60), lobe_lift_mm=(0, 3, 6, 3, 0))
    >>> lobe = Lobe(cylinder=1, valve="intake", profile="p", nose_deg=108, lash_mm=0)
    >>> shaft = Camshaft(id="c", name="c", followers=({"valve": "intake", "kind": "bucket", "clock_deg": 180, "ratio": 1},), lobes=(lobe,))
    >>> round(lift_slope_mm_per_deg(table, shaft, lobe, 3.0, "closing"), 3)
    0.05
    """
    ratio, lash_mm = ratio_and_lash(camshaft, lobe)
    at_cam_deg = crossing_cam_deg(profile, (lift_mm + lash_mm) / ratio, flank)
    either_side = [at_cam_deg - SLOPE_STEP_CAM_DEG, at_cam_deg + SLOPE_STEP_CAM_DEG]
    before_mm, after_mm = valve_lift_mm(either_side, profile, camshaft, lobe)
    return abs(float(after_mm - before_mm)) / (4 * SLOPE_STEP_CAM_DEG)


def nose_half_width_deg(profile: Profile, camshaft: Camshaft, lobe: Lobe, resolution_mm: float) -> float:
    """Return how far either side of the nose a dial cannot see the valve move.

    Parameters
    ----------
    profile : Profile
        The lobe's shape.
    camshaft : Camshaft
        For its follower's ratio.
    lobe : Lobe
        For its valve.
    resolution_mm : float
        Smallest step of the dial at the valve [mm].

    Returns
    -------
    half_width_deg : float
        Half the crank angle over which the lift is within one step of its greatest [deg].

    Raises
    ------
    ReadingError
        If the step is as large as the lift.

    Source
    ------
    The profile itself.

    Example
    -------
    >>> table = LiftProfile(id="p", cam_deg=(-60, -30, 0, 30, 60), lobe_lift_mm=(0, 3, 6, 3, 0))
    >>> lobe = Lobe(cylinder=1, valve="intake", profile="p", nose_deg=108, lash_mm=0)
    >>> shaft = Camshaft(id="c", name="c", followers=({"valve": "intake", "kind": "bucket", "clock_deg": 180, "ratio": 1},), lobes=(lobe,))
    >>> nose_half_width_deg(table, shaft, lobe, 0.01) > 1
    True
    """
    just_below_mm = profile.top_mm - resolution_mm / ratio_and_lash(camshaft, lobe)[0]
    return crossing_cam_deg(profile, just_below_mm, "closing") - crossing_cam_deg(profile, just_below_mm, "opening")


def event_deg(wheel_deg: float, zero_deg: float, near_deg: float) -> float:
    """Return the crank angle of an event from its wheel reading.

    Parameters
    ----------
    wheel_deg : float
        DegreeWheel degrees where the lift was passed [deg].
    zero_deg : float
        DegreeWheel zero: wheel degrees at true TDC [deg].
    near_deg : float
        Where the card has the event; it decides on which of the two turns the reading lies [deg].

    Returns
    -------
    event_deg : float
        Crank degrees after the cylinder's firing TDC [deg].

    Source
    ------
    Definition of wheel zero.

    Example
    -------
    >>> event_deg(230.75, 0.25, 592.0)
    590.5
    """
    return nearest_turn_deg(wheel_deg - zero_deg, near_deg)


def centreline_deg(valve: Valve, opening_deg: float, closing_deg: float) -> float:
    """Return a lobe's centreline as the middle of two equal lifts.

    Parameters
    ----------
    valve : {"intake", "exhaust"}
        Whose lobe.
    opening_deg, closing_deg : float
        Crank angles at the same lift either side of the nose [deg].

    Returns
    -------
    centreline_deg : float
        Intake: after the overlap TDC. Exhaust: before it [deg].

    Source
    ------
    Practice: middle of equal lifts. On an asymmetric lobe it moves with the lift: compare at the same lift only.

    Example
    -------
    >>> centreline_deg("intake", 344.0, 592.0)
    108.0
    """
    from_overlap_deg = (opening_deg + closing_deg) / 2 - OVERLAP_TDC_DEG
    return from_overlap_deg if valve == "intake" else -from_overlap_deg


def separation_cam_deg(intake_centreline_deg: float, exhaust_centreline_deg: float) -> float:
    """Return lobe separation.

    Parameters
    ----------
    intake_centreline_deg : float
        After the overlap TDC, crank degrees [deg].
    exhaust_centreline_deg : float
        Before the overlap TDC, crank degrees [deg].

    Returns
    -------
    separation_cam_deg : float
        Angle between the lobes, cam degrees [deg].

    Source
    ------
    Definition: half of their crank angle apart.

    Example
    -------
    >>> separation_cam_deg(108.0, 110.0)
    109.0
    """
    return (intake_centreline_deg + exhaust_centreline_deg) / 2


def overlap_deg(intake_opening_deg: float, exhaust_closing_deg: float) -> float:
    """Return valve overlap at one checking lift.

    Parameters
    ----------
    intake_opening_deg, exhaust_closing_deg : float
        Crank angles at the same checking lift [deg].

    Returns
    -------
    overlap_deg : float
        Crank degrees with both valves above that lift; negative when there are none [deg].

    Source
    ------
    Definition: intake opening to exhaust closing.

    Example
    -------
    >>> overlap_deg(344.0, 374.0)
    30.0
    """
    return exhaust_closing_deg - intake_opening_deg


def advance_deg(valve: Valve, card_deg: float, measured_deg: float) -> float:
    """Return how far a cam is advanced against its card.

    Parameters
    ----------
    valve : {"intake", "exhaust"}
        Whose centreline.
    card_deg, measured_deg : float
        Centrelines by the same method at the same lift [deg].

    Returns
    -------
    advance_deg : float
        Positive = events come earlier than the card [deg].

    Source
    ------
    Definition; an exhaust centreline counts before TDC, so its sign turns.

    Example
    -------
    >>> advance_deg("intake", 108.0, 106.5), advance_deg("exhaust", 110.0, 111.5)
    (1.5, 1.5)
    """
    return card_deg - measured_deg if valve == "intake" else measured_deg - card_deg


def in_words(crank_deg: float) -> str:
    """Return a crank angle as a builder says it, from the nearest dead centre.

    Parameters
    ----------
    crank_deg : float
        Crank degrees after a TDC [deg].

    Returns
    -------
    words : str
        To a tenth of a degree, such as ``50.5° after BDC``.

    Source
    ------
    Trade wording.

    Example
    -------
    >>> in_words(590.5), in_words(-17.5), in_words(0)
    ('50.5° after BDC', '17.5° before TDC', 'at TDC')
    """
    from_tdc_deg = round(signed_deg(crank_deg), 1)
    centre, away_deg = "TDC", from_tdc_deg
    if abs(from_tdc_deg) > 90:
        centre, away_deg = "BDC", round(signed_deg(crank_deg - 180), 1)
    if away_deg == 0:
        return f"at {centre}"
    return f"{abs(away_deg):.1f}° {'after' if away_deg > 0 else 'before'} {centre}"
