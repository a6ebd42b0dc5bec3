"""A ledger as it is handed to the press."""

from typing import NamedTuple


class LedgerRow(NamedTuple):
    """An entry as it is printed."""

    day: str
    number: str
    at: str
    title: str
    value: str
    aside: str  # with what it was read
    by: str
    remarks: tuple[str, ...] = ()  # why it was taken all the same, who struck it
    is_struck: bool = False


class LedgerPages(NamedTuple):
    """A ledger to be printed, on which sheet, under which heading."""

    sheet: str
    heading: str
    columns: tuple[str, str, str, str, str]
    rows: tuple[LedgerRow, ...]
