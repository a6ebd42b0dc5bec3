"""The kinds of entries about pictures, each with all that is said, asked and changed by it."""

__all__ = ["KINDS"]

from typing import Any

from gurvo_core.ledger import Kind
from gurvo_core.pictures.job.kinds import picture, picture_drawn_on, picture_left
from gurvo_core.pictures.job.state import PicturesState

KINDS: tuple[Kind[Any, PicturesState], ...] = (
    picture.KIND,
    picture_drawn_on.KIND,
    picture_left.KIND,
)
