"""Clearances, their uncertainty, what settles them and what is chosen, against published rules, hand-worked cases and other packages."""

import itertools
import math
import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from uncertainties import ufloat

from benchmarks.coverage import UNEVEN_MM, spots_within
from gurvo_core.engine import Chamber, HeadGasket
from gurvo_core.errors import GeometryError
from gurvo_core.fits.chamber import chamber_figures, choose_gasket
from gurvo_core.fits.choose import Bare, choose
from gurvo_core.fits.clearance import Clearance, ReadWith, Size, at_20_mm, at_radius, clearance_of, size_of
from gurvo_core.fits.judged import judge_clearance
from gurvo_core.fits.places import FitSpot
from gurvo_core.fits.settle import Settling, brings_in, is_too_coarse, settle
from gurvo_core.fits.sheet import read_sheet
from gurvo_core.fits.slips import size_slip, temperature_slip
from gurvo_core.uncertainty import Estimate, extreme_u
from gurvo_core.verdict import judge_size

EXACT_MM = 1e-12
TENTH_UM = 5e-5  # half of the last digit that is stated
FINE = ReadWith(resolution_mm=0.001, calibration_mm=0.003, part_c=20)
COARSE = ReadWith(resolution_mm=0.01, calibration_mm=0.003, part_c=20)


def sized(*values_mm, u=0.001):
    return {(f"plane {n}", "up"): Size(estimate=Estimate(value=value, u=u), count=1) for n, value in enumerate(values_mm)}


class TemperatureTests(unittest.TestCase):
    def test_a_warm_steel_part_and_a_gauge_at_twenty(self):
        """By hand: 58 mm of steel at 30 degrees is 58 * 11.5e-6 * 10 = 0.00667 mm too long."""
        self.assertAlmostEqual(at_20_mm(58.0, ReadWith(resolution_mm=0.001, calibration_mm=0, part_c=30, gauge_c=20)), 57.99333, delta=1e-5)

    def test_part_and_gauge_of_steel_at_the_same_warmth_cancel(self):
        """By hand: whatever the shop's temperature, steel read with steel is as at 20."""
        self.assertAlmostEqual(at_20_mm(58.0, ReadWith(resolution_mm=0.001, calibration_mm=0, part_c=28)), 58.0, delta=EXACT_MM)

    def test_an_aluminium_bore_in_a_warm_shop(self):
        """By hand: 82 mm at 30 degrees, aluminium 23e-6 read with steel 11.5e-6: 82 * 11.5e-6 * 10 = 0.0094 mm smaller at 20."""
        warm = ReadWith(resolution_mm=0.001, calibration_mm=0, part_c=30, part_um_m_k=23)
        self.assertAlmostEqual(at_20_mm(82.0, warm), 82.0 - 0.00943, delta=1e-5)

    def test_a_temperature_nobody_looked_at_costs_trust(self):
        """Property: the uncertainty is larger, the figure the same."""
        unknown = ReadWith(resolution_mm=0.001, calibration_mm=0.003)
        self.assertGreater(unknown.u_mm(58), FINE.u_mm(58))
        self.assertEqual(at_20_mm(58.0, unknown), 58.0)


