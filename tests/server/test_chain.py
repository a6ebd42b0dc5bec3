"""The record proves itself: whatever is altered, moved, put in or taken away is named."""

import hashlib
import json
import re
import subprocess
import sys
import tempfile
from datetime import timedelta
from io import StringIO
from pathlib import Path
from unittest.mock import patch

from django.core.management import CommandError, call_command
from django.db import connection
from django.utils import timezone

from engine.models import Revision
from gurvo_core.ledger.chain import record_misfit, short
from tests.engines import lift
from tests.server.cases import ShopCase
from work import bridge, seals
from work.models import Entry

FORMATS = Path(__file__).parents[2] / "docs" / "formats" / "engine.md"


def sql(statement, *values):
    """Change the database as somebody would who has the file and no Gurvo."""
    with connection.cursor() as cursor:
        cursor.execute(statement, values)


class TamperTests(ShopCase):
    def setUp(self):
        super().setUp()
        self.find_tdc()
        self.must(lift("intake", "opening", "16", "before TDC"))
        self.must({"kind": "note", "text": "cold shop"})
        self.ids = list(Entry.objects.filter(engine="T-1").order_by("seq").values_list("pk", flat=True))
        self.forget()

    def forget(self):
        """As after the server was started anew."""
        bridge._kept.clear()
        seals.document_digest.cache_clear()

    def row(self, seq):
        return self.ids[seq - 1].hex

    def verified(self):
        out = StringIO()
        try:
            call_command("verify", stdout=out)
        except CommandError:
            return out.getvalue().strip()
        return "verified"

    def record(self):
        return json.loads(self.client.get("/api/engines/T-1/record.json").getvalue())

    def test_an_honest_ledger_is_verified_and_the_bench_says_so(self):
        self.assertEqual(self.verified(), "verified")
        head = self.client.get("/api/engines/T-1").json()["engine"]
        self.assertEqual((head["misfit"], head["head"]), ("", short(Entry.objects.get(pk=self.ids[-1]).digest)))

    def test_every_way_of_tampering_is_named(self):
        body = Entry.objects.get(pk=self.ids[3]).body
        changed = json.dumps({**body, "wheel": {**body["wheel"], "text": "40"}})
        year_ago = "2025-11-25 10:00:00"
        lena = "UPDATE work_entry SET by_id=(SELECT id FROM auth_user WHERE username='lena') WHERE id=%s"
        ways = {
            "a figure as typed": ("UPDATE work_entry SET body=%s WHERE id=%s", changed, self.row(4), 4),
            "its value in degrees alone": ("UPDATE work_entry SET si_values=%s WHERE id=%s", '{"wheel_deg": 320.0}', self.row(4), 4),
            "a name": ("UPDATE work_entry SET by_name='Somebody' WHERE id=%s", self.row(2), 2),
            "an account": (lena, self.row(2), 2),
            "a time": ("UPDATE work_entry SET at=%s WHERE id=%s", year_ago, self.row(3), 3),
            "when it was typed": ("UPDATE work_entry SET typed_at=%s WHERE id=%s", year_ago, self.row(3), 3),
            "a reason": ("UPDATE work_entry SET because='the lead said so' WHERE id=%s", self.row(5), 5),
            "a gauge": ("UPDATE work_entry SET gauges='[]' WHERE id=%s", self.row(1), 1),
            "a seal": ("UPDATE work_entry SET digest=%s WHERE id=%s", "0" * 64, self.row(6), 6),
            "the first row": ("DELETE FROM work_entry WHERE id=%s", self.row(1), 1),
            "a row in the middle": ("DELETE FROM work_entry WHERE id=%s", self.row(5), 5),
            "the last row": ("DELETE FROM work_entry WHERE id=%s", self.row(len(self.ids)), 0),
        }
        for what, (statement, *values, seq) in ways.items():
            with self.subTest(what=what):
                self.tampered(lambda s=statement, v=values: sql(s, *v), f"entry {seq} is" if seq else seals.NO_TAIL)

    def test_two_rows_that_change_places_and_a_document_that_is_altered_are_named(self):
        def swap():
            for seq, place in ((4, 99), (5, 4)):
                sql("UPDATE work_entry SET seq=%s WHERE id=%s", place, self.row(seq))
            sql("UPDATE work_entry SET seq=5 WHERE id=%s", self.row(4))

        def document():
            plain = Revision.objects.values_list("document", flat=True).get()
            plain["cam_card"][0]["opens_deg"] += 1
            sql("UPDATE engine_revision SET document=%s", json.dumps(plain))

        self.tampered(swap, "entry 4 is not as it was sealed")
        self.tampered(document, "entry 1 is not as it was sealed", other="its document is not as its ledger has it")

    def tampered(self, how, words, other=""):
        """Tamper, look at every place that must say so, and undo it."""
        sql("SAVEPOINT honest")
        self.forget()
        how()
        said = self.verified()
        shown = self.client.get("/api/engines/T-1").json()["engine"]["misfit"]
        rows = {row["serial"]: row["chain"] for row in self.client.get("/api/engines").json()["rows"]}
        sql("ROLLBACK TO honest")
        self.forget()
        self.assertIn(f"T-1: {words}", said)
        self.assertIn(words, shown)
        self.assertIn(words, rows["T-1"])
        self.assertEqual(rows["T-2"], other)

    def test_a_bench_sees_for_itself_when_it_is_read_anew(self):
        sql("UPDATE work_entry SET by_name='Somebody' WHERE id=%s", self.row(2))
        self.assertIn("entry 2 is not as it was sealed", self.client.get("/api/engines/T-1").json()["engine"]["misfit"])

    def test_a_record_is_checked_without_a_shop_and_against_it(self):
        record = self.record()
        self.assertEqual(record_misfit(record), "")
        for change in (
            lambda r: r["entries"][2].update(at="2026-01-01T00:00:00+00:00"),
            lambda r: r["entries"].pop(3),
            lambda r: r["entries"].pop(),
            lambda r: next(iter(r["documents"].values())).update(format="other"),
        ):
            altered = json.loads(json.dumps(record))
            change(altered)
            self.assertNotEqual(record_misfit(altered), "")
        # somebody cuts the tail off in the database and makes everything else fit
        last = Entry.objects.get(pk=self.ids[-2])
        sql("DELETE FROM work_entry WHERE id=%s", self.row(len(self.ids)))
        sql("UPDATE work_engine SET last_seq=%s, last_entry=%s, head=%s WHERE serial='T-1'", last.seq, last.pk.hex, last.digest)
        self.assertEqual(self.verified(), "verified")
        with tempfile.TemporaryDirectory() as folder:
            file, out = Path(folder) / "T-1.json", StringIO()
            file.write_text(json.dumps(record), "utf-8")
            with self.assertRaises(CommandError):
                call_command("verify", str(file), stdout=out)
        self.assertIn(f"entry {len(self.ids)} of the record is not in this shop's ledger", out.getvalue())

    def test_the_lines_of_the_page_check_a_record(self):
        """The script is run as it stands in the docs, in a process that has no Gurvo on its path."""
        script = re.search(r"```python\n(.*?)```", FORMATS.read_text("utf-8"), re.S).group(1)
        record = self.record()
        with tempfile.TemporaryDirectory() as folder:
            check, file = Path(folder) / "check.py", Path(folder) / "T-1.json"
            check.write_text(script, "utf-8")
            for name, code in ((record["entries"][4]["by"]["name"], 0), ("Somebody", 1)):
                record["entries"][4]["by"]["name"] = name
                file.write_text(json.dumps(record), "utf-8")
                command = [sys.executable, str(check), str(file)]
                ran = subprocess.run(command, capture_output=True, text=True, cwd=folder, env={}, check=False)
                self.assertEqual(ran.returncode, code, ran.stderr)

    def test_a_seal_is_the_hash_of_the_canonical_form(self):
        """[jcs] RFC 8785 by another hand: without whole floats, compact JSON with sorted ASCII keys is the same."""
        row = Entry.objects.select_related("by").get(pk=self.ids[-1])
        content = seals.sealed_content(row, Entry.objects.get(pk=self.ids[-2]).digest)
        text = json.dumps(content, sort_keys=True, separators=(",", ":"), ensure_ascii=False)
        self.assertEqual(hashlib.sha256(text.encode()).hexdigest(), row.digest)


class ClockTests(ShopCase):
    def test_an_entry_dated_before_the_one_above_is_marked_and_what_is_due_is_judged_by_the_later_of_both(self):
        now = timezone.now()
        self.must({"kind": "note", "text": "today"})
        with patch("work.services.timezone.now", return_value=now - timedelta(days=400)):
            bench = self.must({"kind": "note", "text": "the clock was set back"})
        self.assertEqual([line["goes_back"] for line in bench["tape"]], [True, False])
        first, second = bridge.ledger_of(Entry.objects.first().engine).entries
        self.assertEqual(second.latest, first.at)
