"""One figure over many ledgers: the root of a hash tree. Kept elsewhere, it shows what a shop's own file cannot show of itself: a tail
cut off, a ledger emptied, one that was sealed anew from end to end.
"""

__all__ = ["leaf_of", "root_of"]

import hashlib
from collections.abc import Sequence

LEAF, NODE = b"\x00", b"\x01"  # so that a leaf is never taken for two others


def leaf_of(name: str, head: str) -> bytes:
    """What of one ledger goes into the tree: whose it is, and the seal of its last entry."""
    return f"{name} {head}".encode()


def root_of(leaves: Sequence[bytes]) -> str:
    """Return the root of the hash tree over some leaves.

    Source: [tree] RFC 6962, section 2.1: the left side of each node is the largest full tree that leaves something to the right.
    >>> root_of([])[:8], root_of([b""])[:8]
    ('e3b0c442', '6e340b9c')
    """
    return _node(leaves).hex() if leaves else hashlib.sha256().hexdigest()


def _node(leaves: Sequence[bytes]) -> bytes:
    if len(leaves) == 1:
        return hashlib.sha256(LEAF + leaves[0]).digest()
    left = 1 << (len(leaves) - 1).bit_length() - 1
    return hashlib.sha256(NODE + _node(leaves[:left]) + _node(leaves[left:])).digest()
