"""One small change of a draft: an answer, or something set, added, taken out or moved by hand. Places are named by ids, never by number."""

__all__ = [
    "Add",
    "Answer",
    "Clear",
    "Edit",
    "Move",
    "NoPlace",
    "Remove",
    "Set",
    "applied",
    "groups_in",
    "numbered",
    "place_of",
    "read_edit",
]

from collections.abc import Iterable
from copy import deepcopy
from typing import Annotated, Any, Literal, cast

from pydantic import BaseModel, ConfigDict, Field, JsonValue, TypeAdapter

from gurvo_core.writer.answers import Source
from gurvo_core.writer.compose.origins import origin_of

Pointer = Annotated[str, Field(pattern=r"^(/[^/]{1,120}){1,12}$", description="By ids, such as /drive/wheels/cam-wheel/teeth")]
Question = Annotated[str, Field(pattern=r"^[a-z_]+(\.[A-Za-z0-9._-]{1,40}){0,2}$")]


class _Change(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True, allow_inf_nan=False)


class Answer(_Change):
    """A question answered, or said not to be known."""

    does: Literal["answer"] = "answer"
    question: Question
    text: str | None = Field(default=None, max_length=2000, description="As it is typed; null = not known")
    source: Source | None = Field(default=None, description="Where it is from")


class Clear(_Change):
    """An answer taken back: the question is open again."""

    does: Literal["clear"] = "clear"
    question: Question


class Set(_Change):
    """A key of the document given a value."""

    does: Literal["set"] = "set"
    at: Pointer
    value: JsonValue
    source: Source | None = None


class Add(_Change):
    """A member put into a list."""

    does: Literal["add"] = "add"
    to: Pointer
    after: str | None = Field(default=None, max_length=120, description="Id of the member before it; empty = first; null = last")
    value: JsonValue


class Remove(_Change):
    """A key or a member taken out."""

    does: Literal["remove"] = "remove"
    at: Pointer


class Move(_Change):
    """A member moved within its list, or into another."""

    does: Literal["move"] = "move"
    at: Pointer
    to: Pointer | None = Field(default=None, description="The other list; its own when left out")
    after: str | None = Field(default=None, max_length=120, description="Id of the member before it; empty = first; null = last")


Edit = Annotated[Answer | Clear | Set | Add | Remove | Move, Field(discriminator="does")]
_READ = TypeAdapter[Any](cast(Any, Edit))  # a union, which it takes


class NoPlace(LookupError):  # noqa: N818 - said as it happens
    """What an edit is about is not there, or no longer."""


def read_edit(data: object) -> Answer | Clear | Set | Add | Remove | Move:
    """An edit as it was kept."""
    edit: Answer | Clear | Set | Add | Remove | Move = _READ.validate_python(data)
    return edit


def _parts(pointer: str) -> list[str]:
    return [part.replace("~1", "/").replace("~0", "~") for part in pointer.split("/")[1:]]


def _member(members: list[Any], name: str) -> int:
    """The place of a list's member: by its id, else by its number behind a #."""
    for n, one in enumerate(members):
        if isinstance(one, dict) and one.get("id") == name:
            return n
    if name.startswith("#") and name[1:].isdigit() and int(name[1:]) < len(members):
        return int(name[1:])
    raise NoPlace(f"“{name}” is not there any more")


def groups_in(of: dict[str, Any], key: str) -> list[dict[str, Any]]:
    """The members of a list that are groups, whatever else a draft may hold there."""
    members = of.get(key)
    return [one for one in members if isinstance(one, dict)] if isinstance(members, list) else []


def place_of(document: dict[str, Any], pointer: str, *, make: bool = True) -> tuple[Any, str | int]:
    """The group or list that a pointer leads into, and the key or number in it; groups on the way that are not there yet are made,
    or nothing is and there is no place.
    """
    *above, last = _parts(pointer)
    at: Any = document
    for part in above:
        if isinstance(at, list):
            at = at[_member(at, part)]
        elif isinstance(at, dict) and (make or at.get(part) is not None):
            at = at.setdefault(part, {}) if at.get(part) is None else at[part]
        else:
            raise NoPlace(f"nothing lies below “{part}”")
    if isinstance(at, list):
        return at, _member(at, last)
    if isinstance(at, dict):
        return at, last
    raise NoPlace(f"nothing lies below “{above[-1] if above else ''}”")


def applied(document: dict[str, Any], changes: Iterable[tuple[int, Set | Add | Remove | Move]]) -> tuple[dict[str, Any], dict[int, str]]:
    """A document with changes by hand, each with its number; and why each that did not find its place did not. It is changed in place."""
    found, lost = document, {}
    for number, change in changes:
        try:
            _APPLY[change.does](found, change)
        except NoPlace as why:
            lost[number] = str(why)
    return found, lost


def _set(document: dict[str, Any], change: Any) -> None:
    at, key = place_of(document, change.at)
    at[key] = deepcopy(change.value)
    if change.source is not None:
        _say_source(document, change)


def _say_source(document: dict[str, Any], change: Any) -> None:
    document.setdefault("origins", {})[numbered(document, change.at)] = origin_of(change.source)


def numbered(document: dict[str, Any], pointer: str) -> str:
    """A pointer by ids as JSON has it, by numbers."""
    at: Any = document
    path = ""
    for part in _parts(pointer):
        if isinstance(at, list):
            n = _member(at, part)
            path, at = f"{path}/{n}", at[n]
        else:
            path, at = f"{path}/{part}", at.get(part) if isinstance(at, dict) else None
    return path


def _add(document: dict[str, Any], change: Any) -> None:
    members = _list(document, change.to)
    ident = change.value.get("id") if isinstance(change.value, dict) else None
    if ident is not None and any(isinstance(one, dict) and one.get("id") == ident for one in members):
        raise NoPlace(f"“{ident}” is there already")
    members.insert(_after(members, change.after), deepcopy(change.value))


def _list(document: dict[str, Any], pointer: str) -> list[Any]:
    at, key = place_of(document, pointer)
    members = at[int(key)] if isinstance(at, list) else at.get(key)
    if members is None and isinstance(at, dict):
        members = at[key] = []
    if not isinstance(members, list):
        raise NoPlace("what it would be put into is no list")
    return members


def _after(members: list[Any], after: str | None) -> int:
    if after is None:
        return len(members)
    return 0 if after == "" else _member(members, after) + 1


def _remove(document: dict[str, Any], change: Any) -> None:
    at, key = place_of(document, change.at)
    if isinstance(at, dict) and key not in at:
        raise NoPlace(f"“{key}” is not there any more")
    del at[key]


def _move(document: dict[str, Any], change: Any) -> None:
    at, key = place_of(document, change.at)
    if not isinstance(at, list):
        raise NoPlace("only members of a list are moved")
    moved = at.pop(int(key))
    target = _list(document, change.to) if change.to else at
    try:
        target.insert(_after(target, change.after), moved)
    except NoPlace:
        at.insert(int(key), moved)
        raise


_APPLY = {"set": _set, "add": _add, "remove": _remove, "move": _move}
