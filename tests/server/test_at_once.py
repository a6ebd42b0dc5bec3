"""Several people at one engine at once: every entry has its place, none is lost, none stored twice."""

import json
import sqlite3
import uuid
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing
from threading import Event

from django.contrib.auth.models import User
from django.db import connection, transaction
from django.test import TransactionTestCase

from tests.server.cases import fill_shop
from work import bridge, services
from work.models import Engine, Entry
from work.record import as_json

WRITERS, NOTES_EACH = 4, 8


class AtOnceTests(TransactionTestCase):
    def setUp(self):
        fill_shop()

    def write(self, entry_ids):
        """Make some notes on a connection of one's own."""
        try:
            engine, by = Engine.objects.get(serial="T-1"), User.objects.get(username="bo")
            for entry_id in entry_ids:
                body = bridge.HOUSE.bodies.validate_python({"kind": "note", "text": str(entry_id)})
                services.record(engine.serial, entry_id=entry_id, body=body, by=by)
        finally:
            connection.close()

    def run_writers(self, batches):
        with ThreadPoolExecutor(WRITERS) as pool:
            for done in [pool.submit(self.write, batch) for batch in batches]:
                done.result()

    def test_every_entry_has_a_place_of_its_own(self):
        batches = [[uuid.uuid4() for _ in range(NOTES_EACH)] for _ in range(WRITERS)]
        self.run_writers(batches)
        places = list(Entry.objects.filter(engine="T-1").order_by("seq").values_list("seq", flat=True))
        self.assertEqual(places, list(range(1, WRITERS * NOTES_EACH + 1)))
        kept = [entry.id for entry in bridge.ledger_of(Engine.objects.get(serial="T-1")).entries]
        self.assertEqual(sorted(kept), sorted(entry_id for batch in batches for entry_id in batch))

    def test_the_same_entries_sent_by_all_are_stored_once(self):
        same = [uuid.uuid4() for _ in range(NOTES_EACH)]
        self.run_writers([same] * WRITERS)
        self.assertEqual(Entry.objects.filter(engine="T-1").count(), NOTES_EACH)

    def test_a_writer_who_leaves_in_the_middle_lets_the_next_come(self):
        begun, goes_on = Event(), Event()

        def leave() -> None:
            with transaction.atomic():
                begun.set()
                goes_on.wait(10)
                connection.close()

        with ThreadPoolExecutor(1) as pool:
            left = pool.submit(leave)
            begun.wait(10)
            goes_on.set()
            self.write([uuid.uuid4()])
            left.result()
        self.assertEqual(Entry.objects.filter(engine="T-1").count(), 1)

    def test_a_record_that_nobody_reads_on_holds_nothing_open_and_ends_where_it_began(self):
        self.write([uuid.uuid4() for _ in range(3)])
        pieces = as_json(Engine.objects.get(serial="T-1"))
        read = [next(pieces) for _ in range(4)]  # the head, the document, the end of the documents, an entry
        self.write([uuid.uuid4()])
        with closing(sqlite3.connect(connection.settings_dict["NAME"])) as other:
            is_held = other.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchone()[0]
        record = json.loads("".join([*read, *pieces]))
        self.assertEqual((is_held, len(record["entries"]), record["head"]), (0, 3, record["entries"][-1]["digest"]))
