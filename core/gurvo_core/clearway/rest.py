"""How a camshaft rests under its springs: what they turn it with, where it stays by itself, which way it snaps and what holds it.

Places are crank degrees of the camshaft's card, 0 to 720; angles that somebody turns by are cam degrees, half of that. Torque is positive
where the springs turn it back and somebody has to turn it on. Springs are straight, lobes rub on flat followers; what nobody knows of the
rubbing is taken between two usual figures.
"""

__all__ = ["Rest", "SpringLoad", "load_of", "load_together"]

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from gurvo_core.clearway.ground import CYCLE, Ground
from gurvo_core.clearway.valves import MovingValve

# source: common practice; oiled steel on steel by hand, from well run in to hardly oiled
RUBBING = (0.06, 0.15)
USUAL_BASE_MM = 16.0  # source: common practice; radius of a base circle
CAM_RAD = 2 * np.pi / CYCLE  # of the camshaft, for each crank degree: it turns once in a cycle
STEADY_NM = 0.3  # a decision of ours: seals and bearings hold that much by themselves

Floats = NDArray[np.float64]


@dataclass(frozen=True, kw_only=True)
class Rest:
    """How a camshaft is at a place: whether it stays there, where the springs take it, and what holds it."""

    stays: Literal["stays", "may turn", "snaps"]
    settles_deg: int  # where it comes to rest by itself; the place itself where it stays
    swings_deg: int  # how far it may swing before it comes back to rest
    hold_nm: float  # what it takes at its middle to keep it from turning
    loaded: tuple[str, ...]  # the valves that press on it there

    @property
    def way(self) -> int:
        """Which way it goes: +1 on, -1 back, 0 where it stays."""
        return int(np.sign(self.swings_deg))

    @property
    def snaps_cam_deg(self) -> float:
        """How far it turns by itself, in cam degrees."""
        return abs(self.settles_deg) / 2


@dataclass(frozen=True, kw_only=True, eq=False)
class SpringLoad:
    """A camshaft under its springs, by its place in whole crank degrees."""

    camshaft: str
    valves: tuple[MovingValve, ...]
    forces_n: Floats  # of each valve on its lobe, [valve, place]
    work_nmm: Floats  # that the springs hold
    rubs_nm: tuple[Floats, Floats]  # least and most that rubbing may hold

    @cached_property
    def torque_nm(self) -> Floats:
        """What it takes to turn it on, without rubbing."""
        slope = (np.roll(self.work_nmm, -1) - np.roll(self.work_nmm, 1)) / (2 * CAM_RAD)
        return np.asarray(slope / 1000, dtype=np.float64)

    @cached_property
    def total_n(self) -> Floats:
        """What all its lobes press on it with together."""
        return np.asarray(self.forces_n.sum(axis=0), dtype=np.float64)

    @cached_property
    def _rests(self) -> dict[int, Rest]:
        return {}

    def at(self, place: int) -> Rest:
        """How it is at a place; worked out once for each."""
        here = place % CYCLE
        if here not in self._rests:
            self._rests[here] = self._at(here)
        return self._rests[here]

    def _at(self, here: int) -> Rest:
        torque, (least, most) = self.torque_nm[here], (band[here] for band in self.rubs_nm)
        push = abs(float(torque))
        stays: Literal["stays", "may turn", "snaps"] = "stays" if push <= least else "may turn" if push <= most else "snaps"
        way = 0 if stays == "stays" else -int(np.sign(torque))
        return Rest(
            stays=stays,
            settles_deg=self._settles(here, way),
            swings_deg=self._swings(here, way),
            hold_nm=max(push - float(least), 0.0),
            loaded=tuple(dict.fromkeys(one.spoken for one, force in zip(self.valves, self.forces_n[:, here], strict=True) if force > 0)),
        )

    def _settles(self, here: int, way: int) -> int:
        """To the first place where the springs push no harder than the least rubbing holds, or the other way."""
        gone = 0
        while way and gone < CYCLE:
            torque = self.torque_nm[(here + way * gone) % CYCLE]
            if -way * torque <= self.rubs_nm[0][(here + way * gone) % CYCLE]:
                break
            gone += 1
        return way * gone

    def _swings(self, here: int, way: int) -> int:
        """As far as what the springs gave, less the least rubbing, carries it."""
        if not way:
            return 0
        places = (here + way * np.arange(1, CYCLE)) % CYCLE
        lost_nmm = np.cumsum(self.rubs_nm[0][places]) * CAM_RAD * 1000
        moving = self.work_nmm[here] - self.work_nmm[places] - lost_nmm
        stopped = np.flatnonzero(moving <= 0)
        first = int(stopped[0]) + 1 if stopped.size else CYCLE
        return way * max(first, abs(self._settles(here, way)))

    def turning_nm(self, begin: int, by: int) -> float:
        """The most it takes to turn it from a place by so many crank degrees, rubbing and all; what has to be held back counts alike."""
        places = (begin + np.sign(by) * np.arange(abs(by) + 1)) % CYCLE
        return float(np.max(np.abs(self.torque_nm[places]) + self.rubs_nm[1][places]))

    @cached_property
    def easiest(self) -> int:
        """The place at which its lobes press on its caps least; of several alike the middle of the longest stretch."""
        least = self.total_n <= self.total_n.min() + 1.0
        return _middle_of_longest(least)


