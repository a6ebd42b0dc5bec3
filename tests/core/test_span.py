"""Belts by their pitch, chains by a pull: against a textbook string, tones that were made here, and what a voice does."""

import io
import unittest
import wave
from contextlib import suppress

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from benchmarks.plucks import hum_alone, recording
from gurvo_core.drive.pluck import pitch_of, read_wav
from gurvo_core.drive.span import elongation_percent, plausible_hz, span_frequency_hz, span_tension_n
from gurvo_core.drive.workings import DriveAsked, drive_workings
from gurvo_core.errors import GeometryError, ReadingError

RATE = 22_050
WITHIN = 0.01  # of a pitch: a belt is tensioned to a tenth


def plucked(pitch_hz, seconds=1.5, *, noise=0.0, decay=3.0, seed=1):
    """A span as it rings: its first mode, weaker overtones, dying away; with as much noise as is asked for."""
    t = np.arange(int(RATE * seconds)) / RATE
    tone = sum(np.sin(2 * np.pi * n * pitch_hz * t + n) / n**2 for n in (1, 2, 3))
    return np.exp(-decay * t) * tone + np.random.default_rng(seed).normal(0, noise, len(t))


def spoken(seconds=1.5):
    """A voice: a pitch that glides between 110 and 190 Hz, with formants."""
    t = np.arange(int(RATE * seconds)) / RATE
    phase = 2 * np.pi * np.cumsum(150 + 40 * np.sin(2 * np.pi * 1.7 * t)) / RATE
    return sum(np.sin(n * phase) / n for n in range(1, 9)) * (1 + 0.5 * np.sin(2 * np.pi * 4 * t))


def as_wav(samples, channels=1):
    """The sound as a WAV file of 16 bits."""
    held = io.BytesIO()
    with wave.open(held, "wb") as file:
        file.setnchannels(channels)
        file.setsampwidth(2)
        file.setframerate(RATE)
        whole = np.int16(samples / np.abs(samples).max() * 30_000)
        file.writeframes(np.repeat(whole, channels).tobytes())
    return held.getvalue()


class SpanTests(unittest.TestCase):
    def test_a_textbook_string(self):
        """By hand: sqrt(400 / 0.1) = 63.2456 m/s over 2 x 0.2 m is 158.114 Hz."""
        self.assertAlmostEqual(span_frequency_hz(400, 200, 100), 158.1139, delta=1e-4)

    @given(st.floats(20, 2000), st.floats(50, 600), st.floats(20, 400))
    def test_both_ways_are_one(self, tension, span, mass):
        """Property: there and back; four times the tension is twice the pitch."""
        pitch = span_frequency_hz(tension, span, mass)
        self.assertAlmostEqual(span_tension_n(pitch, span, mass), tension, delta=1e-6 * tension)
        self.assertAlmostEqual(span_frequency_hz(4 * tension, span, mass), 2 * pitch, delta=1e-9 * pitch)

    def test_a_worn_chain(self):
        """By hand: 16 links of 9.525 are 152.4 mm; pulled to 153.924 they are one per cent longer."""
        self.assertAlmostEqual(elongation_percent(153.924, 16, 9.525), 1.0, delta=1e-9)
        with self.assertRaises(GeometryError) as refused:
            elongation_percent(143.0, 16, 9.525)
        self.assertIn("count the links again", str(refused.exception))

    def test_what_is_left_out_is_not_worked_out_and_a_limit_is_looked_at(self):
        self.assertEqual(drive_workings(DriveAsked(span_mm=200)), [])
        lines = drive_workings(DriveAsked(pulled_mm=154.5, links=16, pitch_mm=9.525, limit_percent=1))
        self.assertEqual([(line.value, line.look_again) for line in lines], [("152.4 mm", False), ("1.38 %, limit 1 %", True)])
        back = drive_workings(DriveAsked(span_mm=200, mass_g_m=100, frequency_hz=158.1139))
        self.assertEqual([line.value for line in back], ["400 N"])


