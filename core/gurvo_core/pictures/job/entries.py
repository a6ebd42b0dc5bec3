"""What is entered of pictures: one that was taken, what is drawn on it, and that a step is done without."""

__all__ = ["Digest", "OnPicture", "PictureDrawnOn", "PictureLeft", "PictureTaken"]

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from gurvo_core.engine.part import Word
from gurvo_core.ledger.entry import Body, Reason, Shape

MOST_DRAWN = 12
Digest = Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{64}$")]
Share = Annotated[float, Field(ge=0, le=1)]


class OnPicture(Shape):
    """A ring or an arrow on a picture, by shares of its width and height; kept beside it and never in it."""

    is_a: Literal["ring", "arrow"]
    x: Share = Field(description="Of a ring its middle, of an arrow its tip: from the left, as a share of the width")
    y: Share = Field(description="The same from the top, as a share of the height")
    says: Annotated[str, StringConstraints(max_length=80, strip_whitespace=True)] = ""


class PictureTaken(Body):
    """A picture of the engine, kept under the digest of its bytes."""

    kind: Literal["picture"]
    digest: Digest = Field(description="SHA-256 of the picture as it is kept")
    width: int = Field(ge=1, le=20000, description="Of the picture as it is kept [pixels]")
    height: int = Field(ge=1, le=20000, description="Of the picture as it is kept [pixels]")
    step: Word | None = None
    title: Annotated[str, StringConstraints(max_length=200)] | None = Field(
        default=None, description="What the step was called; completed when it is taken"
    )
    place: Annotated[str, StringConstraints(max_length=80, strip_whitespace=True)] = Field(
        default="", description="Where on the engine, such as: cylinder 3"
    )
    shows: Reason = Field(default="", description="What is to be seen on it")
    drawn: tuple[OnPicture, ...] = Field(default=(), max_length=MOST_DRAWN)


class PictureDrawnOn(Body):
    """What is drawn on a picture from now on, and what it is said to show."""

    kind: Literal["picture_drawn_on"]
    digest: Digest
    shows: Reason = ""
    drawn: tuple[OnPicture, ...] = Field(default=(), max_length=MOST_DRAWN)


class PictureLeft(Body):
    """A step that needs a picture is done without; the lead's word."""

    kind: Literal["picture_left"]
    step: Word
    reason: Reason
