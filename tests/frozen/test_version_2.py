"""What version 2 made is read for ever: records with joints pulled bolt by bolt, fits and lash replay to the state they had."""

import json
import unittest

from gurvo_core.work import HOUSE
from tests.frozen.records import HERE, folded, record_of

STATES = json.loads((HERE / "v2" / "states.json").read_text("utf-8"))


class RecordTests(unittest.TestCase):
    def test_every_record_replays_to_the_state_it_had(self):
        for serial, wanted in STATES.items():
            stands = folded("v2", serial)
            state, joints = HOUSE.show(stands), stands.states["joints"]
            with self.subTest(serial=serial):
                self.assertEqual((state.current, state.waits_for), (wanted["current"], wanted["waits_for"]))
                self.assertEqual([step.status for step in state.steps], wanted["steps"])
                self.assertEqual([end.title for end in state.loose_ends], wanted["loose_ends"])
                self.assertEqual({name: len(pulls) for name, pulls in joints.pulls.items()}, wanted["pulls"])
                apart = {name: [[one.item.fastener, one.title] for one in judged] for name, judged in joints.judged.items() if judged}
                self.assertEqual(apart, wanted["apart"])

    def test_clearances_and_lash_come_to_what_they_came_to(self):
        for serial, wanted in STATES.items():
            fits, lash = (folded("v2", serial).states[room] for room in ("fits", "lash"))
            with self.subTest(serial=serial):
                found = {
                    fit: {place: [one.judged.verdict, one.judged.end, round(one.judged.figure.value, 6)] for place, one in places.items()}
                    for fit, places in fits.places.items()
                    if places
                }
                kept = {fit: {place: one[:3] for place, one in places.items()} for fit, places in wanted.get("fits", {}).items()}
                self.assertEqual(found, kept)
                for fit, places in wanted.get("fits", {}).items():
                    for place, (*_, u) in places.items():  # of several spots it was said too small; it never says less since
                        self.assertGreaterEqual(round(fits.places[fit][place].judged.figure.u, 7), u)
                reads = {valve: [read.verdict, round(read.lash.value, 6), read.shim_mm] for valve, read in lash.reads.items()}
                self.assertEqual(reads, wanted.get("lash", {}))

    def test_every_line_of_the_tape_says_what_it_said(self):
        """The words of a pull were completed when it was taken: they stand, whatever a joint is called later."""
        record = record_of("v2", "Q4-0175")
        last = HOUSE.tape_line(folded("v2", "Q4-0175").entries[-1], None)
        self.assertEqual((last.title, last.value), ("Cylinder head 5, stage 3", "90° · 70 N·m"))
        self.assertEqual(record["entries"][-1]["body"]["asked"], "90°")
