"""Answers whatever a bench asks, as a careful builder whose engine is as its book says."""

__all__ = ["Body", "next_question", "right_answer"]

from collections.abc import Callable
from typing import Any

from gurvo_core.engine import EngineDocument
from gurvo_core.fits.job.book import fits_book
from gurvo_core.timing import in_words
from gurvo_core.walk.shelf import Shelf

Body = dict[str, Any]
WHEEL: Body = {"numbering": "0-90-0-90-0", "runs": "grows", "plugs_out": True}
ANY_LASH_MM, ANY_SHIM_MM = 0.2, "2.50"
KINDS = {
    "found": "not_known",
    "clearway_move": "shaft_turned",
    "picture_needed": "picture",
}  # what a question is answered with, where that is called otherwise
NO_PICTURE = "0" * 64  # a walk has no camera: it says so by a digest that nothing has
ANY_FIT_MM = "0.05"  # where no limit is known


def next_question(state: Any) -> Any:
    """The question that the bench asks now; None when nothing can be answered."""
    step = next((step for step in state.steps if step.status == "now"), None)
    return step and next(question for question in step.questions if question.status == "open" and not question.blocked)


def right_answer(state: Any, question: Any, document: EngineDocument, shelf: Shelf) -> Body:
    """The entry that answers a question rightly, with the gauges that are at hand."""
    makers: dict[str, Callable[..., Body]] = {
        "step_done": _step,
        "turn_seen": _turn,
        "found": lambda _state, asked, *_rest: {"pointer": asked.pointer},
        "clearway_move": _move,
        "picture_needed": lambda _state, asked, *_rest: {"step": asked.step, "digest": NO_PICTURE, "width": 1, "height": 1},
        "hold_point": lambda _state, asked, *_rest: {"step": asked.step, "remark": "looked at, as it should be"},
        "hard_stop": lambda *_args: {"found": "a drill bit left in the flywheel; taken out, nothing marked"},
        "wheel_setup": lambda _state, _asked, _document, shelf: {**WHEEL, "wheel_gauge": shelf.wheel, "dial_gauge": shelf.dial},
        "tdc_reading": _tdc,
        "lift_reading": _lift,
        "cam_decision": _cam,
        "joint_ready": _ready,
        "pull": _pull,
        "pull_decided": lambda _state, asked, *_rest: {
            **{key: getattr(asked, key) for key in ("step", "stage", "turn", "fastener")},
            "decision": "go_on",
            "reason": "looked at, threads clean; the lead is told",
        },
        "fits_ready": _fits_ready,
        "fit_reading": _fit_reading,
        "fit_chosen": _fit_chosen,
        "fit_decided": lambda _state, asked, *_rest: {
            **{key: getattr(asked, key) for key in ("step", "fit", "place")},
            "decision": "read_again",
            "reason": "the bore was not wiped",
        },
        "lash_ready": lambda _state, asked, _document, shelf: {
            "step": asked.step,
            "way": asked.ways[0].way,
            "gauge": shelf.feeler if asked.needs_feelers else None,
            "engine_is": asked.engine_is or "cold",
        },
        "lash_reading": _lash_reading,
        "sign_off": lambda *_args: {"remark": "Everything in its place."},
    }
    maker: Callable[..., Body] = makers.get(question.kind, _plain)
    return {"kind": KINDS.get(question.kind, question.kind), **maker(state, question, document, shelf)}


def _plain(_state: Any, question: Any, _document: EngineDocument, _shelf: Shelf) -> Body:
    """The first of a plain question's answers."""
    first = question.answers[0]
    return {**first.entry, **({first.words: "looked at"} if first.words else {})}


def _move(_state: Any, question: Any, _document: EngineDocument, _shelf: Shelf) -> Body:
    """The proposed way; where there is none, on one's own word."""
    if not question.ways:
        return {"kind": "way_left", "step": question.step, "reason": "rockers out, turned by feel"}
    move = question.ways[0].moves[0]
    return {"shaft": move.shaft, "by_deg": move.by_deg, "way": "running" if move.by_deg > 0 else "back", "then": "stands"}


def _step(_state: Any, question: Any, document: EngineDocument, _shelf: Shelf) -> Body:
    answers = {field.key: _field(field, question, document) for field in question.fields if field.needed}
    return {"step": question.step, "answers": answers, "looks": _looks(question)}


def _looks(question: Any) -> list[Body]:
    """Everything meets."""
    return [{"of": one.of, "saw": "meets"} for one in question.looks]


def _turn(_state: Any, question: Any, _document: EngineDocument, _shelf: Shelf) -> Body:
    went_in = [one.of for one in question.looks if one.kind == "tool"]
    return {"step": question.step, "stop": question.stop, "saw": "meets", "went_in": went_in, "looks": _looks(question)}


def _field(field: Any, question: Any, document: EngineDocument) -> str:
    if field.kind == "choice":
        return str(field.options[0].value)
    if field.most is not None:
        return f"{field.most / 2:g}"
    if question.does == "measure":
        fit = next(fit for fit in document.fits if fit.id == field.key)
        limits = [limit for limit in (fit.least_mm, fit.most_mm) if limit is not None]
        return f"{sum(limits) / len(limits):.4g}" if limits else ANY_FIT_MM
    return str(field.hint.removeprefix("book: ").partition(";")[0]) or "9"


