"""The engine document: faults in sentences, all at once, and never a crash."""

import json
import unittest
from fractions import Fraction
from itertools import pairwise
from pathlib import Path

import pyjson5
from hypothesis import given, settings
from hypothesis import strategies as st
from jsonschema import Draft202012Validator

from demo.documents import family_data
from gurvo_core.drive import Twin, draw_drive, show_twin
from gurvo_core.engine import EngineDocument
from gurvo_core.engine.circles import shaft_speeds
from gurvo_core.engine.difference import difference
from gurvo_core.engine.plain import plain_document
from gurvo_core.engine.unknown import not_known
from gurvo_core.errors import DocumentError
from gurvo_core.motion import twin_frames
from gurvo_core.reading import doubts_of, read_document, read_text
from gurvo_core.scene import scene_of
from gurvo_core.work import HOUSE, BenchState
from tests.core.documents import documents, set_in
from tests.engines import CODES, LITTLE_KNOWN, family, family_copy, quern_4, quern_4_copy

ROOT = Path(__file__).parents[2]


def faults_of(data):
    try:
        read_document(data)
    except DocumentError as error:
        return {fault.path: fault.sentence for fault in error.faults}
    return {}


def find(parts, name):
    return next(part for part in parts if part["id"] == name)


# family, path of the fault, what is spoilt, words of the sentence
SPOILT = (
    ("quern-4", "throws", lambda d: d["throws"].pop(2), "Cylinder 3 has no throw"),
    ("quern-4", "firing_order", set_in("firing_order", to=[1, 3, 4, 4]), "every cylinder once"),
    ("quern-4", "throws.1.pin_deg", set_in("throws", 1, "pin_deg", to=90), "fires at 540°"),
    ("quern-4", "banks", set_in("banks", 0, "cylinders", to=[1, 2, 3, 3]), "listed 2 times"),
    ("quern-4", "banks.0.cranktrain.rod_mm", set_in("banks", 0, "cranktrain", "rod_mm", to=40), "cannot turn over"),
    ("quern-4", "banks.0.cranktrain.deck_height_mm", set_in("banks", 0, "cranktrain", "deck_height_mm", to=300), "to the deck"),
    ("quern-4", "profiles.0", set_in("profiles", 0, "lobe_lift_mm", 20, to=9), "without a dip"),
    ("quern-4", "camshafts.0.lobes.0.profile", set_in("camshafts", 0, "lobes", 0, "profile", to="none"), "which is not there"),
    ("quern-4", "cam_card.0.lift_mm", set_in("cam_card", 0, "lift_mm", to=12), "lifts 9.35 mm at most"),
    ("quern-4", "adjustments.0.fitted", set_in("adjustments", 0, "fitted", to="Z"), "no slot Z"),
    ("quern-4", "reference_cylinder", set_in("reference_cylinder", to=7), "names cylinder 7"),
    ("quern-4", "colour", set_in("colour", to="red"), "not known here"),
    ("quern-4", "format", set_in("format", to="other"), "must be 'gurvo-engine'"),
    ("quern-4", "profiles.0.cam_deg.0", set_in("profiles", 0, "cam_deg", 0, to="x"), "must be a number"),
    ("quern-4", "drive.stages.0.kind", set_in("drive", "stages", 0, "kind", to="rope"), "stages"),
    ("quern-4", "drive.stages.0", set_in("drive", "wheels", 1, "teeth", to=40), "turns 21/40 of a turn"),
    ("quern-4", "drive.stages.0.count", set_in("drive", "stages", 0, "count", to=56), "too short"),
    ("quern-4", "valves.0.head_mm", set_in("valves", 0, "head_mm", to=90), "does not fit a bore"),
    ("quern-4", "lash.0.most_mm", set_in("lash", 0, "most_mm", to=0.1), "less than the least"),
    ("tarn-f4", "timing_positions.0.after_tdc_deg", set_in("timing_positions", 0, "after_tdc_deg", to=-20), "not half-way"),
    ("tarn-f4", "drive.stages.0.marked", set_in("drive", "stages", 0, "marked", 1, "to_next", to=66.0), "add up to 189.5 teeth"),
    ("tarn-f4", "drive.stages.0.path", set_in("drive", "stages", 0, "path", 1, "side", to="inside"), "cannot go round"),
    ("tarn-f4", "drive.marks.1.clock_deg", set_in("drive", "marks", 1, "clock_deg", to=30), "they cannot meet"),
    ("tarn-f4", "drive.shafts.3.x_mm", set_in("drive", "shafts", 3, "x_mm", to="far"), "must be a number"),
    ("garth-d6", "drive.stages.0.meshes.1", lambda d: find(d["drive"]["shafts"], "cam").update(y_mm=260), "do not mesh"),
    ("garth-d6", "drive.marks.3.clock_deg", set_in("drive", "marks", 3, "clock_deg", to=90), "the gears mesh at 202.0°"),
    ("garth-d6", "drive.marks.0.meets", set_in("drive", "marks", 0, "meets", to="pump-3"), "do not mesh"),
    ("corrie-v6", "drive.stages.2", lambda d: find(d["drive"]["shafts"], "exhaust-a").update(x_mm=-130, y_mm=276), "overlap"),
    ("corrie-v6", "camshafts.3", lambda d: d["drive"]["stages"].pop(3), "Nothing drives Exhaust cam B"),
    ("corrie-v6", "camshafts.0.lobes.0.cylinder", set_in("camshafts", 0, "lobes", 0, "cylinder", to=2), "not in Bank A"),
    ("corrie-v6", "drive.locks.0.holds", set_in("drive", "locks", 0, "holds", to="mast"), "which is not there"),
    ("quern-4", "drive.shafts", set_in("drive", "shafts", 1, "kind", to="crank"), "one shaft of the kind “crank”, not 2"),
    ("quern-4", "drive.shafts.0", set_in("drive", "shafts", 0, "x_mm", to=3), "stands at 0, 0"),
    ("quern-4", "drive.wheels.0", set_in("drive", "wheels", 0, "diameter_mm", to=60), "not both"),
    ("quern-4", "drive.stages.0.count", set_in("drive", "stages", 0, "count", to=70), "too long"),
    ("quern-4", "camshafts.0.followers", lambda d: d["camshafts"][0]["followers"].append(d["camshafts"][0]["followers"][0]), "at most 2"),
    ("quern-4", "camshafts.0.lobes.1.valve", set_in("camshafts", 0, "followers", 1, "valve", to="intake"), "a follower for valve exhaust"),
    ("quern-4", "camshafts.0.lobes", set_in("camshafts", 0, "lobes", 2, "cylinder", to=1), "2 lobes of Camshaft are for cylinder 1"),
    ("quern-4", "camshafts.0.lobes.0.lash_mm", set_in("camshafts", 0, "followers", 0, "ratio", to=0.01), "would never open"),
    ("quern-4", "timing_positions.0.after_tdc_deg", set_in("timing_positions", 0, "after_tdc_deg", to=5), "use the kind “offset”"),
    ("quern-4", "timing_positions.0.after_tdc_deg", set_in("timing_positions", 0, "kind", to="offset"), "Say how many degrees"),
    ("quern-4", "firing_order.0", set_in("firing_order", to=[3, 4, 2, 1]), "beginning with cylinder 1"),
    ("quern-4", "throws.0.pin_deg", set_in("throws", 0, "pin_deg", to=15), "its own pin_deg is 0"),
    ("quern-4", "throws", set_in("throws", 3, "cylinder", to=5), "names cylinder 5, which is not there"),
    ("quern-4", "adjustments.0.slots", set_in("adjustments", 0, "slots", 1, "name", to="A6"), "2 key slots are called A6"),
    ("quern-4", "adjustments", set_in("adjustments", 1, "name", to="Crank sprocket key"), "2 adjustments are called"),
    ("wick-1", "profiles.0", set_in("profiles", 0, "opening", "ramp_cam_deg", to=0), "both a height and a length"),
    (
        "wick-1",
        "profiles.0",
        lambda d: d["profiles"][0].update(nose_dwell_cam_deg=60, opening=d["profiles"][0]["opening"] | {"cam_deg": 150}),
        "longer",
    ),
    ("wick-1", "profiles.0", set_in("profiles", 0, "lobe_lift_mm", to=0.1), "as high as the nose"),
    (
        "wick-1",
        "camshafts.0.phaser.travel_deg",
        set_in("camshafts", 0, "phaser", to={"name": "p", "travel_deg": 500, "rests": "advanced"}),
        "120",
    ),
    (
        "garth-d6",
        "drive.stages.0.meshes.0.most_backlash_mm",
        set_in("drive", "stages", 0, "meshes", 0, "most_backlash_mm", to=0.01),
        "swap",
    ),
    (
        "garth-d6",
        "drive.stages.0.meshes.0",
        lambda d: d["drive"]["wheels"][0].update(teeth=None, diameter_mm=90),
        "needs its teeth to mesh",
    ),
    ("teasel-4", "drive.stages.0.path", lambda d: d["drive"]["stages"][0]["path"].append({"wheel": "aux-pulley"}), "one wheel twice"),
    ("teasel-4", "drive.stages.0.marked", lambda d: d["drive"]["stages"][0]["marked"].reverse(), "not listed in the order"),
    (
        "corrie-v6",
        "drive.stages.0.marked.0.meets",
        set_in("drive", "stages", 0, "marked", 0, "meets", to="crank-b-mark"),
        "does not go round",
    ),
    ("corrie-v6", "drive.stages.2", set_in("drive", "wheels", 4, "teeth", to=30), "turns 15/28 of a turn"),
    ("sorrel-f4", "drive.stages.0.marked.0.to_next", lambda d: _shift(d, 0, 3), "they cannot meet"),
)


