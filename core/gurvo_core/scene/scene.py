"""The whole picture of an engine: from each side, and what each step of its run is about."""

__all__ = ["scene_of", "steps_of"]

from gurvo_core.engine import EngineDocument
from gurvo_core.scene.above import above_view
from gurvo_core.scene.asked import step_scene
from gurvo_core.scene.names import kinds_named
from gurvo_core.scene.rings import rings_view
from gurvo_core.scene.shapes import Scene, StepScene
from gurvo_core.scene.side import side_view
from gurvo_core.scene.sizes import sizes_of


def steps_of(document: EngineDocument) -> list[StepScene]:
    """Return what each step of an engine's run is about, in any of its variants; no crank angle changes it."""
    return [step_scene(document, step) for stage in document.stages for step in stage.listed]


def scene_of(document: EngineDocument, crank_deg: float = 0.0, steps: list[StepScene] | None = None) -> Scene:
    """Return the pictures of an engine with its crank at an angle [deg], and what each step is about, worked out where it is not given."""
    sizes, views = sizes_of(document, crank_deg), []
    said = _ways_round(document)
    rings = rings_view(document, sizes)
    for view in (side_view(document, sizes), above_view(document, sizes, crank_deg), *([rings] if rings else [])):
        parts = [part.model_copy(update={"says": said.get(part.id.partition(":")[0], "")}) for part in view.parts]
        views.append(view.model_copy(update={"parts": parts}))
    return Scene.model_construct(views=views, steps=steps_of(document) if steps is None else steps)


def _ways_round(document: EngineDocument) -> dict[str, str]:
    """Which way round parts go in, by the kind that their names mean first: only as the document says it."""
    told = [(kinds_named(part.name), part.way_round) for part in document.kit if part.way_round]
    return {kinds[0]: way_round for kinds, way_round in told if kinds}
