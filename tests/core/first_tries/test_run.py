"""What a reader would try first of the functions of ``run``, each held to its answer."""

import unittest
from datetime import UTC, datetime

from gurvo_core.engine.things import Thing
from gurvo_core.engine.work import WorkStep
from gurvo_core.ledger.room import MINUTES, Facts
from gurvo_core.run.job.lay import check_laid, held_by, laid_loops, looks_made, loop_of
from gurvo_core.run.job.meet_again import meet_again_turns
from gurvo_core.run.job.said import where_of
from gurvo_core.run.job.standing import minutes_of, not_whole, title_of
from gurvo_core.run.job.state import begin_run
from gurvo_core.run.plan import Plan, PlanStep, has_run, plan_of
from gurvo_core.run.ready import WorkingHours, own_minutes, ready_at
from tests.engines import family, quern_4


class FirstTriesTests(unittest.TestCase):
    def test_loop_of(self):
        self.assertEqual(loop_of(quern_4(), WorkStep(id="x", does="lay", says="Lay the chain", loop="chain")).name, "Timing chain")

    def test_check_laid(self):
        self.assertEqual(list(check_laid(quern_4(), WorkStep(id="x", does="lay", says="Lay the chain", loop="chain"), {})), [])

    def test_held_by(self):
        self.assertEqual(held_by(begin_run(quern_4())), {})

    def test_laid_loops(self):
        self.assertEqual(repr(laid_loops(begin_run(quern_4()))), "frozenset()")

    def test_looks_made(self):
        self.assertEqual(looks_made(begin_run(quern_4())), {})

    def test_meet_again_turns(self):
        # 190 teeth over 24 and 48
        self.assertEqual(meet_again_turns(family("tarn-f4"), family("tarn-f4").drive.stages[0]), 190)

    def test_where_of(self):
        self.assertEqual(where_of(Thing(id="p", name="Pin", kind="pin", stops_turning=True, at="rear")), "at the flywheel end")

    def test_title_of(self):
        self.assertEqual(title_of(begin_run(quern_4()), "gone"), "gone")

    def test_minutes_of(self):
        step = WorkStep(id="x", does="do", says="Wipe the face", minutes=5)
        self.assertEqual((minutes_of(step, Facts()), minutes_of(step, Facts({MINUTES: {"x": 8.0}}))), (5.0, 8.0))

    def test_not_whole(self):
        step = WorkStep(id="x", does="do", says="Wipe the face.")
        none = frozenset()
        one = PlanStep(step=step, stage="", implied=none, needs=none, stands_on=none)
        self.assertEqual(not_whole(Plan(document=quern_4(), steps=(one,)), "x", is_unsigned=False), "“Wipe the face” first")

    def test_begin_run(self):
        self.assertEqual(dict(begin_run(quern_4()).done), {})

    def test_has_run(self):
        self.assertFalse(has_run(quern_4()))

    def test_plan_of(self):
        self.assertEqual(plan_of(quern_4()).steps, ())

    def test_own_minutes(self):
        self.assertEqual(own_minutes({"lay": [9.0, 11.0, 400.0], "turn": [4.0]}), {"lay": 11.0})

    def test_ready_at(self):
        self.assertEqual(ready_at(datetime(2026, 11, 27, 15, tzinfo=UTC), 90, WorkingHours()).strftime("%a %H:%M"), "Mon 08:00")
