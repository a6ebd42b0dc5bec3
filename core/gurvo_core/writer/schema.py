"""The schema of the engine document, as a form needs it: nothing referred to, null left out, keys in words with their units."""

__all__ = ["ROOT", "for_form", "has_ids", "key_words", "kinds_in", "meant"]

from collections.abc import Collection
from typing import Any

from gurvo_core.engine.document import EngineDocument

Schema = dict[str, Any]
_UNITS = (
    ("_n_mm", "N/mm"),
    ("_um_m_k", "µm/(m·K)"),
    ("_per_mm", "per mm"),
    ("_cam_deg", "degrees of the cam"),
    ("_deg", "°"),
    ("_mm", "mm"),
    ("_nm", "N·m"),
    ("_cm3", "cm³"),
    ("_n", "N"),
)
_KEPT = ("type", "enum", "const", "maxItems", "maxLength")  # no bounds: a field would put a figure right that is only to be faulted

ROOT: Schema = EngineDocument.model_json_schema()


def key_words(key: str) -> str:
    """A key as it is read on screen, with its unit behind a comma."""
    for ending, unit in _UNITS:
        if key.endswith(ending):
            return f"{_said(key.removesuffix(ending))}, {unit}"
    return _said(key)


def _said(key: str) -> str:
    words = key.replace("_", " ").strip()
    return words[:1].upper() + words[1:]


def meant(schema: Schema, value: Any) -> Schema:
    """What a schema says of a value: references followed, null left out; of several kinds the one that the value says it is."""
    if "$ref" in schema:
        return meant(ROOT["$defs"][schema["$ref"].rpartition("/")[2]], value)
    options = [one for one in schema.get("anyOf", ()) if one.get("type") != "null"]
    if len(options) > 1:  # written in one line, or as a group
        sort = "string" if isinstance(value, str) else "array" if isinstance(value, list) else "group" if isinstance(value, dict) else ""
        options = [one for one in options if one.get("type", "group") == sort and "const" not in one]
    if len(options) == 1:
        return meant(options[0], value)
    kind = value.get(schema["discriminator"]["propertyName"]) if "discriminator" in schema and isinstance(value, dict) else None
    chosen = schema["discriminator"]["mapping"].get(kind) if isinstance(kind, str) else None
    return meant({"$ref": chosen}, value) if chosen else schema


def kinds_in(schema: Schema) -> list[str]:
    """The kinds that a member of a list may be of; none where there is only one."""
    found = meant(schema, None)
    return list(found["discriminator"]["mapping"]) if "discriminator" in found else []


def has_ids(members: Schema) -> bool:
    """Whether the members of a list are named by an id."""
    item = meant(members["items"], {})
    return all("id" in meant(one, None).get("properties", {}) for one in item.get("oneOf", [item]))


def for_form(schema: Schema, value: Any, *, key: str = "", without: Collection[str] = ()) -> Schema:
    """A schema that stands alone, for a value that is there: titles in words, null and defaults left out, what they mean told."""
    found = meant(schema, value)
    form = {name: found[name] for name in _KEPT if name in found} | {"title": key_words(key) if key else _kind_words(found)}
    told = str(schema.get("description") or found.get("description") or "")
    default = schema.get("default")
    if default not in (None, "", [], {}) and not isinstance(default, bool):
        told = f"{told}{'. ' if told else ''}Left out: {default}"
    if not told and "items" in found:
        told = str(meant(found["items"], None).get("description", ""))
    if told:
        form["description"] = told
    return form | _inner(found, value, without)


def _kind_words(found: Schema) -> str:
    """A kind in words: two capitals in a row are none of ours."""
    if "title" not in found:
        return str(found.get("const", "in words" if found.get("type") == "string" else "several"))
    return "".join(f" {letter.lower()}" if letter.isupper() and n else letter for n, letter in enumerate(found["title"]))


def _untitled(form: Schema) -> Schema:
    """The form of a list's members: what they are is said once, above them."""
    plain = {name: one for name, one in form.items() if name not in ("title", "description")}
    return plain | ({"title": "Written"} if "anyOf" in form else {})


def _inner(found: Schema, value: Any, without: Collection[str]) -> Schema:
    if "properties" in found:
        said = value if isinstance(value, dict) else {}
        own = {key: for_form(one, said.get(key), key=key) for key, one in found["properties"].items() if key not in without}
        return {"properties": own, "required": [key for key in found.get("required", ()) if key in own]}
    if "prefixItems" in found:
        return {"items": [for_form(one, None) for one in found["prefixItems"]]}
    if "items" in found:
        return {"items": _untitled(for_form(found["items"], None))}
    if isinstance(found.get("additionalProperties"), dict):
        return {"additionalProperties": for_form(found["additionalProperties"], None)}
    several = "oneOf" if "oneOf" in found else "anyOf"
    if several in found:
        kinds = [for_form(one, None) for one in found[several] if one.get("type") != "null"]
        return {several: kinds} | (
            {"discriminator": {"propertyName": found["discriminator"]["propertyName"]}} if "discriminator" in found else {}
        )
    return {}
