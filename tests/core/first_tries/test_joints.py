"""What a reader would try first of the functions of ``joints``, each held to its answer."""

import unittest

import numpy
import numpy as np

from gurvo_core.engine.joint import Joint, JointStage
from gurvo_core.joints.faults import joint_faults
from gurvo_core.joints.job.book import book_of
from gurvo_core.joints.job.entries import JointReady, Pull
from gurvo_core.joints.job.figures import per_set_of, pull_si, pulls_of, typed_angle_deg, typed_torque_nm
from gurvo_core.joints.job.judged import judge_joint
from gurvo_core.joints.job.kept import keep_trace, open_trace, read_csv_head
from gurvo_core.joints.job.said import about_joint, torque_in, window_words
from gurvo_core.joints.job.state import begin_joints, next_item
from gurvo_core.joints.job.traces import trace_lines
from gurvo_core.joints.judge import Window, outside
from gurvo_core.joints.meaning import BoltFacts, lubrication_warning, meaning_of
from gurvo_core.joints.preload import seat_of
from gurvo_core.joints.sequence import Item, draw_passes, figures_of, loaded_cylinders, spots_of
from gurvo_core.joints.stiffness import preload_by_angle_n
from gurvo_core.joints.thread import read_thread
from gurvo_core.joints.trace import Trace, clean, thin
from gurvo_core.joints.workings import BoltAsked, workings_of
from gurvo_core.joints.wrench import Quoted, disagreement, may_be_rounded
from gurvo_core.ledger.entry import Typed
from tests.engines import quern_4


class FirstTriesTests(unittest.TestCase):
    def test_joint_faults(self):
        self.assertEqual(joint_faults(quern_4()), [])

    def test_book_of(self):
        self.assertEqual(dict(book_of(quern_4()).steps), {})

    def test_typed_torque_nm(self):
        self.assertEqual(round(typed_torque_nm(Typed(text="50", unit="lbf·ft")), 2), 67.79)

    def test_typed_angle_deg(self):
        self.assertEqual(typed_angle_deg("90"), 90.0)

    def test_per_set_of(self):
        self.assertEqual(per_set_of(JointReady(kind="joint_ready", step="x", threads="dry", lever_mm=400, extension_mm=100)), 1.25)

    def test_pull_si(self):
        self.assertEqual(pull_si(1.0, Pull(kind="pull", step="x", stage=1, fastener="1", angle="90")), {"angle_deg": 90.0})

    def test_pulls_of(self):
        self.assertEqual(pulls_of(book_of(quern_4()), JointReady(kind="joint_ready", step="x", threads="dry")), [])

    def test_judge_joint(self):
        self.assertEqual(judge_joint(None, {}), ())

    def test_keep_trace(self):
        kept = keep_trace(Trace(numpy.arange(5.0), numpy.arange(5.0) * 2))
        self.assertEqual((kept.points, float(open_trace(kept).torque_nm[-1])), (5, 8.0))

    def test_read_csv_head(self):
        self.assertEqual(read_csv_head(["time;torque Nm;angle deg", "0;1,5;2"]), (";", 2, 1, True))

    def test_torque_in(self):
        self.assertEqual([f"{one.text} {one.unit}" for one in torque_in(65)], ["65 N·m", "48 lbf·ft", "575 lbf·in"])

    def test_window_words(self):
        self.assertEqual((window_words(Window(85, 95), "°"), window_words(Window(60, None), " N·m")), ("85 to 95°", "at least 60 N·m"))

    def test_about_joint(self):
        self.assertEqual(
            about_joint(Joint(id="x", name="Nuts", fasteners=4, thread="M8x1.25", hand="left", thread_state="oiled")),
            ["4 × M8x1.25", "left-hand thread", "threads oiled, heads oiled"],
        )
        for count, said in ((1, "one fastener"), (2, "2 × fasteners")):
            self.assertEqual(about_joint(Joint(id="x", name="Nuts", fasteners=count))[0], said)

    def test_begin_joints(self):
        self.assertEqual(dict(begin_joints(quern_4()).pulls), {})

    def test_next_item(self):
        self.assertTrue(next_item(begin_joints(quern_4()), "gone") is None)

    def test_trace_lines(self):
        self.assertEqual(trace_lines(begin_joints(quern_4()), "gone", lambda seq: None), [])

    def test_outside(self):
        self.assertEqual(outside(96, Window(85, 95)), "high")

    def test_meaning_of(self):
        m10 = read_thread("M10")
        bolt = BoltFacts(thread=m10, seat=seat_of(m10), property_class="8.8", thread_state="oiled", head_state="oiled")
        self.assertEqual(round(meaning_of(45, bolt).combined_share.most, 2), 1.17)

    def test_lubrication_warning(self):
        m10 = read_thread("M10")
        bolt = BoltFacts(thread=m10, seat=seat_of(m10), property_class="8.8", thread_state="dry", head_state="dry")
        self.assertEqual(
            lubrication_warning(45, bolt, "oiled"),
            "the figure is for dry threads; oiled the same torque would pull about 50 % more: clean them as the book has it",
        )

    def test_spots_of(self):
        self.assertEqual(
            [spot.id for spot in spots_of(Joint(id="x", name="Nuts", fasteners=4, pattern={"kind": "circle", "across_mm": 90}))],
            ["1", "2", "3", "4"],
        )

    def test_loaded_cylinders(self):
        self.assertEqual(loaded_cylinders(quern_4(), quern_4().joints[0]), {})

    def test_draw_passes(self):
        stage = JointStage(does="draw_down", draw={"turn_deg": 180, "gap_mm": 2.2})
        self.assertEqual(draw_passes(quern_4(), Joint(id="x", name="Caps", thread="M6x1", stages=(stage,)), stage), 5)

    def test_figures_of(self):
        joint = Joint(id="x", name="Nuts", thread="M8", property_class="8.8", thread_state="oiled", stages=(JointStage(does="torque"),))
        found = figures_of(joint, Item(stage=1, turn=1, fastener="1"))
        self.assertEqual((found.torque_nm, found.is_generic), (21.0, True))

    def test_preload_by_angle_n(self):
        self.assertEqual(round(preload_by_angle_n(90, read_thread("M10"), bolt=200_000, joint=600_000)), 56250)

    def test_clean(self):
        trace, gaps = clean([*range(20), float("nan")], [*range(20), 3.0])
        self.assertEqual((len(trace.angle_deg), gaps[0].sentence), (20, "1 reading is no number and was left out"))

    def test_thin(self):
        spike = np.zeros(10_000)
        spike[4321] = 9.0
        self.assertEqual(float(thin(Trace(np.arange(10_000.0), spike), 200).torque_nm.max()), 9.0)

    def test_workings_of(self):
        self.assertEqual(
            [line.value for line in workings_of(BoltAsked(thread="M10", property_class="8.8"))][:2], ["M10, pitch 1.5 mm", "58.0 mm²"]
        )

    def test_disagreement(self):
        self.assertEqual(round(disagreement([Quoted(12, "N·m"), Quoted(9, "lbf·ft"), Quoted(108, "lbf·in")]), 3), 0.017)

    def test_may_be_rounded(self):
        self.assertEqual(
            (may_be_rounded([Quoted(10, "N·m"), Quoted(7, "lbf·ft")]), may_be_rounded([Quoted(20, "N·m"), Quoted(14, "lbf·ft")])),
            (True, True),
        )
        self.assertFalse(may_be_rounded([Quoted(20, "N·m"), Quoted(168, "lbf·in")]))
