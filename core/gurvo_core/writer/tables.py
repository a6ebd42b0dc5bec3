"""Tables as they are pasted from a spreadsheet: joints, clearances, parts. Each row becomes one member of the document, or says why not."""

__all__ = ["COLUMNS", "TableKind", "TableRow", "read_table"]

import csv
from collections.abc import Callable, Sequence
from io import StringIO
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field, JsonValue

from gurvo_core.errors import CoreError, WordRefused
from gurvo_core.writer.answers import slug
from gurvo_core.writer.compose.bolts import fasteners_of
from gurvo_core.writer.shorthand.limits import read_limits
from gurvo_core.writer.shorthand.pattern import read_pattern
from gurvo_core.writer.shorthand.stages import read_stages
from gurvo_core.writer.shorthand.words import Piece, count_in, refused

TableKind = Literal["joints", "fits", "kit"]
MOST_ROWS = 200
BETWEEN = ("\t", ";", "|", ",")  # what may stand between cells, the surest first

# what each sort of table has, in order; cells after them are refused
COLUMNS: dict[TableKind, tuple[str, ...]] = {
    "joints": ("name", "how many, how they stand", "how tightened", "thread"),
    "fits": ("name", "limits", "read by"),
    "kit": ("name", "how many", "new, or goes back", "lubricant"),
}
_READ_BY = ("micrometer", "bore", "dial", "feeler", "caliper", "strip")
_HEADS = {"name", "joint", "joints", "part", "parts", "clearance", "fit"}


class TableRow(BaseModel):
    """One row, and what it becomes."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    line: int
    cells: list[str]
    value: dict[str, JsonValue] | None = Field(description="The member that it becomes; null where it cannot be read")
    wrong: str = Field(description="What cannot be read, and what would be right; empty where it can")
    column: int | None = Field(description="In which cell")


def read_table(kind: TableKind, text: str, taken: Sequence[str] = ()) -> list[TableRow]:
    """The rows of a pasted table; ``taken`` are the ids that the document has already."""
    lines = [(n, line) for n, line in enumerate(text.splitlines(), 1) if line.strip()]
    if len(lines) > MOST_ROWS:
        raise refused(Piece("", 0), f"this is more than one table: {len(lines)} rows, {MOST_ROWS} at most")
    between = next((sign for sign in BETWEEN if any(sign in line for _, line in lines)), "\t")
    rows: list[TableRow] = []
    ids = set(taken)
    for n, line in lines:
        cells = [cell.strip() for cell in next(csv.reader(StringIO(line), delimiter=between, skipinitialspace=True))]
        if not rows and cells[0].lower() in _HEADS:
            continue  # a heading
        row = _row(kind, n, cells, ids)
        ids |= {str(row.value["id"])} if row.value else set()
        rows.append(row)
    return rows


def _row(kind: TableKind, line: int, cells: list[str], ids: set[str]) -> TableRow:
    at = 0
    try:
        value = dict[str, Any](_named(cells[0], ids))
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


_CELLS: dict[TableKind, tuple[Callable[[str], dict[str, Any]], ...]] = {
    "joints": (_pattern, _stages, _thread),
    "fits": (_limits, _read_by),
    "kit": (_count, _new_or_back, _lubricant),
}
