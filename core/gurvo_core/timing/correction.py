"""Corrections: which adjustment brings a cam back, which way, and what it leaves.

Effects and residues are crank degrees, positive = advanced. An adjustment is worked from where it stands now.
"""

__all__ = ["Correction", "Move", "corrections"]

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations, product

from gurvo_core.engine import Adjustment, HoleCircles, KeySlots, OffsetBushes, SlottedSprocket, SprocketTeeth

MOST_TEETH = 2
OFFERED = 3
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
    leaves_deg: float


def corrections(adjustments: Sequence[Adjustment], advance_deg: float, made: Mapping[str, str] | None = None) -> list[Correction]:
    """Return what can be moved to bring a cam to its card, the least residue first.

    Parameters
    ----------
    adjustments : sequence of Adjustment
        What this engine offers.
    advance_deg : float
        How far the cam is advanced now [deg].
    made : mapping, optional
        Where each adjustment stands now, by its name, when it was moved from the book's place.

    Returns
    -------
    offers : list of Correction
        At most three. Each after the first leaves more but moves fewer parts, and all leave less than doing nothing.

    Source
    ------
    Steps: tooth at the crank sprocket 360/N, at the cam sprocket 720/N, bush 2 x its cam degrees, hole circles
    720/lcm(n, m), from their geometry.

    Example
    -------
    >>> teeth = SprocketTeeth(kind="sprocket_teeth", name="Cam sprocket", at="cam", teeth=40)
    >>> [(c.moves[0].place, c.leaves_deg) for c in corrections([teeth], 17.0)]
    [('1 tooth back', -1.0)]
    """
    by_kind = [_moves(adjustment, advance_deg, (made or {}).get(adjustment.name)) for adjustment in adjustments]
    found = [
        Correction(moves=moves, leaves_deg=advance_deg + math.fsum(move.advance_deg for move in moves))
        for count in (1, 2)
        for chosen in combinations(by_kind, count)
        for moves in product(*chosen)
    ]
    found.sort(key=lambda c: (round(abs(c.leaves_deg) / SAME_DEG), len(c.moves), sum(abs(m.advance_deg) for m in c.moves)))
    return _fewer_parts_each(c for c in found if abs(c.leaves_deg) < abs(advance_deg) - SAME_DEG)


def _fewer_parts_each(found: Iterable[Correction]) -> list[Correction]:
    """The best few; one that moves more parts than a better one is no offer."""
    offers: list[Correction] = []
    for correction in found:
        names = {move.adjustment for move in correction.moves}
        better = [{move.adjustment for move in offer.moves} for offer in offers]
        if len(offers) < OFFERED and all(not names >= other for other in better):
            offers.append(correction)
    return offers


def _moves(adjustment: Adjustment, advance_deg: float, place: str | None) -> list[Move]:
    if isinstance(adjustment, KeySlots):
        return _slot_moves(adjustment, place)
    if isinstance(adjustment, OffsetBushes):
        return _bush_moves(adjustment, place)
    if isinstance(adjustment, HoleCircles):
        return _hole_moves(adjustment, advance_deg)
    if isinstance(adjustment, SlottedSprocket):
        return _slotted_moves(adjustment, advance_deg)
    return _tooth_moves(adjustment)


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


def _hole_moves(circles: HoleCircles, advance_deg: float) -> list[Move]:
    step_deg = 720 / math.lcm(circles.cam_holes, circles.sprocket_holes)
    nearest = round(-advance_deg / step_deg)
    most = math.floor(circles.range_deg / step_deg)
    steps = max(-most, min(most, nearest))
    if steps == 0:
        return []
    return [
        Move(
            adjustment=circles.name,
            place=f"{abs(steps)} hole step{'s' if abs(steps) > 1 else ''} {_way(steps)}",
            order=f"{circles.name}: turn the cam {abs(steps * step_deg) / 2:.2f} cam degrees {_against(steps)} and use the holes that meet",
            advance_deg=steps * step_deg,
        )
    ]


def _slotted_moves(sprocket: SlottedSprocket, advance_deg: float) -> list[Move]:
    effect_deg = max(-sprocket.range_deg, min(sprocket.range_deg, -advance_deg))
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


def _tooth_moves(sprocket: SprocketTeeth) -> list[Move]:
    step_deg = (360 if sprocket.at == "crank" else 720) / sprocket.teeth
    counts = [count for count in range(-MOST_TEETH, MOST_TEETH + 1) if count]
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
