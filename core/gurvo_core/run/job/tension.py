"""What is asked where a tensioner is fitted, armed or proven, by its kind; no figure need be known for any of it."""

__all__ = ["check_tension", "tension_fields", "turned_on_deg"]

from collections.abc import Iterator, Mapping
from typing import NamedTuple

from gurvo_core.engine import EngineDocument, WorkStep
from gurvo_core.engine.drive import Tensioner
from gurvo_core.errors import CoreError
from gurvo_core.ledger import Objection
from gurvo_core.run.job.asked import AskedField, FieldOption
from gurvo_core.run.job.lay import loop_of
from gurvo_core.sentence import within
from gurvo_core.units import read_figure

PLUNGERS = ("hydraulic", "ratchet", "press_and_release", "oil_fed")
POINTER = (("notch", "In its notch", "looked at again after tightening"), ("before", "Before it", ""), ("past", "Past it", ""))
TENSION_BY = (
    ("gauge", "Tension gauge", ""),
    ("frequency", "Span frequency", "plucked; see the workings"),
    ("twist", "A quarter twist", "by finger and thumb, recorded as such"),
    ("pump", "Pump just turns by hand", "recorded as such"),
)
TEETH_ON = 4  # source: common practice; a spring with its bolt loose is let take up over three or four teeth of the crank's wheel
NEARLY_OUT = 0.85  # of its stroke: a chain that asks for more is measured


class Look(NamedTuple):
    """One thing that is seen or felt of a tensioner: what is right, what is wrong, and what is done about that."""

    key: str
    label: str
    right: tuple[str, str]
    wrong: tuple[str, str]
    mend: str


_BOTH_TIGHT = Look("runs", "Both runs", ("tight", "Tight"), ("slack", "One is slack"), "find where the slack has gone before it is turned")
_OUT = Look(
    "rod",
    "The rod",
    ("out", "Stands out"),
    ("in", "Has not moved"),
    "a rod that stays in arms nothing: take it out, look at its pin and seat",
)
_PINNED = Look(
    "pinned",
    "Pressed back",
    ("pinned", "Held by its pin"),
    ("loose", "Comes out"),
    "press it back slowly and pin it again before it goes in",
)
_STAYS = Look(
    "stays",
    "Pressed with a thumb",
    ("stays", "Stays out"),
    ("leaks", "Sinks back"),
    "it leaks down: bleed it or put in another, then prove it again",
)
_BACK = Look("back", "The ratchet", ("back", "Set back"), ("out", "Still out"), "set it back and hook it before it goes in")
_SNAP = Look(
    "snap",
    "Let go",
    ("heard", "Heard or seen to let go"),
    ("not", "Did not"),
    "push the slipper, or turn the crank a little back, until it lets go",
)
_PRESSED = Look(
    "pressed",
    "Pressed once",
    ("works", "Springs seen working"),
    ("not", "Did not move"),
    "press once and let go; if it stays it was armed before",
)
_CLIP = Look(
    "clip", "Its clip", ("in", "In, cannot arm early"), ("out", "Out"), "it has armed already: take it out, set it back as the book says"
)
_LOCKED = Look(
    "locked", "Locked", ("locked", "Locked, arrow up"), ("loose", "Not locked"), "push it in and turn it until it is locked, its arrow up"
)
_HOOKED = Look("hooked", "Its spring", ("hooked", "Hooked, bolt loose"), ("off", "Unhooked"), "hook the spring and leave its bolt loose")
_TOOK_UP = Look(
    "took",
    "The spring",
    ("took", "Took up the slack"),
    ("not", "Did not move"),
    "see that its bolt is loose and nothing binds, then turn three or four teeth on",
)
_CREPT = Look(
    "crept",
    "After tightening",
    ("stands", "Stands as before"),
    ("crept", "Has crept"),
    "loosen its lock, let it take up again, tighten, look again",
)
_LOOSE = Look("lock", "Its lock bolt", ("loose", "Loose"), ("tight", "Tight"), "loosen it: the pointer is set with the bolt loose")
_PUNCH = Look("punch", "Punch mark", ("released", "Shows released"), ("not", "Does not"), "turn it until its mark says that it is released")

# by kind of tensioner and how far it is brought; a kind that is not known is asked what holds of all
_LOOKS: dict[tuple[str, str], tuple[Look, ...]] = {
    ("hydraulic", "fitted"): (_PINNED,),
    ("hydraulic", "armed"): (_OUT,),
    ("hydraulic", "proven"): (_BOTH_TIGHT, _STAYS),
    ("ratchet", "fitted"): (_BACK,),
    ("ratchet", "armed"): (_SNAP,),
    ("ratchet", "proven"): (_BOTH_TIGHT,),
    ("press_and_release", "fitted"): (_CLIP,),
    ("press_and_release", "armed"): (_PRESSED,),
    ("press_and_release", "proven"): (_BOTH_TIGHT,),
    ("oil_fed", "fitted"): (_LOCKED,),
    ("oil_fed", "proven"): (_BOTH_TIGHT,),
    ("eccentric", "fitted"): (_LOOSE,),
    ("spring_then_lock", "fitted"): (_HOOKED,),
    ("spring_then_lock", "armed"): (_TOOK_UP,),
    ("spring_then_lock", "proven"): (_CREPT,),
    ("manual", "armed"): (_PUNCH,),
    ("", "proven"): (_BOTH_TIGHT,),
}


def _tensioner(document: EngineDocument, step: WorkStep) -> Tensioner | None:
    loop = loop_of(document, step)
    return loop.tightened_by if loop is not None else None


