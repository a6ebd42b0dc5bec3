"""What takes long has a gate: so many at once, a few waiting, the next is told so; and guesses count by place before they are looked at."""

import threading
from contextlib import ExitStack
from unittest import mock

from django.test import Client, SimpleTestCase

from shop.errors import TooBusy
from shop.gate import MOST_WAIT, Gate, waiting
from shop.guesses import MOST
from tests.server.cases import JSON, PASSWORD, ShopCase


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

    def test_those_who_wait_for_anything_hold_so_many_workers_together_and_no_more(self):
        gate = Gate("Others are ahead", at_once=1, waiting=2 * MOST_WAIT)
        with ExitStack() as others:
            for _ in range(MOST_WAIT):
                others.enter_context(waiting("Papers are printed"))
            # who need not wait goes through, who would have to is told
            with gate.passed(), self.assertRaises(TooBusy), gate.passed():
                self.fail("nobody comes through")
        with gate.passed(), waiting("Papers are printed"):
            pass


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
