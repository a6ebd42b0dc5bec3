"""What was measured of a cam without a card, as the card of its document's next revision."""

__all__ = ["with_measured_card"]

from typing import Any

from gurvo_core.engine.plain import plain_document
from gurvo_core.timing.job.cams import cams_of
from gurvo_core.timing.job.state import TimingState
from gurvo_core.timing.job.view import ValveFigures

SHOWN_DECIMALS = 1  # of a degree; no wheel says more


def with_measured_card(now: TimingState, note: str) -> dict[str, Any] | None:
    """Return the engine's document with what was measured written down as its card.

    The card's figures as trade writes them, see ``engine/card.py``.
    """
    plain = plain_document(now.document)
    card, origins = list(plain.get("cam_card", ())), dict(plain.get("origins", {}))
    measured = [line for cam in cams_of(now) for valve in cam.valves if (line := _line(cam.camshaft, valve)) is not None]
    for line in measured:
        place = next((at for at, there in enumerate(card) if _is_same(there, line)), len(card))
        card[place : place + 1] = [line]  # in the place of a line that left its events open, else at the end
        origins[f"/cam_card/{place}"] = {"is": "measured", "note": note}
    return {**plain, "cam_card": card, "origins": origins} if measured else None


def _is_same(one: dict[str, Any], other: dict[str, Any]) -> bool:
    return all(one.get(key) == other[key] for key in ("camshaft", "valve", "lift_mm"))


def _line(camshaft: str, valve: ValveFigures) -> dict[str, Any] | None:
    """One line; None for a valve that has a card, or was not measured on both flanks."""
    opening_deg, closing_deg = valve.opening.crank_deg, valve.closing.crank_deg
    if valve.card_centreline_deg is not None or opening_deg is None or closing_deg is None:
        return None
    before_deg, after_deg = (360.0, 540.0) if valve.valve == "intake" else (180.0, 360.0)
    return {
        "camshaft": camshaft,
        "valve": valve.valve,
        "cylinder": valve.cylinder,
        "lift_mm": valve.lift_mm,
        "opens_deg": round(before_deg - opening_deg, SHOWN_DECIMALS),
        "closes_deg": round(closing_deg - after_deg, SHOWN_DECIMALS),
        "tolerance_deg": None,
    }
