"""Who the engine is: family name, variants, what it burns."""

__all__ = ["Identity", "VariantNote"]

from typing import Literal

from pydantic import Field

from gurvo_core.engine.part import Name, Part, Sentence, Word


class VariantNote(Part):
    """How to tell one variant from its siblings before anything is fitted."""

    name: Name
    told_by: Sentence


class Identity(Part):
    """Identity of the family that a document describes."""

    family: Word = Field(description="Short code, the same in every revision, such as quern-4")
    name: Name = Field(description="What the shop calls it")
    layout: Name = Field(description="In words, such as inline 4, pushrods, single chain")
    fuel: Literal["petrol", "diesel", "gas"]
    variant: str = Field(default="", max_length=200, description="Which variant this document describes")
    variants: tuple[VariantNote, ...] = Field(default=(), max_length=32)
