"""What is asked of a step beside that it is done: counts, figures, choices; and whether an answer can be."""

__all__ = ["check_answers", "fields_of", "found_in", "stage_words"]

import math
from collections.abc import Callable, Iterator, Mapping
from typing import Literal

from gurvo_core.engine import Joint, WorkStep
from gurvo_core.errors import CoreError
from gurvo_core.ledger import Objection, need
from gurvo_core.run.job.asked import AskedField, FieldOption
from gurvo_core.run.job.lay import check_laid, lay_fields
from gurvo_core.run.job.tension import check_tension, tension_fields
from gurvo_core.run.looks import looks_while_parking
from gurvo_core.run.plan import Plan
from gurvo_core.sentence import at_start, length
from gurvo_core.units import read_figure

# how a place of the crank is found, and which engine offers it
PIN, MARK = ("pin", "Pin or tool", "it goes in"), ("mark", "Its mark", "on the pointer")
WHEEL = ("wheel", "Degree wheel", "from true TDC")
FOUND_AT_TDC = (
    ("dial", "Dial at its highest", "the middle of where it rests"),
    ("both", "Forward and back", "to one drop of the piston, then half-way"),
    ("feel", "Rod, by feel", "degrees wide"),
)
OTHERWISE = (("lamp", "Test lamp", "where the points open"), ("eye", "By eye", "recorded as such"))
ANGLE_BY = (
    ("gauge", "Angle gauge", ""),
    ("wheel", "Degree wheel", ""),
    ("paint", "Paint marks", ""),
    ("eye", "By eye", "recorded as such"),
)
SEEN_TO = ("lay", "tension")  # their figures are judged together
RIGHT_WAY = "right"
NO_LIMIT = "no limit known"
LOOKS = (
    ("good", "Good", "goes back in"),
    ("not_good", "Not good", "say why"),
    ("replaced", "Replaced", "say why"),
    ("put_right", "Put right", "say how"),
    ("as_it_is", "Used as it is", "the lead says why"),
)
HEARD = (
    ("sound", "Sound", "no leak, no noise"),
    ("noise", "Noise", "stop it, say what"),
    ("leak", "Leak", "stop it, say where"),
    ("cured", "Cured, sound now", "say what it was"),
)
LOOKED_AT = (("meets", "Meets", ""), ("off", "Off", "say how far"), ("unseen", "Cannot be seen", ""))
MOST_PIECES = 48  # looked at one by one; of more, all together


def fields_of(plan: Plan, step: WorkStep) -> list[AskedField]:
    """Return what is asked of a step.

    Source: Practice: new is said of one-time parts, links are counted, a quarter turn by eye is recorded as such.
    >>> fields_of(plan_of(quern_4()), WorkStep(id="x", does="do", says="Wipe the face"))
    []
    """
    makers: dict[str, Callable[[Plan, WorkStep], list[AskedField]]] = {
        "ready": _ready,
        "inspect": _inspect,
        "as_found": _as_found,
        "fit": _coupled,
        "put_on": _place,
        "take_off": _place,
        "park": _found_by,
        "lay": lambda plan, step: lay_fields(plan.document, step),
        "tension": lambda plan, step: tension_fields(plan.document, step),
        "tighten": lambda plan, step: [*_stages_told(plan, step), *_angle(plan, step)],
        "measure": _fits,
        "prime": _primed,
        "first_start": _started,
    }
    return makers[step.does](plan, step) if step.does in makers else []


def _choice(key: str, label: str, options: tuple[tuple[str, str, str], ...]) -> AskedField:
    offered = [FieldOption(value=value, label=name, detail=detail) for value, name, detail in options]
    return AskedField(key=key, label=label, kind="choice", options=offered)


def _words(key: str, label: str, *, needed: bool) -> AskedField:
    return AskedField(key=key, label=label, kind="words", needed=needed)


def _inspect(plan: Plan, step: WorkStep) -> list[AskedField]:
    """As a whole, or piece by piece where several of a kind are kept by their places."""
    kit = {part.id: part for part in plan.document.kit}
    pieces = [(f"found.{at}", place) for at, place in enumerate((p for name in step.parts for p in kit[name].places), 1)]
    if not 1 < len(pieces) <= MOST_PIECES:
        pieces = [("found", "It is")]
    return [*(_choice(key, label, LOOKS) for key, label in pieces), _words("reason", "Why", needed=False)]


