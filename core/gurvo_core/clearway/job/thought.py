"""All that follows from where shafts stand: what may be turned and how far, how camshafts rest, ways to where they must be.

Worked out once for what it follows from: an entry that moves nothing leaves it as it was.
"""

__all__ = ["Reached", "Thought", "ground_of", "thought_of"]

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np

from gurvo_core.angles import signed_deg
from gurvo_core.clearway.choose import Choice, opens, ways_of
from gurvo_core.clearway.ground import CYCLE, Ground, Spread
from gurvo_core.clearway.job.measured import model_of
from gurvo_core.clearway.job.state import ClearwayState
from gurvo_core.clearway.job.whereabouts import Whereabouts, names_of, where_all_stand
from gurvo_core.clearway.least import Gap, gaps_at
from gurvo_core.clearway.rest import Rest, SpringLoad, load_of, load_together
from gurvo_core.clearway.stands import CRANK, Move, Stands, Terrain, places_of, terrain_of
from gurvo_core.engine.same import Same
from gurvo_core.ledger import ShaftsTold
from gurvo_core.sentence import at_start, listed, within
from gurvo_core.uncertainty import Estimate

BEYOND_DEG = 4  # past where it may be turned to, what would meet is looked for
GROUNDS, THOUGHTS = 4, 8  # each holds some MB of maps


@lru_cache(maxsize=GROUNDS)
def _ground(of: Same, measured: tuple[tuple[str, Estimate], ...], spread: Spread) -> Ground:
    return Ground(document=of.document, measured=dict(measured), spread=spread)


@dataclass(frozen=True, kw_only=True)
class Reached:
    """How far a shaft may be turned each way from where it stands [crank deg], and what it would meet then."""

    shaft: str
    forward_deg: int
    back_deg: int
    forward: Gap | None
    back: Gap | None

    @property
    def is_free(self) -> bool:
        """Whether nothing is in its way at all."""
        return self.forward_deg >= CYCLE and self.back_deg >= CYCLE


