"""The shape of a word of the trade."""

__all__ = ["Word"]

from pydantic import Field

from gurvo_core.ledger.topic import Told


class Word(Told):
    """A word of the trade."""

    word: str
    forms: list[str] = Field(default=[], description="How else it is written")
    means: str
