"""The one door to the ledger: who may, what is taken, what is refused, and that nothing is ever changed."""

import json
import uuid
from dataclasses import replace
from datetime import timedelta

from django.contrib.auth.models import User
from django.db import IntegrityError, transaction
from django.test import Client
from django.utils import timezone

from engine.services import add_revision
from gurvo_core.errors import EntryRefused
from tests.engines import SETUP, STOP_IN, act, lift, quern_4_copy, stop
from tests.server.cases import JSON, ShopCase, put_row
from work import bridge, services
from work.models import Engine, Entry


class EntryTests(ShopCase):
    def test_an_entry_is_kept_as_typed_and_in_degrees_beside_it(self):
        self.must(SETUP)
        self.must(STOP_IN)
        self.must(stop("before", "41,5"))
        row = Entry.objects.get(kind="tdc_reading")
        self.assertEqual(row.body["wheel"], {"text": "41,5", "side": "before TDC"})
        self.assertEqual(row.si_values, {"wheel_deg": 318.5})

    def test_the_gauges_are_kept_as_they_were(self):
        self.must(SETUP)
        row = Entry.objects.get()
        self.assertEqual({gauge["id"]: gauge["resolution"] for gauge in row.gauges}, {"W1": 0.5, "D2": 0.01})

    def test_an_entry_that_was_sent_later_keeps_the_time_it_was_typed(self):
        now = timezone.now()
        typed = {"an hour ago": now - timedelta(hours=1), "just now": now, "by a clock that runs ahead": now + timedelta(hours=1)}
        shown = {}
        for name, at in typed.items():
            body = {"id": str(uuid.uuid4()), "entry": {"kind": "note", "text": name}, "typed_at": at.isoformat()}
            answer = self.client.post("/api/engines/T-1/entries", body, content_type=JSON).json()
            shown[name] = answer["tape"][0]["typed_at"] is not None
        self.assertEqual(shown, {"an hour ago": True, "just now": False, "by a clock that runs ahead": False})
        kept = Entry.objects.order_by("seq").values_list("typed_at", flat=True)
        self.assertEqual(list(kept), list(typed.values()))
        vague = {"id": str(uuid.uuid4()), "entry": {"kind": "note", "text": "x"}, "typed_at": "2026-11-23T10:00:00"}
        self.refused(self.client.post("/api/engines/T-1/entries", vague, content_type=JSON), 422, "typed_at", "timezone")

    def test_the_answer_is_the_new_state(self):
        bench = self.must(SETUP)
        self.assertEqual((bench["state"]["current"], bench["entries"], bench["tape"][0]["title"]), ("tdc", 1, "Wheel set up"))

    def test_the_same_entry_sent_twice_is_stored_once(self):
        entry_id = uuid.uuid4()
        first = self.enter({"kind": "note", "text": "cold"}, entry_id=entry_id)
        again = self.enter({"kind": "note", "text": "cold"}, entry_id=entry_id)
        self.assertEqual((first.status_code, again.status_code), (201, 200))
        self.assertEqual((first.json()["entries"], again.json()["entries"], Entry.objects.count()), (1, 1, 1))

    def test_the_same_id_with_other_contents_is_a_conflict(self):
        entry_id = uuid.uuid4()
        self.must({"kind": "note", "text": "cold"}, entry_id=entry_id)
        self.refused(self.enter({"kind": "note", "text": "warm"}, entry_id=entry_id), 409, "id", "another entry")
        elsewhere = self.enter({"kind": "note", "text": "cold"}, serial="T-2", entry_id=entry_id)
        self.refused(elsewhere, 409, "id", "another entry")

    def test_refusals_carry_the_field_and_a_sentence(self):
        self.must(SETUP)
        unknown = {**stop("before", "41"), "colour": "red"}
        silent = {key: value for key, value in stop("before", "41").items() if key != "wheel"}
        folded = {**stop("before", "41"), "wheel": {"text": "41"}}
        tries = [
            (stop("before", "abc"), "entry.wheel.text", "not a number"),
            (stop("before", "95"), "entry.wheel.text", "reads from 0 to 90"),
            (folded, "entry.wheel.side", "say which side"),
            (unknown, "entry.colour", "not known here"),
            (silent, "entry.wheel", "missing"),
            ({**stop("before", "41"), "approach": "sideways"}, "entry.approach", "must be"),
            ({"kind": "guess"}, "entry", "kind"),
            (lift("intake", "opening", "16", "before TDC"), "entry.kind", "true TDC first"),
            ({"kind": "wheel_zero", "method": "positive_stop", "zero_deg": 500}, "entry.zero_deg", "must be at most 180"),
        ]
        for body, field, words in tries:
            with self.subTest(field=field, words=words):
                self.refused(self.enter(body), 422, field, words)
        self.assertEqual(Entry.objects.count(), 1)

    def test_another_engines_cam(self):
        self.find_tdc()
        reading = {**lift("intake", "opening", "16", "before TDC"), "camshaft": "left"}
        self.refused(self.enter(reading), 422, "entry.camshaft", "no camshaft left")

    def test_infinity_and_not_a_number_are_no_figures(self):
        self.must(SETUP)
        body = '{"id": "%s", "entry": {"kind": "wheel_zero", "method": "positive_stop", "zero_deg": %s}}'
        for figure in ("NaN", "Infinity", "-Infinity"):
            with self.subTest(figure=figure):
                answer = self.client.post("/api/engines/T-1/entries", body % (uuid.uuid4(), figure), content_type=JSON)
                self.assertEqual(answer.status_code, 422, answer.content)
                self.assertEqual(json.loads(answer.content)["field"], "entry.zero_deg")

    def test_what_is_not_json_is_refused(self):
        answer = self.client.post("/api/engines/T-1/entries", "{", content_type=JSON)
        self.assertEqual(answer.status_code, 400)
        self.assertTrue(answer.json()["sentence"])

    def test_a_body_of_five_megabytes(self):
        answer = self.enter({"kind": "note", "text": "x" * 5_000_000})
        self.refused(answer, 413, "", "larger than anything")

    def test_a_note_longer_than_a_note(self):
        self.refused(self.enter({"kind": "note", "text": "x" * 2001}), 422, "entry.text", "2000")

    def test_an_engine_that_is_not_there(self):
        self.refused(self.enter({"kind": "note", "text": "x"}, serial="T-9"), 404, "", "nothing here")


