"""Lift profiles from a measured table: text with columns in, a profile or the reasons why it is none out.

Columns are named or guessed, and what was guessed is said. Angles may be cam or crank degrees from any zero; lifts mm or inches. The nose
is put at 0. Nothing is smoothed: a lift below ``base_circle_mm`` is set to 0 only when that is asked for.
"""

__all__ = ["LiftTable", "LiftTableChoices", "read_lift_table"]

import csv
import io
from itertools import pairwise
from statistics import median
from typing import Literal

from pydantic import BaseModel, ConfigDict, Field

from gurvo_core.angles import signed_deg
from gurvo_core.engine.misread import Suspect, suspects_in
from gurvo_core.engine.part import Word
from gurvo_core.engine.profiles import MAX_POINTS, MIN_POINTS, LiftProfile
from gurvo_core.units import per_unit

MAX_ROWS = 5000
WIDE_GAP = 3.5  # times the usual step
SECOND_NOSE = 0.1  # of the top: a smaller rise on a flank is a dip, a larger one another nose
ANGLE_WORDS, LIFT_WORDS = ("deg", "angle", "°"), ("lift", "rise", "mm", "inch")
NOSE_DECIMALS = 2  # a hundredth of a cam degree is finer than any table
Points = list[tuple[int, float, float]]  # line of the file, angle, lift


