"""What is shown of a draft: sections, questions with their answers, the tape, the run of work as a check sheet."""

__all__ = ["Addable", "Asked", "DraftLine", "DraftView", "RailSection", "RunStage", "RunStep", "view_of"]

from collections.abc import Iterator
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field, JsonValue

from gurvo_core.errors import CoreError
from gurvo_core.writer.answers import Source
from gurvo_core.writer.asking.order import SECTIONS, next_key, questions_of
from gurvo_core.writer.asking.question import Choice, Fact, OneKey, Picture, Question, Takes
from gurvo_core.writer.draft import Draft, Written, written
from gurvo_core.writer.edits import groups_in
from gurvo_core.writer.needs import Names, Needable, names_in, need_words
from gurvo_core.writer.shape import BankShape, shape_of
from gurvo_core.writer.tape import tape_words

Status = Literal["open", "answered", "not known", "does not fit"]
TAPE = 40  # lines that are shown


class _Shown(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


class Asked(_Shown):
    """A question, and how it is answered."""

    key: str
    section: str
    title: str
    about: str = Field(description="As the tape has it")
    hint: str
    example: str
    costs: str = Field(description="Of leaving it not known; empty where it must be known")
    takes: Takes
    choices: list[Choice]
    sources: list[Source]
    picture: Picture
    facts: list[Fact]
    offers: list[OneKey]
    is_first: bool = Field(description="Whether it is one of the first five minutes")
    status: Status
    answer: str | None
    source: Source | None
    why: str = Field(description="Why the answer does not fit any more")


class RailSection(_Shown):
    """A section, and how much of it is answered."""

    id: str
    name: str
    answered: int
    of: int


class DraftLine(_Shown):
    """One edit in words."""

    number: int
    what: str
    said: str
    lost: str = Field(description="Why it found no place; empty where it did")
    question: str | None


class RunStep(_Shown):
    """One step of the run, as the check sheet has it."""

    id: str
    does: str
    says: str
    why: str
    needs: list[Needable]
    cautions: list[str]
    tools: list[str]
    picture: str
    by_lead: bool = Field(description="Whether the lead does it")
    hold_point: bool
    covers: bool
    minutes: float | None
    at: str = Field(description="Pointer by ids")


class RunStage(_Shown):
    """One stage of the run."""

    id: str
    title: str
    steps: list[RunStep]


class Addable(_Shown):
    """A step that the parts of a draft could still have."""

    label: str
    says: str
    step: dict[str, JsonValue] = Field(description="What it does and names; the rest is written with it")


class BankView(_Shown):
    """A row of cylinders, for drawing it from the end."""

    name: str
    axis_deg: float | None
    cylinders: list[int]


class DraftView(_Shown):
    """A draft as it is shown."""

    name: str
    layout: str
    banks: list[BankView]
    valves: list[int] | None = Field(description="Intake and exhaust of a cylinder")
    cams_at: str | None
    sections: list[RailSection]
    questions: list[Asked]
    next: str | None = Field(description="Key of the question that is open next")
    tape: list[DraftLine] = Field(description="Newest first")
    run: list[RunStage]
    addable: list[Addable]


def view_of(draft: Draft, after: str | None = None) -> tuple[DraftView, Written]:
    """What is shown of a draft, and what it says; ``after`` is the question that was answered just now."""
    now = written(draft)
    # a draft that began with a document is not asked about: what it says was not answered here
    questions = questions_of(now.answers) if draft.base is None else []
    asked = [_asked(question, now) for question in questions]
    shape = shape_of(now.answers)
    identity = now.document.get("identity") if isinstance(now.document.get("identity"), dict) else {}
    view = DraftView(
        name=str((identity or {}).get("name", "")),
        layout=shape.layout or "",
        banks=[_bank(bank) for bank in shape.banks],
        valves=list(shape.valves) if shape.valves else None,
        cams_at=shape.cams_at,
        sections=_sections(asked),
        questions=asked,
        next=next_key(now.answers, after) if draft.base is None else None,
        tape=_tape(draft, now, {question.key: question for question in questions}),
        run=_run(now.document),
        addable=list(_addable(now.document)),
    )
    return view, now


def _bank(bank: BankShape) -> BankView:
    return BankView(name=bank.name, axis_deg=bank.axis_deg, cylinders=list(bank.cylinders))


def _asked(question: Question, now: Written) -> Asked:
    answer = now.answers.get(question.key)
    why = _why_not(question, answer.text) if answer and answer.text is not None else ""
    status: Status = "open" if answer is None else "not known" if answer.text is None else "does not fit" if why else "answered"
    return Asked(
        key=question.key,
        section=question.section,
        title=question.title,
        about=question.about,
        hint=question.hint,
        example=question.example,
        costs=question.costs,
        takes=question.takes,
        choices=list(question.choices),
        sources=list(question.sources),
        picture=question.picture,
        facts=list(question.facts),
        offers=list(question.offers),
        is_first=question.is_first,
        status=status,
        answer=answer.text if answer else None,
        source=answer.source if answer else None,
        why=why,
    )


def _why_not(question: Question, text: str) -> str:
    """Why an answer does not fit any more to what was answered elsewhere since."""
    try:
        question.read(text)
    except CoreError as error:
        return str(error)
    return ""


def _sections(asked: list[Asked]) -> list[RailSection]:
    found = []
    for section in SECTIONS:
        own = [one for one in asked if one.section == section.id]
        if own:
            answered = sum(one.status in ("answered", "not known") for one in own)
            found.append(RailSection(id=section.id, name=section.name, answered=answered, of=len(own)))
    return found


def _tape(draft: Draft, now: Written, questions: dict[str, Question]) -> list[DraftLine]:
    lines = []
    for number, edit in reversed(draft.edits[-TAPE:]):
        words = tape_words(edit, now.document, questions)
        question = getattr(edit, "question", None)
        lines.append(DraftLine(number=number, what=words.what, said=words.said, lost=now.lost.get(number, ""), question=question))
    return lines


def _run(document: dict[str, Any]) -> list[RunStage]:
    """The run as a check sheet; what is no stage or step, as it may be while it is written, is left out."""
    names = names_in(document)
    found = []
    for stage in groups_in(document, "stages"):
        ident = str(stage.get("id", ""))
        steps = [_step(ident, step, names) for step in groups_in(stage, "steps")]
        found.append(RunStage(id=ident, title=str(stage.get("title", ident)), steps=steps))
    return found


def _step(stage: str, step: dict[str, Any], names: Names) -> RunStep:
    minutes = step.get("minutes")
    return RunStep(
        id=str(step.get("id", "")),
        does=str(step.get("does", "")),
        says=str(step.get("says", "")),
        why=str(step.get("why", "")),
        needs=[Needable(words=need_words(names, one), need=one) for one in groups_in(step, "needs")],
        cautions=_lines(step.get("cautions")),
        tools=_lines(step.get("tools")),
        picture=str(step.get("picture", "")),
        by_lead=step.get("by") == "lead",
        hold_point=bool(step.get("hold_point")),
        covers=bool(step.get("covers")),
        minutes=float(minutes) if isinstance(minutes, int | float) else None,
        at=f"/stages/{stage}/steps/{step.get('id', '')}",
    )


def _addable(document: dict[str, Any]) -> Iterator[Addable]:
    """Steps for joints that nobody tightens yet, clearances that nobody measures, parts that nobody fits."""
    steps = [step for stage in groups_in(document, "stages") for step in groups_in(stage, "steps")]
    tight = {step.get("joint") for step in steps if step.get("does") == "tighten"}
    begun = {step.get("joint") for step in steps if step.get("does") == "fit"}
    measured = {name for step in steps for name in step.get("fits") or ()}
    used = {name for step in steps if step.get("does") != "ready" for name in step.get("parts") or ()}
    for joint in groups_in(document, "joints"):
        name, ident = str(joint.get("name", "")), joint.get("id")
        if ident not in begun | tight:
            yield Addable(label=f"{name}: in", says=f"{name} in, finger tight", step={"does": "fit", "joint": ident})
        if ident not in tight:
            yield Addable(label=f"{name}: tight", says=name, step={"does": "tighten", "joint": ident})
    for fit in groups_in(document, "fits"):
        if fit.get("id") not in measured:
            yield Addable(
                label=f"{fit.get('name')}: measured", says=str(fit.get("name")), step={"does": "measure", "fits": [fit.get("id")]}
            )
    for part in groups_in(document, "kit"):
        if part.get("id") not in used:
            yield Addable(
                label=f"{part.get('name')}: fitted", says=f"{part.get('name')} in", step={"does": "fit", "parts": [part.get("id")]}
            )


def _lines(said: Any) -> list[str]:
    return [one for one in said if isinstance(one, str)] if isinstance(said, list) else []
