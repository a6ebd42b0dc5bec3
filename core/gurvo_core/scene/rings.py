"""One cylinder from above: where the gaps of its rings go, by the clock; front is to the left. None where no document says it."""

__all__ = ["rings_view"]

import math
from collections.abc import Iterator

from gurvo_core.engine import EngineDocument
from gurvo_core.scene.shapes import ScenePart, SceneView, Shape, box, line, ring, words
from gurvo_core.scene.sizes import Sizes

GROOVE = 0.09  # of the bore: how far the rings are drawn within each other; in truth they lie one below the other


def rings_view(document: EngineDocument, sizes: Sizes) -> SceneView | None:
    """Return a cylinder from above with its rings, the top ring outside; None where nobody says where their gaps go."""
    gaps = next((part.gaps_deg for part in document.kit if part.gaps_deg), ())
    if not gaps:
        return None
    bore = sizes.bore
    wall = [box(0, 0, 1.5 * bore, 1.3 * bore, faint=True), ring(0, 0, bore)]
    ends = [words(-1.0 * bore, 0, "front"), words(1.12 * bore, 0, "flywheel")]  # the clock is read from them, however close one looks
    return SceneView(
        looking="rings",
        left=-1.35 * bore,
        top=-0.75 * bore,
        width=2.9 * bore,
        height=1.5 * bore,
        parts=[
            ScenePart(id="block", name="Bore", shapes=wall),
            ScenePart(id="rings", name="Piston rings, the top ring outside", shapes=[*_rings(gaps, bore), *ends]),
        ],
        sketched=["rings within each other"],
    )


def _rings(gaps: tuple[float, ...], bore: float) -> Iterator[Shape]:
    """Each ring, and across it where its gap is, clockwise from the front."""
    for n, gap_deg in enumerate(gaps, 1):
        radius = (0.5 - GROOVE * n) * bore
        turned = math.radians(gap_deg)
        x, y = -math.cos(turned), -math.sin(turned)
        yield ring(0, 0, 2 * radius)
        inner, outer = radius - 0.035 * bore, radius + 0.035 * bore
        yield line(inner * x, inner * y, outer * x, outer * y)
        yield ring(0.6 * bore * x, 0.6 * bore * y, 0.13 * bore, text=str(n))
        yield line(outer * x, outer * y, 0.535 * bore * x, 0.535 * bore * y, faint=True)
