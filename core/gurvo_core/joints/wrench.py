"""The wrench: what it is set to with an extension, whether it is good enough, and which unit was meant."""

__all__ = ["MeantUnit", "Quoted", "Wrench", "disagreement", "may_be_rounded", "setting_nm", "unit_meant", "wrench_doubts"]

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from gurvo_core.errors import FigureError
from gurvo_core.units import Unit, per_unit

AGREE = 0.02  # figures quoted in two units that differ by more are two figures
LOW_PART = 0.2  # of its range, from the top of the scale: below it a wrench is not trusted
DUE_PULLS = 5000
WITHIN = 0.06  # how near a figure in another unit comes before it is asked about
TORQUES: tuple[Unit, ...] = ("N·m", "lbf·ft", "lbf·in")


@dataclass(frozen=True)
class Quoted:
    """One figure as a book quotes it."""

    value: float
    unit: Unit


@dataclass(frozen=True, kw_only=True)
class Wrench:
    """What is known of a torque wrench: its range and smallest step [N·m], its calibration, its pulls since."""

    name: str
    least_nm: float | None
    most_nm: float | None
    resolution_nm: float
    pulls: int = 0


@dataclass(frozen=True)
class MeantUnit:
    """The unit in which a typed figure would be what was asked for."""

    unit: Unit
    asked_nm: float


def setting_nm(torque_nm: float, *, lever_mm: float, extension_mm: float, at_deg: float = 0.0) -> float:
    """Return what a wrench is set to with an extension or crow-foot.

    torque_nm: wanted at the bolt [N·m].
    lever_mm: from the hand to the drive square [mm].
    extension_mm: from the drive square to the bolt [mm].
    at_deg: 0 straight out from the lever, 90 square to it, 180 back along it [deg].
    Returned: on the wrench's scale [N·m].
    Raises FigureError if the lever is not above 0, or the extension reaches back to the hand.
    Source: Lever arms: the force at the hand times its distance from the bolt, along the wrench.
    >>> setting_nm(60, lever_mm=400, extension_mm=100), setting_nm(60, lever_mm=400, extension_mm=100, at_deg=90)
    (48.0, 60.0)
    """
    reach_mm = lever_mm + extension_mm * (0.0 if abs(at_deg) == 90 else math.cos(math.radians(at_deg)))
    if not lever_mm > 0 or not reach_mm > 0:
        raise FigureError("lever_mm", lever_mm, "the lever is above 0 mm, and an extension does not reach back to the hand")
    return torque_nm * lever_mm / reach_mm


def disagreement(quoted: Sequence[Quoted]) -> float:
    """Return by how much figures that should be one differ. Returned: largest over smallest, less one [-]."""
    inside = [one.value * per_unit(one.unit) for one in quoted]
    return max(inside) / min(inside) - 1 if inside and min(inside) > 0 else 0.0


def may_be_rounded(quoted: Sequence[Quoted]) -> bool:
    """Return whether figures may be one that was rounded in each unit.

    Half a step of its last figure either way; factors by ``units.per_unit``.
    """
    halves = [0.5 * 10.0 ** -len(f"{one.value:.6f}".rstrip("0").partition(".")[2]) for one in quoted]
    lows = [(one.value - half) * per_unit(one.unit) for one, half in zip(quoted, halves, strict=True)]
    highs = [(one.value + half) * per_unit(one.unit) for one, half in zip(quoted, halves, strict=True)]
    return max(lows) <= min(highs)


def unit_meant(value: float, unit: Unit, asked_nm: float) -> MeantUnit | None:
    """Return the unit that was probably meant.

    value: the figure as typed, in ``unit`` [-].
    asked_nm: what was asked for [N·m].
    Source: Practice: 12 times between lbf·ft and lbf·in, 1.36 times between lbf·ft and N·m.
    >>> unit_meant(48, "N·m", 65).unit
    'lbf·ft'
    """

    def near(other: Unit) -> bool:
        return abs(value * per_unit(other) / asked_nm - 1) <= WITHIN

    if not asked_nm > 0 or near(unit):
        return None
    found = next((other for other in TORQUES if other != unit and near(other)), None)
    return MeantUnit(found, asked_nm) if found else None


def wrench_doubts(wrench: Wrench, set_nm: float, *, window_nm: float | None = None) -> Iterator[tuple[str, bool]]:
    """Yield why a wrench is not to be trusted for a figure.

    set_nm: what it is set to [N·m].
    window_nm: width of the window that it must tell apart [N·m].
    Source: [torque-wrench] in docs/sources.md: within its marked range; due after 5000 pulls. Lowest fifth: practice.
    >>> wrench = Wrench(name="T1", least_nm=20, most_nm=100, resolution_nm=0.5)
    >>> [sentence for sentence, cannot in wrench_doubts(wrench, 130)]
    ['T1 ends at 100 N·m and this is 130: take a larger wrench']
    """
    if wrench.most_nm is not None and set_nm > wrench.most_nm:
        yield f"{wrench.name} ends at {wrench.most_nm:g} N·m and this is {set_nm:.4g}: take a larger wrench", True
    if wrench.least_nm is not None and set_nm < wrench.least_nm:
        yield f"{wrench.name} begins at {wrench.least_nm:g} N·m and this is {set_nm:.4g}: take a smaller wrench", True
    elif wrench.most_nm is not None and set_nm < LOW_PART * wrench.most_nm:
        yield f"{set_nm:.4g} N·m is in the lowest fifth of {wrench.name}, where it is not to be trusted: take a smaller wrench", False
    if wrench.pulls >= DUE_PULLS:
        yield f"{wrench.name} has {wrench.pulls} pulls since its calibration and is due at {DUE_PULLS}: take another, or say why not", False
    if window_nm is not None and wrench.resolution_nm * 4 > window_nm:
        yield f"{wrench.name} reads to {wrench.resolution_nm:g} N·m, too coarse for a window of {window_nm:.3g}: take a finer one", False
