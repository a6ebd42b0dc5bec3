"""What an engine takes from the stock of shims."""

__all__ = ["new_shims", "shims_taken"]

from collections import Counter
from collections.abc import Mapping

from gurvo_core.engine import Select, Valve
from gurvo_core.lash.job.state import LashState


def new_shims(now: LashState, select: Select, chosen_mm: Mapping[str, float]) -> dict[str, int]:
    """Return the shims that are not the engine's own.

    chosen_mm: what goes in, by valve [mm].
    An engine's own shims change places freely.
    """
    sizes = {round(one.size_mm, 4): one.id for one in select.classes}
    wanted = Counter(round(size, 4) for size in chosen_mm.values())
    own = Counter(round(read.shim_mm, 4) for name, read in now.found.items() if name in chosen_mm and read.shim_mm is not None)
    return {sizes[size]: count for size, count in sorted((wanted - own).items()) if size in sizes}


def shims_taken(now: LashState) -> dict[tuple[str, str], int]:
    """Return the pieces that an engine takes from stock."""
    taken: dict[tuple[str, str], int] = {}
    parts = {lash.shims.part: lash.shims for lash in now.document.lash if lash.shims}
    valves = {lash.valve: lash.shims.part for lash in now.document.lash if lash.shims}
    for part, select in parts.items():
        own = {name: shim.shim_mm for name, shim in now.shims.items() if valves.get(_valve(name)) == part}
        taken |= {(part, size): count for size, count in new_shims(now, select, own).items()}
    return taken


def _valve(name: str) -> Valve:
    return "intake" if name.split("|")[2] == "intake" else "exhaust"