def _looks(document: EngineDocument, step: WorkStep) -> tuple[Look, ...]:
    tensioner = _tensioner(document, step)
    kind = (tensioner.kind if tensioner else None) or ""
    return _LOOKS.get((kind, step.how_far or ""), ())


def turned_on_deg(document: EngineDocument, step: WorkStep) -> int:
    """Return how far the crank is turned on while a tensioner takes up the slack [deg]; 0 where it is not, or nobody knows the teeth."""
    tensioner = _tensioner(document, step)
    if step.does != "tension" or step.how_far != "armed" or tensioner is None or tensioner.kind != "spring_then_lock":
        return 0
    stage = loop_of(document, step)
    wheels = document.drive.crank_wheels() & set(stage.wheel_ids) if stage is not None else set()
    teeth = next((document.drive.wheel(wheel).teeth for wheel in sorted(wheels)), None)
    return round(TEETH_ON * 360 / teeth) if teeth else 0


def tension_fields(document: EngineDocument, step: WorkStep) -> list[AskedField]:
    """What is asked of a step that sees to a tensioner, by its kind: what is seen and felt; where its figures are known, those too."""
    tensioner = _tensioner(document, step)
    fields = [_asked(look) for look in _looks(document, step)]
    if tensioner is None:
        return fields
    if tensioner.kind == "eccentric" and step.how_far in ("armed", "proven"):
        fields.append(_choice("pointer", "The pointer stands", POINTER))
    if tensioner.kind in PLUNGERS and step.how_far in ("armed", "proven") and tensioner.stroke_mm is not None:
        hint = f"stroke {tensioner.stroke_mm:g} mm, from all the way in"
        fields.append(AskedField(key="out_mm", label="Plunger out", kind="figure", unit="mm", hint=hint, most=tensioner.stroke_mm))
    if step.how_far == "proven" and (tensioner.kind == "manual" or tensioner.tension is not None):
        fields += [_choice("tension_by", "Tension judged by", TENSION_BY), _tension_figure(tensioner)]
    return fields


def _asked(look: Look) -> AskedField:
    return _choice(look.key, look.label, ((*look.right, ""), (*look.wrong, look.mend)))


def _choice(key: str, label: str, offered: tuple[tuple[str, str, str], ...]) -> AskedField:
    options = [FieldOption(value=value, label=name, detail=detail) for value, name, detail in offered]
    return AskedField(key=key, label=label, kind="choice", options=options)


def _tension_figure(tensioner: Tensioner) -> AskedField:
    window = tensioner.tension
    if window is None:
        return AskedField(key="tension", label="It showed", kind="words", needed=False)
    limits = " to ".join(f"{one:g}" for one in (window.least, window.most) if one is not None)
    return AskedField(key="tension", label="It showed", kind="figure", unit=window.unit, hint=f"wanted: {limits}", needed=False)


def check_tension(document: EngineDocument, step: WorkStep, answers: Mapping[str, str]) -> Iterator[Objection]:
    """Why a tensioner cannot stay as it stands, with the path of the answer and what is done about it."""
    tensioner = _tensioner(document, step)
    for look in _looks(document, step):
        if answers.get(look.key) == look.wrong[0]:
            rule = f"{within(look.label)}: {within(look.wrong[1])}; {look.mend}"
            yield Objection(f"answers.{look.key}", rule, "lead and reason")
    if tensioner is None:
        return
    where = {value: within(label) for value, label, _ in POINTER}.get(answers.get("pointer", ""))
    if where is not None and answers["pointer"] != "notch":
        rule = f"the pointer of {within(tensioner.name)} stands {where}: it creeps on tightening"
        yield Objection("answers.pointer", f"{rule}; loosen the lock, set it in the notch, look again")
    if text := answers.get("out_mm", ""):
        yield from _check_out(tensioner, text)
    if (text := answers.get("tension", "")) and tensioner.tension is not None:
        yield from _check_tight(tensioner, text)


def _check_tight(tensioner: Tensioner, text: str) -> Iterator[Objection]:
    """Of the two errors slightly loose is the lesser; both are the lead's."""
    window = tensioner.tension
    try:
        showed = read_figure(text)
    except CoreError as error:
        yield Objection("answers.tension", error.rule)
        return
    if window is not None and window.least is not None and showed < window.least:
        yield Objection("answers.tension", f"{showed:g} {window.unit} is less than {window.least:g}: tighten it", "lead and reason")
    if window is not None and window.most is not None and showed > window.most:
        rule = f"{showed:g} {window.unit} is more than {window.most:g}: too tight wears the pump's bearing; slacken it"
        yield Objection("answers.tension", rule, "lead and reason")


def _check_out(tensioner: Tensioner, text: str) -> Iterator[Objection]:
    try:
        out_mm = read_figure(text)
    except CoreError as error:
        yield Objection("answers.out_mm", error.rule)
        return
    stroke_mm = tensioner.stroke_mm or 0.0
    worn_mm = tensioner.most_out_mm or NEARLY_OUT * stroke_mm
    said = f"{out_mm:g} mm of {stroke_mm:g} mm"
    if out_mm < 0:
        yield Objection("answers.out_mm", f"{out_mm:g} mm cannot be; measure from all the way in")
    elif out_mm > stroke_mm:
        rule = f"{said} is past its stroke: let go with the slipper pushed back, or without its chain, it does not come back by itself"
        yield Objection("answers.out_mm", f"{rule}; take it out and do as the book says")
    elif out_mm > worn_mm:
        limit = f"more than the {worn_mm:g} mm of the book" if tensioner.most_out_mm else "nearly all of it"
        rule = f"{said} is {limit}: pull the chain over its links first, a worn one goes no further"
        yield Objection("answers.out_mm", f"{rule}; the lead decides", "lead and reason")
