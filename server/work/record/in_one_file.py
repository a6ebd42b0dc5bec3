"""The record as one page of HTML that opens anywhere: what paper says, its pictures within it, nothing fetched."""

__all__ = ["as_html"]

import base64
import re
from pathlib import Path

from django.http import Http404
from django.template.loader import render_to_string

from shop.letterhead import in_shops_time
from work.models import Engine
from work.pictures import picture_file, small_file
from work.record.paper import shown_on_paper

LARGE_UP_TO = 25_000_000  # bytes of pictures as they are kept; those after are small
_PICTURE = re.compile(r"picture:([0-9a-f]{64})")
ON_SCREEN = """<style>
@media screen {
  html { background: #E6E2D9; }
  td, th { white-space: normal !important; }
  * { overflow-wrap: break-word !important; } /* as a browser counts letters as words else, where a table is narrow */
  body { font-family: Archivo, system-ui, sans-serif; }
  body { max-width: 200mm; margin: 10mm auto; padding: 14mm 16mm; background: #FFFDF8; box-sizing: content-box; }
}
@media screen and (max-width: 700px) { body { margin: 0; padding: 5mm; } }
</style>
<meta name="viewport" content="width=device-width">
</head>"""


def as_html(engine: Engine) -> bytes:
    """Return the record of an engine as one file, by the shop's clock."""
    with in_shops_time():
        page = render_to_string("work/record.html", shown_on_paper(engine))
    return _with_pictures(page.replace("</head>", ON_SCREEN, 1)).encode()


def _with_pictures(page: str) -> str:
    left = LARGE_UP_TO

    def within(named: re.Match[str]) -> str:
        nonlocal left
        file = _file(named[1], left)
        content = file.read_bytes() if file else b""
        left -= len(content)
        return f"data:image/jpeg;base64,{base64.b64encode(content).decode()}"

    return _PICTURE.sub(within, page)


def _file(digest: str, left: int) -> Path | None:
    """A picture's file, the small one where little room is left; None of one that is missing."""
    whole = picture_file(digest)
    if whole.exists() and whole.stat().st_size <= left:
        return whole
    try:
        return small_file(digest)
    except Http404:
        return None
