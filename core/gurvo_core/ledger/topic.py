"""The shape of a topic of the help: five lines and a drawing."""

__all__ = ["Drawing", "Told", "Topic"]

from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

Drawing = Literal[
    "look", "place", "wheel", "stop", "dial", "lobe", "belt", "tensioner", "park", "marks", "order", "angle", "bore", "gap", "shim", "turn",
    "cover", "oil", "ways", "sign",
]  # fmt: skip


class Told(BaseModel):
    """Base of what the help tells."""

    model_config = ConfigDict(extra="forbid", frozen=True)


class Topic(Told):
    """What one question is about."""

    id: str = Field(description="The kind of question, or step_done and what the step does")
    title: str
    drawing: Drawing
    meant: str = Field(description="What is asked, and what for")
    by_hand: list[str] = Field(description="How it is done")
    goes_wrong: list[str] = Field(description="What is easily got wrong, and how it shows")
    caution: str = Field(default="", description="Where somebody can be hurt or an engine broken")
