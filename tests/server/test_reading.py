"""What the API shows: Floor, Bench, older tape, families, gauges, and what is handed over."""

import csv
import io
import json
from datetime import timedelta
from uuid import UUID

from django.test import Client
from django.utils import timezone

from gurvo_core.reading import read_document
from gurvo_core.work import LedgerEntry, replay
from tests.engines import lift
from tests.server.cases import JSON, ShopCase
from work.bridge import BODY
from work.models import Engine

PATHS = (
    "/api/engines",
    "/api/engines/T-1",
    "/api/engines/T-1/entries",
    "/api/engines/T-1/record.json",
    "/api/engines/T-1/record.pdf",
    "/api/engines/T-1/readings.csv",
    "/api/families",
    "/api/families/quern-4",
    "/api/gauges",
    "/api/openapi.json",
)


class DoorTests(ShopCase):
    def test_strangers_see_nothing(self):
        self.client = Client()
        for path in PATHS:
            with self.subTest(path=path):
                self.assertEqual(self.client.get(path).status_code, 401)

    def test_a_viewer_sees_everything(self):
        self.sign_in("vi")
        for path in PATHS:
            with self.subTest(path=path):
                self.assertEqual(self.client.get(path).status_code, 200)

    def test_what_is_not_there(self):
        for path in ("/api/engines/T-9", "/api/families/none", "/api/engines/T-9/record.pdf"):
            with self.subTest(path=path):
                self.assertEqual(self.client.get(path).json()["code"], "missing")


class FloorTests(ShopCase):
    def test_a_row_says_what_the_engine_waits_for(self):
        self.degree()
        row = self.client.get("/api/engines").json()[0]
        self.assertEqual((row["serial"], row["step"], row["waits_for"]), ("T-1", "Degree the cam", "a decision about the cam"))
        self.assertEqual((row["verdict"], row["free_to_turn"]), ("in", True))
        self.assertEqual([bead["status"] for bead in row["beads"]], ["done", "done", "now", "open"])

    def test_a_late_engine_is_late_by_its_days(self):
        Engine.objects.filter(serial="T-2").update(promised=timezone.localdate() - timedelta(days=3))
        late = {row["serial"]: row["late_days"] for row in self.client.get("/api/engines").json()}
        self.assertEqual(late, {"T-1": 0, "T-2": 3})

    def test_a_long_floor_costs_no_more_than_one_query_an_engine(self):
        self.client.get("/api/engines")
        first = Engine.objects.get(serial="T-1")
        for n in range(20):
            Engine.objects.create(serial=f"L-{n}", revision=first.revision)
        self.client.get("/api/engines")
        with self.assertNumQueries(2 + 1 + 22):  # session and person, engines, one look at each ledger
            self.client.get("/api/engines")


class PutOnStandTests(ShopCase):
    def put(self, **change):
        body = {"serial": "T-3", "family": "quern-4", "purpose": "sprayer", "stand": 3, "promised": None, **change}
        return self.client.post("/api/engines", body, content_type=JSON)

    def test_an_engine_is_put_on_a_stand(self):
        answer = self.put()
        self.assertEqual((answer.status_code, answer.json()["builder"]), (201, "Bo"))
        self.assertEqual(self.client.get("/api/engines/T-3").json()["engine"]["revision"], 1)

    def test_refusals(self):
        self.refused(self.put(stand=1), 409, "stand", "Stand 1 holds T-1")
        self.refused(self.put(serial="t-1"), 409, "serial", "already")
        self.refused(self.put(serial="no spaces"), 422, "serial", "pattern")
        self.refused(self.put(family="none"), 422, "family", "no family none")
        self.refused(self.put(stand=0), 422, "stand", "greater than or equal to 1")
        self.sign_in("vi")
        self.refused(self.put(), 403, "", "may look but not record")


class TapeTests(ShopCase):
    def test_older_lines_come_in_pages(self):
        for n in range(70):
            self.must({"kind": "note", "text": f"note {n}"})
        bench = self.client.get("/api/engines/T-1").json()
        self.assertEqual((bench["entries"], len(bench["tape"]), bench["tape"][0]["detail"]), (70, 60, "note 69"))
        older = self.client.get("/api/engines/T-1/entries?before=11").json()
        self.assertEqual([line["seq"] for line in older], list(range(10, 0, -1)))
        self.refused(self.client.get("/api/engines/T-1/entries?before=0"), 422, "before", "greater than or equal to 1")


