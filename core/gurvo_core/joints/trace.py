"""Torque over angle as an instrument gave it: where the joint was snug, how stiff it turned, whether it yielded, what was wrong.

Torque in N·m, angle in degrees. Everything is done in whole-array passes, so that a long trace is as quick as numpy lets it be.
"""

__all__ = ["Gap", "Trace", "TraceFigures", "analyse", "clean", "thin"]

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from gurvo_core.errors import ReadingError

GRID = 240  # even steps of angle on which the slope is looked at
SPAN = GRID // 20
JERKS_FROM = 20  # steps
LEAST_POINTS = 8
SNUG_SHARE = 0.10  # of the peak: below it the joint is still being run down
HALF_WAY = 0.5  # of the peak
BEFORE_IT_GIVES = 0.65  # of the peak
RISEN = 0.05  # of the peak, above what it ran down at
CLOSER = 0.6  # of the angle looked at: where the work is in less than that, it is looked at closer
LOOKS = 8  # closer each time; twenty turns run down before a quarter turn of work take six
LEAST_SEEN = 10  # readings from snug to the top; a yield hides between fewer
LINEAR = (0.18, 0.42)  # share of the way to the peak between which a sound joint turns in a straight line
LEAST_RISE = 0.08  # of the peak, within a twentieth of the way: less is a tremble
LEAST_YIELD = 0.06  # of the way: a slope that has dropped for less than that is no yield
YIELD_SLOPE = 0.50  # of the linear slope: where it has dropped to this the bolt has begun to yield
GALLED_SHARE = 0.20  # of the peak, over some way and hardly rising: more than a thread that runs down freely takes
FLAT = 0.30  # of the steep part's slope: hardly rising
JERKS = 6  # times up and down
BOTTOM_TIMES = 1.8  # of the linear slope: something solid was met
STICK_SHARE = 0.03  # of the peak: torque that jumps back and forth by more from one step of the grid to the next
BREAKAWAY = 0.12  # of the whole way: whoever is at more than half its peak by then was tight before
BACK_DEG = 2.0  # a ratchet gives a little; more is turning back
GAP_SHARE = 0.2  # of the whole angle, without a reading
FULL_TURNS_DEG = 7200.0


@dataclass(frozen=True)
class Gap:
    """What was wrong with a trace as it came, in a sentence."""

    sentence: str


@dataclass(frozen=True, eq=False)
class Trace:
    """Readings in the order they came."""

    angle_deg: NDArray[np.float64]
    torque_nm: NDArray[np.float64]


@dataclass(frozen=True, kw_only=True)
class TraceFigures:
    """What a trace says."""

    snug_deg: float  # where the straight line would begin
    slope_nm_deg: float
    yield_deg: float | None
    peak_nm: float
    end_nm: float
    turned_deg: float  # from snug to the end
    work_j: float
    flags: tuple[str, ...]


class _Even:
    """A trace on an even grid, its top, and the slope over a stretch so long that a tremble is no slope."""

    def __init__(self, grid_deg: NDArray[np.float64], torque_nm: NDArray[np.float64]) -> None:
        self.grid_deg, self.torque_nm, self.top = grid_deg, torque_nm, int(torque_nm.argmax())
        self.slopes = (torque_nm[SPAN:] - torque_nm[:-SPAN]) / (grid_deg[SPAN:] - grid_deg[:-SPAN])

    def smoothed(self) -> "_Even":
        """The same without what trembles faster than half a stretch; its ends stay what they are."""
        half = SPAN // 4
        padded = np.pad(self.torque_nm, half, mode="edge")
        return _Even(self.grid_deg, np.convolve(padded, np.ones(2 * half + 1) / (2 * half + 1), mode="valid"))


@dataclass(frozen=True, kw_only=True)
class _Line:
    """The straight part: where it ends on the grid, how steep it is, where it would begin."""

    high: int
    slope: float
    snug_deg: float
    is_tight: bool = False  # before it was turned at all
    binds: bool = False  # before anything is clamped


