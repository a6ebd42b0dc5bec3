"""Whoever has the shop's file and no Gurvo can change it in many ways: each is seen, by the file itself or by a head kept elsewhere."""

import json
import tempfile
from dataclasses import replace
from io import StringIO
from pathlib import Path
from unittest.mock import patch

from axes.models import AccessLog
from django.core.management import CommandError, call_command
from django.db import connection
from django.test import TestCase
from django.utils import timezone

from engine.models import Revision
from gurvo_core.ledger.chain import START, digest_of
from shop.daybook import BOOKED, daybook_faults, fields_of
from shop.models import GaugeCheck, Shop, StockItem
from tests.engines import act
from tests.server.cases import ShopCase, forget_all
from work import bridge
from work.heads import head_now
from work.models import Entry
from work.seals import sealed_content


def sql(statement, *values):
    with connection.cursor() as cursor:
        cursor.execute(statement, values)


def entry(seq, columns, *values, serial="T-1"):
    """Change columns of one entry."""
    return lambda: sql(f"UPDATE work_entry SET {columns} WHERE engine_id=%s AND seq=%s", *values, serial, seq)


def run(*statements):
    return lambda: [sql(one) for one in statements]


def body(seq, **changes):
    """Change what an entry's body says."""

    def change():
        kept = Entry.objects.get(engine="T-1", seq=seq).body
        entry(seq, "body=%s", json.dumps({**kept, **changes}))()

    return change


def both(*ways):
    return lambda: [way() for way in ways]


def put_right(serial="T-1"):
    """Make the engine's row agree with its last entry."""
    last = Entry.objects.filter(engine=serial).order_by("-seq").first()
    head, seq, last_id = (last.digest, last.seq, last.id.hex) if last else (START, 0, None)
    sql("UPDATE work_engine SET head=%s, last_seq=%s, last_entry=%s WHERE serial=%s", head, seq, last_id, serial)


def renumber_from(seq):
    for later in range(seq, 40):
        sql("UPDATE work_entry SET seq=%s WHERE engine_id='T-1' AND seq=%s", later - 1, later)


def reseal(first=1):
    """Seal a ledger anew, as Gurvo itself does."""
    before = START if first == 1 else Entry.objects.get(engine="T-1", seq=first - 1).digest
    for row in Entry.objects.filter(engine="T-1").since(first):
        before_this, before = before, digest_of(sealed_content(row, before))
        assert before_this is not None
        sql("UPDATE work_entry SET digest=%s WHERE engine_id='T-1' AND seq=%s", before, row.seq)


def copy_onto(serial, other):
    """Copy one ledger onto another engine."""
    columns = [field.column for field in Entry._meta.concrete_fields]
    taken = ", ".join({"engine_id": f"'{other}'", "id": "lower(hex(randomblob(16)))"}.get(name, name) for name in columns)
    sql(f"DELETE FROM work_entry WHERE engine_id='{other}'")
    sql(f"INSERT INTO work_entry ({', '.join(columns)}) SELECT {taken} FROM work_entry WHERE engine_id='{serial}'")
    put_right(other)


def insert_between():
    for later in range(39, 4, -1):
        sql("UPDATE work_entry SET seq=%s WHERE engine_id='T-1' AND seq=%s", later + 1, later)
    row = Entry.objects.get(engine="T-1", seq=4)
    row.seq, row._state.adding = 5, True
    row.pk = None
    row.save()


def another_document():
    """A revision with wide tolerances, and the engine pointed at it."""
    plain = Revision.objects.values_list("document", flat=True).get(number=1)
    for line in plain["cam_card"]:
        line["tolerance_deg"] = 9
    columns = "family_id, number, document, remark, at, by_id"
    sql(f"INSERT INTO engine_revision ({columns}) SELECT family_id, 2, %s, '', at, by_id FROM engine_revision", json.dumps(plain))
    sql("UPDATE work_engine SET revision_id=(SELECT max(id) FROM engine_revision) WHERE serial='T-1'")


def document_alone():
    plain = Revision.objects.values_list("document", flat=True).get()
    plain["cam_card"][0]["opens_deg"] += 1
    sql("UPDATE engine_revision SET document=%s", json.dumps(plain))


