"""The drive as it is handed over: every loop with its counts as laid, its tensioner, and what was seen when it was turned over."""

__all__ = ["AsFoundLine", "CountLine", "DrivePaper", "StepLine", "TurnLine", "as_found_lines", "drive_papers", "turn_lines"]

from collections.abc import Iterable, Iterator
from typing import NamedTuple

from gurvo_core.engine import LoopStage
from gurvo_core.ledger import LedgerEntry
from gurvo_core.motion.laid import counted_spans
from gurvo_core.run.job.entries import TurnSeen
from gurvo_core.run.job.fields import fields_of
from gurvo_core.run.job.lay import NO_COUNTS
from gurvo_core.run.job.standing import title_of
from gurvo_core.run.job.state import Done, RunState
from gurvo_core.run.job.words import SAW, looks_words
from gurvo_core.run.plan import Plan, PlanStep
from gurvo_core.sentence import within


class CountLine(NamedTuple):
    """What lies between two marks."""

    label: str
    book: str
    counted: str


class StepLine(NamedTuple):
    """What was done to a loop, by whom, and what was said of it."""

    seq: int
    says: str
    by: str
    answers: str


class TurnLine(NamedTuple):
    """A stop of turning over, and what the marks said there."""

    seq: int
    says: str
    saw: str
    by: str
    is_off: bool


class AsFoundLine(NamedTuple):
    """One thing looked at on an engine as it came in."""

    asks: str
    found: str
    by: str
    left: str  # what was seen of it last, once it went together again; empty where nobody looked


class DrivePaper(NamedTuple):
    """One chain or belt."""

    name: str
    about: str
    counts: list[CountLine]
    steps: list[StepLine]


def drive_papers(now: RunState) -> list[DrivePaper]:
    """Return every chain and belt that was laid.

    The record says what was counted, beside what the book counts.
    """
    papers = []
    for loop in (stage for stage in now.document.drive.stages if isinstance(stage, LoopStage)):
        done = [(now.plan.by_id[s.id], now.done[s.id]) for s in now.plan.of_loop.get(loop.id, ()) if s.id in now.done]
        laid = next((own for one, own in done if one.step.does == "lay"), None)
        if laid is not None:
            length = "" if loop.count is None else f", {loop.count} {loop.counted_in}"
            pitch = "" if loop.pitch_mm is None else f" of {loop.pitch_mm:g} mm"
            counts = list(_counts(loop, laid))
            steps = [_step(now, one, own) for one, own in done]
            papers.append(DrivePaper(name=loop.name, about=f"{loop.kind}{length}{pitch}", counts=counts, steps=steps))
    return papers


def _counts(loop: LoopStage, laid: Done) -> Iterator[CountLine]:
    for span in counted_spans(loop):
        if text := laid.answers.get(span.key, ""):
            yield CountLine(label=span.label, book="not known" if span.book is None else f"{span.book:g} {span.unit}", counted=text)


def _step(now: RunState, one: PlanStep, done: Done) -> StepLine:
    said = "left out: " + done.because if done.is_skipped else _said(now.plan, one, done)
    return StepLine(seq=done.seq, says=title_of(now, one.step.id), by=done.by, answers=said)


def _said(plan: Plan, one: PlanStep, done: Done) -> str:
    """Answers that are chosen, in the words they were chosen by; figures with their unit; counts stand in a table of their own."""
    said = []
    for field in fields_of(plan, one.step):
        text = done.answers.get(field.key, "")
        if text and (one.step.does != "lay" or field.key in NO_COUNTS):
            label = next((option.label for option in field.options if option.value == text), f"{text} {field.unit}".strip())
            said.append(f"{field.label}: {within(label)}")
    seen = looks_words(done.looks.values())
    return "; ".join([*said, *([seen] if seen else [])])


def turn_lines(now: RunState, standing: Iterable[LedgerEntry]) -> list[TurnLine]:
    """Return every stop of turning over by hand.

    Source: Practice: two turns by hand, and the marks must meet again.

    >>> turn_lines(begin_run(quern_4()), [])
    []
    """
    lines = []
    for entry in standing:
        body = entry.body
        if isinstance(body, TurnSeen):
            planned = now.plan.by_id.get(body.step)
            stops = planned.step.stops if planned else ()
            turns = f", {stops[body.stop - 1].turns:g} turns" if body.stop <= len(stops) else ""
            says = f"{body.title or title_of(now, body.step)}{turns}"
            off = f" by {body.teeth:g}, {body.way}" if body.teeth else ""
            saw = "; ".join(filter(None, [f"{SAW[body.saw]}{off}", looks_words(body.looks)]))
            lines.append(TurnLine(seq=entry.seq, says=says, saw=saw, by=entry.by, is_off=body.saw != "meets"))
    return lines


def as_found_lines(now: RunState) -> list[AsFoundLine]:
    """How the engine came in, look by look."""
    lines = []
    for one in now.plan.steps:
        done = now.done.get(one.step.id)
        if one.step.does != "as_found" or done is None:
            continue
        marks = {look.id: look.mark for look in one.step.looks}
        for field in fields_of(now.plan, one.step):
            if text := done.answers.get(field.key, ""):
                said = next((option.label.lower() for option in field.options if option.value == text), f"{text} {field.unit}".strip())
                lines.append(AsFoundLine(asks=field.label, found=said, by=done.by, left=_left(now, marks.get(field.key))))
    return lines


def _left(now: RunState, mark: str | None) -> str:
    """What was seen of a mark last, once it went together again; empty where nobody looked."""
    seen = [(done.seq, done.looks[mark]) for done in now.done.values() if mark is not None and mark in done.looks]
    return looks_words([max(seen, key=lambda pair: pair[0])[1]]) if seen else ""