class UncertaintyTests(unittest.TestCase):
    def test_a_clearance_agrees_with_a_package_for_uncertain_numbers(self):
        """Library: uncertainties, a bore less a journal, each with its gauge's step, calibration and standard."""
        bore = ReadWith(resolution_mm=0.001, calibration_mm=0.003, standard_mm=0.002, part_c=20)
        made = clearance_of({("", ""): size_of([58.026], bore)}, {("", ""): size_of([57.97], COARSE)})

        def theirs(read_with, size):
            parts = (read_with.resolution_mm / 12**0.5, read_with.calibration_mm / 2, read_with.standard_mm / 2)
            warmth = size * read_with.part_um_m_k * 1e-6 / 3**0.5
            return size + sum(ufloat(0, part) for part in (*parts, warmth) if part)

        expected = theirs(bore, 58.026) - theirs(COARSE, 57.97)
        self.assertAlmostEqual(made.least.value, expected.nominal_value, delta=EXACT_MM)
        self.assertAlmostEqual(made.least.u, expected.std_dev, delta=1e-9)

    def test_repeats_average_scatter_and_nothing_else(self):
        """Property, [gum] 4.2.3: alike readings stay at what the gauge gives, scattered ones fall towards it and never below."""
        gauge = FINE.u_mm(58.0)
        self.assertEqual(size_of([58.0] * 9, FINE).estimate.u, gauge)
        few, many = (size_of([58.0, 58.006] * n, FINE).estimate.u for n in (1, 20))
        self.assertGreater(few, many)
        self.assertGreater(many, gauge)

    @settings(max_examples=200)
    @given(st.lists(st.floats(58.0, 58.1), min_size=1, max_size=6), st.lists(st.floats(57.9, 58.0), min_size=1, max_size=6))
    def test_the_least_clearance_is_the_smallest_of_all_pairs(self, bores, journals):
        """Second method: every bore against every journal."""
        made = clearance_of(sized(*bores), sized(*journals))
        pairs = [bore - journal for bore, journal in itertools.product(bores, journals)]
        self.assertAlmostEqual(made.least.value, min(pairs), delta=EXACT_MM)
        self.assertAlmostEqual(made.most.value, max(pairs), delta=EXACT_MM)

    @settings(max_examples=30)
    @given(st.lists(st.tuples(st.floats(0, 5), st.floats(0.2, 2)), min_size=1, max_size=12), st.integers(0, 10**6))
    def test_the_smallest_of_several_agrees_with_drawing_them(self, figures, seed):
        """Second method, JCGM 101: forty thousand draws of each, the mean square of how far their smallest is from the smallest figure."""
        values, us = np.array(figures).T
        drawn = np.random.default_rng(seed).normal(values, us, (40_000, len(figures))).min(axis=1)
        theirs = math.sqrt(((drawn - values.min()) ** 2).mean())
        ours = extreme_u([Estimate(value=value, u=u) for value, u in figures])
        self.assertAlmostEqual(ours, theirs, delta=0.1 * theirs)

    def test_the_truth_of_nine_spots_lies_within_the_stated_u(self):
        """Second method: six thousand simulated bores, read at nine spots, as round as may be and out of round: 95 of 100 within two."""
        for uneven_mm in UNEVEN_MM:
            with self.subTest(uneven_mm=uneven_mm):
                self.assertGreater(spots_within(9, uneven_mm, bores=6000), 93)

    def test_what_a_gauge_has_shown_before_stands_in_for_repeats(self):
        """Second method: read once with a gauge that scatters by 0.003: 95 of 100 truths lie within U; by its step alone half of them."""
        chance, within = np.random.default_rng(6), {0: 0, 40: 0}
        errors = np.round((chance.normal(0, 0.003, 2000) + chance.normal(0, 0.001, 2000)) / 0.002) * 0.002
        for repeats in within:
            gauge = ReadWith(resolution_mm=0.002, calibration_mm=0.002, part_c=20, scatter_mm=0.003, scatter_of=repeats)
            within[repeats] = sum(abs(off) <= size_of([40 + off], gauge).estimate.expanded for off in errors) / 2000
        self.assertAlmostEqual(within[40], 0.95, delta=0.03)
        self.assertLess(within[0], 0.75)

    def test_a_gauge_of_another_material_grows_by_its_own(self):
        """By hand: at 30 degrees aluminium (23) on a steel part (11.5) of 100 mm reads 0.0115 short; one that does not grow, long."""
        for own, grows in ((23.0, 0.0115), (11.5, 0.0), (0.0, -0.0115)):
            warm = ReadWith(resolution_mm=0.01, calibration_mm=0, part_c=30, gauge_um_m_k=own)
            with self.subTest(own):
                self.assertAlmostEqual(at_20_mm(100.0, warm) - 100.0, grows, places=4)

    def test_repeats_are_pooled_with_those_before(self):
        """By hand: 40.000 and 40.004 (squares 8e-6, one beyond the first), ten before of 0.001: (8 + 10) / 11 e-6, over two readings."""
        gauge = ReadWith(resolution_mm=1e-6, calibration_mm=0, part_c=20, part_um_m_k=0, scatter_mm=0.001, scatter_of=10)
        self.assertAlmostEqual(size_of([40.0, 40.004], gauge).estimate.u, (18e-6 / 11 / 2) ** 0.5, places=8)

    def test_what_reading_to_a_step_scatters_by_is_counted_once(self):
        """By hand: repeats by 0.004 of a gauge read to 0.01, of which the step alone scatters by 0.01/√12, are sure to 0.004 in all."""
        gauge = ReadWith(resolution_mm=0.01, calibration_mm=0, part_c=20, part_um_m_k=0, scatter_mm=0.004, scatter_of=10)
        self.assertAlmostEqual(size_of([40.0], gauge).estimate.u, 0.004, places=9)

    def test_taper_and_out_of_round_are_told_apart(self):
        """By hand: front 58.020 / 58.024, rear 58.026 / 58.027: taper 0.006, out of round 0.004."""
        spots = {("front", "up"): 58.020, ("front", "across"): 58.024, ("rear", "up"): 58.026, ("rear", "across"): 58.027}
        outer = {where: Size(estimate=Estimate(value=value, u=0.001), count=1) for where, value in spots.items()}
        made = clearance_of(outer, {})
        self.assertAlmostEqual(made.taper_mm["outer"], 0.006, delta=EXACT_MM * 100)
        self.assertAlmostEqual(made.out_of_round_mm["outer"], 0.004, delta=EXACT_MM * 100)


