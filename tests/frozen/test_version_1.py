"""What version 1 made is read for ever: its records replay to the state they had, its database opens as it is."""

import gzip
import json
import os
import shutil
import sqlite3
import subprocess
import sys
import tempfile
import unittest
import uuid
from datetime import datetime
from pathlib import Path

from gurvo_core.ledger import Gauge, LedgerEntry
from gurvo_core.reading import read_document
from gurvo_core.work import HOUSE

V1 = Path(__file__).parent / "v1"
ROOT = Path(__file__).parents[2]
STATES = json.loads((V1 / "states.json").read_text("utf-8"))
HUNDREDTH_DEG = 0.0051  # states were frozen to a hundredth


def folded(serial, change=lambda entries: entries):
    """What stands in a frozen record."""
    record = json.loads((V1 / f"{serial}.record.json").read_text("utf-8"))
    document, entries = read_document(record["document"]), []
    for row in change(record["entries"]):
        body = HOUSE.completed(HOUSE.read(row["body"], 1), document, entries)
        gauges = tuple(Gauge.model_validate(gauge) for gauge in row["gauges"])
        at = datetime.fromisoformat(row["at"])
        entries.append(LedgerEntry(id=uuid.UUID(row["id"]), seq=len(entries) + 1, at=at, by=row["by"], body=body, gauges=gauges))
    return HOUSE.fold(document, entries)


class RecordTests(unittest.TestCase):
    def test_every_record_replays_to_the_state_it_had(self):
        for serial, wanted in STATES.items():
            state = HOUSE.show(folded(serial))
            cams = [(cam.camshaft, cam.verdict, cam.decided, cam.rounds) for cam in state.timing.cams]
            with self.subTest(serial=serial):
                self.assertEqual((state.current, state.waits_for, state.signed), (wanted["current"], wanted["waits_for"], wanted["signed"]))
                self.assertEqual([step.status for step in state.steps], wanted["steps"])
                self.assertEqual([end.title for end in state.loose_ends], wanted["loose_ends"])
                self.assertEqual(
                    (state.permission.free, state.timing.tdc and state.timing.tdc.adopted), (wanted["free"], wanted["adopted"])
                )
                self.assertEqual(cams, [(cam["camshaft"], cam["verdict"], cam["decided"], cam["rounds"]) for cam in wanted["cams"]])
                self.same(state.timing.tdc and state.timing.tdc.zero_deg, wanted["zero_deg"])
                self.same(state.timing.crank and state.timing.crank.cycle_deg, wanted["cycle_deg"])
                for cam, was in zip(state.timing.cams, wanted["cams"], strict=True):
                    self.same(cam.advance_deg, was["advance_deg"])

    def same(self, figure, was):
        """Equal to what was frozen, but for its rounding."""
        self.assertEqual(figure is None, was is None)
        if was is not None:
            self.assertAlmostEqual(figure, was, delta=HUNDREDTH_DEG)

    def test_a_finer_formula_does_not_undo_what_was_taken_over(self):
        """The figure shown when the zero was taken over differs from today's: it stands, and the bench says both."""

        def finer(entries):
            for row in entries:
                if row["body"]["kind"] == "wheel_zero":
                    row["body"]["zero_deg"] += 0.02
            return entries

        state = HOUSE.show(folded("Q4-0169", finer))
        self.assertTrue(state.signed and state.timing.tdc.adopted and state.timing.cams[0].decided)
        self.assertTrue(any("today's rules read it" in warning for warning in state.warnings))

    def test_what_was_taken_over_lapses_with_a_reading_it_rests_on(self):
        """Strike one of the readings afterwards, or take one more pair: the zero has to be taken over again."""
        record = json.loads((V1 / "Q4-0172.record.json").read_text("utf-8"))
        reading = next(row for row in record["entries"] if row["body"]["kind"] == "tdc_reading")
        strike = {**reading, "id": str(uuid.uuid4()), "body": {"kind": "strike", "strikes": reading["id"], "reason": "slip"}}
        more = [{**row, "id": str(uuid.uuid4())} for row in record["entries"] if row["body"]["kind"] == "tdc_reading"]
        for added in ([strike], more):
            state = HOUSE.show(folded("Q4-0172", lambda entries, added=added: [*entries, *added]))
            with self.subTest(added=len(added)):
                self.assertEqual((state.current, (state.timing.tdc and state.timing.tdc.adopted) or None), ("tdc", None))


class DatabaseTests(unittest.TestCase):
    def test_a_database_of_version_1_opens_as_it_is(self):
        """Migrated as ./gurvo does it; every entry's body stays to the letter, and every engine is shown."""
        with tempfile.TemporaryDirectory() as folder:
            database = Path(folder) / "demo.sqlite3"
            with gzip.open(V1 / "demo.sqlite3.gz") as packed, database.open("wb") as whole:
                shutil.copyfileobj(packed, whole)
            before = self.bodies(database)
            env = {**os.environ, "GURVO_DB": str(database), "DJANGO_SETTINGS_MODULE": "config.settings.dev"}
            command = [sys.executable, ROOT / "server" / "manage.py", "bring_up_to_date"]
            subprocess.run(command, env=env, check=True, capture_output=True)
            self.assertEqual(self.bodies(database), before)
            with sqlite3.connect(database) as rows:
                kept = dict(rows.execute("select engine_id, waits_for from work_enginesummary where broken = ''").fetchall())
        self.assertEqual({serial: kept[serial] for serial in STATES}, {serial: state["waits_for"] for serial, state in STATES.items()})
        self.assertEqual(len(kept), 9)

    def bodies(self, database):
        with sqlite3.connect(database) as rows:
            return rows.execute("select id, body from work_entry order by engine_id, seq").fetchall()
