"""The fonts of the paper, and what they can show."""

from functools import cache
from pathlib import Path

from fontTools.ttLib import TTFont

FONTS = Path(__file__).parent / "fonts"
SHOWN = 12


@cache
def _letters() -> frozenset[int]:
    """Every character that the shipped fonts draw."""
    return frozenset().union(*(TTFont(file).getBestCmap() for file in FONTS.glob("*.woff2")))


def cannot_show(text: str) -> str:
    """Name the characters of a text that the fonts do not draw, as code points; empty when they draw all."""
    missing = sorted({ord(letter) for letter in text if not letter.isspace()} - _letters())
    return ", ".join(f"U+{code:04X}" for code in missing[:SHOWN])
