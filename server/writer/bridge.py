"""From rows to the core's drafts; what a draft says is kept as long as nothing is changed in it."""

__all__ = ["draft_of", "edits_of", "family_of", "keep"]

from threading import Lock
from typing import Any, NamedTuple
from uuid import UUID

from cachetools import LRUCache

from gurvo_core.writer.draft import Draft as Written
from gurvo_core.writer.draft import Numbered
from gurvo_core.writer.edits import read_edit
from writer.models import Draft, DraftEdit

KEPT = 32


class _Kept(NamedTuple):
    changes: int
    edits: tuple[Numbered, ...]


_kept: LRUCache[UUID, _Kept] = LRUCache(KEPT)
_lock = Lock()


def edits_of(draft: Draft) -> tuple[Numbered, ...]:
    """The edits of a draft that stand, oldest first."""
    with _lock:
        kept = _kept.get(draft.pk)
    if kept is not None and kept.changes == draft.changes:
        return kept.edits
    rows = DraftEdit.objects.filter(draft=draft, is_undone=False).values_list("number", "body")
    edits = tuple(Numbered(number, read_edit(body)) for number, body in rows)
    keep(draft, edits)
    return edits


def keep(draft: Draft, edits: tuple[Numbered, ...]) -> None:
    """Keep the edits of a draft as it is now."""
    with _lock:
        _kept[draft.pk] = _Kept(draft.changes, edits)


def draft_of(draft: Draft) -> Written:
    """A draft as the core has it."""
    return Written(draft.base, edits_of(draft))


def family_of(document: dict[str, Any]) -> str:
    """Code of the family that a draft's document describes; empty while it says none."""
    identity = document.get("identity")
    return str(identity.get("family", "")) if isinstance(identity, dict) else ""
