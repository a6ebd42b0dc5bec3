"""A gap that was measured: what it says of the valve it was measured at, and of its like."""

__all__ = ["model_of", "read_gap", "valve_of"]

import math
from collections.abc import Mapping

from gurvo_core.clearway.ground import Ground
from gurvo_core.clearway.job.entries import GapMeasured
from gurvo_core.clearway.job.state import ClearwayState, GapRead
from gurvo_core.clearway.least import drop_at, lift_at
from gurvo_core.clearway.spare import TURN
from gurvo_core.clearway.valves import MovingValve, moving_valves, valve_key
from gurvo_core.ledger import LedgerEntry
from gurvo_core.motion.frames import slider_of
from gurvo_core.uncertainty import Estimate, root_sum_square, standard_uncertainty
from gurvo_core.verdict import judge_size

# standard; decisions of ours: clay springs back and is cut beside its thinnest; a valve is felt to touch
U_CLAY_MM, U_TOUCH_MM = 0.1, 0.03
U_BETWEEN_MM = 0.15  # how alike the cylinders of one engine are


def valve_of(now: ClearwayState, body: GapMeasured) -> MovingValve | None:
    """Return the valve that a gap was measured at; None where today's document does not know it, or not how its piston moves."""
    key = valve_key(body.camshaft, body.cylinder, body.valve, body.place)
    found = next((one for one in moving_valves(now.document) if one.key == key), None)
    return found if found is not None and slider_of(now.document, found.cylinder) is not None else None


def read_gap(now: ClearwayState, entry: LedgerEntry, body: GapMeasured) -> GapRead | None:
    """Return what a measured gap comes to."""
    valve = valve_of(now, body)
    if valve is None:
        return None
    gauge = entry.gauge_of(body.gauge)
    u_gauge = standard_uncertainty(gauge.resolution, gauge.expanded_uncertainty).u if gauge else 0.0
    read = Estimate(
        value=body.gap.inside("length", "gap.text"), u=root_sum_square(U_CLAY_MM if body.how == "clay" else U_TOUCH_MM, u_gauge)
    )
    nearer_mm = _nearer_mm(now, valve)
    shut = read if body.how == "dial" else Estimate(value=read.value + nearer_mm, u=read.u)
    least = read if body.how == "clay" else Estimate(value=read.value - nearer_mm, u=read.u)
    verdict = judge_size(least, valve.least_mm, math.inf, now.document.decision_rule)
    return GapRead(
        seq=entry.seq, by=entry.by, body=body, name=valve.name, shut_mm=shut, least=least, least_mm=valve.least_mm, verdict=verdict
    )


def _nearer_mm(now: ClearwayState, valve: MovingValve) -> float:
    """How much nearer a valve comes to its piston in turning over than it is while shut at TDC [mm]."""
    ground = Ground(document=now.document, measured={})
    falls = valve.falls * drop_at(ground, valve.cylinder, TURN) - lift_at(ground, valve, TURN)
    return -float(falls.min())


def model_of(now: ClearwayState) -> Mapping[str, Estimate]:
    """Return gaps at TDC by valve: as measured, and of its like in other cylinders moved as far, less surely."""
    return dict(_model(now))


def _model(now: ClearwayState) -> list[tuple[str, Estimate]]:
    if not now.read:
        return []
    by_document = moving_valves(now.document)
    own = {key: one.shut_mm for key, one in now.read.items()}
    found = list(own.items())
    for valve in by_document:
        like = [one for one in by_document if one.key in own and one.head == valve.head]
        if valve.key in own or not like:
            continue
        off = [own[one.key].value - (one.shut_mm.value if one.shut_mm else 0.0) for one in like]
        begin = valve.shut_mm.value if valve.shut_mm else 0.0
        u = root_sum_square(max(own[one.key].u for one in like), U_BETWEEN_MM)
        found.append((valve.key, Estimate(value=begin + min(off), u=u)))
    return found
