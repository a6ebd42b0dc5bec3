"""The path of a chain or belt round its wheels: tangents, wraps, and how many pitches lie where.

Seen from the front; x to the right, y up, mm. The path is followed as the chain or belt travels when the crank turns its running way.
Wheels on the inside turn the crank's way, wheels on the back against it. Wraps on toothed wheels count pitches on the wheel
(teeth x wrap / 360), runs by their length.
"""

__all__ = ["Circle", "LoopPath", "Point", "Run", "Wrap", "circles_of", "loop_path", "tangent_loop"]

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations

from gurvo_core.engine import EngineDocument, LoopStage
from gurvo_core.engine.circles import pitch_radius_mm
from gurvo_core.errors import GeometryError

MAX_WRAP_DEG = 330.0  # a larger one comes from a run that has to pass on the wheel's other side
TURNING_WITHIN_DEG = 1e-6
HALF_TURN_DEG = 180.0

Point = tuple[float, float]


@dataclass(frozen=True, kw_only=True)
class Circle:
    """A wheel's pitch circle on the path, and whether it turns clockwise as the loop travels."""

    name: str
    x_mm: float
    y_mm: float
    radius_mm: float
    clockwise: bool
    teeth: int | None = None


@dataclass(frozen=True, kw_only=True)
class Run:
    """A straight run from one wheel to the next."""

    start: Point
    end: Point
    length_mm: float
    after: str


@dataclass(frozen=True, kw_only=True)
class Wrap:
    """The arc on which a wheel is touched, from the clock position where the loop comes to it."""

    circle: Circle
    from_clock_deg: float
    wrap_deg: float
    pitches: float


@dataclass(frozen=True, kw_only=True)
class LoopPath:
    """The whole path: wraps and the run after each, in the order of travel."""

    wraps: tuple[Wrap, ...]
    runs: tuple[Run, ...]
    pitch_mm: float

    @property
    def pitches(self) -> float:
        """Pitches once round."""
        return sum(wrap.pitches for wrap in self.wraps) + sum(run.length_mm for run in self.runs) / self.pitch_mm


def circles_of(document: EngineDocument, stage: LoopStage) -> list[Circle]:
    """Return the pitch circles of a chain or belt, in the order of travel.

    Raises GeometryError if it is not known where one of them stands.
    The inside turns with the loop, the back against it.
    """
    circles = []
    for step in stage.path:
        wheel = document.drive.wheel(step.wheel)
        place = document.drive.shaft(wheel.shaft).place
        if place is None:
            raise GeometryError("path", wheel.id, f"where {wheel.id} stands is not known")
        circles.append(
            Circle(
                name=wheel.id,
                x_mm=place[0],
                y_mm=place[1],
                radius_mm=pitch_radius_mm(stage, wheel),
                clockwise=(document.rotation_sign > 0) == (step.side == "inside"),
                teeth=wheel.teeth,
            )
        )
    return circles


def loop_path(document: EngineDocument, stage: LoopStage) -> LoopPath:
    """Return the path of a chain or belt.

    Raises GeometryError if there is no tangent between two wheels, the path cannot go round one as listed, or a length is not known.
    """
    if stage.pitch_mm is None:
        raise GeometryError("pitch_mm", None, f"the pitch of {stage.name} is not known")
    return tangent_loop(circles_of(document, stage), stage.pitch_mm)


def tangent_loop(circles: Sequence[Circle], pitch_mm: float) -> LoopPath:
    """Return the taut loop round some circles.

    pitch_mm: pitch of the chain or belt [mm].
    Raises GeometryError if there is no tangent between two circles, or the loop cannot go round one as said.
    Source: [total-turning] for what cannot be. Plane geometry: with signed radii the tangent's direction is that of the centres plus
    asin((r1 - r2) / distance).
    >>> two = [Circle(name=n, x_mm=0, y_mm=y, radius_mm=10, clockwise=True) for n, y in (("a", 0), ("b", 100))]
    >>> round(tangent_loop(two, 8).pitches * 8 - 20 * math.pi, 6)
    200.0
    """
    headings = [_heading_deg(a, b) for a, b in zip(circles, [*circles[1:], circles[0]], strict=True)]
    wraps = [_wrap(circle, headings[n - 1], headings[n], pitch_mm) for n, circle in enumerate(circles)]
    _check_turning(wraps)
    runs = []
    for n, circle in enumerate(circles):
        following = circles[(n + 1) % len(circles)]
        start, end = _touch(circle, headings[n]), _touch(following, headings[n])
        runs.append(Run(start=start, end=end, length_mm=math.dist(start, end), after=circle.name))
    _check_crossing(runs)
    return LoopPath(wraps=tuple(wraps), runs=tuple(runs), pitch_mm=pitch_mm)