def document_and_digest():
    document_alone()
    digest = digest_of(Revision.objects.values_list("document", flat=True).get())
    sql("UPDATE shop_dayline SET says=json_set(says, '$.document', %s) WHERE name='document'", digest)


DELETE_ENGINE = (
    "DELETE FROM work_entry WHERE engine_id='T-1'",
    "DELETE FROM work_enginesummary WHERE engine_id='T-1'",
    "DELETE FROM work_steptime WHERE engine_id='T-1'",
    "DELETE FROM work_engine WHERE serial='T-1'",
)
SIGNED = 13  # its place in the ledger of T-1, as it is made below: a note, true TDC, four events, what was decided
BY_CHAIN = {
    "words of an entry": body(1, text="warm shop"),
    "a figure": body(4, wheel={"text": "40", "side": "after TDC"}),
    "its figure in degrees": entry(4, "si_values=%s", '{"wheel_deg": 40.0}'),
    "both together": both(body(4, wheel={"text": "40", "side": "after TDC"}), entry(4, "si_values=%s", '{"wheel_deg": 40.0}')),
    "a reason": entry(5, "because='the lead said so'"),
    "the version of its shape": entry(4, "version=1"),
    "its maker": entry(4, "by_id=(SELECT id FROM auth_user WHERE username='lena')"),
    "its maker's name": entry(4, "by_name='Somebody'"),
    "when it was taken": entry(4, "at='2025-11-25 10:00:00'"),
    "when it was typed": entry(4, "typed_at='2025-11-25 10:00:00'"),
    "its kind beside its body": entry(4, "kind='note'"),
    "the first taken out": run("DELETE FROM work_entry WHERE engine_id='T-1' AND seq=1"),
    "one in the middle taken out": run("DELETE FROM work_entry WHERE engine_id='T-1' AND seq=4"),
    "the last taken out": run("DELETE FROM work_entry WHERE engine_id='T-1' AND seq=13"),
    "one taken out and those after it renumbered": both(
        run("DELETE FROM work_entry WHERE engine_id='T-1' AND seq=4"), lambda: renumber_from(5)
    ),
    "two swapped": both(entry(4, "seq=139"), entry(5, "seq=4"), entry(99, "seq=5")),
    "one put in between": insert_between,
    "one copied from another engine": both(entry(1, "engine_id='T-1', seq=14", serial="T-2"), put_right),
    "sealed anew from one on": both(entry(4, "by_name='Somebody'"), lambda: reseal(4)),
    "a signed ledger copied onto another engine": lambda: copy_onto("T-1", "T-2"),
    "the head in the row": run("UPDATE work_engine SET head='" + "0" * 64 + "' WHERE serial='T-1'"),
    "a strike taken out at the end": run("DELETE FROM work_entry WHERE engine_id='T-2' AND seq=3"),
    "a signature's remark": body(SIGNED, remark="race car"),
    "what a signature kept": body(SIGNED, shown=["Camshaft: 0.0° advanced, in"]),
    "a signature's maker": entry(SIGNED, "by_id=(SELECT id FROM auth_user WHERE username='bo')"),
    "a document": document_alone,
    "a document and its digest": document_and_digest,
    "another document put in": another_document,
    "a gauge's certificate": run("UPDATE shop_gauge SET certificate='K-1' WHERE code='W1'"),
    "a gauge's uncertainty": run("UPDATE shop_gauge SET expanded_uncertainty=0.01 WHERE code='W1'"),
    "a gauge's due date": run("UPDATE shop_gauge SET due='2031-01-01' WHERE code='W1'"),
    "a gauge's check": run("UPDATE shop_gaugecheck SET shown=true"),
    "a gauge's check taken out": run("DELETE FROM shop_gaugecheck"),
    "a gauge's uses": run("DELETE FROM shop_gaugeuse"),
    "the stock": run("UPDATE shop_stockitem SET count=count+5"),
    "what was taken from stock": run("INSERT INTO shop_stocktaken (serial, part, size, pieces) VALUES ('T-1', 'shell', 'red', 2)"),
    "kept figures of a fit": run(
        "INSERT INTO work_fitfigure (engine_id, family, fit, place, value_mm) VALUES ('T-1', 'quern-4', 'main', 'main 1', 0.04)"
    ),
    "a summary that says signed": run("UPDATE work_enginesummary SET signed=1 WHERE engine_id='T-2'"),
    "a summary that says in": run("UPDATE work_enginesummary SET verdict='in' WHERE engine_id='T-2'"),
    "a summary that says free to turn": run("UPDATE work_enginesummary SET free_to_turn=1, waits_for='' WHERE engine_id='T-2'"),
    "a misfit that was cleared": both(entry(4, "by_name='Somebody'"), run("UPDATE work_enginesummary SET chain=''")),
    "a verdict that cannot be": run("UPDATE work_enginesummary SET verdict='perfect' WHERE engine_id='T-1'"),
    "a stand": run("UPDATE work_engine SET stand=7 WHERE serial='T-1'"),
    "a purpose": run("UPDATE work_engine SET purpose='race car' WHERE serial='T-1'"),
    "a builder": run("UPDATE work_engine SET builder_id=(SELECT id FROM auth_user WHERE username='lena') WHERE serial='T-1'"),
    "whereabouts": run("UPDATE work_engine SET whereabouts='archived' WHERE serial='T-1'"),
    "when it was begun": run("UPDATE work_engine SET begun='2025-01-01 08:00:00' WHERE serial='T-1'"),
    "times of steps": run("INSERT INTO work_steptime (engine_id, family, step, minutes) VALUES ('T-1', 'quern-4', 'x', 3)"),
    "a role granted": run(
        "INSERT INTO auth_user_groups (user_id, group_id) SELECT u.id, g.id FROM auth_user u, auth_group g "
        "WHERE u.username='vi' AND g.name='lead'"
    ),
    "an account's name": run("UPDATE auth_user SET username='vera' WHERE username='vi'"),
    "a name that is shown": run("UPDATE auth_user SET first_name='Lena' WHERE username='vi'"),
    "the log of sign-ins emptied": run("DELETE FROM axes_accesslog"),
    "a line of the daybook": run("UPDATE shop_dayline SET \"by\"='lena' WHERE seq=2"),
}
BY_HEADS = {
    "the last taken out and the row put right": both(run("DELETE FROM work_entry WHERE engine_id='T-1' AND seq=13"), put_right),
    "a ledger emptied and the row put right": both(run("DELETE FROM work_entry WHERE engine_id='T-1'"), put_right),
    "an engine deleted with all that is its own": run(*DELETE_ENGINE),
    "a ledger sealed anew from end to end": both(entry(4, "by_name='Somebody'"), reseal, put_right),
}


