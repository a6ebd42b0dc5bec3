"""How pictures are said."""

__all__ = ["drawn_words"]

from collections.abc import Sequence

from gurvo_core.pictures.job.entries import OnPicture
from gurvo_core.sentence import listed


def drawn_words(drawn: Sequence[OnPicture]) -> str:
    """What is said beside rings and arrows."""
    said = [one.says for one in drawn if one.says]
    return f": {listed(said)}" if said else ""