def _shift(data, stage, by):
    """Count some teeth on the other way between two marks; the sum still fits."""
    first, second = data["drive"]["stages"][stage]["marked"]
    first["to_next"] += by
    second["to_next"] -= by


class FaultTests(unittest.TestCase):
    def test_each_fault_has_its_path_and_its_sentence(self):
        for code, path, change, words in SPOILT:
            data = family_copy(code)
            change(data)
            with self.subTest(family=code, path=path):
                found = faults_of(data)
                self.assertIn(words, found.get(path, f"only {found}"))

    def test_all_faults_are_named_at_once(self):
        data = quern_4_copy()
        data["reference_cylinder"] = 9
        data["adjustments"][0]["fitted"] = "Z"
        data["throws"].pop(0)
        data["drive"]["wheels"][1]["teeth"] = 40
        self.assertLessEqual({"reference_cylinder", "adjustments.0.fitted", "throws", "drive.stages.0"}, set(faults_of(data)))

    def test_a_text_that_is_no_json_says_in_which_line(self):
        for text, words in (
            ("{\n'a': 1,\n 'b' 2}", "line 3"),
            ("", "no JSON"),
            ("[" * 5000, "no JSON"),
            ('{"a": 1, "a": 2}', "“a” is given twice"),
        ):
            with self.subTest(text=text[:12]), self.assertRaises(DocumentError) as refused:
                read_text(text)
            self.assertIn(words, refused.exception.faults[0].sentence)

    def test_a_file_of_another_kind_does_not_bury_its_reader_in_faults(self):
        data = quern_4_copy()
        data["profiles"][0]["cam_deg"] = ["x"] * 900
        with self.assertRaises(DocumentError) as refused:
            read_document(data)
        self.assertEqual(len(refused.exception.faults), 201)
        self.assertRegex(refused.exception.faults[-1].sentence, r"^There are 70\d more faults")

    def test_comments_and_late_commas_are_read_and_left_out(self):
        """Practice: an author notes beside a figure where it is from."""
        text = json.dumps(quern_4_copy()).replace('{"format"', "{ // measured on the bench\n'format'", 1)
        self.assertEqual(read_document(read_text(text)), quern_4())