class TamperingTests(ShopCase):
    def setUp(self):
        super().setUp()
        self.must({"kind": "note", "text": "cold shop"})
        advance = self.degree()["state"]["timing"]["cams"][0]["advance_deg"]
        self.must(act("cam_decision", camshaft="cam", advance_deg=advance))
        self.sign_in("lena")
        signature = act("sign_off", remark="to the pump house")
        self.confirm(signature)
        self.must(signature)
        self.sign_in("bo")
        self.must({"kind": "note", "text": "another engine"}, serial="T-2")
        noted = self.must({"kind": "note", "text": "hot shop"}, serial="T-2")["tape"][0]["id"]
        self.must({"kind": "strike", "strikes": noted, "reason": "it was cold"}, serial="T-2")
        AccessLog.objects.create(username="bo", attempt_time=timezone.now())
        gauge = {"against_id": "D2", "true": 1, "shown": 1.02, "at": timezone.now(), "by_name": "Bo"}
        GaugeCheck.objects.create(gauge_id="D2", **gauge)
        StockItem.objects.create(part="shell", size="red", count=4)
        call_command("bring_up_to_date")

    def verified(self, *against):
        """What is said; empty when all is verified."""
        forget_all()
        bridge._kept.clear()
        out = StringIO()
        try:
            call_command("verify", *against, stdout=out)
        except CommandError:
            return out.getvalue()
        return ""

    def tampered(self, ways, *against):
        for what, way in ways.items():
            with self.subTest(what=what):
                sql("SAVEPOINT honest")
                way()
                said = self.verified(*against)
                floor = self.client.get("/api/engines")
                sql("ROLLBACK TO honest")
                self.assertNotEqual(said, "")
                self.assertEqual(floor.status_code, 200)

    def test_an_honest_shop_is_verified(self):
        self.assertEqual(self.verified(), "")
        self.assertEqual(list(daybook_faults()), [])
        self.assertEqual(self.verified("--against", head_now().words), "")

    def test_the_file_itself_shows_it(self):
        self.tampered(BY_CHAIN)

    def test_a_head_that_was_printed_shows_it(self):
        words = head_now().words
        self.must({"kind": "note", "text": "what came later is no fault"}, serial="T-2")
        self.assertEqual(self.verified("--against", words), "")
        self.tampered(BY_HEADS, "--against", words)

    def test_a_record_that_was_handed_out_shows_it_of_all_engines(self):
        file = Path(self.enterContext(tempfile.TemporaryDirectory())) / "T-2.json"
        file.write_bytes(self.client.get("/api/engines/T-2/record.json").getvalue())
        self.assertEqual(self.verified("--against", str(file)), "")
        self.tampered(BY_HEADS, "--against", str(file))

    def test_one_odd_value_never_takes_the_floor_down(self):
        for odd in ("verdict='perfect'", "beads='{'", "left_minutes='soon'", "clock_at='2026-99-99'"):
            with self.subTest(odd):
                sql("PRAGMA ignore_check_constraints=ON")
                sql(f"UPDATE work_enginesummary SET {odd} WHERE engine_id='T-1'")
                forget_all()
                answer = self.client.get("/api/engines")
                self.assertEqual(answer.status_code, 200)
                rows = {row["serial"]: row for row in answer.json()["rows"]}
                self.assertEqual((rows["T-1"]["verdict"], rows["T-1"]["signed"]), ("in", True))
                self.assertEqual(self.verified(), "")

    def test_the_floor_says_when_the_daybook_does_not_fit(self):
        self.assertEqual(self.client.get("/api/engines").json()["misfit"], "")
        sql("UPDATE shop_gauge SET expanded_uncertainty=0.01 WHERE code='W1'")
        self.verified()
        self.assertEqual(self.client.get("/api/engines").json()["misfit"], "gauge W1 is not as the daybook has it")

    def test_a_column_that_came_with_a_later_version_is_no_fault_and_a_change_of_it_is(self):
        with patch.dict(BOOKED, {Shop: replace(BOOKED[Shop], says=fields_of("misfit", "second_lead_looks"))}):
            shop = Shop.objects.get()
            shop.alone_minutes = 7
            shop.save()  # its line is as an earlier version wrote it
        self.assertEqual(list(daybook_faults()), [])
        sql("UPDATE shop_shop SET second_lead_looks=1")
        self.assertIn("is not as the daybook has it", next(daybook_faults()))

    def test_what_is_kept_beside_is_put_right(self):
        sql("UPDATE work_enginesummary SET signed=1, free_to_turn=1 WHERE engine_id='T-2'")
        sql("DELETE FROM shop_gaugeuse")
        self.assertIn("put right", self.verified())
        self.assertEqual(self.verified(), "")
        row = next(row for row in self.client.get("/api/engines").json()["rows"] if row["serial"] == "T-2")
        self.assertEqual((row["signed"], row["free_to_turn"]), (False, False))


class ElsewhereTests(TestCase):
    """A record that was handed out, on a machine that has no shop."""

    def verified(self, record):
        out = StringIO()
        try:
            call_command("verify", record, stdout=out)
        except CommandError:
            return f"refused: {out.getvalue()}"
        return out.getvalue()

    def test_it_is_verified_by_itself_and_an_altered_one_is_named(self):
        kept = Path(__file__).parents[1] / "frozen" / "v3" / "H4-0102.record.json"
        self.assertIn("looked at by itself", self.verified(kept))
        record = json.loads(kept.read_text("utf-8"))
        record["entries"][2]["by"] = "Somebody else"
        with tempfile.NamedTemporaryFile("w", suffix=".json") as altered:
            json.dump(record, altered)
            altered.flush()
            self.assertRegex(self.verified(Path(altered.name)), "refused: .*entry 3 is not as it was sealed")
