"""A room that is not ours: one kind of entry, one question in a step of its own or of a run, one gauge, one loose end that holds back
turning, its page of the record, its table.
"""

from dataclasses import dataclass, replace
from typing import Literal

from gurvo_core.ledger import (
    PLAN,
    Asked,
    Body,
    Judged,
    Kind,
    LooseEnd,
    NamedGauge,
    Paper,
    PaperRow,
    PaperTable,
    Question,
    Room,
    Step,
    Table,
    View,
    Words,
    need,
)
from gurvo_core.ledger.entry import Reason


class Tether(Body):
    """A tether tied on, or off again."""

    kind: Literal["toy_tether"]
    tied: bool
    colour: Reason = ""
    gauge: Reason = ""


class TetherQuestion(Question):
    """Whether the tether is on."""

    kind: Literal["toy_tether"] = "toy_tether"


class ToyView(View):
    """Whether it is tied."""

    tied: bool


@dataclass(frozen=True)
class ToyState:
    tied_at: int = 0
    untied: bool = False


def take(now, entry, body):
    return replace(now, tied_at=entry.seq) if body.tied else ToyState(untied=True)


def check(now, body, _facts):
    yield from need(body.tied != bool(now.tied_at), "tied", "it is so already")
    yield from need(body.colour != "red", "colour", "a red tether is for the hoist: take another", "reason")
    yield from need(body.colour != "black", "colour", "a black tether cannot be seen: take another", "lead and reason")


def ask(now, _step, _facts):
    question = TetherQuestion(key="toy", title="Tether", ask="Is it on?", hint="Tie it.", status="done" if now.untied else "open")
    return Asked(questions=[question])


def ask_first(now, steps, facts):
    """Before the first step of a run."""
    plan = facts.get(PLAN)
    return {plan[0].key: ask(now, steps[plan[0].key], facts).questions} if plan else {}


def gauges(body):
    return [NamedGauge("gauge", body.gauge, frozenset({"wrench"}), "wrench")] if body.gauge else ()


def papers(now, _facts, standing):
    rows = [PaperRow(cells=(str(entry.seq), "on" if entry.body.tied else "off")) for entry in standing if entry.body.kind == "toy_tether"]
    line = Judged(what="Tether", wanted="off", got="off" if now.untied else "on", word="in" if now.untied else "out")
    if rows:
        yield Paper(title="The tether", tables=(PaperTable(heads=("no.", "it is"), rows=tuple(rows)),), says="{turn:running}", judged=line)


def loose_ends(now, _facts):
    if now.tied_at:
        yield LooseEnd(title="Tether tied on", since=now.tied_at, holds_back=frozenset({"turn"}), until="take it off first")


class TetherLine(View):
    tied_at: int


ROOM = Room(
    name="toy",
    empty=lambda _document: ToyState(),
    kinds=(
        Kind(
            body=Tether,
            does="decide",
            words=lambda body: Words(title="Tether", value="on" if body.tied else "off", detail=body.colour),
            take=take,
            check=check,
            gauges=gauges,
            si_values=lambda _now, _body: {"tether_n": 9.5},
        ),
    ),
    steps=(Step(key="toy", title="Tie the tether", does="tie"),),
    asks={"tie": ask},
    asks_first=ask_first,
    questions=(TetherQuestion,),
    loose_ends=loose_ends,
    shows=ToyView,
    view=lambda now, _facts: ToyView(tied=bool(now.tied_at)),
    papers=papers,
    tables=(
        Table(name="tethers", title="Tethers", row=TetherLine, rows=lambda now: [TetherLine(tied_at=now.tied_at)] if now.tied_at else []),
    ),
)
