"""The clearway: maps of 24 valves beside one compiled kernel of their size, ways for four camshafts, and what it adds to an entry."""

import random
import uuid
from datetime import UTC, datetime

import numba
import numpy as np

from benchmarks.timing import p50_p95, times_ms, turn_about_ms
from demo.documents import family_data
from demo.player import answer
from gurvo_core.clearway.ground import CYCLE, Ground
from gurvo_core.clearway.rest import load_of
from gurvo_core.clearway.stands import CRANK, Stands
from gurvo_core.clearway.way import find_way
from gurvo_core.engine import EngineDocument
from gurvo_core.ledger import Folded, LedgerEntry
from gurvo_core.motion.told import clock_of
from gurvo_core.reading import read_document
from gurvo_core.walk import next_question
from gurvo_core.work import HOUSE

AIM_KERNEL, AIM_WAY_MS = 3.0, 200.0
SNAPPED = {"intake-a": 640, "exhaust-a": 60, "intake-b": 690, "exhaust-b": 20}


@numba.njit(cache=False)
def _kernel(drops: np.ndarray, needs: np.ndarray, masks: np.ndarray) -> None:  # pragma: no cover - compiled
    """The same comparisons, one after another."""
    for valve in range(drops.shape[0]):
        for crank in range(drops.shape[1]):
            for cam in range(needs.shape[1]):
                if drops[valve, crank] < needs[valve, cam]:
                    masks[crank, cam] = True


def measure() -> None:
    """Print what maps and ways take, and what the bench takes longer for them."""
    document = read_document(family_data("corrie-v6"))
    _maps(document)
    _ways(document)
    _entry(document)


def _maps(document: EngineDocument) -> None:
    ground = Ground(document=document, measured={})
    drops = np.array([ground.drop_mm(one.cylinder) for one in ground.valves], dtype=np.float32)
    needs = np.array([ground.least_drop_mm(one, "meets") for one in ground.valves], dtype=np.float32)
    masks = np.zeros((CYCLE, CYCLE), dtype=np.bool_)
    calls = {
        "maps": lambda: [ground.piston_mask(cam, "meets") for cam in ground.camshafts],
        "kernel": lambda: _kernel(drops, needs, masks),
    }
    taken = {name: p50_p95(one) for name, one in turn_about_ms(calls, 30).items()}
    ratio = taken["maps"][0] / taken["kernel"][0]
    what = f"{len(ground.valves)} valves' maps, {CYCLE} x {CYCLE}"
    print(f"{what:31} {taken['maps'][0]:8.2f}   {ratio:.2f} times one compiled kernel of their size, aim: within {AIM_KERNEL:g}")


def _ways(document: EngineDocument) -> None:
    ground, draw = Ground(document=document, measured={}), random.Random(1)
    loads = {cam: load for cam in ground.camshafts if (load := load_of(ground, cam))}
    goal = {CRANK: 0, **dict.fromkeys(ground.camshafts, 0)}
    stands = [Stands(crank=draw.randrange(CYCLE), cams={cam: draw.randrange(CYCLE) for cam in ground.camshafts}) for _ in range(60)]
    looks = iter(stands * 3)
    taken = p50_p95(times_ms(lambda: find_way(ground, next(looks), goal, loads), 60))
    print(f"a way for four camshafts        {taken[0]:8.2f}   p95 {taken[1]:.2f}, aim: {AIM_WAY_MS:g}; from anywhere to the marks")


def _entry(document: EngineDocument) -> None:
    """A note at a bench where camshafts are in: with all places told, and with none."""
    plain, told = _played(document), _played(document)  # two engines: what is kept of one is of no use to the other
    for cam, place in SNAPPED.items():
        told = _with(
            told, {"kind": "shaft_seen", "shaft": cam, "at": {"of": "nose-0", "clock": f"{clock_of(document, cam, 'nose-0', place):.0f}°"}}
        )
    HOUSE.show(told)
    calls = {
        "plain": lambda: HOUSE.show(_with(plain, {"kind": "note", "text": "oil on the lobes"})),
        "told": lambda: HOUSE.show(_with(told, {"kind": "note", "text": "oil on the lobes"})),
    }
    taken = {name: p50_p95(one)[0] for name, one in turn_about_ms(calls, 60).items()}
    print(f"a note, where all stand told    {taken['told']:8.2f}   {taken['told'] - taken['plain']:.2f} more than where nobody has looked")


def _played(document: EngineDocument) -> Folded:
    folded = HOUSE.fold(document, ())
    while (question := next_question(HOUSE.show(folded))) and question.key != "sec-a":
        folded = _with(folded, answer(HOUSE.show(folded), question, document))
    return folded


def _with(folded: Folded, body: dict[str, object]) -> Folded:
    read = HOUSE.settled(HOUSE.bodies.validate_python(body), folded.document, folded.entries)
    at = datetime(2026, 11, 2, 7, tzinfo=UTC)
    return HOUSE.apply(folded, LedgerEntry(id=uuid.uuid4(), seq=len(folded.entries) + 1, at=at, by="della", body=read))
