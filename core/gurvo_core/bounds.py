"""What a text must keep to before anything else is asked of it: so large, so deep, each key once, figures within reach.

All of it in one walk each, however strange the text.
"""

__all__ = ["figures_out_of_reach", "key_given_twice", "too_much"]

import re
from collections.abc import Iterator
from typing import Any

from gurvo_core.errors import Fault

MAX_TEXT = 1_000_000  # characters
MAX_GROUPS = 20_000  # lists and groups; the largest document has some hundreds
SMALLEST, LARGEST = 1e-9, 1e9  # no figure of an engine lies beyond, in any unit of the document
MAX_SAID = 20

# strings and comments first, so that nothing in them is taken for a bracket
_TOKEN = re.compile(r"""("(?:\\.|[^"\\])*"|'(?:\\.|[^'\\])*')|//[^\n]*|/\*.*?\*/|([{}\[\],:])|([^\s{}\[\],:"'/]+)""", re.S)


def too_much(text: str) -> str:
    """Return why a text is more than any document, without reading it. House bounds, a hundred times above the largest document."""
    if len(text) > MAX_TEXT:
        return f"This is longer than any engine document ({MAX_TEXT} characters at most); send the document alone."
    if text.count("{") + text.count("[") > MAX_GROUPS:
        return f"This is more than any engine document ({MAX_GROUPS} groups and lists at most); send the document alone."
    return ""


def key_given_twice(text: str) -> str | None:
    """Return the first key that one group gives twice.

    House rule: of two alike a reader quietly keeps the last, so somebody's figure would be lost.
    """
    groups: list[set[str]] = [set()]
    last = ""
    for found in _TOKEN.finditer(text):
        quoted, mark, word = found.groups()
        if quoted or word:
            last = quoted[1:-1] if quoted else word
        elif mark in ("{", "["):
            groups.append(set())
        elif mark in ("}", "]"):
            groups.pop()
        elif mark == ":":
            if last in groups[-1]:
                return last
            groups[-1].add(last)
    return None


def figures_out_of_reach(data: Any) -> list[Fault]:
    """Return a fault for every figure that no engine has.

    House bounds: what is nearer to nothing than 1e-9, or beyond 1e9, is a slip or worse, in mm, degrees and N·m alike.
    """
    found: list[Fault] = []
    waiting: list[tuple[str, Any]] = [("", data)]
    while waiting and len(found) < MAX_SAID:
        path, value = waiting.pop()
        if isinstance(value, (dict, list)):
            waiting += reversed([(f"{path}.{key}" if path else str(key), part) for key, part in _parts(value)])
        elif isinstance(value, (int, float)) and value and not SMALLEST <= abs(value) <= LARGEST:
            found.append(
                Fault(path=path, sentence=f"{value:g} is no figure of an engine; give one between {SMALLEST:g} and {LARGEST:g}, or 0.")
            )
    return found


def _parts(group: dict[str, Any] | list[Any]) -> Iterator[tuple[object, Any]]:
    return iter(group.items()) if isinstance(group, dict) else enumerate(group)
