"""Files that are handed over, whole or piece by piece."""

from collections.abc import Iterator

from django.http import HttpResponse, StreamingHttpResponse
from django.http.response import HttpResponseBase


def download(content: bytes | Iterator[str], media_type: str, name: str) -> HttpResponseBase:
    """Return a file under its name."""
    kind = HttpResponse if isinstance(content, bytes) else StreamingHttpResponse
    return kind(content, content_type=media_type, headers={"Content-Disposition": f'inline; filename="{name}"'})
