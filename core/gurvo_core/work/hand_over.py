"""The record as a whole: notes, the engine moved to another revision of its document, and the signature that closes it."""

__all__ = ["ROOM", "SIGNED", "HandOverState", "RevisionMove", "SignOff"]

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Annotated, Any, Literal

from pydantic import Field, StringConstraints

from gurvo_core.engine import EngineDocument
from gurvo_core.ledger import Asked, Body, Fact, Facts, Hold, Kind, LedgerEntry, Objection, Question, Room, Step, Words, need
from gurvo_core.ledger.entry import Reason

SIGNED: Fact[LedgerEntry] = Fact("signed")


class Note(Body):
    """A remark."""

    kind: Literal["note"]
    text: Annotated[str, StringConstraints(max_length=2000, strip_whitespace=True)]


class RevisionMove(Body):
    """The lead moves the engine to a newer revision of its engine document."""

    kind: Literal["revision"]
    number: int = Field(ge=1, le=100_000)
    reason: Reason


class SignOff(Body):
    """The lead signs the record. What is signed is completed when it is taken, whatever was sent."""

    kind: Literal["sign_off"]
    remark: Reason = ""
    head: str | None = Field(default=None, max_length=64, description="Seal of the last entry it covers")
    shown: tuple[str, ...] | None = Field(default=None, description="The figures and verdicts as they were shown")
    rules: int | None = Field(default=None, description="Version of the rules they were worked out by")


class SignQuestion(Question):
    """Whether the record is signed."""

    kind: Literal["sign_off"] = "sign_off"


@dataclass(frozen=True, kw_only=True)
class HandOverState:
    """Whether the record is signed."""

    signed: LedgerEntry | None = None


def _begin(_document: EngineDocument) -> HandOverState:
    return HandOverState()


def _unchanged(now: HandOverState, _entry: LedgerEntry, _body: Body) -> HandOverState:
    """A note changes nothing; which document an engine is built to is given from outside, the entry says why it changed."""
    return now


def _take_signature(now: HandOverState, entry: LedgerEntry, _body: SignOff) -> HandOverState:
    return replace(now, signed=entry)


def _check_note(_now: HandOverState, body: Note, _facts: Facts) -> Iterator[Objection]:
    yield from need(bool(body.text), "text", "a note needs some words")


def _check_move(_now: HandOverState, body: RevisionMove, _facts: Facts) -> Iterator[Objection]:
    yield from need(bool(body.reason), "reason", "say why the engine moves to another revision of its document")


def _ask(now: HandOverState, _step: Step, _facts: Facts) -> Asked:
    question = SignQuestion(
        key="sign_off",
        title="Lead signs",
        ask="Is this engine's timing as it should be?",
        hint="The lead signs, with his password. After that nothing is added, a note included, without striking the signature.",
        status="done" if now.signed else "open",
        waits="the lead to sign",
        doing="hand over",
    )
    return Asked(questions=[question])


def _facts(now: HandOverState, _before: Facts) -> Mapping[Fact[Any], Any]:
    return {SIGNED: now.signed}


def _holds(now: HandOverState, _facts: Facts) -> Iterator[Hold]:
    if now.signed:
        reason = "the record is signed: strike the signature with a reason before adding to it"
        yield Hold(holds_back=frozenset({"look", "decide", "turn", "tighten", "cover", "start", "hand over"}), reason=reason)


ROOM: Room[HandOverState] = Room(
    name="hand_over",
    empty=_begin,
    kinds=(
        Kind(body=Note, does="look", words=lambda body: Words(title="Note", detail=body.text), take=_unchanged, check=_check_note),
        Kind(
            body=RevisionMove,
            does="decide",
            words=lambda body: Words(title="Moved to revision", value=str(body.number), detail=body.reason),
            take=_unchanged,
            check=_check_move,
            by="lead",
            stays="the engine has been moved to that revision since: move it on to another instead",
        ),
        Kind(
            body=SignOff,
            does="hand over",
            words=lambda body: Words(title="Record signed", detail=body.remark),
            take=_take_signature,
            by="lead",
            confirmed=True,
        ),
    ),
    steps=(Step(key="record", title="Sign the record", does="sign"),),
    asks={"sign": _ask},
    questions=(SignQuestion,),
    facts=_facts,
    holds=_holds,
)
