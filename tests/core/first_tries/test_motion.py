"""What a reader would try first of the functions of ``motion``, each held to its answer."""

import unittest

from gurvo_core.engine.camshaft import Camshaft, Lobe
from gurvo_core.engine.profiles import LiftProfile, PolynomialProfile
from gurvo_core.motion.clock import CamPlace, advance_of, is_told, lobe_clock_deg, mark_clock_deg, nose_crank_deg
from gurvo_core.motion.frames import cycle_frames, frames_at, slider_of, timed_cylinders
from gurvo_core.motion.laid import check_counts, laid_words, shaft_name, teeth_words
from gurvo_core.motion.lobe import lobe_curve, max_valve_lift_mm, ratio_and_lash, valve_lift_mm
from gurvo_core.motion.polynomial import polynomial_lift_mm
from gurvo_core.motion.slack import Tie, slack_after, turned_by
from gurvo_core.motion.strokes import at_dead_centre, cylinder_words, headline
from gurvo_core.motion.twin import snapshot_at, twin_frames, twin_words, words_at
from tests.engines import family, quern_4


class FirstTriesTests(unittest.TestCase):
    def test_advance_of(self):
        self.assertEqual(advance_of(quern_4().camshafts[0], CamPlace(advance_deg=2.0)), 2.0)

    def test_mark_clock_deg(self):
        engine = quern_4()
        crank_mark = next(mark for mark in engine.drive.marks if mark.wheel == "crank-sprocket")
        self.assertEqual(float(mark_clock_deg(engine, crank_mark, 90.0, {}) - mark_clock_deg(engine, crank_mark, 0.0, {})) % 360, 90.0)

    def test_nose_crank_deg(self):
        self.assertEqual(nose_crank_deg(quern_4(), quern_4().camshafts[0].lobes[0]), 467.0)

    def test_is_told(self):
        self.assertTrue(is_told(quern_4(), quern_4().camshafts[0], quern_4().camshafts[0].lobes[0]))

    def test_lobe_clock_deg(self):
        engine = quern_4()
        cam = engine.camshafts[0]
        self.assertTrue(float(lobe_clock_deg(engine, cam, cam.lobes[0], 467.0, None)) == cam.follower("intake").clock_deg)

    def test_slider_of(self):
        self.assertEqual(slider_of(quern_4()).throw_mm, 43.0)

    def test_timed_cylinders(self):
        self.assertEqual(timed_cylinders(quern_4()), (1, 2, 3, 4))

    def test_cycle_frames(self):
        self.assertEqual(cycle_frames(quern_4()).drop_mm.shape, (4, 720))

    def test_frames_at(self):
        self.assertEqual(frames_at(quern_4(), [0.0], {}).drop_mm[0].tolist(), [0.0])

    def test_check_counts(self):
        self.assertEqual(
            list(check_counts(family("tarn-f4").drive.stages[0], {"line-crank": 63.25})),
            [("line-crank", "a belt is counted in whole or half teeth; 63.25 is neither")],
        )

    def test_shaft_name(self):
        self.assertEqual(shaft_name(family("corrie-v6"), "intake-a"), "intake cam A")

    def test_teeth_words(self):
        self.assertEqual(teeth_words(family("tarn-f4").drive.stages[0], -7.5, 15.0), "half a tooth")

    def test_laid_words(self):
        self.assertEqual(laid_words(quern_4(), {"cam": -17.14}), "once the slack is taken up, camshaft would stand 17.1° of the crank late")

    def test_lobe_curve(self):
        curve = lobe_curve(LiftProfile(id="p", cam_deg=(-60, -30, 0, 30, 60), lobe_lift_mm=(0, 3, 6, 3, 0)))
        self.assertEqual((curve.cam_deg[0], max(curve.lobe_lift_mm)), (-60.0, 6.0))

    def test_ratio_and_lash(self):
        cam = quern_4().camshafts[0]
        self.assertEqual(ratio_and_lash(cam, cam.lobes[0]), (1.5, 0.25))

    def test_valve_lift_mm(self):
        table = LiftProfile(id="p", cam_deg=(-60, -30, 0, 30, 60), lobe_lift_mm=(0, 3, 6, 3, 0))
        lobe = Lobe(cylinder=1, valve="intake", profile="p", nose_deg=108, lash_mm=0.5)
        shaft = Camshaft(id="c", name="c", followers=({"valve": "intake", "kind": "rocker", "clock_deg": 0, "ratio": 1.5},), lobes=(lobe,))
        self.assertEqual(valve_lift_mm([0, 90], table, shaft, lobe).tolist(), [8.5, 0.0])

    def test_max_valve_lift_mm(self):
        table = LiftProfile(id="p", cam_deg=(-60, -30, 0, 30, 60), lobe_lift_mm=(0, 3, 6, 3, 0))
        lobe = Lobe(cylinder=1, valve="intake", profile="p", nose_deg=108, lash_mm=0)
        shaft = Camshaft(id="c", name="c", followers=({"valve": "intake", "kind": "bucket", "clock_deg": 180, "ratio": 1},), lobes=(lobe,))
        self.assertEqual(max_valve_lift_mm(table, shaft, lobe), 6.0)

    def test_polynomial_lift_mm(self):
        side = {"law": "4-5-6-7", "cam_deg": 60, "ramp_mm": 0.2, "ramp_cam_deg": 15}
        lobe = PolynomialProfile(kind="polynomial", id="p", lobe_lift_mm=8, opening=side, closing=side)
        self.assertEqual(polynomial_lift_mm([-75, -60, 0, 60], lobe).round(6).tolist(), [0.0, 0.2, 8.0, 0.2])

    def test_turned_by(self):
        run = Tie(begins="cam", ends="crank", slack_deg=18.0)
        self.assertEqual(turned_by([run], "crank", [-9, 9, 27])["cam"].tolist(), [0.0, 0.0, 9.0])

    def test_slack_after(self):
        run = Tie(begins="cam", ends="crank", slack_deg=18.0)
        self.assertEqual(slack_after(run, {"crank": 10.0}), 8.0)

    def test_cylinder_words(self):
        self.assertEqual(
            (cylinder_words(quern_4(), 1, 690.0), cylinder_words(quern_4(), 4, 0.0)), ("30° before firing TDC", "at overlap TDC")
        )

    def test_at_dead_centre(self):
        self.assertEqual(at_dead_centre(quern_4(), 540.0), [(2, "firing"), (3, "overlap")])

    def test_headline(self):
        self.assertEqual(
            (headline(quern_4(), 690.0), headline(quern_4(), 180.0)),
            ("cylinder 1 30° before firing TDC", "cylinder 3 at firing TDC, cylinder 2 at overlap TDC"),
        )

    def test_words_at(self):
        self.assertEqual(words_at(quern_4(), 690.0, {}).split(";")[0], "cylinder 1 30° before firing TDC")

    def test_twin_frames(self):
        frames = twin_frames(quern_4())
        self.assertEqual((len(frames.cylinders[0].drop_um), frames.cylinders[0].drop_um[0]), (720, 0))

    def test_twin_words(self):
        self.assertEqual(twin_words(quern_4())[30].split(";")[0], "cylinder 1 30° after firing TDC")

    def test_snapshot_at(self):
        self.assertEqual(snapshot_at(quern_4(), 720.0).at_tdc, ["cylinder 1 firing", "cylinder 4 overlap"])
