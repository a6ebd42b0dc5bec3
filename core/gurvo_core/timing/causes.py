"""Likely causes: how well each thing that could be wrong explains what was measured, and the one check that tells the first two apart."""

__all__ = ["Cause", "MeasuredCam", "Ranking", "check_gain", "rank_causes"]

import math
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from gurvo_core.timing.cause_table import CHECKS, KINDS
from gurvo_core.timing.hypotheses import Hypothesis

SURE = 0.9
LEAST_U_DEG = 0.05
CLEAR_BITS = 0.15  # a check that is worth less does not tell them apart
Floats = NDArray[np.float64]


@dataclass(frozen=True, kw_only=True)
class MeasuredCam:
    """How far a camshaft was found from its card by one of its valves, and the standard uncertainty, the wheel zero's left out [deg]."""

    camshaft: str
    valve: str = ""
    advance_deg: float
    u_deg: float

    def is_among(self, names: Collection[str]) -> bool:
        """Whether it is named, with all its camshaft or by its valve alone."""
        return self.camshaft in names or f"{self.camshaft}/{self.valve}" in names


@dataclass(frozen=True, kw_only=True)
class Cause:
    """One thing that could be, how likely it is, and what it leaves unexplained."""

    hypothesis: Hypothesis
    share: float
    predicted_deg: Mapping[str, float]  # by camshaft and valve, as “cam/intake”


@dataclass(frozen=True, kw_only=True)
class Ranking:
    """All that could be, the likeliest first; whether the first stands alone, and which look would settle it."""

    causes: tuple[Cause, ...]
    is_sure: bool
    check: str | None
    gain_bits: float


def rank_causes(
    hypotheses: Sequence[Hypothesis], measured: Sequence[MeasuredCam], u_zero_deg: float, seen: Mapping[str, bool] | None = None
) -> Ranking:
    """Return what could be wrong, the likeliest first.

    Parameters
    ----------
    hypotheses : sequence of Hypothesis
        What could be.
    measured : sequence of MeasuredCam
        Every camshaft that was measured.
    u_zero_deg : float
        Standard uncertainty of the wheel's zero, common to all of them [deg].
    seen : mapping of bool, optional
        Checks that were made, by their key: whether all was as it should be.

    Returns
    -------
    ranking : Ranking
        Shares add up to 1. Without a measured camshaft the priors alone speak, and nothing is sure.

    Source
    ------
    [causes]: Bayes' rule over normal errors. The check is the one with the largest expected gain in bits between the first two, less
    the work it takes.

    Example
    -------
    >>> late = [MeasuredCam(camshaft="cam", advance_deg=-17.2, u_deg=0.3)]
    >>> rank_causes(hypotheses_of(quern_4()), late, 0.2).causes[0].hypothesis.name
    'Timing chain: slack was on the pulled run'
    """
    found = np.array([one.advance_deg for one in measured])
    own_u = np.maximum(LEAST_U_DEG, [one.u_deg for one in measured]) if measured else np.zeros(0)
    logs, predicted = [], []
    for one in hypotheses:
        log, says = _explains(one, measured, found, own_u, u_zero_deg)
        logs.append(log + math.log(KINDS[one.kind].prior * one.share) + sum(_log_seen(one, key, ok) for key, ok in (seen or {}).items()))
        predicted.append(says)
    weights = np.exp(np.array(logs) - max(logs))
    shares = weights / weights.sum()
    order = np.argsort(-shares, kind="stable")
    causes = tuple(Cause(hypothesis=hypotheses[n], share=float(shares[n]), predicted_deg=predicted[n]) for n in order)
    check, gain = _best_check(causes, set(seen or {}))
    return Ranking(causes=causes, is_sure=bool(measured) and causes[0].share >= SURE, check=check, gain_bits=gain)


def _log_seen(one: Hypothesis, check: str, is_sound: bool) -> float:
    chance = KINDS[one.kind].shows.get(check, CHECKS[check].usual)
    return math.log(chance if is_sound else 1 - chance)


