"""Hosts, headers, and sessions that are left alone."""

import re
from time import time
from unittest.mock import patch

from django.test import Client

from shop.models import Shop
from tests.server.cases import JSON, PASSWORD, ShopCase

PATHS = ("/", "/api/session", "/api/engines", "/api/engines/T-1/record.pdf", "/assets/none.js", "/bench/T-1")


class DoorTests(ShopCase):
    def test_a_foreign_host_is_refused_on_every_path(self):
        for path in PATHS:
            with self.subTest(path=path):
                self.assertEqual(self.client.get(path, headers={"Host": "elsewhere.example"}).status_code, 400)

    def test_scripts_come_from_here_alone_and_are_never_in_line(self):
        policy = self.client.get("/").headers["Content-Security-Policy"]
        rules = dict(rule.strip().split(" ", 1) for rule in policy.split(";"))
        self.assertEqual((rules["default-src"], rules["script-src"], rules["frame-ancestors"]), ("'none'", "'self'", "'none'"))
        self.assertNotRegex(self.client.get("/").content.decode(), re.compile(r"<script(?![^>]*\bsrc=)|\son\w+=", re.I))

    def test_a_browser_keeps_nothing_of_the_api_and_lends_none_of_the_machine(self):
        for path in PATHS[1:4]:
            answer = self.client.get(path)
            with self.subTest(path=path):
                self.assertEqual(answer.headers["Cache-Control"], "no-store")
                self.assertIn("camera=()", answer.headers["Permissions-Policy"])
                self.assertEqual(answer.headers["X-Content-Type-Options"], "nosniff")

    def test_a_question_for_the_head_alone_has_no_body(self):
        answer = self.client.head("/")
        self.assertEqual((answer.status_code, answer.content), (200, b""))


class IdleTests(ShopCase):
    def setUp(self):
        super().setUp()
        self.client = Client()
        self.client.post("/api/session", {"username": "bo", "password": PASSWORD}, content_type=JSON)

    def later(self, hours):
        return patch("shop.idle.time", return_value=time() + hours * 3600)

    def test_a_session_left_alone_ends_however_often_its_page_looks(self):
        self.assertEqual(self.client.get("/api/engines").status_code, 200)
        with self.later(11):
            self.assertEqual(self.client.get("/api/engines").status_code, 200)
        with self.later(13):
            self.assertEqual(self.client.get("/api/engines").status_code, 401)

    def test_doing_something_keeps_it(self):
        Shop.objects.update(alone_minutes=0)
        self.client.get("/api/engines")
        with self.later(11):
            self.must({"kind": "note", "text": "still here"})
        with self.later(22):
            self.assertEqual(self.client.get("/api/engines").status_code, 200)
