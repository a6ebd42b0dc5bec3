"""Traces of made-up bolts whose snug angle, slope and yield are known; bad ones are said; long ones lose no peak."""

import random
import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from gurvo_core.errors import ReadingError
from gurvo_core.joints.intake import TraceIntake
from gurvo_core.joints.job.kept import keep_trace, open_trace, read_csv_head
from gurvo_core.joints.live import PullWatch, RestWatch, SweepWatch
from gurvo_core.joints.trace import Trace, analyse, clean, thin
from standins.joint import SNUG_DEG, PracticeBolt


def pulled(kind, *, start_nm=0.0, to_nm=65.0, to_deg=None, points=400, seed=3):
    """A practice bolt pulled to a torque, or by an angle."""
    bolt, chance = PracticeBolt(kind, start_nm), random.Random(seed)
    end = to_deg or next(deg / 2 for deg in range(1, 1440) if bolt.torque_nm(deg / 2, random.Random(1)) >= to_nm)
    angle = np.linspace(0, end, points)
    return Trace(angle, np.array([bolt.torque_nm(deg, chance) for deg in angle]))


class AnalysisTests(unittest.TestCase):
    def test_snug_and_slope_of_a_sound_bolt(self):
        """By hand: the practice bolt is snug at 30 degrees and gains 0.75 N·m a degree from there."""
        for seed in range(8):
            found = analyse(pulled("normal", seed=seed))
            self.assertAlmostEqual(found.snug_deg, SNUG_DEG, delta=3)
            self.assertAlmostEqual(found.slope_nm_deg, 0.75, delta=0.03)
            self.assertEqual((found.yield_deg, found.flags), (None, ()))

    def test_yield_is_where_the_slope_has_dropped(self):
        """By hand: it bends 45 degrees after snug, at 75."""
        found = analyse(pulled("yielding"))
        self.assertAlmostEqual(found.yield_deg, SNUG_DEG + 45, delta=4)

    def test_each_fault_is_called_by_its_name_and_no_other(self):
        for kind, word in (("galled", "galled"), ("bottoming", "bottoming"), ("dry", "stick-slip"), ("yielding", "yields")):
            for seed in range(5):
                with self.subTest(kind=kind, seed=seed):
                    flags = analyse(pulled(kind, seed=seed)).flags
                    self.assertEqual([word in flag for flag in flags], [True])

    def test_a_bolt_that_was_tight_before_is_no_fault(self):
        for seed in range(5):
            self.assertEqual(analyse(pulled("normal", start_nm=64, to_deg=90, seed=seed)).flags, ())

    @settings(max_examples=40)
    @given(st.floats(0, 2000), st.floats(0, 9), st.booleans(), st.integers(0, 99))
    def test_however_long_and_stiffly_it_ran_down(self, run_deg, prevailing_nm, yields, seed):
        """Second method: a made-up bolt that runs down at a prevailing torque, gains 1 N·m a degree, from 50 on a tenth."""
        angle = np.arange(0, run_deg + 75, 0.25)
        clamped = np.maximum(0, angle - run_deg)
        torque = prevailing_nm + np.where(clamped < 50, clamped, 50 + 0.1 * (clamped - 50) if yields else clamped)
        found = analyse(Trace(angle, torque + np.random.default_rng(seed).normal(0, 0.15, angle.size)))
        if prevailing_nm == 0 or run_deg > 30:  # what it ran down at is not in it else
            self.assertAlmostEqual(found.snug_deg, run_deg, delta=1.5)
        self.assertEqual(found.yield_deg is not None, yields)
        if found.yield_deg is not None:
            self.assertAlmostEqual(found.yield_deg, run_deg + 50, delta=4)
        self.assertEqual([flag.split(" ")[0] for flag in found.flags], ["yields"] * yields)

    def test_few_readings_are_said_to_be_few(self):
        """By hand: a reading every 15 degrees: five from snug to the top of a pull of 75."""
        angle = np.arange(0, 720 + 76, 15.0)
        flags = analyse(Trace(angle, np.maximum(0.5, angle - 720))).flags
        self.assertEqual(flags, ("only 5 readings from snug to the top: a yield between them would not be seen",))

    def test_work_is_the_area_under_it(self):
        """By hand: 10 N·m over a quarter turn is 10 pi / 2 joules."""
        found = analyse(Trace(np.linspace(0, 90, 500), np.full(500, 10.0)))
        self.assertAlmostEqual(found.work_j, 10 * np.pi / 2, delta=1e-9)


