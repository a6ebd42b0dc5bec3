"""What a step may need before it is done: in words, and what there is to choose from."""

__all__ = ["Names", "Needable", "names_in", "need_words", "needable"]

from collections.abc import Iterator, Mapping
from typing import Any

from pydantic import BaseModel, ConfigDict, JsonValue

from gurvo_core.writer.edits import groups_in

Document = dict[str, Any]
Names = Mapping[tuple[str, str], str]  # by sort of thing and id: what it is called

# by key of a need: the sort of thing that it names, and how that is said
_SAID = {
    "done": ("step", "after “{}”"),
    "parked": ("position", "crank at {}"),
    "on": ("thing", "{} on"),
    "off": ("thing", "{} off"),
    "held": ("shaft", "{} held"),
    "tensioned": ("loop", "{} tensioned"),
    "proven": ("loop", "tensioner of {} proven"),
    "cured": ("step", "“{}” cured"),
    "decided": ("camshaft", "{} decided"),
}
_FREE = "free to turn"


class Needable(BaseModel):
    """One thing that a step may need."""

    model_config = ConfigDict(extra="forbid", frozen=True)
    words: str
    need: dict[str, JsonValue]


def _members(document: Document) -> Iterator[tuple[str, dict[str, Any]]]:
    drive = document.get("drive")
    loops = groups_in(drive, "stages") if isinstance(drive, dict) else []
    shafts = groups_in(drive, "shafts") if isinstance(drive, dict) else []
    steps = [step for stage in groups_in(document, "stages") for step in groups_in(stage, "steps")]
    lists = {
        "step": steps,
        "position": groups_in(document, "timing_positions"),
        "thing": groups_in(document, "things"),
        "joint": groups_in(document, "joints"),
        "shaft": shafts,
        "loop": loops,
        "camshaft": groups_in(document, "camshafts"),
    }
    for sort, members in lists.items():
        for one in members:
            if isinstance(one.get("id"), str):
                yield sort, one


def names_in(document: Document) -> Names:
    """What everything that a step can need is called."""
    return {(sort, one["id"]): str(one.get("says") or one.get("name") or one["id"]) for sort, one in _members(document)}


def need_words(names: Names, need: dict[str, Any]) -> str:
    """A need in words; what is not there is called by its id."""
    for key, (sort, said) in _SAID.items():
        if isinstance(need.get(key), str):
            place = f", {need['place']}" if isinstance(need.get("place"), str) else ""
            return said.format(names.get((sort, need[key]), need[key]) + place)
    tight = need.get("tight")
    if isinstance(tight, dict):
        joint = str(tight.get("joint", ""))
        stage = f", stage {tight['stage']}" if tight.get("stage") else ""
        return f"{names.get(('joint', joint), joint)} tight{stage}"
    return _FREE if need.get("free_to_turn") else "something"


def needable(document: Document) -> list[Needable]:
    """All that a step of a document may need, steps first."""
    names = names_in(document)
    sealed = {step["id"] for sort, step in _members(document) if sort == "step" and step.get("does") == "seal"}
    found: list[dict[str, JsonValue]] = []
    for key, (sort, _) in _SAID.items():
        found += [{key: ident} for of, ident in names if of == sort and (key != "cured" or ident in sealed)]
    for sort, one in _members(document):
        stages = one.get("stages")
        if sort == "joint" and isinstance(stages, list) and stages:
            found.append({"tight": {"joint": one["id"], "stage": len(stages)}})
    found.append({"free_to_turn": True})
    return [Needable(words=need_words(names, need), need=need) for need in found]
