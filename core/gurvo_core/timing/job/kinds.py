"""The timing's kinds of entries, each with all that is said, asked and changed by it."""

__all__ = ["KINDS"]

from collections.abc import Sequence
from typing import Any

from gurvo_core.engine import EngineDocument
from gurvo_core.ledger import WHEELS, Kind, LedgerEntry, NamedGauge, Strike
from gurvo_core.timing.job import rules, take, words
from gurvo_core.timing.job.cams import cam_basis
from gurvo_core.timing.job.entries import (
    CamDecision,
    LiftReading,
    PistonStop,
    TdcMethodChoice,
    TdcReading,
    Turn,
    WheelCheck,
    WheelSetup,
    WheelZero,
)
from gurvo_core.timing.job.readings import si_values
from gurvo_core.timing.job.state import TimingState, begin
from gurvo_core.timing.job.true_tdc import tdc_basis


def _stood(document: EngineDocument, before: Sequence[LedgerEntry]) -> TimingState:
    """What stood after some entries."""
    struck = {entry.body.strikes for entry in before if isinstance(entry.body, Strike)}
    kinds, state = {kind.name: kind for kind in KINDS}, begin(document)
    for entry in before:
        if entry.body.kind in kinds and entry.id not in struck:
            state = kinds[entry.body.kind].take(state, entry, entry.body)
    return state


def _settle_zero(body: WheelZero, document: EngineDocument, before: Sequence[LedgerEntry]) -> WheelZero:
    """Version 1 named only the figure: it rested on the readings that stood."""
    return body if body.rests_on else body.model_copy(update={"rests_on": tdc_basis(_stood(document, before))})


def _settle_cam(body: CamDecision, document: EngineDocument, before: Sequence[LedgerEntry]) -> CamDecision:
    """Version 1 named only the figure: it rested on the readings and the zero that stood."""
    if body.rests_on or document.camshaft(body.camshaft) is None:
        return body
    return body.model_copy(update={"rests_on": cam_basis(_stood(document, before), body.camshaft)})


def _wheel_and_dial(body: WheelSetup) -> tuple[NamedGauge, NamedGauge]:
    return (
        NamedGauge("wheel_gauge", body.wheel_gauge, WHEELS, "wheel"),
        NamedGauge("dial_gauge", body.dial_gauge, frozenset({"dial"}), "dial"),
    )


KINDS: tuple[Kind[Any, TimingState], ...] = (
    Kind(
        body=WheelSetup,
        does="look",
        words=words.say_setup,
        take=take.take_setup,
        check=rules.check_setup,
        gauges=_wheel_and_dial,
    ),
    Kind(body=WheelCheck, does="turn", words=words.say_check, take=take.take_check, check=rules.check_check, si_values=si_values),
    Kind(body=TdcMethodChoice, does="decide", words=words.say_method, take=take.take_method, check=rules.check_method),
    Kind(body=PistonStop, does="decide", words=words.say_stop, take=take.take_stop, check=rules.check_stop),
    Kind(
        body=TdcReading,
        does="turn",
        words=words.say_tdc,
        take=take.take_tdc,
        check=rules.check_tdc,
        si_values=si_values,
    ),
    Kind(
        body=WheelZero,
        does="decide",
        words=words.say_zero,
        take=take.take_zero,
        check=rules.check_zero,
        settle=_settle_zero,
    ),
    Kind(
        body=LiftReading,
        does="turn",
        words=words.say_lift,
        take=take.take_lift,
        check=rules.check_lift,
        si_values=si_values,
    ),
    Kind(
        body=CamDecision,
        happening="cam decided",
        does="decide",
        words=words.say_cam_decision,
        take=take.take_cam_decision,
        check=rules.check_cam_decision,
        settle=_settle_cam,
    ),
    Kind(body=Turn, does="turn", words=words.say_turn, take=take.take_turn, check=rules.check_turn, si_values=si_values),
)
