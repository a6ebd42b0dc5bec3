"""How often the truth lies within the stated U: seeded sessions at a made-up bench, by method, crank, wheel step and repeats.

A wheel sits off centre, so that its error is one smooth curve round it: U is stated for that. Beside it stands a wheel each place of which
has an error of its own. Either way it is the same at every repeat at one place, as the rounding to its step is; the touch scatters anew.
Run alone with ``python -m benchmarks.coverage``; ``tests/core/test_coverage.py`` checks a few cells.
"""

from dataclasses import dataclass

import numpy as np

from gurvo_core.angles import signed_deg
from gurvo_core.fits.clearance import ReadWith, clearance_of, size_of
from gurvo_core.motion import SliderCrank, drop_at_deg, drop_mm
from gurvo_core.timing import (
    DropReading,
    GaugeUncertainty,
    TdcEstimate,
    TdcPair,
    fit_tdc,
    standard_uncertainty,
    tdc_at_top,
    tdc_by_equal_drops,
    tdc_by_stop,
    tdc_dwell_half_width_deg,
)
from gurvo_core.timing.tdc import SIDES, carried_by

CRANKS = {
    "tractor": SliderCrank(throw_mm=43, rod_mm=143, pin_offset_mm=0.8),
    "sprayer": SliderCrank(throw_mm=26, rod_mm=100),
    "railcar": SliderCrank(throw_mm=75, rod_mm=262, pin_offset_mm=-4),
}
STEPS_DEG = (0.25, 0.5, 1.0)
REPEATS = (1, 2, 6)
METHODS = ("positive stop", "three stops", "equal drops", "four drops", "fit", "at the top", "a cam's lift")
WHEEL_CALIBRATION_DEG, DIAL_CALIBRATION_MM, DIAL_STEP_MM = 0.2, 0.008, 0.01
TOUCH_DEG = 0.03  # how well a stop is met again
SESSIONS, SEED = 1000, 20261125
SPOTS, UNEVEN_MM = (1, 4, 9), (0.0, 0.0005, 0.003)
BORE_MM, BORE_STEP_MM = 58.0, 0.002
AIM, WITHIN = 95.0, 2.0
CAM_EVENTS_DEG = (344.0, 592.0)  # an intake valve's, after the firing TDC


@dataclass
class Bench:
    """A wheel that sits off centre, or has an error of its own at every place, and a dial that has."""

    crank: SliderCrank
    step_deg: float
    chance: np.random.Generator
    zero_deg: float
    is_eccentric: bool = True

    def __post_init__(self) -> None:
        """How far off centre, and which way: half its stated U anywhere on it."""
        self.off_centre = self.chance.normal(0, WHEEL_CALIBRATION_DEG / 2, 2)

    def _error_deg(self, at_deg: float) -> float:
        if not self.is_eccentric:
            return float(self.chance.normal(0, WHEEL_CALIBRATION_DEG / 2))
        seen = np.radians(at_deg + self.zero_deg)
        return float(self.off_centre @ [np.cos(seen), np.sin(seen)])

    def wheel(self, at_deg: float, repeats: int) -> list[float]:
        """What is read at one place, over and over."""
        off = self._error_deg(at_deg)
        seen = at_deg + self.zero_deg + off + self.chance.normal(0, TOUCH_DEG, repeats)
        return list(np.round(seen / self.step_deg) * self.step_deg % 360)

    def session(self, method: str, repeats: int) -> tuple[float, float]:
        """One session: how far the found zero is from the true one, and its U."""
        wheel, dial = standard_uncertainty(self.step_deg, WHEEL_CALIBRATION_DEG), standard_uncertainty(DIAL_STEP_MM, DIAL_CALIBRATION_MM)
        if method == "fit":
            estimate = fit_tdc(self._points(repeats), self.crank, wheel, dial)
        elif method in ("positive stop", "three stops"):
            estimate = tdc_by_stop(self._stops(3 if method == "three stops" else 1, repeats), self.crank, wheel)
        elif method in ("equal drops", "four drops"):
            pairs = [pair for _ in range(4 if method == "four drops" else 1) for pair in self._drops(repeats)]
            estimate = tdc_by_equal_drops(pairs, self.crank, wheel, dial)
        elif method == "a cam's lift":
            return self._cam(tdc_by_stop(self._stops(1, repeats), self.crank, wheel), repeats, wheel)
        else:
            dwell = tdc_dwell_half_width_deg(self.crank, DIAL_STEP_MM)
            ends = [sign * dwell * (1 + self.chance.uniform(-0.5, 0.5)) ** 0.5 for sign in (-1, 1)]
            estimate = tdc_at_top(self._pairs(ends, repeats), self.crank, wheel, DIAL_STEP_MM)
        return signed_deg(estimate.zero_deg - self.zero_deg), estimate.expanded_deg

    def _cam(self, zero: TdcEstimate, repeats: int, wheel: GaugeUncertainty) -> tuple[float, float]:
        """Where a valve passes a lift, either flank, against a zero found on the same wheel; the dial has no error here."""
        at_deg = float(self.chance.choice(CAM_EVENTS_DEG))
        reads = float(np.mean(unwrapped(self.wheel(at_deg, repeats), at_deg + self.zero_deg)))
        u = zero.u_of(wheel.resolution, carried_by({reads: 1.0}))
        return reads - zero.zero_deg - at_deg, 2 * u

    def _stops(self, depths: int, repeats: int) -> list[TdcPair]:
        drops = [float(drop_mm(self.chance.uniform(25, 55), self.crank)) for _ in range(depths)]
        sides: list[list[float]] = [[drop_at_deg(drop, side, self.crank) for side in SIDES] for drop in drops]
        return [pair for ends in sides for pair in self._pairs(ends, repeats)]

    def _drops(self, repeats: int) -> list[TdcPair]:
        drop = float(drop_mm(self.chance.uniform(25, 55), self.crank))
        gain = self.chance.normal(0, DIAL_CALIBRATION_MM / 2)  # the same at both readings
        set_to = [drop + gain + self.chance.uniform(-0.5, 0.5) * DIAL_STEP_MM for _ in range(2)]
        ends = [drop_at_deg(d, side, self.crank) for d, side in zip(set_to, SIDES, strict=True)]
        return self._pairs(ends, repeats, drop)

    def _pairs(self, ends_deg: list[float], repeats: int, drop: float | None = None) -> list[TdcPair]:
        before, after = (self.wheel(at_deg, repeats) for at_deg in ends_deg)
        return [TdcPair(before_deg=b, after_deg=a, drop_mm=drop) for b, a in zip(before, after, strict=True)]

    def _points(self, repeats: int) -> list[DropReading]:
        places = np.concatenate([self.chance.uniform(-60, -15, 4), self.chance.uniform(15, 60, 4)])
        dial_zero, points = self.chance.normal(0, 0.02), []
        for at_deg in places:
            off = self.chance.normal(0, DIAL_CALIBRATION_MM / 2)
            for reads in self.wheel(at_deg, repeats):
                seen = float(drop_mm(at_deg, self.crank)) + dial_zero + off
                points.append(DropReading(wheel_deg=reads, drop_mm=round(seen / DIAL_STEP_MM) * DIAL_STEP_MM))
        return points


