"""The engine from the side as its crank turns: what is coupled to the crank, at each of some angles of a turn; nothing else moves."""

__all__ = ["SideTurning", "side_turning"]

from pydantic import Field

from gurvo_core.engine import EngineDocument
from gurvo_core.motion.twin import Shown
from gurvo_core.scene.shapes import SceneView
from gurvo_core.scene.side import moving_parts, side_view
from gurvo_core.scene.sizes import FULL_TURN_DEG, sizes_of

EVERY_DEG = 10  # between two of them a pin leaves its circle by 0.4 % of its throw


class SideTurning(Shown):
    """The engine from the side with its crank at 0, and what moves."""

    view: SceneView
    every_deg: float
    moving: list[str] = Field(description="Ids of the parts that move, in the order in which their shapes are listed")
    frames: list[list[float]] = Field(
        description="At each angle: where each shape's middle or begin is, downwards, and how tall it is [mm]"
    )


def side_turning(document: EngineDocument) -> SideTurning:
    """Return the engine from the side, and how it looks at each angle of a turn of its crank."""
    parts = moving_parts(first := sizes_of(document, 0.0))
    angles = range(0, round(FULL_TURN_DEG), EVERY_DEG)
    frames = [
        [figure for part in moving_parts(sizes_of(document, angle)) for shape in part.shapes for figure in (shape.y, shape.h)]
        for angle in angles
    ]
    return SideTurning(view=side_view(document, first), every_deg=EVERY_DEG, moving=[part.id for part in parts], frames=frames)