class SaidTests(unittest.TestCase):
    """What misled authors before."""

    def only(self, code, change, path, words):
        data = family_data(code)
        change(data)
        found = faults_of(data)
        self.assertIn(words, found.get(path, f"only {found}"))

    def test_a_list_too_short_says_how_many_it_needs(self):
        self.only("wick-1", set_in("timing_positions", to=[]), "timing_positions", "needs at least 1, it has 0")

    def test_an_unknown_kind_names_the_kinds_there_are(self):
        self.only("wick-1", set_in("drive", "stages", 0, "kind", to="rope"), "drive.stages.0", "'chain', 'belt', 'gears'")

    def test_a_path_against_the_crank_says_so(self):
        self.only("brae-v8", lambda d: d["drive"]["stages"][0]["path"].reverse(), "drive.stages.0.path", "the other way round")

    def test_a_chain_whose_links_were_counted_asks_for_the_shaft(self):
        def stretch(data):
            stage = data["drive"]["stages"][0]
            stage["marked"] = [
                {"id": "a", "name": "a", "meets": "rotor-line", "to_next": 40},
                {"id": "b", "name": "b", "meets": "cam-left", "to_next": 58},
            ]
            data["drive"]["shafts"][1]["y_mm"] = 260.0

        self.only("wick-1", stretch, "drive.stages.0.path", "was counted: 98 links, but the way round its wheels is 107.6")

    def test_one_mark_at_two_positions_agrees_with_the_turn_between_them(self):
        """The crank turns 57° from the pin to TDC, so its dot does; a figure away from that is misread."""
        self.only(
            "brae-v8", set_in("drive", "marks", 0, "seen", 0, "clock_deg", to=30.0), "drive.marks.0.seen.0.clock_deg", "brings it to 0.0°"
        )

    def test_pins_counted_from_mark_to_mark_agree_with_the_way(self):
        """By hand: from 9 o'clock of the cam a straight run of 227 / 6.35 = 35.7 links, then a quarter of 17 teeth to the key below: 40."""

        def count(data, number):
            ends = {"from_mark": "cam-left", "to_mark": "crank-key", "counted": "pins", "both_ends_counted": True}
            data["drive"]["stages"][0]["counts"] = [{"id": "n", "name": "Cam to crank", "number": number, **ends}]

        self.only("wick-1", lambda d: count(d, 60), "drive.stages.0.counts.0.number", "leaves 59 between the marks")
        data = family_data("wick-1")
        count(data, 41)
        self.assertEqual(faults_of(data), {})

    def test_what_a_coupling_drives_turns_as_fast(self):
        self.assertEqual(shaft_speeds(read_document(family_data(LITTLE_KNOWN)).drive).turns["pump"], Fraction(1, 2))


