"""From the bench to the book: what was found, measured, left out and how long it took, proposed where a draft leaves it open."""

__all__ = ["FromBench", "Proposal", "proposals_for"]

import hashlib
from collections.abc import Iterable, Mapping
from typing import Any, NamedTuple

from pydantic import BaseModel, ConfigDict, Field, JsonValue

from gurvo_core.writer.edits import NoPlace, Remove, Set, groups_in, place_of
from gurvo_core.writer.tape import tape_words

MOST = 40
WORTH_SAYING = 0.2  # of a step's minutes: less than that is how the day went


class FromBench(NamedTuple):
    """What one engine, or all of a family, tells."""

    engine: str  # serial; empty of what several tell
    found: Mapping[str, Any]  # by pointer: values of facts found at the bench
    card: list[dict[str, Any]] | None  # the family's card with what was measured
    left_out: Mapping[str, str]  # by id: steps that the lead left out, and why


class Proposal(BaseModel):
    """One proposal: taken by its edit, or left."""

    model_config = ConfigDict(extra="forbid", frozen=True)

    id: str
    what: str
    said: str
    engine: str = Field(description="Where it was found; empty of what several engines tell")
    edit: Set | Remove = Field(discriminator="does")


def proposals_for(document: dict[str, Any], benches: Iterable[FromBench], minutes: Mapping[str, float]) -> list[Proposal]:
    """What the bench proposes to a draft: only what the draft leaves open, has and did otherwise, or takes longer than it says."""
    found: dict[str, Proposal] = {}
    for bench in benches:
        for edit in _of_bench(document, bench):
            _propose(found, document, edit, bench.engine, bench.left_out)
    for edit in _of_minutes(document, minutes):
        _propose(found, document, edit, "", {})
    return list(found.values())[:MOST]


def _of_bench(document: dict[str, Any], bench: FromBench) -> Iterable[Set | Remove]:
    for pointer, value in bench.found.items():
        if _is_open(document, pointer):
            yield Set(at=pointer, value=value, source="measured")
    if bench.card and len(bench.card) > len(groups_in(document, "cam_card")):
        yield Set(at="/cam_card", value=_plain(bench.card))
    for step in bench.left_out:
        at = _step_at(document, step)
        if at:
            yield Remove(at=at)


def _plain(card: list[dict[str, Any]]) -> JsonValue:
    return [dict(line) for line in card]


def _of_minutes(document: dict[str, Any], minutes: Mapping[str, float]) -> Iterable[Set]:
    for step, took in minutes.items():
        at = _step_at(document, step)
        if at is None:
            continue
        group, key = place_of(document, at)
        said = group[key].get("minutes")
        if not isinstance(said, int | float) or abs(took - said) > WORTH_SAYING * said:
            yield Set(at=f"{at}/minutes", value=max(1, round(took)))


def _step_at(document: dict[str, Any], step: str) -> str | None:
    has = ((stage.get("id"), one) for stage in groups_in(document, "stages") for one in groups_in(stage, "steps"))
    return next((f"/stages/{stage}/steps/{step}" for stage, one in has if one.get("id") == step), None)


def _is_open(document: dict[str, Any], pointer: str) -> bool:
    """Whether a pointer leads to something that the draft has and leaves open; nothing is made on the way."""
    try:
        group, key = place_of(document, pointer, make=False)
    except NoPlace:
        return False
    return isinstance(group, dict) and group.get(str(key)) in (None, "", [], ())


def _propose(found: dict[str, Proposal], document: dict[str, Any], edit: Set | Remove, engine: str, why: Mapping[str, str]) -> None:
    words = tape_words(edit, document, {})
    ident = hashlib.sha256(edit.model_dump_json().encode()).hexdigest()[:16]
    step = edit.at.rpartition("/")[2]
    said = f"left out: {why[step]}" if isinstance(edit, Remove) and why.get(step) else words.said
    found.setdefault(ident, Proposal(id=ident, what=words.what, said=said, engine=engine, edit=edit))
