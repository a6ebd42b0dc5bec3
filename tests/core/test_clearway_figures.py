"""Valves against pistons and each other: by hand, against shapely, against closed forms, and what springs do to a camshaft."""

import math
import random
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from shapely import LineString, Polygon
from shapely.affinity import translate

from gurvo_core.clearway.at_timing import at_timing, words_at_timing
from gurvo_core.clearway.gaps import Disc, heads_apart_mm, piston_gap_mm
from gurvo_core.clearway.ground import CYCLE, Ground, Spread
from gurvo_core.clearway.least import drop_at, lift_at
from gurvo_core.clearway.rest import load_of
from gurvo_core.clearway.spare import spare_of
from gurvo_core.engine import EngineDocument
from gurvo_core.reading import read_document
from tests.engines import CODES, family, family_copy

PLACES = np.arange(CYCLE)


def single(**changes) -> EngineDocument:
    """One upright cylinder whose one intake valve sits on the bore's axis; a sine lobe of 8 mm, open for 120 cam degrees."""
    data = family_copy("wick-1")
    data["valves"][0].update({"angle_deg": 0.0, "across_mm": 0.0, "to_piston_mm": 3.0} | changes)
    cam_deg = list(range(-60, 61))
    lift = [4.0 * (1 + math.cos(math.pi * at / 60)) for at in cam_deg]
    data["profiles"].append({"kind": "table", "id": "sine", "cam_deg": cam_deg, "lobe_lift_mm": lift})
    data["camshafts"][0]["followers"] = [
        {**one, "ratio": 1.0} if one["valve"] == "intake" else one for one in data["camshafts"][0]["followers"]
    ]
    data["camshafts"][0]["lobes"][0].update({"profile": "sine", "lash_mm": 0.0, "nose_deg": 110.0})
    data["springs"] = [{"valve": valve, "rate_n_mm": 30.0, "preload_n": 200.0} for valve in ("intake", "exhaust")]
    return read_document(data)


def intake(ground):
    return next(one for one in ground.valves if one.valve == "intake")


class PistonTests(TestCase):
    def test_on_the_bores_axis_the_gap_is_what_is_there_at_tdc_and_the_drop_less_the_lift(self):
        """By hand: a valve along the bore."""
        valve = intake(Ground(document=single(), measured={}))
        self.assertEqual(piston_gap_mm([0.0, 10.0, 4.0], [0.0, 2.0, 8.0], valve).tolist(), [3.0, 11.0, -1.0])

    def test_over_a_flat_crown_against_shapely(self):
        """Library: a leaning head is moved along its axis by the gap; it then just touches the crown."""
        valve = intake(Ground(document=single(angle_deg=20.0, pocket_mm=0.0), measured={}))
        leaning = math.radians(20.0)
        opens, across = np.array([-math.sin(leaning), -math.cos(leaning)]), np.array([math.cos(leaning), -math.sin(leaning)])
        radius = valve.head.head_mm / 2
        shut = LineString([across * -radius, across * radius])
        lowest = shut.bounds[1] - 3.0 * math.cos(leaning)  # where the crown is at TDC, three mm along the axis
        for drop, lift in ((0.0, 0.0), (2.0, 1.0), (9.0, 7.5)):
            crown = Polygon([(-99, lowest - drop), (99, lowest - drop), (99, lowest - drop - 50), (-99, lowest - drop - 50)])
            gap = float(piston_gap_mm(drop, lift, valve))
            head = translate(shut, *(opens * (lift + gap)))
            self.assertAlmostEqual(head.distance(crown), 0.0, places=9)
            self.assertAlmostEqual(translate(head, *(opens * -0.5)).distance(crown), 0.5 * math.cos(leaning), places=9)

    def test_a_pocket_parallel_to_the_valve_falls_away_by_the_cosine(self):
        unknown, flat = (intake(Ground(document=single(angle_deg=20.0, **more), measured={})) for more in ({}, {"pocket_mm": 0.0}))
        self.assertAlmostEqual(unknown.falls, math.cos(math.radians(20.0)))
        self.assertAlmostEqual(flat.falls * unknown.falls, 1.0)
        self.assertLess(piston_gap_mm(10.0, 2.0, unknown), piston_gap_mm(10.0, 2.0, flat))  # what is not known is taken as nearer

    def test_a_valve_of_unknown_drop_leaves_its_camshaft_out(self):
        self.assertEqual(Ground(document=single(to_piston_mm=None), measured={}).camshafts, ())
        self.assertEqual(Ground(document=single(), measured={}).camshafts, ("cam",))


