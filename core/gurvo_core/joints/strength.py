"""What a bolt of a property class bears: proof stress and yield, by the mark on its head. Stresses in N/mm², loads in N."""

__all__ = ["CLASSES", "Strength", "proof_load_n", "strength_of", "yield_load_n"]

from dataclasses import dataclass
from typing import Literal

from gurvo_core.joints.thread import Thread

PropertyClass = Literal["4.6", "4.8", "5.6", "5.8", "6.8", "8.8", "9.8", "10.9", "12.9", "grade 2", "grade 5", "grade 8"]
LARGE_MM = 16.0  # an 8.8 bolt above this is a little stronger
N_MM2_PER_KSI = 6.894757


@dataclass(frozen=True)
class Strength:
    """Stress under which nothing stays stretched, and at which it begins to [N/mm²]."""

    proof_n_mm2: float
    yield_n_mm2: float


# ISO 898-1 and SAE J429, both from memory
CLASSES: dict[str, Strength] = {
    "4.6": Strength(225, 240),
    "4.8": Strength(310, 340),
    "5.6": Strength(280, 300),
    "5.8": Strength(380, 420),
    "6.8": Strength(440, 480),
    "8.8": Strength(580, 640),
    "9.8": Strength(650, 720),
    "10.9": Strength(830, 940),
    "12.9": Strength(970, 1100),
    "grade 2": Strength(55 * N_MM2_PER_KSI, 57 * N_MM2_PER_KSI),
    "grade 5": Strength(85 * N_MM2_PER_KSI, 92 * N_MM2_PER_KSI),
    "grade 8": Strength(120 * N_MM2_PER_KSI, 130 * N_MM2_PER_KSI),
}


def strength_of(property_class: str, thread: Thread) -> Strength:
    """Return what a class bears in a size.

    Returned: proof stress and yield [N/mm²].
    Raises KeyError if there is no such class.
    Source: [bolt-classes] in docs/sources.md, from memory.
    >>> from gurvo_core.joints.thread import read_thread
    >>> strength_of("8.8", read_thread("M20")).proof_n_mm2
    600
    """
    if property_class == "8.8" and thread.diameter_mm > LARGE_MM:
        return Strength(600, 660)
    return CLASSES[property_class]


def proof_load_n(property_class: str, thread: Thread) -> float:
    """Return the load that a bolt bears without staying stretched.

    Returned: proof stress on the stress area [N].
    Source: [bolt-classes] in docs/sources.md.
    >>> from gurvo_core.joints.thread import read_thread
    >>> round(proof_load_n("8.8", read_thread("M10")), -2)
    33600.0
    """
    return strength_of(property_class, thread).proof_n_mm2 * thread.stress_area_mm2


def yield_load_n(property_class: str, thread: Thread) -> float:
    """Return the tension at which a bolt begins to stay stretched, with nothing twisting it.

    Returned: yield on the stress area [N].
    Source: [bolt-classes] in docs/sources.md.
    >>> from gurvo_core.joints.thread import read_thread
    >>> round(yield_load_n("8.8", read_thread("M10")), -2)
    37100.0
    """
    return strength_of(property_class, thread).yield_n_mm2 * thread.stress_area_mm2
