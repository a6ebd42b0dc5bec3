"""What version 3 made is read for ever: engines timed by marks, locks and gears replay to the proofs and found facts they had."""

import json
import unittest

from gurvo_core.work import HOUSE
from tests.frozen.records import HERE, folded

STATES = json.loads((HERE / "v3" / "states.json").read_text("utf-8"))


class RecordTests(unittest.TestCase):
    def test_every_record_replays_to_the_state_it_had(self):
        for serial, wanted in STATES.items():
            stands = folded("v3", serial)
            state, found = HOUSE.show(stands), stands.states["found"]
            with self.subTest(serial=serial):
                self.assertEqual((state.current, state.waits_for), (wanted["current"], wanted["waits_for"]))
                self.assertEqual({step.key: step.status for step in state.steps}, wanted["steps"])
                self.assertEqual([[end.title, end.until] for end in state.loose_ends], wanted["loose_ends"])
                proofs = {one.name: [one.by, one.words, one.who] for one in state.hand_over.proofs}
                self.assertEqual(proofs, wanted["proofs"])
                facts = {pointer: [one.body.value, one.fact.value] for pointer, one in found.found.items()}
                self.assertEqual((facts, sorted(found.unknown)), (wanted["found"], wanted["unknown"]))
