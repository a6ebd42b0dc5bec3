"""What is asked where a chain or belt is laid: the counts from mark to mark, and whether the run that is pulled is tight."""

__all__ = ["LAY_SLACK", "NO_COUNTS", "check_laid", "held_by", "laid_loops", "lay_fields", "looks_made", "loop_of"]

from collections.abc import Iterator, Mapping

from gurvo_core.engine import EngineDocument, LoopStage, WorkStep
from gurvo_core.errors import CoreError, GeometryError
from gurvo_core.ledger import Objection
from gurvo_core.motion.laid import check_counts, counted_spans, crank_deg_a_pitch, laid_shafts, laid_words, loads_of, shaft_name
from gurvo_core.run.job.asked import AskedField, FieldOption
from gurvo_core.run.job.state import RunState
from gurvo_core.sentence import at_start, listed, within
from gurvo_core.units import read_figure

LAY_SLACK = "slack"
LAY_LONG = "pulled"
SHORTER = 0.005  # of its length: what a rule over a chain is read to
NO_COUNTS = frozenset({LAY_SLACK, LAY_LONG})  # what a laying is asked besides its counts
TIGHT, LEFT = "tight", "left"
NO_COUNT = "the book does not say how many: count them, or leave it open"


def loop_of(document: EngineDocument, step: WorkStep) -> LoopStage | None:
    """Return the chain or belt that a step lays."""
    return next((stage for stage in document.drive.stages if stage.id == step.loop and isinstance(stage, LoopStage)), None)


def lay_fields(document: EngineDocument, step: WorkStep) -> list[AskedField]:
    """Return what is asked of a step that lays a chain or belt.

    Source: Practice: counted links or teeth decide, and the run on the side the crank pulls is kept taut.
    >>> [field.key for field in lay_fields(quern_4(), WorkStep(id="x", does="lay", says="Lay the chain", loop="chain"))]
    ['slack']
    """
    loop = loop_of(document, step)
    if loop is None:
        return []
    spans, pitch_deg = counted_spans(loop), crank_deg_a_pitch(document, loop)
    one_off = f"; one off is {round(pitch_deg, 1):g}° of the crank" if pitch_deg is not None else ""
    figures = [
        AskedField(
            key=span.key,
            label=span.label,
            kind="figure",
            unit=span.unit,
            hint=f"book: {span.book:g}{', what is left' if span.is_closing else one_off}" if span.book is not None else NO_COUNT,
            needed=not span.is_closing and span.book is not None,
        )
        for span in spans
    ]
    if loop.longest_mm is not None:
        figures.append(_pulled_long(loop))
    driver = shaft_name(document, document.drive.wheel(loop.wheel_ids[0]).shaft)
    tight = FieldOption(value=TIGHT, label="Pulled tight", detail="all slack is on the tensioner's side")
    left = FieldOption(value=LEFT, label="Slack left", detail=_slack_detail(document, loop))
    return [*figures, AskedField(key=LAY_SLACK, label=f"The run that the {driver} pulls", kind="choice", options=[tight, left])]


def _drives_a_place(document: EngineDocument, loop: LoopStage) -> bool:
    """Whether anything it drives must stand somewhere: a pump's chain may lie as it likes."""
    shafts = [document.drive.shaft(shaft) for _, shaft in loads_of(document, loop)[1:]]
    return any(shaft.kind in ("camshaft", "balance") or shaft.position_matters for shaft in shafts)


def _pulled_long(loop: LoopStage) -> AskedField:
    """How long it is pulled tight, against the book's wear limit; of a new one nobody measures it."""
    over = f" over {loop.over_pitches} pitches" if loop.over_pitches else ""
    hint = f"worn beyond {loop.longest_mm:g} mm; leave empty where it is new"
    return AskedField(key=LAY_LONG, label=f"{at_start(loop.name)}, pulled tight{over}", kind="figure", unit="mm", hint=hint, needed=False)