class LiftTableChoices(BaseModel):
    """How a table is to be read; what is left out is guessed."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    id: Word = "measured-lobe"
    angle_column: int | None = Field(default=None, ge=0, le=99)
    lift_column: int | None = Field(default=None, ge=0, le=99)
    angles_are: Literal["cam", "crank"] | None = None
    lift_unit: Literal["mm", "in"] | None = None
    base_circle_mm: float = Field(default=0, ge=0, le=0.5, description="Lifts below this are base circle [mm]")


class LiftTable(BaseModel):
    """A table as it was read: columns, points from the nose, what looks mis-read, and the profile when it is a lobe."""

    model_config = ConfigDict(extra="forbid")

    columns: list[str] = []
    choices: LiftTableChoices
    said: list[str] = []
    cam_deg: list[float] = []
    lobe_lift_mm: list[float] = []
    suspects: list[Suspect] = []
    faults: list[str] = []
    profile: LiftProfile | None = None


class _NoTable(Exception):  # noqa: N818 - carries one sentence to the reader below
    pass


def read_lift_table(text: str, choices: LiftTableChoices) -> LiftTable:
    r"""Return a lift profile from the text of a table.

    Returned: its ``profile`` is None when the table is not a lobe; ``faults`` then say why, and ``cam_deg`` and ``lobe_lift_mm`` [deg, mm]
        still hold what could be read.
    Rises to one nose and falls after it, no gaps, no doubles, begins and ends on the base circle.
    """
    table = LiftTable(choices=choices)
    try:
        names, rows = _rows(text)
        table.columns = names
        table.choices, table.said = _guess(names, rows, choices)
        points = _points(rows, table.choices)
        points = _from_nose(points, table.said)
    except _NoTable as reason:
        table.faults = [str(reason)]
        return table
    table.cam_deg, table.lobe_lift_mm = [p[1] for p in points], [p[2] for p in points]
    table.faults = _not_a_lobe(points)
    table.suspects = suspects_in(points)
    if not table.faults:
        table.profile = LiftProfile(id=table.choices.id, cam_deg=tuple(table.cam_deg), lobe_lift_mm=tuple(table.lobe_lift_mm))
    return table


def _number(cell: str) -> float | None:
    try:
        value = float(cell.strip().replace(",", "."))
    except ValueError:
        return None
    return value if abs(value) < 1e6 else None


def _rows(text: str) -> tuple[list[str], list[tuple[int, list[str]]]]:
    """Names of the columns, and the other lines with their numbers."""
    lines = [
        (n, line) for n, line in enumerate(text.replace("\r", "").split("\n"), 1) if line.strip() and not line.lstrip().startswith("#")
    ]
    if not lines:
        raise _NoTable("There are no lines here; give one line for each angle: angle, lift.")
    if len(lines) > MAX_ROWS:
        raise _NoTable(f"There are {len(lines)} lines; a lobe has at most {MAX_ROWS}.")
    first = lines[0][1]
    mark = next((mark for mark in (";", "\t", ",") if mark in first), None)
    split = [(n, next(csv.reader(io.StringIO(line), delimiter=mark)) if mark else line.split()) for n, line in lines]
    header = any(_number(cell) is None for cell in split[0][1])
    width = len(split[0][1])
    if width < 2:
        raise _NoTable("There is one column only; give two: angle and lift, with a comma, semicolon or tab between them.")
    names = [cell.strip() for cell in split[0][1]] if header else [f"column {n + 1}" for n in range(width)]
    return names, split[1:] if header else split


def _guess(names: list[str], rows: list[tuple[int, list[str]]], choices: LiftTableChoices) -> tuple[LiftTableChoices, list[str]]:
    """Fill in what was left out, and say so."""
    said = []
    low = [name.lower() for name in names]
    angle, lift = choices.angle_column, choices.lift_column
    if angle is None:
        named = next((n for n, name in enumerate(low) if any(word in name for word in ANGLE_WORDS)), None)
        angle = named if named is not None else _growing_column(rows, lift)
        said.append(f"Angles are taken from “{names[angle]}”.")
    if lift is None:
        others = [n for n in range(len(names)) if n != angle]
        lift = next((n for n in others if any(word in low[n] for word in LIFT_WORDS)), others[0])
        said.append(f"Lifts are taken from “{names[lift]}”.")
    if max(angle, lift) >= len(names) or angle == lift:
        raise _NoTable(f"Choose two of the {len(names)} columns: one for the angles and another for the lifts.")
    angles_are = choices.angles_are or ("crank" if "crank" in low[angle] else "cam")
    unit: Literal["mm", "in"] = choices.lift_unit or ("in" if "inch" in low[lift] or low[lift].endswith((" in", "_in", "(in)")) else "mm")
    if choices.angles_are is None:
        said.append(f"Angles are read as {angles_are} degrees.")
    if choices.lift_unit is None:
        said.append(f"Lifts are read as {'inches' if unit == 'in' else 'millimetres'}.")
    chosen = {"angle_column": angle, "lift_column": lift, "angles_are": angles_are, "lift_unit": unit}
    return choices.model_copy(update=chosen), said


def _growing_column(rows: list[tuple[int, list[str]]], but: int | None) -> int:
    """The first column whose figures grow all the way, as angles do; the first of all when none does."""
    for at in range(len(rows[0][1]) if rows else 0):
        figures = [_number(cells[at]) if at < len(cells) else None for _, cells in rows]
        if at != but and all(a is not None and b is not None and b > a for a, b in pairwise(figures)):
            return at
    return 0 if but != 0 else 1


def _points(rows: list[tuple[int, list[str]]], choices: LiftTableChoices) -> Points:
    angle_at, lift_at = choices.angle_column or 0, choices.lift_column or 0
    to_mm, to_cam = per_unit(choices.lift_unit or "mm"), 0.5 if choices.angles_are == "crank" else 1.0
    points: Points = []
    for number, cells in rows:
        figures = [_number(cells[at]) if at < len(cells) else None for at in (angle_at, lift_at)]
        if figures[0] is None or figures[1] is None:
            raise _NoTable(f"Line {number} has no figure for {'the angle' if figures[0] is None else 'the lift'}; correct or remove it.")
        lift_mm = figures[1] * to_mm
        points.append((number, figures[0] * to_cam, 0.0 if abs(lift_mm) < choices.base_circle_mm else lift_mm))
    if len(points) < MIN_POINTS:
        raise _NoTable(f"There are {len(points)} points; a lobe needs {MIN_POINTS} at least.")
    return points


def _from_nose(points: Points, said: list[str]) -> Points:
    """Put the nose at 0, in the middle of the points that stand highest, and the rest in order either side of it."""
    ordered = sorted(points, key=lambda point: point[1])
    if ordered[-1][1] - ordered[0][1] > 360:
        raise _NoTable("The angles run over more than one turn of the cam; are they crank degrees?")
    top = max(point[2] for point in ordered)
    if ordered[-1][1] - ordered[0][1] == 360 and ordered[0][2] == ordered[-1][2]:
        ordered = ordered[:-1]
    highest = [point for point in ordered if point[2] == top]
    nose_deg, nose_mm = _nose(ordered, highest)
    if nose_deg != 0:
        said.append(f"The nose is at {nose_deg:g}° of the table's angles (cam degrees); it is put at 0.")
    moved = sorted(((n, signed_deg(deg - nose_deg), lift) for n, deg, lift in ordered), key=lambda point: point[1])
    moved = [(n, round(deg, 6) + 0.0, lift) for n, deg, lift in moved]
    if not any(deg == 0 for _, deg, _ in moved):
        said.append(f"No line stands at the nose; one is added there at {nose_mm:.3f} mm.")
        moved = sorted([*moved, (highest[0][0], 0.0, nose_mm)], key=lambda point: point[1])
    return moved


def _nose(ordered: Points, highest: Points) -> tuple[float, float]:
    """Angle and lift of the nose: the vertex of a parabola through the highest line and its neighbours, or the middle of a flat top.

    The highest line itself may be off by half the step between lines.
    """
    flat_deg = signed_deg(highest[-1][1] - highest[0][1])
    if len(highest) > 1:
        return round(highest[0][1] + flat_deg / 2, NOSE_DECIMALS), highest[0][2]
    at = ordered.index(highest[0])
    before, after = ordered[at - 1], ordered[(at + 1) % len(ordered)]
    left, right = signed_deg(highest[0][1] - before[1]), signed_deg(after[1] - highest[0][1])
    if not (left > 0 and right > 0):
        return highest[0][1], highest[0][2]
    # lift = top - a x^2 + b x from the highest line, through both neighbours
    fall_left, fall_right = highest[0][2] - before[2], highest[0][2] - after[2]
    a = (fall_left / left + fall_right / right) / (left + right)
    b = a * left - fall_left / left
    off_deg = b / (2 * a)
    return round(highest[0][1] + off_deg, NOSE_DECIMALS), highest[0][2] + b * off_deg / 2


def _not_a_lobe(points: Points) -> list[str]:
    faults = []
    top = max(point[2] for point in points)
    if not top > 0:
        return ["No lift is above 0; look at the columns and the unit."]
    if min(point[2] for point in points) < 0:
        faults.append("A lift is below 0: set the dial to 0 on the base circle, or give the lifts their sign.")
    if len(points) > MAX_POINTS:
        faults.append(f"There are {len(points)} points; a profile holds {MAX_POINTS} at most.")
    for a, b in pairwise(points):
        if b[1] == a[1]:
            faults.append(f"Lines {a[0]} and {b[0]} are for the same angle; keep one.")
    usual = median(b[1] - a[1] for a, b in pairwise(points))
    for a, b in pairwise(points):
        if b[1] - a[1] > WIDE_GAP * usual and max(a[2], b[2]) > 0:
            faults.append(f"Between lines {a[0]} and {b[0]} there is a gap of {b[1] - a[1]:g} cam degrees; take the readings between.")
    for name, end in (("begins", points[0]), ("ends", points[-1])):
        if end[2] != 0:
            faults.append(f"It {name} at {end[2]:.3f} mm (line {end[0]}), not on the base circle; add lines down to 0 there.")
    return faults + _dips(points, top)


def _dips(points: Points, top: float) -> list[str]:
    """Where a flank does not go one way."""
    nose = next(n for n, point in enumerate(points) if point[1] == 0)
    sides = (("opening", points[: nose + 1]), ("closing", points[nose:][::-1]))
    faults = []
    for name, side in sides:
        highest = 0.0
        dips = []
        for point in side:
            if point[2] < highest:
                dips.append((point, highest - point[2]))
            highest = max(highest, point[2])
        if not dips:
            continue
        worst = max(dips, key=lambda dip: dip[1])
        if worst[1] > SECOND_NOSE * top:
            faults.append(f"There are two noses: the {name} side falls by {worst[1]:.2f} mm at line {worst[0][0]} and rises again.")
        else:
            faults.append(f"The {name} side does not rise all the way to the nose: line {worst[0][0]} is {worst[1]:.3f} mm too low.")
    return faults
