"""A picture of the engine, kept under the digest of its bytes."""

__all__ = ["KIND"]

from collections.abc import Iterator, Sequence
from dataclasses import replace

from gurvo_core.engine import EngineDocument
from gurvo_core.ledger import Body, Facts, Kind, LedgerEntry, Objection, Words, need
from gurvo_core.pictures.job.entries import PictureTaken
from gurvo_core.pictures.job.state import PicturesState, PictureView
from gurvo_core.pictures.job.words import drawn_words


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
        detail=f"{where if body.shows else ''}{drawn_words(body.drawn)}".strip(": "),
        picture=body.digest,
    )


KIND: Kind[PictureTaken, PicturesState] = Kind(body=PictureTaken, does="look", completes=_named, words=_say, take=_take, check=_check)
