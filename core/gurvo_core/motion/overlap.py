"""What stands high and what springs press on at a place of the crank: by the lobes where they are known, else by the firing order alone.

It tells why an engine is parked where it is, and which valves want to turn their cam there. It says of no place that it is safe.
"""

__all__ = ["AtPlace", "at_counted", "at_crank", "at_position", "words_of_place"]

from collections.abc import Iterator
from dataclasses import dataclass

from gurvo_core.engine import EngineDocument, Valve
from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.engine.position import TimingPosition
from gurvo_core.motion.crank import SliderCrank, drop_mm
from gurvo_core.motion.frames import frames_at, slider_of
from gurvo_core.sentence import listed

# source: common practice; crank degrees after firing TDC between which a valve is off its seat: lobes differ by some 20 degrees
USUAL: dict[Valve, tuple[float, float]] = {"exhaust": (130.0, 380.0), "intake": (340.0, 590.0)}
USUAL_ROD = 3.5  # throws; source: common practice, 3 to 4.4
# of the stroke; source: common practice: a valve lifts by an eighth of the stroke or less
NEAR_TOP = 0.15
OFF_ITS_SEAT_MM = 0.1


@dataclass(frozen=True, kw_only=True)
class AtPlace:
    """Which pistons are near the top; with the stroke known, which cylinders are on overlap, and whose valves are pressed open."""

    near_top: tuple[int, ...]
    least_down: float  # of its stroke: how far the highest piston is down
    overlap: tuple[int, ...]
    pressed: tuple[tuple[Valve, int], ...]
    by_lobes: bool


def at_position(document: EngineDocument, position: TimingPosition) -> AtPlace | None:
    """Return how it is at a timing position; without its stroke the pistons alone. None where angle or firing order are not known."""
    return _turned_from(document, position, 0.0)


def at_counted(document: EngineDocument, crank_deg: float) -> AtPlace | None:
    """Return how it is at a crank angle as the document counts it [deg]: from a firing TDC, else from its first timing position."""
    return at_crank(document, crank_deg) if document.is_timed else _turned_from(document, document.timing_positions[0], crank_deg)


def _turned_from(document: EngineDocument, position: TimingPosition, by_deg: float) -> AtPlace | None:
    cylinder = position.cylinder or document.reference_cylinder
    if position.offset_deg is None or not document.firing_order or cylinder not in document.firing_deg:
        return None
    from_tdc = position.offset_deg + (CYCLE_DEG / 2 if position.stroke == "overlap" else 0.0)
    return at_crank(document, document.firing_deg[cylinder] + from_tdc + by_deg, is_stroke_known=position.stroke is not None)


def at_crank(document: EngineDocument, crank_deg: float, *, is_stroke_known: bool = True) -> AtPlace | None:
    """Return how it is at a crank angle after the first cylinder's firing TDC [deg]; None while the firing order is not known.

    Without the stroke the angle is known but for a whole turn: the same pistons are up, and nobody can say which valves are open.
    """
    if not document.firing_order:
        return None
    after = {number: (crank_deg - at) % CYCLE_DEG for number, at in document.firing_deg.items()}
    down = {number: _down(document, number, deg) for number, deg in after.items()}
    lobes = _by_lobes(document, crank_deg) if is_stroke_known else None
    pressed = _by_order(after) if lobes is None and is_stroke_known else lobes or ()
    both = [number for number in after if {("intake", number), ("exhaust", number)} <= set(pressed)]
    return AtPlace(
        near_top=tuple(sorted(number for number, share in down.items() if share < NEAR_TOP)),
        least_down=min(down.values()),
        overlap=tuple(sorted(both)),
        pressed=tuple(one for one in pressed if one[1] not in both),
        by_lobes=lobes is not None,
    )


def _down(document: EngineDocument, number: int, after_deg: float) -> float:
    """How far a piston is down, of its stroke; with the usual rod where its own is not known."""
    slider = slider_of(document, number) or SliderCrank(throw_mm=1.0, rod_mm=USUAL_ROD)
    return float(drop_mm(after_deg, slider)) / (2 * slider.throw_mm)


def _by_order(after: dict[int, float]) -> tuple[tuple[Valve, int], ...]:
    return tuple((valve, number) for valve, (opens, shuts) in USUAL.items() for number, deg in sorted(after.items()) if opens < deg < shuts)


def _by_lobes(document: EngineDocument, crank_deg: float) -> tuple[tuple[Valve, int], ...] | None:
    """The valves that are off their seats; None where not every lobe is known."""
    frames = frames_at(document, [crank_deg % CYCLE_DEG], {})
    if not document.is_timed or len(frames.valves) < sum(max(1, len(cam.lobes)) for cam in document.camshafts):
        return None
    cams = {cam.id: cam for cam in document.camshafts}
    lobes = [cams[name].lobes[place] for name, place in frames.valves]
    lifted = [lobe for lobe, lift in zip(lobes, frames.lift_mm[:, 0], strict=True) if lift > OFF_ITS_SEAT_MM]
    return tuple(sorted({(lobe.valve, lobe.cylinder) for lobe in lifted}))


def words_of_place(here: AtPlace | None) -> list[str]:
    """Return that in a few sentences for whoever stands there with a wrench; nothing where nothing is known."""
    return list(_said(here)) if here else []


def _said(here: AtPlace) -> Iterator[str]:
    if here.near_top:
        them = "it" if len(here.near_top) == 1 else "one of them"
        yield f"Near the top: {_numbered('piston', here.near_top)}. A cam that is turned by itself may put a valve on {them}."
    else:
        share = f"{100 * here.least_down:.0f} %"
        yield f"No piston is near the top: each is at least {share} of its stroke down. Turn a cam by itself with feeling all the same."
    if here.overlap:
        are, their = ("is", "its") if len(here.overlap) == 1 else ("are", "their")
        yield f"With the drive laid, {_numbered('cylinder', here.overlap)} {are} on overlap: both {their} valves are off their seats."
    if here.pressed:
        names = [f"{valve} of {listed([str(n) for sort, n in here.pressed if sort == valve])}" for valve in _sorts(here)]
        by = "" if here.by_lobes else " By the firing order alone: lobes may open some degrees earlier or later."
        yield f"With the drive laid, springs press on {' and '.join(names)}: what is let go there wants to turn.{by}"


def _sorts(here: AtPlace) -> list[Valve]:
    return sorted({valve for valve, _ in here.pressed})


def _numbered(what: str, numbers: tuple[int, ...]) -> str:
    return f"{what}{'' if len(numbers) == 1 else 's'} {listed([str(n) for n in numbers])}"
