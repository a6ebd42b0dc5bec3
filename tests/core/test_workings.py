"""The workings of one bolt: its lines against what is worked out here anew."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from gurvo_core.errors import FigureError
from gurvo_core.joints.preload import FRICTION
from gurvo_core.joints.strength import CLASSES
from gurvo_core.joints.thread import COARSE_MM, PER_INCH
from gurvo_core.joints.workings import BoltAsked, workings_of

THREADS = [*(f"M{size}" for size in COARSE_MM), *(f"{size} UNF" for size in PER_INCH), "M10x1.25", "7/16-14"]


def lines(**asked):
    return {line.name: line for line in workings_of(BoltAsked(**asked))}


class WorkingsTests(unittest.TestCase):
    def test_a_bolt_by_hand(self):
        """By hand, M10 8.8 oiled: 45 N·m over 2.1125 mm and 1.1756 mm of arm; 0.375 mm of a quarter turn shared by both."""
        found = lines(thread="M10", property_class="8.8", torque=45, grip_mm=50, free_thread_mm=20, angle_deg=90, material="cast iron")
        self.assertEqual(found["Preload by torque"].value, "21.3 to 38.3 kN")
        self.assertEqual(found["Proof load"].value, "33.6 kN")
        self.assertEqual(found["Stiffness of the bolt"].value, "235 kN/mm")
        self.assertTrue(found["Share of yield, tension alone"].look_again)

    def test_units_are_nists(self):
        """Published: NIST SP 811: 1 lbf·ft = 1.3558179483 N·m, 1 lbf·in = 0.1129848290 N·m."""
        found = lines(thread="M10", torque=100, unit="lbf·ft")
        self.assertEqual(found["The same torque"].value, "135.6 N·m, 100 lbf·ft, 1200 lbf·in")

    def test_what_is_left_out_is_not_worked_out(self):
        self.assertEqual(set(lines(thread="M6")), {"Thread", "Stress area", "Friction"})
        self.assertNotIn("Set the wrench to", lines(thread="M6", torque=9, lever_mm=300))

    def test_an_extension_keeps_the_unit_that_was_asked_in(self):
        """By hand: 400 of 500 mm of reach is four fifths of the torque."""
        found = lines(thread="M10", torque=50, unit="lbf·ft", lever_mm=400, extension_mm=100)
        self.assertEqual(found["Set the wrench to"].value, "40 lbf·ft")

    def test_what_is_no_bolt(self):
        for asked, field in (({"thread": "M99x1 fine"}, "thread"), ({"thread": "M10", "property_class": "8.9"}, "property_class")):
            with self.subTest(field=field), self.assertRaises(FigureError) as caught:
                lines(**asked)
            self.assertEqual(caught.exception.field, field)
        with self.assertRaises(FigureError):
            lines(thread="M10", grip_mm=20, free_thread_mm=30)

    @given(
        st.sampled_from(THREADS),
        st.sampled_from(["", *CLASSES]),
        st.sampled_from(sorted(FRICTION)),
        st.sampled_from(sorted(FRICTION)),
        st.floats(1, 900),
    )
    def test_every_bolt_there_is_has_workings(self, thread, property_class, threads, head, torque):
        """Property: no thread, class or surface falls over, and every line says formula and source."""
        found = lines(thread=thread, property_class=property_class, threads=threads, head=head, torque=torque, grip_mm=40, angle_deg=60)
        self.assertTrue(all(line.value and line.formula and line.source for line in found.values()))
        self.assertEqual("Generic torque" in found, bool(property_class))
