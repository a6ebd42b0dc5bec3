"""Laying paper out, in the process aside: what does it takes most of a second to import."""

import gc
import logging
from functools import cache
from typing import Any

from weasyprint import CSS, HTML
from weasyprint.logger import PROGRESS_LOGGER
from weasyprint.text.fonts import FontConfiguration
from weasyprint.urls import URLFetcher

from press.aside import tell
from press.fonts_of import FONTS


class _TellPages(logging.Handler):
    """Tells how many pages are laid out; pages are numbered once for the layout, then again as they are drawn."""

    def emit(self, record: logging.LogRecord) -> None:
        """Take the number out of a line that ends in “Page 7”."""
        word, _, number = record.getMessage().rpartition(" ")
        if word.endswith("Page") and number.isdigit():
            tell(int(number))


@cache
def _fonts() -> tuple[CSS, FontConfiguration]:
    """The shipped fonts, unpacked once for all papers of this process."""
    config = FontConfiguration()
    return CSS(FONTS / "faces.css", url_fetcher=FETCHER, font_config=config), config


def lay_out(page: str) -> bytes:
    """Lay a page out."""
    html = HTML(string=page, base_url=f"{FONTS.as_uri()}/", url_fetcher=FETCHER)
    pages = _TellPages()
    PROGRESS_LOGGER.addHandler(pages)
    PROGRESS_LOGGER.setLevel(logging.INFO)
    gc.disable()  # a layout is one large web of boxes that all live to its end: looking for garbage in it takes a tenth of the time
    try:
        faces, config = _fonts()
        pdf = html.write_pdf(stylesheets=[faces], font_config=config)
    finally:
        gc.enable()
        PROGRESS_LOGGER.removeHandler(pages)
    assert isinstance(pdf, bytes)
    return pdf


class FontsAlone(URLFetcher):  # type: ignore[misc]
    """Reads shipped fonts; refuses every other address, whatever somebody typed, and is sent nowhere else."""

    def fetch(self, url: str, headers: dict[str, str] | None = None) -> Any:
        """Read one."""
        if not url.startswith(f"{FONTS.as_uri()}/") or ".." in url:
            raise ValueError("nothing is fetched for a record")
        return super().fetch(url, headers)


FETCHER = FontsAlone(allowed_protocols={"file"}, allow_redirects=False)
