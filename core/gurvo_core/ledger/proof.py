"""How a camshaft is told to stand right, as rooms tell each other of it."""

__all__ = ["CAMS_DEGREED", "CAM_PROOFS", "DRIVE_TOUCHED", "PROOF_TO_COME", "CamProof", "ProvenBy"]

from collections.abc import Mapping
from typing import Literal, NamedTuple

from gurvo_core.ledger.room import Fact

ProvenBy = Literal["degreed", "marks", "lock", "counts", "word"]


class CamProof(NamedTuple):
    """How one camshaft is told to stand right: by what, in a builder's words, and the entry that says so."""

    camshaft: str
    name: str
    by: ProvenBy
    words: str
    seq: int
    who: str = ""


# what the run knows of each camshaft's proof, by its id; a cam without one is left out
CAM_PROOFS: Fact[Mapping[str, CamProof]] = Fact("how the cams are told to stand right")
# the same of those that were degreed and decided
CAMS_DEGREED: Fact[Mapping[str, CamProof]] = Fact("cams that were degreed")
# place in the ledger of what last touched the way from the crank to each camshaft
DRIVE_TOUCHED: Fact[Mapping[str, int]] = Fact("when the drive was touched")
# what the steps that may prove one, and are still to come, do
PROOF_TO_COME: Fact[frozenset[str]] = Fact("what steps that prove are still to come, by what they do")
