"""The printed timing diagram: the strokes on a spiral of two turns, measured and card events on it."""

import math

from django.test import SimpleTestCase

from gurvo_core.sentence import say
from tests.core.test_accept import degreed
from tests.engines import Ledger, found_tdc, timing
from work.record.diagram import CENTRE, INNER, LANE, OUTER, arcs, ticks
from work.record.paper import ON_PAPER
from work.record.table import STARTS_A_FORMULA, safe_text

HALF_UNIT = 0.01  # paths are written to a hundredth


def ends(arc):
    """First and last place of an arc, from the centre: clock angle [deg] and radius."""
    places = [tuple(map(float, place.split())) for place in arc.path[1:].split(" L")]
    found = []
    for x, y in (places[0], places[-1]):
        dx, dy = x - CENTRE, CENTRE - y
        found.append((math.degrees(math.atan2(dx, dy)) % 360, math.hypot(dx, dy)))
    return found


class DiagramTests(SimpleTestCase):
    def test_the_strokes_run_two_turns_outward_from_top_dead_centre(self):
        spiral = arcs(timing(Ledger()))[0]
        (from_deg, inner), (to_deg, outer) = ends(spiral)
        self.assertAlmostEqual(inner, INNER, delta=HALF_UNIT)
        self.assertAlmostEqual(outer, OUTER, delta=HALF_UNIT)
        for angle in (from_deg, to_deg):
            self.assertAlmostEqual(math.sin(math.radians(angle)), 0, delta=1e-3)

    def test_a_measured_valve_is_drawn_where_it_opens_and_closes(self):
        """By hand: 16 before TDC read on a wheel whose zero is out by -0.23 is 15.8 before TDC, near 344 on the clock."""
        state = timing(degreed())
        intake = next(arc for arc in arcs(state) if arc.colour == "#1E4A86" and not arc.dotted)
        (opens, _), (closes, reach) = ends(intake)
        valve = state.cams[0].valves[0]
        self.assertAlmostEqual(opens, valve.opening.crank_deg % 360, delta=0.05)
        self.assertAlmostEqual(closes, valve.closing.crank_deg % 360, delta=0.05)
        on_spiral = INNER + (OUTER - INNER) * valve.closing.crank_deg / 720
        self.assertAlmostEqual(reach, on_spiral + LANE, delta=HALF_UNIT)

    def test_what_is_not_measured_is_not_drawn(self):
        self.assertEqual([arc.dotted for arc in arcs(timing(found_tdc()))], [False, True, True])

    def test_the_rim_has_a_tick_every_ten_degrees(self):
        self.assertEqual(len(ticks()), 36)
        for x1, y1, x2, y2 in ticks():
            self.assertGreater(math.hypot(x1 - CENTRE, y1 - CENTRE), math.hypot(x2 - CENTRE, y2 - CENTRE))


class WordsTests(SimpleTestCase):
    def test_lengths_in_sentences_are_printed_in_mm(self):
        self.assertEqual(say("passes {mm:1}, then {mm:0.5}", ON_PAPER), "passes 1.00 mm, then 0.50 mm")

    def test_no_cell_of_the_table_starts_a_formula(self):
        for start in STARTS_A_FORMULA:
            self.assertEqual(safe_text(f"{start}1+1"), f"'{start}1+1")
        self.assertEqual(safe_text("misread"), "misread")
