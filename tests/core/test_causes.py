"""Likely causes: against the normal law of a library, by simulated faults, and through the job for faults that were hidden in an engine."""

import unittest

import numpy as np
from scipy.stats import entropy, multivariate_normal

from benchmarks.faults import U_DEG, U_ZERO_DEG, Faulty, is_right
from gurvo_core.errors import CoreError
from gurvo_core.timing.cause_table import CHECKS, KINDS, TWO_AT_ONCE
from gurvo_core.timing.causes import Cause, check_gain, rank_causes
from gurvo_core.timing.evidence import MeasuredCam, explained
from gurvo_core.timing.hypotheses import hypotheses_of
from gurvo_core.timing.job.causes import CausesAsked, causes_view
from gurvo_core.work import HOUSE
from tests.core.test_several_cams import ENGINE, event, found_tdc
from tests.engines import family_with_run

FAMILIES = ("quern-4", "tarn-f4", "teasel-4", "corrie-v6", "brae-v8", "wick-1")
FAULTS = 600


def at(document, **advance_deg):
    """Every valve of every camshaft as it would be measured without an error."""
    return [
        MeasuredCam(camshaft=cam.id, valve=valve, advance_deg=advance_deg.get(cam.id.replace("-", "_"), 0.0), u_deg=U_DEG)
        for cam in document.camshafts
        for valve in cam.valves
    ]


class RankTests(unittest.TestCase):
    """Bayes' rule."""

    def test_odds_are_those_of_the_normal_law(self):
        """Library: scipy's multivariate normal, for two causes of the flat four with nothing free."""
        engine = family_with_run("tarn-f4")
        found = at(engine, cam_left=-7.4, cam_right=-0.1)
        pair = [one for one in hypotheses_of(engine) if one.key in ("none", "one_cam:cam-left:-1")]
        shares = {one.parts[0].key: one.share for one in rank_causes(pair, found, U_ZERO_DEG).causes}
        spread = np.diag([U_DEG**2] * len(found)) + U_ZERO_DEG**2
        values = [cam.advance_deg for cam in found]
        logs = {
            one.key: multivariate_normal([one.moves_deg.get(cam.camshaft, 0.0) for cam in found], spread).logpdf(values)
            + np.log(KINDS[one.kind].prior * one.share)
            for one in pair
        }
        odds = np.log(shares["one_cam:cam-left:-1"] / shares["none"])
        self.assertAlmostEqual(odds, logs["one_cam:cam-left:-1"] - logs["none"], places=6)

    def test_the_gain_of_a_look_is_the_mutual_information_of_answer_and_cause(self):
        """Library: scipy's entropy, worked the other way round: H(answer) - H(answer given the cause)."""
        hypotheses = hypotheses_of(family_with_run("quern-4"))
        shares = (0.5, 0.2, 0.2, 0.1)
        causes = [Cause(parts=(one,), share=share, predicted_deg={}) for one, share in zip(hypotheses, shares, strict=False)]
        for check, about in CHECKS.items():
            sound = np.array([KINDS[one.kinds[0]].shows.get(check, about.usual) for one in causes])
            whole = float(np.array(shares) @ sound)
            given = sum(s * entropy([p, 1 - p], base=2) for s, p in zip(shares, sound, strict=True))
            self.assertAlmostEqual(check_gain(causes, check), entropy([whole, 1 - whole], base=2) - given, places=9)

    def test_priors_of_all_that_could_be_add_up_by_kind(self):
        for code in FAMILIES:
            of_kind = {}
            for one in hypotheses_of(family_with_run(code)):
                of_kind[one.kind] = of_kind.get(one.kind, 0.0) + one.share
            self.assertTrue(all(abs(share - 1) < 1e-9 for share in of_kind.values()), code)

    def test_both_cams_a_tooth_and_the_wheel_a_tooth_look_the_same_and_it_is_never_sure(self):
        """Common practice: readings of cams alone cannot tell them apart; finding true TDC again, or the marks, can."""
        engine = family_with_run("teasel-4")
        both = at(engine, intake=-360 / 22, exhaust=-360 / 22)
        ranking = rank_causes(hypotheses_of(engine), both, U_ZERO_DEG)
        self.assertFalse(ranking.is_sure)
        kinds = [cause.kinds for cause in ranking.causes[:3]]
        self.assertEqual(set(kinds), {("slack",), ("laid",), ("zero_tooth",)})
        told = rank_causes(hypotheses_of(engine), both, U_ZERO_DEG, {"marks": True, "zero": False})
        self.assertEqual(told.causes[0].kinds, ("zero_tooth",))

    def test_one_cam_a_tooth_out_is_likely_at_once_and_sure_when_its_mark_and_its_count_were_off(self):
        """Common practice: figures point, a look finds; which mark is off tells it from the other cam and all laid the other way."""
        engine, name = family_with_run("teasel-4"), "Timing belt: intake cam a tooth late"
        found = at(engine, intake=-720 / 44)
        looks = {}
        for check, is_sound in ((None, True), ("marks", False), ("marks:exhaust", True), ("marks:intake", False), ("count", False)):
            looks |= {check: is_sound} if check else {}
            ranking = rank_causes(hypotheses_of(engine), found, U_ZERO_DEG, looks)
            self.assertEqual((ranking.causes[0].parts[0].name, len(ranking.causes[0].parts)), (name, 1))
            self.assertEqual(ranking.is_sure, check == "count", check)
            self.assertIsNotNone(ranking.check if not ranking.is_sure else "")

    def test_a_look_that_could_not_have_said_otherwise_makes_nothing_sure(self):
        """House rule: a single cam's only cause of so much, and looks that have nothing to do with it: likely, never sure."""
        engine = family_with_run("quern-4")
        found = at(engine, cam=-360 / 21 * 2)
        for looks in ({}, {"stamp": True, "feel": True, "height": True}):
            ranking = rank_causes(hypotheses_of(engine), found, U_ZERO_DEG, looks)
            self.assertFalse(ranking.is_sure)
            self.assertIsNotNone(ranking.check)

    def test_swapped_camshafts_have_their_places_and_nothing_free(self):
        """By hand: noses 118 after and 113 before the overlap are 231 apart, on a wheel 129 the other way; cylinder 2 fires 120 after 1."""
        moves = {one.key: one.moves_deg for one in hypotheses_of(family_with_run("corrie-v6")) if one.kind == "swapped"}
        self.assertEqual(moves["swapped:intake-a:exhaust-a"], {"intake-a": -129.0, "exhaust-a": 129.0})
        self.assertEqual(moves["swapped:intake-a:intake-b"], {"intake-a": -120.0, "intake-b": 120.0})

    def test_two_at_once_are_judged_by_both_of_their_laws(self):
        """Library: scipy's multivariate normal, moved and freed by both: the wheel's zero by anything, one cam by a tooth."""
        engine = family_with_run("tarn-f4")
        found, pair = at(engine, cam_left=-9.0, cam_right=3.0), ("zero", "one_cam:cam-left:-1")
        both = [one for one in hypotheses_of(engine) if one.key in pair]
        ours = next(one.log for one in explained(both, found, U_ZERO_DEG) if len(one.parts) == 2)
        mean = [both[1].moves_deg.get(cam.camshaft, 0.0) for cam in found]
        spread = np.diag([U_DEG**2] * len(found)) + U_ZERO_DEG**2 + KINDS["zero"].free_deg ** 2
        prior = TWO_AT_ONCE * np.prod([KINDS[one.kind].prior * one.share for one in both])
        theirs = multivariate_normal(mean, spread).logpdf([cam.advance_deg for cam in found]) + np.log(prior)
        self.assertAlmostEqual(ours, theirs, places=6)

    def test_nothing_measured_is_never_sure(self):
        self.assertFalse(rank_causes(hypotheses_of(family_with_run("wick-1")), [], U_ZERO_DEG).is_sure)


