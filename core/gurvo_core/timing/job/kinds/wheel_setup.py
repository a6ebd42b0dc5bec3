"""The wheel and dial as they are set up."""

__all__ = ["KIND"]

from collections.abc import Iterator
from dataclasses import replace

from gurvo_core.ledger import WHEELS, Facts, Gauge, Kind, LedgerEntry, NamedGauge, Objection, Words, need
from gurvo_core.timing.job.entries import WheelSetup
from gurvo_core.timing.job.state import TimingState


def _say(body: WheelSetup) -> Words:
    """The wheel set up."""
    runs = f" · {body.runs} the running way" if body.numbering == "0-360" else ""
    return Words(title="Wheel set up", value=body.numbering, detail=f"{body.wheel_gauge} · {body.dial_gauge}{runs} · plugs out")


def _check(_now: TimingState, body: WheelSetup, _facts: Facts) -> Iterator[Objection]:
    """The plugs are out."""
    yield from need(body.plugs_out, "plugs_out", "take the plugs out and lock the stand before the crank is turned")


def _take(now: TimingState, entry: LedgerEntry, body: WheelSetup) -> TimingState:
    """The wheel set up anew: what was read on it before lapses. The stop stays where it is."""
    cams = {shaft: replace(work, readings={}, left=None) for shaft, work in now.cams.items()}
    gauges: dict[str, Gauge] = {gauge.role: gauge for gauge in entry.gauges}
    fresh = TimingState(document=now.document, lines=now.lines, at=now.at, cams=cams, stop_in=now.stop_in, turned_to=now.turned_to)
    return replace(fresh, setup=body, gauges=gauges, set_up_on=entry.latest.date())


def _wheel_and_dial(body: WheelSetup) -> tuple[NamedGauge, NamedGauge]:
    return (
        NamedGauge("wheel_gauge", body.wheel_gauge, WHEELS, "wheel"),
        NamedGauge("dial_gauge", body.dial_gauge, frozenset({"dial"}), "dial"),
    )


KIND: Kind[WheelSetup, TimingState] = Kind(
    body=WheelSetup,
    does="look",
    words=_say,
    take=_take,
    check=_check,
    gauges=_wheel_and_dial,
)
