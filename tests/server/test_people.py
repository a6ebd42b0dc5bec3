"""Who may what with people, names that are names, and a shop that always has a lead."""

from io import StringIO
from unittest.mock import patch

from django.contrib.auth.models import User
from django.core.management import CommandError, call_command
from django.test import Client

from shop.models import DayLine, Pin
from shop.people import change_person
from tests.engines import act
from tests.server.cases import JSON, PASSWORD, ShopCase
from work.models import Engine, Entry
from work.record.signers import same_day_signers

NEW = {"username": "nils", "name": "Nils", "role": "builder", "password": "seven-birch-planks"}


class PeopleTests(ShopCase):
    def setUp(self):
        super().setUp()
        self.sign_in("lena")

    def change(self, username, **what):
        return self.client.patch(f"/api/people/{username}", what, content_type=JSON)

    def add(self, **what):
        return self.client.post("/api/people", {**NEW, **what}, content_type=JSON)

    def test_people_are_the_leads_alone(self):
        for name in ("bo", "vi"):
            self.sign_in(name)
            for answer in (self.client.get("/api/people"), self.client.get("/api/people/log"), self.add(), self.change("vi", role="lead")):
                self.refused(answer, 403, "", "Only the lead has to do with people")
        self.assertEqual(Client().get("/api/people").status_code, 401)

    def test_somebody_is_added_and_signs_in(self):
        added = self.add()
        self.assertEqual((added.status_code, [p["role"] for p in added.json() if p["username"] == "nils"]), (201, ["builder"]))
        signed = Client().post("/api/session", {"username": "nils", "password": NEW["password"]}, content_type=JSON)
        self.assertEqual(signed.json()["person"]["name"], "Nils")

    def test_names_are_names_and_nobody_is_taken_for_another(self):
        for name in ("", " ", " Nils", "Ni\nls", "Nils\u200b"):
            with self.subTest(name=name):
                self.refused(self.add(name=name), 422, "name", "letters one can see")
        self.add(username="paolo", name="Paolo")
        for name in ("BO", "b o", "Ｂｏ", "bо", "ΒO", "раоlо", "paoIo", "pao1o"):
            with self.subTest(name=name):
                self.refused(self.add(username=name), 409, "username", "would be taken for somebody")
        self.refused(self.add(password="12345678901"), 422, "password", "entirely numeric")

    def test_a_new_role_holds_at_once_and_a_new_password_ends_every_session(self):
        builder = Client()
        builder.post("/api/session", {"username": "bo", "password": PASSWORD}, content_type=JSON)
        self.change("bo", role="viewer")
        self.assertEqual(builder.get("/api/session").json()["person"]["role"], "viewer")
        self.assertEqual(self.change("bo", password="another-long-word").status_code, 200)
        self.assertEqual(builder.get("/api/engines").status_code, 401)

    def test_who_has_left_cannot_sign_in_and_stays_in_the_ledger(self):
        self.sign_in("bo")
        self.must({"kind": "note", "text": "mine"})
        change_person(User.objects.get(username="bo"), pin="7301")
        builder = self.client
        self.sign_in("lena")
        self.change("bo", has_left=True)
        self.assertEqual(builder.get("/api/engines").status_code, 401)
        again = Client().post("/api/session", {"username": "bo", "password": PASSWORD}, content_type=JSON)
        self.assertEqual(again.status_code, 401)
        self.change("bo", has_left=False)  # should he come back, neither his sessions nor his PIN do
        self.assertEqual(builder.get("/api/engines").status_code, 401)
        self.assertFalse(Pin.objects.filter(user__username="bo").exists())
        self.assertEqual((Entry.objects.get().by.username, self.client.get("/api/engines/T-1").json()["tape"][0]["by"]), ("bo", "Bo"))

    def test_a_shop_is_never_without_a_lead(self):
        self.refused(self.change("lena", role="builder"), 422, "role", "the only lead")
        self.refused(self.change("lena", has_left=True), 422, "has_left", "the only lead")
        self.change("bo", role="lead")
        self.assertEqual(self.change("lena", role="builder").status_code, 200)

    def test_a_pause_is_ended_and_the_log_says_who_tried(self):
        stranger = Client()
        for _ in range(5):
            last = stranger.post("/api/session", {"username": "bo", "password": "wrong"}, content_type=JSON)
        self.assertEqual(last.status_code, 429)
        log = self.client.get("/api/people/log").json()
        self.assertEqual([line["what"] for line in log[:5]], ["wrong password"] * 5)
        self.assertEqual([p["username"] for p in self.client.get("/api/people").json() if p["wrong_tries"]], ["bo"])
        self.client.post("/api/people/bo/unlock")
        self.assertEqual(stranger.post("/api/session", {"username": "bo", "password": PASSWORD}, content_type=JSON).status_code, 200)

    def test_each_change_leaves_a_line_that_says_who_what_and_how_it_was_confirmed(self):
        self.change("vi", role="builder")
        line = DayLine.objects.last()
        self.assertEqual((line.by, line.how, line.name, line.says["roles"]), ("lena", "by password, just before", "person", ["builder"]))

    def test_paper_names_a_signer_whose_account_was_made_the_same_day_by_who_did_the_work(self):
        change_person(User.objects.get(username="bo"), role="lead")
        self.sign_in("bo")
        advance = self.degree()["state"]["timing"]["cams"][0]["advance_deg"]
        self.must(act("cam_decision", camshaft="cam", advance_deg=advance))
        self.assertEqual(self.add(role="lead").status_code, 201)
        self.sign_in("nils")
        self.confirm(act("sign_off"), password=NEW["password"])
        self.must(act("sign_off"))
        engine = Engine.objects.get(pk="T-1")
        self.assertRegex(same_day_signers(engine)[0], "signed by Nils, whose account bo made on the same day")

    def test_the_same_by_command(self):
        out = StringIO()
        call_command("people", "role", "vi", "builder", stdout=out)
        with patch("getpass.getpass", return_value="another-long-word"):
            call_command("people", "password", "vi", stdout=out)
        call_command("people", "leave", "vi", stdout=out)
        call_command("people", stdout=out)
        self.assertRegex(out.getvalue(), r"builder +vi +Vi, has left")
        self.assertTrue(User.objects.get(username="vi").check_password("another-long-word"))
        for wrong, words in ((("leave", "lena"), "the only lead"), (("unlock", "nobody"), "Name somebody who is there")):
            with self.assertRaisesMessage(CommandError, words):
                call_command("people", *wrong)
