"""Where figures are from, as far as whoever answered said so."""

__all__ = ["origin_of", "origins_of"]

from collections.abc import Iterator
from typing import Any

from gurvo_core.writer.answers import Answers, Source
from gurvo_core.writer.compose.bolts import joints_in
from gurvo_core.writer.shape import Shape

LISTS = {"lash": "lash", "head": "valves", "spring": "springs"}


def origin_of(source: Source) -> dict[str, str]:
    """A source as the document writes it: what was counted was measured by counting."""
    return {"is": "measured", "note": "counted"} if source == "counted" else {"is": source}


def origins_of(answers: Answers, shape: Shape, document: dict[str, Any]) -> dict[str, dict[str, str]]:
    """By JSON Pointer: where the figures of the answers are from."""
    found: dict[str, dict[str, str]] = {}
    for key, answer in answers.items():
        if answer.source is not None and answer.text is not None:
            found |= dict.fromkeys(_pointers(answers, shape, document, key), origin_of(answer.source))
    return found


def _pointers(answers: Answers, shape: Shape, document: dict[str, Any], key: str) -> Iterator[str]:
    sort, _, of = key.partition(".")
    drive = document["drive"]
    if sort == "teeth":
        yield from _at(drive["wheels"], "/drive/wheels", {of}, "/teeth")
    elif sort == "count":
        yield from _at(drive["stages"], "/drive/stages", {of}, "/count")
    elif sort == "stages":
        own = {place.id for place in joints_in(answers, shape, of)}
        yield from _at(document["joints"], "/joints", own, "/stages")
    elif sort == "sizes":
        yield from (f"/banks/{n}/cranktrain" for n in range(len(document["banks"])))
    elif sort == "card" and "cam_card" in document:
        yield "/cam_card"
    elif sort in LISTS:
        yield from (f"/{LISTS[sort]}/{n}" for n, one in enumerate(document.get(LISTS[sort], ())) if one["valve"] == of)
    elif sort == "gap" and "least_gaps" in document:
        yield f"/least_gaps/{of}_mm"


def _at(members: list[dict[str, Any]], path: str, names: set[str], key: str) -> Iterator[str]:
    yield from (f"{path}/{n}{key}" for n, one in enumerate(members) if one["id"] in names and key[1:] in one)
