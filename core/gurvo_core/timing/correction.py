"""Corrections: which adjustment brings a cam back, which way, and what it leaves.

Effects and residues are crank degrees, positive = advanced. An adjustment is worked from where it stands now.
"""

__all__ = ["Correction", "Move", "corrections"]

import math
import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations

from gurvo_core.engine import Adjustment, HoleCircles, KeySlots, OffsetBushes, SlottedSprocket, SprocketTeeth

MAX_TEETH = 2
MAX_TOGETHER = 3
OFFERED = 3
FINENESS = {"hole_circles": 1, "slotted_sprocket": 2}  # by kind; whatever takes whole steps of its own comes first
_PLACE = re.compile(r"([\d.]+)\D*?\b(on|back)$")
SAME_DEG = 0.005  # residues closer than this are the same to any builder


@dataclass(frozen=True, kw_only=True)
class Move:
    """One adjustment moved: by name, to which place, what it does."""

    adjustment: str
    place: str
    order: str
    advance_deg: float


@dataclass(frozen=True, kw_only=True)
class Correction:
    """One or more moves together and the advance they leave."""

    moves: tuple[Move, ...]
    residual_deg: float


def corrections(adjustments: Sequence[Adjustment], advance_deg: float, made: Mapping[str, Sequence[str]] | None = None) -> list[Correction]:
    """Return what can be moved to bring a cam to its card, the least residue first.

    advance_deg: how far the cam is advanced now [deg].
    Source: Steps: tooth at the crank sprocket 360/N, at the cam sprocket 720/N, bush 2 x its cam degrees, hole circles 720/lcm(n, m), from
    their geometry. What the coarser leaves is what the finer has to take: teeth, slots and bushes first, then hole circles, then a slotted
    sprocket.
    >>> teeth = SprocketTeeth(kind="sprocket_teeth", name="Cam sprocket", at="cam", teeth=40)
    >>> [(c.moves[0].place, c.residual_deg) for c in corrections([teeth], 17.0)]
    [('1 tooth back', -1.0)]
    """
    coarse_first = sorted(adjustments, key=lambda adjustment: FINENESS.get(adjustment.kind, 0))
    found = [
        Correction(moves=moves, residual_deg=left_deg)
        for count in range(1, MAX_TOGETHER + 1)
        for chosen in combinations(coarse_first, count)
        for moves, left_deg in _together(chosen, advance_deg, made or {})
        if abs(left_deg) < abs(advance_deg) - SAME_DEG
    ]
    found.sort(key=lambda c: (round(abs(c.residual_deg) / SAME_DEG), len(c.moves), sum(abs(m.advance_deg) for m in c.moves)))
    return _fewer_parts_each(found)


def _together(chosen: Sequence[Adjustment], advance_deg: float, made: Mapping[str, Sequence[str]]) -> list[tuple[tuple[Move, ...], float]]:
    """Every way to move all of some adjustments, with what is left; each is worked out on what those before it leave."""
    ways: list[tuple[tuple[Move, ...], float]] = [((), advance_deg)]
    for adjustment in chosen:
        ways = [
            ((*moves, move), left_deg + move.advance_deg)
            for moves, left_deg in ways
            for move in _moves(adjustment, left_deg, made.get(adjustment.name, ()))
        ]
    return ways


def _fewer_parts_each(found: Iterable[Correction]) -> list[Correction]:
    """The best few; one that moves more parts than a better one is no offer."""
    offers: list[Correction] = []
    for correction in found:
        names = {move.adjustment for move in correction.moves}
        better = [{move.adjustment for move in offer.moves} for offer in offers]
        if len(offers) < OFFERED and all(not names >= other for other in better):
            offers.append(correction)
    return offers


def _moves(adjustment: Adjustment, advance_deg: float, made: Sequence[str]) -> list[Move]:
    if isinstance(adjustment, KeySlots):
        return _slot_moves(adjustment, made[-1] if made else None)
    if isinstance(adjustment, OffsetBushes):
        return _bush_moves(adjustment, made[-1] if made else None)
    if isinstance(adjustment, HoleCircles):
        return _hole_moves(adjustment, advance_deg, _moved_so_far(made))
    if isinstance(adjustment, SlottedSprocket):
        return _slotted_moves(adjustment, advance_deg, _moved_so_far(made))
    return _tooth_moves(adjustment)


