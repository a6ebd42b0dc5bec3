"""The base of every part of an engine document: frozen, no unknown keys, no NaN or infinity."""

__all__ = ["ClockDeg", "CylinderNumber", "Name", "NoneIsEmpty", "Part", "Sentence", "Word"]

from typing import Annotated

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, StringConstraints

Word = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9][A-Za-z0-9._-]{0,39}$")]
Name = Annotated[str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True)]
Sentence = Annotated[str, StringConstraints(min_length=1, max_length=400, strip_whitespace=True)]
CylinderNumber = Annotated[int, Field(ge=1, le=99)]
ClockDeg = Annotated[float, Field(ge=0, lt=360, description="Clockwise from straight up (12 o'clock), seen from the front [deg]")]
NoneIsEmpty = BeforeValidator(lambda listed: () if listed is None else listed)  # a list that nobody knows is as one that is left out


class Part(BaseModel):
    """One part of an engine document."""

    model_config = ConfigDict(extra="forbid", frozen=True, allow_inf_nan=False)
