"""Gauges that most shops have, to begin with: what each is taken to be right to, until its own certificate is entered."""

__all__ = ["USUAL_GAUGES", "UsualGauge"]

from typing import NamedTuple

from gurvo_core.ledger.entry import GaugeKind


class UsualGauge(NamedTuple):
    """One of them; figures in mm, degrees or N·m, by its kind."""

    code: str
    kind: GaugeKind
    name: str
    resolution: float
    expanded_uncertainty: float
    least: float | None
    most: float | None


# source: what a new one is allowed by the standards for its kind (dials ISO 463, micrometers ISO 3611, calipers ISO 13385-1, wrenches
# ISO 6789-1: 4 % of the most it is set to), from memory, each taken wide; the others as is common practice, no source
USUAL_GAUGES = (
    UsualGauge("DIAL-1", "dial", "dial, 10 mm travel", 0.01, 0.02, 0.0, 10.0),
    UsualGauge("WHEEL-1", "wheel", "degree wheel", 0.5, 0.5, None, None),
    UsualGauge("MIC-25", "micrometer", "micrometer 25 to 50 mm", 0.01, 0.005, 25.0, 50.0),
    UsualGauge("MIC-50", "micrometer", "micrometer 50 to 75 mm", 0.01, 0.006, 50.0, 75.0),
    UsualGauge("MIC-75", "micrometer", "micrometer 75 to 100 mm", 0.01, 0.007, 75.0, 100.0),
    UsualGauge("BORE-1", "bore", "bore gauge 50 to 150 mm", 0.01, 0.012, 50.0, 150.0),
    UsualGauge("CAL-1", "caliper", "caliper 150 mm", 0.02, 0.05, 0.0, 150.0),
    UsualGauge("FEEL-1", "feeler", "feelers 0.05 to 1.00 mm", 0.05, 0.02, 0.05, 1.0),
    UsualGauge("STRIP-1", "strip", "plastic strip", 0.025, 0.025, 0.025, 0.25),
    UsualGauge("WRENCH-25", "wrench", "wrench 5 to 25 N·m", 0.1, 1.0, 5.0, 25.0),
    UsualGauge("WRENCH-100", "wrench", "wrench 20 to 100 N·m", 1.0, 4.0, 20.0, 100.0),
    UsualGauge("WRENCH-200", "wrench", "wrench 40 to 200 N·m", 1.0, 8.0, 40.0, 200.0),
    UsualGauge("ANGLE-1", "angle", "angle gauge", 1.0, 2.0, None, None),
)
