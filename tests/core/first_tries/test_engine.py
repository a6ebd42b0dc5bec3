"""What a reader would try first of the functions of ``engine``, each held to its answer."""

import unittest

from gurvo_core.engine.checks import find_faults
from gurvo_core.engine.checks.cams import cam_faults
from gurvo_core.engine.checks.links import link_faults, missing
from gurvo_core.engine.circles import shaft_speeds
from gurvo_core.engine.difference import difference
from gurvo_core.engine.lift_table import LiftTableChoices, read_lift_table
from gurvo_core.engine.plain import plain_document
from gurvo_core.engine.unknown import not_known
from gurvo_core.engine.upcast import upcast_document
from tests.engines import quern_4


class FirstTriesTests(unittest.TestCase):
    def test_find_faults(self):
        self.assertEqual(find_faults(quern_4()), [])

    def test_cam_faults(self):
        self.assertEqual(cam_faults(quern_4()), [])

    def test_link_faults(self):
        self.assertEqual(link_faults(quern_4()), [])

    def test_missing(self):
        self.assertEqual(
            [fault.sentence for fault in missing("banks.0", "b", ["a"], "bank")], ["This names bank b, which is not there; there are a."]
        )

    def test_shaft_speeds(self):
        self.assertEqual(repr(shaft_speeds(quern_4().drive).turns["cam"]), "Fraction(1, 2)")

    def test_difference(self):
        engine = quern_4()
        newer = engine.model_copy(update={"reference_cylinder": 4})
        self.assertEqual([change.sentence for change in difference(engine, newer)], ["Reference cylinder: was 1, is 4."])

    def test_read_lift_table(self):
        self.assertEqual(
            read_lift_table("0,0\n10,2\n20,5\n30,2\n40,0", LiftTableChoices()).profile.cam_deg, (-20.0, -10.0, 0.0, 10.0, 20.0)
        )

    def test_plain_document(self):
        self.assertEqual(plain_document(quern_4())["identity"]["family"], "quern-4")

    def test_not_known(self):
        self.assertEqual(not_known(quern_4()), [])

    def test_upcast_document(self):
        self.assertEqual(
            upcast_document({"version": 1, "kit": [{"name": "head bolts"}]}),
            {"version": 3, "kit": [{"id": "head-bolts", "name": "head bolts"}]},
        )