def _check_long(loop: LoopStage, text: str) -> Iterator[Objection]:
    try:
        long_mm = read_figure(text)
    except CoreError as error:
        yield Objection(f"answers.{LAY_LONG}", error.rule)
        return
    new_mm = loop.over_pitches * loop.pitch_mm if loop.over_pitches and loop.pitch_mm else None
    if new_mm is not None and long_mm < (1 - SHORTER) * new_mm:
        rule = f"{long_mm:g} mm is shorter than {loop.over_pitches} pitches of a new one, {new_mm:g} mm: count again"
        yield Objection(f"answers.{LAY_LONG}", rule)
    if loop.longest_mm is not None and long_mm > loop.longest_mm:
        rule = f"{long_mm:g} mm is past the wear limit of {loop.longest_mm:g}: a new one goes in; only the lead takes this one"
        yield Objection(f"answers.{LAY_LONG}", rule, "lead and reason")


def check_laid(document: EngineDocument, step: WorkStep, answers: Mapping[str, str]) -> Iterator[Objection]:
    """Yield why a chain or belt cannot stay as it was laid, and what it would do to the timing."""
    loop = loop_of(document, step)
    if loop is None:
        return
    if answers.get(LAY_LONG):
        yield from _check_long(loop, answers[LAY_LONG])
    spans, counted = {span.key: span for span in counted_spans(loop)}, {}
    for key in spans.keys() & {key for key, text in answers.items() if text}:
        try:
            counted[key] = read_figure(answers[key])
        except CoreError as error:
            yield Objection(f"answers.{key}", error.rule)
    faults = dict(check_counts(loop, counted))
    yield from (Objection(f"answers.{key}", rule) for key, rule in faults.items())
    if faults:
        return
    try:
        effect = laid_words(document, laid_shafts(document, loop, counted))
    except GeometryError as error:
        yield Objection(f"answers.{error.field.removeprefix('counted.')}", error.rule)
        return
    for key in (span.key for span in spans.values() if span.book is not None and counted.get(span.key, span.book) != span.book):
        said = f"; {effect}" if effect else ""
        rule = f"the book counts {spans[key].book:g}; you counted {counted[key]:g}{said}: lay it again, or count once more"
        yield Objection(f"answers.{key}", rule)
    if answers.get(LAY_SLACK) == LEFT:
        driver = shaft_name(document, document.drive.wheel(loop.wheel_ids[0]).shaft)
        late = f"; {_late_words(document, loop)} falls behind" if _drives_a_place(document, loop) else ""
        rule = f"slack is left on the run that the {driver} pulls: what looks right now moves once it takes up{late}"
        over = "bring it over to the tensioner's side" if loop.tensioner != "none" else "pull it tight"
        yield Objection(f"answers.{LAY_SLACK}", f"{rule}: {over}, then look at the marks again")


def _late_words(document: EngineDocument, loop: LoopStage) -> str:
    """What falls behind while slack is taken up: the camshafts it drives, or whatever it drives."""
    driven = [document.drive.shaft(document.drive.wheel(name).shaft) for name in loop.wheel_ids[1:]]
    cams = list(dict.fromkeys(within(shaft.name) for shaft in driven if shaft.kind == "camshaft"))
    return listed(cams) or "what it drives"


def _slack_detail(document: EngineDocument, loop: LoopStage) -> str:
    return f"once it takes up, {_late_words(document, loop)} falls behind" if _drives_a_place(document, loop) else "it will be taken up"


def held_by(now: RunState) -> dict[str, str]:
    """Return the shafts that something on the engine holds. A thing with as many places as shafts holds the one of its place."""
    held: dict[str, str] = {}
    for thing_id, places in now.on.items():
        thing = now.document.thing(thing_id)
        if thing is not None:
            shaft_at = dict(zip(thing.places, thing.holds, strict=True)) if len(thing.places) == len(thing.holds) else {}
            own = [shaft_at[one.place] for one in places] if shaft_at else thing.holds
            held |= dict.fromkeys(own, thing.name)
    return held


def laid_loops(now: RunState) -> frozenset[str]:
    """Return the chains and belts that are on."""
    return frozenset(one.step.loop for one in now.did("lay") if one.step.loop)


def looks_made(now: RunState) -> dict[str, bool]:
    """Return what the run has looked at already that tells likely causes apart.

    Counts that are not the book's are never taken; marks that do not meet are a loose end until they do.
    """
    seen: dict[str, bool] = {}
    if now.off is not None:
        seen["marks"] = False
    elif any(not now.done[one.step.id].is_skipped for one in now.did("turn_over")):
        seen["marks"] = True
    laid = now.did("lay")
    if any(now.done[one.step.id].answers.keys() - NO_COUNTS for one in laid):
        seen["count"] = True
    return seen