class BadTraceTests(unittest.TestCase):
    def refused(self, words, angle, torque):
        with self.assertRaisesRegex(ReadingError, words):
            analyse(clean(angle, torque)[0])

    def test_what_is_no_trace_is_refused(self):
        up = np.arange(20.0)
        self.refused("at least 8", up[:5], up[:5])
        self.refused("angle falls", up[::-1], up)
        self.refused("as many angles as torques", up, up[:19])
        self.refused("above 0", up, -up)
        self.refused("ore than twenty turns", up * 1000, up)

    def test_a_gap_and_what_is_no_number_are_said(self):
        angle = np.concatenate([np.arange(30.0), np.arange(60.0, 90.0)])
        torque = angle / 2
        torque[3] = np.nan
        trace, gaps = clean(angle, torque)
        self.assertEqual(trace.angle_deg.size, 59)
        self.assertIn("no number", gaps[0].sentence)
        self.assertIn("from 29° to 60°", gaps[1].sentence)

    def test_a_packed_trace_that_was_tampered_with(self):
        kept = keep_trace(pulled("normal"))
        for change in ({"packed": kept.packed[:-8]}, {"points": kept.points + 1}, {"packed": "AAAA"}):
            with self.subTest(change=change), self.assertRaises(ReadingError):
                open_trace(kept.model_copy(update=change))


class KeepingTests(unittest.TestCase):
    @given(st.integers(10, 30_000), st.integers(0, 29_999), st.integers(20, 2000))
    def test_thinning_keeps_the_peak_and_both_ends(self, count, at, most):
        """Property: wherever the peak is, however far it is thinned."""
        torque = np.sin(np.arange(count) / 50) + 2
        torque[at % count] = 99
        small = thin(Trace(np.arange(count, dtype=float), torque), most)
        self.assertEqual(small.torque_nm.max(), 99)
        self.assertEqual((small.angle_deg[0], small.angle_deg[-1]), (0, count - 1))
        self.assertLessEqual(small.angle_deg.size, max(most, 4) + 8)

    @given(st.lists(st.floats(0, 4000), min_size=8, max_size=300))
    def test_what_is_kept_comes_back(self, torques):
        """Property: to a tenth of a degree and a hundredth of a newton metre."""
        trace = Trace(np.arange(len(torques)) * 0.3, np.array(torques))
        back = open_trace(keep_trace(trace))
        np.testing.assert_allclose(back.angle_deg, trace.angle_deg, atol=0.0501)
        np.testing.assert_allclose(back.torque_nm, trace.torque_nm, atol=0.00501)

    def test_a_file_in_pieces_is_the_file_at_once(self):
        trace = pulled("bottoming", points=30_000)
        text = "angle deg;torque Nm\n" + "\n".join(f"{a:.4f};{t:.4f}" for a, t in zip(trace.angle_deg, trace.torque_nm, strict=True))
        text = text.replace(".", ",").replace("\n9", "\noops;9\n9", 1)
        delimiter, angle, torque, has_names = read_csv_head(text[:400].splitlines()[:3])
        intake = TraceIntake(delimiter=delimiter, angle=angle, torque=torque, has_names=has_names)
        for at in range(0, len(text), 7001):
            intake.feed(text[at : at + 7001], is_last=at + 7001 >= len(text))
        read, gaps = intake.trace()
        self.assertEqual((intake.rows, intake.bad), (30_001, 1))
        self.assertIn("1 reading is no number", gaps[0].sentence)
        self.assertAlmostEqual(read.torque_nm.max(), trace.torque_nm.max(), delta=1e-4)
        self.assertEqual(analyse(read).flags, analyse(trace).flags)

    def test_a_table_whose_columns_nobody_can_tell(self):
        for head, words in (["a;b", "hich column"], ["nothing here", "two columns"], ["", "empty"]):
            with self.subTest(head=head), self.assertRaisesRegex(ReadingError, words):
                read_csv_head([head])


class LiveTests(unittest.TestCase):
    def test_a_pull_is_seen_from_its_beginning_to_letting_go(self):
        trace, watch = pulled("normal", points=120), PullWatch()
        seen = [watch.feed(a, t) for a, t in zip(trace.angle_deg, trace.torque_nm, strict=True)]
        self.assertEqual(set(seen), {None})
        ended = [watch.feed(trace.angle_deg[-1] - back, 60 - 12 * back) for back in range(1, 5)]
        pull = next(filter(None, ended))
        self.assertAlmostEqual(pull.end_nm, trace.torque_nm[-3:].max(), delta=0.6)
        self.assertAlmostEqual(pull.trace.angle_deg[-1], trace.angle_deg[-1], delta=1e-9)

    def test_a_touch_is_no_pull(self):
        watch = PullWatch()
        self.assertEqual({watch.feed(0, torque) for torque in (0, 1.2, 1.5, 1.1, 0.2, 0)}, {None})

    def test_a_figure_comes_to_rest_once(self):
        watch = RestWatch(0.01)
        moving = [watch.feed(n / 60, n * 0.05) for n in range(60)]
        resting = [watch.feed(1 + n / 60, 3.0) for n in range(120)]
        self.assertEqual((sum(moving), sum(resting)), (0, 1))

    def test_a_sweep_is_kept_every_few_degrees(self):
        watch = SweepWatch()
        self.assertEqual(sum(watch.feed(n / 10) for n in range(301)), 11)
