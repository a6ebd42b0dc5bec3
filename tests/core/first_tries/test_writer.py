"""What a reader would try first of the functions of ``writer``, each held to its answer."""

import unittest

from gurvo_core.writer.shorthand.words import Piece, figure_in


class FirstTriesTests(unittest.TestCase):
    def test_figure_in(self):
        self.assertEqual(figure_in(Piece("50,5", 0)), 50.5)