class VerdictTests(unittest.TestCase):
    def test_the_guard_band_of_iso_14253_1(self):
        """From memory, ISO 14253-1: inside by at least U is in, outside by at least U is out, between it cannot be told; U = 2u."""
        for value, verdict in ((0.034, "in"), (0.0339, "can't tell"), (0.030, "can't tell"), (0.0261, "can't tell"), (0.026, "out")):
            with self.subTest(value):
                self.assertEqual(judge_size(Estimate(value=value, u=0.002), 0.030, 0.060), verdict)

    def test_the_worse_end_decides(self):
        """By hand: the least is well inside, the most lies above its limit by more than U."""
        ends = {"least": Estimate(value=0.040, u=0.001), "most": Estimate(value=0.063, u=0.001)}
        judged = judge_clearance(Clearance(**ends, taper_mm={}, out_of_round_mm={}, ends_mm={}), 0.03, 0.06)
        self.assertEqual((judged.end, judged.verdict), ("most", "out"))

    def test_a_gauge_too_coarse_for_a_fit_is_told_beforehand(self):
        """By hand: U of 0.016 against a tolerance of 0.030: more than half of it."""
        self.assertTrue(is_too_coarse(0.008, 0.03, 0.06))
        self.assertFalse(is_too_coarse(0.007, 0.03, 0.06))
        self.assertFalse(is_too_coarse(1.0, None, 0.06))


