"""A photo of the front as ground: distances that are known give its scale, axes that are pointed at give places from the crank's."""

__all__ = ["KnownDistance", "PhotoMarks", "PhotoRead", "PointedAxis", "ShaftPlace", "read_photo"]

from collections.abc import Sequence
from math import hypot
from typing import Any

from pydantic import BaseModel, ConfigDict, Field

from gurvo_core.writer.edits import Set, groups_in

# a photo taken straight on has one scale; what is beyond this is no lean of the camera, but a wrong point or figure
MOST_LEAN, MOST_APART = 0.25, 0.10
ALIKE = 0.05  # two distances whose directions differ by less tell of one direction only
WORTH_SAYING = 0.01


class _Pointed(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True, allow_inf_nan=False)


class KnownDistance(_Pointed):
    """Two points of the photo [px, y down], and how far they are apart on the engine."""

    ax: float
    ay: float
    bx: float
    by: float
    mm: float = Field(gt=0, le=5000)


class PointedAxis(_Pointed):
    """Where a shaft's axis is seen [px, y down]."""

    shaft: str = Field(max_length=40)
    x: float
    y: float


class PhotoMarks(_Pointed):
    """What was pointed at on a photo."""

    known: list[KnownDistance] = Field(max_length=6)
    axes: list[PointedAxis] = Field(max_length=40)


class ShaftPlace(_Pointed):
    """A shaft's place from the crank's axis, seen from the front."""

    shaft: str
    name: str
    x_mm: float
    y_mm: float


class PhotoRead(BaseModel):
    """What a photo tells, and what is still missing or wrong."""

    model_config = ConfigDict(extra="forbid", frozen=True)
    said: list[str]
    wrong: str = Field(description="Why no place follows from it; empty where places do")
    places: list[ShaftPlace]
    edits: list[Set] = Field(exclude=True)


def read_photo(marks: PhotoMarks, document: dict[str, Any]) -> PhotoRead:
    """The places that follow from a photo, to a tenth of a millimetre, and the edits that take them over as measured."""
    drive = document.get("drive")
    shafts = groups_in(drive, "shafts") if isinstance(drive, dict) else []
    crank = next((str(one.get("id")) for one in shafts if one.get("kind") == "crank"), "")
    at = {one.shaft: one for one in marks.axes}
    if not marks.known:
        return _none("Point at two places whose distance is known, and write how far they are apart.")
    if any(hypot(one.bx - one.ax, one.by - one.ay) < 1 for one in marks.known):
        return _none("The two points of a distance lie on each other; point at them anew.")
    across, upright, said, wrong = scale_of(marks.known)
    if wrong:
        return _none(wrong)
    if crank not in at:
        return PhotoRead(said=said, wrong="Point at the crank's axis: all places count from there.", places=[], edits=[])
    zero = at[crank]
    places = [
        ShaftPlace(
            shaft=str(one.get("id")),
            name=str(one.get("name") or one.get("id")),
            x_mm=_tenths((at[str(one.get("id"))].x - zero.x) * across),
            y_mm=_tenths((zero.y - at[str(one.get("id"))].y) * upright),
        )
        for one in shafts
        if str(one.get("id")) in at
    ]
    edits = [
        Set(at=f"/drive/shafts/{one.shaft}/{key}", value=value, source="measured")
        for one in places
        if one.shaft != crank
        for key, value in (("x_mm", one.x_mm), ("y_mm", one.y_mm))
    ]
    return PhotoRead(said=said, wrong="" if edits else "Point at the axis of another shaft too.", places=places, edits=edits)


def _none(wrong: str) -> PhotoRead:
    return PhotoRead(said=[], wrong=wrong, places=[], edits=[])


def _tenths(mm: float) -> float:
    return round(mm, 1) + 0.0


def scale_of(known: Sequence[KnownDistance]) -> tuple[float, float, list[str], str]:
    """Millimetres a pixel across and upright, what is said of them, and why there are none.

    From d² = a dx² + b dy² by least squares in a and b, where the distances lie in two directions; with one direction, or one distance,
    a = b. Source: Pythagoras; the camera's lean about one axis shortens that direction alone. No lens is corrected.
    """
    rows = [((one.bx - one.ax) ** 2, (one.by - one.ay) ** 2, one.mm**2) for one in known]
    one = sum(row[2] * (row[0] + row[1]) for row in rows) / sum((row[0] + row[1]) ** 2 for row in rows)
    apart = max(abs(((row[0] + row[1]) * one / row[2]) ** 0.5 - 1) for row in rows)
    shares = [row[0] / (row[0] + row[1]) for row in rows]
    if len(rows) == 1:
        said = "One distance gives the scale. A second, across to it, shows whether the photo was taken straight on."
        return one**0.5, one**0.5, [said], ""
    if max(shares) - min(shares) < ALIKE:
        return _one_way(one, apart)
    a, b = _two_ways(rows)
    lean = abs((a / b) ** 0.5 - 1) if a > 0 and b > 0 else 1.0
    left = max(abs(max(row[0] * a + row[1] * b, 0) / row[2] - 1) / 2 for row in rows)
    if lean > MOST_LEAN or left > MOST_APART:
        return 0, 0, [], "The distances do not fit each other; look at their points and figures, or take the photo straight on."
    said = f"Across and upright differ by {lean:.1%}: the photo leans, and is put right." if lean > WORTH_SAYING else "The distances agree."
    return a**0.5, b**0.5, [said], ""


def _one_way(one: float, apart: float) -> tuple[float, float, list[str], str]:
    if apart > MOST_APART:
        return 0, 0, [], f"The distances are {apart:.0%} apart; look at their points and figures."
    said = f"The distances agree within {apart:.1%}. One across to them shows whether the photo was taken straight on."
    return one**0.5, one**0.5, [said], ""


def _two_ways(rows: Sequence[tuple[float, float, float]]) -> tuple[float, float]:
    """Both squares of the scale, by the normal equations."""
    xx, xy, yy = sum(x * x for x, _, _ in rows), sum(x * y for x, y, _ in rows), sum(y * y for _, y, _ in rows)
    xd, yd = sum(row[0] * row[2] for row in rows), sum(row[1] * row[2] for row in rows)
    det = xx * yy - xy * xy
    return (xd * yy - yd * xy) / det, (yd * xx - xd * xy) / det
