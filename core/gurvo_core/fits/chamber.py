"""Compression ratio, squish and the head gasket, from how far each piston stands above the deck. Lengths mm, volumes cm³.

A piston proud of the deck is positive here; a dome is a negative volume of the piston; a gasket has a hole of its own.
"""

__all__ = ["ChamberFigures", "GasketChoice", "chamber_figures", "choose_gasket"]

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from gurvo_core.engine import Chamber, HeadGasket
from gurvo_core.errors import GeometryError
from gurvo_core.uncertainty import Estimate

CM3 = 1e-3  # cm³ in one mm³


@dataclass(frozen=True, kw_only=True)
class ChamberFigures:
    """What one cylinder comes to."""

    ratio: float
    squish_mm: float
    clearance_cm3: float


@dataclass(frozen=True, kw_only=True)
class GasketChoice:
    """The gasket that is taken, and why."""

    gasket: str | None
    sentence: str


def chamber_figures(
    chamber: Chamber, gasket: HeadGasket, *, bore_mm: float, stroke_mm: float, proud_mm: float, skimmed_mm: float = 0.0
) -> ChamberFigures:
    """Return compression ratio and squish of a cylinder.

    chamber: volumes of head and piston [cm³].
    gasket: its thickness and hole [mm].
    bore_mm, stroke_mm: of the cylinder, the stroke as the piston travels: beside an offset pin that is more than twice the throw [mm].
    proud_mm: how far the piston's flat stands above the deck at TDC [mm]; below it is negative.
    skimmed_mm: what has been taken off the head [mm]; its chamber is taken to be as wide as the bore there.
    Returned: ratio [-], squish [mm] and the volume that is left [cm³].
    Raises GeometryError if nothing is left above the piston.
    (swept + clearance) / clearance.
    """
    area_mm2 = math.pi / 4 * bore_mm**2
    hole_mm2 = math.pi / 4 * (gasket.bore_mm or bore_mm) ** 2
    swept = area_mm2 * stroke_mm * CM3
    left = chamber.head_cm3 + chamber.piston_cm3 + (hole_mm2 * gasket.squeezed_mm - area_mm2 * (proud_mm + skimmed_mm)) * CM3
    if not left > 0:
        raise GeometryError("head_cm3", chamber.head_cm3, "nothing is left above the piston at TDC: check volumes and gasket")
    return ChamberFigures(ratio=(swept + left) / left, squish_mm=gasket.squeezed_mm - proud_mm, clearance_cm3=left)


def choose_gasket(gaskets: Sequence[HeadGasket], proud: Mapping[str, Estimate]) -> GasketChoice:
    """Return the thinnest gasket that keeps every piston's limit.

    proud: how far each piston stands above the deck, by its place [mm]; at least one.
    Source: Practice: one gasket for all, by the highest piston.
    >>> thin, thick = (HeadGasket(id=name, squeezed_mm=mm, most_proud_mm=proud) for name, mm, proud in (("1", 1.2, 0.5), ("2", 1.3, 0.6)))
    >>> choose_gasket([thick, thin], {"cylinder 3": Estimate(value=0.53, u=0.01)}).sentence
    'gasket 2: cylinder 3 stands 0.53 mm proud, the thinner ones are for less'
    """
    place, stands = max(proud.items(), key=lambda one: one[1].value)
    highest = stands.value
    ordered = sorted(gaskets, key=lambda one: one.squeezed_mm)
    fitting = [one for one in ordered if one.most_proud_mm is None or highest <= one.most_proud_mm]
    said = f"{place} stands {highest:.2f} mm proud"
    if not fitting:
        return GasketChoice(gasket=None, sentence=f"{said}: more than any gasket is for; look at pistons, rods and deck")
    chosen = fitting[0]
    why = "the thinnest there is will do" if chosen is ordered[0] else "the thinner ones are for less"
    limit = chosen.most_proud_mm
    if limit is not None and max(one.value + one.expanded for one in proud.values()) > limit:
        thicker = ordered[ordered.index(chosen) + 1 :]
        safe = f"gasket {thicker[0].id} is on the safe side" if thicker else "measure again, more finely"
        why = f"{why}; that is nearer to the {limit:g} mm it is for than can be told: {safe}"
    return GasketChoice(gasket=chosen.id, sentence=f"gasket {chosen.id}: {said}, {why}")
