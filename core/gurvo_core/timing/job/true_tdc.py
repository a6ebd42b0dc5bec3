"""True TDC from the readings that stand: pairs are matched up, the chosen method is applied."""

__all__ = ["adopted_zero", "find_tdc", "half_pair", "outlier_seq", "pairs_of", "rests_on", "tdc_basis"]

from functools import lru_cache, partial

from gurvo_core.errors import CoreError
from gurvo_core.ledger import Basis, Beside, kept_last, kept_with
from gurvo_core.motion import SliderCrank
from gurvo_core.motion.frames import slider_of
from gurvo_core.timing import (
    DropReading,
    GaugeUncertainty,
    TdcEstimate,
    TdcPair,
    fit_tdc,
    tdc_at_top,
    tdc_by_equal_drops,
    tdc_by_highest,
    tdc_by_stop,
)
from gurvo_core.timing.job.readings import gauge_u, wheel_u
from gurvo_core.timing.job.state import StandingTdcReading, TimingState
from gurvo_core.timing.tdc_fit import MIN_READINGS

_Pair = tuple[StandingTdcReading, StandingTdcReading]


def _of_method(now: TimingState) -> list[StandingTdcReading]:
    return [reading for reading in now.tdc_readings if reading.body.method == now.method]


def pairs_of(now: TimingState) -> list[_Pair]:
    """Return the readings before and after TDC that belong together. They are taken in turn."""
    before = [reading for reading in _of_method(now) if reading.body.place == "before"]
    after = [reading for reading in _of_method(now) if reading.body.place == "after"]
    return list(zip(before, after, strict=False))


def half_pair(now: TimingState) -> StandingTdcReading | None:
    """Return the reading that still waits for its partner on the other side."""
    pairs = len(pairs_of(now))
    for place in ("before", "after"):
        waiting = [reading for reading in _of_method(now) if reading.body.place == place][pairs:]
        if waiting:
            return waiting[0]
    return None


@lru_cache(maxsize=256)
def find_tdc(now: TimingState) -> TdcEstimate | None:
    """Return true TDC by the chosen method, as far as the readings go."""
    return kept_last(now.zero, "true TDC", rests_on(now), partial(_found, now))


def rests_on(now: TimingState) -> Beside:
    """Return all that true TDC and what is asked about it follow from: as long as a cam is read it stays the same.

    States are never changed in place.
    """
    said = now.method, str(now.method_chosen), str(now.stop_in)
    return Beside(now.document, now.tdc_readings, now.zero, now.setup, now.gauges, now.checked, *said)


def _found(now: TimingState) -> TdcEstimate | None:
    try:
        return _find(now) if now.wheel else None
    except CoreError:
        return None


def _find(now: TimingState) -> TdcEstimate | None:
    slider, readings = slider_of(now.document), _of_method(now)
    wheel, dial = wheel_u(now), gauge_u(now.gauges.get("dial"))
    if slider is None and now.method not in ("positive_stop", "equal_drop"):
        return None  # stroke or rod are not known (any more)
    if now.method == "fit" and slider is not None:
        points = tuple((reading.wheel_deg, reading.drop_mm) for reading in readings if reading.drop_mm is not None)
        return _fit(points, slider, wheel, dial) if len(points) >= MIN_READINGS else None
    found = pairs_of(now)
    pairs = [TdcPair(before_deg=before.wheel_deg, after_deg=after.wheel_deg, drop_mm=before.drop_mm) for before, after in found]
    single = [reading.wheel_deg for reading in readings if reading.body.place is None]
    if now.method == "top" and slider is not None and single and not pairs:
        return tdc_by_highest(single, slider, wheel, now.dial_step_mm)
    if not pairs:
        return None
    if now.method == "top" and slider is not None:
        return tdc_at_top(pairs, slider, wheel, now.dial_step_mm)
    return tdc_by_stop(pairs, slider, wheel) if now.method == "positive_stop" else tdc_by_equal_drops(pairs, slider, wheel, dial)


@lru_cache(maxsize=64)
def _fit(points: tuple[tuple[float, float], ...], slider: SliderCrank, wheel: GaugeUncertainty, dial: GaugeUncertainty) -> TdcEstimate:
    return fit_tdc([DropReading(wheel_deg=w, drop_mm=d) for w, d in points], slider, wheel, dial)


def outlier_seq(now: TimingState, estimate: TdcEstimate | None) -> int | None:
    """Return the place in the ledger of the reading that does not belong to a fit."""
    if estimate is None or estimate.outlier is None:
        return None
    return _of_method(now)[estimate.outlier].seq


def tdc_basis(now: TimingState) -> Basis:
    """Return the readings that true TDC rests on now. A figure taken over cites the entries it rests on."""
    readings = _of_method(now)
    return Basis(last=readings[-1].seq if readings else 0, count=len(readings))


@kept_with
def adopted_zero(now: TimingState) -> TdcEstimate | None:
    """Return true TDC if it was taken over and still rests on the same readings.

    It lapses with its entries, never because a formula got better.
    """
    zero = now.zero
    if zero is None or zero.body.method != now.method or zero.body.rests_on != tdc_basis(now):
        return None
    return find_tdc(now)