class HeadTests(TestCase):
    def test_two_heads_in_one_plane_against_shapely(self):
        """Library: heads seen edge on are lines."""
        draw = random.Random(3)
        met = 0
        for _ in range(60):
            sizes = [(draw.uniform(11, 19), draw.uniform(4, 9), draw.uniform(8, 30), draw.uniform(13, 19)) for _ in range(2)]
            discs = [
                Disc(x=side * x, y=y, z=0.0, angle_deg=side * leaning, radius=radius)
                for side, (x, y, leaning, radius) in zip((1, -1), sizes, strict=True)
            ]
            lifts = [draw.uniform(0, 11) for _ in discs]
            lines = []
            for disc, lift in zip(discs, lifts, strict=True):
                leaning = math.radians(disc.angle_deg)
                middle, across = disc.middle(lift)[:2], np.array([math.cos(leaning), -math.sin(leaning)]) * disc.radius
                lines.append(LineString([middle - across, middle + across]))
            apart = lines[0].distance(lines[1])
            met += apart == 0
            self.assertAlmostEqual(float(heads_apart_mm(*discs, *lifts)), apart, places=9)
        self.assertTrue(5 < met < 55)  # some meet, some do not

    def test_discs_one_above_the_other_and_side_by_side(self):
        """By hand."""
        flat = Disc(x=0.0, y=0.0, z=0.0, angle_deg=0.0, radius=10.0)
        beside = Disc(x=0.0, y=0.0, z=26.0, angle_deg=0.0, radius=12.0)
        self.assertAlmostEqual(float(heads_apart_mm(flat, beside, 3.0, 3.0)), 4.0, places=1)
        self.assertAlmostEqual(float(heads_apart_mm(flat, beside, 6.0, 3.0)), 5.0, places=1)


class GroundTests(TestCase):
    def test_as_the_card_has_it_nothing_meets(self):
        for code in CODES:
            ground = Ground(document=family(code), measured={})
            for cam in ground.camshafts:
                self.assertFalse(ground.piston(cam, "meets")[PLACES, PLACES].any(), (code, cam))
            for pair in ground.meeting:
                self.assertFalse(ground.heads(*pair, "meets")[PLACES, PLACES].any(), (code, pair))

    def test_alike_lobes_on_a_crank_without_offset_give_a_map_that_looks_the_same_from_both_ends(self):
        """Turned back as far as turned on: a symmetric lobe over a piston without offset."""
        data = single().model_dump(mode="json", by_alias=True)
        data["banks"][0]["cranktrain"]["pin_offset_mm"] = 0.0
        for lobe in data["camshafts"][0]["lobes"]:
            lobe.update({"profile": "sine", "lash_mm": 0.0, "nose_deg": 110.0})
        for follower in data["camshafts"][0]["followers"]:
            follower["ratio"] = 1.0
        data["valves"] = [{**data["valves"][0], "valve": valve} for valve in ("intake", "exhaust")]
        data["least_gaps"] = {"intake_mm": 2.0, "exhaust_mm": 2.0}
        ground = Ground(document=read_document(data), measured={})
        mask = ground.piston("cam", "meets")
        # both noses are 110 degrees from the overlap TDC at 360: mirrored about it, intake and exhaust change places
        self.assertTrue(mask.any())
        self.assertTrue(np.array_equal(mask, mask[(720 - PLACES) % CYCLE][:, (720 - PLACES) % CYCLE]))

    def test_the_nearer_something_may_stand_the_more_is_in_the_way(self):
        sure, unsure = (Ground(document=family("teasel-4"), measured={}, spread=spread) for spread in (Spread(), Spread(4, 6)))
        for level in ("meets", "wanted"):
            for cam in sure.camshafts:
                one, other = sure.piston(cam, level), unsure.piston(cam, level)
                self.assertTrue((one <= other).all() and (one != other).any())
        self.assertTrue((sure.piston("intake", "meets") <= sure.piston("intake", "wanted")).all())


