"""What a figure for one bolt means: preload, share of yield, what another lubrication would do, and a generic figure where none is known.

Torque in N·m, loads in N.
"""

__all__ = ["BoltFacts", "Formula", "Meaning", "generic_nm", "lubrication_warning", "meaning_of"]

from dataclasses import dataclass

from gurvo_core.joints.preload import FRICTION, Band, Seat, preload_n, share_of_yield, torque_nm
from gurvo_core.joints.strength import proof_load_n, yield_load_n
from gurvo_core.joints.thread import Thread

OF_PROOF = 0.75  # of the proof load: what a joint that is taken apart again is generally pulled to


@dataclass(frozen=True, kw_only=True)
class BoltFacts:
    """What is known of a bolt and of how it is pulled."""

    thread: Thread
    seat: Seat
    property_class: str | None
    thread_state: str
    head_state: str


@dataclass(frozen=True, kw_only=True)
class Formula:
    """A figure, how it was come to and from where."""

    name: str
    value: str
    formula: str
    source: str


@dataclass(frozen=True, kw_only=True)
class Meaning:
    """What a torque does to a bolt [N; shares of yield -]."""

    preload: Band
    tension_share: Band | None
    combined_share: Band | None


def _bands(bolt: BoltFacts) -> tuple[Band, Band]:
    return Band(*FRICTION[bolt.thread_state]), Band(*FRICTION[bolt.head_state])


def meaning_of(torque: float, bolt: BoltFacts) -> Meaning:
    """Return what a torque does to a bolt.

    torque: at the head [N·m].
    Returned: preload as a band [N]; share of yield in tension alone and with torsion, None where the class is not known.
    """
    thread, head = _bands(bolt)
    load = preload_n(torque, bolt.thread, bolt.seat, thread_friction=thread, head_friction=head)
    if bolt.property_class is None:
        return Meaning(preload=load, tension_share=None, combined_share=None)
    alone = [share_of_yield(end, bolt.thread, bolt.property_class) for end in (load.least, load.most)]
    both = [
        share_of_yield(end, bolt.thread, bolt.property_class, twisted_with=friction)
        for end, friction in ((load.least, thread.most), (load.most, thread.least))
    ]
    return Meaning(preload=load, tension_share=Band(*alone), combined_share=Band(*both))


def generic_nm(bolt: BoltFacts) -> float | None:
    """Return a generic torque for a bolt nobody has a figure for.

    Returned: to two figures [N·m]; None where its class is not known.
    Source: Common practice: three quarters of the proof load, with the middle of the friction band.
    >>> from gurvo_core.joints.thread import read_thread
    >>> from gurvo_core.joints.preload import seat_of
    >>> m8 = read_thread("M8")
    >>> generic_nm(BoltFacts(thread=m8, seat=seat_of(m8), property_class="8.8", thread_state="oiled", head_state="oiled"))
    21.0
    """
    if bolt.property_class is None:
        return None
    thread, head = _bands(bolt)
    load = OF_PROOF * proof_load_n(bolt.property_class, bolt.thread)
    torque = torque_nm(load, bolt.thread, bolt.seat, thread_friction=thread.middle, head_friction=head.middle)
    return float(f"{torque:.2g}")


def lubrication_warning(torque: float, bolt: BoltFacts, found: str) -> str:
    """Return what another lubrication than the figure presumes would do at the same torque. torque: the figure [N·m]."""
    if found == bolt.thread_state == bolt.head_state:
        return ""
    other = BoltFacts(thread=bolt.thread, seat=bolt.seat, property_class=bolt.property_class, thread_state=found, head_state=found)
    (meant, now), limit = (_middle_n(torque, one) for one in (bolt, other)), None
    if bolt.property_class is not None:
        limit = yield_load_n(bolt.property_class, bolt.thread)
    change = round(100 * (now / meant - 1))
    past = ", past yield" if limit is not None and now > limit else ""
    way = f"{change} % more{past}" if change > 0 else f"{-change} % less"
    return f"the figure is for {bolt.thread_state} threads; {found} the same torque would pull about {way}: clean them as the book has it"


def _middle_n(torque: float, bolt: BoltFacts) -> float:
    thread, head = _bands(bolt)
    middles = Band(thread.middle, thread.middle), Band(head.middle, head.middle)
    return preload_n(torque, bolt.thread, bolt.seat, thread_friction=middles[0], head_friction=middles[1]).least
