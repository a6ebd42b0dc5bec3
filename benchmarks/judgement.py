"""How often a judgement is wrong, by simulation: wrong pitches, causes sure and wrong, sound joints told of, bad bolts missed."""

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from benchmarks.faults import Faulty, is_right
from benchmarks.plucks import hum_alone, recording, voice
from benchmarks.traces import turned
from demo.documents import family_data
from gurvo_core.drive.pluck import pitch_of
from gurvo_core.errors import ReadingError
from gurvo_core.joints.judge import USUAL_BEFORE, USUAL_END, family_of, stands_apart
from gurvo_core.joints.trace import analyse
from gurvo_core.reading import read_document

RECORDINGS, JOINTS, FAULTS, TRACES, SEED = 4000, 5000, 10_000, 4000, 20261130
FAULTY = ("quern-4", "tarn-f4", "teasel-4", "corrie-v6", "brae-v8", "wick-1")
SAME_PITCH = 0.04
NEAR_DEG, FROM_DEG = 3.0, 30.0  # of what prevails nothing is known where it was hardly run down
RATE = 22_050


def measure() -> None:
    """Print every rate with the aim beside it."""
    print("\nJudgement, by simulation; how often it is wrong.\n")
    _plucks()
    _causes()
    _traces()
    for name, middle, share, usual in (
        ("torques at the end, scatter 3 %", 70.0, 0.03, USUAL_END),
        ("torques at the end, scatter 5 %", 70.0, 0.05, USUAL_END),
        ("angles to a torque, scatter 10 %", 35.0, 0.10, USUAL_BEFORE),
    ):
        for count in (4, 10):
            sound = middle * (1 + share * np.random.default_rng(SEED).standard_normal((JOINTS, count)))
            told = _told_of(sound, usual).any(axis=1).mean()
            print(f"{name}, {count:>2} sound bolts   {100 * told:5.2f} % of joints told of, aim: about 1")
    for count, bad in ((4, 1), (10, 1), (10, 3)):
        pulls = 70 * (1 + 0.03 * np.random.default_rng(SEED + 1).standard_normal((JOINTS, count)))
        pulls[:, :bad] *= 0.7
        missed = 1 - _told_of(pulls, USUAL_END)[:, :bad].all(axis=1).mean()
        print(f"{bad} of {count} bolts three tenths low    {100 * missed:5.2f} % of joints in which one is missed")


def _causes() -> None:
    engines = [Faulty(read_document(family_data(code))) for code in FAULTY]
    right = sure = wrong = 0
    for n in range(FAULTS):
        chance, engine = np.random.default_rng((SEED, n)), engines[n % len(engines)]
        fault = engine.fault(chance)
        ranking = engine.looked_into(chance, fault)
        named = is_right(ranking.causes[0], fault)
        right, sure, wrong = right + named, sure + ranking.is_sure, wrong + (ranking.is_sure and not named)
    rates = [100 * count / FAULTS for count in (right, sure, wrong)]
    said = "{:.1f} % named first, {:.1f} % sure, {:.2f} % sure and wrong, aim: under 0.50".format(*rates)
    print(f"causes, {FAULTS} faults, one or two    {said}")


def _traces() -> None:
    missed = called = bent = far = bound = 0
    for n in range(TRACES):
        made = turned(np.random.default_rng((SEED, n)))
        found = analyse(made.trace)
        bent += made.yield_deg is not None
        missed += made.yield_deg is not None and found.yield_deg is None
        called += made.yield_deg is None and found.yield_deg is not None
        far += made.snug_deg > FROM_DEG and abs(found.snug_deg - made.snug_deg) > NEAR_DEG
        bound += made.binds != any("binds" in flag for flag in found.flags)
    said = f"{missed} of {bent} yields missed, {called} called that are none, {far} snug angles off by more than {NEAR_DEG:g}°"
    print(f"traces, {TRACES} bolts                  {said}, {bound} wrong of binding, aim: under 1 in 100 each")


def _plucks() -> None:
    accepted = wrong = 0
    for n in range(RECORDINGS):
        made = recording(np.random.default_rng((SEED, n)))
        found = _pitch(made.samples, made.rate)
        accepted += found is not None
        wrong += found is not None and abs(found / made.pitch_hz - 1) > SAME_PITCH
    said = f"{100 * accepted / RECORDINGS:5.1f} % accepted, {wrong} of them wrong, aim: under 1 in 1000"
    print(f"plucks, {RECORDINGS} recordings         {said}")
    t = np.arange(int(1.5 * RATE)) / RATE
    makers: dict[str, Callable[[np.random.Generator], NDArray[np.float64]]] = {
        "hum": lambda chance: hum_alone(chance).samples,
        "voice": lambda chance: voice(chance, t),
    }
    for name, make in makers.items():
        taken = sum(_pitch(make(np.random.default_rng((SEED, n))), RATE) is not None for n in range(RECORDINGS // 8))
        print(f"{name}, {RECORDINGS // 8} recordings           {taken} accepted, aim: none")


def _pitch(samples: NDArray[np.float64], rate: int) -> float | None:
    try:
        return pitch_of(samples, rate).frequency_hz
    except ReadingError:
        return None


def _told_of(figures: NDArray[np.float64], usual: float) -> NDArray[np.bool_]:
    """Which stand apart, read to whole steps."""
    read = np.round(figures).tolist()
    families = [family_of(row, resolution=1.0, usual=usual) for row in read]
    return np.array([[bool(stands_apart(value, family)) for value in row] for row, family in zip(read, families, strict=True)])


if __name__ == "__main__":
    measure()
