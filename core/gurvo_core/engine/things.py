"""Things that are on for a while, parts that go on the bench, and variants that are told apart before anything is fitted."""

__all__ = ["KitPart", "Origin", "Sides", "Thing", "VariantGroup", "VariantOption"]

from typing import Annotated, Literal

from pydantic import ConfigDict, Field, StringConstraints

from gurvo_core.engine.part import Name, NoneIsEmpty, Part, Sentence, Word


class Thing(Part):
    """Something put on for a while: as long as it is on it is a loose end."""

    id: Word
    name: Name
    kind: Literal["lock", "pin", "plate", "tie", "wedge", "clamp", "wire", "dummy_tensioner", "piston_stop", "holder", "cover"]
    count: int = Field(default=1, ge=1, le=40, description="How many the shop has")
    places: tuple[Name, ...] = Field(default=(), max_length=16, description="Where it can be; one thing with two places is moved over")
    holds: tuple[Word, ...] = Field(
        default=(), max_length=16, description="Ids of the shafts that it holds, place by place where it has as many"
    )
    position: Word | None = Field(default=None, description="Id of the timing position at which it goes in")
    counter_hold: bool = Field(default=False, description="Whether it may be pulled against: a lock for timing may not")
    at: Literal["front", "rear", "top"] | None = Field(default=None, description="Which end of the engine it goes on")
    stands_in_for: Annotated[str, StringConstraints(max_length=120)] | tuple[Name, ...] = Field(
        default="", max_length=120, description="The part that takes its place later; place by place where it has several"
    )
    fits_again: Literal["every_turn", "every_two"] | None = Field(
        default=None, description="After how many turns of the crank it must go in again; asked when turning over"
    )
    stops_turning: bool
    made_of: str = Field(default="", max_length=200, description="What shops use in its stead")

    def stands_in(self, place: str | None) -> str:
        """The part that takes its place later, where it is; of all its places where none is meant; empty where it is no stand-in."""
        if isinstance(self.stands_in_for, str):
            return self.stands_in_for
        parts = dict(zip(self.places, self.stands_in_for, strict=False))
        return parts.get(place, "") if place else ", ".join(self.stands_in_for)


GapDeg = Annotated[float, Field(ge=0, lt=360, description="Clockwise from the engine's front, seen from above [deg]")]


class KitPart(Part):
    """A part that lies on the bench before it is fitted: new, or kept by its place to go back there."""

    id: Word
    name: Name
    count: int = Field(default=1, ge=1, le=500)
    one_time: bool = Field(default=False, description="Never used again: new every time")
    returns: bool = Field(default=False, description="Each goes back to the place it came from")
    places: tuple[Name, ...] = Field(default=(), max_length=64, description="Its places, by number and letter")
    lubricant: str = Field(default="", max_length=120)
    way_round: str = Field(default="", max_length=200, description="Which way round it goes in")
    told_by: str = Field(default="", max_length=200, description="How that is seen on it")
    gaps_deg: Annotated[tuple[GapDeg, ...], NoneIsEmpty] = Field(
        default=(), max_length=8, description="Of piston rings: where each one's gap stands, the top ring's first; null = not known"
    )
    only_in: Word | None = Field(default=None, description="Id of the option it belongs to")


class VariantOption(Part):
    """One of the ways in which engines of a family differ."""

    id: Word
    name: Name
    told_by: Sentence = Field(description="Something one can see")


class VariantGroup(Part):
    """A question with a few answers, chosen when the engine is received."""

    id: Word
    name: Name
    options: tuple[VariantOption, ...] = Field(min_length=2, max_length=8)


class Sides(Part):
    """What right and left mean in this engine's book."""

    right_bank: Word | None = Field(default=None, description="Id of the bank that the book calls right")
    intake: str = Field(default="", max_length=120, description="On which side the intake is, such as inside the V")
    seen_from: Literal["front", "flywheel", "driver"] = "front"


class Origin(Part):
    """Where what stands below a JSON Pointer is from."""

    model_config = ConfigDict(populate_by_name=True, serialize_by_alias=True)

    is_: Literal["book", "measured", "generic", "guess"] = Field(alias="is")
    note: str = Field(default="", max_length=200)