def _moved_so_far(made: Sequence[str]) -> float:
    """The sum of places such as “2 hole steps on” and “3.1° back”, on counting up."""
    figures = [(float(found[1]), found[2]) for place in made if (found := _PLACE.match(place))]
    return math.fsum(figure if way == "on" else -figure for figure, way in figures)


def _slot_moves(key: KeySlots, place: str | None) -> list[Move]:
    now = next(slot for slot in key.slots if slot.name == (place or key.fitted))
    return [
        Move(
            adjustment=key.name,
            place=slot.name,
            order=f"{key.name}: take it off slot {now.name}, put it on slot {slot.name}",
            advance_deg=slot.advance_deg - now.advance_deg,
        )
        for slot in key.slots
        if slot.name != now.name
    ]


def _bush_moves(bushes: OffsetBushes, place: str | None) -> list[Move]:
    choices = {"plain": 0.0} | {bush.name: 2 * bush.cam_deg for bush in bushes.bushes}
    now_deg = choices[place or "plain"]
    return [
        Move(adjustment=bushes.name, place=name, order=f"{bushes.name}: fit bush {name}", advance_deg=effect_deg - now_deg)
        for name, effect_deg in choices.items()
        if name != (place or "plain")
    ]


def _hole_moves(circles: HoleCircles, advance_deg: float, moved_steps: float) -> list[Move]:
    step_deg = 720 / math.lcm(circles.cam_holes, circles.sprocket_holes)
    most = math.floor(circles.range_deg / step_deg)
    stands = round(moved_steps)
    steps = max(-most - stands, min(most - stands, round(-advance_deg / step_deg)))
    if steps == 0:
        return []
    cam_hole, sprocket_hole = _holes_that_meet(circles, stands + steps)
    return [
        Move(
            adjustment=circles.name,
            place=f"{abs(steps)} hole step{'s' if abs(steps) > 1 else ''} {_way(steps)}",
            order=f"{circles.name}: turn the cam {abs(steps * step_deg) / 2:.2f} cam degrees {_against(steps)} until its hole {cam_hole} "
            f"meets the sprocket's hole {sprocket_hole}, both counted in the running direction from the pair of the book",
            advance_deg=steps * step_deg,
        )
    ]


def _holes_that_meet(circles: HoleCircles, steps: int) -> tuple[int, int]:
    """Which hole of the cam meets which of the sprocket, counted from 1, when the cam stands so many steps on in its sprocket."""
    whole = math.lcm(circles.cam_holes, circles.sprocket_holes)
    per_cam, per_sprocket = whole // circles.cam_holes, whole // circles.sprocket_holes
    for cam_hole in range(circles.cam_holes):
        at = (cam_hole * per_cam + steps) % whole
        if at % per_sprocket == 0:
            return cam_hole + 1, at // per_sprocket + 1
    raise AssertionError("steps are of the least common multiple, so some pair meets")


def _slotted_moves(sprocket: SlottedSprocket, advance_deg: float, moved_deg: float) -> list[Move]:
    if sprocket.range_deg is None:
        return []  # how far its slots reach is not known
    effect_deg = max(-sprocket.range_deg - moved_deg, min(sprocket.range_deg - moved_deg, -advance_deg))
    if abs(effect_deg) < SAME_DEG:
        return []
    return [
        Move(
            adjustment=sprocket.name,
            place=f"{abs(effect_deg):.1f}° {_way(effect_deg)}",
            order=f"{sprocket.name}: turn the cam {abs(effect_deg) / 2:.2f} cam degrees {_against(effect_deg)} in its slots",
            advance_deg=effect_deg,
        )
    ]


@lru_cache(maxsize=256)
def _tooth_moves(sprocket: SprocketTeeth) -> list[Move]:
    step_deg = (360 if sprocket.at == "crank" else 720) / sprocket.teeth
    counts = [count for count in range(-MAX_TEETH, MAX_TEETH + 1) if count]
    return [
        Move(
            adjustment=sprocket.name,
            place=f"{abs(count)} {'tooth' if abs(count) == 1 else 'teeth'} {_way(turned)}",
            order=f"{sprocket.name}: turn it {abs(count)} {'tooth' if abs(count) == 1 else 'teeth'} {_against(turned)} in the chain",
            advance_deg=count * step_deg,
        )
        for count in counts
        # a cam sprocket turned on advances the cam; a crank sprocket must be turned back to do the same
        for turned in (count if sprocket.at == "cam" else -count,)
    ]


def _way(amount: float) -> str:
    return "on" if amount > 0 else "back"


def _against(amount: float) -> str:
    return "in the running direction" if amount > 0 else "against the running direction"
