"""The demo is the scenario it promises to be."""

import json

from django.test import TestCase

from demo import scenario
from demo.documents import FAMILIES
from demo.people import GAUGES, PEOPLE
from engine.bridge import about_of, document_of
from engine.models import Family
from gurvo_core.reading import read_document
from shop.models import Gauge
from shop.roles import ROLES
from work.bridge import HOUSE, ledger_of
from work.models import Engine, Entry
from work.seals import document_digest


class DemoTests(TestCase):
    @classmethod
    def setUpTestData(cls):
        about_of.cache_clear()
        document_of.cache_clear()  # what another test's revision of the same number held
        document_digest.cache_clear()
        scenario.load()

    def state(self, serial):
        return HOUSE.show(ledger_of(Engine.objects.get(serial=serial)).folded)

    def test_each_engine_is_where_it_should_be(self):
        waits = {
            "Q4-0169": "nothing: signed",
            "Q4-0170": "a decision about the cam",
            "Q4-0171": "intake, closing side",
            "Q4-0172": "intake, opening side",
            "Q4-0173": "wheel and dial",
            "C6-0031": "intake cam A, opening side",
            "D6-0012": "method",
            "F4-0044": "wheel and dial",
            "W1-0007": "wheel and dial",
        }
        found = {serial: self.state(serial).waits_for for serial in waits}
        self.assertEqual(found, waits)

    def test_one_is_finished_in_and_signed_by_the_lead(self):
        finished = self.state("Q4-0169")
        self.assertEqual((finished.signed, finished.timing.cams[0].verdict), (True, "in"))
        self.assertEqual(Entry.objects.filter(engine="Q4-0169").latest("seq").by.username, "oren")

    def test_one_cam_is_out_and_another_slot_brings_it_in(self):
        cam = self.state("Q4-0170").timing.cams[0]
        self.assertEqual((cam.verdict, cam.offers[0].moves[0].place), ("out", "R4"))
        self.assertLess(abs(cam.offers[0].residual_deg), 1)

    def test_one_is_half_degreed_with_a_struck_reading(self):
        kinds = list(Entry.objects.filter(engine="Q4-0171").values_list("kind", flat=True))
        self.assertEqual((kinds.count("strike"), kinds.count("lift_reading")), (1, 2))

    def test_every_role_and_every_kind_of_gauge_is_there(self):
        self.assertEqual({person["role"] for person in PEOPLE}, set(ROLES))
        self.assertEqual(Gauge.objects.count(), len(GAUGES))
        self.assertEqual({gauge["kind"] for gauge in GAUGES}, set(Gauge.Kind.values))

    def test_one_engine_is_on_an_older_revision_than_its_familys_newest(self):
        engine = Engine.objects.get(serial="W1-0007")
        self.assertEqual((engine.revision.number, engine.revision.family.revisions.count()), (1, 3))

    def test_ledgers_read_like_days_of_work_in_order(self):
        for engine in Engine.objects.all():
            times = list(Entry.objects.filter(engine=engine).order_by("seq").values_list("at", flat=True))
            self.assertEqual(times, sorted(set(times)))

    def test_every_shipped_family_is_sound(self):
        files = sorted(FAMILIES.glob("*.json"))
        self.assertEqual(len(files), Family.objects.count())
        for file in files:
            with self.subTest(file=file.name):
                self.assertEqual(read_document(json.loads(file.read_text("utf-8"))).identity.family, file.stem)
