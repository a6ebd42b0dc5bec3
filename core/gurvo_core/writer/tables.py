"""Pasted tables: joints, clearances, parts, tools; a lift table. Each row says what it becomes, or why not."""

__all__ = ["COLUMNS", "TableKind", "TableRead", "TableRow", "read_table"]

import csv
from collections.abc import Callable
from io import StringIO
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field, JsonValue

from gurvo_core.engine.lift_table import LiftTableChoices, read_lift_table
from gurvo_core.errors import CoreError, WordRefused
from gurvo_core.writer.answers import slug
from gurvo_core.writer.compose.bolts import fasteners_of
from gurvo_core.writer.edits import Add, Set, groups_in
from gurvo_core.writer.shorthand.lash import read_lash
from gurvo_core.writer.shorthand.limits import read_limits
from gurvo_core.writer.shorthand.pattern import read_pattern
from gurvo_core.writer.shorthand.stages import read_stages
from gurvo_core.writer.shorthand.words import Piece, count_in, refused

TableKind = Literal["joints", "fits", "lash", "kit", "tools", "profiles"]
MOST_ROWS = 200
BETWEEN = ("\t", ";", "|", ",")  # what may stand between cells, the surest first

# what each sort of table has, in order; cells after them are refused
COLUMNS: dict[TableKind, tuple[str, ...]] = {
    "joints": ("name", "how many, how they stand", "how tightened", "thread"),
    "fits": ("name", "limits", "read by"),
    "lash": ("valves", "clearance, how it is set"),
    "kit": ("name", "how many", "new, or goes back", "lubricant"),
    "tools": ("step", "tools at hand for it"),
    "profiles": ("cam degrees", "lift, mm"),
}
_READ_BY = ("micrometer", "bore", "dial", "feeler", "caliper", "strip")
_HEADS = {"name", "joint", "joints", "part", "parts", "clearance", "fit", "valve", "valves", "step"}
_VALVES = {"intake": "intake", "in": "intake", "exhaust": "exhaust", "ex": "exhaust"}
_LOBE = "measured lobe"


class TableRow(BaseModel):
    """One row, and what it becomes."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    line: int
    cells: list[str]
    value: dict[str, JsonValue] | None = Field(description="The member that it becomes; null where it cannot be read")
    wrong: str = Field(description="What cannot be read, and what would be right; empty where it can")
    column: int | None = Field(description="In which cell")


class TableRead(BaseModel):
    """A table as it was read, and the edits that it becomes once every row is sound."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    rows: list[TableRow]
    said: list[str] = Field(description="How it was read, where that was guessed")
    wrong: str = Field(description="Why it cannot be put in, the first reason; empty where it can")
    edits: list[Set | Add] = Field(exclude=True)


def read_table(kind: TableKind, text: str, document: dict[str, Any]) -> TableRead:
    """A pasted table, as it would be put into a document."""
    if kind == "profiles":
        return _lobe(text, {str(one.get("id")) for one in groups_in(document, "profiles")})
    rows = _rows(kind, text, document)
    first = next((row for row in rows if row.wrong), None)
    wrong = f"Line {first.line}: {first.wrong}. Put it right, or leave that line out." if first else ""
    sound = [row.value for row in rows if row.value is not None]
    return TableRead(rows=rows, said=[], wrong=wrong, edits=_edits(kind, sound, document))


def _edits(kind: TableKind, rows: list[dict[str, Any]], document: dict[str, Any]) -> list[Set | Add]:
    if kind == "tools":
        return [Set(at=f"{row['step']}/tools", value=row["tools"]) for row in rows]
    if kind == "lash":  # one for each sort of valve: what is pasted takes the place of what was said
        said = {str(one.get("valve")): one for one in groups_in(document, kind)}
        said |= {str(row["valve"]): {**said.get(str(row["valve"]), {}), **row} for row in rows}
        return [Set(at="/lash", value=list(said.values()))] if rows else []
    return [Add(to=f"/{kind}", value=row) for row in rows]


def _lobe(text: str, taken: set[str]) -> TableRead:
    """A lift table, under the name that may stand on its first line: one profile, or why it is none."""
    first, _, rest = text.lstrip().partition("\n")
    is_name = not any(sign in first for sign in "\t;,|0123456789") and bool(first.strip()) and bool(rest.strip())
    named = _named((first.strip() if is_name else _LOBE)[:120], taken)
    table = read_lift_table(rest if is_name else text, LiftTableChoices(id=named["id"]))
    pairs = zip(table.cam_deg, table.lobe_lift_mm, strict=True)
    rows = [TableRow(line=n, cells=[f"{deg:g}", f"{mm:g}"], value=None, wrong="", column=None) for n, (deg, mm) in enumerate(pairs, 1)]
    if table.profile is None:
        return TableRead(rows=rows, said=table.said, wrong=table.faults[0], edits=[])
    said = [*table.said, f"{len(rows)} points, {table.profile.top_mm:g} mm at the nose, as “{named['id']}”; lobes name it by that."]
    return TableRead(rows=rows, said=said, wrong="", edits=[Add(to="/profiles", value=table.profile.model_dump(mode="json"))])


def _rows(kind: TableKind, text: str, document: dict[str, Any]) -> list[TableRow]:
    lines = [(n, line) for n, line in enumerate(text.splitlines(), 1) if line.strip()]
    if len(lines) > MOST_ROWS:
        raise refused(Piece("", 0), f"this is more than one table: {len(lines)} rows, {MOST_ROWS} at most")
    between = next((sign for sign in BETWEEN if any(sign in line for _, line in lines)), "\t")
    rows: list[TableRow] = []
    ids = {str(one.get("id")) for one in groups_in(document, kind)}
    steps = _steps(document) if kind == "tools" else {}
    for n, line in lines:
        cells = [cell.strip() for cell in next(csv.reader(StringIO(line), delimiter=between, skipinitialspace=True))]
        if not rows and cells[0].lower() in _HEADS:
            continue  # a heading
        row = _row(kind, n, cells, ids, steps)
        ids |= {str(row.value.get("id"))} if row.value else set()
        rows.append(row)
    return rows


