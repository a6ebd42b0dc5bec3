"""The kinds of entries about pictures, each with all that is said, asked and changed by it."""

__all__ = ["KINDS"]

from collections.abc import Iterator, Sequence
from dataclasses import replace
from typing import Any

from gurvo_core.engine import EngineDocument
from gurvo_core.ledger import OPENED_LAST, Body, Facts, Kind, LedgerEntry, Objection, Words, need
from gurvo_core.pictures.job.entries import OnPicture, PictureDrawnOn, PictureLeft, PictureTaken
from gurvo_core.pictures.job.state import PicturesState, PictureView, owed
from gurvo_core.sentence import listed


def _titles(document: EngineDocument) -> dict[str, str]:
    return {step.id: step.says.rstrip(".") for stage in document.stages for step in stage.listed}


def _named(body: PictureTaken, document: EngineDocument, _before: Sequence[LedgerEntry]) -> Body:
    """Keep what the step is called today."""
    if body.title is not None or body.step is None:
        return body
    return body.model_copy(update={"title": _titles(document).get(body.step, "")[:200]})


def _take(now: PicturesState, entry: LedgerEntry, body: PictureTaken) -> PicturesState:
    picture = PictureView(
        digest=body.digest,
        seq=entry.seq,
        at=entry.typed_at or entry.at,
        by=entry.by,
        step=body.step,
        title=body.title or "",
        place=body.place,
        shows=body.shows,
        drawn=list(body.drawn),
        width=body.width,
        height=body.height,
    )
    return replace(now, taken=(*now.taken, picture))


def _check(now: PicturesState, body: PictureTaken, _facts: Facts) -> Iterator[Objection]:
    again = any(one.digest == body.digest and one.step == body.step for one in now.taken)
    yield from need(not again, "digest", "this very picture is on this step already; take another, or draw on the one that is there")


def _say(body: PictureTaken) -> Words:
    where = ", ".join(filter(None, (body.title, body.place)))
    return Words(
        title="Picture",
        value=body.shows or where,
        detail=f"{where if body.shows else ''}{_drawn_words(body.drawn)}".strip(": "),
        picture=body.digest,
    )


def _drawn_words(drawn: Sequence[OnPicture]) -> str:
    said = [one.says for one in drawn if one.says]
    return f": {listed(said)}" if said else ""


def _draw(now: PicturesState, _entry: LedgerEntry, body: PictureDrawnOn) -> PicturesState:
    drawn = {"drawn": list(body.drawn)} | ({"shows": body.shows} if body.shows else {})
    return replace(now, taken=tuple(one.model_copy(update=drawn) if one.digest == body.digest else one for one in now.taken))


def _check_drawn(now: PicturesState, body: PictureDrawnOn, _facts: Facts) -> Iterator[Objection]:
    there = any(one.digest == body.digest for one in now.taken)
    yield from need(there, "digest", "no such picture was taken of this engine; load the bench again")
    yield from need(bool(body.drawn or body.shows), "drawn", "nothing is drawn and nothing is said; put a ring or an arrow on it")


def _say_drawn(body: PictureDrawnOn) -> Words:
    return Words(title="Drawn on a picture", value=body.shows, detail=_drawn_words(body.drawn).strip(": "), picture=body.digest)


def _leave(now: PicturesState, entry: LedgerEntry, body: PictureLeft) -> PicturesState:
    return replace(now, left={**now.left, body.step: entry.seq})


def _check_left(now: PicturesState, body: PictureLeft, facts: Facts) -> Iterator[Objection]:
    yield from need(
        body.step in owed(now, facts.get(OPENED_LAST) or {}), "step", "this step needs no picture that is not there; load the bench again"
    )
    yield from need(bool(body.reason), "reason", "say why it is done without a picture")


KINDS: tuple[Kind[Any, PicturesState], ...] = (
    Kind(body=PictureTaken, does="look", settle=_named, words=_say, take=_take, check=_check),
    Kind(body=PictureDrawnOn, does="look", words=_say_drawn, take=_draw, check=_check_drawn),
    Kind(
        body=PictureLeft,
        does="decide",
        by="lead",
        words=lambda body: Words(title="Done without a picture", detail=body.reason, look_again=True),
        take=_leave,
        check=_check_left,
    ),
)
