"""Plain data in, a document whose types are right out, or every fault of its types with its JSON path."""

__all__ = ["parse_document", "plain_sentence", "type_faults"]

from collections.abc import Mapping, Sequence
from typing import Any

from pydantic import ValidationError

from gurvo_core.engine.document import EngineDocument
from gurvo_core.errors import DocumentError, Fault
from gurvo_core.sentence import within

MAX_FAULTS = 200  # more than anybody reads; a file of another kind altogether would have one a line


# what is wanted, by the type of pydantic's error; {0} is the bound it names
_WANTED = {
    "tuple_type": "must be a list, in square brackets",
    "list_type": "must be a list, in square brackets",
    "model_type": "must be a group of its own, in braces",
    "dict_type": "must be a group of its own, in braces",
    "string_type": "must be words, in quotes",
    "int_type": "must be a whole number",
    "int_parsing": "must be a whole number",
    "int_from_float": "must be a whole number",
    "float_type": "must be a number",
    "float_parsing": "must be a number",
    "finite_number": "must be a number that ends somewhere",
    "bool_type": "must be true or false",
    "bool_parsing": "must be true or false",
    "greater_than": "must be above {0:g}",
    "greater_than_equal": "must be at least {0:g}",
    "less_than": "must be below {0:g}",
    "less_than_equal": "must be at most {0:g}",
    "multiple_of": "must be a multiple of {0:g}",
    "string_too_short": "needs some words",
    "string_too_long": "is too long: {0} characters at most",
    "string_pattern_mismatch": "must be a short word: letters, digits, dots, dashes and underscores, at most 40, no spaces",
    "too_short": "needs at least {0}",
    "too_long": "needs at most {0}",
}
_BOUNDS = ("gt", "ge", "lt", "le", "multiple_of", "max_length", "min_length")


def plain_sentence(error: Mapping[str, Any]) -> str:
    """One item of ``ValidationError.errors()`` as a sentence a builder can act on: what is wrong and what would be right."""
    name = _called(error["loc"])
    kind, context = error["type"], error.get("ctx", {})
    if kind == "extra_forbidden":
        return f"{name} is not known here; leave it out or correct its spelling."
    if kind == "missing":
        return f"{name} is missing; give it."
    if kind == "literal_error":
        return f"{name} must be {context['expected']}."
    if kind in {"union_tag_invalid", "union_tag_not_found"}:
        known = f": {context['expected_tags']}" if "expected_tags" in context else ""
        return f"{name} needs a known {context['discriminator']}{known}."
    if kind in _WANTED:
        bound = next((context[key] for key in _BOUNDS if key in context), 0)
        has = f", it has {context['actual_length']}" if kind == "too_short" else ", it has more" if kind == "too_long" else ""
        return f"{name} {_WANTED[kind].format(bound)}{has}."
    return f"{name}: {within(error['msg'])}."


def _called(location: Sequence[object]) -> str:
    """What an error is about: its key, or which one of a list."""
    if not location:
        return "“the body”"
    last = location[-1]
    if isinstance(last, int) and len(location) > 1:
        return f"Number {last + 1} of “{location[-2]}”"
    return f"“{last}”"


def _at(data: object, location: Sequence[object]) -> tuple[list[object], object]:
    """Where an error lies in the data itself, and what stands there: pydantic also names the kind of a tagged union, and the models that
    a place might have been, which are no keys.
    """
    path: list[object] = []
    for part in location:
        if isinstance(data, Mapping):
            if part in data or _is_key(data, part, location):
                path.append(part)
                data = data.get(part)
        elif isinstance(data, Sequence) and not isinstance(data, str) and isinstance(part, int):
            path.append(part)
            data = data[part] if part < len(data) else None
    return path, data


def _is_key(data: Mapping[Any, Any], part: object, location: Sequence[object]) -> bool:
    """Whether a part of a location that is not there is a key that is missing: the last, and no name of a model or a kind."""
    return part == location[-1] and isinstance(part, str) and part != data.get("kind") and part.isidentifier() and part[:1].islower()


def type_faults(error: ValidationError, data: object) -> list[Fault]:
    """Every fault of type with its JSON path, each place once: of what a place might have been, only what it looks like is spoken of."""
    found: dict[str, Fault] = {}
    unions: dict[str, list[str]] = {}
    for one in error.errors(include_url=False, include_input=False):
        path, stands = _at(data, one["loc"])
        if one["type"] == "too_short" and isinstance(stands, Sequence) and len(stands) >= one["ctx"]["min_length"]:
            continue  # enough were given: some of them are at fault, which is said of each
        where = ".".join(map(str, path))
        said = one if list(one["loc"]) == path else {**one, "loc": tuple(path)}
        sentence = plain_sentence(said)
        is_whole = _is_branch(one["loc"], path) and one["type"] in ("string_type", "model_type", "literal_error")
        if is_whole and isinstance(stands, Mapping):
            continue  # it might have been words, but it is a group
        if is_whole:
            unions.setdefault(where, []).append(sentence)
        else:
            found.setdefault(where, Fault(path=where, sentence=sentence))
    for where, sentences in unions.items():
        name = sentences[0].partition(" must")[0]
        ways = " or ".join(dict.fromkeys(one_of.partition("must be ")[2].rstrip(".") for one_of in sentences))
        found.setdefault(where, Fault(path=where, sentence=f"{name} must be {ways}."))
    return list(found.values())


def _is_branch(location: Sequence[object], path: Sequence[object]) -> bool:
    """Whether an error ends in the name of what a place might have been, which is no key."""
    return not path or location[-1] != path[-1]


def parse_document(data: object) -> EngineDocument:
    """Return the engine document in some plain data; only types are looked at.

    Raises DocumentError with every fault of its types, each a sentence and its path.
    """
    try:
        return EngineDocument.model_validate(data)
    except ValidationError as error:
        found = type_faults(error, data)
        faults = found[:MAX_FAULTS]
        if len(found) > MAX_FAULTS:
            faults.append(Fault(path="", sentence=f"There are {len(found) - MAX_FAULTS} more faults of this sort; correct these first."))
        raise DocumentError(faults) from None
