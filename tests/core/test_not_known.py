"""Engines of which little is known: nothing is invented, nothing is judged that has no limit, and the work is done all the same."""

import json
import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from demo.documents import family_data
from gurvo_core.drive import show_twin
from gurvo_core.engine.unknown import not_known
from gurvo_core.errors import AskFirst, EntryRefused
from gurvo_core.motion import snapshot_at
from gurvo_core.motion.strokes import headline
from gurvo_core.reading import doubts_of, read_document
from gurvo_core.timing.job.measured import with_measured_card
from gurvo_core.timing.job.state import begin
from gurvo_core.work import HOUSE
from tests.builds import Build
from tests.core.documents import set_in
from tests.engines import CODES, family_copy

TRAIN = ("bore_mm", "stroke_mm", "rod_mm")


def _each(data, key, **to):
    for part in data[key]:
        part.update(to)


def _forget_lobes(data):
    for cam in data["camshafts"]:
        for lobe in cam["lobes"]:
            lobe.update(profile=None, nose_deg=None, lash_mm=None)


def _forget_places(data):
    for shaft in data["drive"]["shafts"]:
        if shaft["kind"] != "crank":
            shaft.update(x_mm=None, y_mm=None)


def _forget_lengths(data):
    for stage in data["drive"]["stages"]:
        stage.update({"module_mm": None} if stage["kind"] == "gears" else {"pitch_mm": None, "count": None})


# what a document may leave open, each by itself
FORGET = {
    "rods": lambda d: [bank["cranktrain"].update(dict.fromkeys(TRAIN)) for bank in d["banks"]],
    "card": lambda d: d.update(cam_card=[]),
    "tolerances": lambda d: _each(d, "cam_card", tolerance_deg=None),
    "lobes": _forget_lobes,
    "followers": lambda d: [follower.update(clock_deg=None, ratio=None) for cam in d["camshafts"] for follower in cam["followers"]],
    "places": _forget_places,
    "lengths": _forget_lengths,
    "teeth": lambda d: [wheel.update(teeth=None) for wheel in d["drive"]["wheels"]],
    "throws": lambda d: d.update(throws=[]),
    "fits": lambda d: _each(d, "fits", least_mm=None, most_mm=None),
    "joints": lambda d: _each(d, "joints", fasteners=None),
    "positions": lambda d: _each(d, "timing_positions", after_tdc_deg=None, kind="offset"),
    "phasers": lambda d: [cam["phaser"].update(travel_deg=None) for cam in d["camshafts"] if cam.get("phaser")],
}


def forgetful(code, *what):
    """A family with its run, of which some things are not known."""
    data = family_data(code)
    for one in what:
        FORGET[one](data)
    return read_document(data)


