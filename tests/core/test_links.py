"""Whatever in a document points to something: pointed nowhere, it is a fault at that very path, and nothing crashes."""

import unittest

from gurvo_core.engine.checks import find_faults
from gurvo_core.engine.checks.links import link_faults
from gurvo_core.engine.reading import parse_document
from gurvo_core.reading import check_document
from tests.engines import CODES, family_copy

# keys that hold the id of something else, or of several
POINTS = {
    "bank",
    "profile",
    "shaft",
    "wheel",
    "after",
    "meets",
    "position",
    "holds",
    "camshaft",
    "driver",
    "driven",
    "from_mark",
    "to_mark",
    "right_bank",
}
NUMBERS = {"cylinder"}
LISTS = ("banks", "camshafts", "profiles", "timing_positions", "joints", "fits")


def pointers(data, path=()):
    """Every place in a document that points to something else."""
    items = data.items() if isinstance(data, dict) else enumerate(data) if isinstance(data, list) else ()
    for key, value in items:
        if key in POINTS and isinstance(value, str):
            yield (*path, key), "nowhere"
        elif key in NUMBERS and isinstance(value, int) and path[0] != "throws":
            yield (*path, key), 98
        yield from pointers(value, (*path, key))


def with_value(code, path, value):
    data = family_copy(code)
    at = data
    for key in path[:-1]:
        at = at[key]
    at[path[-1]] = value
    return parse_document(data)


class LinkTests(unittest.TestCase):
    def test_whatever_points_nowhere_is_named_at_its_path(self):
        """Property: over every reference of every shipped family."""
        tried = 0
        for code in CODES:
            for path, value in pointers(family_copy(code)):
                with self.subTest(family=code, path=path):
                    document = with_value(code, path, value)
                    found = [fault for fault in link_faults(document) if fault.path == ".".join(map(str, path))]
                    self.assertEqual(len(found), 1)
                    self.assertIn(f"{value}, which is not there", found[0].sentence)
                    self.assertTrue(check_document(document))
                    tried += 1
        self.assertGreater(tried, 300)

    def test_an_id_given_twice_is_named_once(self):
        for code in CODES:
            data = family_copy(code)
            groups = [(name, data[name]) for name in LISTS] + [
                (f"drive.{name}", data["drive"][name]) for name in ("shafts", "wheels", "stages")
            ]
            for path, parts in groups:
                if len(parts) < 2:
                    continue
                kept, parts[1]["id"] = parts[1]["id"], parts[0]["id"]
                faults = [fault.sentence for fault in find_faults(parse_document(data)) if fault.path == path]
                parts[1]["id"] = kept
                with self.subTest(family=code, path=path):
                    self.assertEqual(sum(f"are called {parts[0]['id']}" in sentence for sentence in faults), 1)

    def test_a_list_of_camshafts_of_an_adjustment_is_looked_through(self):
        document = with_value("corrie-v6", ("adjustments", 0, "camshafts"), ["intake-a", "mast"])
        self.assertEqual([fault.path for fault in link_faults(document)], ["adjustments.0.camshafts.1"])
