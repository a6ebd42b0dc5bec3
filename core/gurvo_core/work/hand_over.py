"""The record as a whole: notes, the engine moved to another revision of its document, what proves each camshaft, and the signature that
closes it.
"""

__all__ = ["PROVEN", "ROOM", "SIGNED", "HandOverState", "HandOverView", "ProofView", "RevisionMove", "SignOff", "proof_words"]

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field, StringConstraints

from gurvo_core.engine import Camshaft, EngineDocument
from gurvo_core.engine.part import Word
from gurvo_core.ledger import (
    CAM_PROOFS,
    CAMS_DEGREED,
    DONE_ELSEWHERE,
    DRIVE_TOUCHED,
    PLAN,
    PROOF_TO_COME,
    Asked,
    Body,
    CamProof,
    Fact,
    Facts,
    Hold,
    Kind,
    LedgerEntry,
    LooseEnd,
    Objection,
    Question,
    Room,
    Step,
    View,
    Words,
    need,
)
from gurvo_core.ledger.entry import Reason
from gurvo_core.ledger.proof import ProvenBy

SIGNED: Fact[LedgerEntry] = Fact("signed")
PROVEN: Fact[Mapping[str, CamProof]] = Fact("what proves each cam")
UNPROVEN: Fact[tuple[str, ...]] = Fact("cams that nothing proves")
BY_WORDS = {"degreed": "degreed", "marks": "by marks", "lock": "by locks", "counts": "by counts", "word": "on the lead's word"}


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
    rules: int | None = Field(
        default=None, description="Version of the rules they were worked out by: a digest of them, or a small number of earlier days"
    )


class CamWord(Body):
    """The lead says that a camshaft stands right, though nothing that was looked at says so."""

    kind: Literal["cam_word"]
    camshaft: Word
    called: Annotated[str, StringConstraints(max_length=120)] | None = Field(
        default=None, description="What the camshaft was called; completed when it is taken"
    )
    reason: Reason


class ProofView(View):
    """How one camshaft is told to stand right."""

    camshaft: str
    name: str
    by: ProvenBy | None = Field(description="By what it is told to stand right; null: nothing says so yet")
    words: str
    who: str


class HandOverView(View):
    """What proves each camshaft."""

    proofs: list[ProofView]


class SignQuestion(Question):
    """Whether the record is signed."""

    kind: Literal["sign_off"] = "sign_off"
    for_lead: ClassVar[bool] = True


@dataclass(frozen=True, kw_only=True)
class HandOverState:
    """Whether the record is signed."""

    document: EngineDocument
    signed: LedgerEntry | None = None
    words: Mapping[str, LedgerEntry] = field(default_factory=dict)  # the lead's word for a camshaft, by its id


def _begin(document: EngineDocument) -> HandOverState:
    return HandOverState(document=document)


def _unchanged(now: HandOverState, _entry: LedgerEntry, _body: Body) -> HandOverState:
    """A note changes nothing; which document an engine is built to is given from outside, the entry says why it changed."""
    return now


def _take_signature(now: HandOverState, entry: LedgerEntry, _body: SignOff) -> HandOverState:
    return replace(now, signed=entry)


def _take_word(now: HandOverState, entry: LedgerEntry, body: CamWord) -> HandOverState:
    return replace(now, words={**now.words, body.camshaft: entry})


def _named(body: CamWord, document: EngineDocument, _before: Sequence[LedgerEntry]) -> CamWord:
    cam = document.camshaft(body.camshaft)
    return body if body.called is not None or cam is None else body.model_copy(update={"called": cam.name})


def _say_word(body: CamWord) -> Words:
    return Words(title=body.called or body.camshaft, value="stands right, on the lead's word", detail=body.reason, look_again=True)


def _check_word(now: HandOverState, body: CamWord, _facts: Facts) -> Iterator[Objection]:
    known = now.document.camshaft(body.camshaft)
    yield from need(known is not None, "camshaft", f"this engine has no camshaft {body.camshaft}")
    yield from need(bool(body.reason), "reason", "say by what you know that it stands right")