def _ready(_state: Any, question: Any, document: EngineDocument, shelf: Shelf) -> Body:
    most = next((float(one.text) for one in question.needs_torque if one.unit == "N·m"), None)
    wrench = shelf.wrench(most) if most is not None else None
    angle = {"angle_by": "gauge"} if question.needs_angle else {}
    held = bool(question.held_by)
    pulls = [{"stage": one.stage, "turn": one.turn, **_shown(one, document)} for one in question.pulls]
    return {"step": question.step, "threads": question.threads or "dry", "held": held, "wrench": wrench, **angle, "pulls": pulls}


def _pull(_state: Any, question: Any, document: EngineDocument, _shelf: Shelf) -> Body:
    """Torques at the end of an angle as ten bolts of one batch give them: near each other, and never twice the same."""
    body = {key: getattr(question, key) for key in ("step", "stage", "turn", "fastener")}
    if not question.asks_torque:
        return body
    return {**body, **_shown(question, document), "wrench": question.wrench}


def _shown(question: Any, document: EngineDocument) -> Body:
    """The torque at the end of an angle: half as much again as it was turned from, and a little."""
    if question.does != "angle":
        return {}
    joint = document.joint(question.joint)
    snug_nm = max((stage.torque_nm or 0 for stage in joint.figures), default=0) if joint else 0
    odd = sum(map(ord, question.fastener)) % 5
    return {"torque": {"text": f"{1.5 * snug_nm + 30 + odd:.0f}", "unit": "N·m"}}


def _fits_ready(_state: Any, question: Any, _document: EngineDocument, shelf: Shelf) -> Body:
    """With the gauge of the shelf that suits, the bore gauge set by a ring of the nominal size."""
    body = {"step": question.step, "fit": question.fit, "side": question.side, "as_asked": bool(question.condition), "part_c": "20.5"}
    nominal = question.nominal_mm
    if question.side == "gap" or nominal is None:
        body |= {"read_at": {"text": f"{question.radius_mm:g}", "unit": "mm"}} if question.radius_mm else {}
        return {**body, "gauge": shelf.dial if question.kinds[:1] == ["dial"] else shelf.feeler}
    standard = {"standard": {"text": f"{nominal:g}", "unit": "mm"}} if question.side == "outer" else {}
    return {**body, "gauge": shelf.sized(question.side, nominal), **standard}


def _fit_reading(_state: Any, question: Any, document: EngineDocument, _shelf: Shelf) -> Body:
    """Near what is wanted, a micrometre or two about it, and never twice the same."""
    keys = ("step", "fit", "place", "side", "plane", "axis")
    body = {key: getattr(question, key) for key in keys}
    fit = next(one for one in document.fits if one.id == question.fit)
    low, high = fit.limits_mm
    wanted = (low + high) / 2 if low is not None and high is not None else float(ANY_FIT_MM)
    inner = fit.inner.nominal_mm if fit.inner and fit.inner.nominal_mm else 0.0
    part = fit.select.classes[len(fit.select.classes) // 2] if fit.select and fit.select.measured_in is None else None
    sizes = {"inner": inner, "outer": inner + wanted + (fit.select.takes * part.size_mm if fit.select and part else 0.0), "gap": wanted}
    odd = sum(map(ord, question.place + question.side + question.axis)) % 4
    return {**body, "reading": {"text": f"{sizes[question.side] + odd / 1000 - 0.001:.3f}", "unit": "mm"}}


def _fit_chosen(_state: Any, question: Any, document: EngineDocument, _shelf: Shelf) -> Body:
    """The middle size everywhere."""
    fit = fits_book(document).fits[question.fit]
    select = fit.fit.select
    assert select is not None
    middle = select.classes[len(select.classes) // 2].id
    return {"step": question.step, "fit": question.fit, "sizes": dict.fromkeys(fit.at_place, middle)}


def _lash_reading(_state: Any, question: Any, document: EngineDocument, _shelf: Shelf) -> Body:
    keys = ("step", "camshaft", "cylinder", "valve", "place")
    body = {key: getattr(question, key) for key in keys}
    if question.set_by == "hydraulic":
        return {**body, "turns": f"{question.turns or 1:g}"}
    wanted = next((one.wanted_mm for one in document.lash if one.valve == question.valve), None)
    shim = {"shim": {"text": ANY_SHIM_MM, "unit": "mm"}} if question.asks_shim else {}
    return {**body, "goes": {"text": f"{wanted or ANY_LASH_MM:g}", "unit": "mm"}, **shim}


def _tdc(_state: Any, question: Any, _document: EngineDocument, _shelf: Shelf) -> Body:
    wheel = {"text": "40", "side": f"{question.place} TDC"}
    return {"method": "positive_stop", "place": question.place, "wheel": wheel}


def _lift(state: Any, question: Any, _document: EngineDocument, _shelf: Shelf) -> Body:
    zero_deg = state.timing.tdc.zero_deg if state.timing.tdc else 0.0  # the lead may have left true TDC out
    words = in_words(question.expected_deg + zero_deg)
    figure, side = words.split("° ") if "°" in words else ("0", f"after {words[-3:]}")
    where = {"camshaft": question.camshaft, "cylinder": question.cylinder, "valve": question.valve, "flank": question.flank}
    lift = {"text": f"{question.field.asked_mm:g}", "unit": "mm"}
    return {**where, "lift": lift, "wheel": {"text": figure, "side": side}, "approach": "running way"}


def _cam(_state: Any, question: Any, _document: EngineDocument, _shelf: Shelf) -> Body:
    leave = question.answers[0]
    return {**leave.entry, "reason": "as the card has it, within what the wheel can tell" if leave.needs_words else ""}