def unwrapped(readings_deg: list[float], near_deg: float) -> list[float]:
    """Wheel degrees brought to the turn on which they are expected."""
    return [near_deg + signed_deg(reading - near_deg) for reading in readings_deg]


def share_within(method: str, crank: str, step_deg: float, repeats: int, sessions: int = SESSIONS, *, is_eccentric: bool = True) -> float:
    """Return in how many of a hundred sessions the truth lies within the stated U [%]."""
    chance = np.random.default_rng(SEED)
    within = 0
    for zero_deg in chance.uniform(-20, 20, sessions):
        error, expanded = Bench(CRANKS[crank], step_deg, chance, zero_deg, is_eccentric).session(method, repeats)
        within += abs(error) <= expanded
    return 100 * within / sessions


def spots_within(spots: int, uneven_mm: float, bores: int = SESSIONS) -> float:
    """Return of how many of a hundred bores the least size lies within the stated U, read at so many spots of one gauge [%]."""
    chance = np.random.default_rng(SEED)
    gauge = ReadWith(resolution_mm=BORE_STEP_MM, calibration_mm=BORE_STEP_MM, part_c=20)
    true = BORE_MM + uneven_mm * chance.standard_normal((bores, spots))
    shared = gauge.shared_mm(BORE_MM) * chance.standard_normal((bores, 1))
    read = true + shared + BORE_STEP_MM / 12**0.5 * chance.standard_normal((bores, spots))
    within = 0
    for row, of in zip(read, true, strict=True):
        least = clearance_of({(str(n), ""): size_of([value], gauge) for n, value in enumerate(row)}, {}).least
        within += abs(least.value - of.min()) <= least.expanded
    return 100 * within / bores


def measure() -> None:
    """Print all tables."""
    _print_table(f"a wheel off centre; aim {AIM:g} within {WITHIN:g}", tuple(CRANKS), is_eccentric=True)
    _print_table("a wheel with an error of its own at every place; no aim", ("tractor",), is_eccentric=False)
    print(f"\nThe least of several spots, % of {SESSIONS} seeded bores within the stated U; aim {AIM - WITHIN:g} or more")
    print(f"{'out of round by':24}" + "".join(f"{f'{spots} spots':>12}" for spots in SPOTS))
    for uneven_mm in UNEVEN_MM:
        print(f"{f'{uneven_mm:g} mm':24}" + "".join(f"{spots_within(spots, uneven_mm):12.1f}" for spots in SPOTS))


def _print_table(said: str, cranks: tuple[str, ...], *, is_eccentric: bool) -> None:
    print(f"\nThe truth lies within the stated U, % of {SESSIONS} seeded sessions, {said}")
    print(f"{'method':15}{'crank':9}" + "".join(f"{f'{step:g}° x {n}':>12}" for step in STEPS_DEG for n in REPEATS))
    for method in METHODS:
        for crank in cranks:
            shares = [share_within(method, crank, step, n, is_eccentric=is_eccentric) for step in STEPS_DEG for n in REPEATS]
            print(f"{method:15}{crank:9}" + "".join(f"{share:12.1f}" for share in shares), flush=True)


if __name__ == "__main__":
    measure()
