"""What is left between valves and pistons at the timing a camshaft is found at, the others on their cards."""

__all__ = ["AtTiming", "at_timing", "phased_words", "words_at_timing"]

from dataclasses import dataclass

from gurvo_core.clearway.ground import Ground
from gurvo_core.clearway.least import Gap
from gurvo_core.clearway.spare import MOST_DEG, STEP_DEG, Curve, curve_of, until
from gurvo_core.engine import EngineDocument
from gurvo_core.engine.same import kept_for
from gurvo_core.sentence import length

OTHER_STOP = "; where its phaser's other stop lies is not known"


@dataclass(frozen=True, kw_only=True)
class AtTiming:
    """The gap with least to spare at an advance, and how far the camshaft may go from there [crank deg]; None: as far as anybody goes."""

    least: Gap
    advance_deg: float | None
    retard_deg: float | None
    other_stop: str = ""  # of a phaser of which nobody knows where that is


@kept_for
def _curve(document: EngineDocument, camshaft: str) -> Curve | None:
    ground = Ground(document=document, measured={})
    return curve_of(ground, camshaft, 0.0, {}) if camshaft in ground.camshafts else None


def at_timing(document: EngineDocument, camshaft: str, advance_deg: float) -> AtTiming | None:
    """Return what is left of a camshaft's gaps; None where too little is known, or it is further off than anybody moves it.

    advance_deg: against its card, positive = advanced [crank deg].
    """
    curve = _curve(document, camshaft)
    if curve is None or abs(advance_deg) > MOST_DEG:
        return None
    at = round((advance_deg + MOST_DEG) / STEP_DEG)
    cam = document.camshaft(camshaft)
    unknown = cam is not None and cam.phaser is not None and cam.phaser.other_stop_deg is None
    return AtTiming(
        least=curve.least(at),
        advance_deg=until(curve.spare_mm[at:]),
        retard_deg=until(curve.spare_mm[at::-1]),
        other_stop=OTHER_STOP if unknown else "",
    )


def words_at_timing(left: AtTiming | None) -> str:
    """Return that as it stands beside a verdict."""
    if left is None:
        return ""
    gap = left.least
    ways = [f"{deg:.0f}° {way}" for deg, way in ((left.advance_deg, "earlier"), (left.retard_deg, "later")) if deg is not None]
    more = f"; it may still go {' or '.join(ways)}" if ways and gap.spare_mm >= 0 else ""
    near = "" if gap.spare_mm >= 0 else f", less than the {length(gap.least_mm)} that is wanted"
    phased = phased_words(gap)
    said = f"{gap.words}, {length(round(gap.gap.value, 2))} ± {length(round(gap.gap.expanded, 2))}{phased}{near}{more}"
    return f"{said}, as the document describes it{left.other_stop}"


def phased_words(gap: Gap) -> str:
    """Return that a gap is that with a phaser off its rest; empty where it is not."""
    if not gap.phased_deg:
        return ""
    return f", its phaser {abs(gap.phased_deg):.0f}° {'advanced' if gap.phased_deg > 0 else 'retarded'}"
