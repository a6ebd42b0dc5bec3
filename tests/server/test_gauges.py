"""Gauges: entered by the lead, tried against each other, known by what they were used on."""

from datetime import timedelta

from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from shop.models import Gauge, GaugeUse
from tests.engines import family_copy_with_run
from tests.server.cases import JSON, ShopCase
from tests.server.played import play_until

NEW = {"name": "long wrench", "kind": "wrench", "resolution": 1, "expanded_uncertainty": 4, "least": 40, "most": 200}


class GaugeTests(ShopCase):
    def set_gauge(self, code="T7", **change):
        return self.client.put(f"/api/gauges/{code}", {**NEW, **change}, content_type=JSON)

    def check(self, code="T2", **change):
        body = {"against": "T1", "true": 20, "shown": 20.5, "note": "6 bar", **change}
        return self.client.post(f"/api/gauges/{code}/checks", body, content_type=JSON)

    def test_only_the_lead_adds_and_changes_gauges(self):
        self.assertEqual(self.set_gauge().status_code, 403)
        self.sign_in("lena")
        answer = self.set_gauge(certificate="HW-9", due=None)
        self.assertEqual(answer.status_code, 200)
        gauge = next(one for one in answer.json() if one["code"] == "T7")
        self.assertEqual((gauge["unit"], gauge["certificate"], gauge["overdue"], gauge["pulls"]), ("N·m", "HW-9", False, 0))

    def test_what_cannot_be_is_refused_at_its_field(self):
        self.sign_in("lena")
        for field, change in (
            ("least", {"least": 300}),
            ("resolution", {"resolution": 0}),
            ("kind", {"kind": "spanner"}),
            ("address", {"address": "spy:///dev/x?file=y"}),
        ):
            with self.subTest(field=field):
                answer = self.set_gauge(**change)
                self.assertEqual(answer.status_code, 422)
                self.assertTrue(answer.json()["field"].endswith(field), answer.json())

    def test_a_gauge_that_was_used_stays_of_its_kind(self):
        self.sign_in("lena")
        GaugeUse.objects.create(gauge_id="T2", serial="T-1", seq=1, kind="pull", at=timezone.now(), by_name="Bo")
        self.assertEqual(self.set_gauge("T2", kind="bar").json()["field"], "kind")

    def test_tried_against_another_that_measures_the_same_and_is_in_date(self):
        self.assertEqual(self.check(against="D2").json()["field"], "against")
        self.assertEqual(self.check(against="T2").json()["field"], "against")
        Gauge.objects.filter(code="T1").update(due=timezone.localdate() - timedelta(days=1))
        self.assertIn("ran out", self.check().json()["sentence"])
        Gauge.objects.filter(code="T1").update(due=None)
        answer = self.check()
        self.assertEqual(answer.status_code, 201)
        checked = {one["code"]: one["checked"] for one in answer.json()}
        self.assertEqual((checked["T2"], checked["T1"]), (timezone.localdate().isoformat(), None))
        self.assertEqual(self.client.get("/api/gauges/T2/history").json()["checks"][0]["note"], "6 bar")

    def test_a_viewer_checks_nothing(self):
        self.sign_in("vi")
        self.assertEqual(self.check().status_code, 403)
        self.assertEqual(self.client.get("/api/gauges/NONE/history").status_code, 404)

    def test_pulls_are_counted_from_the_calibration_on(self):
        now = timezone.now()
        for days, kind in ((0, "pull"), (1, "pull"), (40, "pull"), (1, "joint_ready")):
            GaugeUse.objects.create(gauge_id="T2", serial="T-1", seq=1, kind=kind, at=now - timedelta(days=days), by_name="Bo")
        Gauge.objects.filter(code="T2").update(calibrated=(now - timedelta(days=10)).date())
        pulls = {one["code"]: one["pulls"] for one in self.client.get("/api/gauges").json()}
        self.assertEqual((pulls["T2"], pulls["T1"]), (2, 0))

    def test_the_list_takes_one_query_for_all(self):
        with CaptureQueriesContext(connection) as queries:
            self.client.get("/api/gauges")
        self.assertEqual(len([query for query in queries if "shop_gauge" in query["sql"]]), 1)


class UsedOnTests(ShopCase):
    def test_what_was_pulled_with_a_wrench_is_found_by_it(self):
        """A wrench is found out of true: which engines, which entries."""
        from engine.services import add_revision
        from work.models import Engine

        revision = add_revision(family_copy_with_run("wick-1"), by=None)
        Engine.objects.create(serial="W-1", revision=revision, builder=Engine.objects.get(pk="T-1").builder)
        self.assertEqual(play_until("W-1", "cam-bolts").key, "cam-bolts")
        history = self.client.get("/api/gauges/T1/history").json()
        self.assertEqual(history["engines"], ["W-1"])
        self.assertEqual([use["kind"] for use in history["uses"]].count("pull"), 8)
        table = b"".join(self.client.get("/api/engines/W-1/pulls.csv").streaming_content).decode()
        self.assertEqual(len(table.splitlines()), 1 + 9)
        look = self.client.get("/api/engines/W-1/joints/studs").json()
        self.assertEqual([stage["done"] for stage in look["stages"]], [1, 4, 4])
        self.assertEqual(self.client.get("/api/engines/W-1/joints/gone").status_code, 404)
        self.assertEqual(self.client.get("/api/engines/W-1/joints/studs/traces").json(), [])


class WorkingsTests(ShopCase):
    def bolt(self, **asked):
        return self.client.get("/api/workings/bolt", {"thread": "M10", "property_class": "8.8", **asked})

    def test_one_bolt_without_an_engine(self):
        lines = {line["name"]: line for line in self.bolt(torque=45, grip_mm=50, angle_deg=90, lever_mm=400, extension_mm=100).json()}
        self.assertEqual(lines["Preload by torque"]["value"], "21.3 to 38.3 kN")
        self.assertEqual(lines["Set the wrench to"]["value"], "36 N·m")
        self.assertTrue(lines["Generic torque"]["look_again"])
        self.assertTrue(all(line["source"] and line["formula"] for line in lines.values()))

    def test_what_is_not_known_is_refused_at_its_field(self):
        for field, asked in (("thread", {"thread": "10"}), ("property_class", {"property_class": "7.7"}), ("torque", {"torque": "tight"})):
            with self.subTest(field=field):
                answer = self.bolt(**asked)
                self.assertEqual((answer.status_code, answer.json()["field"].split(".")[-1]), (422, field))
