"""What version 2 made is read for ever: records with joints pulled bolt by bolt, fits and lash replay to the state they had."""

import json
import unittest
import uuid
from datetime import datetime
from pathlib import Path

from gurvo_core.ledger import Gauge, LedgerEntry
from gurvo_core.reading import read_document
from gurvo_core.work import HOUSE

V2 = Path(__file__).parent / "v2"
STATES = json.loads((V2 / "states.json").read_text("utf-8"))


def folded(serial):
    """What stands in a frozen record."""
    record = json.loads((V2 / f"{serial}.record.json").read_text("utf-8"))
    document, entries = read_document(record["documents"][record["engine"]["document"]]), []
    for row in record["entries"]:
        body = HOUSE.settled(HOUSE.read(row["body"], row["version"]), document, entries)
        gauges = tuple(Gauge.model_validate(gauge) for gauge in row["gauges"])
        at = datetime.fromisoformat(row["at"])
        entries.append(LedgerEntry(id=uuid.UUID(row["id"]), seq=row["seq"], at=at, by=row["by"]["name"], body=body, gauges=gauges))
    return HOUSE.fold(document, entries)


class RecordTests(unittest.TestCase):
    def test_every_record_replays_to_the_state_it_had(self):
        for serial, wanted in STATES.items():
            stands = folded(serial)
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
            fits, lash = (folded(serial).states[room] for room in ("fits", "lash"))
            with self.subTest(serial=serial):
                found = {
                    fit: {
                        place: [one.judged.verdict, one.judged.end, round(one.judged.figure.value, 6), round(one.judged.figure.u, 7)]
                        for place, one in places.items()
                    }
                    for fit, places in fits.places.items()
                    if places
                }
                self.assertEqual(found, wanted.get("fits", {}))
                reads = {valve: [read.verdict, round(read.lash.value, 6), read.shim_mm] for valve, read in lash.reads.items()}
                self.assertEqual(reads, wanted.get("lash", {}))

    def test_every_line_of_the_tape_says_what_it_said(self):
        """The words of a pull were completed when it was taken: they stand, whatever a joint is called later."""
        record = json.loads((V2 / "Q4-0175.record.json").read_text("utf-8"))
        last = HOUSE.tape_line(folded("Q4-0175").entries[-1], None)
        self.assertEqual((last.title, last.value), ("Cylinder head 5, stage 3", "90° · 70 N·m"))
        self.assertEqual(record["entries"][-1]["body"]["asked"], "90°")
