"""Which of its variants the engine is, by what is seen on it."""

__all__ = ["KIND", "VariantQuestion"]

from collections.abc import Iterator
from dataclasses import replace
from typing import Literal

from gurvo_core.ledger import Facts, Kind, LedgerEntry, Objection, PlainQuestion, Topic, Words, need
from gurvo_core.run.job.asked import FieldOption
from gurvo_core.run.job.entries import VariantChosen
from gurvo_core.run.job.state import RunState
from gurvo_core.run.job.words import plain
from gurvo_core.run.plan import plan_of
from gurvo_core.sentence import within


class VariantQuestion(PlainQuestion):
    """Which variant it is."""

    kind: Literal["variant"] = "variant"
    group_id: str
    options: list[FieldOption]


TOPIC = Topic(
    id="variant",
    title="Which one is it?",
    drawing="look",
    meant="Engines of one family differ; the steps that follow are those of the one on your stand.",
    by_hand=["Look at the part, count its bolts, compare with the sentence. If in doubt, ask before it goes on."],
    goes_wrong=["The cover of one and the belt of the other fit well enough to close."],
)


def _check(now: RunState, body: VariantChosen, _facts: Facts) -> Iterator[Objection]:
    """One of the options; once parts are fitted only the lead changes it."""
    group = next((group for group in now.document.variants if group.id == body.group), None)
    if group is None:
        yield Objection("group", f"this engine's book has no choice called {body.group}")
        return
    named = [option.id for option in group.options]
    yield from need(body.option in named, "option", f"choose one of {', '.join(named)}")
    fitted = [one.step.id for one in now.did("fit")]
    changes = now.options.get(body.group) not in (None, body.option)
    rule = "parts have been fitted for the other variant: the lead changes it, with the reason"
    yield from need(not (changes and fitted), "option", rule, "lead and reason")


def _take(now: RunState, _entry: LedgerEntry, body: VariantChosen) -> RunState:
    """Another option may bring other steps."""
    options = {**now.options, body.group: body.option}
    return replace(now, options=options, plan=plan_of(now.document, frozenset(options.values())))


KIND: Kind[VariantChosen, RunState] = Kind(
    body=VariantChosen,
    question=VariantQuestion,
    topic=TOPIC,
    does="decide",
    words=lambda body: Words(title=plain(body.group), value=within(plain(body.option))),
    take=_take,
    check=_check,
)
