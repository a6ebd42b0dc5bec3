"""What stands of pictures, and which steps want one. Frozen; made anew by every entry that changes it."""

__all__ = ["PictureView", "PicturesState", "as_they_stand", "begin_pictures", "missing", "owed", "wanting", "wants_picture"]

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from functools import lru_cache
from typing import Literal

from pydantic import Field

from gurvo_core.engine import EngineDocument, WorkStep
from gurvo_core.engine.same import Same
from gurvo_core.ledger import View
from gurvo_core.pictures.job.entries import OnPicture

Wanted = Literal["wanted", "needed"]


class PictureView(View):
    """One picture as it stands: what is drawn on it, where it belongs, who took it."""

    digest: str
    seq: int
    at: datetime
    by: str
    step: str | None
    title: str
    place: str
    shows: str
    drawn: list[OnPicture]
    width: int
    height: int
    is_past: bool = Field(default=False, description="Whether its step was opened again since: it shows what stands no more")


@dataclass(frozen=True, kw_only=True)
class PicturesState:
    """All that stands, oldest first."""

    document: EngineDocument
    taken: tuple[PictureView, ...] = ()
    left: Mapping[str, int] = field(default_factory=dict)  # by step that is done without: by which entry


def begin_pictures(document: EngineDocument) -> PicturesState:
    """Return what stands before anything is entered."""
    return PicturesState(document=document)


def wants_picture(step: WorkStep) -> Wanted | None:
    """Return whether a step wants a picture before it is done: as the document says, else where it covers something or names of what."""
    return step.picture_is or ("wanted" if step.covers or step.picture else None)


@lru_cache(maxsize=64)
def _wanting(of: Same) -> Mapping[str, tuple[WorkStep, Wanted]]:
    steps = [step for stage in of.document.stages for step in stage.listed]
    return {step.id: (step, wanted) for step in steps if (wanted := wants_picture(step))}


def wanting(document: EngineDocument) -> Mapping[str, tuple[WorkStep, Wanted]]:
    """Return the steps that want a picture, by their ids."""
    return _wanting(Same(document))


def missing(now: PicturesState, opened: Mapping[str, int]) -> frozenset[str]:
    """Return the steps that want a picture, have none since they were opened last, and that nobody does without since.

    opened: place in the ledger of what opened each step again last.
    """
    there = {one.step for one in now.taken if one.seq > opened.get(one.step or "", 0)}
    there |= {step for step, seq in now.left.items() if seq > opened.get(step, 0)}
    return frozenset(wanting(now.document).keys() - there)


def owed(now: PicturesState, opened: Mapping[str, int]) -> frozenset[str]:
    """Return those of them that need one before they are done."""
    wants = wanting(now.document)
    return frozenset(step for step in missing(now, opened) if wants[step][1] == "needed")


def as_they_stand(now: PicturesState, opened: Mapping[str, int]) -> list[PictureView]:
    """Return every picture, oldest first, those told apart whose step was opened again since."""
    return [one.model_copy(update={"is_past": one.seq <= opened.get(one.step or "", 0)}) for one in now.taken]