class PluckTests(unittest.TestCase):
    @settings(max_examples=40)
    @given(st.floats(22, 300), st.integers(0, 10**6))
    def test_a_tone_in_noise_is_found(self, pitch, seed):
        """Library: numpy's own transform of the same sound has its highest line there too."""
        sound = plucked(pitch, noise=0.03, seed=seed)
        found = pitch_of(sound, RATE)
        self.assertAlmostEqual(found.frequency_hz, pitch, delta=WITHIN * pitch)
        lines = np.abs(np.fft.rfft(sound))
        highest = np.fft.rfftfreq(len(sound), 1 / RATE)[np.argmax(lines[1:]) + 1]
        self.assertAlmostEqual(found.frequency_hz, highest, delta=2 * RATE / len(sound))

    def test_its_stated_uncertainty_covers_the_truth(self):
        """Property: over two hundred recordings, in nineteen of twenty within U."""
        chance = np.random.default_rng(5)
        pitches = chance.uniform(30, 200, 200)
        found = [pitch_of(plucked(pitch, noise=0.02, seed=n), RATE) for n, pitch in enumerate(pitches)]
        within = [abs(one.frequency_hz - pitch) <= 2 * one.u_hz for one, pitch in zip(found, pitches, strict=True)]
        self.assertGreaterEqual(sum(within), 190)

    def test_what_cannot_be_told_is_refused_with_what_to_do(self):
        chance = np.random.default_rng(2)
        two = plucked(61.0) + plucked(97.0) + plucked(143.0) + plucked(211.0)
        for name, sound, words in (
            ("silence", np.zeros(RATE), "no sound in it"),
            ("noise", chance.normal(0, 1, RATE), ""),
            ("a voice", spoken(), ""),
            ("four spans at once", two, "in quiet"),
            ("far above", plucked(6000.0), ""),
        ):
            with self.subTest(name):
                with self.assertRaises(ReadingError) as refused:
                    pitch_of(sound, RATE)
                self.assertEqual(refused.exception.field, "file")
                self.assertIn(words, str(refused.exception).lower())

    def test_a_second_mode_that_is_louder_is_not_taken_for_the_first(self):
        """By hand: 41 Hz plucked at a third, the low cut by a small microphone: its second mode is five times as loud as its first."""
        t = np.arange(int(RATE * 1.5)) / RATE
        modes = {1: 0.2, 2: 1.0, 3: 0.06, 4: 0.5, 5: 0.2}
        sound = sum(loud * np.exp(-3 * t) * np.sin(2 * np.pi * 41 * n * t + n) for n, loud in modes.items())
        self.assertAlmostEqual(pitch_of(sound, RATE).frequency_hz, 41, delta=0.4)

    def test_half_of_a_pitch_that_could_be_there_unheard_is_asked_about_unless_the_tension_tells(self):
        t = np.arange(int(RATE * 1.5)) / RATE
        even = sum(np.exp(-3 * t) * np.sin(2 * np.pi * 82 * n * t + n) / n for n in (1, 2, 3))
        hum = np.sin(2 * np.pi * 41 * t)  # steady, just where half of it would ring
        self.assertAlmostEqual(pitch_of(even, RATE).frequency_hz, 82, delta=0.4)
        with self.assertRaises(ReadingError) as refused:
            pitch_of(even + hum, RATE)
        self.assertIn("41 or 82 Hz: which of them cannot be told", str(refused.exception))
        self.assertAlmostEqual(pitch_of(even + hum, RATE, plausible_hz(400, 350, 100)).frequency_hz, 82, delta=0.4)

    def test_simulated_workshops_never_an_octave_off_and_no_hum_or_voice(self):
        """Second method: recordings drawn by simulation, of which the truth is known; thousands by the benchmark of judgement."""
        found, truth = [], []
        for n in range(150):
            made = recording(np.random.default_rng((11, n)))
            with suppress(ReadingError):
                found.append(pitch_of(made.samples, made.rate).frequency_hz)
                truth.append(made.pitch_hz)
        self.assertGreater(len(found), 50)
        np.testing.assert_allclose(found, truth, rtol=0.03)
        for n in range(20):
            with self.assertRaises(ReadingError):
                pitch_of(hum_alone(np.random.default_rng((12, n))).samples, RATE)

    def test_wav_files(self):
        """Second method: written with Python's own wave module, mono and stereo."""
        for channels in (1, 2):
            rate, sound = read_wav(as_wav(plucked(82.5), channels))
            self.assertEqual(rate, RATE)
            self.assertAlmostEqual(pitch_of(sound, rate).frequency_hz, 82.5, delta=0.5)
        for data, words in (
            (b"RIFF....WAVE", "no WAV file"),
            (b"", "no WAV file"),
            (as_wav(plucked(80, 0.05)), "0.05 s long"),
            (as_wav(plucked(80, 21)), "21.00 s long"),
        ):
            with self.assertRaises(ReadingError) as refused:
                read_wav(data)
            self.assertIn(words, str(refused.exception))

    @settings(max_examples=100)
    @given(st.binary(max_size=400))
    def test_no_bytes_are_more_than_refused(self, data):
        """Property."""
        with self.assertRaises(ReadingError):
            read_wav(data)
