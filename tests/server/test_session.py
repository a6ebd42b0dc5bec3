"""Signing in and out, lockout, and how people like to see things."""

from contextlib import redirect_stdout
from datetime import timedelta
from unittest.mock import patch

from axes.models import AccessAttempt
from django.contrib.auth.hashers import PBKDF2PasswordHasher
from django.contrib.auth.models import User
from django.core.management import CommandError, call_command
from django.test import Client, override_settings
from django.utils import timezone

from config.settings import base
from shop.errors import Refusal
from shop.lockout import pause_s
from shop.people import add_person
from tests.server.cases import JSON, PASSWORD, ShopCase


class SessionTests(ShopCase):
    def setUp(self):
        super().setUp()
        self.client = Client()

    def sign_in_with(self, username, password, client=None):
        return (client or self.client).post("/api/session", {"username": username, "password": password}, content_type=JSON)

    def test_nobody_is_an_answer_too(self):
        session = self.client.get("/api/session")
        self.assertIsNone(session.json()["person"])
        self.assertIn("csrftoken", session.cookies)

    def test_signing_in_says_who_and_in_which_role(self):
        person = self.sign_in_with("bo", PASSWORD).json()["person"]
        self.assertEqual((person["name"], person["role"], person["length_unit"]), ("Bo", "builder", "mm"))

    def test_somebody_without_a_group_may_only_look(self):
        User.objects.create_user("nn", password=PASSWORD)
        self.assertEqual(self.sign_in_with("nn", PASSWORD).json()["person"]["role"], "viewer")

    def test_a_wrong_password_says_no_more_than_that(self):
        wrong = self.sign_in_with("bo", "wrong")
        unknown = self.sign_in_with("nobody", "wrong")
        self.refused(wrong, 401, "password", "do not belong together")
        self.assertEqual(wrong.json(), unknown.json())

    @override_settings(PASSWORD_HASHERS=base.PASSWORD_HASHERS)
    def test_a_password_kept_in_an_older_way_holds_and_is_kept_anew_within_its_session(self):
        older = PBKDF2PasswordHasher().encode(PASSWORD, "any-salt-will-do-here", iterations=1000)
        User.objects.filter(username="bo").update(password=older)
        self.client.force_login(User.objects.get(username="bo"), backend="shop.backends.PeopleBackend")
        confirmed = self.client.post("/api/session/confirm", {"password": PASSWORD}, content_type=JSON)
        self.assertEqual(confirmed.status_code, 204)
        self.assertTrue(User.objects.get(username="bo").password.startswith("argon2$"))
        self.assertEqual(self.client.get("/api/engines").status_code, 200)
        self.assertEqual(self.sign_in_with("bo", PASSWORD, Client()).status_code, 200)

    def test_wrong_tries_bring_a_pause_by_person_and_place(self):
        for _ in range(4):
            self.sign_in_with("bo", "wrong")
        self.refused(self.sign_in_with("bo", "wrong"), 429, "password", "Wait 15 seconds, or ask the lead")
        self.refused(self.sign_in_with("bo", PASSWORD), 429, "password", "Too many wrong tries")
        self.assertEqual(self.sign_in_with("lena", PASSWORD).status_code, 200)
        # a neighbour's tries do not keep him out at his own bench
        elsewhere = Client(REMOTE_ADDR="192.0.2.7")
        self.assertEqual(self.sign_in_with("bo", PASSWORD, elsewhere).status_code, 200)

    def test_the_pause_passes_and_grows_with_the_next_wrong_tries(self):
        self.assertEqual([pause_s(tries) for tries in (0, 5, 10, 15, 20, 99)], [15, 15, 60, 240, 900, 900])
        for _ in range(5):
            self.sign_in_with("bo", "wrong")
        AccessAttempt.objects.update(attempt_time=timezone.now() - timedelta(seconds=16))
        for _ in range(4):
            self.refused(self.sign_in_with("bo", "wrong"), 401, "password", "do not belong")
        self.refused(self.sign_in_with("bo", "wrong"), 429, "password", "Wait 60 seconds")

    def test_signing_in_needs_the_csrf_token(self):
        strict = Client(enforce_csrf_checks=True)
        self.refused(self.sign_in_with("bo", PASSWORD, strict), 403, "", "stale")
        token = strict.get("/api/session").cookies["csrftoken"].value
        body = {"username": "bo", "password": PASSWORD}
        answer = strict.post("/api/session", body, content_type=JSON, headers={"X-CSRFToken": token})
        self.assertEqual(answer.status_code, 200)

    def test_signing_out(self):
        self.sign_in_with("bo", PASSWORD)
        self.assertEqual(self.client.delete("/api/session").status_code, 204)
        self.assertEqual(self.client.get("/api/engines").status_code, 401)

    def test_likings_are_kept(self):
        self.sign_in_with("bo", PASSWORD)
        self.client.put("/api/me", {"length_unit": "in", "seen_from": "flywheel"}, content_type=JSON)
        session = self.client.get("/api/session").json()
        self.assertEqual((session["person"]["length_unit"], session["person"]["seen_from"]), ("in", "flywheel"))
        self.assertEqual(session["length_units"]["in"]["mm_per_unit"], 25.4)
        yards = self.client.put("/api/me", {"length_unit": "yard", "seen_from": "front"}, content_type=JSON)
        self.refused(yards, 422, "length_unit", "must be")


class PeopleTests(ShopCase):
    def test_a_weak_password_is_refused(self):
        for password in ("12345", "8" * 14, " " * 14, "  a-long-enough-word", "password1234", "newcomers1"):
            with self.subTest(password=password), self.assertRaises(Refusal):
                add_person(username="newcomers", name="New", role="builder", password=password)
        self.assertFalse(User.objects.filter(username="newcomers").exists())

    def test_a_name_is_taken_once(self):
        with patch("getpass.getpass", return_value=PASSWORD), self.assertRaisesMessage(CommandError, "for somebody who is there already"):
            call_command("add_person", "bo", "lead")

    def test_gauges_are_added_by_command(self):
        from io import StringIO

        from shop.models import Gauge

        with redirect_stdout(StringIO()):
            call_command("add_gauge", "D7", "dial", "0.001", "0.002", "dial, fine", due="2027-01-31")
        gauge = Gauge.objects.get(code="D7")
        self.assertEqual((gauge.kind, gauge.resolution, gauge.name), ("dial", 0.001, "dial, fine"))
        for wrong, words in ((("D7", "dial", "0.01", "0.01"), "a gauge D7 already"), (("D8", "dial", "0", "0.01"), "a step above 0")):
            with self.assertRaisesMessage(CommandError, words):
                call_command("add_gauge", *wrong)

    def test_a_document_with_faults_is_not_loaded(self):
        import json
        from tempfile import NamedTemporaryFile

        from engine.models import Revision
        from tests.engines import quern_4_copy

        data = quern_4_copy() | {"colour": "red", "reference_cylinder": 9}
        with NamedTemporaryFile("w", suffix=".json") as file:
            json.dump(data, file)
            file.flush()
            with self.assertRaisesMessage(CommandError, "not known here"):
                call_command("load_family", file.name)
        self.assertEqual(Revision.objects.count(), 1)