def clean(angle_deg: ArrayLike, torque_nm: ArrayLike) -> tuple[Trace, list[Gap]]:
    """Return a trace that can be looked at, and what had to be left out or said of it.

    angle_deg: angle turned, growing [deg]; one dimension.
    torque_nm: torque at each [N·m]; same length.
    Raises ReadingError if too little is left, or the angle falls.
    Bad readings are said, never mended in silence.
    """
    angle, torque = np.asarray(angle_deg, dtype=float), np.asarray(torque_nm, dtype=float)
    if angle.ndim != 1 or angle.shape != torque.shape:
        raise ReadingError("trace", None, "a trace has as many angles as torques, one after the other")
    sound = np.isfinite(angle) & np.isfinite(torque)
    bad = int(sound.size - np.count_nonzero(sound))
    gaps = [Gap(f"{bad} reading{'s are' if bad > 1 else ' is'} no number and {'were' if bad > 1 else 'was'} left out")] if bad else []
    angle, torque = (angle, torque) if not bad else (angle[sound], torque[sound])
    if angle.size < LEAST_POINTS:
        raise ReadingError("trace", angle.size, f"a trace needs at least {LEAST_POINTS} readings; this has {angle.size}")
    steps = np.diff(angle)
    span = float(angle[-1] - angle[0])
    if not span > 0 or float(steps.min()) < -BACK_DEG:
        rule = "the angle falls on the way: the wrench was turned back, or the columns are the wrong way round"
        raise ReadingError("trace", None, rule)
    if span > FULL_TURNS_DEG:
        raise ReadingError("trace", span, "more than twenty turns is no pull: check which column is the angle")
    widest = int(steps.argmax())
    if float(steps[widest]) > GAP_SHARE * span:
        gaps.append(Gap(f"nothing was read from {angle[widest]:.0f}° to {angle[widest + 1]:.0f}°: the stream broke off there"))
    return Trace(angle, torque), gaps


