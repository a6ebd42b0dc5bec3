"""Likely causes: against the normal law of a library, by simulated faults, and through the job for faults that were hidden in an engine."""

import unittest

import numpy as np
from scipy.stats import entropy, multivariate_normal

from gurvo_core.errors import CoreError
from gurvo_core.timing.cause_table import CHECKS, KINDS
from gurvo_core.timing.causes import Cause, MeasuredCam, check_gain, rank_causes
from gurvo_core.timing.hypotheses import Hypothesis, hypotheses_of
from gurvo_core.timing.job.causes import CausesAsked, causes_view
from gurvo_core.work import HOUSE
from tests.core.test_several_cams import ENGINE, event, found_tdc
from tests.engines import family_with_run

U_DEG, U_ZERO_DEG = 0.3, 0.2
FAMILIES = ("quern-4", "tarn-f4", "teasel-4", "corrie-v6", "brae-v8", "wick-1")
LOOKS = 3


def at(document, **advance_deg):
    """Every valve of every camshaft as it would be measured without an error."""
    return [
        MeasuredCam(camshaft=cam.id, valve=valve, advance_deg=advance_deg.get(cam.id.replace("-", "_"), 0.0), u_deg=U_DEG)
        for cam in document.camshafts
        for valve in cam.valves
    ]


def drawn(rng, one, measured):
    """Where a cause puts every valve: what it says, what it leaves free, and the errors of reading."""
    kind = KINDS[one.kind]
    off = np.array([one.moves_deg.get(cam.camshaft, 0.0) for cam in measured])
    moved = np.array([cam.camshaft in one.moves_deg for cam in measured], dtype=float)
    if one.at_most_deg:
        off += rng.uniform(0.1, 1) * one.at_most_deg * moved
    elif one.free_of:
        by_cam = {name: rng.normal(0, kind.free_deg) for name in dict.fromkeys(cam.camshaft for cam in measured)}
        off += np.array([by_cam[cam.camshaft] if cam.is_among(one.free_of) else 0.0 for cam in measured])
    elif kind.free_deg:
        off += rng.normal(0, kind.free_deg) * moved
    return off


def read(rng, measured, off):
    noise = rng.normal(0, U_DEG, len(off)) + rng.normal(0, U_ZERO_DEG)
    return [
        MeasuredCam(camshaft=cam.camshaft, valve=cam.valve, advance_deg=float(deg), u_deg=U_DEG)
        for cam, deg in zip(measured, off + noise, strict=True)
    ]


def looked(rng, one, hypotheses, found):
    """Rank, and make the looks that are proposed, each answered as often wrongly as its table says."""
    seen = {}
    ranking = rank_causes(hypotheses, found, U_ZERO_DEG, seen)
    for _ in range(LOOKS):
        if ranking.is_sure or ranking.check is None:
            break
        seen[ranking.check] = bool(rng.random() < KINDS[one.kind].shows.get(ranking.check, CHECKS[ranking.check].usual))
        ranking = rank_causes(hypotheses, found, U_ZERO_DEG, seen)
    return ranking


class RankTests(unittest.TestCase):
    """Bayes' rule."""

    def test_odds_are_those_of_the_normal_law(self):
        """Library: scipy's multivariate normal, for two causes of the flat four with nothing free."""
        engine = family_with_run("tarn-f4")
        found = at(engine, cam_left=-7.4, cam_right=-0.1)
        pair = [one for one in hypotheses_of(engine) if one.key in ("none", "one_cam:cam-left:-1")]
        shares = {one.hypothesis.key: one.share for one in rank_causes(pair, found, U_ZERO_DEG).causes}
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
        causes = [Cause(hypothesis=one, share=share, predicted_deg={}) for one, share in zip(hypotheses, shares, strict=False)]
        for check, about in CHECKS.items():
            sound = np.array([KINDS[one.hypothesis.kind].shows.get(check, about.usual) for one in causes])
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
        kinds = [cause.hypothesis.kind for cause in ranking.causes[:3]]
        self.assertEqual(set(kinds), {"slack", "laid", "zero_tooth"})
        told = rank_causes(hypotheses_of(engine), both, U_ZERO_DEG, {"marks": True, "zero": False})
        self.assertEqual(told.causes[0].hypothesis.kind, "zero_tooth")

    def test_one_cam_a_tooth_out_is_told_at_once(self):
        engine = family_with_run("teasel-4")
        ranking = rank_causes(hypotheses_of(engine), at(engine, intake=-720 / 44), U_ZERO_DEG)
        self.assertEqual((ranking.causes[0].hypothesis.name, ranking.is_sure), ("Timing belt: intake cam a tooth late", True))

    def test_nothing_measured_is_never_sure(self):
        self.assertFalse(rank_causes(hypotheses_of(family_with_run("wick-1")), [], U_ZERO_DEG).is_sure)


class SimulatedTests(unittest.TestCase):
    """A thousand seeded faults, each larger than what reading can hide."""

    def test_the_true_cause_comes_first_in_nine_of_ten_where_the_data_can_tell(self):
        rng, right, sure, wrongly_sure, tried = np.random.default_rng(2024), 0, 0, 0, 0
        tables = {code: (hypotheses_of(family_with_run(code)), at(family_with_run(code))) for code in FAMILIES}
        while tried < 1000:
            hypotheses, measured = tables[FAMILIES[tried % len(FAMILIES)]]
            weights = np.array([0.0 if one.kind == "none" else KINDS[one.kind].prior * one.share for one in hypotheses])
            one: Hypothesis = hypotheses[int(rng.choice(len(hypotheses), p=weights / weights.sum()))]
            off = drawn(rng, one, measured)
            if np.max(np.abs(off)) < 4 * (U_DEG**2 + U_ZERO_DEG**2) ** 0.5:
                continue
            tried += 1
            ranking = looked(rng, one, hypotheses, read(rng, measured, off))
            is_right = ranking.causes[0].hypothesis.kind == one.kind
            right += is_right
            sure += ranking.is_sure
            wrongly_sure += ranking.is_sure and not is_right
        self.assertGreaterEqual(right, 900)
        self.assertLessEqual(wrongly_sure, 0.1 * sure)


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
            ("Primary chain A: slack was on the pulled run", dict.fromkeys(bank_a, -15.0), {"before": True}),
            ("Secondary chain B: laid a link early", {"exhaust-b": 360 / 28 * 2}, {}),
            ("The wheel's zero is out", dict.fromkeys(every, 4.5), {"zero": False}),
            ("Phaser B off its stop", {"intake-b": 31.0}, {"phaser": False}),
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
