"""How many fasteners and where they stand: ``10``, ``2 x 5 middle outward``, ``circle of 6 crosswise``, ``4 in line``."""

__all__ = ["Bolts", "read_pattern", "write_pattern"]

import re
from typing import Literal, NamedTuple, get_args

from gurvo_core.writer.shorthand.words import Piece, count_in, refused

Rule = Literal["middle_outward", "crosswise", "opposing", "round"]
Kind = Literal["rows", "circle", "line", "pairs"]
MOST = 60
_FORMS = re.compile(
    r"(?:(?P<rows>\S+)\s*[x×]\s*(?P<columns>\S+)|circle of (?P<circle>\S+)|(?P<line>\S+) in line|(?P<pairs>\S+) pairs|(?P<count>\S+))"
    r"(?:\s+(?P<rule>middle outward|crosswise|opposing|round))?",
    re.I,
)


class Bolts(NamedTuple):
    """So many of a joint; where they stand and how an order is worked out, as far as known."""

    number: int
    kind: Kind | None = None
    rows: int = 1
    rule: Rule | None = None

    @property
    def columns(self) -> int:
        """How many along the joint."""
        return self.number // self.rows


def read_pattern(text: str) -> Bolts:
    """The fasteners in a line."""
    found = _FORMS.fullmatch(text.strip())
    if found is None:
        raise refused(
            Piece(text, 0), "this is no number of bolts; write such as 10, 2 x 5 middle outward, circle of 6 crosswise or 4 in line"
        )
    begin = len(text) - len(text.lstrip())

    def number(name: str, most: int = MOST) -> int:
        return count_in(Piece(found[name], begin + found.start(name)), "number of bolts", most=most)

    said = (found["rule"] or "").lower().replace(" ", "_")
    rule = next((one for one in get_args(Rule) if one == said), None)
    if found["rows"]:
        rows = number("rows", 6)
        return Bolts(rows * number("columns"), "rows", rows, rule)
    if found["circle"]:
        return Bolts(number("circle"), "circle", rule=rule)
    if found["line"]:
        return Bolts(number("line"), "line", rule=rule)
    if found["pairs"]:
        return Bolts(2 * number("pairs"), "pairs", 2, rule)
    return Bolts(number("count", 200), rule=rule)


def write_pattern(bolts: Bolts) -> str:
    """The same line in its one form."""
    forms = {
        "rows": f"{bolts.rows} x {bolts.columns}",
        "circle": f"circle of {bolts.number}",
        "line": f"{bolts.number} in line",
        "pairs": f"{bolts.columns} pairs",
        None: str(bolts.number),
    }
    return forms[bolts.kind] + (f" {bolts.rule.replace('_', ' ')}" if bolts.rule else "")
