"""A draft walked through, aside, and what handing it in would change; kept as long as nothing is changed in it."""

__all__ = ["Walk", "walk_of"]

import json
from threading import Lock
from uuid import UUID

from cachetools import LRUCache
from ninja import Schema
from pydantic import Field

from engine.models import Revision
from gurvo_core.engine.difference import Change
from gurvo_core.errors import DocumentError, Fault
from gurvo_core.walk.shot import Shot
from gurvo_core.writer.draft import written
from press.documents import looked_at, walked_in
from shop.gate import Line
from writer.bridge import draft_of, family_of
from writer.models import Draft

WALKING = Line("Drafts of others are being walked through")


class Walk(Schema):
    """How far a draft can be built by, and what would become of it."""

    changes: int = Field(description="Of the draft, when it was walked")
    steps: int
    faults: list[Fault] = Field(description="Why it cannot be walked at all")
    stuck: list[Fault] = Field(description="Where whoever answers everything rightly gets stuck")
    shots: list[Shot] = Field(description="The bench at each step, in the order in which they are come to")
    revision: int = Field(description="The number that it would have")
    differs: list[Change] = Field(description="From the family's newest revision, if there is one")


_kept: LRUCache[UUID, Walk] = LRUCache(64)
_lock = Lock()


def walk_of(draft: Draft, who: str) -> Walk:
    """Walk a draft through for somebody. Raises TooBusy while others are before him."""
    if (kept := _kept_of(draft)) is not None:
        return kept
    with WALKING.passed(who):
        draft.refresh_from_db()  # what was written while others were walked: of several asked for, the newest is walked once
        walk = _kept_of(draft) or _walked(draft)
    with _lock:
        _kept[draft.pk] = walk
    return walk


def _kept_of(draft: Draft) -> Walk | None:
    with _lock:
        kept = _kept.get(draft.pk)
    return kept if kept is not None and kept.changes == draft.changes else None


def _walked(draft: Draft) -> Walk:
    document = written(draft_of(draft)).document
    text = json.dumps(document, ensure_ascii=False)
    newest = Revision.objects.newest_of(family_of(document))
    number = newest.number + 1 if newest else 1
    try:
        walked = walked_in(text)
        differs = looked_at(text, newest.document if newest else None).changes
    except DocumentError as error:
        return Walk(changes=draft.changes, steps=0, faults=error.faults, stuck=[], shots=[], revision=number, differs=[])
    return Walk(
        changes=draft.changes,
        steps=walked.steps,
        faults=[],
        stuck=walked.stuck,
        shots=walked.shots,
        revision=number,
        differs=differs,
    )
