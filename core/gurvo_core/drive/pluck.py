"""A plucked span as it was recorded: the pitch it sounds at, or that it cannot be told. Times in seconds, pitches in hertz."""

__all__ = ["Pluck", "pitch_of", "read_wav"]

import io
import struct
import warnings
from dataclasses import dataclass

import numpy as np
import scipy  # its parts load themselves when first used: each takes a good part of a second
from numpy.typing import NDArray

from gurvo_core.drive.partials import Partial, Spectrum, spectrum_of
from gurvo_core.errors import ReadingError

LOWEST_HZ, HIGHEST_HZ = 15.0, 500.0  # spans of engines sound within
SHORTEST_S, LONGEST_S = 0.15, 20.0
ENOUGH_HZ = 4000  # samples a second, for pitches up to 500: a longer list would only take time
LEFT_OVER = 0.05  # of all that sounds, at least so much lies below twice the band
NOTHING = "nothing sounds between 15 and 500 Hz; is it the span that was recorded?"
OVERTONES = 12  # of a pitch are looked for
NEAR = 0.012  # of a partial: what lies so near a multiple belongs to it
STIFFER = 3e-4  # belts are a little stiff: upper partials lie higher, by half of this times the square of their number
SHARE = 0.75  # of all that rings must be the pitch and its overtones
HEARD = 0.1  # a first mode is at least so loud beside its second, however it was plucked, also where a microphone cuts the low
HIGHER = 6  # as which mode of a lower pitch it is looked at
FAINT = 0.03  # beside the pitch: what lies between its overtones and is louder may be those of half of it
APART = 0.02  # several plucks of one span sound alike
FINGER_S, SHORT_S, PLUCK_S = 0.02, 0.4, 2.0  # left out after the pluck; looked at of each, at least and at most
GONE = 0.04  # of a pluck's beginning: what comes after it is not looked at
AGAIN_S, DIP, LOUD = 0.3, 0.6, 0.35  # another pluck: so much later, after it had been softer by this, and so loud beside the loudest
STEP_S = 0.02
RINGS_S = 0.35  # a span rings at least so long
HOW = "pluck it with one finger near one end, in quiet, and let it ring"


@dataclass(frozen=True, kw_only=True)
class Pluck:
    """The pitch of a plucked span, how finely it is told, and how much of the sound it is."""

    frequency_hz: float
    u_hz: float
    share: float


def read_wav(data: bytes) -> tuple[int, NDArray[np.float64]]:
    """Return the sound in a WAV file, its channels made one.

    Returned: samples a second [Hz].
    Raises ReadingError if it is no WAV, or too short or too long.
    """
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore", scipy.io.wavfile.WavFileWarning)
            rate, samples = scipy.io.wavfile.read(io.BytesIO(data))
    except (ValueError, EOFError, OSError, TypeError, ArithmeticError, LookupError, NameError, struct.error) as error:  # a head that lies
        raise ReadingError("file", len(data), "this is no WAV file; record it as WAV, uncompressed") from error
    sound = np.asarray(samples, dtype=np.float64)
    sound = sound.mean(axis=1) if sound.ndim > 1 else sound
    seconds = len(sound) / rate if rate else 0.0
    if not SHORTEST_S <= seconds <= LONGEST_S:
        rule = f"the recording is {seconds:.2f} s long: pluck the span once and record {SHORTEST_S:g} to {LONGEST_S:g} s"
        raise ReadingError("file", seconds, rule)
    return int(rate), sound


def pitch_of(samples: NDArray[np.float64], rate: float, plausible_hz: tuple[float, float] | None = None) -> Pluck:
    """Return the pitch of a plucked span.

    rate: samples a second [Hz].
    plausible_hz: between which its pitch can lie, from its length, its mass and what tension is plausible [Hz].
    Returned: its first mode [Hz].
    Raises ReadingError if it cannot be told: silence, noise, hum, a voice, several spans at once, or half the pitch is as likely.
    Source: [string]: it rings in multiples of its first mode, and each dies away; hum does not, and a voice wanders. Plucked at a share
    ``x`` of its length, mode ``n`` has ``sin(n pi x) / n²``: the first is at least twice the second, and HEARD of it where the sound grows
    with the number and a microphone cuts the low by its square. So a pitch that cannot be heard itself is refused, and so is one whose
    half, or third and so on, could be there unheard.
    >>> t = np.arange(44100) / 44100
    >>> round(pitch_of(np.exp(-3 * t) * sum(np.sin(2 * np.pi * 82.5 * n * t) / n for n in (1, 2, 3)), 44100).frequency_hz, 1)
    82.5
    """
    if not np.isfinite(samples).all() or not np.any(samples - samples.mean()):
        raise ReadingError("file", 0, "there is no sound in it; is the microphone on?")
    sound, rate = _thinned(samples, rate)
    found, why = list[Pluck](), ReadingError("file", rate, NOTHING)
    plucks = _plucks(sound, rate)
    for part in plucks:
        try:
            found.append(_pitch(part, rate, plausible_hz))
        except ReadingError as error:
            why = error
    if 2 * len(found) < len(plucks):
        raise why
    best = max(found, key=lambda one: one.share)
    if any(abs(one.frequency_hz - best.frequency_hz) > APART * best.frequency_hz for one in found):
        heard = ", ".join(f"{one.frequency_hz:.1f}" for one in found)
        raise ReadingError("file", heard, f"its plucks sound at {heard} Hz, which one span does not: {HOW}")
    return best


