"""A room that is not ours: one kind of entry, one step, one question, one loose end that holds back turning, one fact."""

from dataclasses import dataclass, replace
from typing import Literal

from gurvo_core.ledger import Asked, Body, Kind, LooseEnd, Question, Room, Step, View, Words, need
from gurvo_core.ledger.entry import Reason


class Tether(Body):
    """A tether tied on, or off again."""

    kind: Literal["toy_tether"]
    tied: bool
    colour: Reason = ""


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


def loose_ends(now, _facts):
    if now.tied_at:
        yield LooseEnd(title="Tether tied on", since=now.tied_at, holds_back=frozenset({"turn"}), until="take it off first")


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
            si_values=lambda _now, _body: {"tether_n": 9.5},
        ),
    ),
    steps=(Step(key="toy", title="Tie the tether", does="tie"),),
    asks={"tie": ask},
    questions=(TetherQuestion,),
    loose_ends=loose_ends,
    shows=ToyView,
    view=lambda now, _facts: ToyView(tied=bool(now.tied_at)),
)
