"""By which rules something was worked out: what another version worked out is worked out anew."""

__all__ = ["rules_version"]

import hashlib
from pathlib import Path

import gurvo_core

FITS_A_COLUMN = 0x7FFF_FFFF  # a database's integer has no more bits for sure


def rules_version(source: Path = Path(gurvo_core.__file__).parent) -> int:
    """Return the version of the rules in some sources: a digest of all of them, so that nobody forgets to count it up.

    It says nothing of before and after, and changes with a comment too: what is worked out once too often is still right.
    """
    total = hashlib.sha256()
    for file in sorted(source.rglob("*.py")):
        total.update(file.relative_to(source).as_posix().encode() + b"\0" + file.read_bytes() + b"\0")
    return int.from_bytes(total.digest()[:4]) & FITS_A_COLUMN
