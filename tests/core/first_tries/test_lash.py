"""What a reader would try first of the functions of ``lash``, each held to its answer."""

import unittest

from gurvo_core.engine.fit import Select
from gurvo_core.lash.adjust import shim_mm
from gurvo_core.lash.job.book import lash_book
from gurvo_core.lash.job.entries import LashReading
from gurvo_core.lash.job.figures import lash_si, typed_deg, typed_turns
from gurvo_core.lash.job.kept import new_shims, shims_taken
from gurvo_core.lash.job.sheet import lash_sheet
from gurvo_core.lash.job.state import begin_lash
from gurvo_core.lash.stops import stops_for
from gurvo_core.lash.windows import are_known, may_be_set, valves_of
from tests.engines import quern_4


class FirstTriesTests(unittest.TestCase):
    def test_shim_mm(self):
        self.assertEqual(round(shim_mm(2.40, 0.30, 0.20), 3), 2.5)

    def test_lash_book(self):
        self.assertEqual(dict(lash_book(quern_4()).steps), {})

    def test_typed_deg(self):
        self.assertEqual((typed_deg("-90"), typed_deg(None)), (630.0, 0.0))

    def test_typed_turns(self):
        self.assertEqual((typed_turns("3/4"), typed_turns("0,75")), (0.75, 0.75))

    def test_lash_si(self):
        where = {"step": "x", "camshaft": "cam", "cylinder": 1, "valve": "intake"}
        self.assertEqual(lash_si(LashReading(kind="lash_reading", **where, goes={"text": "0.20", "unit": "mm"})), {"goes_mm": 0.2})

    def test_new_shims(self):
        select = Select(part="shims", on="gap", classes=({"id": "2.45", "size_mm": 2.45},))
        self.assertEqual(new_shims(begin_lash(quern_4()), select, {"a": 2.45, "b": 2.45}), {"2.45": 2})

    def test_shims_taken(self):
        self.assertEqual(shims_taken(begin_lash(quern_4())), {})

    def test_lash_sheet(self):
        self.assertEqual(lash_sheet(begin_lash(quern_4()), "x").rows, [])

    def test_begin_lash(self):
        self.assertEqual(dict(begin_lash(quern_4()).reads), {})

    def test_stops_for(self):
        found = stops_for(quern_4(), "fewest")
        self.assertEqual(
            ([stop.crank_deg for stop in found.stops], found.words),
            ([0.0, 360.0], "Two stops, as the usual table for this firing order has them."),
        )

    def test_valves_of(self):
        self.assertEqual((len(valves_of(quern_4())), next(iter(valves_of(quern_4(), [2]))).words), (8, "cylinder 2 intake"))

    def test_are_known(self):
        self.assertTrue(are_known(quern_4(), valves_of(quern_4())))

    def test_may_be_set(self):
        lobe = quern_4().camshafts[0].lobes[0]
        self.assertTrue(int(may_be_set(quern_4(), lobe, 10).sum()) < int(may_be_set(quern_4(), lobe, 0).sum()) < 720)
