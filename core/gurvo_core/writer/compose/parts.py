"""What lies on the bench and what is put on for a while: parts, locks and holders; and the valve clearances."""

__all__ = ["LockSaid", "kit_of", "lash_of", "locks_of", "things_of"]

import re
from collections.abc import Sequence
from typing import Any, NamedTuple

from gurvo_core.writer.answers import Answers, said, slug
from gurvo_core.writer.compose.bolts import joints_in
from gurvo_core.writer.compose.engine import known_by, position_of
from gurvo_core.writer.shape import Shape
from gurvo_core.writer.shorthand.lash import read_lash

Part = dict[str, Any]
HOLDER = "holder"
CRANK_HOLDER = "crank-holder"
SAME = "same"
_KINDS = {"pin": "pin", "plate": "plate", "bar": "lock", "bolt": "lock", "drill": "pin", "lock": "lock"}


class LockSaid(NamedTuple):
    """One thing that goes in at the timing position, and which shafts it holds."""

    id: str
    name: str
    kind: str
    holds: tuple[str, ...]


def locks_of(answers: Answers, shape: Shape) -> list[LockSaid]:
    """What is said to go in: the crank's first; ``same`` is the one of the shaft before."""
    found: list[LockSaid] = []
    if "locks" not in known_by(answers):
        return found
    for shaft, _ in shape.timed:
        name = said(answers, f"lock.{shaft}", str.strip)
        if name is None or name.lower() == "none":
            continue
        if name.lower() == SAME and found:
            found[-1] = found[-1]._replace(holds=(*found[-1].holds, shaft))
        else:
            kind = next((kind for word, kind in _KINDS.items() if re.search(rf"\b{word}\b", name.lower())), "lock")
            found.append(LockSaid(f"lock-{shaft}", name[:1].upper() + name[1:], kind, (shaft,)))
    return found


def things_of(answers: Answers, shape: Shape) -> list[Part]:
    """What is put on for a while and comes off again."""
    found: list[Part] = [
        {
            "id": lock.id,
            "name": lock.name,
            "kind": lock.kind,
            "holds": list(lock.holds),
            "position": position_of(answers),
            "fits_again": "every_two",
            "stops_turning": True,
        }
        for lock in locks_of(answers, shape)
    ]
    # each is tightened against a holder: what locks a cam for timing may not be pulled against
    held = [place.of for place in joints_in(answers, shape, "wheel")]
    if held:
        names = dict(shape.timed)
        places = {"places": [names[shaft] for shaft in held]} if len(held) > 1 else {}
        found.append(
            {"id": HOLDER, "name": "Cam holder", "kind": "holder", "holds": held, **places, "counter_hold": True, "stops_turning": True}
        )
    if joints_in(answers, shape, "damper"):
        name = "Crank holder"
        found.append({"id": CRANK_HOLDER, "name": name, "kind": "holder", "holds": ["crank"], "counter_hold": True, "stops_turning": True})
    return found


def kit_of(answers: Answers, shape: Shape) -> list[Part]:
    """Parts laid out before it is begun: each chain and belt, the head gasket, what is said to be new, what is said to go back."""
    found = {
        drive.id: {"id": f"new-{drive.id}", "name": drive.name.lower(), **({"one_time": True} if drive.kind == "belt" else {})}
        for drive in shape.drives
        if drive.kind != "gears"
    }
    heads = len(shape.banks)
    found["gasket"] = {
        "id": "head-gasket",
        "name": "head gasket" if heads == 1 else "head gaskets",
        **({"count": heads} if heads > 1 else {}),
        "one_time": True,
    }
    for key, how in (("new", {"one_time": True}), ("returns", {"returns": True})):
        for name in _names(said(answers, key, str) or ""):
            count = re.match(r"(\d{1,3})\s+(.*)", name)
            counted = {"count": int(count[1])} if count and 1 <= int(count[1]) <= 500 else {}
            plain = count[2] if count and counted else name
            found[plain] = {"id": f"{key}-{slug(plain)}"[:40], "name": plain, **counted, **how}
    return list(found.values())


def _names(line: str) -> Sequence[str]:
    return [name.strip() for name in line.split(",") if name.strip()]


def lash_of(answers: Answers) -> list[Part]:
    """Valve clearances that are set."""
    found = []
    for valve in ("intake", "exhaust"):
        lash = said(answers, f"lash.{valve}", read_lash)
        if lash is not None:
            least, most = lash.limits
            limits = {key: value for key, value in (("least_mm", least), ("most_mm", most)) if value is not None}
            hot = {"engine_is": "hot"} if lash.engine_is == "hot" else {}
            found.append({"valve": valve, **limits, **hot, "set_by": lash.set_by})
    return found
