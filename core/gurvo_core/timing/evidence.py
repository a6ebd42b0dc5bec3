"""How well everything that could be wrong, alone or two things at once, explains what was measured: evidence, not fit.

What a cause leaves free it pays for: the figures have to be likely under everything it could have done, not under the best of it.
"""

__all__ = ["Explained", "MeasuredCam", "explained"]

import math
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from gurvo_core.timing.cause_table import KINDS, TWO_AT_ONCE
from gurvo_core.timing.hypotheses import Hypothesis

LEAST_U_DEG = 0.05
PLACES = 8  # lost motion may stand anywhere: as many places side by side, each as wide as they are apart
Floats = NDArray[np.float64]


@dataclass(frozen=True, kw_only=True)
class MeasuredCam:
    """How far a camshaft was found from its card by one of its valves, and the standard uncertainty, the wheel zero's left out [deg]."""

    camshaft: str
    valve: str = ""
    advance_deg: float
    u_deg: float

    @property
    def place(self) -> str:
        """As “cam/intake”."""
        return f"{self.camshaft}/{self.valve}"

    def is_among(self, names: Collection[str]) -> bool:
        """Whether it is named, with all its camshaft or by its valve alone."""
        return self.camshaft in names or self.place in names


@dataclass(frozen=True)
class _Figures:
    """What was found, and how sure that is."""

    found: Floats
    spread: Floats
    places: tuple[str, ...]


@dataclass(frozen=True, eq=False)
class Explained:
    """One thing that could be, or two at once: the log of prior and evidence, and the best of its laws."""

    parts: tuple[Hypothesis, ...]
    log: float
    mean: Floats
    free: Floats
    figures: _Figures

    @property
    def camshafts(self) -> tuple[str, ...]:
        """The camshafts that were measured."""
        return tuple(dict.fromkeys(place.split("/")[0] for place in self.figures.places))

    def predicted_deg(self) -> Mapping[str, float]:
        """Where it would have each camshaft, by place; what it leaves free as the figures have it [crank deg]."""
        off = np.linalg.solve(self.free + self.figures.spread, self.figures.found - self.mean)
        return dict(zip(self.figures.places, (self.mean + self.free @ off).tolist(), strict=True))


@dataclass(frozen=True)
class _Sets:
    """Normal laws side by side: where each puts every figure, how far it leaves it free, and whose it is."""

    mean: Floats  # (sets, figures)
    free: Floats  # (sets, figures, figures)
    log: Floats  # (sets,) of prior and share of the cause
    owner: NDArray[np.int64]


def explained(hypotheses: Sequence[Hypothesis], measured: Sequence[MeasuredCam], u_zero_deg: float) -> list[Explained]:
    """Return how well each thing that could be wrong, and each two of them at once, explains the figures.

    u_zero_deg: standard uncertainty of the wheel's zero, common to all of them [deg].
    Source: [causes]: Bayes' rule over normal errors; what a cause leaves free is part of its spread.
    >>> len(explained(hypotheses_of(quern_4())[:3], [], 0.2))
    3
    """
    alone = _sets(hypotheses, measured)
    both, pairs = _at_once(hypotheses, alone)
    own_u = np.maximum(LEAST_U_DEG, [one.u_deg for one in measured]) if measured else np.zeros(0)
    spread = np.diag(own_u**2) + u_zero_deg**2
    figures = _Figures(np.array([one.advance_deg for one in measured]), spread, tuple(one.place for one in measured))
    single = [(one,) for one in hypotheses]
    return [*_of(alone, figures, single), *_of(both, figures, [(hypotheses[a], hypotheses[b]) for a, b in pairs])]


def _sets(hypotheses: Sequence[Hypothesis], measured: Sequence[MeasuredCam]) -> _Sets:
    found = [
        (mean, free, log, n)
        for n, one in enumerate(hypotheses)
        for mean, free, log in _normal_laws(one, measured, math.log(KINDS[one.kind].prior * one.share))
    ]
    mean, free, log, owner = zip(*found, strict=True)
    return _Sets(np.array(mean), np.array(free), np.array(log), np.array(owner))


def _normal_laws(one: Hypothesis, measured: Sequence[MeasuredCam], log: float) -> list[tuple[Floats, Floats, float]]:
    """One law, or several side by side where it may stand anywhere within a travel."""
    mean = np.array([one.moves_deg.get(cam.camshaft, 0.0) for cam in measured])
    moved = np.array([1.0 if cam.camshaft in one.moves_deg else 0.0 for cam in measured])
    free_deg = KINDS[one.kind].free_deg
    if one.at_most_deg:
        step = one.at_most_deg / PLACES
        free = (step / 2) ** 2 * np.outer(moved, moved)
        return [(mean + (n + 0.5) * step * moved, free, log - math.log(PLACES)) for n in range(PLACES)]
    if one.free_of:
        own = np.array([1.0 if cam.is_among(one.free_of) else 0.0 for cam in measured])
        same = np.equal.outer(names := [cam.camshaft for cam in measured], names)
        return [(mean, free_deg**2 * np.outer(own, own) * same, log)]
    return [(mean, free_deg**2 * np.outer(moved, moved), log)]  # one cause, so it moves all of them alike


def _at_once(hypotheses: Sequence[Hypothesis], alone: _Sets) -> tuple[_Sets, list[tuple[int, int]]]:
    """Every two that are not the same thing in two ways."""
    pairs = [(a, b) for a, one in enumerate(hypotheses) for b in range(a + 1, len(hypotheses)) if one.goes_with(hypotheses[b])]
    number = np.full((len(hypotheses), len(hypotheses)), -1)
    for n, (a, b) in enumerate(pairs):
        number[a, b] = n
    rows, columns = np.nonzero(number[np.ix_(alone.owner, alone.owner)] >= 0)
    log = alone.log[rows] + alone.log[columns] + math.log(TWO_AT_ONCE)
    owner = number[alone.owner[rows], alone.owner[columns]]
    return _Sets(alone.mean[rows] + alone.mean[columns], alone.free[rows] + alone.free[columns], log, owner), pairs


def _of(sets: _Sets, figures: _Figures, owners: Sequence[tuple[Hypothesis, ...]]) -> list[Explained]:
    """By owner the evidence of all its laws together, and the best of them."""
    if not owners:
        return []
    logs = sets.log + _log_normal(figures.found - sets.mean, sets.free + figures.spread)
    whole, best = np.full(len(owners), -np.inf), np.zeros(len(owners), dtype=int)
    np.logaddexp.at(whole, sets.owner, logs)
    rising = np.argsort(logs, kind="stable")
    best[sets.owner[rising]] = rising  # the last that is put there is the likeliest
    return [Explained(owner, float(whole[n]), sets.mean[best[n]], sets.free[best[n]], figures) for n, owner in enumerate(owners)]


def _log_normal(off: Floats, spread: Floats) -> Floats:
    """Of many laws at once."""
    _, log_size = np.linalg.slogdet(spread)
    solved = np.linalg.solve(spread, off[..., None])[..., 0]
    return np.asarray(-0.5 * (np.sum(off * solved, axis=-1) + log_size + off.shape[-1] * math.log(2 * math.pi)), dtype=np.float64)