class SettlingTests(unittest.TestCase):
    def case(self, value, scatter=0.0, count=1):
        sides = {"outer": FINE, "inner": COARSE}
        u = math.hypot(FINE.u_mm(58), COARSE.u_mm(58), scatter / count**0.5)
        return Settling(
            figure=Estimate(value=value, u=u),
            low_mm=0.03,
            high_mm=0.06,
            sides=sides,
            sizes_mm={"outer": 58.0, "inner": 58.0},
            scatter_mm={"outer": 0.0, "inner": scatter},
            counts={"outer": count, "inner": count},
            called={"outer": "bore", "inner": "journal"},
            gauge={"outer": "P1", "inner": "M2"},
        )

    def test_the_u_that_a_finer_gauge_gives_is_the_u_it_then_has(self):
        """Second method: the clearance measured with it."""
        way = settle(self.case(0.055), {"inner:M1": FINE})[0]
        self.assertAlmostEqual(way.u_mm, 2 * math.hypot(FINE.u_mm(58), FINE.u_mm(58)), delta=1e-12)
        self.assertEqual((way.settles, way.words.split(":")[0]), (True, "Read the journal again with M1"))

    def test_one_that_is_not_fine_enough_is_said_with_what_is_needed(self):
        way = settle(self.case(0.0595), {"inner:M1": FINE})[0]
        self.assertEqual((way.settles, "{fine:0.0005} is needed" in way.words), (False, True))

    def test_repeats_are_offered_only_where_they_can_settle_it(self):
        """Property: the count that is named is the first whose U is small enough."""
        gauges = math.hypot(FINE.u_mm(58), COARSE.u_mm(58))
        for value in (0.0510, 0.0515, 0.0518):
            enough = next(n for n in range(2, 13) if 2 * math.hypot(gauges, 0.005 / n**0.5) <= 0.06 - value)
            words = settle(self.case(value, scatter=0.005, count=2), {})[0].words
            self.assertTrue(words.startswith(f"Read the journal until there are {enough} of each"), words)
        self.assertIn("would not settle it", settle(self.case(0.0585, scatter=0.005, count=2), {})[0].words)

    def test_another_size_is_offered_where_it_would_be_in(self):
        words = [way.words for way in settle(self.case(0.0575), {}, [("shells yellow", 0.0495), ("shells blue", 0.0555)])]
        self.assertEqual(words, ["shells yellow would give {fine:0.0495}, which is in."])

    def test_where_nothing_helps_that_is_said(self):
        self.assertIn("borrow one", settle(self.case(0.0575), {"inner:M9": COARSE})[0].words)


class BringingInTests(unittest.TestCase):
    def test_how_far_out_it_is_and_what_brings_it_in(self):
        """By hand: 0.067 lies 0.007 above 0.060; two shells 0.01 mm thicker take 0.02."""
        figure = Estimate(value=0.067, u=0.002)
        words = [way.words for way in brings_in(figure, (0.03, 0.06), sizes=[("shells yellow", 0.047), ("shells blue", 0.057)])]
        self.assertEqual(words, ["It is {fine:0.0070} too wide.", "shells yellow would give {fine:0.0470}, which is in."])

    def test_a_ring_is_filed_only_where_it_is_tight(self):
        """Common practice: a gap can be filed wider, never tighter."""
        tight, wide = (brings_in(Estimate(value=value, u=0.005), (0.25, 0.45), wanted_mm=0.35, is_filed=True) for value in (0.2, 0.6))
        self.assertIn("File the ring by {fine:0.1500}", tight[1].words)
        self.assertEqual([way.words for way in wide], ["It is {fine:0.1500} too wide."])

    @given(st.floats(20, 200), st.floats(20, 200), st.floats(0.05, 0.5))
    def test_a_backlash_is_the_same_angle_wherever_it_is_read(self, radius, read_at, shown):
        """By geometry: arc over radius is the same at the dial and where the limits hold."""
        self.assertAlmostEqual(shown * at_radius(radius, read_at) / radius, shown / read_at, delta=1e-12)

    def test_a_plunger_set_aslant_shows_the_cosine_alone(self):
        """By hand: 60 degrees off the way the tooth goes, 0.05 on the dial is 0.10 at the tooth; the radius counts besides."""
        self.assertAlmostEqual(0.05 * at_radius(None, None, 60.0), 0.10)
        self.assertAlmostEqual(0.05 * at_radius(40.0, 80.0, 60.0), 0.05)