def _as_found(_plan: Plan, step: WorkStep) -> list[AskedField]:
    """What came in: looked at, counted, measured; it holds nothing back, so nothing of it must be said."""
    asked = []
    for look in step.looks:
        if look.mark is not None:
            asked.append(_choice(look.id, look.asks, LOOKED_AT).model_copy(update={"needed": False}))
        else:
            kind: Literal["figure", "words"] = "figure" if look.unit else "words"
            asked.append(AskedField(key=look.id, label=look.asks, kind=kind, unit=look.unit, needed=False))
    return [*asked, _words("complaint", "What the customer says of it", needed=False)]


def _found_by(plan: Plan, step: WorkStep) -> list[AskedField]:
    """The ways in which this engine's place can be found: by its pin, by its mark, on a wheel that is set up, by the piston, by eye."""
    document, position = plan.document, step.position
    at = next((one for one in document.timing_positions if one.id == position), None)
    has_pin = any(one.position == position for one in document.things) or any(one.position == position for one in document.drive.locks)
    has_mark = bool(looks_while_parking(document, position))
    has_wheel = bool(plan.doing("find_tdc"))
    is_tdc = at is None or at.kind == "tdc"
    ways = (*([PIN] * has_pin), *([MARK] * has_mark), *([WHEEL] * has_wheel), *(FOUND_AT_TDC if is_tdc else ()), *OTHERWISE)
    return [_choice("found_by", "Found by", ways)]


def _primed(_plan: Plan, _step: WorkStep) -> list[AskedField]:
    return [AskedField(key="seconds", label="Until pressure showed", kind="figure", unit="s")]


def _started(_plan: Plan, _step: WorkStep) -> list[AskedField]:
    return [_choice("heard", "It runs", HEARD), _words("reason", "What was it", needed=False)]


def _ready(plan: Plan, step: WorkStep) -> list[AskedField]:
    kit = {part.id: part for part in plan.document.kit}
    fields = []
    for part in (kit[name] for name in step.parts):
        there = ("new", "New", "") if part.one_time else ("there", "There", "")
        count = f"{part.count} × " if part.count > 1 else ""
        fields.append(_choice(part.id, f"{count}{part.name}", (there, ("missing", "Missing", ""))))
    return [*fields, _words("lot", "Lot, or a note", needed=False)]


def _place(plan: Plan, step: WorkStep) -> list[AskedField]:
    thing = plan.document.thing(step.thing)
    if thing is None or len(thing.places) < 2 or step.place:
        return []
    return [_choice("place", "Where", tuple((place, place, "") for place in thing.places))]


def _coupled(plan: Plan, step: WorkStep) -> list[AskedField]:
    """A coupling that goes together in more ways than one is looked at."""
    coupling = next((one for one in plan.document.drive.couplings if one.id == step.coupling), None)
    if coupling is None or coupling.ways == 1:
        return []
    ways = ((RIGHT_WAY, "As the book has it", coupling.told_by), ("other", "Another way", f"it goes together in {coupling.ways} ways"))
    return [_choice("coupled", coupling.name, ways)]


def _angle(plan: Plan, step: WorkStep) -> list[AskedField]:
    words = stage_words(plan, step)
    return [_choice("angle_by", "The angle was read by", ANGLE_BY)] if "°" in words else []


def stage_words(plan: Plan, step: WorkStep) -> str:
    """Return what the book says of the stages that a step goes through.

    Source: Practice: one joint is tightened in several steps, some stages to a step.
    >>> stage_words(plan_of(quern_4()), WorkStep(id="x", does="do", says="Wipe the face"))
    ''
    """
    joint = plan.document.joint(step.joint)
    return joint.stage_words(*_stages_of(plan, step, joint)) if joint is not None else ""


def _stages_of(plan: Plan, step: WorkStep, joint: Joint) -> tuple[int, int]:
    """The stage that an earlier step ends at, and the one that this step ends at."""
    last = step.stage or len(joint.stages)
    before = [s.step.stage or len(joint.stages) for s in plan.doing("tighten") if s.step.joint == joint.id]
    return max((stage for stage in before if stage < last), default=0), last


