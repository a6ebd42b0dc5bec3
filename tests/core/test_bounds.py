"""A text is refused before anything costly is asked of it, and no figure beyond reach comes in."""

import json
import unittest

from hypothesis import given
from hypothesis import strategies as st

from gurvo_core.bounds import MAX_GROUPS, MAX_TEXT, key_given_twice
from gurvo_core.errors import DocumentError
from gurvo_core.reading import read_document, read_text
from tests.engines import quern_4_copy

KEYS = st.text(st.characters(codec="ascii", categories=("L", "N", "P")), max_size=4)
GROUPS = st.recursive(
    st.one_of(st.integers(), st.text(max_size=5)),
    lambda inner: st.one_of(st.lists(inner, max_size=3), st.lists(st.tuples(KEYS, inner), max_size=4)),
    max_leaves=12,
)


def as_text(value):
    """JSON in which a group may give a key twice: a list of pairs is a group here."""
    if isinstance(value, list) and value and isinstance(value[0], tuple):
        return "{" + ", ".join(f"{json.dumps(key)}: {as_text(part)}" for key, part in value) + "}"
    if isinstance(value, list):
        return "[" + ", ".join(map(as_text, value)) + "]"
    return json.dumps(value)


class BoundTests(unittest.TestCase):
    def refused(self, text, words):
        with self.assertRaises(DocumentError) as refused:
            read_document(read_text(text))
        self.assertIn(words, refused.exception.faults[0].sentence)
        return refused.exception.faults[0].path

    def test_what_is_more_than_any_document_is_refused_unread(self):
        self.refused("[" + "{}," * MAX_GROUPS + "{}]", "more than any engine document")
        self.refused("[" * MAX_GROUPS, "never closed")
        self.refused('"' + "x" * MAX_TEXT + '"', "longer than any engine document")
        self.refused("{" + '"a": 1, ' * 48_000 + '"b": 1}', "“a” is given twice in one group")

    def test_a_key_given_twice_is_refused_in_json5_too(self):
        self.refused("{format: 'gurvo-engine', /* a: */ version: 1, 'format': 2}", "“format” is given twice")

    @given(GROUPS)
    def test_twice_is_what_the_standard_reader_finds_twice(self, value):
        """Second method: the pairs that Python's own reader hands out."""
        twice = []

        def pairs(found):
            twice.extend(key for n, (key, _) in enumerate(found) if key in [other for other, _ in found[:n]])
            return dict(found)

        text = as_text(value)
        json.loads(text, object_pairs_hook=pairs)
        self.assertEqual(key_given_twice(text) is not None, bool(twice))

    def test_figures_no_engine_has_are_refused_by_name(self):
        for change, path in (
            (lambda d: d["cam_card"][0].update(lift_mm=1e308), "cam_card.0.lift_mm"),
            (lambda d: d["drive"]["stages"][0].update(pitch_mm=1e-320), "drive.stages.0.pitch_mm"),
            (lambda d: d["profiles"][0]["cam_deg"].__setitem__(3, 1e-160), "profiles.0.cam_deg.3"),
        ):
            document = quern_4_copy()
            change(document)
            self.assertEqual(self.refused(json.dumps(document), "is no figure of an engine"), path)
        document = quern_4_copy()
        document["profiles"][0]["lobe_lift_mm"][40] = 100
        self.assertEqual(self.refused(json.dumps(document), "must be at most 60"), "profiles.0.lobe_lift_mm.40")
