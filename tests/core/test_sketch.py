"""Fronts that lay themselves out: whatever is not known, a loop goes round its wheels once, and nothing stands on anything else."""

import math
import unittest
from itertools import combinations, pairwise

from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st

from gurvo_core.drive import draw_drive, loop_path
from gurvo_core.drive.sketch import is_to_scale, laid_out
from gurvo_core.engine.circles import pitch_radius_mm
from gurvo_core.reading import read_document
from tests.engines import family_copy

ONCE_ROUND_DEG = 360.0


@st.composite
def drives(draw):
    """Plain data of an engine with one loop of which no place is known: toothed wheels inside, smooth ones on the back."""
    data = family_copy("wick-1")
    count = draw(st.integers(0, 5))
    backs = [draw(st.booleans()) for _ in range(count)]
    assume(not any(a and b for a, b in pairwise(backs)))
    shafts, wheels, path = data["drive"]["shafts"], data["drive"]["wheels"], data["drive"]["stages"][0]["path"]
    for n, on_back in enumerate(backs):
        shafts.append({"id": f"s{n}", "name": f"Shaft {n}", "kind": "idler", "x_mm": None, "y_mm": None})
        size = {"diameter_mm": draw(st.floats(20, 90))} if on_back else {"teeth": draw(st.integers(12, 60))}
        wheels.append({"id": f"w{n}", "shaft": f"s{n}", **size})
        path.insert(1 + n, {"wheel": f"w{n}", "side": "back" if on_back else "inside"})
    shafts[1].update(x_mm=None, y_mm=None)
    data["drive"]["stages"][0].update(pitch_mm=draw(st.sampled_from([None, 6.35, 9.5])), count=None)
    data["running_direction"] = draw(st.sampled_from(["clockwise", "counter-clockwise"]))
    return data


class SketchTests(unittest.TestCase):
    @settings(suppress_health_check=[*settings.default.suppress_health_check, HealthCheck.filter_too_much], max_examples=60)
    @given(drives())
    def test_a_loop_goes_round_its_wheels_once(self, plain):
        """Property: total turning of a simple closed curve is one turn, however the wheels lie along it."""
        document = read_document(plain)
        self.assertFalse(is_to_scale(document))
        drawn = laid_out(document)
        stage = drawn.drive.stages[0]
        turning = sum(w.wrap_deg if w.circle.clockwise else -w.wrap_deg for w in loop_path(drawn, stage).wraps)
        self.assertAlmostEqual(abs(turning), ONCE_ROUND_DEG, places=6)
        self.assertEqual(len(draw_drive(document).loops[0].arcs), len(stage.path))

    @settings(suppress_health_check=[*settings.default.suppress_health_check, HealthCheck.filter_too_much], max_examples=60)
    @given(drives())
    def test_no_wheel_stands_on_another(self, plain):
        drawn = laid_out(read_document(plain))
        stage = drawn.drive.stages[0]
        for one, other in combinations([drawn.drive.wheel(name) for name in stage.wheel_ids], 2):
            apart = math.dist(drawn.drive.shaft(one.shaft).place, drawn.drive.shaft(other.shaft).place)
            self.assertGreater(apart, pitch_radius_mm(stage, one) + pitch_radius_mm(stage, other))

    def test_gears_stand_where_their_marks_say_that_they_mesh(self):
        data = family_copy("garth-d6")
        for shaft in data["drive"]["shafts"][1:]:
            shaft.update(x_mm=None, y_mm=None)
        drawn = laid_out(read_document(data)).drive
        at = {shaft.id: shaft.place for shaft in drawn.shafts}
        known = {shaft["id"]: (shaft.get("x_mm", 0), shaft.get("y_mm", 0)) for shaft in family_copy("garth-d6")["drive"]["shafts"]}
        for shaft, (x, y) in known.items():
            self.assertLess(math.dist(at[shaft], (x, y)), 0.1 * math.hypot(x, y) + 1, shaft)
