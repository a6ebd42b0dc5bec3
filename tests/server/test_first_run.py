"""The first start of a shop: its first lead, once and by whoever reads the key; and examples to begin with."""

from django.contrib.auth.models import User
from django.core.management import CommandError, call_command
from django.db import connection
from django.db.migrations.recorder import MigrationRecorder
from django.test import Client, TestCase, override_settings

from shop.daybook import book_all, daybook_faults
from shop.models import Gauge, Letterhead
from tests.server.cases import JSON, PASSWORD, ShopCase, forget_all

FIRST = "/api/session/first"
KEY = "abcd-efgh-jkmn"
SAID = {
    "key": KEY,
    "shop": "Fellside Works",
    "zone": "Europe/Zurich",
    "username": "ansel",
    "name": "Ansel Brook",
    "password": "a shed full of cranks",
}


@override_settings(FIRST_KEY=KEY)
class FirstLeadTest(TestCase):
    """Before anybody is there."""

    def setUp(self):
        forget_all()
        book_all()
        self.client = Client()

    def begin(self, **other):
        return self.client.post(FIRST, {**SAID, **other}, content_type=JSON)

    def test_a_new_shop_says_so_and_its_first_lead_is_signed_in(self):
        """Name, clock and lead are kept, the session is his, and everything stands in the daybook."""
        self.assertTrue(self.client.get("/api/session").json()["is_new"])
        answer = self.begin(key="ABCDEFGHJKMN")  # however it was typed
        self.assertEqual(answer.status_code, 201, answer.content)
        self.assertEqual(answer.json()["person"]["role"], "lead")
        self.assertFalse(answer.json()["is_new"])
        self.assertEqual(Letterhead.objects.get().name, "Fellside Works")
        self.assertEqual(self.client.patch("/api/people/ansel", {"pin": "4812"}, content_type=JSON).status_code, 200)
        self.assertEqual(list(daybook_faults()), [])

    def test_without_the_key_nobody_becomes_lead(self):
        """Another key, none, and a server that was given none are all turned away; nothing is kept of it."""
        self.assertEqual(self.begin(key="abcd-efgh-jkmm").json()["field"], "key")
        self.assertEqual(self.begin(key="").status_code, 403)
        with override_settings(FIRST_KEY=""):
            self.assertEqual(self.begin(key="").status_code, 403)
        self.assertFalse(User.objects.exists() or Letterhead.objects.exists())

    def test_what_is_refused_names_its_field_and_leaves_nothing(self):
        """A weak password, a zone that is none: one sentence beside the field, and no half of a shop."""
        for field, other in (("password", {"password": "12345678"}), ("zone", {"zone": "Hillside"}), ("name", {"name": " "})):
            answer = self.begin(**other)
            self.assertEqual((answer.status_code, answer.json()["field"]), (422, field))
        self.assertFalse(User.objects.exists() or Letterhead.objects.exists())

    def test_it_is_done_once(self):
        """Once somebody is there, the key is of no more use."""
        self.begin()
        self.assertEqual(Client().post(FIRST, {**SAID, "username": "other", "name": "Other"}, content_type=JSON).status_code, 409)
        self.assertEqual(User.objects.count(), 1)


class ToBeginWithTest(ShopCase):
    """Examples and usual gauges."""

    def test_a_lead_takes_an_example_in_a_builder_does_not(self):
        """By the same door as any document: once, and by a lead."""
        codes = [one["code"] for one in self.client.get("/api/examples").json()]
        self.assertIn("heath-4", codes)
        self.assertEqual(self.client.post("/api/examples/heath-4").status_code, 403)
        self.sign_in("lena")
        self.assertEqual(self.client.post("/api/examples/heath-4").json()["code"], "heath-4")
        self.assertEqual(self.client.post("/api/examples/heath-4").status_code, 409)
        self.assertEqual(self.client.post("/api/examples/..%2fscenario").status_code, 404)

    def test_usual_gauges_are_taken_as_they_are_offered(self):
        """Every one of them passes the door by which a gauge is entered."""
        self.sign_in("lena")
        for gauge in self.client.get("/api/gauges/usual").json():
            code = gauge.pop("code")
            gauge.pop("unit")
            self.assertEqual(self.client.put(f"/api/gauges/{code}", gauge, content_type=JSON).status_code, 200, code)
            self.assertEqual(Gauge.objects.get(code=code).expanded_uncertainty, gauge["expanded_uncertainty"])