class SimulatedTests(unittest.TestCase):
    """Seeded faults, one or two at once, each larger than what reading can hide; ten thousand by ``./gurvo benchmark --judgement``."""

    def test_it_is_seldom_wrong_and_next_to_never_wrong_and_sure(self):
        """Property: fewer than one of two hundred wrong and sure, though looks are answered wrongly as often as people do."""
        engines = [Faulty(family_with_run(code)) for code in FAMILIES]
        right = sure = wrong = 0
        for n in range(FAULTS):
            chance, engine = np.random.default_rng((2024, n)), engines[n % len(engines)]
            fault = engine.fault(chance)
            ranking = engine.looked_into(chance, fault)
            right += is_right(ranking.causes[0], fault)
            sure += ranking.is_sure
            wrong += ranking.is_sure and not is_right(ranking.causes[0], fault)
        self.assertGreater(right, 0.85 * FAULTS)
        self.assertGreater(sure, 0.25 * FAULTS)
        self.assertLessEqual(wrong, FAULTS / 200)


class HiddenTests(unittest.TestCase):
    """Five faults hidden in the V6, degreed through the job and explained by their true cause."""

    def explain(self, advance_deg, **looks):
        ledger = found_tdc()
        for camshaft in ("intake-a", "exhaust-a", "intake-b", "exhaust-b"):
            for flank in ("opening", "closing"):
                ledger.add(event(camshaft, flank, advance_deg.get(camshaft, 0.0)))
        now = HOUSE.fold(ENGINE, ledger.entries).states["timing"]
        return causes_view(now, CausesAsked(seen=looks))

    def test_each_is_found(self):
        bank_a, every = ("intake-a", "exhaust-a"), ("intake-a", "exhaust-a", "intake-b", "exhaust-b")
        for name, advance_deg, looks in (
            ("Primary chain A: laid a link late", dict.fromkeys(bank_a, -15.0), {"before": False}),
            ("Primary chain A: slack was on the tight side", dict.fromkeys(bank_a, -15.0), {"before": True}),
            ("Secondary chain B: laid a link early", {"exhaust-b": 360 / 28 * 2}, {}),
            ("The pointer is out", dict.fromkeys(every, 4.5), {"zero": False}),
            ("Phaser B off its stop", {"intake-b": -31.0}, {"phaser": False}),
        ):
            with self.subTest(fault=name):
                view = self.explain(advance_deg, **looks)
                self.assertEqual(view.causes[0].name, name)
                self.assertGreater(view.causes[0].percent, 60)

    def test_nothing_wrong_says_so(self):
        view = self.explain({})
        self.assertEqual((view.causes[0].key, view.is_sure, view.check), ("none", True, None))

    def test_a_check_that_nobody_asks_is_refused(self):
        with self.assertRaisesRegex(CoreError, "No check is called tasting"):
            self.explain({}, tasting=True)
