"""What rings in a recording, line by line: how loud each is, whether it dies away as a plucked span does, and how quiet it is between."""

__all__ = ["Partial", "Spectrum", "spectrum_of"]

from dataclasses import dataclass
from itertools import pairwise

import numpy as np
import scipy  # its parts load themselves when first used: each takes a good part of a second
from numpy.typing import NDArray

Sound = NDArray[np.float64]
PADDED = 4  # times finer than the recording's own length
FLOOR_HZ = 45.0  # either way: what is heard between the lines
STANDS_OUT = 6.0  # times the floor
SOFTEST = 0.004  # of the loudest line
STEADY = 0.8  # of its early loudness late: what has not lost more is hum, or held
SWELLS = 1.15  # from one part of the pluck to the next: what grows more is a voice, or begins later
PARTS = 4
WANDERS = 0.012  # of a pitch between early and late: a voice


@dataclass(frozen=True, kw_only=True)
class Partial:
    """One line of a sound [Hz], its amplitude, and whether it rings: dies away at one pitch."""

    hz: float
    loud: float
    rings: bool
    steady: bool


@dataclass(frozen=True, kw_only=True, eq=False)
class Spectrum:
    """All lines of a sound, lowest first, and what is heard between them."""

    partials: tuple[Partial, ...]
    lines_hz: Sound
    floor: Sound
    fineness_hz: float  # two lines nearer than this are one

    def floor_at(self, hz: float) -> float:
        """The amplitude below which a line at a pitch could not be told."""
        return float(STANDS_OUT * np.interp(hz, self.lines_hz, self.floor))


def spectrum_of(sound: Sound, rate: float, highest_hz: float) -> Spectrum:
    """Return what rings in a piece of sound.

    rate: samples a second [Hz].
    highest_hz: up to which pitch it is looked at [Hz].
    Returned: its lines [Hz].
    Source: [string]: discrete Fourier transform (numpy.fft, Hann window), tops by a parabola through the logarithms (J. O. Smith, Spectral
    Audio Signal Processing, on interpolating peaks; from memory); early against late by the same transform of its parts.
    >>> t = np.arange(4000) / 4000
    >>> found = spectrum_of(np.exp(-3 * t) * np.sin(2 * np.pi * 82.5 * t) + 0.3 * np.sin(2 * np.pi * 150 * t), 4000.0, 500.0)
    >>> [round(one.hz) for one in found.partials if one.rings]
    [82]
    """
    window = np.hanning(len(sound))
    size = len(sound) * PADDED
    loud = np.abs(np.fft.rfft((sound - sound.mean()) * window, size)) * 2 / window.sum()
    lines = np.asarray(np.fft.rfftfreq(size, 1 / rate), dtype=np.float64)
    kept = lines <= min(highest_hz, 0.45 * rate)
    lines, loud = lines[kept], loud[kept]
    fineness = 2.0 * rate / len(sound)
    wide = max(3, int(FLOOR_HZ / (lines[1] - lines[0])))
    floor = scipy.ndimage.percentile_filter(loud[::PADDED], 35, size=2 * (wide // PADDED) + 1, mode="nearest")
    floor = np.interp(lines, lines[::PADDED], floor)
    tops, _ = scipy.signal.find_peaks(loud, height=SOFTEST * loud.max(), distance=max(1, PADDED))
    tops = [top for top in tops if loud[top] > STANDS_OUT * floor[top] and lines[top] > fineness / 2]
    parts = _parts(sound, rate)
    partials = (_partial(lines, loud, top, parts, fineness) for top in tops)
    return Spectrum(partials=tuple(partials), lines_hz=lines, floor=floor, fineness_hz=fineness)


def _parts(sound: Sound, rate: float) -> tuple[tuple[Sound, Sound], ...]:
    """Halves of it, each beginning somewhat later than the one before: windowed, with the moments it lies at [s]."""
    half = len(sound) // 2
    window = np.hanning(half)
    times = np.arange(len(sound)) / rate
    begins = [round(n * (len(sound) - half) / (PARTS - 1)) for n in range(PARTS)]
    return tuple(((sound[at : at + half] - sound.mean()) * window, times[at : at + half]) for at in begins)


def _partial(lines: Sound, loud: Sound, top: int, parts: tuple[tuple[Sound, Sound], ...], fineness: float) -> Partial:
    hz = float(lines[top])
    if 0 < top < len(lines) - 1:
        left, middle, right = np.log(loud[top - 1 : top + 2] + 1e-300)
        bend = left - 2 * middle + right
        hz += float((0.5 * (left - right) / bend if bend < 0 else 0.0) * (lines[1] - lines[0]))
    heard = [_at(part, times, hz) for part, times in parts]
    left = heard[-1] / heard[0] if heard[0] else 1.0
    swells = any(later > SWELLS * before for before, later in pairwise(heard))
    wanders = any(_off(part, times, hz, fineness) > max(WANDERS * hz, 0.35 * fineness) for part, times in parts)
    rings = left < STEADY and not swells and not wanders
    return Partial(hz=hz, loud=float(loud[top]), rings=rings, steady=left >= STEADY and not wanders)


def _at(part: Sound, times: Sound, hz: float) -> float:
    return float(np.abs(np.dot(part, np.exp(-2j * np.pi * hz * times))))


def _off(part: Sound, times: Sound, hz: float, fineness: float) -> float:
    """How far from a pitch this half has its own top, by three lines about it [Hz]."""
    step = fineness
    left, middle, right = (np.log(_at(part, times, hz + by) + 1e-300) for by in (-step, 0.0, step))
    bend = left - 2 * middle + right
    return abs(0.5 * (left - right) / bend) * step if bend < 0 else 2 * step
