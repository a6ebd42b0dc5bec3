"""Likely causes: how likely each thing that could be wrong is, and the one look that tells the first apart from the rest.

Figures alone are never sure of a fault: something that is not listed can always look the same. A look can, if it could have said otherwise.
"""

__all__ = ["Cause", "Ranking", "check_gain", "rank", "rank_causes"]

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from gurvo_core.timing.cause_table import CHECKS, KINDS, MARK_OF, check_of
from gurvo_core.timing.evidence import Explained, MeasuredCam, explained
from gurvo_core.timing.hypotheses import Hypothesis

SURE = 0.995
NOTHING_WRONG = 0.9  # nothing is moved for it: a small fault may hide in the errors of reading, and that is said
PREDICTED = 8  # nobody looks further down
CONSIDERED = 40  # all others together weigh next to nothing
CLEAR_BITS = 0.15  # a check that is worth less does not tell them apart
TELLING = 3.0  # an answer is that of a cause where it is so many times as likely under it as under any other
Floats = NDArray[np.float64]


@dataclass(frozen=True, kw_only=True)
class Cause:
    """One thing that could be, or two at once, how likely it is, and where it would have each camshaft."""

    parts: tuple[Hypothesis, ...]
    share: float
    predicted_deg: Mapping[str, float]  # by camshaft and valve, as “cam/intake”

    @property
    def kinds(self) -> tuple[str, ...]:
        """The kinds of its parts."""
        return tuple(one.kind for one in self.parts)

    @property
    def is_nothing(self) -> bool:
        """Whether all is as it should be."""
        return self.kinds == ("none",)


@dataclass(frozen=True, kw_only=True)
class Ranking:
    """All that could be, the likeliest first; whether the first stands alone, and which look would settle it."""

    causes: tuple[Cause, ...]
    is_sure: bool
    check: str | None


def rank_causes(
    hypotheses: Sequence[Hypothesis], measured: Sequence[MeasuredCam], u_zero_deg: float, seen: Mapping[str, bool] | None = None
) -> Ranking:
    """Return what could be wrong, the likeliest first.

    u_zero_deg: standard uncertainty of the wheel's zero, common to all of them [deg].
    """
    return rank(explained(hypotheses, measured, u_zero_deg), is_measured=bool(measured), seen=seen or {})


def rank(of: Sequence[Explained], *, is_measured: bool, seen: Mapping[str, bool]) -> Ranking:
    """Return what could be wrong by the figures and the looks that were made, the likeliest first.

    Source: [causes]: Bayes' rule. The check is the one with the largest expected gain in bits between the first two, less the work it
    takes; of a first that stands alone the one that would find it.
    >>> rank(explained(hypotheses_of(quern_4()), [], 0.2), is_measured=False, seen={}).is_sure
    False
    """
    logs = np.array([one.log for one in of])
    for key, is_sound in seen.items():
        own = {one.parts[0].key: _shows_sound(one.parts[0], key) / check_of(key).usual for one in of if len(one.parts) == 1}
        sound = check_of(key).usual * np.array([math.prod(own[part.key] for part in one.parts) for one in of])
        logs += np.log(sound if is_sound else 1 - sound)
    weights = np.exp(logs - logs.max())
    shares = weights / weights.sum()
    order = np.argsort(-shares, kind="stable")
    causes = tuple(
        Cause(parts=of[n].parts, share=float(shares[n]), predicted_deg=of[n].predicted_deg() if place < PREDICTED else {})
        for place, n in enumerate(order)
    )
    first = causes[0]
    is_sure = is_measured and (first.share >= NOTHING_WRONG if first.is_nothing else first.share >= SURE and _was_seen(first, seen))
    left = [key for key in (*CHECKS, *_single_marks(of[0].camshafts, seen)) if key not in seen]
    check = None if is_sure else _next_check(causes, seen, left)
    return Ranking(causes=causes, is_sure=is_sure, check=check)


def _single_marks(camshafts: Sequence[str], seen: Mapping[str, bool]) -> list[str]:
    """Where one of several marks does not meet: which."""
    return [f"{MARK_OF}{cam}" for cam in camshafts] if len(camshafts) > 1 and seen.get("marks") is False else []


def _shows_sound(one: Hypothesis, check: str) -> float:
    """The chance that a check finds all as it should be under a cause; a single mark only of a camshaft that it moves."""
    usual = check_of(check).usual
    if check.startswith(MARK_OF):
        return KINDS[one.kind].shows.get("marks", usual) if one.moves(check.removeprefix(MARK_OF)) else usual
    return KINDS[one.kind].shows.get(check, usual)


def _sound(parts: Sequence[Hypothesis], check: str) -> float:
    """Of two things at once either may show."""
    usual = check_of(check).usual
    return usual * math.prod(_shows_sound(one, check) / usual for one in parts)


def _was_seen(cause: Cause, seen: Mapping[str, bool]) -> bool:
    """Whether each of its parts was found by a look that could have said otherwise."""
    return all(any(not ok and _shows(one, key) for key, ok in seen.items()) for one in cause.parts)


def _shows(one: Hypothesis, check: str) -> bool:
    """Whether a check that is off speaks for a cause."""
    return 1 - _shows_sound(one, check) >= TELLING * (1 - check_of(check).usual)


def _check_of(cause: Cause, seen: Mapping[str, bool], left: Sequence[str]) -> str | None:
    """The look that would find the first of its parts which no look has found yet; the handiest of those that would."""
    for one in cause.parts:
        if any(not ok and _shows(one, key) for key, ok in seen.items()):
            continue
        own = {key: _shows_sound(one, key) + check_of(key).effort for key in left if _shows(one, key)}
        if own:
            return min(own, key=own.__getitem__)
    return None


def _entropy_bits(shares: Floats) -> float:
    some = shares[shares > 0]
    return float(-np.sum(some * np.log2(some)))


def check_gain(causes: Sequence[Cause], check: str) -> float:
    """Return how much a check is expected to tell about some causes.

    Returned: expected fall of the entropy [bits].
    Source: Mutual information of answer and cause.
    >>> both = [Cause(parts=(one,), share=0.5, predicted_deg={}) for one in hypotheses_of(quern_4())[:2]]
    >>> check_gain(both, "zero") > check_gain(both, "stamp")
    True
    """
    shares = np.array([one.share for one in causes])
    shares = shares / shares.sum()
    sound = np.array([_sound(one.parts, check) for one in causes])
    gain = _entropy_bits(shares)
    for chances in (sound, 1 - sound):
        whole = float(np.sum(shares * chances))
        if whole > 0:
            gain -= whole * _entropy_bits(shares * chances / whole)
    return gain


def _next_check(causes: Sequence[Cause], seen: Mapping[str, bool], left: Sequence[str]) -> str | None:
    """What tells the first two apart; where the first stands alone, or nothing does, the look that would find it."""
    finds = _check_of(causes[0], seen, left)
    return finds if finds and causes[0].share >= SURE else _best_check(causes, left) or finds


def _best_check(causes: Sequence[Cause], left: Sequence[str]) -> str | None:
    """The check that tells the first two apart best, evened out so that a likely first does not hide the difference; where none does,
    the one that tells most about all of them.
    """
    pair = [Cause(parts=one.parts, share=0.5, predicted_deg={}) for one in causes[:2]]
    for among in (pair, causes[:CONSIDERED]):
        gains = {key: check_gain(among, key) for key in left}
        worth = {key: gain - check_of(key).effort for key, gain in gains.items()}
        best = max(worth, key=worth.__getitem__, default=None)
        if best is not None and gains[best] > CLEAR_BITS:
            return best
    return None