class NotKnownTests(unittest.TestCase):
    @settings(max_examples=12)
    @given(st.sampled_from(CODES), st.sets(st.sampled_from(sorted(FORGET)), min_size=1))
    def test_whatever_is_not_known_the_engine_is_built_and_drawn(self, code, what):
        """Property: receiving to hand-over, with any parts of the document forgotten."""
        document = forgetful(code, *what)
        self.assertTrue(json.loads(show_twin(document, {}).model_dump_json())["drawing"]["wheels"])
        self.assertTrue(snapshot_at(document, 123.0).words)
        build = Build(document).play()
        self.assertTrue(build.state.signed, what)
        self.assertEqual(build.ends(), [])

    def test_all_of_it_forgotten_at_once(self):
        for code in CODES:
            with self.subTest(code):
                document = forgetful(code, *FORGET)
                drawing = show_twin(document, {}).drawing
                self.assertFalse(drawing.is_to_scale)
                self.assertTrue(all(loop.arcs for loop in drawing.loops), "a sketch goes round its wheels")
                self.assertTrue(Build(document).play().state.signed)

    def test_without_a_card_a_cam_is_kept_as_found(self):
        build = Build(forgetful("wick-1", "card")).to("cam:cam")
        cam = build.state.timing.cams[0]
        self.assertEqual((cam.verdict, cam.advance_deg, cam.advance_words, cam.offers), ("no limit known", None, "as found", []))
        self.assertIsNotNone(cam.valves[0].centreline_deg)
        build.enter("cam_decision", camshaft="cam")
        self.assertEqual(build.state.timing.cams[0].decided, "left as it is")

    def test_a_measured_cam_becomes_the_card_of_the_next_revision(self):
        """What was measured comes back as it was: the same engine measured again on that card is straight up."""
        build = Build(forgetful("wick-1", "card")).play("cam:cam")
        before = build.state.timing.cams[0].valves[0]
        written = with_measured_card(build.folded.states["timing"], "W1-0009")
        document = read_document(json.loads(json.dumps(written)))
        self.assertEqual(document.origin("/cam_card/0/opens_deg"), "measured")
        self.assertEqual([line.valve for line in document.cam_card], ["intake", "exhaust"])
        again = HOUSE.show(HOUSE.fold(document, build.folded.entries)).timing.cams[0]
        self.assertAlmostEqual(again.valves[0].card_centreline_deg, before.centreline_deg, delta=0.1)
        self.assertEqual((again.advance_words, again.verdict), ("straight up", "no limit known"), "nobody has given a tolerance")
        self.assertIsNone(with_measured_card(HOUSE.fold(document, ()).states["timing"], "W1-0009"))

    def test_nothing_is_judged_against_a_guess(self):
        data = family_data("wick-1") | {"origins": {"/cam_card": {"is": "guess"}, "/fits": {"is": "guess", "note": "by feel"}}}
        document = read_document(data)
        self.assertEqual([line.tolerance_deg for line in begin(document).lines], [None, None])
        build = Build(document).to("bore-fit")
        build.done("bore-fit", piston_clearance="0.9")
        self.assertIn("A guess (by feel): fits. Nothing is judged against it.", [one.sentence for one in not_known(document)])

    def test_a_fit_with_limits_is_judged(self):
        with self.assertRaises(Exception) as asked:
            Build("wick-1").to("bore-fit").done("bore-fit", piston_clearance="0.9")
        self.assertIn("out of", str(asked.exception))

    def test_a_limit_of_nought_is_a_limit(self):
        data = family_data("wick-1")
        data["fits"][1].update(least_mm=0, most_mm=None)
        with self.assertRaises(AskFirst) as asked:
            Build(read_document(data)).to("bore-fit").done("bore-fit", piston_clearance="-0.01")
        self.assertIn("out of least", str(asked.exception))

    def test_without_stroke_and_rod_tdc_is_found_by_stop_or_equal_drops(self):
        build = Build(forgetful("wick-1", "rods")).to("tdc:method")
        question = next(q for step in build.state.steps for q in step.questions if q.key == "tdc:method")
        self.assertEqual([option.value for option in question.options], ["positive_stop", "equal_drop"])
        with self.assertRaises(EntryRefused) as refused:
            build.enter("tdc_method", method="top")
        self.assertIn("not known", str(refused.exception))
        build.enter("tdc_method", method="equal_drop")
        for place, text in (("before", "30"), ("after", "31")):
            wheel = {"text": text, "side": f"{place} TDC"}
            build.enter("tdc_reading", method="equal_drop", place=place, wheel=wheel, drop={"text": "6", "unit": "mm"})
        self.assertAlmostEqual(build.state.timing.tdc.zero_deg, 0.5)

    def test_a_position_of_unknown_angle_is_what_turns_are_counted_from(self):
        document = forgetful("corrie-v6", "positions")
        name = document.timing_positions[0].name
        self.assertEqual(headline(document, 0.0), f"at {name}")
        self.assertEqual(headline(document, 450.0), f"one turn and 90° on from {name}")
        stand = snapshot_at(document, 0.0)
        self.assertEqual((stand.cylinders, stand.at_tdc), ([], []))
        self.assertTrue(all(mark.now_deg == mark.timing_deg for mark in stand.marks))

    def test_a_null_stays_a_null(self):
        """What is not known must not come back as what would be taken for granted."""
        document = forgetful("corrie-v6", *FORGET)
        self.assertEqual(read_document(json.loads(document.model_dump_json())), document)


def _link_on_top_of_the_crank(data):
    """A chain to a cam above lies on the lower half of its crank sprocket; a mark on top is out of its reach."""
    data["drive"]["marks"][0]["meets"] = None
    data["drive"]["stages"][0]["marked"] = [{"id": "l", "name": "painted link", "meets": "rotor-line", "to_next": 98}]


class DoubtTests(unittest.TestCase):
    def test_what_is_doubtful_is_kept_with_it_said(self):
        spoilt = (
            ("quern-4", set_in("cam_card", 0, "opens_deg", to=24.0), "cam_card.0.opens_deg", "away from that"),
            (
                "wick-1",
                set_in("drive", "stages", 0, "tensioner", "after", to="cam-sprocket"),
                "drive.stages.0.tensioner.after",
                "slack one",
            ),
            ("wick-1", lambda d: d["drive"]["marks"][2].update(meets="head-left", clock_deg=269.5), "drive.marks.2.clock_deg", "one place"),
            ("wick-1", _link_on_top_of_the_crank, "drive.marks.0.clock_deg", "from where Cam chain touches that wheel"),
        )
        for code, change, path, words in spoilt:
            data = family_copy(code)
            change(data)
            with self.subTest(path):
                found = {doubt.path: doubt.sentence for doubt in doubts_of(read_document(data))}
                self.assertIn(words, found.get(path, f"only {found}"))
                self.assertNotRegex(found[path], r"gives|should be", "it never offers a figure to copy")

    def test_the_shipped_families_are_known_and_beyond_doubt(self):
        for code in CODES:
            document = read_document(family_data(code))
            self.assertEqual((not_known(document), doubts_of(document)), ([], []), code)
