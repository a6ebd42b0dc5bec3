"""Paper from a page of HTML."""

from pathlib import Path

from press.aside import aside
from press.ledger_rows import LedgerPages

PAPER = "paper"
LEAF = '<div style="break-before: page"></div>'  # a blank page with the foot and the number of all others


def pdf_of(page: str, pictures: Path | None = None, ledger: LedgerPages | None = None) -> bytes:
    """Return a page of HTML as PDF, laid out aside. Raises Stopped when somebody stopped it.

    pictures: the folder of those that the page names as ``picture:`` and a digest; ledger: what is printed on the pages after all others.
    """
    return aside(PAPER, _laid_out, page, pictures, ledger)


def _laid_out(page: str, pictures: Path | None, ledger: LedgerPages | None) -> bytes:
    from press.layout import lay_out

    if ledger is None or not ledger.rows:
        return lay_out(page, pictures)
    from press.ledger_pages import drawn, put_on

    pages, leaves = drawn(ledger)
    return put_on(lay_out(page.replace("</body>", f"{LEAF * leaves}</body>"), pictures), pages)
