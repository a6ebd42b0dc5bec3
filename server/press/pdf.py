"""Paper from a page of HTML."""

from pathlib import Path

from press.aside import aside

PAPER = "paper"


def pdf_of(page: str, pictures: Path | None = None) -> bytes:
    """Return a page of HTML as PDF, laid out aside. Raises Stopped when somebody stopped it.

    pictures: the folder of those that the page names as ``picture:`` and a digest.
    """
    return aside(PAPER, _laid_out, page, pictures)


def _laid_out(page: str, pictures: Path | None) -> bytes:
    from press.layout import lay_out

    return lay_out(page, pictures)