@dataclass(frozen=True, eq=False)
class Thought:
    """What follows for one engine as its shafts stand."""

    where: Whereabouts
    ground: Ground

    @cached_property
    def names(self) -> Mapping[str, str]:
        """What shafts are called; the first of some that are tied to each other by all their names."""
        own = names_of(self.ground.document)
        tied = {group[0]: at_start(listed([within(own[cam]) for cam in group])) for group in self.where.tied}
        return {**own, **tied, CRANK: own.get(self.where.crank.shaft, "Crankshaft")}

    @cached_property
    def blind(self) -> tuple[str, ...]:
        """Camshafts that are in and of which too little is known to say that they are clear."""
        return tuple(one.shaft for one in self.where.cams if one.shaft not in self.ground.camshafts)

    @property
    def stands(self) -> Stands | None:
        """Where all stand; None while one is not known, or nothing could be said of it."""
        return None if self.blind or not self.where.cams else self.where.stands

    @cached_property
    def loads(self) -> Mapping[str, SpringLoad]:
        """Camshafts under their springs."""
        loads = {one.shaft: load_of(self.ground, one.shaft) for one in self.where.cams}
        known = {shaft: load for shaft, load in loads.items() if load is not None}
        together = {group[0]: load_together(known, self._offsets(group)) for group in self.where.tied if group[0] in known}
        return {**known, **{first: load for first, load in together.items() if load is not None}}

    def _offsets(self, group: Sequence[str]) -> Mapping[str, int]:
        places = {cam: round(self.where.of(cam).place_deg) for cam in group}
        return {cam: (place - places[group[0]]) % CYCLE for cam, place in places.items()}

    @cached_property
    def rests(self) -> Mapping[str, Rest]:
        """How each camshaft that turns by itself is where it stands."""
        return {
            one.shaft: self.loads[one.shaft].at(round(one.place_deg))
            for one in self.where.cams
            if one.is_known and one.shaft in self.loads and one.shaft not in self.where.still
        }

    @cached_property
    def terrain(self) -> Terrain | None:
        """The maps, by what just does not meet."""
        return terrain_of(self.ground, self.stands, "meets") if self.stands is not None else None

    @cached_property
    def reached(self) -> tuple[Reached, ...]:
        """How far each may be turned."""
        if self.stands is None or self.terrain is None:
            return ()
        at = tuple(places_of(self.terrain, self.stands))
        turning = [n for n, name in enumerate(self.terrain.shafts) if name not in self.stands.held]
        return tuple(self._reached(self.terrain, self.stands, at, n) for n in turning)

    def _reached(self, terrain: Terrain, stands: Stands, at: tuple[int, ...], n: int) -> Reached:
        on, back = (max(0, terrain.reach(at, n, way)) for way in (1, -1))
        name = terrain.shafts[n]
        return Reached(
            shaft=name,
            forward_deg=on,
            back_deg=back,
            forward=None if on >= CYCLE else self._meets(stands, Move(shaft=name, by=on + BEYOND_DEG)),
            back=None if back >= CYCLE else self._meets(stands, Move(shaft=name, by=-back - BEYOND_DEG)),
        )

    def _meets(self, stands: Stands, move: Move) -> Gap | None:
        return next(iter(gaps_at(self.ground, stands.moved(move), move.shaft)), None)

    def ways(self, goal: tuple[tuple[str, int], ...]) -> tuple[Choice, ...]:
        """Ways to where some shafts must be, the proposed one first."""
        known: dict[object, tuple[Choice, ...]] = self._kept_ways
        if goal not in known and self.stands is not None:
            known[goal] = tuple(ways_of(self.ground, self.stands, dict(goal), self.loads))
        return known.get(goal, ())

    def opens(self, goal: tuple[tuple[str, int], ...]) -> tuple[list[Gap], list[str]]:
        """What may meet already, and what would open a way where there is none."""
        return opens(self.ground, self.stands, dict(goal), self.loads) if self.stands is not None else ([], [])

    def out_of_the_way(self) -> Mapping[str, int]:
        """Where camshafts that are in the crank's way go before it is turned right round: where nothing meets, at rest if it can be."""
        stands, terrain = self.stands, self.terrain
        if stands is None or terrain is None:
            return {}
        places = {cam: np.flatnonzero(~terrain.pairs[0, n].any(axis=0)).tolist() for n, cam in enumerate(terrain.shafts) if n}
        return {
            cam: self._nearest(cam, stands.cams[cam], clear)
            for cam, clear in places.items()
            if clear and stands.cams[cam] not in clear and cam not in stands.held
        }

    def _nearest(self, cam: str, begin: int, places: Sequence[int]) -> int:
        load = self.loads.get(cam)
        still = [place for place in places if load is not None and load.at(place).stays == "stays"] or places
        return min(still, key=lambda place: abs(signed_deg(place - begin, CYCLE)))

    def turning(self, shaft: str, by_deg: int) -> str:
        """What a shaft meets on the way by so many crank degrees."""
        one = self.reach_of(shaft)
        if one is None:
            return ""
        far, gap = (one.forward_deg, one.forward) if by_deg > 0 else (one.back_deg, one.back)
        return gap.meets if gap is not None and abs(by_deg) > far else ""

    def reach_of(self, shaft: str) -> Reached | None:
        """How far one may be turned, by whichever speaks for it."""
        first = self.stands.first_of(self.where.key_of(shaft)) if self.stands is not None else ""
        return next((one for one in self.reached if one.shaft == first), None)

    def crank_to(self, place_deg: float, *, knows_stroke: bool = True) -> str:
        """What keeps the crank from a place; with nothing coupled, or where it is not known on which, either stroke will do."""
        stands = self.stands
        if stands is None:
            return ""
        circle = CYCLE if stands.coupled and knows_stroke else CYCLE // 2
        on = round(place_deg - stands.crank) % circle
        met = [self.turning(self.where.crank.shaft, by) for by in ((on,) if stands.running_only else (on, on - circle)) if on]
        return met[0] if met and all(met) else ""

    def crank_by(self, by_deg: int) -> str:
        """What the crank meets on the way by so many degrees."""
        return self.turning(self.where.crank.shaft, by_deg)

    @cached_property
    def _kept_ways(self) -> dict[object, tuple[Choice, ...]]:
        return {}


@lru_cache(maxsize=THOUGHTS)
def _thought(of: Same, measured: tuple[tuple[str, Estimate], ...], told: ShaftsTold) -> Thought:
    where = where_all_stand(of.document, told)
    return Thought(where=where, ground=_ground(of, measured, where.spread))


def ground_of(now: ClearwayState) -> Ground:
    """Return an engine's valves and pistons as they are described or were measured, wherever its shafts stand."""
    return _ground(Same(now.document), _measured(now), Spread())


def _measured(now: ClearwayState) -> tuple[tuple[str, Estimate], ...]:
    return tuple(sorted(model_of(now).items(), key=lambda one: one[0]))


def thought_of(now: ClearwayState, told: ShaftsTold) -> Thought:
    """Return what follows from where shafts stand."""
    return _thought(Same(now.document), _measured(now), told)
