"""The forms of a document's places: every key of the format is reached, and what a form says becomes edits."""

from collections.abc import Iterator
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from demo.documents import FAMILIES, family_data
from gurvo_core.engine.document import EngineDocument
from gurvo_core.writer.edits import NoPlace, applied
from gurvo_core.writer.form import form_of, place_changes, place_with
from gurvo_core.writer.places import places_of

CODES = sorted(file.stem for file in FAMILIES.glob("*.json"))
SCHEMA = EngineDocument.model_json_schema()


def sample(schema: dict[str, Any], ident: str = "one") -> Any:
    """A value that says every key there is: of several kinds one member each, every choice made."""
    if "$ref" in schema:
        return sample(SCHEMA["$defs"][schema["$ref"].rpartition("/")[2]], ident)
    several = [one for one in schema.get("anyOf", ()) if one.get("type") != "null"]
    if several:  # a group says more than a line of words
        return sample(next((one for one in several if "$ref" in one or "items" in one), several[0]), ident)
    if "properties" in schema:
        return {key: ident if key == "id" else sample(one) for key, one in schema["properties"].items()}
    if "items" in schema:
        kinds = schema["items"].get("oneOf", [schema["items"]])
        return [sample(one, f"n{n}") for n, one in enumerate(kinds)]
    if isinstance(schema.get("additionalProperties"), dict):
        return {"any": sample(schema["additionalProperties"])}
    return schema.get("const", (schema.get("enum") or [{"number": 1.5, "integer": 2, "boolean": True}.get(schema.get("type"), "words")])[0])


def leaves(value: Any, path: str = "") -> Iterator[str]:
    """What a value says, by where it is said."""
    if isinstance(value, dict):
        for key, one in value.items():
            yield from leaves(one, f"{path}.{key}")
    elif isinstance(value, list):
        for n, one in enumerate(value):
            yield from leaves(one, f"{path}.{n}")
    else:
        yield path.strip(".")


def asked(schema: dict[str, Any], value: Any, path: str) -> Iterator[str]:
    """The same as a form asks for it: only where it has a field."""
    if isinstance(value, dict):
        chosen = [one for one in schema.get("oneOf", schema.get("anyOf", ())) if value.keys() <= one.get("properties", {}).keys()]
        own = chosen[0] if chosen else schema
        for key, one in value.items():
            field = own.get("properties", {}).get(key, own.get("additionalProperties"))
            if field:
                yield from asked(field, one, f"{path}.{key}")
    elif isinstance(value, list):
        own = next((one for one in schema.get("anyOf", ()) if "items" in one), schema)
        for n, one in enumerate(value):
            yield from asked(own["items"], one, f"{path}.{n}")
    else:
        yield path.strip(".")


class ReachTests(TestCase):
    def test_every_key_of_the_format_has_a_field(self):
        whole = sample(SCHEMA)
        found = set()
        for place in places_of(whole):
            form = form_of(whole, place.at)
            found |= set(asked(form.json_schema, form.value, form.path))
        told = set(leaves(whole))
        self.assertGreater(len(told), 400)  # 418 keys are in the format's groups
        self.assertEqual(told - found, set())

    def test_nothing_in_a_form_refers_to_what_is_not_in_it(self):
        for place in places_of(sample(SCHEMA)):
            text = str(form_of(sample(SCHEMA), place.at).json_schema)
            self.assertNotIn("$ref", text)
            self.assertNotIn("'default'", text)  # what is left alone must not be written

    def test_a_place_that_is_not_there(self):
        for at in ("/joints/none", "/nothing", "/drive/wheels/x", "/identity/name/x"):
            with self.subTest(at=at), self.assertRaises(NoPlace):
                form_of(family_data(CODES[0]), at)


class FillTests(TestCase):
    @given(st.sampled_from(CODES))
    def test_a_form_that_is_left_as_it_is_changes_nothing(self, code):
        data = family_data(code)
        for place in places_of(data):
            self.assertEqual(place_changes(data, place.at, form_of(data, place.at).value), [])

    def test_what_is_changed_is_an_edit_each(self):
        data = family_data(CODES[0])
        joint = data["joints"][0]
        value = {**form_of(data, f"/joints/{joint['id']}").value, "name": "Other", "thread": None, "clamped": [], "draw": {}}
        at = f"/joints/{joint['id']}"
        changes = place_changes(data, at, value)
        self.assertIn("thread", joint)
        self.assertEqual(sorted((one.does, one.at) for one in changes), [("remove", f"{at}/thread"), ("set", f"{at}/name")])
        after, lost = applied(data, enumerate(changes))
        self.assertEqual((after["joints"][0]["name"], lost), ("Other", {}))

    def test_lists_with_places_of_their_own_stay(self):
        data = family_data(CODES[0])
        wheels = data["drive"]["wheels"]
        form = form_of(data, "/drive")
        self.assertNotIn("wheels", form.value)
        self.assertEqual(place_changes(data, "/drive", {**form.value, "wheels": []}), [])
        after, _ = applied(data, enumerate(place_changes(data, "", {**form_of(data, "").value, "reference_cylinder": 2})))
        self.assertEqual((after["reference_cylinder"], after["drive"]["wheels"]), (2, wheels))

    def test_a_group_that_was_not_there(self):
        self.assertEqual(place_changes({}, "/sides", {}), [])
        (made,) = place_changes({}, "/sides", {"intake": "inside the V", "right_bank": None})
        self.assertEqual((made.at, made.value), ("/sides", {"intake": "inside the V"}))

    def test_a_fault_leads_to_the_place_that_has_it(self):
        data = {"joints": [{"id": "head"}, {"id": "rods"}], "drive": {"wheels": [{"id": "cam"}]}}
        for path, at in (("joints.1.stages.0", "/joints/rods"), ("drive.wheels.0", "/drive/wheels/cam"), ("drive", "/drive"), ("x.y", "")):
            self.assertEqual(place_with(places_of(data), data, path), at)
        self.assertEqual(form_of(data, "joints.1.stages.0").at, "/joints/rods")
