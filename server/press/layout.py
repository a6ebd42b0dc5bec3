"""Laying paper out, in the process aside: what does it takes most of a second to import."""

import gc
import logging
import re
from base64 import b64decode
from functools import cache
from pathlib import Path
from typing import Any

from weasyprint import CSS, HTML
from weasyprint.logger import PROGRESS_LOGGER
from weasyprint.text.fonts import FontConfiguration
from weasyprint.urls import URLFetcher, URLFetcherResponse

from press.aside import tell
from press.fonts_of import FONTS
from press.long_words import breakable
from press.one_page import fitted
from press.pictures import on_paper

PICTURE = r"picture:[0-9a-f]{64}"
WITHIN = "data:image/jpeg;base64,"  # the shop's own mark stands within the page


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
    return CSS(FONTS / "faces.css", url_fetcher=WhatShips(None), font_config=config), config


def lay_out(page: str, pictures: Path | None = None) -> bytes:
    """Lay a page out."""

    def html_of(page: str) -> HTML:
        return HTML(string=page, base_url=f"{FONTS.as_uri()}/", url_fetcher=WhatShips(pictures))

    def pages_of(page: str) -> int:
        return len(html_of(page).render(stylesheets=[faces], font_config=config).pages)

    pages = _TellPages()
    PROGRESS_LOGGER.addHandler(pages)
    PROGRESS_LOGGER.setLevel(logging.INFO)
    gc.disable()  # a layout is one large web of boxes that all live to its end: looking for garbage in it takes a tenth of the time
    try:
        faces, config = _fonts()
        pdf = html_of(fitted(breakable(page), pages_of)).write_pdf(stylesheets=[faces], font_config=config)
    finally:
        gc.enable()
        PROGRESS_LOGGER.removeHandler(pages)
    assert isinstance(pdf, bytes)
    return pdf


class WhatShips(URLFetcher):  # type: ignore[misc]
    """Reads shipped fonts and the shop's pictures; refuses every other address, whatever somebody typed, and is sent nowhere else."""

    def __init__(self, pictures: Path | None) -> None:
        super().__init__(allowed_protocols={"file"}, allow_redirects=False)
        self._pictures = pictures

    def fetch(self, url: str, headers: dict[str, str] | None = None) -> Any:
        """Read one."""
        if self._pictures is not None and re.fullmatch(PICTURE, url):
            return URLFetcherResponse(url, body=on_paper(self._pictures, url[-64:]), headers={"Content-Type": "image/jpeg"})
        if url.startswith(WITHIN):
            return URLFetcherResponse(url, body=b64decode(url.removeprefix(WITHIN)), headers={"Content-Type": "image/jpeg"})
        if not url.startswith(f"{FONTS.as_uri()}/") or ".." in url:
            raise ValueError("nothing is fetched for a record")
        return super().fetch(url, headers)
