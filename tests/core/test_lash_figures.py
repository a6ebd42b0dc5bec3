"""Where valves may be set, the fewest stops, screws and shims: against exhaustive search, brute force and common practice."""

import itertools
import random
import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from gurvo_core.engine import Lobe
from gurvo_core.errors import NotConverged, ReadingError
from gurvo_core.lash.adjust import lash_by_feelers, screw_turn, shim_mm
from gurvo_core.lash.job.show import where_of
from gurvo_core.lash.shims import Measured, plan_shims
from gurvo_core.lash.stops import Stop, fewest_stops, stops_for
from gurvo_core.lash.windows import ValveKey, may_be_set, two_stops, valves_of
from gurvo_core.motion.lobe import lobe_lift_mm
from gurvo_core.reading import parse_document, read_document
from gurvo_core.uncertainty import GaugeUncertainty
from tests.engines import CODES, family, family_copy

LEAVES = GaugeUncertainty(0.01 / 12**0.5, 0.0025)


def keys(count):
    return [ValveKey(n // 2 + 1, "intake" if n % 2 else "exhaust", "c") for n in range(count)]


def table_of(document):
    return [{(key.cylinder, key.valve) for key in own} for _, own in two_stops(document, valves_of(document))]


class WindowTests(unittest.TestCase):
    def test_nothing_is_lifted_where_a_valve_may_be_set(self):
        """Second method: the lobe's own lift curve, at every degree of every lobe of every family."""
        for code in CODES:
            document = family(code)
            for key, (_, lobe) in valves_of(document).items():
                profile = next(one for one in document.profiles if one.id == lobe.profile)
                nose = document.firing_deg[lobe.cylinder] + 360 + lobe.nose_after_overlap_deg
                lift = lobe_lift_mm((np.arange(720) - nose) / 2, profile)
                with self.subTest(family=code, valve=key.words):
                    allowed = may_be_set(document, lobe, 0)
                    self.assertEqual(float(lift[allowed].max()), 0.0)
                    self.assertTrue(allowed.any())

    def test_a_margin_leaves_out_so_much_at_either_end(self):
        """By hand: ten degrees at each of two ends."""
        document = family("quern-4")
        lobe = document.camshafts[0].lobes[0]
        self.assertEqual(int(may_be_set(document, lobe, 0).sum() - may_be_set(document, lobe, 10).sum()), 20)

    def test_the_usual_table_of_a_four(self):
        """Common practice, firing order 1-3-4-2: firing TDC of 1: both of 1, intake of 2, exhaust of 3; a turn later the others."""
        first = {(1, "intake"), (1, "exhaust"), (2, "intake"), (3, "exhaust")}
        second = {(2, "exhaust"), (3, "intake"), (4, "intake"), (4, "exhaust")}
        self.assertEqual(table_of(family("quern-4")), [first, second])

    def test_the_usual_table_of_a_six(self):
        """Common practice, firing order 1-5-3-6-2-4: intakes of 1, 2, 4 and exhausts of 1, 3, 5 first."""
        wanted = {(1, "intake"), (2, "intake"), (4, "intake"), (1, "exhaust"), (3, "exhaust"), (5, "exhaust")}
        self.assertEqual(table_of(family("garth-d6"))[0], wanted)


class StopTests(unittest.TestCase):
    def exhaustive(self, table):
        """The fewest of all distinct angles that cover everything."""
        sets = {frozenset(np.flatnonzero(column).tolist()) for column in table.T}
        sets = [one for one in sets if not any(one < other for other in sets)]
        everything = set(range(len(table)))
        return next(
            n for n in range(1, len(table) + 1) if any(set().union(*some) == everything for some in itertools.combinations(sets, n))
        )

    def test_as_few_as_an_exhaustive_search_finds(self):
        """Second method: every set of angles, for engines of 2 to 24 valves with windows of many widths."""
        chance = random.Random(7)
        for count in (2, 4, 6, 8, 12, 16, 24):
            for _ in range(4):
                begins = [chance.randrange(720) for _ in range(count)]
                widths = [chance.randrange(140, 420) for _ in range(count)]
                table = np.array([((np.arange(720) - begin) % 720) < width for begin, width in zip(begins, widths, strict=True)])
                found = fewest_stops(dict(zip(keys(count), table, strict=True)))
                with self.subTest(valves=count):
                    self.assertEqual(len(found), self.exhaustive(table))
                    self.assertEqual(sorted(key for _, own in found for key in own), sorted(keys(count)))

    def test_how_many_stops_there_are_and_where_is_said_in_words(self):
        self.assertTrue(stops_for(family("wick-1"), "fewest").words.startswith("One stop reaches every valve"))
        self.assertIn("TDC.", stops_for(family("wick-1"), "firing").words)  # a single has no partner at overlap
        self.assertIn("its partner at overlap.", stops_for(family("quern-4"), "firing").words)
        for crank_deg, words in ((0.0, "0° after the firing TDC of cylinder 1"), (90.4, "90° after the firing TDC of cylinder 1")):
            self.assertEqual(where_of(family("quern-4"), Stop(crank_deg=crank_deg, valves=(), cylinder=None)), words)

    def test_each_valve_is_set_where_it_may_be(self):
        """Property: over every shipped family, and from wherever the crank stands."""
        for code in CODES:
            document = family(code)
            margin = {one.valve: one.margin_deg for one in document.lash}
            for begin in (0.0, 200.0, 555.0):
                found = stops_for(document, "fewest", (), begin)
                turned = [(stop.crank_deg - begin) % 720 for stop in found.stops]
                self.assertEqual(turned, sorted(turned))
                lobes = valves_of(document)
                for stop in found.stops:
                    for key in stop.valves:
                        allowed = may_be_set(document, lobes[key][1], margin.get(key.valve, 10.0))
                        self.assertTrue(allowed[round(stop.crank_deg) % 720], (code, key.words))

    def test_the_table_falls_out_where_it_holds(self):
        found = stops_for(family("quern-4"), "fewest")
        self.assertEqual([stop.cylinder for stop in found.stops], [1, 4])
        self.assertIn("as the usual table", found.words)

    def test_a_long_cam_breaks_the_table_and_that_is_said(self):
        """By hand: intakes of a V8 are set up to 270 after firing TDC; a nose 108 after overlap less 105 cam degrees begins at 258."""
        data = family_copy("brae-v8")
        long = {"cam_deg": [-105, -60, -30, 0, 30, 60, 105], "lobe_lift_mm": [0, 2, 5, 6, 5, 2, 0]}
        data["profiles"] = [{"id": profile["id"], "kind": "table", **long} for profile in data["profiles"]]
        found = stops_for(parse_document(data), "fewest")
        self.assertGreater(len(found.stops), 2)
        self.assertIn("does not hold for this cam", found.words)

    def test_a_single_is_set_at_one_stop_and_a_flat_four_by_its_book_at_four(self):
        self.assertEqual([stop.cylinder for stop in stops_for(family("wick-1"), "fewest").stops], [1])
        book = stops_for(family("tarn-f4"), "book", (), 100.0)
        self.assertEqual([stop.cylinder for stop in book.stops], [3, 2, 4, 1])
        self.assertTrue(all({key.cylinder for key in stop.valves} == {stop.cylinder} for stop in book.stops))

    def test_unknown_lobes_are_set_each_cylinder_at_its_own_firing_tdc(self):
        """Common practice: the partner is at overlap then, and both valves are shut."""
        data = family_copy("quern-4")
        data["camshafts"][0]["lobes"][0]["profile"] = None
        found = stops_for(read_document(data), "fewest")
        self.assertEqual(([stop.cylinder for stop in found.stops], found.way), ([1, 3, 4, 2], "firing"))
        self.assertIn("not known", found.words)

    def test_a_margin_that_leaves_nothing_is_refused_by_the_valve(self):
        with self.assertRaises(NotConverged) as refused:
            fewest_stops({keys(1)[0]: np.zeros(720, dtype=bool)})
        self.assertIn("cylinder 1 exhaust may be set at no crank angle", str(refused.exception).lower())

    def test_a_window_over_the_end_of_the_cycle_is_one_window(self):
        """By hand: from 690 to 9 degrees the middle is at 710."""
        allowed = np.zeros(720, dtype=bool)
        allowed[690:], allowed[:10], allowed[300:315] = True, True, True
        self.assertEqual([angle for angle, _ in fewest_stops({keys(1)[0]: allowed}, begin_deg=200.0)], [710.0])

    def test_thirty_two_valves(self):
        """Property: twin lobes of a V8 are all reached, in no more stops than the usual table has."""
        found = stops_for(family("brae-v8"), "fewest")
        self.assertEqual(sum(len(stop.valves) for stop in found.stops), 32)
        self.assertEqual(len(found.stops), 2)


class AdjustTests(unittest.TestCase):
    def test_two_leaves_hold_the_truth_between_them(self):
        """[gum] 4.3.7: anywhere between 0.20 and 0.25 is 0.225 with 0.05 / sqrt(12)."""
        made = lash_by_feelers(0.20, 0.25, GaugeUncertainty(0.1))
        self.assertAlmostEqual(made.value, 0.225, delta=1e-12)
        self.assertAlmostEqual(made.u, 0.05 / 12**0.5, delta=1e-12)
        with self.assertRaises(ReadingError) as refused:
            lash_by_feelers(0.25, 0.20, LEAVES)
        self.assertEqual(refused.exception.field, "not_goes")

    def test_a_screw_by_its_pitch_and_the_rockers_ratio(self):
        """By hand: 0.15 mm too much at the valve, screw at the pushrod, ratio 1.5, pitch 1: a tenth of a turn in."""
        turn = screw_turn(0.40, 0.25, pitch_mm=1.0, acts_by=1.5)
        self.assertAlmostEqual(turn.turns, 0.1, delta=1e-12)
        self.assertIn("in by 0.10 of a turn", turn.words)
        self.assertIn("screw out", screw_turn(0.10, 0.25, pitch_mm=0.75).words)
        self.assertEqual(screw_turn(0.251, 0.25, pitch_mm=1.0).words, "leave the screw as it is")

    @given(st.floats(2.2, 2.8), st.floats(0.05, 0.5), st.floats(0.15, 0.3), st.floats(0.8, 1.8))
    def test_a_thicker_shim_is_less_lash(self, shim, lash, wanted, acts_by):
        """Property: with the shim that is worked out the lash is what is wanted."""
        new = shim_mm(shim, lash, wanted, acts_by)
        if abs(lash - wanted) > 1e-9:  # nearer than a float tells, either may be
            self.assertEqual(new > shim, lash > wanted)
        measured = Measured(valve="a", shim_mm=shim, lash_mm=lash, wanted_mm=wanted, limits_mm=(0, 1), acts_by=acts_by)
        self.assertAlmostEqual(measured.lash_with(new), wanted, delta=1e-9)


class ShimTests(unittest.TestCase):
    MADE = (2.40, 2.45, 2.50, 2.55)

    def cost(self, measured, sizes, sources):
        """Bought, new and moved of one way to do it; None where a lash would be out."""
        for one, size in zip(measured, sizes, strict=True):
            if not one.limits_mm[0] - 1e-9 <= one.lash_with(size) <= one.limits_mm[1] + 1e-9:
                return None
        return sources.count("to buy"), sum(source != "own" for source in sources)

    @settings(max_examples=60)
    @given(
        st.lists(st.tuples(st.sampled_from(MADE), st.integers(10, 30)), min_size=1, max_size=3), st.lists(st.sampled_from(MADE), max_size=2)
    )
    def test_as_few_bought_and_as_few_new_as_any_other_way(self, valves, stock):
        """Second method: every shim in every place."""
        limits = {"wanted_mm": 0.2, "limits_mm": (0.15, 0.25)}
        measured = [Measured(valve=str(n), shim_mm=shim, lash_mm=lash / 100, **limits) for n, (shim, lash) in enumerate(valves)]
        plan = plan_shims(measured, {size: stock.count(size) for size in set(stock)}, self.MADE)
        pool = [(size, "own", n) for n, (size, _) in enumerate(valves)] + [(size, "stock", 10 + n) for n, size in enumerate(stock)]
        pool += [(size, "to buy", 20 + n * 10 + at) for n in range(len(valves)) for at, size in enumerate(self.MADE)]
        best = min(
            (
                cost
                for way in itertools.permutations(pool, len(valves))
                if (cost := self.cost(measured, [one[0] for one in way], [one[1] for one in way])) is not None
            ),
            default=None,
        )
        if best is not None:
            self.assertTrue(all(one.is_in for one in plan.shims))
            self.assertEqual((plan.to_buy, plan.new), best)

    def test_a_lash_nothing_brings_in_is_said_to_be_out(self):
        one = Measured(valve="a", shim_mm=2.40, lash_mm=0.9, wanted_mm=0.2, limits_mm=(0.15, 0.25))
        plan = plan_shims([one], {}, self.MADE)
        self.assertEqual((plan.shims[0].is_in, plan.shims[0].shim_mm), (False, 2.40))

    def test_of_several_that_bring_it_in_the_one_nearest_the_middle_is_bought(self):
        """By hand: 0.30 over 2.40 becomes 0.25, 0.20 or 0.15; 0.20 is wanted."""
        one = Measured(valve="a", shim_mm=2.40, lash_mm=0.30, wanted_mm=0.2, limits_mm=(0.15, 0.25))
        plan = plan_shims([one], {}, [2.45, 2.50, 2.55])
        self.assertEqual((plan.shims[0].shim_mm, round(plan.shims[0].lash_mm, 9)), (2.50, 0.2))

    def test_what_is_in_stays(self):
        """Property: where every lash is in, nothing is moved."""
        measured = [Measured(valve=str(n), shim_mm=2.4 + n / 20, lash_mm=0.2, wanted_mm=0.2, limits_mm=(0.15, 0.25)) for n in range(4)]
        plan = plan_shims(measured, {2.45: 3}, self.MADE)
        self.assertEqual((plan.moved, plan.new), (0, 0))

    def test_lobes_of_one_valve_sort_are_told_apart_by_place(self):
        twin = Lobe(cylinder=1, valve="intake", place="front")
        self.assertEqual(ValveKey(1, "intake", "cam", twin.place).words, "cylinder 1 intake, front")
