"""PINs, and a bench left alone: who is there is shown again before anything is taken."""

from time import time
from unittest.mock import patch

from axes.models import AccessAttempt
from django.contrib.auth.models import User
from django.test import Client

from shop.models import Shop
from shop.people import change_person
from tests.engines import act
from tests.server.cases import JSON, PASSWORD, ShopCase

NOTE = {"kind": "note", "text": "still typing"}


class PinTests(ShopCase):
    def setUp(self):
        super().setUp()
        for name, pin in (("bo", "7301"), ("lena", "52094")):
            change_person(User.objects.get(username=name), pin=pin)

    def here(self, username, password):
        return self.client.put("/api/session/here", {"username": username, "password": password}, content_type=JSON)

    def test_the_lead_gives_a_pin_and_takes_it_away(self):
        self.sign_in("lena")
        for bad in ("123", "1234567890", "12a4", "1234", "9876", "5555", "١٢٣٤"):
            with self.subTest(pin=bad):
                wrong = self.client.patch("/api/people/vi", {"pin": bad}, content_type=JSON)
                self.refused(wrong, 422, "pin", "digits")
        given = self.client.patch("/api/people/vi", {"pin": "8264"}, content_type=JSON).json()
        self.assertEqual([p["username"] for p in given if p["has_pin"]], ["bo", "lena", "vi"])
        taken = self.client.patch("/api/people/vi", {"pin": ""}, content_type=JSON).json()
        self.assertEqual([p["username"] for p in taken if p["has_pin"]], ["bo", "lena"])
        self.refused(self.here("vi", "8264"), 403, "password", "do not belong together")

    def test_a_pin_opens_no_door_by_itself(self):
        answer = Client().post("/api/session", {"username": "bo", "password": "7301"}, content_type=JSON)
        self.assertEqual(answer.status_code, 401)
        self.assertEqual(Client().put("/api/session/here", {"username": "bo", "password": "7301"}, content_type=JSON).status_code, 401)

    def test_a_pin_is_enough_for_a_signature(self):
        self.confirm(act("sign_off"), password="7301")
        other = self.confirm(act("sign_off"), password="52094", status=403)
        self.refused(other, 403, "password", "neither your password nor your PIN")

    def test_the_bench_changes_hands_by_pin_and_what_follows_is_his(self):
        self.must(NOTE)
        taken_over = self.here("lena", "52094").json()
        self.assertEqual((taken_over["person"]["name"], taken_over["left_alone"]), ("Lena", False))
        self.assertEqual([line["by"] for line in self.must({**NOTE, "text": "hers"})["tape"]], ["Lena", "Bo"])
        self.assertEqual({p["name"] for p in self.client.get("/api/session/people").json()}, {"Bo", "Lena", "Vi"})

    def test_who_has_left_takes_nothing_over(self):
        change_person(User.objects.get(username="bo"), has_left=True)
        self.sign_in("lena")
        self.refused(self.here("bo", "7301"), 403, "password", "do not belong together")

    def test_a_bench_left_alone_takes_nothing_until_somebody_shows_who_he_is(self):
        for how in ("pin", "password"):
            self.client.delete("/api/session/here")
            self.assertTrue(self.client.get("/api/session").json()["left_alone"])
            self.refused(self.enter(NOTE), 401, "", "Gurvo was left alone")
            self.assertEqual(self.client.get("/api/engines/T-1").status_code, 200)
            self.refused(self.here("bo", "0000"), 403, "password", "do not belong together")
            self.assertEqual(self.here("bo", "7301" if how == "pin" else PASSWORD).status_code, 200)
            self.must(NOTE)

    def test_it_is_left_alone_after_as_many_minutes_as_the_shop_chose(self):
        began = time()
        for minutes, gone_min, status in ((15, 14, 201), (15, 16, 401), (30, 29, 201), (0, 200, 201)):
            with self.subTest(minutes=minutes, gone=gone_min):
                Shop.objects.update(alone_minutes=minutes)
                self.sign_in("bo")
                self.must(NOTE)
                with patch("shop.idle.time", return_value=began + 60 * gone_min):
                    self.assertEqual(self.enter(NOTE).status_code, status)

    def test_being_at_work_without_recording_counts(self):
        began = time()
        self.must(NOTE)
        for gone_min in (10, 20, 30):
            with patch("shop.idle.time", return_value=began + 60 * gone_min):
                self.assertEqual(self.client.post("/api/session/here").status_code, 204)
        with patch("shop.idle.time", return_value=began + 60 * 40):
            self.must(NOTE)

    def test_only_the_lead_chooses_for_the_shop(self):
        asked = {
            "path": "/api/people/choices",
            "data": {"alone_minutes": 5, "day_begins": "07:00", "day_ends": "15:30"},
            "content_type": JSON,
        }
        self.refused(self.client.put(**asked), 403, "", "Only the lead")
        self.sign_in("lena")
        self.assertEqual(self.client.put(**asked).status_code, 200)
        self.assertEqual(self.client.get("/api/session").json()["alone_minutes"], 5)
        beyond = self.client.put(
            "/api/people/choices", {"alone_minutes": 241, "day_begins": "07:00", "day_ends": "15:30"}, content_type=JSON
        )
        self.refused(beyond, 422, "alone_minutes", "240")

    def test_a_pin_tried_too_often_in_a_day_holds_no_longer(self):
        for _ in range(15):
            self.refused(self.here("lena", "0001"), 403, "password", "do not belong together")
            AccessAttempt.objects.all().delete()  # as if the pause after five tries were over
        self.refused(self.here("lena", "52094"), 403, "password", "take the password")
        self.sign_in("vi")  # in somebody else's session, at another place, it holds as ever
        self.assertEqual(self.here("lena", "52094").status_code, 200)
        self.sign_in("bo")
        self.assertEqual(self.here("lena", PASSWORD).status_code, 200)

    def test_a_pin_is_not_enough_for_people_and_passwords_and_an_old_session_neither(self):
        self.sign_in("vi")
        self.assertEqual(self.here("lena", "52094").json()["person"]["role"], "lead")
        for path, sent in (("bo", {"role": "viewer"}), ("bo", {"password": "another-long-word"}), ("bo", {"has_left": True})):
            answer = self.client.patch(f"/api/people/{path}", sent, content_type=JSON)
            self.assertEqual((answer.status_code, answer.json()["code"]), (403, "password"))
        self.assertEqual(self.client.post("/api/session/confirm", {"password": "52094"}, content_type=JSON).status_code, 204)
        self.assertEqual(self.client.patch("/api/people/bo", {"role": "viewer"}, content_type=JSON).status_code, 403)
        self.assertEqual(self.client.post("/api/session/confirm", {"password": PASSWORD}, content_type=JSON).status_code, 204)
        with patch("shop.confirming.time", return_value=time() + 301):
            self.assertEqual(self.client.patch("/api/people/bo", {"role": "viewer"}, content_type=JSON).status_code, 403)
        self.assertEqual(self.client.patch("/api/people/bo", {"role": "viewer"}, content_type=JSON).status_code, 200)

    def test_a_concession_asks_for_the_password_and_a_note_does_not(self):
        self.here("lena", "52094")
        word = {"kind": "cam_word", "camshaft": "cam", "reason": "seen by its lobes"}
        self.assertEqual(self.enter(word).json()["code"], "password")
        self.must(NOTE)
        self.client.post("/api/session/confirm", {"password": PASSWORD}, content_type=JSON)
        self.must(word)
