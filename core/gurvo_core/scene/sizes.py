"""The measures of a picture: those that the document knows, and those in the proportions that engines usually have."""

__all__ = ["Cylinder", "Sizes", "sizes_of"]

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from gurvo_core.engine import EngineDocument
from gurvo_core.motion.crank import SliderCrank, drop_mm
from gurvo_core.motion.frames import slider_of, timed_cylinders

USUAL_BORE_MM = 80.0
ROD_TO_STROKE = 1.75  # source: common practice, 1.5 to 2.2
PITCH_TO_BORE = 1.25  # from one cylinder to the next; source: common practice, 1.15 to 1.35
HALF_TURN_DEG = 180.0
FULL_TURN_DEG = 360.0


@dataclass(frozen=True, kw_only=True)
class Cylinder:
    """One cylinder: where along the crank, in which bank, how far its piston is down and where its pin stands to the bore's axis."""

    number: int
    bank: int
    x_mm: float
    drop_mm: float
    pin_deg: float | None  # None: not known


@dataclass(frozen=True, kw_only=True)
class Sizes:
    """What a picture is drawn by [mm]."""

    bore: float
    stroke: float
    rod: float
    pitch: float
    cylinders: Sequence[Cylinder]
    mains: Sequence[float]  # where along the crank
    length: float
    shares_pins: bool  # whether two rods sit on one pin
    sketched: Sequence[str] = field(default=())

    @property
    def top(self) -> float:
        """From the crank's axis to the top of the bores: half a stroke, the rod, and the piston above its pin."""
        return self.stroke / 2 + self.rod + 0.45 * self.bore


def sizes_of(document: EngineDocument, crank_deg: float) -> Sizes:
    """Return the measures of an engine with its crank at an angle [deg]."""
    train = document.banks[0].cranktrain
    bore = train.bore_mm or train.stroke_mm or USUAL_BORE_MM
    stroke = train.stroke_mm or bore
    rod = train.rod_mm or ROD_TO_STROKE * stroke
    sketched = [name for name, value in (("bore", train.bore_mm), ("stroke", train.stroke_mm), ("rod", train.rod_mm)) if value is None]
    pitch = PITCH_TO_BORE * bore
    along = _along(document)
    rows = max(along.values()) + 1
    pins = _pins(document, crank_deg)
    if any(pin is None for pin in pins.values()):
        sketched.append("where the pins stand")
    cylinders = [
        Cylinder(
            number=number,
            bank=next((n for n, bank in enumerate(document.banks) if number in bank.cylinders), 0),
            x_mm=pitch * (along[number] + 0.5),
            drop_mm=_drop_mm(document, number, pins[number], (stroke, rod)),
            pin_deg=pins[number],
        )
        for number in along
    ]
    count = _mains_count(document, rows)
    if count is None:
        sketched.append("how many main bearings")
    mains = count or rows + 1
    places = [pitch * rows * n / max(1, mains - 1) for n in range(mains)]
    return Sizes(
        bore=bore,
        stroke=stroke,
        rod=rod,
        pitch=pitch,
        cylinders=cylinders,
        mains=places,
        length=pitch * rows,
        shares_pins=rows < len(along),
        sketched=(*sketched, "lengths along the engine"),
    )


def _along(document: EngineDocument) -> Mapping[int, int]:
    """Which pin of the crank, from the front, each cylinder's rod sits on: by the throws; else the banks of a V share them, and those of a
    flat engine take turns.
    """
    throws = {one.cylinder: one.throw for one in document.throws}
    if throws and all(number in throws for number in document.cylinders):
        order = sorted(set(throws.values()))
        return {number: order.index(throws[number]) for number in document.cylinders}
    banks = [bank.cylinders for bank in document.banks if bank.cylinders] or [document.cylinders]
    axes = [bank.axis_deg for bank in document.banks]
    is_flat = len(banks) == 2 and None not in axes and abs(float(axes[0] or 0) - float(axes[1] or 0)) == HALF_TURN_DEG
    if is_flat:
        return {number: 2 * n + side for side, bank in enumerate(banks) for n, number in enumerate(bank)}
    return {number: n for bank in banks for n, number in enumerate(bank)}


def _pins(document: EngineDocument, crank_deg: float) -> dict[int, float | None]:
    """Where each cylinder's pin stands after its top dead centre [deg]: by the firing order, else not known."""
    timed = timed_cylinders(document)
    return {number: (crank_deg - document.firing_deg[number]) % FULL_TURN_DEG if number in timed else None for number in document.cylinders}


def _drop_mm(document: EngineDocument, number: int, pin_deg: float | None, usual: tuple[float, float]) -> float:
    """How far a piston is down [mm]: by its crank train; by the usual proportions where that is not known; half-way where nothing is."""
    slider = slider_of(document, number)
    stroke, rod = usual
    if pin_deg is None:
        return stroke / 2
    return float(drop_mm(pin_deg, slider or SliderCrank(throw_mm=stroke / 2, rod_mm=rod)))


def _mains_count(document: EngineDocument, rows: int) -> int | None:
    """How many main bearings: as a fit says, else two screws to a cap; None where neither says."""
    by_fit = next((fit.count for fit in document.fits if fit.at == "mains" and fit.count), None)
    if by_fit:
        return by_fit
    screws = next((joint.fasteners or len(joint.bolts) for joint in document.joints if joint.id in ("mains", "main")), None)
    fits_two = [count for count in (screws // 2, screws // 4) if 2 <= count <= rows + 1] if screws else []
    return fits_two[0] if fits_two else None