class PermissionTests(ShopCase):
    def test_a_stranger_is_asked_to_sign_in(self):
        self.client = Client()
        self.refused(self.enter({"kind": "note", "text": "x"}), 401, "", "not signed in")

    def test_a_viewer_may_look_but_not_record(self):
        self.sign_in("vi")
        self.assertEqual(self.client.get("/api/engines/T-1").status_code, 200)
        self.refused(self.enter({"kind": "note", "text": "x"}), 403, "", "may look but not record")
        self.assertEqual(Entry.objects.count(), 0)

    def test_a_request_without_the_csrf_token_is_refused(self):
        self.client = Client(enforce_csrf_checks=True)
        self.client.force_login(User.objects.get(username="bo"), backend="shop.backends.PeopleBackend")
        self.assertEqual(self.enter({"kind": "note", "text": "x"}).status_code, 403)
        self.assertEqual(Entry.objects.count(), 0)

    def test_one_confirmation_is_for_one_signature_on_what_was_shown(self):
        bench = self.degree()
        self.must(act("cam_decision", camshaft="cam", advance_deg=bench["state"]["timing"]["cams"][0]["advance_deg"]))
        self.sign_in("lena")
        sent = act("sign_off", remark="as it is")
        self.refused(self.confirm(sent, seen=3, status=409), 409, "seen", "has changed since this was shown")
        self.confirm(sent)
        self.refused(self.enter(act("sign_off", remark="otherwise")), 403, "password", "PIN or password once more")
        self.must({"kind": "note", "text": "the state is another now"})
        self.refused(self.enter(sent), 403, "password", "PIN or password once more")
        self.confirm(sent)
        signed = self.must(sent)["tape"][0]["id"]
        self.must({"kind": "strike", "strikes": signed, "reason": "too early"})
        self.refused(self.enter(sent), 403, "password", "PIN or password once more")

    def test_only_the_lead_signs_and_strikes_a_signature(self):
        bench = self.degree()
        advance = bench["state"]["timing"]["cams"][0]["advance_deg"]
        self.must(act("cam_decision", camshaft="cam", advance_deg=advance))
        self.refused(self.enter(act("sign_off")), 403, "", "Only the lead")
        self.sign_in("lena")
        self.refused(self.enter(act("sign_off")), 403, "password", "A signature asks for your PIN or password once more")
        sent = act("sign_off", head="made up", shown=["all is well"])
        self.refused(self.confirm(sent, password="not hers", status=403), 403, "password", "neither your password nor your PIN")
        self.confirm(sent)
        signed = self.must(sent)
        self.assertTrue(signed["state"]["signed"])
        kept = Entry.objects.get(kind="sign_off").body
        self.assertEqual(kept["head"], Entry.objects.get(seq=Entry.objects.count() - 1).digest)
        self.assertRegex(kept["shown"][1], r"^Camshaft: .*, U = 0\.\d\d°, in$")
        self.refused(self.enter({"kind": "note", "text": "one more thing"}), 422, "entry.kind", "The record is signed")
        strike = {"kind": "strike", "strikes": signed["tape"][0]["id"], "reason": "wrong engine"}
        self.sign_in("bo")
        self.refused(self.enter(strike), 403, "", "Only the lead")
        self.sign_in("lena")
        self.assertFalse(self.must(strike)["state"]["signed"])


