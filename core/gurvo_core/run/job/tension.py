"""What is asked where a tensioner is fitted, armed or proven, by its kind: the pointer, the plunger, how tight the belt is."""

__all__ = ["check_tension", "tension_fields"]

from collections.abc import Iterator, Mapping

from gurvo_core.engine import EngineDocument, WorkStep
from gurvo_core.engine.drive import Tensioner
from gurvo_core.errors import CoreError
from gurvo_core.ledger import Objection
from gurvo_core.run.job.asked import AskedField, FieldOption
from gurvo_core.run.job.lay import loop_of
from gurvo_core.units import read_figure

PLUNGERS = ("hydraulic", "ratchet", "press_and_release", "oil_fed")
POINTER = (("notch", "In its notch", "looked at again after tightening"), ("before", "Before it", ""), ("past", "Past it", ""))
TENSION_BY = (
    ("gauge", "Tension gauge", ""),
    ("frequency", "Span frequency", "plucked; see the workings"),
    ("twist", "Twist", "by finger and thumb, recorded as such"),
)
NEARLY_OUT = 0.85  # of its stroke: a chain that asks for more is measured


def _tensioner(document: EngineDocument, step: WorkStep) -> Tensioner | None:
    loop = loop_of(document, step)
    return loop.tensioner if loop is not None else None


def tension_fields(document: EngineDocument, step: WorkStep) -> list[AskedField]:
    """Return what is asked of a step that sees to a tensioner.

    Parameters
    ----------
    document : EngineDocument
        The engine.
    step : WorkStep
        The step.

    Returns
    -------
    fields : list of AskedField
        Where the pointer stands of an eccentric one, how far the plunger is out where its stroke is known, by what a belt's tension was
        judged of one that is set by hand. Empty where being done is all there is to say.

    Source
    ------
    Practice: an eccentric creeps on tightening; a ratchet that is driven out too far does not come back; a twist is a twist, and is
    recorded as such.

    Example
    -------
    >>> step = WorkStep(id="x", does="tension", says="Arm it", loop="belt", how_far="armed")
    >>> [field.key for field in tension_fields(family("teasel-4"), step)]
    ['pointer']
    """
    tensioner = _tensioner(document, step)
    if tensioner is None or step.how_far not in ("armed", "proven"):
        return []
    if tensioner.kind == "eccentric":
        options = [FieldOption(value=value, label=label, detail=detail) for value, label, detail in POINTER]
        return [AskedField(key="pointer", label="The pointer stands", kind="choice", options=options)]
    if tensioner.kind in PLUNGERS and tensioner.stroke_mm is not None:
        hint = f"stroke {tensioner.stroke_mm:g} mm, from all the way in"
        return [AskedField(key="out_mm", label="Plunger out", kind="figure", unit="mm", hint=hint, most=tensioner.stroke_mm)]
    if tensioner.kind == "manual" and step.how_far == "proven":
        options = [FieldOption(value=value, label=label, detail=detail) for value, label, detail in TENSION_BY]
        return [
            AskedField(key="tension_by", label="Tension judged by", kind="choice", options=options),
            AskedField(key="tension", label="It showed", kind="words", needed=False),
        ]
    return []


def check_tension(document: EngineDocument, step: WorkStep, answers: Mapping[str, str]) -> Iterator[Objection]:
    """Yield why a tensioner cannot stay as it stands.

    Parameters
    ----------
    document : EngineDocument
        The engine.
    step : WorkStep
        A step that sees to a tensioner.
    answers : mapping
        Text by the key of what was asked.

    Returns
    -------
    objections : iterator of Objection
        With the path of the answer.

    Source
    ------
    Practice: see ``tension_fields``.

    Example
    -------
    >>> step = WorkStep(id="x", does="tension", says="Arm it", loop="belt", how_far="armed")
    >>> [one.field for one in check_tension(family("teasel-4"), step, {"pointer": "past"})]
    ['answers.pointer']
    """
    tensioner = _tensioner(document, step)
    if tensioner is None:
        return
    where = {value: label.lower() for value, label, _ in POINTER}.get(answers.get("pointer", ""))
    if where is not None and answers["pointer"] != "notch":
        rule = f"the pointer of {tensioner.name.lower()} stands {where}: it creeps on tightening"
        yield Objection("answers.pointer", f"{rule}; loosen the lock, set it in the notch, look again")
    if text := answers.get("out_mm", ""):
        yield from _check_out(tensioner, text)


def _check_out(tensioner: Tensioner, text: str) -> Iterator[Objection]:
    try:
        out_mm = read_figure(text)
    except CoreError as error:
        yield Objection("answers.out_mm", error.rule)
        return
    stroke_mm = tensioner.stroke_mm or 0.0
    said = f"{out_mm:g} mm of {stroke_mm:g} mm"
    if out_mm < 0:
        yield Objection("answers.out_mm", f"{out_mm:g} mm cannot be; measure from all the way in")
    elif out_mm > stroke_mm:
        rule = f"{said} is past its stroke: let go with the slipper pushed back, or without its chain, it does not come back by itself"
        yield Objection("answers.out_mm", f"{rule}; take it out and do as the book says")
    elif out_mm > NEARLY_OUT * stroke_mm:
        rule = f"{said} is nearly all of it: pull the chain over its links first, a worn one goes no further"
        yield Objection("answers.out_mm", f"{rule}; the lead decides", "lead and reason")
