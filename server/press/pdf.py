"""Paper from a page of HTML."""

from press.aside import aside

PAPER = "paper"


def pdf_of(page: str) -> bytes:
    """Return a page of HTML as PDF, laid out aside. Raises Stopped when somebody stopped it."""
    return aside(PAPER, _laid_out, page)


def _laid_out(page: str) -> bytes:
    from press.layout import lay_out

    return lay_out(page)
