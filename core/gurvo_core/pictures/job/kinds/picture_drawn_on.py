"""What is drawn on a picture from now on, and what it is said to show."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, Words, need
from gurvo_core.pictures.job.entries import PictureDrawnOn
from gurvo_core.pictures.job.state import PicturesState
from gurvo_core.pictures.job.words import drawn_words


def _take(now: PicturesState, _entry: LedgerEntry, body: PictureDrawnOn) -> PicturesState:
    drawn = {"drawn": list(body.drawn)} | ({"shows": body.shows} if body.shows else {})
    return replace(now, taken=tuple(one.model_copy(update=drawn) if one.digest == body.digest else one for one in now.taken))


def _check(now: PicturesState, body: PictureDrawnOn, _facts: Facts) -> Iterator[Objection]:
    there = any(one.digest == body.digest for one in now.taken)
    yield from need(there, "digest", "no such picture was taken of this engine; load the bench again")
    yield from need(bool(body.drawn or body.shows), "drawn", "nothing is drawn and nothing is said; put a ring or an arrow on it")


def _say(body: PictureDrawnOn) -> Words:
    return Words(title="Drawn on a picture", value=body.shows, detail=drawn_words(body.drawn).strip(": "), picture=body.digest)


KIND: Kind[PictureDrawnOn, PicturesState] = Kind(body=PictureDrawnOn, does="look", words=_say, take=_take, check=_check)
