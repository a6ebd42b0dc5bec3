"""The outermost door turns a rush of strangers away, by place, and nobody else."""

import json
import unittest

from config.rush import HEAVY, SIGN_INS, STRANGERS, Rush

AT_ONCE = STRANGERS[1]

STRANGER = {"PATH_INFO": "/api/engines", "REQUEST_METHOD": "GET", "REMOTE_ADDR": "192.0.2.1"}
KNOWN = {**STRANGER, "HTTP_COOKIE": "csrftoken=x; sessionid=y"}


class RushTests(unittest.TestCase):
    def setUp(self):
        self.now, self.said = 0.0, []
        self.door = Rush(lambda _environ, _start: [b"passed"], clock=lambda: self.now)

    def comes(self, **environ):
        return self.door(environ, lambda status, _headers: self.said.append(status))

    def test_strangers_are_turned_away_beyond_so_many_and_come_again_later(self):
        answers = [self.comes(**STRANGER) for _ in range(int(AT_ONCE) + 5)]
        self.assertEqual([one == [b"passed"] for one in answers], [True] * int(AT_ONCE) + [False] * 5)
        self.assertEqual(json.loads(next(answers[-1]))["code"], "busy")
        self.assertEqual(self.said, ["429 Too Many Requests"] * 5)
        self.now += 1
        self.assertEqual(self.comes(**STRANGER), [b"passed"])

    def test_passwords_are_tried_less_often_than_anything_else_of_a_stranger(self):
        tries = {**STRANGER, "PATH_INFO": "/api/session", "REQUEST_METHOD": "POST"}
        answers = [self.comes(**tries) == [b"passed"] for _ in range(int(SIGN_INS[1]) + 3)]
        self.assertEqual(answers, [True] * int(SIGN_INS[1]) + [False] * 3)
        self.assertEqual(self.comes(**STRANGER), [b"passed"])  # who only looks who is there passes
        self.now += 1
        self.assertEqual([self.comes(**tries) == [b"passed"] for _ in range(2)], [True, False])

    def test_what_takes_long_is_asked_so_often_in_one_session(self):
        for path, method in (("/api/families/check", "POST"), ("/api/engines/T-1/record.pdf", "GET")):
            own = {**KNOWN, "PATH_INFO": path, "REQUEST_METHOD": method, "HTTP_COOKIE": f"sessionid={method}"}
            answers = [self.comes(**own) == [b"passed"] for _ in range(int(HEAVY[1]) + 3)]
            self.assertEqual(answers, [True] * int(HEAVY[1]) + [False] * 3)
            self.assertEqual(self.comes(**{**own, "HTTP_COOKIE": "sessionid=another"}), [b"passed"])
        self.assertEqual([self.comes(**{**KNOWN, "PATH_INFO": "/api/families"}) for _ in range(20)], [[b"passed"]] * 20)

    def test_other_places_those_signed_in_and_pages_pass(self):
        for _ in range(int(AT_ONCE) + 5):
            self.comes(**STRANGER)
        for passes in ({**STRANGER, "REMOTE_ADDR": "192.0.2.2"}, KNOWN, {**STRANGER, "PATH_INFO": "/bench/T-1"}):
            self.assertEqual(self.comes(**passes), [b"passed"])
        self.assertNotEqual(self.comes(**{**KNOWN, "PATH_INFO": "/api/session", "REQUEST_METHOD": "POST"}), [b"passed"])