def load_together(loads: Mapping[str, SpringLoad], offsets: Mapping[str, int]) -> SpringLoad | None:
    """Return camshafts that turn together as one, by the place of the first; None where one of them is not known.

    offsets: by camshaft, how far each is on from the first [crank deg].
    """
    first, *others = offsets
    if not others or not offsets.keys() <= loads.keys():
        return loads.get(first)
    own = [(loads[cam], -on) for cam, on in offsets.items()]
    least, most = (np.sum([np.roll(one.rubs_nm[n], by) for one, by in own], axis=0) for n in (0, 1))
    return SpringLoad(
        camshaft=first,
        valves=tuple(valve for one, _ in own for valve in one.valves),
        forces_n=np.concatenate([np.roll(one.forces_n, by, axis=1) for one, by in own]),
        work_nmm=np.sum([np.roll(one.work_nmm, by) for one, by in own], axis=0),
        rubs_nm=(least, most),
    )


def _middle_of_longest(mask: NDArray[np.bool_]) -> int:
    if mask.all():
        return 0
    begin = int(np.flatnonzero(~mask)[0])
    turned = np.roll(mask, -begin)
    edges = np.flatnonzero(np.diff(np.concatenate([[0], turned.astype(np.int8), [0]])))
    runs = edges.reshape(-1, 2)
    first, last = max(runs.tolist(), key=lambda run: run[1] - run[0])
    return (begin + (first + last - 1) // 2) % CYCLE


def load_of(ground: Ground, camshaft: str) -> SpringLoad | None:
    """Return a camshaft under its springs; None where lobes or springs are not known.

    Source: [spring-work] in docs/sources.md: preload times lift and half the rate times lift squared.
    >>> load = load_of(Ground(document=quern_4(), measured={}), "cam")
    >>> abs(round(float(load.torque_nm.sum()), 6))
    0.0
    """
    document = ground.document
    cam, valves = document.camshaft(camshaft), ground.of_cam(camshaft)
    springs = {one.valve: one for one in document.springs}
    if cam is None or not valves or len(valves) < len(cam.lobes) or not {one.valve for one in valves} <= springs.keys():
        return None
    base_mm, forces, arms, work = cam.base_circle_mm or USUAL_BASE_MM, [], [], np.zeros(CYCLE)
    for one in valves:
        lift, spring, ratio = ground.lift_mm(one), springs[one.valve], cam.ratio(one.valve) or 1.0
        force = np.where(lift > 0, spring.preload_n + spring.rate_n_mm * lift, 0.0)
        work = work + spring.preload_n * lift + spring.rate_n_mm * lift**2 / 2
        forces.append(force * ratio)
        arms.append(force * ratio * (base_mm + lift / ratio) / 1000)
    rubs = np.sum(arms, axis=0)
    known = (cam.friction, cam.friction) if cam.friction is not None else RUBBING
    least, most = (STEADY_NM + share * rubs for share in known)
    return SpringLoad(camshaft=camshaft, valves=valves, forces_n=np.array(forces), work_nmm=work, rubs_nm=(least, most))
