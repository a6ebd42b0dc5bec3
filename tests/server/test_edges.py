"""What comes from outside at its edges: times, integers, sounds, paths and words that nobody would write; each is answered as declared."""

import errno
import json
import struct
import uuid
from unittest import mock

from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import OperationalError
from django.test import Client

from demo.documents import family_data
from gurvo_core.engine import EngineDocument
from gurvo_core.engine.difference import difference
from tests.server.cases import JSON, ShopCase
from work.models import Entry

NOTE = {"kind": "note", "text": "x"}


def wav(channels=1, bits=16, rate=8000, data=b"\0" * 64):
    """A sound file with whatever its head says."""
    head = struct.pack("<HHIIHH", 1, channels, rate, rate * max(channels, 1) * bits // 8, max(channels * bits // 8, 0), bits)
    chunks = b"fmt " + struct.pack("<I", len(head)) + head + b"data" + struct.pack("<I", len(data)) + data
    return b"RIFF" + struct.pack("<I", 4 + len(chunks)) + b"WAVE" + chunks


class EdgesTests(ShopCase):
    def setUp(self):
        super().setUp()
        self.client = Client(raise_request_exception=False)
        self.sign_in_quietly()

    def sign_in_quietly(self):
        from django.contrib.auth.models import User

        self.client.force_login(User.objects.get(username="lena"), backend="shop.backends.PeopleBackend")

    def send(self, text, path="/api/engines/T-1/entries", content_type=JSON):
        return self.client.generic("POST", path, text, content_type=content_type)

    def answered(self, answer, *statuses):
        """Refused or taken, as declared, with a sentence."""
        self.assertIn(answer.status_code, statuses or (422,), answer.content[:300])
        if answer.status_code >= 400:
            self.assertTrue(answer.json()["sentence"])

    def test_braces_in_what_people_type_are_words(self):
        self.answered(self.enter({"kind": "note", "text": "see {mm:5} and {page 12}"}), 201)
        self.assertEqual(Entry.objects.get(kind="note").body["text"], "see { mm:5} and {page 12}")
        deep = f'{{"id": "{uuid.uuid4()}", "entry": {"[" * 400}1{"]" * 400}}}'
        self.answered(self.send(deep), 422)

    def test_figures_that_nobody_measures(self):
        """One of fifty thousand calls at random: a mass so small that twice dividing by it was dividing by nothing."""
        for asked in ({"span_mm": 200, "mass_g_m": 5e-324, "tension_n": 400}, {"pulled_mm": 1e-300, "links": 10, "pitch_mm": 1e-308}):
            self.answered(self.client.get("/api/workings/drive", asked))
        self.answered(self.client.get("/api/workings/bolt", {"thread": "M10", "torque": 1e-320, "lever_mm": 1e-320}))

    def test_times_at_the_edges(self):
        for at in (
            "0001-01-01T00:00:00+14:00",
            "9999-12-31T23:59:59-14:00",
            "0001-01-01T00:00:00Z",
            "9999-12-31T23:59:59.999999Z",
            "-1",
            1e300,
        ):
            with self.subTest(at=at):
                self.answered(self.enter(NOTE, typed_at=at), 200, 422)

    def test_integers_of_thousands_of_digits(self):
        for digits in (400, 5000, 100_000):
            with self.subTest(digits=digits):
                body = json.dumps({"id": str(uuid.uuid4()), "entry": NOTE, "seen": 7}).replace("7}", "9" * digits + "}")
                self.answered(self.send(body), 422, 400)
                self.answered(self.client.get(f"/api/engines/T-1/entries?before={'9' * digits}"), 422)

    def test_broken_bodies(self):
        for text in ("{", "[]", '"x"', "null", "\xff", '{"id": 1}', "{" * 5000, "[" * 100_000, '{"a":' * 20_000):
            with self.subTest(text=text[:20]):
                self.answered(self.send(text), 422, 400)
        for head in ("multipart/form-data", "multipart/form-data; boundary=", "multipart/form-data; boundary=x", "text/plain", ""):
            with self.subTest(head=head):
                self.answered(self.send("x", "/api/workings/pluck", head), 422, 400)
                self.answered(self.send("x", content_type=head), 422, 400)

    def test_slashes_and_signs_in_paths(self):
        for path in (
            "/api//engines",
            "/api/engines/",
            "/api/engines//",
            "/api/engines/T-1/",
            "/api/engines/%2e%2e/x",
            "/api/engines/T%0A1",
            "/api/%00",
        ):
            for method in ("GET", "POST", "PUT", "DELETE"):
                with self.subTest(path=path, method=method):
                    answer = self.client.generic(method, path, "{}", content_type=JSON)
                    self.assertLess(answer.status_code, 500)
        for step in ("a%0Ab", "%22", "%27%3B", "%00", "a" * 3000, "%F0%9F%94%A5"):
            for tail in (f"joints/{step}", f"joints/{step}/traces", f"fits/{step}/x", f"lash/{step}", f"fits/x/{step}"):
                with self.subTest(step=step[:8], tail=tail[:8]):
                    self.assertLess(self.client.get(f"/api/engines/T-1/{tail}").status_code, 500)

    def test_a_full_disk_is_said_and_nothing_is_taken(self):
        for error in (OperationalError("database or disk is full"), OSError(errno.ENOSPC, "No space left on device")):
            with mock.patch("work.services.insert_one", side_effect=error):
                answer = self.enter(NOTE)
            self.assertEqual((answer.status_code, answer.json()["code"]), (507, "disk_full"))
            self.assertIn("disk of Gurvo's machine is full", answer.json()["sentence"])
        self.assertEqual(Entry.objects.count(), 0)
        self.assertEqual(self.enter(NOTE).status_code, 201)

    def test_sounds_that_are_none(self):
        for sound in (
            wav(0),
            wav(1, 0),
            wav(0, 0),
            wav(9, 16),
            wav(1, 12),
            wav(1, 64),
            wav(rate=0),
            wav(data=b""),
            wav(data=b"\0"),
            b"RIFF",
            b"",
            wav()[:30],
        ):
            with self.subTest(sound=sound[:40]):
                answer = self.client.post("/api/workings/pluck", {"file": SimpleUploadedFile("x.wav", sound)})
                self.answered(answer, 422)

    def test_a_place_renamed_in_a_long_list_is_told(self):
        plain = family_data("quern-4")
        before = EngineDocument.model_validate(plain)
        part = next(one for one in plain["kit"] if one.get("places"))
        part["places"] = [f"place {n}" for n in range(14)]
        part["count"] = 14
        older = EngineDocument.model_construct(**{**dict(before), "kit": before.kit})
        long = EngineDocument.model_validate(plain)
        part["places"][3] = "another"
        renamed = EngineDocument.model_validate(plain)
        self.assertTrue(difference(older, long))
        self.assertIn("1 of 14 differ", " ".join(change.sentence for change in difference(long, renamed)))