def _stages_told(plan: Plan, step: WorkStep) -> list[AskedField]:
    """A joint that is told in words is gone through stage by stage, since nobody else counts them."""
    joint = plan.document.joint(step.joint)
    if joint is None or joint.is_figured:
        return []
    first, last = _stages_of(plan, step, joint)
    if last - first < 2:
        return []
    return [
        _choice(f"stage.{n}", at_start(joint.stage_words(n - 1, n)), (("done", "Done, all of them", ""),))
        for n in range(first + 1, last + 1)
    ]


def _fits(plan: Plan, step: WorkStep) -> list[AskedField]:
    fits = {fit.id: fit for fit in plan.document.fits}
    return [
        AskedField(key=fit.id, label=fit.name, kind="figure", unit="mm", hint=_limits_words(fit.least_mm, fit.most_mm))
        for fit in (fits[name] for name in step.fits)
    ]


def _limits_words(least_mm: float | None, most_mm: float | None) -> str:
    if least_mm is None or most_mm is None:
        return next((f"{word} {length(limit)}" for word, limit in (("least", least_mm), ("most", most_mm)) if limit is not None), NO_LIMIT)
    return f"{length(least_mm)} to {length(most_mm)}"


def check_answers(plan: Plan, step: WorkStep, answers: Mapping[str, str]) -> Iterator[Objection]:
    """Yield what cannot be, or must be decided, about the answers to a step.

    Source: Practice: counted links decide; a fit out of its limits is decided by the lead, with the reason.
    >>> list(check_answers(plan_of(quern_4()), WorkStep(id="x", does="do", says="Wipe the face"), {}))
    []
    """
    fields = {field.key: field for field in fields_of(plan, step)}
    for key in answers.keys() - fields.keys():
        yield Objection(f"answers.{key}", f"nothing called {key} is asked here; leave it out")
    for key, field in fields.items():
        text = answers.get(key, "")
        if not text:
            yield from need(not field.needed, f"answers.{key}", f"say this too: {field.label}")
        elif field.kind == "choice":
            named = [option.value for option in field.options]
            yield from need(text in named, f"answers.{key}", f"choose one of {', '.join(named)}")
        elif field.kind == "figure" and step.does not in SEEN_TO:
            yield from _check_figure(plan, step, key, text)
    yield from _check_found(answers)
    if step.does == "tension":
        yield from check_tension(plan.document, step, answers)
    if step.does == "lay":
        yield from check_laid(plan.document, step, answers)
    if answers.get("coupled") not in (None, "", RIGHT_WAY):
        yield Objection("answers.coupled", "it goes together in this way and is wrong: take it apart and turn it round")
    is_odd = any(said not in ("", "good") for said in found_in(answers)) or answers.get("heard") not in (None, "", "sound")
    yield from need(not is_odd or bool(answers.get("reason")), "answers.reason", "say what is wrong with it, and what was done")


def found_in(answers: Mapping[str, str]) -> list[str]:
    """What was found of each piece that was looked at."""
    return [said for key, said in answers.items() if key.partition(".")[0] == "found"]


def _check_found(answers: Mapping[str, str]) -> Iterator[Objection]:
    if "as_it_is" in found_in(answers):
        yield Objection("answers.found", "what is not good is used as it is: only the lead takes that, with the reason", "lead and reason")


def _check_figure(plan: Plan, step: WorkStep, key: str, text: str) -> Iterator[Objection]:
    field = f"answers.{key}"
    try:
        figure = read_figure(text)
    except CoreError as error:
        yield Objection(field, error.rule)
        return
    if step.does == "measure":
        fit = next(fit for fit in plan.document.fits if fit.id == key)
        yield from need(-5 <= figure <= 50, field, f"{figure:g} mm cannot be a clearance; check the figure")
        at = plan.document.fits.index(fit)
        low, high = (-math.inf if fit.least_mm is None else fit.least_mm), (math.inf if fit.most_mm is None else fit.most_mm)
        if not low <= figure <= high and not plan.document.is_guessed(f"/fits/{at}"):
            limits = _limits_words(fit.least_mm, fit.most_mm)
            rule = f"{fit.name} of {figure:g} mm is out of {limits}: the lead decides, with the reason"
            yield Objection(field, rule, "lead and reason")
    elif step.does == "as_found":
        yield from need(math.isfinite(figure), field, "type a figure")
    elif step.does == "prime" and step.seconds and figure > step.seconds:
        rule = f"no pressure within {step.seconds:g} s is too long: stop and look for the reason; the lead decides"
        yield Objection(field, rule, "lead and reason")
