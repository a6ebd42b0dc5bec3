"""The engine as it stands, as a picture: ``names`` tells which part a name means, ``asked`` what a step is about and from where it is
seen, ``sizes`` the measures that are known and those in the usual proportions, ``side`` and ``above`` the drawings, ``standing`` how far
each part has come, ``turning`` what moves with the crank, ``scene`` all of it together.
"""

__all__ = [
    "Brings",
    "Scene",
    "ScenePart",
    "SceneView",
    "Shape",
    "SideTurning",
    "Stands",
    "StepScene",
    "brought_by",
    "cropped",
    "is_seen",
    "part_stands",
    "scene_of",
    "side_turning",
    "steps_of",
]

from gurvo_core.scene.scene import scene_of, steps_of
from gurvo_core.scene.shapes import Scene, ScenePart, SceneView, Shape, StepScene, cropped
from gurvo_core.scene.standing import Brings, Stands, brought_by, is_seen, part_stands
from gurvo_core.scene.turning import SideTurning, side_turning
