"""Recordings of plucked spans as workshops make them, by simulation: modes, microphone, room, hum, voices, neighbours, several plucks."""

__all__ = ["Recording", "hum_alone", "recording", "voice"]

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy import signal

Sound = NDArray[np.float64]
MODES = 12


@dataclass(frozen=True)
class Recording:
    """A sound, how fast it was sampled [Hz], and the pitch of the span that was plucked [Hz]."""

    samples: Sound
    rate: int
    pitch_hz: float


def recording(chance: np.random.Generator) -> Recording:
    """One recording, everything about it drawn."""
    rate = int(chance.choice([8000, 22050, 44100]))
    pitch, seconds = float(np.exp(chance.uniform(np.log(20), np.log(260)))), float(chance.uniform(1.0, 3.0))
    t = np.arange(int(rate * seconds)) / rate
    begins = chance.uniform(0.05, 0.4) + np.arange(chance.choice([1, 1, 1, 2, 3])) * seconds / 3
    span = _Span(pitch, float(chance.uniform(0, 2e-4)), float(chance.uniform(1.5, 8)), float(chance.uniform(0.3, 1.6)))
    sound = sum(_plucked(chance, span, t - at) for at in begins if at < seconds - 0.5)
    if chance.random() < 0.15:
        other = _Span(pitch * chance.uniform(0.6, 1.7), 1e-4, span.decay, span.louder)
        sound = sound + chance.uniform(0.02, 0.2) * _plucked(chance, other, t - begins[0])
    sound = _through(sound, rate, float(chance.uniform(10, 250)))
    if chance.random() < 0.5:
        sound = _in_a_room(chance, sound, rate)
    loud = float(np.abs(sound).max())
    if chance.random() < 0.5:
        sound = sound + loud * chance.uniform(0.02, 0.5) * _hum(chance, t)
    if chance.random() < 0.15:
        sound = sound + loud * chance.uniform(0.02, 0.3) * voice(chance, t)
    noise = chance.normal(0, 1, len(t)) + np.cumsum(chance.normal(0, 0.02, len(t)))
    noise = signal.detrend(noise)
    sound = sound + loud * 10 ** (-chance.uniform(25, 60) / 20) * noise / noise.std()
    return Recording(sound, rate, pitch)


def hum_alone(chance: np.random.Generator) -> Recording:
    """Mains hum and somebody knocking against the bench, no span at all."""
    rate = 22050
    t = np.arange(2 * rate) / rate
    knock = np.exp(-60 * np.clip(t - 0.3, 0, None)) * (t > 0.3) * chance.normal(0, 1, len(t))
    return Recording(_hum(chance, t) + chance.uniform(0, 0.5) * knock + chance.normal(0, 0.003, len(t)), rate, 0.0)


def voice(chance: np.random.Generator, t: Sound) -> Sound:
    """A voice: a pitch that glides, with overtones, louder and softer."""
    at, wide = chance.uniform(90, 240), chance.uniform(3, 40)
    turned = 2 * np.pi * np.cumsum(at + wide * np.sin(2 * np.pi * chance.uniform(0.4, 2) * t)) * (t[1] - t[0])
    said = sum(np.sin(n * turned) / n for n in range(1, 9))
    return np.asarray(said * (1 + 0.6 * np.sin(2 * np.pi * chance.uniform(2, 5) * t)) / 2)


@dataclass(frozen=True)
class _Span:
    pitch: float
    stiff: float  # how much its modes lie above the multiples of the first
    decay: float
    louder: float  # a mode's sound grows with this power of its number


def _plucked(chance: np.random.Generator, span: _Span, t: Sound) -> Sound:
    at = chance.uniform(0.05, 0.5)  # of its length, from one end
    rings, since = t >= 0, np.clip(t, 0, None)
    sound = np.zeros(len(t))
    for n in range(1, MODES + 1):
        shape = np.sin(n * np.pi * at) / n**2 * n**span.louder
        pitch = n * span.pitch * np.sqrt(1 + span.stiff * n**2)
        sound += shape * np.exp(-span.decay * (1 + 0.3 * (n - 1)) * since) * np.sin(2 * np.pi * pitch * since + chance.uniform(0, 6))
    finger = chance.uniform(0, 0.2) * np.exp(-80 * since) * chance.normal(0, 1, len(t))
    return np.asarray(chance.uniform(0.6, 1) * rings * (sound + finger))


def _through(sound: Sound, rate: int, cut_hz: float) -> Sound:
    """What a small microphone leaves of it: the low is cut."""
    return np.asarray(signal.sosfilt(signal.butter(2, cut_hz, "highpass", fs=rate, output="sos"), sound))


def _in_a_room(chance: np.random.Generator, sound: Sound, rate: int) -> Sound:
    t = np.arange(int(0.5 * rate)) / rate
    echo = chance.normal(0, 1, len(t)) * np.exp(-6.9 * t / chance.uniform(0.2, 0.6))
    wet = signal.fftconvolve(sound, echo / np.abs(echo).sum())[: len(sound)]
    return np.asarray(sound + chance.uniform(0.1, 1.5) * wet)


def _hum(chance: np.random.Generator, t: Sound) -> Sound:
    mains = float(chance.choice([50.0, 60.0])) * (1 + chance.normal(0, 3e-4))
    parts = [chance.uniform(0, 1) / n**0.5 * np.sin(2 * np.pi * n * mains * t + chance.uniform(0, 6)) for n in range(1, 9)]
    return np.asarray(sum(parts) / 2)
