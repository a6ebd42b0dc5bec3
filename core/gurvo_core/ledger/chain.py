"""The chain: every row of a ledger is sealed over its whole content and the row before it.

Whoever alters, moves, adds or takes away a row breaks every seal after it. The last seal, the head, is kept beside the ledger and
stands in every record that is handed out, so that a tail cut off shows as well.
"""

__all__ = ["START", "content_of", "digest_of", "misfit", "record_misfit", "short"]

import hashlib
from collections.abc import Mapping
from datetime import UTC, datetime
from typing import Any

import rfc8785

START = "0" * 64  # what the first row of a ledger has before it
SHORT, GROUP = 16, 4


def digest_of(value: Any) -> str:
    """Return the digest of plain JSON data.

    Source: [jcs] RFC 8785, JSON Canonicalization Scheme; [sha] FIPS 180-4.
    >>> digest_of({"b": 1.0, "a": []}) == digest_of({"a": [], "b": 1})
    True
    """
    return hashlib.sha256(rfc8785.dumps(value)).hexdigest()


def content_of(plain: Mapping[str, Any], *, engine: str, document: str, before: str) -> dict[str, Any]:
    """Return what the seal of one row covers. Everything that is handed out is covered."""
    times = {name: _utc(plain[name]) for name in ("at", "typed_at")}
    return {**plain, **times, "engine": engine, "document": document, "before": before}


def _utc(moment: datetime | None) -> str | None:
    return moment.astimezone(UTC).isoformat() if moment else None


def misfit(content: Mapping[str, Any], digest: str, *, seq: int, before: str) -> str:
    """Return what does not fit about one row. The first row that does not fit is named."""
    if content["seq"] != seq:
        return f"entry {seq} is missing"
    if content["before"] != before or digest_of(content) != digest:
        return f"entry {seq} is not as it was sealed"
    return ""


def record_misfit(record: Mapping[str, Any]) -> str:
    """Return the first thing that does not fit in a record that was handed out."""
    before = START
    for seq, entry in enumerate(record["entries"], 1):
        content = {name: value for name, value in entry.items() if name != "digest"}
        words = misfit(content, entry["digest"], seq=seq, before=before)
        if words:
            return words
        document = record["documents"].get(content["document"])
        if document is None or digest_of(document) != content["document"]:
            return f"the engine document of entry {seq} is not the one it was judged on"
        before = entry["digest"]
    return "" if record["head"] == before else "entries at its end are missing"


def short(digest: str) -> str:
    """Return a digest as people compare it. Sixteen hexadecimal digits: one chance in 1.8e19 that another ledger has the same."""
    code = digest[:SHORT].upper()
    return "-".join(code[n : n + GROUP] for n in range(0, SHORT, GROUP))
