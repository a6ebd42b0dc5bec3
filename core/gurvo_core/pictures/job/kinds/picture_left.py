"""A step that needs a picture is done without; the lead's word."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.ledger import OPENED_LAST, Facts, Kind, LedgerEntry, Objection, Words, need
from gurvo_core.pictures.job.entries import PictureLeft
from gurvo_core.pictures.job.state import PicturesState, owed


def _take(now: PicturesState, entry: LedgerEntry, body: PictureLeft) -> PicturesState:
    return replace(now, left={**now.left, body.step: entry.seq})


def _check(now: PicturesState, body: PictureLeft, facts: Facts) -> Iterator[Objection]:
    yield from need(
        body.step in owed(now, facts.get(OPENED_LAST) or {}), "step", "this step needs no picture that is not there; load the bench again"
    )
    yield from need(bool(body.reason), "reason", "say why it is done without a picture")


KIND: Kind[PictureLeft, PicturesState] = Kind(
    body=PictureLeft,
    does="decide",
    by="lead",
    words=lambda body: Words(title="Done without a picture", detail=body.reason, look_again=True),
    take=_take,
    check=_check,
)
