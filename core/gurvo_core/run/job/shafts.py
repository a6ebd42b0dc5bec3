"""Where shafts stand, as far as the run says: parked, seen, turned by themselves; which are in, which loops are on, what is held."""

__all__ = ["clock_values", "forget_laid", "laid_of", "seen_at", "shafts_of", "turned_to"]

from collections.abc import Mapping
from dataclasses import replace

from gurvo_core.clocks import read_clock
from gurvo_core.engine import EngineDocument
from gurvo_core.engine.document import CYCLE_DEG
from gurvo_core.ledger import LedgerEntry, ShaftsTold, ShaftTold
from gurvo_core.motion.told import place_of
from gurvo_core.run.job.entries import ShaftAt, ShaftSeen, TurnedAlone
from gurvo_core.run.job.lay import held_by, laid_loops
from gurvo_core.run.job.state import RunState
from gurvo_core.scene import Stands
from gurvo_core.scene.asked import part_id

THERE: frozenset[Stands] = frozenset(("in", "loose"))


def clock_deg(at: ShaftAt) -> float:
    """Return where something stands, seen from the front and clockwise from straight up [deg]."""
    deg = read_clock(at.clock).deg
    return deg if at.seen_from == "front" else -deg % 360


def clock_values(_now: RunState, body: ShaftSeen | TurnedAlone) -> dict[str, float]:
    """Its figures in degrees."""
    return {"at.clock": clock_deg(body.at)} if body.at is not None else {}


def seen_at(document: EngineDocument, seq: int, shaft: str, at: ShaftAt) -> ShaftTold | None:
    """Return a shaft's place by what was seen of it; None where today's document does not know it any more."""
    place = place_of(document, shaft, at.of, clock_deg(at))
    if place is None:
        return None
    within = read_clock(at.clock).within_deg / abs(document.turns_clockwise[shaft])
    return ShaftTold(shaft=shaft, place_deg=place, within_deg=within, seq=seq, knows_stroke=document.camshaft(shaft) is not None, of=at.of)


def turned_to(now: RunState, entry: LedgerEntry, body: TurnedAlone) -> Mapping[str, ShaftTold]:
    """Where shafts stand once one was turned: where it was seen, or as far on as it was turned; else nobody knows."""
    before = now.seen.get(body.shaft) or _parked(now, body.shaft)
    if body.at is not None:
        there = seen_at(now.document, entry.seq, body.shaft, body.at)
    elif body.by_deg is not None and before is not None and body.then == "stands":
        there = before._replace(place_deg=(before.place_deg + body.by_deg) % CYCLE_DEG, seq=entry.seq)
    else:
        there = None
    along = now.document.drive.turning_with(body.shaft, laid_of(now))
    others = {shaft: told for shaft, told in now.seen.items() if shaft not in along}
    if there is None:
        return others
    by_deg = there.place_deg - before.place_deg if before is not None else None
    for shaft in along & now.seen.keys() - {body.shaft}:
        if by_deg is not None:
            others[shaft] = now.seen[shaft]._replace(place_deg=(now.seen[shaft].place_deg + by_deg) % CYCLE_DEG, seq=entry.seq)
    way = 0 if body.by_deg is None else 1 if body.by_deg > 0 else -1
    return {**others, body.shaft: there._replace(then=body.then, way=way or {"running": 1, "back": -1}.get(body.way or "", 0))}


def _parked(now: RunState, shaft: str) -> ShaftTold | None:
    is_crank = any(one.id == shaft and one.kind == "crank" for one in now.document.drive.shafts)
    if not is_crank or now.parked is None or not now.document.is_placed(now.parked):
        return None
    return ShaftTold(shaft=shaft, place_deg=now.document.position_deg(now.parked), within_deg=1.0, seq=0)


def shafts_of(now: RunState, stands: Mapping[str, Stands]) -> ShaftsTold:
    """Return all of it, for whoever says what may be turned."""
    document = now.document
    return ShaftsTold(
        crank=next((shaft.id for shaft in document.drive.shafts if shaft.kind == "crank"), "crank"),
        parked=now.parked,
        parked_at=now.parked_at,
        told=tuple(sorted(now.seen.values())),
        laid=laid_of(now),
        cams=frozenset(cam.id for cam in document.camshafts if _is_in(cam.bank or document.banks[0].id, stands)),
        held=frozenset(held_by(now)) | _still(now),
        stopped=now.hard_stop.seq if now.hard_stop is not None else 0,
    )


def laid_of(now: RunState) -> frozenset[str]:
    """Return the loops that are on; gears that no step lays mesh as soon as their shafts are in."""
    gears = {stage.id for stage in now.document.drive.stages if stage.kind == "gears"}
    return laid_loops(now) | (gears - {one.step.loop for one in now.plan.doing("lay")})


def _still(now: RunState) -> frozenset[str]:
    """The crank, while something is on that stops turning."""
    things = [thing for name in now.on if (thing := now.document.thing(name)) is not None]
    is_still = any(thing.stops_turning for thing in things)
    return frozenset(shaft.id for shaft in now.document.drive.shafts if shaft.kind == "crank" and is_still)


def _is_in(bank: str, stands: Mapping[str, Stands]) -> bool:
    """Whether a bank's camshaft is in and something presses on it: its head is on, and its rockers where there are any."""
    parts = part_id("cams", bank), part_id("heads", bank), part_id("rockers", bank)
    return all(stands.get(part, "in") in THERE for part in parts)


def forget_laid(now: RunState, loop: str | None) -> RunState:
    """Return what stands once a loop is laid: what it takes along stands as it is timed, whatever was seen before."""
    stage = next((one for one in now.document.drive.stages if one.id == loop), None)
    on = {wheel.shaft for wheel in now.document.drive.wheels if stage is not None and wheel.id in stage.wheel_ids}
    cams = {cam.id for cam in now.document.camshafts}
    return replace(now, seen={shaft: told for shaft, told in now.seen.items() if shaft not in on & cams})
