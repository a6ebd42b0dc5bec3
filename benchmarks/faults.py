"""Faults by chance, one or two at once, as they would be measured, and the looks that are made because of them."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from gurvo_core.engine import EngineDocument
from gurvo_core.timing.cause_table import KINDS, check_of
from gurvo_core.timing.causes import Cause, Ranking, rank
from gurvo_core.timing.evidence import MeasuredCam, explained
from gurvo_core.timing.hypotheses import Hypothesis, hypotheses_of

U_DEG, U_ZERO_DEG = 0.3, 0.2
SEEN_FROM = 4.0  # times the uncertainty: what is less may hide in it
LOOKS = 5
ANYWHERE_DEG = {"zero": 5.0, "worn": 1.5, "machined": 1.0, "clamped": 8.0, "misread": 25.0, "unlisted": 12.0}  # how far by chance
Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Fault:
    """What is wrong, and where every valve was found."""

    parts: tuple[Hypothesis, ...]
    found: list[MeasuredCam]


class Faulty:
    """An engine of which things can be wrong."""

    def __init__(self, document: EngineDocument):
        """Everything that could be, by kind."""
        self.hypotheses = hypotheses_of(document)
        self.valves = [(cam.id, valve) for cam in document.camshafts for valve in cam.valves]
        self.kinds = sorted({one.kind for one in self.hypotheses} - {"none"})

    def fault(self, chance: np.random.Generator) -> Fault:
        """Any one kind, or two at once, each and both together large enough to be seen; read with errors."""
        while True:
            parts = self._parts(chance)
            moved = [self._off(chance, one) for one in parts]
            if all(float(np.max(np.abs(off))) > SEEN_FROM * np.hypot(U_DEG, U_ZERO_DEG) for off in (*moved, sum(moved))):
                break
        read = sum(moved) + chance.normal(0, U_DEG, len(self.valves)) + chance.normal(0, U_ZERO_DEG)
        named = zip(self.valves, read.tolist(), strict=True)
        return Fault(parts, [MeasuredCam(camshaft=cam, valve=valve, advance_deg=deg, u_deg=U_DEG) for (cam, valve), deg in named])

    def _parts(self, chance: np.random.Generator) -> tuple[Hypothesis, ...]:
        one, other = self._any(chance), self._any(chance)
        return (one, other) if chance.random() < 0.5 and one.goes_with(other) else (one,)

    def _any(self, chance: np.random.Generator) -> Hypothesis:
        kind = str(chance.choice(self.kinds))
        own = [one for one in self.hypotheses if one.kind == kind]
        return own[int(chance.integers(len(own)))]

    def _off(self, chance: np.random.Generator, one: Hypothesis) -> Floats:
        far = chance.normal(0, ANYWHERE_DEG.get(one.kind, 0.0)) if not one.at_most_deg else chance.uniform(0, 1) * one.at_most_deg
        each = {cam: chance.normal(0, ANYWHERE_DEG["unlisted"]) for cam, _ in self.valves}
        off = []
        for cam, valve in self.valves:
            is_free = cam in one.free_of or f"{cam}/{valve}" in one.free_of
            moved = far if cam in one.moves_deg or (is_free and one.kind != "unlisted") else each[cam] if is_free else 0.0
            off.append(one.moves_deg.get(cam, 0.0) + moved)
        return np.array(off)

    def looked_into(self, chance: np.random.Generator, fault: Fault) -> Ranking:
        """Rank, and make the looks that are asked for, each answered as often wrongly as its table says."""
        of, seen = explained(self.hypotheses, fault.found, U_ZERO_DEG), dict[str, bool]()
        ranking = rank(of, is_measured=True, seen=seen)
        while ranking.check is not None and len(seen) < LOOKS:
            seen[ranking.check] = bool(chance.random() < sound_chance(fault.parts, ranking.check))
            ranking = rank(of, is_measured=True, seen=seen)
        return ranking


def sound_chance(parts: Sequence[Hypothesis], check: str) -> float:
    """How often a look finds all as it should be: by whichever of the faults shows in it most."""
    usual, cam = check_of(check).usual, check.partition(":")[2]
    shown = [KINDS[one.kind].shows.get("marks" if cam else check, usual) for one in parts if not cam or one.moves(cam)]
    return min(shown, default=usual)


def is_right(cause: Cause, fault: Fault) -> bool:
    """Whether the very things are named; the wheel's zero is one, by whatever it is out."""
    return _named(cause.parts) == _named(fault.parts)


def _named(parts: Sequence[Hypothesis]) -> set[tuple[str, str]]:
    return {(one.kind.removesuffix("_tooth"), one.key if one.kind == "swapped" else one.thing.split("/")[0]) for one in parts}
