"""A form for everything that the format can say: one place of a document at a time, and the edits that come of it."""

__all__ = ["PlaceForm", "form_of", "place_changes", "place_with"]

from collections.abc import Iterable
from typing import Any

from pydantic import BaseModel, ConfigDict, Field, JsonValue

from gurvo_core.writer.between import Change, edits_at, edits_between
from gurvo_core.writer.edits import NoPlace, numbered, place_of
from gurvo_core.writer.places import FormPlace, own_lists, places_of
from gurvo_core.writer.schema import ROOT, Schema, for_form, meant

Document = dict[str, Any]


class PlaceForm(BaseModel):
    """One place: its schema, what it says, and where it stands among all of them."""

    model_config = ConfigDict(extra="forbid", frozen=True)
    at: str
    json_schema: dict[str, JsonValue] = Field(description="Of this place alone: it refers to nothing")
    value: JsonValue
    path: str = Field(description="As faults name it: by numbers, between dots")
    places: list[FormPlace]


def form_of(document: Document, at: str) -> PlaceForm:
    """The form of a place, or of the one that has what a fault's path names.

    Raises:
        NoPlace: the format knows no such place, or the document has no such member.
    """
    places = places_of(document)
    if at and not at.startswith("/"):
        at = place_with(places, document, at)
    schema, value = _found(document, at)
    lists = own_lists(schema)
    shown = {key: one for key, one in value.items() if key not in lists} if lists and isinstance(value, dict) else value
    empty: JsonValue = [] if schema.get("type") == "array" else {}
    form = for_form(schema, value, without=lists) | {"title": ""}  # the page has its name on top
    path = numbered(document, at).strip("/").replace("/", ".") if at else ""
    return PlaceForm(at=at, json_schema=form, value=empty if shown is None else shown, path=path, places=places)


def _found(document: Document, at: str) -> tuple[Schema, Any]:
    """The schema of a place, and what the document says there."""
    schema: Schema = meant(ROOT, document)
    value: Any = document
    for part in at.split("/")[1:] if at else ():
        if schema.get("type") == "array":
            members, key = place_of({"of": value}, f"/of/{part}", make=False)
            value = members[key]
            schema = meant(schema["items"], value)
        elif part in schema.get("properties", {}):
            value = value.get(part) if isinstance(value, dict) else None
            schema = meant(schema["properties"][part], value)
        else:
            raise NoPlace(f"the format knows no “{part}” there")
    return schema, value


def place_changes(document: Document, at: str, value: JsonValue) -> list[Change]:
    """The edits after which a place says what its form says; what is left empty is not said at all.

    Raises:
        NoPlace: the format knows no such place, or the document has no such member.
    """
    schema, before = _found(document, at)
    lists = own_lists(schema)
    if lists and isinstance(before, dict) and isinstance(value, dict):
        value = {key: one for key, one in value.items() if key not in lists} | {key: before[key] for key in lists if key in before}
    after = _pruned(before, value)
    if not at:
        return edits_between(before, after if isinstance(after, dict) else {})
    return [] if before is None and not after else edits_at(at, before, after)


def _pruned(before: Any, after: Any) -> Any:
    """What a form says, without what it left empty; what was said to be empty stays so."""
    if isinstance(after, dict):
        was = before if isinstance(before, dict) else {}
        kept = {key: _pruned(was.get(key), one) for key, one in after.items()}
        return {key: one for key, one in kept.items() if one not in (None, "", [], {}) or (key in was and was[key] == one)}
    if isinstance(after, list):
        was_list = before if isinstance(before, list) else []
        return [_pruned(was_list[n] if n < len(was_list) else None, one) for n, one in enumerate(after)]
    return after


def place_with(places: Iterable[FormPlace], document: Document, path: str) -> str:
    """The place whose form has what a fault's path names: the longest that it lies in."""
    by_number = {numbered(document, one.at).strip("/").replace("/", "."): one.at for one in places if one.at and one.is_there}
    parts = path.split(".")
    names = (".".join(parts[:n]) for n in range(len(parts), 0, -1))
    return next((by_number[name] for name in names if name in by_number), "")
