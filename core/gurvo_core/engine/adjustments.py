"""What can be moved to correct a cam's timing. Effects are crank degrees, positive = cam advanced."""

__all__ = ["Adjustment", "HoleCircles", "KeySlots", "OffsetBushes", "SlottedSprocket", "SprocketTeeth"]

from typing import Annotated, Literal

from pydantic import Field

from gurvo_core.engine.part import Name, Part, Word


class Movable(Part):
    """What every adjustment says of itself."""

    name: Name
    camshafts: tuple[Word, ...] = Field(default=(), max_length=8, description="The camshafts that it moves; left out when all of them")


class KeySlot(Part):
    """One key slot of a crank sprocket and what it does against the straight-up slot."""

    name: Word
    advance_deg: float = Field(ge=-30, le=30, description="Crank degrees, positive = cam advanced")


class KeySlots(Movable):
    """A crank sprocket with several key slots."""

    kind: Literal["key_slots"]
    slots: tuple[KeySlot, ...] = Field(min_length=2, max_length=24)
    fitted: Word = Field(description="Slot used when the engine is built to the book")


class Bush(Part):
    """One offset bush, dowel or key."""

    name: Word
    cam_deg: float = Field(ge=-15, le=15, description="Cam degrees, positive = cam advanced")


class OffsetBushes(Movable):
    """Offset bushes or dowels between a cam and its sprocket; the plain bush is always there."""

    kind: Literal["offset_bushes"]
    bushes: tuple[Bush, ...] = Field(min_length=1, max_length=24)


class HoleCircles(Movable):
    """Two hole circles of different counts that meet in one hole at a time, like a vernier."""

    kind: Literal["hole_circles"]
    cam_holes: int = Field(ge=2, le=120)
    sprocket_holes: int = Field(ge=2, le=120)
    range_deg: float = Field(default=15, gt=0, le=60, description="How far it may be moved, crank degrees either way")


class SlottedSprocket(Movable):
    """A sprocket with slots: any angle within its range."""

    kind: Literal["slotted_sprocket"]
    range_deg: float | None = Field(default=None, gt=0, le=60, description="Crank degrees either way from mid-slot; null = not known")


class SprocketTeeth(Movable):
    """Moving the chain or belt by whole teeth."""

    kind: Literal["sprocket_teeth"]
    at: Literal["crank", "cam"]
    teeth: int = Field(ge=8, le=200)


Adjustment = Annotated[
    KeySlots | OffsetBushes | HoleCircles | SlottedSprocket | SprocketTeeth,
    Field(discriminator="kind"),
]
