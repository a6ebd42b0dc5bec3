"""A whole lift curve against its profile: by simulated readings, numpy's own least squares, and wrong lobes."""

import unittest

import numpy as np

from gurvo_core.errors import ReadingError
from gurvo_core.motion import valve_lift_mm
from gurvo_core.timing.lift_fit import LiftPoint, fit_lift
from gurvo_core.work import HOUSE
from tests.engines import Ledger, family, found_tdc, lift, quern_4, standing, timing

ENGINE = quern_4()
SHAFT, LOBE = ENGINE.camshaft("cam"), ENGINE.lobe("cam", 1, "intake")
PROFILE = ENGINE.shape(SHAFT, LOBE)
NOSE, WHEEL_U, DIAL_U = 467.0, 0.15, 0.006
AT = np.array([-75, -60, -45, -30, -15, 15, 30, 45, 60, 75]) + NOSE


def read_off(rng=None, nose=NOSE, dial_zero=0.0, lash=0.0):
    """What wheel and dial show at ten places, with errors of their own where a generator is given."""
    lobe = LOBE.model_copy(update={"lash_mm": LOBE.lash_mm + lash})
    wheel = AT + (rng.normal(0, WHEEL_U, len(AT)) if rng else 0)
    dial = valve_lift_mm((AT - nose) / 2, PROFILE, SHAFT, lobe) + dial_zero + (rng.normal(0, DIAL_U, len(AT)) if rng else 0)
    return [LiftPoint(crank_deg=float(at), lift_mm=float(mm)) for at, mm in zip(wheel, dial, strict=True)]


def fitted(points):
    return fit_lift(points, PROFILE, (SHAFT, LOBE), WHEEL_U, DIAL_U)


class LiftFitTests(unittest.TestCase):
    def test_nose_and_dial_are_found_apart(self):
        """By hand: a nose 1.5 degrees late and a dial 0.12 mm off; lash that is not the book's goes into the dial's zero."""
        fit = fitted(read_off(nose=NOSE + 1.5, dial_zero=0.12))
        self.assertAlmostEqual(fit.nose_deg, NOSE + 1.5, places=4)
        self.assertAlmostEqual(fit.dial_zero_mm, 0.12, places=5)
        self.assertAlmostEqual(fitted(read_off(lash=0.1)).dial_zero_mm, -0.1, places=5)

    def test_the_standard_error_is_that_of_a_thousand_draws(self):
        """Simulation: how noses scatter over draws is what each says of itself; a sound lobe is called another once in some hundred."""
        rng = np.random.default_rng(23)
        fits = [fitted(read_off(rng)) for _ in range(400)]
        scatter = float(np.std([fit.nose_deg for fit in fits]))
        self.assertAlmostEqual(scatter / float(np.median([fit.own_u_deg for fit in fits])), 1.0, delta=0.15)
        self.assertLess(sum(not fit.is_this_profile for fit in fits), 10)

    def test_another_shape_and_a_misread_one_stand_out(self):
        """By hand: a nose worn by 0.3 mm; one reading taken five degrees off."""
        points = read_off(np.random.default_rng(5))
        worn = [LiftPoint(crank_deg=one.crank_deg, lift_mm=min(one.lift_mm, max(p.lift_mm for p in points) - 0.3)) for one in points]
        self.assertFalse(fitted(worn).is_this_profile)
        points[3] = LiftPoint(crank_deg=points[3].crank_deg + 5, lift_mm=points[3].lift_mm)
        fit = fitted(points)
        self.assertEqual((fit.is_this_profile, fit.most_off_at), (False, 3))

    def test_too_few_or_one_flank_are_refused(self):
        with self.assertRaisesRegex(ReadingError, "needs 5 readings"):
            fitted(read_off()[:4])
        with self.assertRaisesRegex(ReadingError, "one flank"):
            fitted([*read_off()[:5], *read_off(nose=NOSE + 0.01)[:1]])


class CurveOnTheBenchTests(unittest.TestCase):
    def test_readings_at_other_lifts_make_a_curve_and_leave_the_verdict_alone(self):
        """By hand: the card's own lift is judged. This lobe is lopsided: its nose stands 1 degree before the middle at 1 mm."""
        ledger = found_tdc()
        ledger.add(lift("intake", "opening", "17.5", "before TDC"))
        ledger.add(lift("intake", "closing", "50.5", "after BDC"))
        before = timing(ledger, ENGINE).cams[0].valves[0]
        self.assertIsNone(before.curve)
        zero = timing(ledger, ENGINE).tdc.zero_deg
        for at, flank in ((400.0, "opening"), (430.0, "opening"), (500.0, "closing"), (520.0, "closing")):
            mm = float(valve_lift_mm((at - 360 - before.centreline_deg + 1) / 2, PROFILE, SHAFT, LOBE))
            read = at - 360 + zero
            entry = lift("intake", flank, *((f"{read:.3f}", "after TDC") if read < 90 else (f"{180 - read:.3f}", "before BDC")))
            entry["lift"] = {"text": f"{mm:.4f}", "unit": "mm"}
            ledger.add(entry)
        valve = timing(ledger, ENGINE).cams[0].valves[0]
        self.assertEqual(valve.centreline_deg, before.centreline_deg)
        self.assertEqual(valve.curve.readings, 6)
        self.assertTrue(valve.curve.follows)
        self.assertAlmostEqual(valve.curve.centreline_deg, before.centreline_deg - 1, delta=0.1)
        self.assertIn("follows its profile", valve.curve.words)

    def test_it_is_asked_as_an_extra_of_each_flank_where_the_profile_is_known(self):
        valves, flanks = ("intake", "exhaust"), ("opening", "closing")
        asked = [f"lift:cam:{valve}:1:curve:{flank}" for valve in valves for flank in flanks]
        self.assertEqual(self.curves(found_tdc(), ENGINE), asked)
        self.assertEqual(self.curves(Ledger(), family("mallow-2")), [])

    def curves(self, ledger, engine):
        steps = HOUSE.show(standing(ledger, engine)).steps
        return [question.key for step in steps for question in step.questions if ":curve:" in question.key]
