"""The shape of a topic: five lines and a drawing."""

__all__ = ["Drawing", "Topic", "Word"]

from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

Drawing = Literal[
    "look", "place", "wheel", "stop", "dial", "lobe", "belt", "tensioner", "park", "marks", "order", "angle", "bore", "gap", "shim", "turn",
    "cover", "oil", "ways", "sign",
]  # fmt: skip


class _Told(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


class Topic(_Told):
    """What one question is about."""

    id: str = Field(description="The kind of question, or step_done and what the step does")
    title: str
    drawing: Drawing
    meant: str = Field(description="What is asked, and what for")
    by_hand: list[str] = Field(description="How it is done")
    goes_wrong: list[str] = Field(description="What is easily got wrong, and how it shows")
    caution: str = Field(default="", description="Where somebody can be hurt or an engine broken")


class Word(_Told):
    """A word of the trade."""

    word: str
    forms: list[str] = Field(default=[], description="How else it is written")
    means: str
