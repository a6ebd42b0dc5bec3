"""The front of an engine on paper: wheels, belts and chains, and every mark by which it was timed; for the page of whoever pays."""

__all__ = ["front_on_paper"]

from django.utils.html import escape
from django.utils.safestring import SafeString, mark_safe

from gurvo_core.drive import DriveDrawing, drawn_if_known
from gurvo_core.drive.drawing import Arc, DrawnMark, DrawnPointer, DrawnWheel
from gurvo_core.engine import EngineDocument

INK, SOFT, BLUE = "#1C2226", "#8C8A82", "#1E4A86"
LETTERS = 30  # how many the drawing is wide


def front_on_paper(document: EngineDocument) -> SafeString | None:
    """Return the front as a drawing that stands in the page; None where it cannot be drawn, or nothing marks it."""
    front = drawn_if_known(document)
    if front is None or not any(wheel.marks for wheel in front.wheels):
        return None
    box = front.box
    wide, high = box.right_mm - box.left_mm, box.top_mm - box.bottom_mm
    size = max(wide, high) / LETTERS
    room = f"{box.left_mm - 2 * size:.1f} {-box.top_mm - 2 * size:.1f} {wide + 4 * size:.1f} {high + 4 * size:.1f}"
    drawn = "".join(_drawn(front, size))
    head = f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{room}" aria-label="The front with its marks" fill="none"'
    return mark_safe(f'{head} stroke="{INK}" stroke-width="{size * 0.1:.2f}">{drawn}</svg>')  # noqa: S308 - of our own making


def _drawn(front: DriveDrawing, size: float) -> list[str]:
    loops = [
        f'<path d="{"".join(_arc(arc) for arc in loop.arcs)}" stroke="{SOFT}" stroke-width="{size * 0.16:.2f}"/>' for loop in front.loops
    ]
    wheels = [_wheel(wheel, size) for wheel in front.wheels]
    return [*loops, *wheels, *(_pointer(pointer, size) for pointer in front.pointers)]


def _arc(arc: Arc) -> str:
    radius = f"{arc.radius_mm:.1f}"
    sweep = 1 if arc.clockwise else 0  # up is down on paper, which turns it round twice
    begin, end, run_to = (f"{place.x_mm:.1f} {-place.y_mm:.1f}" for place in (arc.begin, arc.end, arc.run_to))
    return f"M{begin}A{radius} {radius} 0 {int(arc.large)} {sweep} {end}L{run_to}"


def _wheel(wheel: DrawnWheel, size: float) -> str:
    x, y = wheel.x_mm, -wheel.y_mm
    marks = "".join(_mark(wheel, mark, size) for mark in wheel.marks if not mark.decoy)
    return f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{wheel.radius_mm:.1f}" fill="#FFFFFF" fill-opacity="0.6"/>{marks}'


def _mark(wheel: DrawnWheel, mark: DrawnMark, size: float) -> str:
    """A tick from the rim inward, thick where the mark decides."""
    inner = max(wheel.radius_mm - 1.5 * size, wheel.radius_mm * 0.4)
    turned = f"translate({wheel.x_mm:.1f} {-wheel.y_mm:.1f}) rotate({mark.clock_deg:.1f})"
    line = f'y1="{-inner:.1f}" y2="{-wheel.radius_mm:.1f}" transform="{turned}"'
    return f'<line {line} stroke="{BLUE}" stroke-width="{size * (0.4 if mark.decides else 0.2):.2f}"/>'


def _pointer(pointer: DrawnPointer, size: float) -> str:
    """A small wedge that points at its wheel, with its name."""
    x, y = pointer.x_mm, -pointer.y_mm
    wedge = f"M0 {size:.2f}L{-size * 0.5:.2f} {-size * 0.2:.2f}H{size * 0.5:.2f}z"
    words = f'font-family="Archivo" font-size="{size:.1f}" fill="{INK}" stroke="none" text-anchor="middle"'
    return (
        f'<g transform="translate({x:.1f} {y:.1f})"><path d="{wedge}" fill="{INK}" transform="rotate({pointer.clock_deg:.1f})"/>'
        f'<text y="{-size * 0.7:.1f}" {words}>{escape(pointer.name)}</text></g>'
    )
