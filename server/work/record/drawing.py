"""The engine as it stands, on paper: told apart without colour, what is to come dashed, what a stage is about thick."""

__all__ = ["drawings_on_paper", "picture", "small_picture", "stage_pictures"]

from collections import Counter
from collections.abc import Collection, Mapping, Sequence
from typing import NamedTuple

from django.utils.html import escape
from django.utils.safestring import SafeString, mark_safe

from gurvo_core.engine import EngineDocument
from gurvo_core.scene import Scene, ScenePart, SceneView, Shape, Stands, cropped, is_seen, scene_of
from gurvo_core.work.state import StepView

INK, SOFT = "#1C2226", "#8C8A82"
ON_ITS_SIDE = 40  # how many letters the width of a picture has
FILLS: dict[str, str] = {"in": "#FFFFFF", "loose": "#EFE7D6", "held": "#EFE7D6"}


class Ink(NamedTuple):
    """How a picture is drawn: edge and inside of what is asked, how thick the lines are, and whether anything is written in it."""

    asked: tuple[str, str]
    thick: float
    says: bool


PAPER, SMALL = Ink((INK, "#E3E3E3"), 1.0, says=True), Ink(("#1F4E79", "#9DBBD6"), 3.0, says=False)


def drawings_on_paper(document: EngineDocument, stands: Mapping[str, Stands], crank_deg: float = 0.0) -> list[SafeString]:
    """Return the engine from the side and from above."""
    views = [view for view in scene_of(document, crank_deg).views if view.looking in ("side", "above")]
    return [picture(view, stands, ()) for view in views]


def stage_pictures(document: EngineDocument, steps: Sequence[StepView]) -> dict[str, SafeString]:
    """Return a picture for each stage of what its steps are about, by the stage's title; none where they are about the drive alone."""
    scene = scene_of(document)
    found: dict[str, SafeString] = {}
    for stage in dict.fromkeys(step.stage for step in steps):
        about = _about(scene, {step.key for step in steps if step.stage == stage})
        if about is not None:
            found[stage] = picture(about[0], {}, about[1])
    return found


def _about(scene: Scene, keys: Collection[str]) -> tuple[SceneView, set[str]] | None:
    """From where most of some steps are seen, and the parts that they are about there."""
    own = [one for one in scene.steps if one.step in keys]
    counts = Counter(one.looking for one in own)
    looking = max(counts, key=lambda one: (counts[one], one != "front"), default="front")
    view = next((one for one in scene.views if one.looking == looking), None)
    return (view, {part for one in own if one.looking == looking for part in one.parts}) if view else None


def small_picture(scene: Scene, step: str | None, stands: Mapping[str, Stands]) -> SafeString:
    """Return the engine as it is seen in a step, so small that nothing can be read in it: a drawing by itself, in colour."""
    about = next((one for one in scene.steps if one.step == step), None)
    view = next((one for one in scene.views if about and one.looking == about.looking), scene.views[0])
    asked = about.parts if about else ()
    return picture(cropped(view, _seen(view, stands, asked)), stands, asked, SMALL)


def picture(view: SceneView, stands: Mapping[str, Stands], asked: Collection[str], ink: Ink = PAPER) -> SafeString:
    """Return one picture as a drawing that stands in the page."""
    size = max(view.width, view.height) / ON_ITS_SIDE
    seen = _seen(view, stands, asked)
    drawn = "".join(_part(part, stands, asked, size, ink) for part in sorted(seen, key=lambda part: part.id in asked))
    room = f"{view.left:.1f} {view.top:.1f} {view.width:.1f} {view.height:.1f}"
    side = "from above" if view.looking == "above" else "from the side"
    space = 'xmlns="http://www.w3.org/2000/svg" '
    return mark_safe(f'<svg {space}viewBox="{room}" aria-label="The engine {side}">{drawn}</svg>')  # noqa: S308 - of our own making


def _seen(view: SceneView, stands: Mapping[str, Stands], asked: Collection[str]) -> list[ScenePart]:
    return [part for part in view.parts if is_seen(part, stands, asked) or (not stands and part.id == "block")]


def _part(part: ScenePart, stands: Mapping[str, Stands], asked: Collection[str], size: float, ink: Ink) -> str:
    is_asked, own = part.id in asked, stands.get(part.id, "to come")
    is_there = is_asked or own in FILLS
    dashed = "" if is_there or part.id == "block" else f' stroke-dasharray="{size * 0.4:.1f} {size * 0.3:.1f}"'
    width = size * ink.thick * (0.22 if is_asked else 0.1 if is_there else 0.07)
    fill = ink.asked[1] if is_asked else FILLS.get(own, "none")
    shapes = "".join(_shape(shape, size, says=is_there and ink.says) for shape in part.shapes if ink.says or shape.form != "words")
    edge = ink.asked[0] if is_asked else INK if is_there else SOFT
    return f'<g stroke="{edge}" stroke-width="{width:.2f}" fill="{fill}"{dashed}>{shapes}</g>'


def _shape(shape: Shape, size: float, *, says: bool) -> str:
    faint = ' fill="none" stroke="#C9C3B6"' if shape.faint else ""
    if shape.form == "line":
        return f'<line x1="{shape.x}" y1="{shape.y}" x2="{shape.x + shape.w:.1f}" y2="{shape.y + shape.h:.1f}"{faint}/>'
    text = _text(shape, size) if shape.text and (says or shape.form == "words") else ""
    if shape.form == "words":
        return text
    if shape.form == "ring":
        return f'<circle cx="{shape.x}" cy="{shape.y}" r="{shape.w / 2:.1f}"{faint}/>{text}'
    left, top = shape.x - shape.w / 2, shape.y - shape.h / 2
    return f'<rect x="{left:.1f}" y="{top:.1f}" width="{shape.w}" height="{shape.h}"{faint}/>{text}'


def _text(shape: Shape, size: float) -> str:
    at = f'x="{shape.x}" y="{shape.y + size * 0.35:.1f}"'
    look = f'font-family="Archivo" font-size="{size:.1f}" font-weight="700" text-anchor="middle" fill="{INK}" stroke="none"'
    return f"<text {at} {look}>{escape(shape.text)}</text>"