def _thinned(sound: NDArray[np.float64], rate: float) -> tuple[NDArray[np.float64], float]:
    """As many samples as the band wants; refused where what sounds lies beyond them."""
    fewer = max(1, int(rate // ENOUGH_HZ))
    if fewer == 1:
        return sound, rate
    thinned = np.asarray(scipy.signal.decimate(sound, fewer, ftype="fir"), dtype=np.float64)
    if thinned.var() < LEFT_OVER * sound.var():
        raise ReadingError("file", rate, NOTHING)
    return thinned, rate / fewer


def _plucks(sound: NDArray[np.float64], rate: float) -> list[NDArray[np.float64]]:
    """Each pluck, from just after the finger to the next, or as long as it is looked at."""
    step = max(1, int(STEP_S * rate))
    pieces = sound[: len(sound) // step * step].reshape(-1, step) - sound.mean()
    loud = np.sqrt((pieces**2).mean(axis=1))
    if not len(loud):
        raise ReadingError("file", rate, NOTHING)
    begins: list[int] = []
    for at in np.flatnonzero(loud >= LOUD * loud.max()):
        before = loud[begins[-1] : at].min() if begins and at > begins[-1] else 0.0
        if not begins or ((at - begins[-1]) * STEP_S >= AGAIN_S and before < DIP * loud[at]):
            begins.append(int(at))
    ends = [*begins[1:], len(loud)]
    found = []
    for begin, end in zip(begins, ends, strict=True):
        top = begin + int(np.argmax(loud[begin : min(end, begin + 5)]))
        first = top * step + int(FINGER_S * rate)
        gone = next((at for at in range(top, end) if loud[at] < GONE * loud[top]), end)
        last = min(
            (end - 1) * step if end != len(loud) else len(sound),
            first + int(PLUCK_S * rate),
            first + max(int(SHORT_S * rate), (gone - top) * step),
        )
        found.append(sound[first:last])
    longest = [part for part in found if len(part) >= RINGS_S * rate]
    if 2 * len(longest) < len(found):
        raise ReadingError("file", len(found), f"it does not ring for long enough between one loud moment and the next: {HOW}")
    return longest


def _pitch(sound: NDArray[np.float64], rate: float, plausible_hz: tuple[float, float] | None) -> Pluck:
    spectrum = spectrum_of(sound, rate, OVERTONES * HIGHEST_HZ)
    ringing = [one for one in spectrum.partials if one.rings]
    if not ringing:
        steady = any(one.steady for one in spectrum.partials)
        said = "what sounds does not die away, as hum does" if steady else "nothing in it rings as a span does"
        raise ReadingError("file", rate, f"{said}: {HOW}")
    whole = sum(one.loud**2 for one in spectrum.partials if not one.steady)
    loudest = max(one.loud for one in ringing)
    for first in ringing:
        own = [one for one in ringing if _number(one, first, spectrum)]
        share = sum(one.loud**2 for one in own) / whole
        if share < SHARE or first.loud < HEARD * loudest or not LOWEST_HZ <= first.hz <= HIGHEST_HZ:
            continue
        if plausible_hz and not plausible_hz[0] <= first.hz <= plausible_hz[1]:
            continue
        _not_half(first, ringing, spectrum, plausible_hz)
        return Pluck(frequency_hz=first.hz, u_hz=0.06 * spectrum.fineness_hz + 0.002 * first.hz, share=share)
    if plausible_hz:
        least, most = plausible_hz
        raise ReadingError("file", rate, f"nothing rings between {least:.0f} and {most:.0f} Hz, where this span can sound: {HOW}")
    raise ReadingError("file", rate, f"no one pitch stands out: {HOW}")


def _number(one: Partial, first: Partial, spectrum: Spectrum) -> int:
    """Which overtone of a pitch a line is, counted from 1; 0 where it is none."""
    n = round(one.hz / first.hz)
    if not 1 <= n <= OVERTONES:
        return 0
    off = one.hz - n * first.hz
    near = NEAR * one.hz + 0.3 * spectrum.fineness_hz
    return n if -near <= off <= near + 0.5 * STIFFER * n**2 * one.hz else 0


def _not_half(first: Partial, ringing: list[Partial], spectrum: Spectrum, plausible_hz: tuple[float, float] | None) -> None:
    """Refused where the pitch may be the second mode of a lower one that cannot be heard, or the third and so on."""
    for parts in range(2, HIGHER + 1):
        lower_hz = first.hz / parts
        if lower_hz < LOWEST_HZ or (plausible_hz and lower_hz < plausible_hz[0]):
            continue
        near = NEAR * first.hz + 0.5 * spectrum.fineness_hz
        between = [n * lower_hz for n in range(1, 3 * parts) if n % parts]
        heard = any(abs(one.hz - at) <= near and one.loud > FAINT * first.loud for one in ringing for at in between)
        masked = any(one.steady and abs(one.hz - lower_hz) <= near and one.loud > HEARD * first.loud / 2 for one in spectrum.partials)
        if heard or masked or spectrum.floor_at(lower_hz) > HEARD * first.loud:
            said = f"{lower_hz:.0f} or {first.hz:.0f} Hz: which of them cannot be told"
            raise ReadingError("file", first.hz, f"{said}; say the span's length, the belt's mass and the tension wanted, or {HOW}")
