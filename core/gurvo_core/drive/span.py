"""A free span of belt as a string: its tension from the pitch it sounds at, and back. And a chain's elongation from a pull."""

__all__ = ["elongation_percent", "plausible_hz", "span_frequency_hz", "span_tension_n"]

import math

from gurvo_core.errors import GeometryError

TIGHTER = 2.5  # a belt that was put on by hand is within so many times the tension that is wanted, either way

SHORTER_PERCENT = -0.3  # a new chain within its making
M, KG = 1e-3, 1e-3  # of a millimetre and of a gram


def _given(**figures: float) -> None:
    for field, value in figures.items():
        if not value > 0:
            raise GeometryError(field, value, f"{field} is {value:g}, and it must be above 0")


def span_frequency_hz(tension_n: float, span_mm: float, mass_g_m: float) -> float:
    """Return the pitch at which a free span sounds.

    tension_n: tension of the belt [N].
    span_mm: free length between the wheels [mm].
    mass_g_m: mass of the belt for each metre [g/m].
    Returned: its first mode [Hz].
    Raises GeometryError if one of them is not above zero.
    Source: [string] f = sqrt(T / m) / 2L, any textbook on waves; a belt's own stiffness is left out.
    >>> round(span_frequency_hz(400.0, 200.0, 100.0), 1)
    158.1
    """
    _given(tension_n=tension_n, span_mm=span_mm, mass_g_m=mass_g_m)
    return math.sqrt(tension_n / (mass_g_m * KG)) / (2 * span_mm * M)


def span_tension_n(frequency_hz: float, span_mm: float, mass_g_m: float) -> float:
    """Return the tension of a span that sounds at a pitch.

    frequency_hz: its first mode [Hz].
    span_mm: free length between the wheels [mm].
    mass_g_m: mass of the belt for each metre [g/m].
    Returned: tension [N].
    Raises GeometryError if one of them is not above zero.
    Source: [string] solved for the tension.
    >>> round(span_tension_n(158.1139, 200.0, 100.0))
    400
    """
    _given(frequency_hz=frequency_hz, span_mm=span_mm, mass_g_m=mass_g_m)
    return mass_g_m * KG * (2 * span_mm * M * frequency_hz) ** 2


def elongation_percent(pulled_mm: float, links: int, pitch_mm: float) -> float:
    """Return how far a chain has worn longer.

    pulled_mm: length over so many links, pulled straight [mm].
    links: how many, pin to pin [-].
    pitch_mm: their pitch when new [mm].
    Returned: in per cent of what they measured new [%].
    Raises GeometryError if it is shorter than new by more than measuring explains, or a figure is not above zero.
    """
    _given(pulled_mm=pulled_mm, links=links, pitch_mm=pitch_mm)
    new_mm = links * pitch_mm
    percent = 100 * (pulled_mm / new_mm - 1)
    if percent < SHORTER_PERCENT:
        rule = f"{links} links of {pitch_mm:g} mm measure {new_mm:g} mm when new: count the links again, pin to pin"
        raise GeometryError("pulled_mm", pulled_mm, rule)
    return percent


def plausible_hz(tension_n: float, span_mm: float, mass_g_m: float) -> tuple[float, float]:
    """Return between which pitches a span can sound that was tensioned by hand.

    tension_n: what is wanted [N].
    span_mm: free length [mm].
    mass_g_m: of the belt [g/m].
    Returned: pitches [Hz], less than an octave apart from the one that is wanted.
    Raises GeometryError if a figure is not above zero.
    Source: [string]; how far off a hand may be is common practice, no source.
    >>> [round(hz) for hz in plausible_hz(400, 200, 100)]
    [100, 250]
    """
    return span_frequency_hz(tension_n / TIGHTER, span_mm, mass_g_m), span_frequency_hz(tension_n * TIGHTER, span_mm, mass_g_m)