class HandOverTests(ShopCase):
    def setUp(self):
        super().setUp()
        self.find_tdc()
        self.wrong = self.must(lift("intake", "opening", "72,5", "before TDC"))["tape"][0]["id"]
        self.must({"kind": "strike", "strikes": self.wrong, "reason": "=misread"})
        self.must(lift("intake", "opening", "16", "before TDC"))

    def test_the_json_record_replays_to_the_same_state(self):
        record = json.loads(self.client.get("/api/engines/T-1/record.json").content)
        self.assertEqual((record["format"], record["version"]), ("gurvo-record", 1))
        entries = []
        for row in record["entries"]:
            from gurvo_core.work import Gauge

            gauges = tuple(Gauge.model_validate(gauge) for gauge in row["gauges"])
            at = timezone.datetime.fromisoformat(row["at"])
            body = BODY.validate_python(row["body"])
            entries.append(LedgerEntry(id=UUID(row["id"]), seq=row["seq"], at=at, by=row["by"], body=body, gauges=gauges))
        state = replay(read_document(record["document"]), entries)
        self.assertEqual(state.model_dump(mode="json"), self._without_ids(self.client.get("/api/engines/T-1").json()["state"], state))

    def _without_ids(self, shown, state):
        """The shown state, through the same model, so that both are compared as plain data."""
        return type(state).model_validate(shown).model_dump(mode="json")

    def test_the_csv_has_what_was_typed_what_it_is_and_what_was_struck(self):
        rows = list(csv.DictReader(io.StringIO(self.client.get("/api/engines/T-1/readings.csv").content.decode())))
        self.assertEqual([row["what"] for row in rows], ["positive_stop before", "positive_stop after", "intake opening", "intake opening"])
        struck = rows[2]
        self.assertEqual((struck["wheel_typed"], struck["wheel_deg"], struck["lift_mm"]), ("72,5", "287.5", "1.0"))
        self.assertEqual(struck["struck_because"], "'=misread")  # never a formula
        self.assertEqual((rows[3]["wheel_gauge"], rows[3]["u_wheel_deg"]), ("W1", "0.1756"))

    def test_the_pdf_shows_readings_struck_ones_and_who(self):
        from pathlib import Path
        from shutil import which
        from subprocess import run
        from tempfile import TemporaryDirectory

        pdf = self.client.get("/api/engines/T-1/record.pdf")
        self.assertEqual(pdf.headers["Content-Type"], "application/pdf")
        self.assertTrue(pdf.content.startswith(b"%PDF"))
        if which("pdftotext") is None:
            self.skipTest("pdftotext is not on this machine")
        with TemporaryDirectory() as folder:
            file = Path(folder) / "record.pdf"
            file.write_bytes(pdf.content)
            text = run(["pdftotext", "-layout", str(file), "-"], capture_output=True, text=True, check=True).stdout
        for words in (
            "T-1",
            "72,5° before TDC",
            "struck by Bo: =misread",
            "U = 0.25°",
            "W1 U = 0.35°, D2 U = 0.010 mm",
            "15.8° before TDC",
            "not signed yet",
        ):
            with self.subTest(words=words):
                self.assertIn(words, text)


class FamilyAndGaugeTests(ShopCase):
    def test_a_family_hands_out_its_newest_document(self):
        family = self.client.get("/api/families/quern-4").json()
        self.assertEqual((family["revision"], family["document"]["identity"]["name"]), (1, "Quern 4"))
        self.assertEqual(self.client.get("/api/families").json()[0]["engines"], 2)

    def test_a_gauge_past_its_day_is_overdue(self):
        from shop.models import Gauge

        Gauge.objects.filter(code="D2").update(due=timezone.localdate() - timedelta(days=1))
        overdue = {gauge["code"]: gauge["overdue"] for gauge in self.client.get("/api/gauges").json()}
        self.assertEqual(overdue, {"W1": False, "D2": True})

    def test_a_reading_with_an_overdue_gauge_warns(self):
        from shop.models import Gauge

        Gauge.objects.filter(code="D2").update(due=timezone.localdate() - timedelta(days=1))
        self.assertIn("its calibration was due", self.find_tdc()["state"]["warnings"][0])

    def test_a_revision_is_never_changed(self):
        from engine.models import Revision

        self.assertRaises(TypeError, Revision.objects.get().save)
        self.assertRaises(TypeError, Revision.objects.all().delete)
