"""What if the chain has worn, the head was skimmed, the gasket is thicker: said for the bench, before anything is moved."""

__all__ = ["ChangedAsked", "ChangedView", "changed_view"]

from pydantic import BaseModel, ConfigDict, Field

from gurvo_core.drive.changed import changed_loops
from gurvo_core.drive.sketch import stage_is_known
from gurvo_core.engine import EngineDocument, LoopStage
from gurvo_core.motion.twin import Shown

SAME_DEG = 0.05


class ChangedAsked(BaseModel):
    """So much off head or deck, so much more gasket, chains so much longer."""

    model_config = ConfigDict(extra="forbid", frozen=True, allow_inf_nan=False)

    skimmed_mm: float = Field(default=0, ge=0, le=5)
    gasket_mm: float = Field(default=0, ge=-2, le=5, description="Thicker than the book's [mm]")
    longer_percent: float = Field(default=0, ge=0, le=5, description="Longer than new [%]")


class ChangedCam(Shown):
    """One camshaft, and where it would stand."""

    name: str
    advance_deg: float
    words: str


class ChangedLoop(Shown):
    """One tensioner, and how far out it would be."""

    name: str
    words: str


class ChangedView(Shown):
    """All of it."""

    cams: list[ChangedCam]
    tensioners: list[ChangedLoop]
    not_known: list[str]


def changed_view(document: EngineDocument, asked: ChangedAsked) -> ChangedView:
    """Return what wear and machining would do to an engine as its book has it.

    Raises GeometryError if the path cannot be after it.
    """
    loops = [stage for stage in document.drive.stages if isinstance(stage, LoopStage)]
    longer = {stage.id: asked.longer_percent for stage in loops if stage.kind == "chain"}
    changed = changed_loops(document, {None: asked.skimmed_mm - asked.gasket_mm}, longer)
    said = {cam.camshaft for one in changed for cam in one.cams}
    unknown = [stage for stage in loops if not stage_is_known(document, stage)]
    own = {document.drive.wheel(name).shaft for stage in unknown for name in stage.wheel_ids}
    behind = [cam.name for cam in document.camshafts if cam.id not in said | own]
    as_new = {one.loop: one.travel_mm for one in changed_loops(document, {}, {})}
    tensioner = {stage.id: stage.tightened_by.name for stage in loops if stage.tightened_by}
    return ChangedView(
        cams=[
            ChangedCam(name=document.drive.shaft(cam.camshaft).name, advance_deg=round(cam.advance_deg, 2), words=_words(cam.advance_deg))
            for one in changed
            for cam in one.cams
        ],
        tensioners=[
            ChangedLoop(name=tensioner[one.loop], words=f"{one.travel_mm:.1f} mm across its run, {was:.1f} mm when all is new")
            for one in changed
            if one.travel_mm is not None and (was := as_new[one.loop]) is not None
        ],
        not_known=[
            *(f"Not every length of {stage.name} is known: nothing can be said of it." for stage in unknown),
            *(
                f"{shaft} turns behind what is not known, or by gears into a head that comes nearer: nothing can be said of it."
                for shaft in behind
            ),
        ],
    )


def _words(advance_deg: float) -> str:
    if abs(advance_deg) < SAME_DEG:
        return "stays"
    return f"{abs(advance_deg):.1f}° {'early' if advance_deg > 0 else 'late'}"
