"""The fonts of the paper: what they can show, and the only files that are read while it is laid out."""

from functools import cache
from pathlib import Path
from typing import Any

from fontTools.ttLib import TTFont
from weasyprint import default_url_fetcher

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


def fetch_fonts_alone(url: str) -> Any:
    """Read a shipped font; refuse every other address, whatever somebody typed."""
    if not url.startswith(f"{FONTS.as_uri()}/"):
        raise ValueError("nothing is fetched for a record")
    return default_url_fetcher(url)