class BenchDeviceTest(ShopCase):
    """A tablet that stays at the bench."""

    def setUp(self):
        super().setUp()
        self.sign_in("lena")
        self.client.patch("/api/people/bo", {"pin": "4812"}, content_type=JSON)
        self.tablet = Client()

    def code(self):
        return self.client.post("/api/benches", {"name": "bench 2"}, content_type=JSON).json()["code"]

    def pair(self, code):
        return self.tablet.post("/api/session/pair", {"code": code}, content_type=JSON)

    def at_bench(self, password, username="bo"):
        return self.tablet.post("/api/session/at-bench", {"username": username, "password": password}, content_type=JSON)

    def test_a_paired_device_asks_for_a_pin_alone(self):
        """Paired, it names people and lets whoever knows his PIN in; unpaired, it does neither."""
        self.assertEqual(self.tablet.get("/api/session/people").status_code, 401)
        self.assertEqual(self.pair(self.code().lower()).json()["bench"], "bench 2")
        self.assertIn({"username": "bo", "name": "Bo"}, self.tablet.get("/api/session/people").json())
        self.assertEqual(self.at_bench("4812").json()["person"]["username"], "bo")
        own = self.client.get("/api/benches").json()[0]
        self.assertEqual((own["by_name"], own["used_at"] is not None), ("Lena", True))
        self.client.delete(f"/api/benches/{own['id']}")
        self.tablet.delete("/api/session")
        self.assertEqual(self.at_bench("4812").status_code, 403)
        self.assertEqual(list(daybook_faults()), [])

    def test_a_screen_on_the_wall_sees_the_floor_and_nothing_else(self):
        """A paired device shows how the shop stands while nobody is signed in there; a bench and its picture it does not."""
        self.assertEqual(self.tablet.get("/api/engines").status_code, 401)
        self.pair(self.code())
        self.assertEqual(self.tablet.get("/api/engines").json()["engines"], 2)
        for path in ("/api/engines/T-1", "/api/engines/T-1/picture.svg", "/api/gauges", "/api/people"):
            self.assertEqual(self.tablet.get(path).status_code, 401, path)

    def test_a_pin_opens_no_door_elsewhere(self):
        """Neither a device that is not paired nor the ordinary door takes it."""
        self.assertEqual(self.at_bench("4812").status_code, 403)
        answer = self.tablet.post("/api/session", {"username": "bo", "password": "4812"}, content_type=JSON)
        self.assertEqual(answer.status_code, 401)

    def test_who_came_by_pin_decides_nothing_of_the_shop(self):
        """A lead's PIN at a bench is no password: people and devices ask for it."""
        self.client.patch("/api/people/lena", {"pin": "7351"}, content_type=JSON)
        self.pair(self.code())
        self.assertEqual(self.at_bench("7351", "lena").status_code, 200)
        self.assertEqual(self.tablet.post("/api/benches", {"name": "x"}, content_type=JSON).json()["code"], "password")
        self.assertEqual(self.tablet.post("/api/session/confirm", {"password": PASSWORD}, content_type=JSON).status_code, 204)
        self.assertEqual(self.tablet.post("/api/benches", {"name": "x"}, content_type=JSON).status_code, 201)

    def test_a_code_holds_once_and_only_leads_show_one(self):
        """The second device with the same code, one that was made up, and a builder's wish are refused."""
        code = self.code()
        self.pair(code)
        for other in (code, "ABCDEFGH"):
            self.assertEqual(self.pair(other).json()["field"], "code")
        self.sign_in("bo")
        self.assertEqual(self.client.post("/api/benches", {"name": "mine"}, content_type=JSON).status_code, 403)
        self.assertEqual(self.client.get("/api/benches").status_code, 403)

    def test_wrong_pins_at_a_bench_bring_a_pause(self):
        """As at any door: after five, even the right one waits."""
        self.pair(self.code())
        for _ in range(5):
            self.assertIn(self.at_bench("0007").status_code, (401, 429))
        self.assertEqual(self.at_bench("4812").status_code, 429)


class NewerDatabaseTest(TestCase):
    """What a later version made of a database."""

    def test_an_older_version_refuses_it(self):
        """A change of shape that this version does not know is named, before anything is done."""
        MigrationRecorder(connection).record_applied("shop", "9999_later")
        with self.assertRaisesRegex(CommandError, "newer Gurvo .shop 9999_later.: start that one, or restore a backup"):
            call_command("bring_up_to_date")