class FamilyTests(unittest.TestCase):
    def test_every_shipped_family_is_sound_and_comes_back_the_same(self):
        for code in CODES:
            with self.subTest(family=code):
                document = family(code)
                for plain in (document.model_dump(mode="json"), plain_document(document)):
                    self.assertEqual(read_document(json.loads(json.dumps(plain))), document)
                self.assertEqual(difference(document, document), [])

    def test_an_eighth_family_written_by_hand_from_the_page_is_sound_and_turns(self):
        """An inline three with a cam driven by gears, and the smallest document of the page itself; both with comments."""
        page = (ROOT / "docs" / "formats" / "engine.md").read_text("utf-8")
        smallest, found = (part.split("```")[0] for part in page.split("```json5")[1:3])
        by_hand = (Path(__file__).parent / "data" / "inline-3.json5").read_text("utf-8")
        for text, name, cylinders in ((smallest, "Small 1", 1), (by_hand, "Burr 3", 3), (found, "Found 2", 0)):
            with self.subTest(name):
                document = read_document(read_text(text))
                self.assertEqual((document.identity.name, len(twin_frames(document).cylinders)), (name, cylinders))
                self.assertEqual(len(draw_drive(document).wheels), len(document.drive.wheels))

    def test_the_json_schema_holds_for_every_family(self):
        """Library: jsonschema, an independent reader of the written-out schema."""
        checker = Draft202012Validator(EngineDocument.model_json_schema())
        for code in CODES:
            with self.subTest(family=code):
                self.assertEqual([error.message for error in checker.iter_errors(family_copy(code))], [])
        self.assertTrue(list(checker.iter_errors(family_copy("wick-1") | {"running_direction": "up"})))

    @settings(max_examples=60)
    @given(st.sampled_from(CODES), st.data())
    def test_export_and_import_is_the_identity_for_any_sound_document(self, code, data):
        """Property: figures, words and lists drawn anew where they do not touch soundness."""
        plain = family_copy(code)
        plain["identity"]["variant"] = data.draw(st.text(max_size=40))
        plain["cautions"] = data.draw(st.lists(st.text("abc äß°·", min_size=3).filter(str.strip), max_size=3))
        least, most = sorted(data.draw(st.tuples(*[(st.just(0.0) | st.floats(1e-6, 3))] * 2)))
        side = {"name": "bore", "planes": data.draw(st.lists(st.sampled_from(["front", "rear", "top"]), unique=True))}
        sides = data.draw(st.sampled_from(({}, {"gap": side}, {"outer": side, "inner": {"name": "pin", "nominal_mm": 40}})))
        plain["fits"] = [{"id": "drawn", "name": "drawn", "least_mm": least, "most_mm": most, **sides}]
        plain.pop("chamber", None)
        for spring in plain["springs"]:
            spring["rate_n_mm"] = data.draw(st.floats(0.1, 2000))
        document = read_document(plain)
        self.assertEqual(read_document(read_text(document.model_dump_json())), document)

    @settings(max_examples=80)
    @given(documents())
    def test_any_drawn_engine_is_sound_comes_back_the_same_and_fires_evenly(self, plain):
        """Property: layouts, firing orders, cranks and drives drawn at random; even firing is 720 / n whatever the layout."""
        document = read_document(plain)
        self.assertEqual(read_document(read_text(document.model_dump_json())), document)
        self.assertEqual(read_document(read_text(pyjson5.dumps(document.model_dump(mode="json")))), document)
        self.assertEqual(difference(document, document), [])
        fires = sorted(document.firing_deg.values())
        self.assertTrue(all(abs(b - a - 720 / len(fires)) < 1e-9 for a, b in pairwise(fires)))

    def test_a_lock_that_cannot_reach_its_cam_is_doubted(self):
        """A plate that holds a cam of bank B goes in where bank B is timed; in the other bank's position it is doubtful."""
        document = family_copy("corrie-v6")
        self.assertFalse(any("cannot reach" in one.sentence for one in doubts_of(read_document(document))))
        document["drive"]["locks"][2]["position"] = "bank-a"
        (doubt,) = [one for one in doubts_of(read_document(document)) if "cannot reach" in one.sentence]
        self.assertEqual(doubt.path, "drive.locks.2.holds")

    @settings(max_examples=300)
    @given(st.sampled_from(CODES), st.data())
    def test_no_mutation_of_a_sound_document_crashes_the_reader(self, code, data):
        """Property: whatever is put anywhere, taken out or swapped, the answer is a document or faults in sentences."""
        document = family_copy(code)
        at = document
        while True:
            key = data.draw(st.sampled_from(sorted(at) if isinstance(at, dict) else range(len(at))))
            if not isinstance(at[key], dict | list) or not at[key] or data.draw(st.integers(0, 3)) == 0:
                break
            at = at[key]
        junk = st.none() | st.booleans() | st.integers(-1000, 10**6) | st.floats() | st.text(max_size=5) | st.just([]) | st.just({})
        near = st.just(at[key]).map(lambda v: v * 1.5 if isinstance(v, float) else v + 1 if type(v) is int else v)
        if data.draw(st.booleans()):
            at[key] = data.draw(junk | near)
        else:
            del at[key]
        try:
            shown = read_document(document)
            self.assertIsInstance(HOUSE.show(HOUSE.fold(shown, ())), BenchState)
            self.assertIsInstance(show_twin(shown, {}), Twin)
            self.assertTrue(all(part.id for view in scene_of(shown, 30.0).views for part in view.parts))
            self.assertTrue(all(one.sentence for one in (*doubts_of(shown), *not_known(shown))))
            self.assertEqual(read_document(json.loads(json.dumps(plain_document(shown)))), shown)
        except DocumentError as error:
            self.assertTrue(all(fault.sentence for fault in error.faults))


