"""The base of every part of an engine document: frozen, no unknown keys, no NaN or infinity."""

__all__ = ["Name", "Part", "Word"]

from typing import Annotated

from pydantic import BaseModel, ConfigDict, StringConstraints

Word = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9][A-Za-z0-9._-]{0,39}$")]
Name = Annotated[str, StringConstraints(min_length=1, max_length=120, strip_whitespace=True)]


class Part(BaseModel):
    """One part of an engine document."""

    model_config = ConfigDict(extra="forbid", frozen=True, allow_inf_nan=False)
