"""The gauges that are at hand while an engine is walked through, and which of them suits a figure."""

__all__ = ["ROBOT_SHELF", "Shelf"]

from dataclasses import dataclass
from itertools import pairwise

from gurvo_core.ledger import Gauge


@dataclass(frozen=True, kw_only=True)
class Shelf:
    """Gauges by what they are for; of wrenches, micrometers and bore gauges each with how far it is taken, the smallest first."""

    wheel: str
    dial: str
    feeler: str
    wrenches: tuple[tuple[str, float], ...]  # up to which torque [N·m]
    micrometers: tuple[tuple[str, float], ...]  # up to which size [mm]
    bores: tuple[tuple[str, float], ...]
    gauges: tuple[Gauge, ...] = ()

    def wrench(self, most_nm: float) -> str | None:
        """The smallest wrench that pulls so much; None where none does."""
        return next((code for code, up_to in self.wrenches if most_nm <= up_to), None)

    def sized(self, side: str, nominal_mm: float) -> str | None:
        """The gauge for a bore or a journal of a size; None where none reaches."""
        row = self.bores if side == "outer" else self.micrometers
        return next((code for code, up_to in row if nominal_mm <= up_to), None)


def _robot_shelf() -> Shelf:
    """Gauges for any engine: each range overlaps the next, fine enough that no gauge is what a verdict waits for."""
    torques, sizes = (2.0, 12.0, 60.0, 300.0, 1500.0, 6000.0), (0.0, 25.0, 50.0, 75.0, 100.0, 150.0, 250.0, 500.0, 1000.0, 5000.0)
    wrenches = [
        Gauge(id=f"T{n}", name="wrench", kind="wrench", resolution=low / 100, expanded_uncertainty=low / 50, least=low / 2, most=high)
        for n, (low, high) in enumerate(pairwise(torques), 1)
    ]
    lengths = [
        Gauge(id=f"{letter}{n}", name=kind, kind=kind, resolution=0.0005, expanded_uncertainty=0.0005, least=low, most=high)
        for letter, kind in (("M", "micrometer"), ("B", "bore"))
        for n, (low, high) in enumerate(pairwise(sizes), 1)
    ]
    others = [
        Gauge(id="W", name="wheel", kind="wheel", resolution=0.1, expanded_uncertainty=0.05),
        Gauge(id="D", name="dial", kind="dial", resolution=0.001, expanded_uncertainty=0.001, least=0, most=50),
        Gauge(id="F", name="feeler", kind="feeler", resolution=0.01, expanded_uncertainty=0.002, least=0.03, most=5),
    ]
    return Shelf(
        wheel="W",
        dial="D",
        feeler="F",
        wrenches=tuple((one.id, one.most or 0.0) for one in wrenches),
        micrometers=tuple((one.id, one.most or 0.0) for one in lengths if one.kind == "micrometer"),
        bores=tuple((one.id, one.most or 0.0) for one in lengths if one.kind == "bore"),
        gauges=(*wrenches, *lengths, *others),
    )


ROBOT_SHELF = _robot_shelf()