class AppendOnlyTests(ShopCase):
    def setUp(self):
        super().setUp()
        self.must({"kind": "note", "text": "cold"})
        self.row = Entry.objects.get()

    def test_an_entry_cannot_be_changed_or_deleted(self):
        self.row.body = {"kind": "note", "text": "warm"}
        changes = (
            self.row.save,
            self.row.delete,
            Entry.objects.all().delete,
            lambda: Entry.objects.update(kind="x"),
            lambda: Entry.objects.bulk_update([self.row], ["body"]),
            lambda: Entry.objects.update_or_create(id=self.row.id, defaults={"kind": "x"}),
        )
        for change in changes:
            self.assertRaises(TypeError, change)
        self.assertEqual(Entry.objects.get().body["text"], "cold")

    def test_no_endpoint_changes_or_deletes_one(self):
        for method in ("put", "patch", "delete"):
            answer = getattr(self.client, method)("/api/engines/T-1/entries", {}, content_type=JSON)
            self.assertEqual(answer.status_code, 405)

    def test_an_engine_with_a_ledger_cannot_be_deleted(self):
        from django.db.models import ProtectedError

        self.assertRaises(ProtectedError, self.row.engine.delete)

    def test_two_entries_cannot_have_one_place(self):
        with self.assertRaises(IntegrityError), transaction.atomic():
            row = self.row
            Entry.objects.create(engine=row.engine, seq=1, kind="note", body={}, at=row.at, by=row.by, revision=row.revision)


class WhoTypedTests(ShopCase):
    def test_what_one_person_typed_is_not_stored_under_anothers_name(self):
        answer = self.enter({"kind": "note", "text": "x"}, by="vi")
        self.refused(answer, 409, "by", "it waits until vi signs in again")
        self.must({"kind": "note", "text": "x"}, by="bo")
        self.assertEqual([row.by.username for row in Entry.objects.all()], ["bo"])


class VersionTests(ShopCase):
    def test_what_was_typed_before_an_update_is_still_taken(self):
        """An outbox may hold entries of version 1."""
        setup = {key: value for key, value in SETUP.items() if key != "kind"}
        self.must({"kind": "decision", "decision": {"subject": "setup", **setup}}, version=1)
        self.assertEqual((Entry.objects.get().kind, Entry.objects.get().version), ("wheel_setup", 2))
        self.refused(self.enter({"kind": "note", "text": "x"}, version=3), 422, "version", "must be at most 2")

    def test_an_entry_is_judged_on_the_revision_that_holds_at_that_moment(self):
        """The bench was fetched before the lead moved the engine on."""
        self.find_tdc()
        seen = Engine.objects.get(serial="T-1")
        other = quern_4_copy()
        other["cam_card"] = [line for line in other["cam_card"] if line["valve"] == "exhaust"]
        revision = add_revision(other, by=None)
        Engine.objects.filter(serial="T-1").update(revision=revision)
        body = bridge.HOUSE.bodies.validate_python(lift("intake", "opening", "16", "before TDC"))
        with self.assertRaises(EntryRefused) as refused:
            services.record(seen.serial, entry_id=uuid.uuid4(), body=body, by=seen.builder)
        self.assertIn("no line for the intake valve", str(refused.exception))


class KeptLedgerTests(ShopCase):
    """What this process keeps of a ledger never differs from the rows."""

    def test_rows_added_elsewhere_are_seen(self):
        self.must({"kind": "note", "text": "one"})
        row = Entry.objects.get()
        put_row(row.engine, body={"kind": "note", "text": "two"})
        engine = Engine.objects.get(pk="T-1")
        self.assertEqual([entry.body.text for entry in bridge.ledger_of(engine).entries], ["one", "two"])

    def test_another_ledger_under_the_same_serial_is_read_anew(self):
        self.must({"kind": "note", "text": "one"})
        engine = Engine.objects.get(pk="T-1")
        kept = bridge.ledger_of(engine)
        other = [replace(kept.entries[0], id=uuid.uuid4())]
        bridge._kept["T-1"] = replace(kept, folded=bridge.HOUSE.fold(kept.folded.document, other), head="of another")
        self.assertEqual(bridge.ledger_of(engine).entries, kept.entries)

    def test_a_refused_entry_leaves_nothing_behind(self):
        self.must({"kind": "note", "text": "one"})
        self.enter({"kind": "note", "text": " "})
        self.assertEqual(self.client.get("/api/engines/T-1").json()["entries"], 1)
