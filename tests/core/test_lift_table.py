"""Lift tables: columns, units and zeros as they come; what is no lobe is refused with its line; mis-read points are shown."""

import math
import unittest

from hypothesis import given
from hypothesis import strategies as st

from gurvo_core.engine.lift_table import LiftTableChoices, read_lift_table
from gurvo_core.motion import lobe_lift_mm


def harmonic(deg, half=60.0, top=6.0):
    return top / 2 * (1 + math.cos(math.pi * deg / half)) if abs(deg) < half else 0.0


def table(zero=0.0, step=2, scale=1.0, lift_scale=1.0, mark=",", spoil=None):
    lines = []
    for deg in range(-64, 65, step):
        lift = (spoil or {}).get(deg, harmonic(deg)) * lift_scale
        lines.append(f"{(deg + zero) * scale:.4f}{mark}{lift:.6f}")
    return "\n".join(lines)


def read(text, **choices):
    return read_lift_table(text, LiftTableChoices(**choices))


class ReadingTests(unittest.TestCase):
    def test_any_zero_crank_degrees_and_inches_give_the_same_lobe(self):
        """Property: 1 in = 25.4 mm (NIST SP 811), two crank degrees a cam degree, the nose put at 0."""
        plain = read(table()).profile
        tries = {
            "any zero": read(table(zero=217)),
            "over the end of a turn": read("\n".join(f"{(deg + 350) % 360},{harmonic(deg)}" for deg in range(-64, 65, 2))),
            "crank degrees": read("crank deg,lift mm\n" + table(scale=2)),
            "inches": read("angle,lift inch\n" + table(lift_scale=1 / 25.4)),
            "semicolons and commas": read(table(mark=";").replace(".", ",")),
            "blanks": read(table(mark="   ")),
            "columns turned round": read("\n".join(",".join(reversed(line.split(","))) for line in table().split("\n"))),
        }
        for name, found in tries.items():
            with self.subTest(name):
                self.assertEqual(found.faults, [])
                for deg in (-40.0, -10.0, 0.0, 33.0):
                    self.assertAlmostEqual(float(lobe_lift_mm(deg, found.profile)), float(lobe_lift_mm(deg, plain)), delta=1e-4)

    def test_what_was_guessed_is_said(self):
        found = read("degrees,valve lift mm,remark\n" + table().replace("\n", ",x\n") + ",x")
        self.assertEqual((found.choices.angle_column, found.choices.lift_column, found.choices.lift_unit), (0, 1, "mm"))
        self.assertTrue(any("“degrees”" in sentence for sentence in found.said))
        chosen = read(table(), angle_column=0, lift_column=1, angles_are="cam", lift_unit="mm")
        self.assertEqual(chosen.said, [])

    def test_a_flat_nose_without_a_line_in_its_middle_gets_one_and_says_so(self):
        found = read("0,0\n10,3\n20,5\n30,5\n40,3\n50,0")
        self.assertEqual(found.profile.cam_deg, (-25, -15, -5, 0, 5, 15, 25))
        self.assertTrue(any("one is added" in sentence for sentence in found.said))


class RefusalTests(unittest.TestCase):
    def test_what_is_no_lobe_is_refused_with_its_line(self):
        tries = {
            "two noses": (table(spoil={-40: 5.5, -38: 5.6}), "two noses"),
            "a dip": (table(spoil={-30: harmonic(-32) - 0.02}), "does not rise"),
            "a gap": ("\n".join(line for line in table().split("\n") if not -41 < float(line.split(",")[0]) < -21), "a gap of"),
            "doubles": (table() + "\n10,5.6", "same angle"),
            "not down to the base": ("\n".join(table().split("\n")[8:]), "begins at"),
            "below zero": (table(spoil={-64: -0.01}), "below 0"),
            "no figure": (table() + "\n70,none", "no figure for the lift"),
            "one column": ("1\n2\n3", "one column only"),
            "nothing": ("", "no lines"),
            "two turns": (table(scale=8), "crank degrees?"),
            "flat": ("\n".join(f"{n},0" for n in range(9)), "No lift is above 0"),
        }
        for name, (text, words) in tries.items():
            with self.subTest(name):
                found = read(text)
                self.assertIsNone(found.profile)
                self.assertTrue(any(words in fault for fault in found.faults), found.faults)

    def test_noise_on_the_base_circle_is_not_smoothed_unless_asked(self):
        noisy = table(spoil={-64: 0.004, -62: 0.0, 64: 0.003})
        self.assertIn("begins at 0.004 mm", " ".join(read(noisy).faults))
        self.assertEqual(read(noisy, base_circle_mm=0.01).faults, [])


class SuspectTests(unittest.TestCase):
    def test_one_misread_point_is_found_and_no_other(self):
        """By hand: 0.06 mm too much at -20; its neighbours expect the harmonic's lift."""
        found = read(table(spoil={-20: harmonic(-20) + 0.06}))
        self.assertEqual([suspect.cam_deg for suspect in found.suspects], [-20])
        self.assertAlmostEqual(found.suspects[0].expected_mm, harmonic(-20), delta=0.005)

    def test_a_clean_table_has_no_suspect(self):
        self.assertEqual(read(table()).suspects, [])

    @given(st.text(max_size=200) | st.lists(st.tuples(st.floats(), st.floats())).map(lambda rows: "\n".join(f"{a},{b}" for a, b in rows)))
    def test_no_text_crashes_the_reader(self, text):
        """Property: a profile, or faults in sentences."""
        found = read(text)
        self.assertTrue(found.profile is not None or all(found.faults))