def _check_turning(wraps: Sequence[Wrap]) -> None:
    """A loop that does not cross itself turns once in all; more or less, and some wheel is not touched as said."""
    turning = sum(wrap.wrap_deg if wrap.circle.clockwise else -wrap.wrap_deg for wrap in wraps)
    if abs(abs(turning) - 360) > TURNING_WITHIN_DEG:
        least = min(wraps, key=lambda wrap: 360 - wrap.wrap_deg if wrap.wrap_deg > HALF_TURN_DEG else wrap.wrap_deg)
        name = least.circle.name
        rule = f"the path turns {turning:.0f}° in all instead of once round: it misses {name} or crosses itself; look at its place and side"
        raise GeometryError("path", name, rule)


def _check_crossing(runs: Sequence[Run]) -> None:
    """No run crosses another: a loop that turns once in all may still cross itself twice, round a wheel it passes on the wrong side."""
    for one, other in combinations(runs, 2):
        if _apart(one, other) and _apart(other, one):
            rule = f"the run after {one.after} crosses the run after {other.after}: look at the order of the path and at each wheel's side"
            raise GeometryError("path", one.after, rule)


def _apart(one: Run, other: Run) -> bool:
    """Whether the ends of one run lie on both sides of the line through another."""
    (x0, y0), (x1, y1) = other.start, other.end
    sides = [(x1 - x0) * (y - y0) - (y1 - y0) * (x - x0) for x, y in (one.start, one.end)]
    return sides[0] * sides[1] < 0


def _signed_mm(circle: Circle) -> float:
    return -circle.radius_mm if circle.clockwise else circle.radius_mm


def _heading_deg(a: Circle, b: Circle) -> float:
    """Direction in which the run from one circle to the next goes, counter-clockwise from the right."""
    apart_mm = math.hypot(b.x_mm - a.x_mm, b.y_mm - a.y_mm)
    difference_mm = _signed_mm(a) - _signed_mm(b)
    if not apart_mm > abs(difference_mm):
        raise GeometryError("path", a.name, f"there is no way from {a.name} to {b.name}: the wheels stand within each other")
    centres = math.degrees(math.atan2(b.y_mm - a.y_mm, b.x_mm - a.x_mm))
    return centres + math.degrees(math.asin(difference_mm / apart_mm))


def _touch(circle: Circle, heading_deg: float) -> Point:
    """Where a run with that heading touches the circle."""
    out = math.radians(heading_deg - 90)
    return circle.x_mm + _signed_mm(circle) * math.cos(out), circle.y_mm + _signed_mm(circle) * math.sin(out)


def _clock_deg(circle: Circle, heading_deg: float) -> float:
    x_mm, y_mm = _touch(circle, heading_deg)
    return math.degrees(math.atan2(x_mm - circle.x_mm, y_mm - circle.y_mm)) % 360


def _wrap(circle: Circle, coming_deg: float, leaving_deg: float, pitch_mm: float) -> Wrap:
    turned = (coming_deg - leaving_deg if circle.clockwise else leaving_deg - coming_deg) % 360
    if turned > MAX_WRAP_DEG:
        side = "clockwise" if circle.clockwise else "counter-clockwise"
        rule = f"the path cannot go round {circle.name} {side} where it stands: look at its side, its place and the order of the path"
        raise GeometryError("path", circle.name, rule)
    pitches = circle.teeth * turned / 360 if circle.teeth else math.radians(turned) * circle.radius_mm / pitch_mm
    return Wrap(
        circle=circle,
        from_clock_deg=_clock_deg(circle, coming_deg),
        wrap_deg=turned,
        pitches=pitches,
    )