class ChoosingTests(unittest.TestCase):
    @settings(max_examples=150)
    @given(
        st.lists(st.floats(4.02, 4.08), min_size=1, max_size=4),
        st.lists(st.integers(0, 3), min_size=3, max_size=3),
    )
    def test_the_choice_is_the_best_of_all_there_are(self, bare, counts):
        """Second method: every way to share out the stock, by hand."""
        sizes = dict(zip("abc", (1.99, 2.0, 2.01), strict=True))
        there = dict(zip("abc", counts, strict=True))
        needs = [Bare(place=str(n), bare_mm=value) for n, value in enumerate(bare)]
        found = choose(needs, sizes, there, takes=2, wanted_mm=0.05)
        ways = [way for way in itertools.product("abc", repeat=len(bare)) if all(way.count(one) <= there[one] for one in "abc")]
        if not ways:
            self.assertIsNone(found)
            return
        cost = [sum((value - 2 * sizes[one] - 0.05) ** 2 for value, one in zip(bare, way, strict=True)) for way in ways]
        self.assertAlmostEqual(sum((one.gives_mm - 0.05) ** 2 for one in found), min(cost), delta=1e-12)

    def test_a_size_beyond_the_limits_is_taken_only_where_no_other_is_left(self):
        needs = [Bare(place="1", bare_mm=4.06), Bare(place="2", bare_mm=4.06)]
        found = choose(needs, {"a": 2.0, "b": 2.005}, {"a": 1, "b": 1}, takes=2, wanted_mm=0.05, limits_mm=(0.055, 0.065))
        self.assertEqual(sorted(one.size for one in found), ["a", "b"])
        found = choose(needs, {"a": 2.0, "b": 2.005}, {"a": 2, "b": 1}, takes=2, wanted_mm=0.05, limits_mm=(0.055, 0.065))
        self.assertEqual([one.size for one in found], ["a", "a"])

    def test_a_place_is_chosen_for_by_its_own_least_and_most(self):
        """By hand: 0.034 is right for a round bore; one 0.020 out of round has 0.024 where it runs tight: the thinner goes there."""
        needs = [Bare(place="round", bare_mm=4.034), Bare(place="oval", bare_mm=4.034, half_mm=0.010)]
        sizes, limits = {"thick": 2.0, "thin": 1.995}, (0.030, 0.060)
        found = choose(needs, sizes, {"thick": 1, "thin": 1}, takes=2, wanted_mm=0.034, limits_mm=limits)
        self.assertEqual([(one.place, one.size) for one in found], [("round", "thick"), ("oval", "thin")])
        self.assertAlmostEqual(found[1].ends_mm[0], 0.034, delta=1e-12)


class ChamberTests(unittest.TestCase):
    def test_a_worked_example(self):
        """By hand: bore 86, stroke 86: swept 499.56 cm³. 0.2 mm below the deck 1.162, gasket 1.2 x 88 hole 7.299, head 50: 58.460."""
        gasket = HeadGasket(id="a", squeezed_mm=1.2, bore_mm=88)
        made = chamber_figures(Chamber(head_cm3=50), gasket, bore_mm=86, stroke_mm=86, proud_mm=-0.2)
        self.assertAlmostEqual(made.clearance_cm3, 58.460, delta=0.001)
        self.assertAlmostEqual(made.ratio, 9.545, delta=0.001)

    def test_signs_a_proud_piston_a_dome_and_a_skimmed_head_all_raise_the_ratio(self):
        """Property."""
        gasket = HeadGasket(id="a", squeezed_mm=1.2)
        bore = {"bore_mm": 86, "stroke_mm": 86}
        plain = chamber_figures(Chamber(head_cm3=50), gasket, **bore, proud_mm=0).ratio
        for higher in (
            chamber_figures(Chamber(head_cm3=50), gasket, **bore, proud_mm=0.3),
            chamber_figures(Chamber(head_cm3=50, piston_cm3=-4), gasket, **bore, proud_mm=0),
            chamber_figures(Chamber(head_cm3=50), gasket, **bore, proud_mm=0, skimmed_mm=0.2),
        ):
            self.assertGreater(higher.ratio, plain)

    def test_a_chamber_with_nothing_left_is_refused(self):
        with self.assertRaises(GeometryError) as refused:
            chamber_figures(Chamber(head_cm3=5, piston_cm3=-30), HeadGasket(id="a", squeezed_mm=1), bore_mm=86, stroke_mm=86, proud_mm=0)
        self.assertEqual(refused.exception.field, "head_cm3")

    def test_the_thinnest_gasket_that_keeps_every_pistons_limit(self):
        """Common practice: one gasket for all, by the highest piston."""
        row = [HeadGasket(id=str(n), squeezed_mm=1.1 + n / 10, most_proud_mm=0.3 + n / 10) for n in (1, 2, 3)]
        for highest, gasket in ((0.38, "1"), (0.4, "1"), (0.41, "2"), (0.6, "3"), (0.61, None)):
            with self.subTest(highest):
                proud = {name: Estimate(value=value, u=0.0) for name, value in (("a", 0.2), ("b", highest))}
                self.assertEqual(choose_gasket(row, proud).gasket, gasket)

    def test_a_piston_nearer_to_a_gaskets_limit_than_can_be_told_is_said(self):
        """By hand: 0.49 read to within 0.02 may be 0.51, which the gasket for 0.50 is not for."""
        row = [HeadGasket(id=name, squeezed_mm=mm, most_proud_mm=proud) for name, mm, proud in (("1", 1.2, 0.5), ("2", 1.3, 0.6))]
        sure, unsure = (choose_gasket(row, {"a": Estimate(value=0.49, u=u)}) for u in (0.004, 0.01))
        self.assertNotIn("safe side", sure.sentence)
        self.assertIn("nearer to the 0.5 mm it is for than can be told: gasket 2 is on the safe side", unsure.sentence)


