"""The drive as it is handed over: every loop with its counts as laid, its tensioner, and what was seen when it was turned over."""

__all__ = ["papers_of"]

from collections.abc import Iterable, Iterator, Sequence

from gurvo_core.engine import LoopStage
from gurvo_core.ledger import Facts, LedgerEntry, Paper, PaperRow, PaperTable
from gurvo_core.motion.laid import counted_spans
from gurvo_core.run.job.entries import TurnSeen
from gurvo_core.run.job.fields import fields_of
from gurvo_core.run.job.lay import NO_COUNTS
from gurvo_core.run.job.standing import title_of
from gurvo_core.run.job.state import Done, RunState
from gurvo_core.run.job.words import SAW, looks_words
from gurvo_core.run.plan import Plan, PlanStep
from gurvo_core.sentence import within

NUMBER = frozenset({0})  # the column of places in the ledger


def papers_of(now: RunState, _facts: Facts, standing: Sequence[LedgerEntry]) -> Iterator[Paper]:
    """How the engine came in, every chain and belt that was laid, every stop of turning over by hand."""
    came_in = tuple(_as_found(now))
    if came_in:
        table = PaperTable(heads=("looked at", "found", "as it leaves", "who"), rows=came_in)
        yield Paper(title="As it came in", tables=(table,), on_first=True)
    yield from _loops(now)
    turns = tuple(_turns(now, standing))
    if turns:
        yield Paper(
            title="Turned over by hand", tables=(PaperTable(heads=("no.", "stop", "the marks", "who"), rows=turns, figures=NUMBER),)
        )


def _loops(now: RunState) -> Iterator[Paper]:
    """Each with what was counted, beside what the book counts, and what was done to it."""
    for loop in (stage for stage in now.document.drive.stages if isinstance(stage, LoopStage)):
        done = [(now.plan.by_id[s.id], now.done[s.id]) for s in now.plan.of_loop.get(loop.id, ()) if s.id in now.done]
        laid = next((own for one, own in done if one.step.does == "lay"), None)
        if laid is None:
            continue
        length = "" if loop.count is None else f", {loop.count} {loop.counted_in}"
        pitch = "" if loop.pitch_mm is None else f" of {loop.pitch_mm:g} mm"
        counts = tuple(_counts(loop, laid))
        counted = PaperTable(heads=("from mark to mark, the way it travels", "book", "counted"), rows=counts, figures=frozenset({1, 2}))
        steps = tuple(_step(now, one, own) for one, own in done)
        tables = PaperTable(heads=("no.", "laid and tensioned", "said", "who"), rows=steps, figures=NUMBER)
        yield Paper(
            title=f"{loop.name}, as laid", about=(f"{loop.kind}{length}{pitch}",), tables=(counted, tables) if counts else (tables,)
        )


def _counts(loop: LoopStage, laid: Done) -> Iterator[PaperRow]:
    for span in counted_spans(loop):
        if text := laid.answers.get(span.key, ""):
            book = "not known" if span.book is None else f"{span.book:g} {span.unit}"
            yield PaperRow(cells=(span.label, book, text))


def _step(now: RunState, one: PlanStep, done: Done) -> PaperRow:
    said = "left out: " + done.because if done.is_skipped else _said(now.plan, one, done)
    return PaperRow(cells=(str(done.seq), title_of(now, one.step.id), said, done.by))


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


def _turns(now: RunState, standing: Iterable[LedgerEntry]) -> Iterator[PaperRow]:
    """Stop by stop. Practice: two turns by hand, and the marks must meet again."""
    for entry in standing:
        body = entry.body
        if not isinstance(body, TurnSeen):
            continue
        planned = now.plan.by_id.get(body.step)
        stops = planned.step.stops if planned else ()
        turns = f", {stops[body.stop - 1].turns:g} turns" if body.stop <= len(stops) else ""
        off = f" by {body.teeth:g}, {body.way}" if body.teeth else ""
        saw = "; ".join(filter(None, [f"{SAW[body.saw]}{off}", looks_words(body.looks)]))
        cells = (str(entry.seq), f"{body.title or title_of(now, body.step)}{turns}", saw, entry.by)
        yield PaperRow(cells=cells, is_apart=body.saw != "meets")


def _as_found(now: RunState) -> Iterator[PaperRow]:
    """Look by look."""
    for one in now.did("as_found"):
        done = now.done[one.step.id]
        marks = {look.id: look.mark for look in one.step.looks}
        for field in fields_of(now.plan, one.step):
            if text := done.answers.get(field.key, ""):
                said = next((option.label.lower() for option in field.options if option.value == text), f"{text} {field.unit}".strip())
                yield PaperRow(cells=(field.label, said, _left(now, marks.get(field.key)), done.by))


def _left(now: RunState, mark: str | None) -> str:
    """What was seen of a mark last, once it went together again; empty where nobody looked."""
    seen = [(done.seq, done.looks[mark]) for done in now.done.values() if mark is not None and mark in done.looks]
    return looks_words([max(seen, key=lambda pair: pair[0])[1]]) if seen else ""
