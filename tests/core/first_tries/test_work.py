"""What a reader would try first of the functions of ``work``, each held to its answer."""

import unittest

from gurvo_core.ledger.fold import fold
from gurvo_core.work import ROOMS, replay
from gurvo_core.work.gate import held_back
from tests.engines import quern_4


class FirstTriesTests(unittest.TestCase):
    def test_replay(self):
        self.assertEqual(replay(quern_4(), []).waits_for, "wheel and dial")

    def test_held_back(self):
        self.assertEqual(held_back(fold(ROOMS, quern_4(), []), "look"), [])