def _steps(document: dict[str, Any]) -> dict[str, str]:
    """Steps by what they say and by their id, each with its place."""
    found: dict[str, str] = {}
    for stage in groups_in(document, "stages"):
        for step in groups_in(stage, "steps"):
            at = f"/stages/{stage.get('id')}/steps/{step.get('id')}"
            found |= {str(step.get("id")).lower(): at, str(step.get("says")).lower(): at}
    return found


def _first(kind: TableKind, cell: str, ids: set[str], steps: dict[str, str]) -> dict[str, Any]:
    """What the first cell of a row says: whose row it is."""
    if kind == "lash":
        if cell.lower() not in _VALVES:
            raise refused(Piece(cell, 0), f"“{cell[:20]}” is no sort of valve; write intake or exhaust")
        return {"valve": _VALVES[cell.lower()]}
    if kind == "tools":
        if cell.lower() not in steps:
            raise refused(Piece(cell, 0), f"no step says “{cell[:40]}”; write it as the run of work has it")
        return {"step": steps[cell.lower()]}
    return _named(cell, ids)


def _row(kind: TableKind, line: int, cells: list[str], ids: set[str], steps: dict[str, str]) -> TableRow:
    at = 0
    try:
        value = _first(kind, cells[0], ids, steps)
        if len(cells) > len(COLUMNS[kind]):
            at = len(COLUMNS[kind])
            raise refused(Piece(cells[at], 0), f"there are {len(cells)} cells, and {at} columns: {', '.join(COLUMNS[kind])}")
        for at, (cell, read) in enumerate(zip(cells[1:], _CELLS[kind], strict=False), 1):  # noqa: B007 - said where one is refused
            value |= read(cell) if cell else {}
    except CoreError as error:
        said = (
            f"“{error.value}”: {error}"
            if isinstance(error, WordRefused) and error.value and str(error.value) not in str(error)
            else str(error)
        )
        return TableRow(line=line, cells=cells, value=None, wrong=said, column=at)
    if kind == "joints":
        value.setdefault("stages", [{"does": "torque"}])
    if len(value) == 1 and kind in ("lash", "tools"):  # whose row it is, and nothing of it
        wrong = f"this row says nothing of it; write {COLUMNS[kind][1]} in its second cell"
        return TableRow(line=line, cells=cells, value=None, wrong=wrong, column=1)
    return TableRow(line=line, cells=cells, value=value, wrong="", column=None)


def _named(name: str, ids: set[str]) -> dict[str, Any]:
    if not name:
        raise refused(Piece(name, 0), "a row begins with a name; write what the shop calls it")
    if len(name) > 120:
        raise refused(Piece(name[:20], 0), "this name is longer than 120 characters; write it shorter")
    plain = slug(name)
    ident = next(one for one in (plain, *(f"{plain}-{n}" for n in range(2, MOST_ROWS * 2))) if one not in ids)
    return {"id": ident, "name": name}


def _pattern(cell: str) -> dict[str, Any]:
    return fasteners_of(read_pattern(cell))


def _stages(cell: str) -> dict[str, Any]:
    return {"stages": list(read_stages(cell))}


def _thread(cell: str) -> dict[str, Any]:
    if len(cell) > 40:
        raise refused(Piece(cell[:20], 0), "a thread is written such as M10x1.5 or 7/16-14 UNC")
    return {"thread": cell}


def _limits(cell: str) -> dict[str, Any]:
    least, most = read_limits(cell)
    return {key: limit for key, limit in (("least_mm", least), ("most_mm", most)) if limit is not None}


def _read_by(cell: str) -> dict[str, Any]:
    if cell.lower() not in _READ_BY:
        raise refused(Piece(cell, 0), f"“{cell[:20]}” is no gauge for this; write one of {', '.join(_READ_BY)}")
    return {"read_by": [cell.lower()]}


def _count(cell: str) -> dict[str, Any]:
    return {"count": count_in(Piece(cell, 0), "number of parts", most=500)}


def _new_or_back(cell: str) -> dict[str, Any]:
    sorts: dict[str, dict[str, Any]] = {"new": {"one_time": True}, "goes back": {"returns": True}, "back": {"returns": True}}
    if cell.lower() not in sorts:
        raise refused(Piece(cell, 0), f"“{cell[:20]}” says neither; write new, or goes back")
    return sorts[cell.lower()]


def _lubricant(cell: str) -> dict[str, Any]:
    return {"lubricant": cell[:120]}


def _set_by(cell: str) -> dict[str, Any]:
    said = read_lash(cell)
    least, most = said.limits
    return {"least_mm": least, "most_mm": most, "engine_is": said.engine_is, "set_by": said.set_by}


def _tools(cell: str) -> dict[str, Any]:
    return {"tools": [one.strip()[:120] for one in cell.split(",") if one.strip()]}


_CELLS: dict[TableKind, tuple[Callable[[str], dict[str, Any]], ...]] = {
    "joints": (_pattern, _stages, _thread),
    "fits": (_limits, _read_by),
    "lash": (_set_by,),
    "tools": (_tools,),
    "profiles": (),
    "kit": (_count, _new_or_back, _lubricant),
}
