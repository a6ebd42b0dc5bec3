"""Where a bracket of a text is never closed, or closed with another: readers of JSON stop far behind it."""

__all__ = ["unmatched_bracket"]

import re

_PAIRS = {"{": "}", "[": "]"}
# what may hold brackets that are none: texts in either sort of quotes, comments; and the brackets themselves
_TOKEN = re.compile(r""""(?:\\.|[^"\\\n])*"|'(?:\\.|[^'\\\n])*'|//[^\n]*|/\*.*?\*/|[{}\[\]]""", re.DOTALL)


def unmatched_bracket(text: str) -> str:
    """What is wrong with the brackets of a JSON or JSON5 text and in which line; empty where each has its own."""
    opened: list[tuple[str, int]] = []
    for token in _TOKEN.finditer(text):
        sign = token.group()
        line = text.count("\n", 0, token.start()) + 1
        if sign in _PAIRS:
            opened.append((sign, line))
        elif sign in _PAIRS.values():
            if not opened:
                return f"the {sign} in line {line} closes nothing: one more than was opened"
            begun, at = opened.pop()
            if _PAIRS[begun] != sign:
                return f"the {begun} of line {at} is closed with {sign} in line {line}; a {_PAIRS[begun]} is missing before it"
    return f"the {opened[-1][0]} of line {opened[-1][1]} is never closed" if opened else ""