class SpringTests(TestCase):
    def test_the_torque_of_a_sine_lobe(self):
        """Closed form: force times the lift's slope over the camshaft's angle."""
        load = load_of(Ground(document=single(), measured={}), "cam")
        for place in (470, 485, 500, 530, 560):
            from_nose = math.radians((place - 470) / 2)
            lift = 4.0 * (1 + math.cos(3 * from_nose))
            slope = -12.0 * math.sin(3 * from_nose)  # mm for a radian
            own = (200.0 + 30.0 * lift) * slope / 1000
            self.assertAlmostEqual(float(load.torque_nm[place]), own, delta=0.01 * abs(own) + 0.01)

    @given(preload=st.floats(50, 400), rate=st.floats(5, 60))
    def test_over_a_whole_turn_springs_give_back_what_they_took(self, preload, rate):
        data = family_copy("quern-4")
        data["springs"] = [{"valve": valve, "rate_n_mm": rate, "preload_n": preload} for valve in ("intake", "exhaust")]
        load = load_of(Ground(document=read_document(data), measured={}), "cam")
        self.assertAlmostEqual(float(load.torque_nm.sum()), 0.0, places=6)
        self.assertGreater(float(np.abs(load.torque_nm).max()), 0.0)

    def test_a_lobe_let_go_on_its_flank_turns_down_it_and_no_further_than_the_springs_carry_it(self):
        load = load_of(Ground(document=single(), measured={}), "cam")
        falling, rising, nose = load.at(520), load.at(420), load.at(470)
        self.assertEqual((falling.stays, falling.way, rising.way, nose.stays), ("snaps", 1, -1, "stays"))
        end = (520 + falling.settles_deg) % CYCLE
        self.assertLess(abs(load.torque_nm[end]), load.rubs_nm[0][end] + 1e-9)
        self.assertGreaterEqual(falling.swings_deg, falling.settles_deg)
        self.assertEqual(falling.loaded, ("intake 1",))

    def test_springs_that_nobody_knows_say_nothing(self):
        data = family_copy("quern-4")
        data["springs"] = []
        self.assertIsNone(load_of(Ground(document=read_document(data), measured={}), "cam"))


class SpareTests(TestCase):
    def test_the_least_gap_of_an_engine_as_timed_against_every_tenth_of_a_degree(self):
        ground = Ground(document=single(), measured={})
        spare = spare_of(ground, "cam", {})
        fine = np.arange(0, CYCLE, 0.1)
        every = [piston_gap_mm(drop_at(ground, 1, fine), lift_at(ground, one, fine), one) - one.least_mm for one in ground.valves]
        self.assertAlmostEqual(spare.least.spare_mm, float(np.min(every)), places=2)

    def test_moved_as_far_as_it_may_be_nothing_is_to_spare(self):
        document = family("corrie-v6")
        ground = Ground(document=document, measured={})
        spare = spare_of(ground, "intake-a", {})
        self.assertIsNotNone(spare.advance_deg)
        there = spare_of(ground, "intake-a", {"intake-a": spare.advance_deg})
        beyond = spare_of(ground, "intake-a", {"intake-a": spare.advance_deg + 1.0})
        self.assertGreaterEqual(there.least.spare_mm, 0.0)
        self.assertLess(beyond.least.spare_mm, 0.0)
        self.assertGreater(spare.least.spare_mm, there.least.spare_mm)

    def test_a_phaser_leaves_what_is_left_anywhere_between_its_stops(self):
        """Against the same camshaft with no phaser, moved by hand through all of its travel."""
        with_one, data = family("corrie-v6"), family_copy("corrie-v6")
        for cam in data["camshafts"]:
            cam["phaser"] = None
        bare = Ground(document=read_document(data), measured={})
        for rests, way in (("retarded", 1), ("advanced", -1)):
            cams = [
                cam.model_copy(update={"phaser": cam.phaser.model_copy(update={"rests": rests, "travel_deg": 30.0})}) if cam.phaser else cam
                for cam in with_one.camshafts
            ]
            document = with_one.model_copy(update={"camshafts": tuple(cams)})
            moved = [spare_of(bare, "intake-a", {"intake-a": way * off / 2}).least.spare_mm for off in range(61)]
            spare = spare_of(Ground(document=document, measured={}), "intake-a", {})
            self.assertAlmostEqual(spare.least.spare_mm, min(moved), places=6)
            self.assertAlmostEqual(abs(spare.least.phased_deg), int(np.argmin(moved)) / 2)
            said = words_at_timing(at_timing(document, "intake-a", 0.0))
            self.assertEqual("its phaser 30° advanced" in said, rests == "retarded")
        self.assertNotIn("other stop", words_at_timing(at_timing(with_one, "intake-a", 0.0)))
        unknown = family_copy("corrie-v6")
        unknown["camshafts"][0]["phaser"]["travel_deg"] = None
        self.assertIn("other stop lies is not known", words_at_timing(at_timing(read_document(unknown), "intake-a", 0.0)))

    def test_at_the_timing_it_is_found_at_the_same_is_left(self):
        document = family("teasel-4")
        for advance_deg in (-12.0, 0.0, 3.5):
            left = at_timing(document, "intake", advance_deg)
            spare = spare_of(Ground(document=document, measured={}), "intake", {"intake": advance_deg})
            self.assertAlmostEqual(left.least.gap.value, spare.least.gap.value, places=6)
            self.assertEqual(left.least.words, spare.least.words)
        self.assertIn("it may still go 4° earlier", words_at_timing(at_timing(document, "intake", 0.0)))
        self.assertIn("less than the", words_at_timing(at_timing(document, "intake", 20.0)))
        self.assertIsNone(at_timing(family("mallow-2"), "cam", 0.0))