class SlipTests(unittest.TestCase):
    def test_what_was_meant_is_offered(self):
        """Common practice: a point slips by one place; inches are typed for millimetres."""
        for read, nominal, meant in ((5.796, 58.0, "57.96?"), (579.6, 58.0, "57.96?"), (2.2819, 58.0, "57.9603 (inches)")):
            with self.subTest(read):
                slip = size_slip(read, nominal)
                self.assertTrue(slip.cannot_be)
                self.assertIn(f"did you mean {meant}", slip.sentence)

    def test_a_gap_is_looked_at_by_its_limits(self):
        self.assertIn("did you mean 0.32?", size_slip(3.2, None, (0.25, 0.45)).sentence)
        self.assertIsNone(size_slip(0.6, None, (0.25, 0.45)))
        self.assertIsNone(size_slip(3.2, None))

    @given(st.floats(0.995, 1.005))
    def test_whatever_lies_near_the_nominal_size_is_no_slip(self, share):
        """Property."""
        self.assertIsNone(size_slip(58.0 * share, 58.0))

    def test_temperatures(self):
        self.assertEqual([temperature_slip(one) for one in (-20, 21.5, 60)], ["", "", ""])
        self.assertIn("did you mean 21.5?", temperature_slip(215))
        self.assertIn("°F", temperature_slip(70))


class SheetTests(unittest.TestCase):
    spots = tuple(
        FitSpot(place=f"main {n}", side=side, plane=plane, axis="up")
        for side in ("outer", "inner")
        for n in (1, 2)
        for plane in ("front", "rear")
    )
    called = {"outer": "bore", "inner": "journal"}

    def test_a_table_and_a_list_say_the_same(self):
        """Second method: the same figures as a row a place and as a row a reading, with tabs and with semicolons."""
        table = "Place\tBore front up\tbore REAR up\nmain 1\t58,041\t58.042\nmain 2\t58.040\t"
        listed = "place;side;plane;axis;reading\nmain 1;bore;front;up;58,041\nmain 1;bore;rear;up;58.042\nmain 2;bore;front;up;58.040"
        read = [[(row.spot, row.text) for row in read_sheet(text, self.spots, self.called)] for text in (table, listed)]
        self.assertEqual(read[0], read[1])
        self.assertEqual([spot.place for spot, _ in read[0]], ["main 1", "main 1", "main 2"])

    def test_what_is_not_understood_is_said_line_by_line(self):
        text = "place,bore front up,valve\nmain 1,58.O4,3\nmain 7,58.04,"
        self.assertEqual([(row.line, row.spot) for row in read_sheet(text, self.spots, self.called)], [(2, None), (2, None), (3, None)])
        why = [row.why_not for row in read_sheet(text, self.spots, self.called)]
        self.assertIn("main 1, bore front up", why[0])
        self.assertIn("“valve” is no spot", why[1])
        self.assertIn("no place called “main 7”", why[2])

    @given(st.text(max_size=400))
    def test_no_text_is_more_than_refused(self, text):
        """Property: whatever is pasted, every row is a spot of the fit or has its sentence."""
        for row in read_sheet(text, self.spots, self.called):
            self.assertTrue((row.spot in self.spots) != bool(row.why_not))
