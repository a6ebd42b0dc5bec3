"""What the API shows: Floor, Bench, older tape, families, gauges, and what is handed over."""

import csv
import gzip
import io
import json
import re
from datetime import timedelta
from uuid import UUID

from django.test import Client
from django.utils import timezone

from gurvo_core.ledger import Gauge, LedgerEntry
from gurvo_core.reading import read_document
from gurvo_core.work import HOUSE, replay
from tests.engines import SETUP, lift
from tests.server.cases import JSON, ShopCase, put_row
from work.models import Engine, EngineSummary
from work.services import keep_summary

PATHS = (
    "/api/engines",
    "/api/engines/T-1",
    "/api/engines/T-1/entries",
    "/api/engines/T-1/record.json",
    "/api/engines/T-1/record.pdf",
    "/api/engines/T-1/readings.csv",
    "/api/engines/T-1/scene",
    "/api/families",
    "/api/families/quern-4",
    "/api/gauges",
    "/api/openapi.json",
    "/api/docs",
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

    def test_the_page_of_the_api_comes_with_the_app(self):
        """All that it names is ours to hand out: nothing is fetched from elsewhere."""
        page = self.client.get("/api/docs").content.decode()
        named = re.findall(r'(?:src|href)="([^"]+)"', page)
        self.assertGreater(len(named), 2)
        for path in named:
            with self.subTest(path=path):
                self.assertTrue(path.startswith("/static/"))
                self.assertEqual(self.client.get(path).status_code, 200)

    def test_what_is_not_there(self):
        for path in ("/api/engines/T-9", "/api/families/none", "/api/engines/T-9/record.pdf"):
            with self.subTest(path=path):
                self.assertEqual(self.client.get(path).json()["code"], "missing")


def still(view):
    """What of a view from above does not turn with the cams."""
    return [part for part in view["parts"] if not part["id"].startswith("noses:")]


class SceneTests(ShopCase):
    def test_a_picture_is_made_once_and_its_pistons_stand_by_the_angle(self):
        at_top, at_bottom = (self.client.get("/api/engines/T-1/scene", {"crank_deg": deg}) for deg in (0, 180))
        again = self.client.get("/api/engines/T-1/scene", {"crank_deg": 0}, headers={"if-none-match": at_top["ETag"]})
        self.assertEqual((again.status_code, at_top.json()["steps"] == at_bottom.json()["steps"]), (304, True))
        self.assertNotEqual(at_top.json()["views"][0], at_bottom.json()["views"][0])
        self.assertEqual(still(at_top.json()["views"][1]), still(at_bottom.json()["views"][1]))

    def test_an_angle_that_is_none(self):
        for angle in ("up", "-1", "nan", "99999"):
            with self.subTest(angle):
                self.assertEqual(self.client.get("/api/engines/T-1/scene", {"crank_deg": angle}).status_code, 422)


class FloorTests(ShopCase):
    def test_a_row_says_what_the_engine_waits_for(self):
        self.degree()
        row = self.client.get("/api/engines").json()["rows"][0]
        self.assertEqual((row["serial"], row["step"], row["waits_for"]), ("T-1", "Degree the cam", "a decision about the cam"))
        self.assertEqual((row["verdict"], row["free_to_turn"]), ("in", True))
        self.assertEqual([bead["status"] for bead in row["beads"]], ["done", "done", "now", "open"])

    def test_a_late_engine_is_late_by_its_days(self):
        Engine.objects.filter(serial="T-2").update(promised=timezone.localdate() - timedelta(days=3))
        late = {row["serial"]: row["late_days"] for row in self.client.get("/api/engines").json()["rows"]}
        self.assertEqual(late, {"T-1": 0, "T-2": 3})

    def test_a_long_floor_comes_in_pages_of_a_few_queries(self):
        first = Engine.objects.get(serial="T-1")
        for n in range(60):
            keep_summary(Engine.objects.create(serial=f"L-{n:02}", revision=first.revision))
        self.client.get("/api/engines")
        with self.assertNumQueries(4):  # session, person, what changed, what does not fit: the page is known
            page = self.client.get("/api/engines").json()
        with self.assertNumQueries(4):  # nor are the rows of another page read again
            self.client.get("/api/engines?page=2")
        self.assertEqual((len(page["rows"]), page["found"], page["pages"], page["engines"], page["on_stands"]), (50, 62, 2, 62, 2))
        self.assertEqual(len(self.client.get("/api/engines?page=2").json()["rows"]), 12)

    def test_engines_are_found_by_words_and_by_what_holds_of_them(self):
        self.degree()
        Engine.objects.filter(serial="T-2").update(promised=timezone.localdate() - timedelta(days=3))
        finds = {
            "search=pump bo": ["T-1"],
            "search=quern": ["T-1", "T-2"],
            "search=decision": ["T-1"],
            "late=true": ["T-2"],
            "free_to_turn=true": ["T-1"],
            "free_to_turn=false": ["T-2"],
            "builder=bo&family=quern-4&open_only=true": ["T-1", "T-2"],
            "builder=lena": [],
            "loose_ends=true": [],
        }
        for query, serials in finds.items():
            with self.subTest(query=query):
                self.assertEqual([row["serial"] for row in self.client.get(f"/api/engines?{query}").json()["rows"]], serials)
        self.refused(self.client.get("/api/engines?page=0"), 422, "page", "must be at least 1")

    def test_a_summary_of_other_rules_is_worked_out_anew(self):
        EngineSummary.objects.update(rules=1, waits_for="something of old")
        waits = {row["waits_for"] for row in self.client.get("/api/engines").json()["rows"]}
        self.assertEqual(waits, {"wheel and dial"})

    def test_one_ledger_that_cannot_be_read_silences_nobody_else(self):
        """An entry of a future version, one that is no entry, and a document that is none: each is said, the others are shown."""
        self.must({"kind": "note", "text": "cold"}, serial="T-2")
        spoils = {
            "a future version": {"version": 9},
            "no entry at all": {"body": {"kind": "guess"}},
            "an upcaster that fails": {"version": 1, "body": {"kind": "decision", "decision": {"subject": "setup"}}},
        }
        for what, change in spoils.items():
            engine = Engine.objects.get(serial="T-1")
            put_row(engine, **{"body": {"kind": "note", "text": "x"}, **change})
            with self.subTest(what=what):
                self.refused(self.client.get("/api/engines/T-1"), 409, "", "T-1 cannot be shown: entry")
                rows = {row["serial"]: row["broken"] for row in self.client.get("/api/engines").json()["rows"]}
                self.assertIn("Nothing of it is lost", rows["T-1"])
                self.assertEqual(rows["T-2"], "")
                self.assertEqual(self.client.get("/api/engines/T-2").status_code, 200)
                self.assertEqual(self.enter({"kind": "note", "text": "y"}).status_code, 409)


class UnchangedTests(ShopCase):
    """Somebody who has the answer is told that it still holds, until anything in it changes."""

    def again(self, path, tag):
        return self.client.get(path, headers={"If-None-Match": tag})

    def test_a_bench_a_floor_and_a_twin_are_sent_once(self):
        for path in ("/api/engines/T-1", "/api/engines", "/api/engines/T-1/twin", "/api/families/quern-4/revisions/1/twin"):
            tag = self.client.get(path)["ETag"]
            with self.subTest(path=path):
                same = self.again(path, tag)
                self.assertEqual((same.status_code, same.content), (304, b""))

    def test_an_entry_of_anybody_is_seen_on_bench_and_floor(self):
        tags = {path: self.client.get(path)["ETag"] for path in ("/api/engines/T-1", "/api/engines", "/api/engines/T-2")}
        self.sign_in("lena")
        self.must({"kind": "note", "text": "x"})
        self.sign_in("bo")
        found = {path: self.again(path, tag).status_code for path, tag in tags.items()}
        self.assertEqual(found, {"/api/engines/T-1": 200, "/api/engines": 200, "/api/engines/T-2": 304})

    def test_a_misfit_that_another_process_finds_is_seen_on_bench_and_floor(self):
        tags = {path: self.client.get(path)["ETag"] for path in ("/api/engines/T-1", "/api/engines")}
        EngineSummary.objects.filter(engine="T-1").update(chain="entry 3 was altered")
        self.assertEqual({self.again(path, tag).status_code for path, tag in tags.items()}, {200})
        self.assertEqual(self.client.get("/api/engines").json()["rows"][0]["chain"], "entry 3 was altered")

    def test_a_bench_is_not_anothers(self):
        tag = self.client.get("/api/engines/T-1")["ETag"]
        self.sign_in("vi")
        self.assertEqual(self.again("/api/engines/T-1", tag).status_code, 200)

    def test_a_twin_goes_out_packed(self):
        plain = self.client.get("/api/engines/T-1/twin")
        packed = self.client.get("/api/engines/T-1/twin", headers={"Accept-Encoding": "gzip"})
        self.assertEqual(gzip.decompress(packed.content), plain.content)
        self.assertLess(len(packed.content), len(plain.content) / 5)


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
        self.refused(self.put(serial="no spaces"), 422, "serial", "no spaces")
        self.refused(self.put(family="none"), 422, "family", "no family none")
        self.refused(self.put(stand=0), 422, "stand", "must be at least 1")
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
        self.refused(self.client.get("/api/engines/T-1/entries?before=0"), 422, "before", "must be at least 1")


class HandOverTests(ShopCase):
    def setUp(self):
        super().setUp()
        self.find_tdc()
        self.wrong = self.must(lift("intake", "opening", "72,5", "before TDC"))["tape"][0]["id"]
        self.must({"kind": "strike", "strikes": self.wrong, "reason": "=misread"})
        self.must(lift("intake", "opening", "16", "before TDC"))

    def test_the_json_record_replays_to_the_same_state(self):
        record = json.loads(self.client.get("/api/engines/T-1/record.json").getvalue())
        self.assertEqual((record["format"], record["version"]), ("gurvo-record", 3))
        entries = []
        for row in record["entries"]:
            gauges = tuple(Gauge.model_validate(gauge) for gauge in row["gauges"])
            at = timezone.datetime.fromisoformat(row["at"])
            body = HOUSE.read(row["body"], row["version"])
            entries.append(LedgerEntry(id=UUID(row["id"]), seq=row["seq"], at=at, by=row["by"]["name"], body=body, gauges=gauges))
        state = replay(read_document(record["documents"][record["engine"]["document"]]), entries)
        self.assertEqual(state.model_dump(mode="json"), self._without_ids(self.client.get("/api/engines/T-1").json()["state"], state))

    def _without_ids(self, shown, state):
        """The shown state, through the same model, so that both are compared as plain data."""
        return type(state).model_validate(shown).model_dump(mode="json")

    def test_the_csv_has_what_was_typed_what_it_is_and_what_was_struck(self):
        rows = list(csv.DictReader(io.StringIO(self.client.get("/api/engines/T-1/readings.csv").getvalue().decode())))
        self.assertEqual([row["what"] for row in rows], ["positive_stop before", "positive_stop after", "intake opening", "intake opening"])
        struck = rows[2]
        self.assertEqual((struck["wheel_typed"], struck["wheel_deg"], struck["lift_mm"]), ("72,5", "287.5", "1.0"))
        self.assertEqual(struck["struck_because"], "'=misread")  # never a formula
        self.assertEqual((rows[3]["wheel_gauge"], rows[3]["u_wheel_deg"]), ("W1", "0.1756"))


class FamilyAndGaugeTests(ShopCase):
    def test_a_family_hands_out_its_newest_document(self):
        family = self.client.get("/api/families/quern-4").json()
        self.assertEqual((family["revision"], family["document"]["identity"]["name"]), (1, "Quern 4"))
        self.assertEqual(self.client.get("/api/families").json()[0]["engines"], 2)

    def test_a_gauge_past_its_day_is_overdue(self):
        from shop.models import Gauge

        Gauge.objects.filter(code="D2").update(due=timezone.localdate() - timedelta(days=1))
        overdue = {gauge["code"]: gauge["overdue"] for gauge in self.client.get("/api/gauges").json()}
        self.assertEqual({code for code, is_late in overdue.items() if is_late}, {"D2"})

    def test_a_wheel_or_dial_that_is_overdue_is_taken_for_a_reason_and_warned_of(self):
        from shop.models import Gauge

        Gauge.objects.filter(code="D2").update(due=timezone.localdate() - timedelta(days=1))
        self.refused(self.enter(SETUP), 409, "entry.dial_gauge", "The calibration of D2 ran out on")
        self.assertIn("its calibration was due", self.find_tdc("held against D4 today")["state"]["warnings"][0])

    def test_a_revision_is_never_changed(self):
        from engine.models import Revision

        self.assertRaises(TypeError, Revision.objects.get().save)
        self.assertRaises(TypeError, Revision.objects.all().delete)
