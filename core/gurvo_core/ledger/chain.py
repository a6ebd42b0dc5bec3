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

    Parameters
    ----------
    value : JSON data
        Whatever JSON can hold.

    Returns
    -------
    digest : str
        SHA-256 of its canonical form, in 64 hexadecimal digits: the same however it was spaced, ordered or its numbers written.

    Source
    ------
    [jcs] RFC 8785, JSON Canonicalization Scheme; [sha] FIPS 180-4.

    Example
    -------
    >>> digest_of({"b": 1.0, "a": []}) == digest_of({"a": [], "b": 1})
    True
    """
    return hashlib.sha256(rfc8785.dumps(value)).hexdigest()


def content_of(plain: Mapping[str, Any], *, engine: str, document: str, before: str) -> dict[str, Any]:
    """Return what the seal of one row covers.

    Parameters
    ----------
    plain : mapping
        The row: id, seq, at, typed_at, by, version, body, because, si_values, gauges; times with their zone.
    engine : str
        Whose ledger it is in.
    document : str
        Digest of the engine document it was judged on.
    before : str
        Seal of the row before it, ``START`` for the first.

    Returns
    -------
    content : dict
        Plain JSON data, times in UTC.

    Source
    ------
    House rule: everything that is handed out is covered.

    Example
    -------
    >>> at = datetime(2026, 11, 25, tzinfo=UTC)
    >>> content_of({"at": at, "typed_at": None}, engine="T-1", document="d", before=START)["at"]
    '2026-11-25T00:00:00+00:00'
    """
    times = {name: _utc(plain[name]) for name in ("at", "typed_at")}
    return {**plain, **times, "engine": engine, "document": document, "before": before}


def _utc(moment: datetime | None) -> str | None:
    return moment.astimezone(UTC).isoformat() if moment else None


def misfit(content: Mapping[str, Any], digest: str, *, seq: int, before: str) -> str:
    """Return what does not fit about one row.

    Parameters
    ----------
    content : mapping
        What its seal covers.
    digest : str
        Its seal.
    seq : int
        The place it must have in the ledger.
    before : str
        Seal of the row before it.

    Returns
    -------
    words : str
        Empty when it fits.

    Source
    ------
    House rule: the first row that does not fit is named.

    Example
    -------
    >>> content = {"seq": 1, "before": START}
    >>> misfit(content, digest_of(content), seq=1, before=START), misfit(content, "x", seq=1, before=START)
    ('', 'entry 1 is not as it was sealed')
    """
    if content["seq"] != seq:
        return f"entry {seq} is missing"
    if content["before"] != before or digest_of(content) != digest:
        return f"entry {seq} is not as it was sealed"
    return ""


def record_misfit(record: Mapping[str, Any]) -> str:
    """Return the first thing that does not fit in a record that was handed out.

    Parameters
    ----------
    record : mapping
        ``gurvo-record`` of version 3 or later, as read from JSON.

    Returns
    -------
    words : str
        Empty when every seal fits.

    Source
    ------
    docs/formats/engine.md says the same in ten lines that need no Gurvo.

    Example
    -------
    >>> record_misfit({"entries": [], "documents": {}, "head": START})
    ''
    """
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
    """Return a digest as people compare it.

    Parameters
    ----------
    digest : str
        64 hexadecimal digits.

    Returns
    -------
    code : str
        The first sixteen, in fours.

    Source
    ------
    Sixteen hexadecimal digits: one chance in 1.8e19 that another ledger has the same.

    Example
    -------
    >>> short("3f2a91bc" * 8)
    '3F2A-91BC-3F2A-91BC'
    """
    code = digest[:SHORT].upper()
    return "-".join(code[n : n + GROUP] for n in range(0, SHORT, GROUP))
