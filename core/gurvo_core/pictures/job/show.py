"""What pictures show and ask: which steps want one, the question before a step that needs one, what there is."""

__all__ = ["PictureQuestion", "PicturesView", "ask_first", "facts_of", "view_of"]

from collections.abc import Mapping, Sequence
from typing import Any, Literal

from pydantic import Field

from gurvo_core.engine import WorkStep
from gurvo_core.ledger import OPENED_LAST, PICTURES_OWED, STEPS_DONE, WHY_STEP_WAITS, Fact, Facts, Question, Step, View, kept_with
from gurvo_core.pictures.job.state import PicturesState, missing, owed, wanting


class PicturesView(View):
    """What is wanted, and how many there are."""

    count: int
    wanted: dict[str, str] = Field(description="Of what a picture is wanted, by step that has none yet")


class PictureQuestion(Question):
    """A picture that a step needs before it is done."""

    kind: Literal["picture_needed"] = "picture_needed"
    step: str
    of: str


def _of(step: WorkStep) -> str:
    """Of what a picture is wanted."""
    return step.picture.rstrip(".") or "what this closes, as it should look"


def ask_first(now: PicturesState, steps: Mapping[str, Step], facts: Facts) -> Mapping[str, Sequence[PictureQuestion]]:
    """The pictures that steps need, until they are taken or the lead does without."""
    done, why = facts.get(STEPS_DONE) or (), facts.get(WHY_STEP_WAITS)
    before = [step for step in (facts.get(PICTURES_OWED) or frozenset()) & steps.keys() if step not in done]
    return {key: [_question(now, steps[key], why(key, facts) if why else "")] for key in before}


def _question(now: PicturesState, step: Step, blocked: str) -> PictureQuestion:
    of = _of(wanting(now.document)[step.key][0])
    return PictureQuestion(
        key=f"{step.key}:picture",
        title="Picture",
        ask=f"Take a picture: {of}.",
        hint=f"Before “{step.title}”: afterwards nobody sees it.",
        status="open",
        waits=f"a picture before “{step.title}”",
        blocked=blocked,
        step=step.key,
        of=of,
    )


Openings = tuple[tuple[str, int], ...]


def _opened(now: PicturesState, facts: Facts) -> Openings:
    """When the steps that want a picture were opened again last, where they were."""
    opened = facts.get(OPENED_LAST) or {}
    return tuple((step, opened[step]) for step in wanting(now.document) if step in opened)


def facts_of(now: PicturesState, facts: Facts) -> Mapping[Fact[Any], Any]:
    """The steps that wait for a picture."""
    return _owed(now, _opened(now, facts))


@kept_with
def _owed(now: PicturesState, opened: Openings) -> Mapping[Fact[Any], Any]:
    steps = owed(now, dict(opened))
    return {PICTURES_OWED: steps} if steps else {}


def view_of(now: PicturesState, facts: Facts) -> PicturesView:
    """How many there are of each step, and which steps want one."""
    return _view(now, _opened(now, facts))


@kept_with
def _view(now: PicturesState, opened: Openings) -> PicturesView:
    wants, steps = wanting(now.document), missing(now, dict(opened))
    return PicturesView(count=len(now.taken), wanted={key: _of(step) for key, (step, _) in wants.items() if key in steps})
