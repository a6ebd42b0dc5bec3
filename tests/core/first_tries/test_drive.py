"""What a reader would try first of the functions of ``drive``, each held to its answer."""

import unittest

from gurvo_core.drive.changed import pulled_change_mm
from gurvo_core.drive.drawing import draw_drive
from gurvo_core.drive.faults import drive_faults
from gurvo_core.drive.lay import Around, LayAsked, lay_view
from gurvo_core.drive.path import circles_of, loop_path
from gurvo_core.drive.rig import bare_path, excess_mm, laid_rig, mm_a_crank_deg, ties_with
from gurvo_core.drive.sketch import is_to_scale, laid_out, stage_is_known
from gurvo_core.drive.span import elongation_percent
from gurvo_core.drive.twin import places_with_phasers, show_twin
from gurvo_core.drive.what_if import ChangedAsked, changed_view
from gurvo_core.drive.workings import DriveAsked, drive_workings
from tests.engines import family, quern_4


class FirstTriesTests(unittest.TestCase):
    def test_pulled_change_mm(self):
        path = loop_path(quern_4(), quern_4().drive.stages[0])
        self.assertEqual(pulled_change_mm(path, path, "cam-sprocket"), 0.0)

    def test_draw_drive(self):
        self.assertEqual([wheel.id for wheel in draw_drive(quern_4()).wheels], ["crank-sprocket", "cam-sprocket"])

    def test_drive_faults(self):
        self.assertEqual(drive_faults(quern_4()), [])

    def test_lay_view(self):
        engine = family("teasel-4")
        self.assertEqual(
            lay_view(engine, engine.drive.stages[0], LayAsked(counted={"line-intake": "60"}), Around()).off_words,
            "intake cam late by one tooth",
        )

    def test_circles_of(self):
        self.assertEqual([circle.clockwise for circle in circles_of(quern_4(), quern_4().drive.stages[0])], [True, True])

    def test_loop_path(self):
        path = loop_path(quern_4(), quern_4().drive.stages[0])
        self.assertEqual(round(sum(wrap.wrap_deg for wrap in path.wraps), 6), 360.0)

    def test_mm_a_crank_deg(self):
        # 9.525 mm, 21 teeth
        self.assertEqual(round(mm_a_crank_deg(quern_4(), quern_4().drive.stages[0]), 4), 0.5556)

    def test_bare_path(self):
        engine = family("sorrel-f4")
        loop = engine.drive.stages[0]
        self.assertEqual(len(bare_path(engine, loop, circles_of(engine, loop)).runs), 2)

    def test_excess_mm(self):
        self.assertEqual(round(excess_mm(quern_4(), quern_4().drive.stages[0]), 1), 1.9)

    def test_laid_rig(self):
        engine = family("tarn-f4")
        rig = laid_rig(engine, engine.drive.stages[0], {"line-crank": 62.5}, slack_left=True)
        self.assertEqual((rig.now_deg["cam-left"], rig.after_deg["cam-left"]), (0.0, -15.0))

    def test_ties_with(self):
        engine = family("corrie-v6")
        loop = engine.drive.stages[0]
        self.assertEqual(len(ties_with(engine, laid_rig(engine, loop, {}, slack_left=False), loop, {"secondary-a"})), 4)

    def test_stage_is_known(self):
        self.assertTrue(stage_is_known(quern_4(), quern_4().drive.stages[0]))

    def test_is_to_scale(self):
        self.assertTrue(is_to_scale(quern_4()))

    def test_laid_out(self):
        engine = quern_4()
        self.assertTrue(laid_out(engine) is engine)

    def test_elongation_percent(self):
        self.assertEqual(round(elongation_percent(153.2, 16, 9.525), 2), 0.52)

    def test_places_with_phasers(self):
        self.assertEqual(places_with_phasers(quern_4(), {}, "other stop")["cam"].phaser_off_deg, 0.0)

    def test_show_twin(self):
        self.assertEqual(show_twin(quern_4(), {}).counted_from, "firing TDC of cylinder 1")

    def test_changed_view(self):
        self.assertEqual(
            [cam.words for cam in changed_view(family("sorrel-f4"), ChangedAsked(skimmed_mm=0.5)).cams], ["1.0° late", "1.0° late"]
        )

    def test_drive_workings(self):
        self.assertEqual([line.value for line in drive_workings(DriveAsked(span_mm=200, mass_g_m=100, tension_n=400))], ["158.1 Hz"])
