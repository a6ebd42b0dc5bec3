"""What stands of pictures, and which steps want one. Frozen; made anew by every entry that changes it."""

__all__ = ["PictureView", "PicturesState", "begin_pictures", "owed", "wanting", "wants_picture"]

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from functools import lru_cache
from typing import Literal

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


@dataclass(frozen=True, kw_only=True)
class PicturesState:
    """All that stands, oldest first."""

    document: EngineDocument
    taken: tuple[PictureView, ...] = ()
    left: Mapping[str, str] = field(default_factory=dict)  # by step: why it is done without


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


def owed(now: PicturesState) -> frozenset[str]:
    """Return the steps that need a picture that nobody has taken, and that the lead has not done without."""
    there = {one.step for one in now.taken}
    return frozenset(
        step for step, (_, wanted) in wanting(now.document).items() if wanted == "needed" and step not in there and step not in now.left
    )
