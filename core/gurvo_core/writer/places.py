"""The places of a document, each with a form of its own: the engine's plain keys, every list, every member that has an id."""

__all__ = ["FormPlace", "own_lists", "places_of"]

from collections.abc import Iterator
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from gurvo_core.writer.schema import ROOT, has_ids, key_words, kinds_in, meant

Schema = dict[str, Any]
DIVIDED = {"EngineDocument", "Drive", "WorkStage"}  # too long for one form: their lists have places of their own


class FormPlace(BaseModel):
    """One place: a group, a list, or a member of one."""

    model_config = ConfigDict(extra="forbid", frozen=True)
    at: str = Field(description="Pointer by ids; empty = the engine's plain keys")
    name: str
    sort: Literal["group", "list", "member"]
    kinds: list[str] = Field(description="Of a list: which kinds a new member may be of; empty where there is only one")
    is_there: bool
    depth: int


_NAMES = {  # where the format's word means another thing at the bench, or is met twice
    "/drive/stages": "Belts, chains, gears",
    "/stages": "Run of work",
    "/lash": "Valve clearances",
    "/kit": "Parts",
    "/things": "What is on for a while",
    "/adjustments": "How cams are set",
    "/origins": "Where figures are from",
}


def own_lists(schema: Schema) -> set[str]:
    """The keys of a group whose values have places of their own."""
    if schema.get("title") not in DIVIDED:
        return set()
    is_root = schema.get("title") == "EngineDocument"
    return {key for key, own in schema["properties"].items() if _stands_alone(own, is_root=is_root)}


def _stands_alone(schema: Schema, *, is_root: bool) -> bool:
    found = meant(schema, None)
    if found.get("type") == "array":
        return has_ids(found) or (is_root and meant(found["items"], None).get("type") != "integer" and "properties" in _first(found))
    return is_root and ("properties" in found or "additionalProperties" in found)


def _first(members: Schema) -> Schema:
    """What the members of a list are, the first kind where there are several."""
    found = meant(members["items"], {})
    return meant(found["oneOf"][0], None) if "oneOf" in found else found


def places_of(document: dict[str, Any]) -> list[FormPlace]:
    """All places, in the order of the format."""
    root = FormPlace(at="", name="The engine", sort="group", kinds=[], is_there=True, depth=0)
    return [root, *_inside("", meant(ROOT, document), document, 0)]


def _inside(at: str, schema: Schema, value: Any, depth: int) -> Iterator[FormPlace]:
    lists = own_lists(schema)
    for key, own in schema["properties"].items():
        if key in lists:
            inner = value.get(key) if isinstance(value, dict) else None
            yield from _place(f"{at}/{key}", key, meant(own, inner), inner, depth)


def _place(at: str, key: str, schema: Schema, value: Any, depth: int) -> Iterator[FormPlace]:
    is_list = schema.get("type") == "array" and has_ids(schema)
    kinds = kinds_in(schema["items"]) if is_list else []
    yield FormPlace(
        at=at, name=_NAMES.get(at, key_words(key)), sort="list" if is_list else "group", kinds=kinds, is_there=bool(value), depth=depth
    )
    if is_list:
        members = value if isinstance(value, list) else []
        for name, member in zip(_names(members), members, strict=True):
            yield from _member(f"{at}/{name}", meant(schema["items"], member), member, depth + 1)
    elif "properties" in schema:
        yield from _inside(at, schema, value, depth + 1)


def _member(at: str, schema: Schema, value: Any, depth: int) -> Iterator[FormPlace]:
    said = value if isinstance(value, dict) else {}
    name = str(next((said[key] for key in ("says", "title", "name", "id") if isinstance(said.get(key), str)), at.rpartition("/")[2]))
    yield FormPlace(at=at, name=name, sort="member", kinds=[], is_there=True, depth=depth)
    if "properties" in schema:
        yield from _inside(at, schema, value, depth + 1)


def _names(members: list[Any]) -> Iterator[str]:
    """Members by their ids, or by number where one has none, or one that another before it has too."""
    seen: set[str] = set()
    for n, member in enumerate(members):
        ident = member.get("id") if isinstance(member, dict) else None
        told = ident if isinstance(ident, str) else ""
        yield told if told and "/" not in told and told not in seen else f"#{n}"
        seen.add(told)
