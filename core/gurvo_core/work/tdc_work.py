"""True TDC from the readings that stand: pairs are matched up, the chosen method is applied."""

__all__ = ["adopted_zero", "find_tdc", "half_pair", "stop_pairs", "stray_entry"]

from functools import lru_cache
from uuid import UUID

from gurvo_core.errors import CoreError
from gurvo_core.motion import Slider
from gurvo_core.motion.frames import slider_of
from gurvo_core.timing import DropReading, TdcEstimate, fit_tdc, tdc_at_top, tdc_by_equal_drops, tdc_by_stop
from gurvo_core.timing.tdc_fit import LEAST_READINGS
from gurvo_core.work.entries import LedgerEntry, TdcReading
from gurvo_core.work.readings import gauge_u, length_mm, turned_deg
from gurvo_core.work.situation import Situation

SAME_ZERO_DEG = 1e-6  # what the client was shown and sends back differs by rounding at most

_Pair = tuple[tuple[LedgerEntry, TdcReading], tuple[LedgerEntry, TdcReading]]


def _of_method(now: Situation) -> list[tuple[LedgerEntry, TdcReading]]:
    return [(entry, body) for entry, body in now.tdc_readings if body.method == now.method]


def stop_pairs(now: Situation) -> list[_Pair]:
    """Return the readings before and after TDC that belong together.

    Parameters
    ----------
    now : Situation
        What stands.

    Returns
    -------
    pairs : list
        Each (before, after). The first before goes with the first after, the second with the second.

    Source
    ------
    House rule: they are taken in turn.

    Example
    -------
    >>> stop_pairs(gather(quern_4(), []))
    []
    """
    before = [pair for pair in _of_method(now) if pair[1].place == "before"]
    after = [pair for pair in _of_method(now) if pair[1].place == "after"]
    return list(zip(before, after, strict=False))


def half_pair(now: Situation) -> TdcReading | None:
    """Return the reading that still waits for its partner on the other side.

    Parameters
    ----------
    now : Situation
        What stands.

    Returns
    -------
    reading : TdcReading or None
        None when every reading has its partner.

    Source
    ------
    As ``stop_pairs``.

    Example
    -------
    >>> half_pair(gather(quern_4(), [])) is None
    True
    """
    pairs = len(stop_pairs(now))
    for place in ("before", "after"):
        waiting = [body for _, body in _of_method(now) if body.place == place][pairs:]
        if waiting:
            return waiting[0]
    return None


def find_tdc(now: Situation) -> TdcEstimate | None:
    """Return true TDC by the chosen method, as far as the readings go.

    Parameters
    ----------
    now : Situation
        What stands.

    Returns
    -------
    estimate : TdcEstimate or None
        None while there are too few readings, or they cannot be brought together.

    Source
    ------
    ``timing.tdc`` and ``timing.tdc_fit``.

    Example
    -------
    >>> find_tdc(gather(quern_4(), [])) is None
    True
    """
    if now.wheel is None:
        return None
    try:
        return _find(now)
    except CoreError:
        return None


def _find(now: Situation) -> TdcEstimate | None:
    slider, wheel = slider_of(now.document), now.wheel
    u_wheel, u_dial = gauge_u(now.wheel_gauge), gauge_u(now.dial_gauge)
    assert wheel is not None
    if now.method in ("positive_stop", "equal_drop"):
        pairs = stop_pairs(now)
        degrees = [(turned_deg(before.wheel, wheel), turned_deg(after.wheel, wheel)) for (_, before), (_, after) in pairs]
        if not pairs:
            return None
        if now.method == "positive_stop":
            return tdc_by_stop(degrees, slider, u_wheel)
        drops = [length_mm(before.drop, "drop") for (_, before), _ in pairs if before.drop]
        return tdc_by_equal_drops([(d, *both) for d, both in zip(drops, degrees, strict=True)], slider, u_wheel, u_dial)
    bodies = [body for _, body in _of_method(now)]
    if now.method == "top":
        readings = [turned_deg(body.wheel, wheel) for body in bodies]
        return tdc_at_top(readings, slider, u_wheel, now.dial_step_mm) if readings else None
    points = tuple((turned_deg(body.wheel, wheel), length_mm(body.drop, "drop")) for body in bodies if body.drop)
    return _fit(points, slider, u_wheel, u_dial) if len(points) >= LEAST_READINGS else None


@lru_cache(maxsize=64)
def _fit(points: tuple[tuple[float, float], ...], slider: Slider, u_wheel: float, u_dial: float) -> TdcEstimate:
    return fit_tdc([DropReading(wheel_deg=w, drop_mm=d) for w, d in points], slider, u_wheel, u_dial)


def stray_entry(now: Situation, estimate: TdcEstimate | None) -> UUID | None:
    """Return the entry of the reading that does not belong to a fit.

    Parameters
    ----------
    now : Situation
        What stands.
    estimate : TdcEstimate or None
        The fit.

    Returns
    -------
    entry_id : UUID or None
        None when no reading stands out.

    Source
    ------
    ``timing.fit_tdc``.

    Example
    -------
    >>> stray_entry(gather(quern_4(), []), None) is None
    True
    """
    if estimate is None or estimate.stray is None:
        return None
    return _of_method(now)[estimate.stray][0].id


def adopted_zero(now: Situation, estimate: TdcEstimate | None) -> bool:
    """Return whether the zero that was taken over is still what the readings say.

    Parameters
    ----------
    now : Situation
        What stands.
    estimate : TdcEstimate or None
        What the readings say now.

    Returns
    -------
    adopted : bool
        False when none was taken over, or a reading was added or struck since.

    Source
    ------
    House rule: a figure is taken over as it was shown.

    Example
    -------
    >>> adopted_zero(gather(quern_4(), []), None)
    False
    """
    zero = now.zero
    return bool(zero and estimate and zero.method == estimate.method and abs(zero.zero_deg - estimate.zero_deg) <= SAME_ZERO_DEG)
