"""Answers whatever a bench asks, as a careful builder whose engine is as its book says: for the demo, and for whole builds in tests."""

from typing import Any

from gurvo_core.engine import EngineDocument
from gurvo_core.timing import in_words

Body = dict[str, Any]
SETUP: Body = {"numbering": "0-90-0-90-0", "runs": "grows", "wheel_gauge": "W1", "dial_gauge": "D2", "plugs_out": True}


WRENCHES = (("T1", 25), ("T2", 100), ("T3", 300))  # and up to which torque each is taken [N·m]
ANY_FIT_MM = "0.05"  # where no limit is known


def next_question(state: Any) -> Any:
    """The question that the bench asks now; None when nothing can be answered."""
    step = next((step for step in state.steps if step.status == "now"), None)
    return step and next(question for question in step.questions if question.status == "open" and not question.blocked)


def answer(state: Any, question: Any, document: EngineDocument) -> Body:
    """Return the entry that answers a question."""
    maker = {
        "step_done": _step,
        "turn_seen": lambda _state, asked, _document: {
            "step": asked.step,
            "stop": asked.stop,
            "saw": "meets",
            "went_in": [one.value for one in asked.goes_in],
        },
        "hold_point": lambda _state, asked, _document: {"step": asked.step, "remark": "looked at, as it should be"},
        "hard_stop": lambda *_args: {"found": "a drill bit left in the flywheel; taken out, nothing marked"},
        "variant": lambda _state, asked, _document: {"group": asked.group_id, "option": asked.options[0].value},
        "wheel_setup": lambda *_args: SETUP,
        "tdc_method": lambda *_args: {"method": "positive_stop"},
        "piston_stop": lambda _state, asked, _document: {"fitted": asked.fitted},
        "tdc_reading": _tdc,
        "wheel_zero": lambda state, *_args: {"method": "positive_stop", "zero_deg": state.timing.tdc.zero_deg},
        "lift_reading": _lift,
        "cam_decision": _cam,
        "joint_ready": _ready,
        "pull": _pull,
        "pull_decided": lambda _state, asked, _document: {
            **{key: getattr(asked, key) for key in ("step", "stage", "turn", "fastener")},
            "decision": "go_on",
            "reason": "looked at, threads clean; the lead is told",
        },
        "sign_off": lambda *_args: {"remark": "Everything in its place."},
    }[question.kind]
    return {"kind": question.kind, **maker(state, question, document)}


def _step(_state: Any, question: Any, document: EngineDocument) -> Body:
    return {"step": question.step, "answers": {field.key: _field(field, question, document) for field in question.fields if field.needed}}


def _field(field: Any, question: Any, document: EngineDocument) -> str:
    if field.kind == "choice":
        return str(field.options[0].value)
    if question.does == "measure":
        fit = next(fit for fit in document.fits if fit.id == field.key)
        limits = [limit for limit in (fit.least_mm, fit.most_mm) if limit is not None]
        return f"{sum(limits) / len(limits):.4g}" if limits else ANY_FIT_MM
    return str(field.hint.removeprefix("book: ")) or "9"


def _ready(_state: Any, question: Any, _document: EngineDocument) -> Body:
    most = next((float(one.text) for one in question.needs_torque if one.unit == "N·m"), None)
    wrench = next((code for code, up_to in WRENCHES if most is not None and most <= up_to), None)
    angle = {"angle_by": "gauge"} if question.needs_angle else {}
    held = bool(question.held_by)
    return {"step": question.step, "threads": question.threads or "dry", "held": held, "wrench": wrench, **angle}


def _pull(_state: Any, question: Any, _document: EngineDocument) -> Body:
    """Torques at the end of an angle as ten bolts of one batch give them: near each other, and never twice the same."""
    body = {key: getattr(question, key) for key in ("step", "stage", "turn", "fastener")}
    if not question.asks_torque:
        return body
    odd = sum(map(ord, question.fastener)) % 5
    shown = {"torque": {"text": f"{70 + odd}", "unit": "N·m"}} if question.does == "angle" else {}
    return {**body, **shown, "wrench": question.wrench}


def _tdc(_state: Any, question: Any, _document: EngineDocument) -> Body:
    wheel = {"text": "40", "side": f"{question.place} TDC"}
    return {"method": "positive_stop", "place": question.place, "wheel": wheel}


def _lift(state: Any, question: Any, _document: EngineDocument) -> Body:
    words = in_words(question.expected_deg + state.timing.tdc.zero_deg)
    figure, side = words.split("° ") if "°" in words else ("0", f"after {words[-3:]}")
    where = {"camshaft": question.camshaft, "cylinder": question.cylinder, "valve": question.valve, "flank": question.flank}
    lift = {"text": f"{question.field.asked_mm:g}", "unit": "mm"}
    return {**where, "lift": lift, "wheel": {"text": figure, "side": side}, "approach": "running way"}


def _cam(state: Any, question: Any, _document: EngineDocument) -> Body:
    cam = next(cam for cam in state.timing.cams if cam.camshaft == question.camshaft)
    reason = "" if cam.verdict in ("in", "no limit known") else "as the card has it, within what the wheel can tell"
    return {"camshaft": cam.camshaft, "advance_deg": cam.advance_deg, "reason": reason}
