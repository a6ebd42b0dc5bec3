"""A degree wheel off centre, as a GUM library carries its error."""

import math

from uncertainties import ufloat

from gurvo_core.timing import GaugeUncertainty


class OffCentre:
    """Readings of one wheel: rounded each for itself, the curve in two unknown parts common to all."""

    def __init__(self, wheel: GaugeUncertainty):
        self.wheel, self.parts = wheel, [ufloat(0, wheel.calibration) for _ in range(2)]

    def at(self, wheel_deg, own=0.0):
        sine, cosine = (part * wave(math.radians(wheel_deg)) for part, wave in zip(self.parts, (math.sin, math.cos), strict=True))
        return ufloat(wheel_deg, math.hypot(self.wheel.resolution, own)) + sine + cosine
