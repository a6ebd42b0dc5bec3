"""Answers that a page keeps in its memory: each has a tag, and is sent again only when the tag has changed. Large ones go out packed."""

import gzip
from functools import lru_cache
from hashlib import sha256

from django.http import HttpRequest, HttpResponse
from django.utils.cache import get_conditional_response, patch_vary_headers


def etag(tag: str) -> str:
    """Return a tag as it is sent."""
    return f'"{sha256(tag.encode()).hexdigest()[:32]}"'


def unchanged(request: HttpRequest, tag: str) -> HttpResponse | None:
    """Say that nothing has changed to somebody who has the answer of this tag; None for everybody else."""
    if "If-None-Match" not in request.headers:
        return None
    return get_conditional_response(request, etag=etag(tag), response=None)


@lru_cache(maxsize=64)
def _packed(text: str) -> bytes:
    return gzip.compress(text.encode())


def json_answer(text: str, *, tag: str, packed_for: HttpRequest | None = None) -> HttpResponse:
    """Answer with JSON under a tag: the page keeps it and asks each time whether it still holds."""
    packed = packed_for is not None and "gzip" in packed_for.headers.get("Accept-Encoding", "")
    answer = HttpResponse(_packed(text) if packed else text, content_type="application/json")
    if packed:
        answer["Content-Encoding"] = "gzip"
    if packed_for is not None:
        patch_vary_headers(answer, ["Accept-Encoding"])
    answer["ETag"] = etag(tag)
    return answer
