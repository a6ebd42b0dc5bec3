"""Documents of version 3: what is left out is not known, older ones get what they took for granted, and refusals say what was meant."""

import unittest

from hypothesis import given, settings

from demo.documents import family_data
from gurvo_core.engine.unknown import not_known
from gurvo_core.errors import DocumentError
from gurvo_core.reading import read_document, read_text
from tests.core.documents import documents
from tests.core.little_known import little_known
from tests.core.test_document import faults_of


def without(data, *path):
    """The same with one thing left out."""
    *above, last = path
    at = data
    for part in above:
        at = at[part]
    at.pop(last, None)
    return data


class UpcastTests(unittest.TestCase):
    def test_a_list_that_nobody_knows_may_be_null(self):
        data = family_data("heath-4")
        data |= {"firing_order": None}
        data["drive"]["stages"][0] |= {"path": None, "goes_over": ["crank-wheel", "cam-wheel"]}
        document = read_document(data)
        self.assertEqual((document.firing_order, document.drive.stages[0].path), ((), ()))

    def test_what_version_2_took_for_granted_is_written_down(self):
        data = {**family_data("quern-4"), "version": 2}
        without(data, "timing_positions", 0, "stroke")
        without(data, "camshafts", 0, "lobes", 0, "lash_mm")
        document = read_document(data)
        self.assertEqual(document.timing_positions[0].stroke, "firing")
        self.assertEqual(document.camshafts[0].lobes[0].lash_mm, 0)

    def test_version_3_leaves_it_unknown_and_says_so(self):
        data = without(family_data("heath-4"), "timing_positions", 0, "stroke")
        document = read_document(data)
        self.assertIsNone(document.timing_positions[0].stroke)
        said = {one.path for one in not_known(document)}
        self.assertTrue(any(path.startswith("timing_positions.0") for path in said), said)

    @settings(max_examples=10)
    @given(documents())
    def test_any_drawn_document_of_version_2_reads_as_today(self, plain):
        self.assertEqual((plain["version"], read_document(plain).version), (2, 3))


class LeftOutTests(unittest.TestCase):
    @settings(max_examples=20)
    @given(little_known())
    def test_an_engine_of_which_little_is_known_is_taken_in_and_what_is_open_is_told(self, data):
        document = read_document(data)
        said = [one.path for one in not_known(document)]
        open_wheels = sum(wheel.teeth is None for wheel in document.drive.wheels)
        self.assertEqual(sum(path.startswith("drive.wheels.") for path in said), open_wheels, said)

    def test_no_tensioner_is_not_the_same_as_one_of_unknown_kind(self):
        data = family_data("heath-4")
        for told, is_open in (("none", False), ({"kind": None, "name": "Tensioner"}, True)):
            data["drive"]["stages"][0]["tensioner"] = told
            document = read_document(data)
            said = [one.sentence.lower() for one in not_known(document) if one.path.startswith("drive.stages.0")]
            self.assertEqual(
                (document.drive.stages[0].tightened_by is not None, any("tensioner" in words for words in said)), (is_open,) * 2, said
            )


class SentenceTests(unittest.TestCase):
    def test_a_refusal_says_what_was_meant(self):
        for key, value, path, words in (
            ("banks", {"id": "row"}, "banks", "must be a list, in square brackets"),
            ("joints", [{"id": "x", "name": "y", "stages": "40"}], "joints.0.stages", "must be a list, in square brackets"),
            ("reference_cylinder", "one", "reference_cylinder", "must be a whole number"),
            ("running_direction", "left", "running_direction", "'clockwise' or 'counter-clockwise'"),
            ("kit", [{"id": "Bad Id", "name": "n"}], "kit.0.id", "letters, digits, dots, dashes"),
        ):
            with self.subTest(path=path):
                found = faults_of({**family_data("heath-4"), key: value})
                self.assertIn(words, found.get(path, f"only {found}"))
                self.assertNotRegex(" ".join(found.values()), "constrained|tuple|valid dict|NoneType")

    def test_a_bracket_that_is_never_closed_says_where_it_was_opened(self):
        with self.assertRaises(DocumentError) as refused:
            read_text('{\n "a": [1, 2,\n "b": 3\n}')
        self.assertIn("line 2", refused.exception.faults[0].sentence)