def _proofs(now: HandOverState, facts: Facts) -> Mapping[str, CamProof]:
    """What proves each camshaft since its drive was touched: degreed first, then marks, locks and counts, then the lead's word."""
    touched, degreed, seen = (facts.get(fact) or {} for fact in (DRIVE_TOUCHED, CAMS_DEGREED, CAM_PROOFS))
    found = []
    for cam in now.document.camshafts:
        word = now.words.get(cam.id)
        said = word and CamProof(cam.id, cam.name, "word", f"on the lead's word: {getattr(word.body, 'reason', '')}", word.seq, word.by)
        ways = [one for one in (degreed.get(cam.id), seen.get(cam.id), said) if one is not None]
        proof = next((one for one in ways if one.seq > touched.get(cam.id, 0)), None)
        if proof is not None:
            found.append(proof)
    return _by_cam(tuple(found))


@lru_cache(maxsize=512)
def _by_cam(proofs: tuple[CamProof, ...]) -> Mapping[str, CamProof]:
    """The same object for the same proofs: whatever rests on them is not worked out anew for every entry."""
    return {one.camshaft: one for one in proofs}


def proof_words(facts: Facts) -> str:
    """By what all camshafts are told to stand right, as the Floor says it; empty while one of them is not."""
    proofs = facts.get(PROVEN) or {}
    unproven = facts.get(UNPROVEN) or ()
    return "" if unproven or not proofs else " and ".join(dict.fromkeys(BY_WORDS[one.by] for one in proofs.values()))


def _names_left(document: EngineDocument, proofs: Mapping[str, CamProof]) -> tuple[str, ...]:
    return _same(tuple(cam.id for cam in document.camshafts if cam.id not in proofs))


@lru_cache(maxsize=512)
def _same(names: tuple[str, ...]) -> tuple[str, ...]:
    return names  # the same object for the same names, as for proofs


def _unproven(now: HandOverState, facts: Facts) -> list[Camshaft]:
    return [cam for cam in now.document.camshafts if cam.id in (facts.get(UNPROVEN) or ())]


def _is_to_come(facts: Facts) -> bool:
    """Whether a proof is still to come. Degreeing is seen to by its own room, which knows when every cam that it can tell of is decided."""
    to_come, seen_to = facts.get(PROOF_TO_COME), facts.get(DONE_ELSEWHERE)
    return bool(to_come and to_come - (seen_to or frozenset()))


def _loose_ends(now: HandOverState, facts: Facts) -> Iterator[LooseEnd]:
    """A cam that nothing proves any more, or that nothing could prove."""
    if facts.get(PLAN) is None or _is_to_come(facts):
        return
    for cam in _unproven(now, facts):
        yield LooseEnd(
            title=f"{cam.name}: nothing says that it stands right",
            since=(facts.get(DRIVE_TOUCHED) or {}).get(cam.id, 0),
            holds_back=frozenset({"hand over"}),
            until="turn over again until its marks meet, or the lead says by what he knows it",
            kept_from="hand over",
            waived_with=CamWord(kind="cam_word", camshaft=cam.id, reason=""),
            waived_as="On the lead's word",
        )


def _view(now: HandOverState, facts: Facts) -> HandOverView:
    proofs = facts.get(PROVEN) or {}
    lines = [(cam, proofs.get(cam.id)) for cam in now.document.camshafts]
    return HandOverView(
        proofs=[
            ProofView(
                camshaft=cam.id,
                name=cam.name,
                by=one.by if one else None,
                words=one.words if one else "nothing says so yet",
                who=one.who if one else "",
            )
            for cam, one in lines
        ]
    )


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


def _facts(now: HandOverState, before: Facts) -> Mapping[Fact[Any], Any]:
    proofs = _proofs(now, before)
    return {SIGNED: now.signed, PROVEN: proofs, UNPROVEN: _names_left(now.document, proofs)}


def _holds(now: HandOverState, facts: Facts) -> Iterator[Hold]:
    names = [cam.name for cam in _unproven(now, facts)]
    is_said = facts.get(PLAN) is not None and not _is_to_come(facts)  # each is a loose end then
    if names and not now.signed and not is_said:
        run = "nothing says yet that it stands right" if len(names) == 1 else "nothing says yet that they stand right"
        reason = f"{', '.join(names)}: {run}" if facts.get(PLAN) else f"decide first what is done about: {', '.join(names)}"
        yield Hold(holds_back=frozenset({"hand over"}), reason=reason)
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
        Kind(body=CamWord, does="decide", completes=_named, words=_say_word, take=_take_word, check=_check_word, by="lead"),
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
    loose_ends=_loose_ends,
    holds=_holds,
    shows=HandOverView,
    view=_view,
)
