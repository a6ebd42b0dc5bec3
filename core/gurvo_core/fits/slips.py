"""Figures that were hardly meant: a decimal point that slipped, inches typed as millimetres, a temperature ten times too high."""

__all__ = ["Slip", "size_slip", "temperature_slip"]

from dataclasses import dataclass

from gurvo_core.units import per_unit

CLOSE, FAR = 0.01, 0.1  # a size that is meant lies within the one of its nominal; one beyond the other cannot be that part
GAP_TIMES = 5.0  # so much larger than its limit a gap is doubted
COLDEST_C, WARMEST_C = -20.0, 60.0  # of a shop and what lies in it
TENS = (10.0, 0.1, 100.0, 0.01, 1000.0, 0.001)


@dataclass(frozen=True, kw_only=True)
class Slip:
    """Why a figure is doubted, and whether it cannot be at all."""

    sentence: str
    cannot_be: bool


def _meant(read_mm: float, is_near: "tuple[float, float]") -> str:
    low, high = is_near
    for times in TENS:
        if low <= read_mm * times <= high:
            return f"{read_mm * times:.6g}"
    from_inches = read_mm * per_unit("in")
    return f"{from_inches:.4f} (inches)" if low <= from_inches <= high else ""


def size_slip(read_mm: float, nominal_mm: float | None, limits_mm: tuple[float | None, float | None] = (None, None)) -> Slip | None:
    """Return why a size is hardly what was meant.

    read_mm: as it was typed [mm].
    nominal_mm: what the part is called [mm]; None for a gap, which is looked at by its limits.
    limits_mm: of a gap [mm].
    Source: Practice: decimal points slip by one place, and inches are typed where millimetres are asked.
    >>> size_slip(5.796, 58.0).sentence
    '5.796 mm is far from 58 mm: did you mean 57.96?'
    >>> size_slip(57.96, 58.0) is None
    True
    """
    if nominal_mm is not None:
        away = abs(read_mm - nominal_mm) / nominal_mm
        if away <= CLOSE:
            return None
        meant = _meant(read_mm, (nominal_mm * (1 - CLOSE), nominal_mm * (1 + CLOSE)))
        ask = f"did you mean {meant}?" if meant else "look at the scale once more"
        return Slip(sentence=f"{read_mm:g} mm is far from {nominal_mm:g} mm: {ask}", cannot_be=away > FAR)
    known = [abs(limit) for limit in limits_mm if limit]
    if not known or read_mm <= 0 or read_mm <= max(known) * GAP_TIMES:
        return None
    meant = _meant(read_mm, (min(known) / 2, max(known) * 2))
    ask = f"did you mean {meant}?" if meant else "look at the scale once more"
    return Slip(sentence=f"{read_mm:g} mm is far beyond {max(known):g} mm: {ask}", cannot_be=False)


def temperature_slip(temperature_c: float) -> str:
    """Return why a temperature cannot be that of a part in the shop. temperature_c: as it was typed [°C]."""
    if COLDEST_C <= temperature_c <= WARMEST_C:
        return ""
    tenth, celsius = temperature_c / 10, (temperature_c - 32) / 1.8
    meant = f"{tenth:g}" if 0 <= tenth <= WARMEST_C else ""
    if 60 < temperature_c <= 110 and 0 <= celsius <= 40:
        meant = f"{celsius:.1f} (it looks like °F)"
    ask = f"did you mean {meant}?" if meant else "say it in °C"
    return f"{temperature_c:g} °C is no temperature of a part in the shop: {ask}"
