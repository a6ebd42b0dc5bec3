"""A plucked span as it was recorded: the pitch it sounds at, or that it cannot be told. Times in seconds, pitches in hertz."""

__all__ = ["Pluck", "pitch_of", "read_wav"]

import io
import warnings
from dataclasses import dataclass

import numpy as np
import scipy  # its parts load themselves when first used: each takes a good part of a second
from numpy.typing import NDArray

from gurvo_core.errors import ReadingError

LOWEST_HZ, HIGHEST_HZ = 15.0, 500.0  # spans of engines sound within
SHORTEST_S, LONGEST_S = 0.15, 20.0
ENOUGH_HZ = 4000  # samples a second, for pitches up to 500: a longer list would only take time
LEFT_OVER = 0.05  # of all that sounds, at least so much lies below twice the band
NOTHING = "nothing sounds between 15 and 500 Hz; is it the span that was recorded?"
PADDED = 8  # times finer than the recording's own length
NEAR = 0.04  # of a pitch: what lies so near belongs to it
SHARE = 0.45  # of all that sounds within the band must be the pitch and its overtones
APART = 0.03  # both halves of a plucked span sound alike; a voice wanders
OVERTONES = 4


@dataclass(frozen=True, kw_only=True)
class Pluck:
    """The pitch of a plucked span, how finely it is told, and how much of the sound it is."""

    frequency_hz: float
    u_hz: float
    share: float


def read_wav(data: bytes) -> tuple[int, NDArray[np.float64]]:
    """Return the sound in a WAV file, its channels made one.

    Parameters
    ----------
    data : bytes
        The file.

    Returns
    -------
    rate : int
        Samples a second [Hz].
    samples : ndarray
        From -1 to 1, or as loud as it was.

    Raises
    ------
    ReadingError
        If it is no WAV, or too short or too long.

    Source
    ------
    scipy.io.wavfile.

    Example
    -------
    >>> try: read_wav(b"no sound")
    ... except ReadingError as error: error.field
    'file'
    """
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore", scipy.io.wavfile.WavFileWarning)
            rate, samples = scipy.io.wavfile.read(io.BytesIO(data))
    except (ValueError, EOFError, OSError, TypeError) as error:
        raise ReadingError("file", len(data), "this is no WAV file; record it as WAV, uncompressed") from error
    sound = np.asarray(samples, dtype=np.float64)
    sound = sound.mean(axis=1) if sound.ndim > 1 else sound
    seconds = len(sound) / rate if rate else 0.0
    if not SHORTEST_S <= seconds <= LONGEST_S:
        rule = f"the recording is {seconds:.2f} s long: pluck the span once and record {SHORTEST_S:g} to {LONGEST_S:g} s"
        raise ReadingError("file", seconds, rule)
    return int(rate), sound


def pitch_of(samples: NDArray[np.float64], rate: float) -> Pluck:
    """Return the pitch of a plucked span.

    Parameters
    ----------
    samples : ndarray
        The sound.
    rate : float
        Samples a second [Hz].

    Returns
    -------
    pluck : Pluck
        Its first mode [Hz].

    Raises
    ------
    ReadingError
        If it cannot be told: silence, noise, a voice, several spans at once.

    Source
    ------
    Discrete Fourier transform (scipy.signal.periodogram, Hann window), the top of its highest line by a parabola.

    Example
    -------
    >>> t = np.arange(44100) / 44100
    >>> round(pitch_of(np.exp(-3 * t) * np.sin(2 * np.pi * 82.5 * t), 44100).frequency_hz, 1)
    82.5
    """
    sound = samples[_begins(samples) :]
    sound, rate = _thinned(sound, rate)
    whole, share = _highest(sound, rate)
    if share < SHARE:
        raise ReadingError("file", share, "no one pitch stands out: pluck the span alone, in quiet, and nobody speaks")
    half = len(sound) // 2
    parts = [_highest(part, rate)[0] for part in (sound[:half], sound[half:])]
    if max(abs(part - whole) for part in parts) > max(APART * whole, 1.5 * rate / half):
        raise ReadingError("file", parts, "its pitch wanders, as a voice does: pluck the span once, and let it ring")
    return Pluck(frequency_hz=whole, u_hz=0.5 * rate / len(sound) / PADDED + 0.002 * whole, share=share)


def _thinned(sound: NDArray[np.float64], rate: float) -> tuple[NDArray[np.float64], float]:
    """As many samples as the band wants; refused where what sounds lies beyond them."""
    fewer = max(1, int(rate // ENOUGH_HZ))
    if fewer == 1:
        return sound, rate
    thinned = np.asarray(scipy.signal.decimate(sound, fewer, ftype="fir"), dtype=np.float64)
    if thinned.var() < LEFT_OVER * sound.var():
        raise ReadingError("file", rate, NOTHING)
    return thinned, rate / fewer


def _begins(samples: NDArray[np.float64]) -> int:
    """Where it was plucked: the loudest moment, what comes before is the finger."""
    if not np.isfinite(samples).all() or not np.any(samples):
        raise ReadingError("file", 0, "there is no sound in it; is the microphone on?")
    begins = int(np.argmax(np.abs(samples - samples.mean())))
    return min(begins, len(samples) // 2)


def _highest(sound: NDArray[np.float64], rate: float) -> tuple[float, float]:
    """The strongest pitch within the band, and the share of the band's power that it and its overtones have."""
    lines, power = scipy.signal.periodogram(sound - sound.mean(), rate, window="hann", nfft=len(sound) * PADDED, detrend=False)
    band = (lines >= LOWEST_HZ) & (lines <= HIGHEST_HZ)
    lines, power = lines[band], power[band]
    if len(lines) < 3 or not power.sum() > 0:
        raise ReadingError("file", rate, NOTHING)
    top = int(np.clip(np.argmax(power), 1, len(power) - 2))
    left, middle, right = np.log(power[top - 1 : top + 2] + 1e-300)
    bend = left - 2 * middle + right
    pitch = float(lines[top] + (0.5 * (left - right) / bend if bend < 0 else 0.0) * (lines[1] - lines[0]))
    width = max(NEAR * pitch, 2 * rate / len(sound))
    own = np.zeros(len(lines), dtype=np.bool_)
    for n in range(1, OVERTONES + 1):
        own |= np.abs(lines - n * pitch) <= width
    return pitch, float(power[own].sum() / power.sum())
