"""The whole picture of an engine: from each side, and what each step of its run is about."""

__all__ = ["scene_of"]

from gurvo_core.engine import EngineDocument
from gurvo_core.scene.above import above_view
from gurvo_core.scene.asked import step_scene
from gurvo_core.scene.shapes import Scene
from gurvo_core.scene.side import side_view
from gurvo_core.scene.sizes import sizes_of


def scene_of(document: EngineDocument, crank_deg: float = 0.0) -> Scene:
    """Return the pictures of an engine with its crank at an angle [deg], and what each step of any of its variants is about."""
    sizes = sizes_of(document, crank_deg)
    steps = [step for stage in document.stages for step in stage.listed]
    return Scene(
        views=[side_view(document, sizes), above_view(document, sizes)],
        steps=[step_scene(document, step) for step in steps],
    )
