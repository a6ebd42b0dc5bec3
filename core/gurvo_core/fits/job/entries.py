"""What is entered while fits are measured."""

__all__ = ["FitChosen", "FitDecided", "FitReading", "FitsReady"]

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from gurvo_core.engine.fit import SideKey
from gurvo_core.engine.part import Word
from gurvo_core.ledger.entry import Body, Reason, Text, Typed

Short = Annotated[str, StringConstraints(max_length=80, strip_whitespace=True)]


class FitsReady(Body):
    """With what a side of a fit is read, how warm it is, and that the part is as it must be."""

    kind: Literal["fits_ready"]
    step: Word
    fit: Word
    side: SideKey
    gauge: Word | None = None
    as_asked: bool = Field(default=False, description="The part is as the book has it while it is read")
    part_c: Text | None = Field(default=None, description="Temperature of the part, as typed [°C]; left out = not looked at")
    gauge_c: Text | None = Field(default=None, description="Of the gauge, where it differs [°C]")
    standard: Typed | None = Field(default=None, description="The ring or rod that a comparator was set by")
    standard_u: Typed | None = Field(default=None, description="Expanded uncertainty (k = 2) of that standard")
    read_at: Typed | None = Field(default=None, description="Of a backlash: the radius at which the dial stands")
    plunger_deg: Text | None = Field(
        default=None, description="Of a backlash: how far the plunger stands aslant to the tooth, as typed [°]"
    )
    called: Short | None = Field(default=None, description="What the side was called; completed when it is taken")


class FitReading(Body):
    """One reading at one spot; another of the same spot is a repeat."""

    kind: Literal["fit_reading"]
    step: Word
    fit: Word
    place: Short
    side: SideKey
    plane: Short = ""
    axis: Short = ""
    reading: Typed
    from_nominal: bool = Field(default=False, description="The difference from what the gauge was set to, else from nominal")
    gauge: Word | None = Field(default=None, description="Where it differs from what was said before the first reading")
    called: Short | None = Field(default=None, description="What the spot was called; completed when it is taken")


class FitChosen(Body):
    """Which size goes to which place."""

    kind: Literal["fit_chosen"]
    step: Word
    fit: Word
    sizes: dict[Short, Short] = Field(min_length=1, max_length=128, description="Size by place")
    lot: Short = ""
    called: Short | None = Field(default=None, description="What the fit was called; completed when it is taken")


class FitDecided(Body):
    """What is done about a place that is out or cannot be told, or that is read anew."""

    kind: Literal["fit_decided"]
    step: Word
    fit: Word
    place: Short
    decision: Literal["accepted", "read_again", "replaced"]
    reason: Reason = ""
    called: Short | None = Field(default=None, description="What the place was called; completed when it is taken")
