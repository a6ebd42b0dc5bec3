"""What a room hands over to a spreadsheet: a table of everything of its own that stands."""

__all__ = ["Table"]

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Generic, TypeVar

from pydantic import BaseModel

S = TypeVar("S")


@dataclass(frozen=True, kw_only=True)
class Table(Generic[S]):
    """A table, by the name of its file. Its columns are the fields of its rows, their units in the names."""

    name: str
    title: str
    row: type[BaseModel]
    rows: Callable[[S], Iterable[BaseModel]]