def thin(trace: Trace, most: int) -> Trace:
    """Return a trace with fewer points that keeps every peak.

    most: at most so many points, about [-]; at least four.
    Extremes are kept, so that what is drawn and what is judged agree.
    """
    count = trace.angle_deg.size
    if count <= most:
        return trace
    size = -(-count // max(1, most // 4))
    whole = count // size * size
    rows = trace.torque_nm[:whole].reshape(-1, size)
    begin = np.arange(rows.shape[0]) * size
    kept = np.concatenate([begin, begin + size - 1, begin + rows.argmin(axis=1), begin + rows.argmax(axis=1)])
    rest = trace.torque_nm[whole:]
    if rest.size:
        kept = np.concatenate([kept, [whole, whole + int(rest.argmin()), whole + int(rest.argmax()), count - 1]])
    chosen = np.unique(kept)
    return Trace(trace.angle_deg[chosen], trace.torque_nm[chosen])


def analyse(trace: Trace) -> TraceFigures:
    """Return what a trace says.

    Returned: angles [deg], torques [N·m], work [J]; flags are sentences.
    Raises ReadingError if nothing was ever tight in it.
    Source: [torque-angle-trace] in docs/sources.md: snug where the straight part would begin, yield where the slope has halved.
    A joint snug at 20°, half a newton metre a degree from there.
    >>> angle = np.linspace(0, 120, 600)
    >>> found = analyse(Trace(angle, np.maximum(0, (angle - 20) * 0.5)))
    >>> round(found.snug_deg), round(found.slope_nm_deg, 2), found.yield_deg
    (20, 0.5, None)
    """
    angle, torque = trace.angle_deg, trace.torque_nm
    peak_nm = float(torque.max())
    if not peak_nm > 0:
        raise ReadingError("trace", peak_nm, "no torque in it is above 0: check which column is the torque")
    whole = _on_grid(trace)
    rough = _work_of(trace, whole)
    even = rough.smoothed()
    line = _straight(even)
    yield_deg = _yield(even, line)
    flags = _flags(even, line, yield_deg, jerks=_jerks(np.diff(rough.torque_nm[rough.torque_nm > SNUG_SHARE * peak_nm]), peak_nm))
    step_deg = float(even.grid_deg[1] - even.grid_deg[0])
    seen = int(np.count_nonzero((angle >= line.snug_deg - step_deg) & (angle <= even.grid_deg[even.top] + step_deg)))
    if seen < LEAST_SEEN:
        flags.append(f"only {seen} readings from snug to the top: a yield between them would not be seen")
    return TraceFigures(
        snug_deg=line.snug_deg,
        slope_nm_deg=line.slope,
        yield_deg=yield_deg,
        peak_nm=peak_nm,
        end_nm=float(torque[-1]),
        turned_deg=float(angle[-1]) - line.snug_deg,
        work_j=float(whole.torque_nm.sum() * np.radians(angle[-1] - angle[0]) / GRID),
        flags=tuple(flags),
    )


def _work_of(trace: Trace, rough: _Even) -> _Even:
    """The part in which it clamps, with some of the running down before it, however long that was: it is looked at closer and closer."""
    for _ in range(LOOKS):
        even = rough.smoothed()
        peak_nm = float(even.torque_nm[even.top])
        half = _first_above(even, HALF_WAY * peak_nm)
        run_down_nm = float(np.median(even.torque_nm[: half + 1]))
        rises = float(even.grid_deg[_first_above(even, min(HALF_WAY * peak_nm, run_down_nm + RISEN * peak_nm))])
        begins = rises - (float(even.grid_deg[even.top]) - rises) / 2
        first = int(np.searchsorted(trace.angle_deg, begins))
        closer = Trace(trace.angle_deg[first:], trace.torque_nm[first:])
        span = trace.angle_deg[-1] - trace.angle_deg[0]
        if closer.angle_deg.size < LEAST_POINTS or closer.angle_deg[-1] - closer.angle_deg[0] > CLOSER * span:
            break
        trace, rough = closer, _on_grid(closer)
    return rough


def _straight(even: _Even) -> _Line:
    """The part in which a sound joint turns in a straight line, and where that would begin."""
    grid, torque, peak_nm = even.grid_deg, even.torque_nm, float(even.torque_nm[even.top])
    base_nm = _run_down_nm(even)
    if not base_nm and _first_above(even, LINEAR[1] * peak_nm) < BREAKAWAY * GRID:
        return _tight_already(even)
    low, high = (_first_above(even, base_nm + share * (peak_nm - base_nm)) for share in LINEAR)
    high = max(high, low + 2)
    slope, base = _through(grid[low : high + 1], torque[low : high + 1])
    snug_deg = float((base_nm - base) / slope) if slope > 0 else float(grid[low])
    return _Line(
        high=high, slope=float(slope), snug_deg=min(max(snug_deg, float(grid[0])), float(grid[low])), binds=base_nm > GALLED_SHARE * peak_nm
    )


def _through(at: NDArray[np.float64], value: NDArray[np.float64]) -> tuple[float, float]:
    """Slope and foot of the straight line of least squares."""
    middle, level = at.mean(), value.mean()
    away = at - middle
    slope = float(away @ (value - level) / (away @ away))
    return slope, float(level - slope * middle)


def _share_below(values: NDArray[np.float64], share: float) -> float:
    """The value that so large a share lies below."""
    place = min(values.size - 1, int(share * values.size))
    return float(np.partition(values, place)[place])


def _run_down_nm(even: _Even) -> float:
    """The torque at which it turned on and on before it clamped: free, prevailing, or binding; 0 where that is not in it."""
    peak_nm = float(even.torque_nm[even.top])
    early = even.slopes[: max(GRID // 2, _first_above(even, HALF_WAY * peak_nm) - SPAN)]
    # by the whole way up, so that what is steep at its end, as of a bolt that bottoms, does not make the rest look flat
    on_the_whole = peak_nm / max(float(even.grid_deg[even.top] - even.grid_deg[0]), 1e-9)
    # flat further up than that is a bolt that gives, and no running down
    flat = (early < FLAT * min(on_the_whole, _share_below(even.slopes, 0.8))) & (even.torque_nm[: early.size] < BEFORE_IT_GIVES * peak_nm)
    return float(np.median(even.torque_nm[: early.size][flat])) if np.count_nonzero(flat) >= LEAST_YIELD * GRID else 0.0


def _tight_already(even: _Even) -> _Line:
    """Of a fastener that was tight before: it breaks away at once, and what is straight is the turn that follows."""
    begin, high = int(2 * BREAKAWAY * GRID), GRID // 2
    slope, _ = _through(even.grid_deg[begin : high + 1], even.torque_nm[begin : high + 1])
    return _Line(high=high, slope=float(slope), snug_deg=float(even.grid_deg[0]), is_tight=True)


def _on_grid(trace: Trace) -> _Even:
    """The mean torque of each even step of angle; a step nothing was read in is bridged."""
    angle, torque = trace.angle_deg, trace.torque_nm
    if angle.size <= GRID:
        step = (angle[-1] - angle[0]) / GRID
        grid = angle[0] + step * (np.arange(GRID) + 0.5)
        return _Even(grid, np.interp(grid, np.maximum.accumulate(angle), torque))
    edges = np.linspace(angle[0], angle[-1], GRID + 1)
    # angles come in order but for a ratchet's give, so that a stretch of readings is a stretch of angle
    begin = np.concatenate([[0], np.searchsorted(angle, edges[1:-1])])
    count = np.diff(np.concatenate([begin, [angle.size]]))
    filled = np.flatnonzero(count > 0)
    sums = np.add.reduceat(torque, begin[filled])
    middles = (edges[1:] + edges[:-1]) / 2
    return _Even(middles, np.interp(middles, middles[filled], sums / count[filled]))


def _first_above(even: _Even, level: float) -> int:
    """Where it passes a level for good on its way to the top."""
    below = np.flatnonzero(even.torque_nm[: even.top + 1] < level)
    return min(int(below[-1]) + 1 if below.size else 0, max(0, even.torque_nm.size - 3))


def _yield(even: _Even, line: _Line) -> float | None:
    part = even.slopes[line.high : (even.slopes.size if line.is_tight else max(line.high, even.top - SPAN) + 1)]
    # for good, and over some way: a single step back is stick-slip
    level = YIELD_SLOPE * line.slope
    above = np.flatnonzero(part >= level)
    begins = int(above[-1]) + 1 if above.size and not line.is_tight else 0
    lasts = part.size - begins >= GRID * LEAST_YIELD
    if not lasts or not line.slope > 0 or float(part[begins:].mean()) >= level:
        return None
    return float(even.grid_deg[line.high + begins + SPAN // 2])


def _flags(even: _Even, line: _Line, yield_deg: float | None, *, jerks: bool) -> list[str]:
    flags = ["jerks: stick-slip, dry under the head or in the thread"] if jerks else []
    if line.binds:
        flags.append("binds before anything is clamped: galled or crossed thread")
    late = even.slopes[line.high : even.top + 1]
    rise_nm = float(late.max()) * (even.grid_deg[SPAN] - even.grid_deg[0]) if late.size else 0.0
    if not jerks and rise_nm > LEAST_RISE * even.torque_nm[even.top] and float(late.max()) > BOTTOM_TIMES * line.slope:
        flags.append("turns suddenly much harder: bottoming in its hole, or out of thread")
    if yield_deg is not None:
        flags.append(f"yields from {yield_deg:.0f}° on")
    return flags


def _jerks(steps: NDArray[np.float64], peak_nm: float) -> bool:
    """Whether torque jumps up and down by much, again and again."""
    if steps.size <= JERKS_FROM or not _share_below(np.abs(steps), 0.9) > STICK_SHARE * peak_nm:
        return False
    return bool(np.count_nonzero(np.diff(np.sign(steps)) != 0) >= JERKS)