class DifferenceTests(unittest.TestCase):
    def test_what_differs_is_said_in_plain_words(self):
        changes = {
            "Banks “row”, cranktrain, stroke: was 86 mm, is 88 mm.": set_in("banks", 0, "cranktrain", "stroke_mm", to=88.0),
            "Camshafts “cam”, lobes “1 intake”, nose: was 107°, is 108.5°.": set_in("camshafts", 0, "lobes", 0, "nose_deg", to=108.5),
            "Profiles “intake-lobe”, lobe lift: 1 of 85 figures differ, by 0.01 mm at most.": set_in(
                "profiles", 0, "lobe_lift_mm", 42, to=6.41
            ),
            "Adjustments “Cam sprocket” is gone.": lambda d: d["adjustments"].pop(1),
            "Kit “timing-chain”, one time: was yes, is no.": set_in("kit", 0, "one_time", to=False),
            "Firing intervals: was not given, is 180°, 180°, 180°, 180°.": set_in("firing_intervals_deg", to=[180.0] * 4),
        }
        for sentence, change in changes.items():
            data = quern_4_copy()
            change(data)
            with self.subTest(sentence=sentence):
                newer = EngineDocument.model_validate(data)
                self.assertEqual([one.sentence for one in difference(quern_4(), newer)], [sentence])

    def test_a_run_of_work_is_compared_in_its_own_words(self):
        changes = {
            "Stages “Turn over and prove”, steps “Two turns by hand”, minutes: was 10, is 12.": set_in(
                "stages", 7, "steps", 3, "minutes", to=12
            ),
            "Stages “Hand over”, steps “Plugs in, leads on” is gone.": lambda d: d["stages"][10]["steps"].pop(2),
            "Things “dummy”, made of: was “a screw with a slipper and a lock nut”, is not given.": set_in("things", 3, "made_of", to=""),
        }
        whole = read_document(family_data("brae-v8"))
        for sentence, change in changes.items():
            data = family_data("brae-v8")
            change(data)
            with self.subTest(sentence):
                found = [one.sentence for one in difference(whole, EngineDocument.model_validate(data))]
                self.assertIn(sentence, found)

    def test_another_order_is_a_change_too(self):
        data = family_data("brae-v8")
        data["stages"][8:10] = reversed(data["stages"][8:10])
        [change] = difference(read_document(family_data("brae-v8")), EngineDocument.model_validate(data))
        self.assertRegex(change.sentence, r"^Stages: in another order, “Receive and lay out”")
