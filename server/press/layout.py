"""Paper from a page of HTML."""

from weasyprint import HTML
from weasyprint.text.fonts import FontConfiguration

from press.aside import aside
from press.fonts_of import FONTS, fetch_fonts_alone


def pdf_of(page: str) -> bytes:
    """Return a page of HTML as PDF, laid out aside."""
    return aside("paper", lay_out, page)


def lay_out(page: str) -> bytes:
    """Lay a page out."""
    html = HTML(string=page, base_url=f"{FONTS.as_uri()}/", url_fetcher=fetch_fonts_alone)
    pdf = html.write_pdf(font_config=FontConfiguration())
    assert isinstance(pdf, bytes)
    return pdf