def _explains(
    one: Hypothesis, measured: Sequence[MeasuredCam], found: Floats, own_u: Floats, u_zero_deg: float
) -> tuple[float, dict[str, float]]:
    """How well it explains the figures (log of the density), and what it predicts of each camshaft."""
    if not measured:
        return 0.0, {}
    mean = np.array([one.moves_deg.get(cam.camshaft, 0.0) for cam in measured])
    spread = np.diag(own_u**2) + u_zero_deg**2
    free_deg = KINDS[one.kind].free_deg
    if one.at_most_deg:
        return _within_travel(one, measured, found, spread, mean)
    if one.free_of:
        free = np.array([free_deg**2 if cam.is_among(one.free_of) else 0.0 for cam in measured])
        same = np.array([[1.0 if a.camshaft == b.camshaft else 0.0 for b in measured] for a in measured])
        said = np.where(free > 0, found, 0.0)
        return _log_normal(found - mean, spread + np.sqrt(np.outer(free, free)) * same), _by_cam(measured, said)
    if free_deg:  # one cause, so it moves all of them alike
        moved = np.array([1.0 if cam.camshaft in one.moves_deg else 0.0 for cam in measured])
        weight = np.linalg.solve(spread, moved)
        best = free_deg**2 * float(weight @ (found - mean)) / (1 + free_deg**2 * float(weight @ moved))
        log = _log_normal(found - mean, spread + free_deg**2 * np.outer(moved, moved))
        return log, _by_cam(measured, mean + best * moved)
    return _log_normal(found - mean, spread), _by_cam(measured, mean)


def _within_travel(
    one: Hypothesis, measured: Sequence[MeasuredCam], found: Floats, spread: Floats, mean: Floats
) -> tuple[float, dict[str, float]]:
    """Anywhere within the lost motion, each place as likely as the next."""
    moved = np.array([1.0 if cam.camshaft in one.moves_deg else 0.0 for cam in measured])
    if not moved.any():
        return _log_normal(found, spread), _by_cam(measured, mean)
    places = np.linspace(0.05, 1.0, 40) * one.at_most_deg
    logs = np.array([_log_normal(found - mean - place * moved, spread) for place in places])
    best = places[int(np.argmax(logs))]
    top = float(logs.max())
    return top + math.log(float(np.mean(np.exp(logs - top)))), _by_cam(measured, mean + best * moved)


def _log_normal(off: Floats, spread: Floats) -> float:
    _, log_size = np.linalg.slogdet(spread)
    return float(-0.5 * (off @ np.linalg.solve(spread, off) + log_size + len(off) * math.log(2 * math.pi)))


def _by_cam(measured: Sequence[MeasuredCam], degrees: Floats) -> dict[str, float]:
    return {f"{cam.camshaft}/{cam.valve}": float(deg) for cam, deg in zip(measured, degrees, strict=True)}


def _entropy_bits(shares: Floats) -> float:
    some = shares[shares > 0]
    return float(-np.sum(some * np.log2(some)))


def check_gain(causes: Sequence[Cause], check: str) -> float:
    """Return how much a check is expected to tell about some causes.

    Parameters
    ----------
    causes : sequence of Cause
        With their shares; taken as if there were no others.
    check : str
        Key of the check.

    Returns
    -------
    gain : float
        Expected fall of the entropy [bits].

    Source
    ------
    Mutual information of answer and cause.

    Example
    -------
    >>> both = [Cause(hypothesis=one, share=0.5, predicted_deg={}) for one in hypotheses_of(quern_4())[:2]]
    >>> check_gain(both, "zero") > check_gain(both, "stamp")
    True
    """
    shares = np.array([one.share for one in causes])
    shares = shares / shares.sum()
    sound = np.array([KINDS[one.hypothesis.kind].shows.get(check, CHECKS[check].usual) for one in causes])
    gain = _entropy_bits(shares)
    for chances in (sound, 1 - sound):
        whole = float(np.sum(shares * chances))
        if whole > 0:
            gain -= whole * _entropy_bits(shares * chances / whole)
    return gain


def _best_check(causes: Sequence[Cause], made: set[str]) -> tuple[str | None, float]:
    """The check that tells the first two apart best, evened out so that a likely first does not hide the difference; where none does,
    the one that tells most about all of them.
    """
    pair = [Cause(hypothesis=one.hypothesis, share=0.5, predicted_deg={}) for one in causes[:2]]
    for among in (pair, causes):
        gains = {key: check_gain(among, key) for key in CHECKS if key not in made}
        best = max(gains, key=lambda key: gains[key] - CHECKS[key].effort, default=None)
        if best is not None and gains[best] > CLEAR_BITS:
            return best, gains[best]
    return None, 0.0
