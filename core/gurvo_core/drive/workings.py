"""What can be said of one span of belt and of one chain, without an engine: each figure with how it was come to."""

__all__ = ["DriveAsked", "drive_workings"]

from collections.abc import Iterator

from pydantic import BaseModel, ConfigDict, Field

from gurvo_core.drive.span import elongation_percent, span_frequency_hz, span_tension_n
from gurvo_core.workings import LEAST, Line

STRING = "f = √(T/m) / 2L"
WAVES = "a string, any textbook on waves; the belt's own stiffness left out"


class DriveAsked(BaseModel):
    """One span and one chain, as somebody asks about them; what is left out is not worked out."""

    model_config = ConfigDict(extra="forbid", frozen=True, allow_inf_nan=False)

    span_mm: float | None = Field(default=None, ge=LEAST, le=5000)
    mass_g_m: float | None = Field(default=None, ge=LEAST, le=5000)
    tension_n: float | None = Field(default=None, ge=LEAST, le=50_000)
    frequency_hz: float | None = Field(default=None, ge=LEAST, le=2000)
    pulled_mm: float | None = Field(default=None, ge=LEAST, le=20_000)
    links: int | None = Field(default=None, ge=1, le=1000)
    pitch_mm: float | None = Field(default=None, ge=LEAST, le=200)
    limit_percent: float | None = Field(default=None, ge=LEAST, le=10)


def drive_workings(asked: DriveAsked) -> list[Line]:
    """Return what can be said of a span and a chain.

    asked: lengths [mm], mass [g/m], tension [N], pitch [Hz].
    Raises GeometryError if a chain is shorter than new.
    """
    return [*_span(asked), *_chain(asked)]


def _span(asked: DriveAsked) -> Iterator[Line]:
    if asked.span_mm is None or asked.mass_g_m is None:
        return
    if asked.tension_n is not None:
        pitch = span_frequency_hz(asked.tension_n, asked.span_mm, asked.mass_g_m)
        yield Line(name="It sounds at", value=f"{pitch:.1f} Hz", formula=STRING, source=WAVES)
    if asked.frequency_hz is not None:
        tension = span_tension_n(asked.frequency_hz, asked.span_mm, asked.mass_g_m)
        yield Line(name="Its tension", value=f"{tension:.0f} N", formula="T = m (2 L f)²", source=WAVES)


def _chain(asked: DriveAsked) -> Iterator[Line]:
    if asked.pulled_mm is None or asked.links is None or asked.pitch_mm is None:
        return
    percent = elongation_percent(asked.pulled_mm, asked.links, asked.pitch_mm)
    beyond = asked.limit_percent is not None and percent > asked.limit_percent
    limit = f", limit {asked.limit_percent:g} %" if asked.limit_percent is not None else ""
    new = f"{asked.links * asked.pitch_mm:g} mm"
    yield Line(name="Links when new", value=new, formula="links × pitch, pin to pin", source="definition")
    yield Line(
        name="The chain is longer by",
        value=f"{percent:.2f} %{limit}",
        formula="100 (pulled / new − 1)",
        source="definition; the limit is the maker's",
        look_again=beyond,
    )
