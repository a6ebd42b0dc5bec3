"""The shapes of what is asked of a step beside that it is done."""

__all__ = ["AskedField", "FieldOption"]

from typing import Literal

from pydantic import Field

from gurvo_core.ledger import View


class FieldOption(View):
    """One answer to choose from."""

    value: str
    label: str
    detail: str = ""


class AskedField(View):
    """One thing asked of a step."""

    key: str
    label: str
    kind: Literal["choice", "figure", "words"]
    options: list[FieldOption] = []
    unit: str = ""
    hint: str = ""
    needed: bool = True
    most: float | None = Field(default=None, description="Most that can be typed: of a stroke that has an end")
