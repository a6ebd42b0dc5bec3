"""What takes long has a gate: so many at once, a few waiting, the next is told so; and guesses count by place before they are looked at."""

import threading
from unittest import mock

from django.test import Client, SimpleTestCase

from shop.errors import TooBusy
from shop.gate import COMES_AGAIN_S, PLACES, Gate, Line
from shop.guesses import MOST
from tests.server.cases import JSON, PASSWORD, ShopCase
from work.downloads import HANDING_OUT


class GateTests(SimpleTestCase):
    def test_so_many_at_once_so_many_wait_and_the_next_is_told(self):
        gate, inside, may_end, told = Gate("Others are ahead", at_once=2, waiting=1), threading.Semaphore(0), threading.Event(), []

        def come():
            try:
                with gate.passed():
                    inside.release()
                    may_end.wait(60)
            except TooBusy as busy:
                told.append(busy.sentence)

        first = [threading.Thread(target=come) for _ in range(3)]
        for one in first:
            one.start()
        for _ in range(2):
            self.assertTrue(inside.acquire(timeout=60))
        self.assertFalse(inside.acquire(blocking=False))
        while gate._inside < 3:  # the third has come, and waits
            pass
        late = threading.Thread(target=come)
        late.start()
        late.join(60)
        self.assertEqual(told, ["Others are ahead; try again in a moment."])
        may_end.set()
        for one in first:
            one.join(60)
        with gate.passed():
            pass


class LineTests(SimpleTestCase):
    def setUp(self):
        self.clock = self.enterContext(mock.patch("shop.gate.monotonic", return_value=0.0))
        self.line = Line("Others are ahead")

    def comes(self, who):
        """Whether he comes through."""
        try:
            with self.line.passed(who):
                return True
        except TooBusy:
            return False

    def test_who_came_first_has_his_turn_first_and_is_held_nowhere_meanwhile(self):
        with self.line.passed("a"):
            self.assertEqual([self.comes("b"), self.comes("c")], [False, False])
        self.assertEqual(
            [self.comes("c"), self.comes("d"), self.comes("b"), self.comes("d"), self.comes("c")], [False, False, True, False, True]
        )

    def test_a_place_is_kept_for_who_comes_again_and_not_for_who_stays_away(self):
        with self.line.passed("a"):
            self.comes("b")
            self.clock.return_value = COMES_AGAIN_S - 1
            self.comes("c")
        self.clock.return_value = COMES_AGAIN_S
        self.assertTrue(self.comes("c"))

    def test_what_fails_lets_the_next_through(self):
        with self.assertRaises(KeyError), self.line.passed("a"):
            raise KeyError
        self.assertTrue(self.comes("b"))

    def test_names_are_kept_for_so_many_and_no_more(self):
        with self.line.passed("a"):
            for n in range(PLACES + 5):
                self.comes(f"b{n}")
        self.assertFalse(self.comes(f"b{PLACES}"))
        self.assertEqual(len(self.line._seen), PLACES)


class WaitTests(ShopCase):
    def test_who_has_to_wait_is_told_when_to_come_and_a_page_that_was_opened_comes_by_itself(self):
        with HANDING_OUT.passed("somebody else"):
            answer = self.client.get("/api/engines/T-1/record.json")
            self.refused(answer, 429, "", "Records are being handed to others")
            self.assertEqual(answer["Retry-After"], "1")
            opened = self.client.get("/api/engines/T-1/record.json", headers={"Accept": "text/html,*/*"})
        self.assertEqual((opened.status_code, opened["Refresh"]), (429, "1"))
        self.assertContains(opened, "Records are being handed to others", status_code=429)
        self.assertEqual(self.client.get("/api/engines/T-1/record.json").status_code, 200)


class GuessTests(ShopCase):
    def guess(self, name, password="wrong", place="192.0.2.9"):
        return Client(REMOTE_ADDR=place).post("/api/session", {"username": name, "password": password}, content_type=JSON)

    def test_ever_new_names_from_one_place_are_not_looked_at_for_ever(self):
        """Whatever the names: beyond so many a minute nothing is hashed, and other places go on."""
        answers = [self.guess(f"nobody-{n}").status_code for n in range(MOST + 3)]
        self.assertEqual(answers, [401] * MOST + [429] * 3)
        with mock.patch("shop.services.authenticate") as looked_at:
            self.refused(self.guess("bo", PASSWORD), 429, "", "Too many wrong tries from this place")
        looked_at.assert_not_called()
        self.assertEqual(self.guess("bo", PASSWORD, place="192.0.2.10").status_code, 200)

    def test_what_is_right_is_no_guess(self):
        for _ in range(MOST + 3):
            self.assertEqual(self.guess("bo", PASSWORD).status_code, 200)
