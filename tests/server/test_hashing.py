"""Passwords are looked at one at a time and behind everything else; what is kept of them is Django's own."""

import os
import threading

from django.contrib.auth.hashers import Argon2PasswordHasher
from django.test import SimpleTestCase

from shop import hashing
from shop.hashing import QuietArgon2


class Small(QuietArgon2):
    """The same with little work, for a test."""

    time_cost, memory_cost, parallelism = 1, 64, 1


class QuietTests(SimpleTestCase):
    def test_what_is_kept_is_read_by_djangos_own_and_the_other_way_round(self):
        quiet, plain = Small(), Argon2PasswordHasher()
        kept = quiet.encode("a-long-enough-word", quiet.salt())
        self.assertTrue(plain.verify("a-long-enough-word", kept))
        self.assertTrue(quiet.verify("a-long-enough-word", kept))
        self.assertFalse(quiet.verify("another", kept))
        self.assertEqual(quiet.algorithm, plain.algorithm)

    def test_it_is_done_in_one_thread_that_stands_back(self):
        seen = hashing._BEHIND.submit(
            lambda: (threading.get_native_id(), os.getpriority(os.PRIO_PROCESS, threading.get_native_id()))
        ).result()
        self.assertNotEqual(seen[0], threading.get_native_id())
        self.assertGreater(seen[1], os.getpriority(os.PRIO_PROCESS, threading.get_native_id()))

    def test_many_at_once_wait_for_each_other_and_all_are_answered(self):
        quiet = Small()
        kept = quiet.encode("a-long-enough-word", quiet.salt())
        said = []
        threads = [threading.Thread(target=lambda: said.append(quiet.verify("a-long-enough-word", kept))) for _ in range(8)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual(said, [True] * 8)
