"""What a picture is made of, as it is sent: parts by their names, each of a few plain shapes [mm], seen from one side."""

__all__ = ["Looking", "Scene", "ScenePart", "SceneView", "Shape", "StepScene", "box", "cropped", "line", "ring", "words"]

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from pydantic import Field

from gurvo_core.motion.twin import Shown

Looking = Literal["side", "above", "front", "cylinder", "rings"]


@dataclass(frozen=True, slots=True)  # a picture has hundreds: nothing is checked that is made here
class Shape:
    """A box by its middle, a ring, a line from its middle by width and height, or words; to the right and down [mm]."""

    form: Literal["box", "ring", "line", "words"]
    x: float
    y: float
    w: float = 0.0
    h: float = 0.0
    text: str = ""
    faint: bool = False  # what is there for looking alone: an axis, a bore's wall


class ScenePart(Shown):
    """One part, and what hides it once that is in."""

    id: str
    name: str
    where: str = Field(default="", description="The bank it is in, where there are several")
    shapes: list[Shape]
    hidden_by: list[str] = []
    says: str = Field(default="", description="Which way round it goes in, as far as the document says")


class SceneView(Shown):
    """What is seen from one side, and the room it takes [mm]."""

    looking: Looking
    left: float
    top: float
    width: float
    height: float
    parts: list[ScenePart]
    sketched: list[str] = Field(description="What is in the usual proportions, in words")


class StepScene(Shown):
    """What a step is about, and from where it is seen."""

    step: str
    looking: Looking
    parts: list[str]


class Scene(Shown):
    """An engine's pictures, and what each step of its run is about."""

    views: list[SceneView]
    steps: list[StepScene]


def cropped(view: SceneView, parts: Iterable[ScenePart]) -> SceneView:
    """Return a view with no more room than some of its parts take, words left out."""
    ends = [_ends(shape) for part in parts for shape in part.shapes if shape.form != "words"]
    if not ends:
        return view
    left, right = min(one[0] for one in ends), max(one[1] for one in ends)
    top, bottom = min(one[2] for one in ends), max(one[3] for one in ends)
    edge = max(right - left, bottom - top) / 40
    return view.model_copy(
        update={"left": left - edge, "top": top - edge, "width": right - left + 2 * edge, "height": bottom - top + 2 * edge}
    )


def _ends(shape: Shape) -> tuple[float, float, float, float]:
    """Left, right, top and bottom [mm]."""
    x, y, w, h = shape.x, shape.y, shape.w, shape.h
    if shape.form == "line":
        return min(x, x + w), max(x, x + w), min(y, y + h), max(y, y + h)
    tall = w if shape.form == "ring" else h
    return x - w / 2, x + w / 2, y - tall / 2, y + tall / 2


def _mm(value: float) -> float:
    return round(value, 1)


def box(x: float, y: float, w: float, h: float, *, text: str = "", faint: bool = False) -> Shape:
    """Return a box by its middle [mm]."""
    return Shape("box", _mm(x), _mm(y), _mm(w), _mm(h), text, faint)


def ring(x: float, y: float, across: float, *, text: str = "", faint: bool = False) -> Shape:
    """Return a ring by its middle and diameter [mm]."""
    return Shape("ring", _mm(x), _mm(y), _mm(across), 0.0, text, faint)


def line(x: float, y: float, to_x: float, to_y: float, *, faint: bool = False) -> Shape:
    """Return a line from one place to another [mm]."""
    return Shape("line", _mm(x), _mm(y), _mm(to_x - x), _mm(to_y - y), "", faint)


def words(x: float, y: float, text: str) -> Shape:
    """Return words about a place [mm]."""
    return Shape("words", _mm(x), _mm(y), 0.0, 0.0, text)
