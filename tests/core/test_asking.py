"""The asking: in which order, what an answer opens, what does not fit any more, and where a remark leads."""

import unittest

from hypothesis import given, settings

from gurvo_core.reading import read_document
from gurvo_core.writer.answers import Answered
from gurvo_core.writer.asking.order import must_be_answered, next_key, question_of, questions_of
from gurvo_core.writer.compose.whole import compose
from gurvo_core.writer.draft import Draft, Numbered, clash_of
from gurvo_core.writer.edits import Answer, read_edit
from gurvo_core.writer.shape import shape_of
from gurvo_core.writer.standing import standing_of
from gurvo_core.writer.view import view_of
from tests.core.outlines import outlines


def answers(**texts):
    return {key.replace("__", "."): Answered(text) for key, text in texts.items()}


class OrderTests(unittest.TestCase):
    def test_the_first_five_minutes_come_first_and_open_what_hangs_on_them(self):
        given_by, asked = {}, []
        reply = {
            "layout": "v",
            "cylinders": "6",
            "cams": "one",
            "drives": "belt",
            "passes.belt": "crank, left cam, right cam, tensioner back",
            "known_by": "marks, locks",
        }
        while (key := next_key(given_by, asked[-1] if asked else None)) and question_of(given_by, key).is_first:
            asked.append(key)
            given_by[key] = Answered(reply.get(key))
        self.assertEqual(asked[:8], ["name", "fuel", "begins", "layout", "cylinders", "rows", "way", "cams"])
        later = ["passes.belt", "tensioner.belt", "fixed.left-cam-wheel", "known_by", "mark.crank-wheel", "lock.crank"]
        self.assertEqual([key for key in asked if key in later], later)
        self.assertNotIn("teeth.crank-wheel", asked)  # nobody needs a figure to begin

    def test_a_gear_train_asks_for_the_marks_of_each_mesh(self):
        keys = [one.key for one in questions_of(answers(cams="block", drives="gears", passes__gears="crank, idler, cam", known_by="marks"))]
        self.assertIn("meet.crank-wheel.idler-wheel", keys)
        self.assertNotIn("mark.crank-wheel", keys)

    def test_who_knows_how_far_the_pistons_go_is_asked_how_near_the_valves_come(self):
        answers = {"layout": Answered("v"), "cylinders": Answered("6"), "rows": Answered("1-3-5 / 2-4-6"), "cams": Answered("two")}
        keys = [one.key for one in questions_of(answers)]
        self.assertNotIn("head.intake", keys)  # without the rod nothing follows from it
        answers |= {"sizes": Answered("86 x 86, rod 143.5"), "valves": Answered("2 + 2")}
        keys = [one.key for one in questions_of(answers)]
        self.assertEqual([key for key in keys if key.startswith("gap.")], ["gap.intake", "gap.exhaust", "gap.valves"])
        told = {
            "head.intake": "34 at 14°, across 17, to piston 4.6",
            "spring.intake": "220 N + 28 N/mm",
            "gap.valves": "1.2",
            "base": "16.5",
        }
        document = compose(answers | {key: Answered(text, "book") for key, text in told.items()})
        sound = read_document(document)
        mirrored = [("left", 14, (-17, 17)), ("right", -14, (-17, 17))]
        self.assertEqual([(one.bank, one.angle_deg, one.along_mm) for one in sound.valves], mirrored)
        self.assertEqual((sound.springs[0].rate_n_mm, sound.least_gaps.valves_mm), (28, 1.2))
        self.assertIn("/springs/0", document["origins"])
        self.assertEqual({(cam.base_circle_mm, cam.friction) for cam in sound.camshafts}, {(16.5, None)})

    def test_a_figure_that_follows_is_said_and_never_filled_in(self):
        belt = answers(cams="one", layout="inline", drives="belt", passes__belt="crank, cam", teeth__crank="")
        belt["teeth.crank-wheel"] = Answered("22", "counted")
        asked = question_of(belt, "teeth.cam-wheel")
        self.assertEqual([fact.is_so for fact in asked.facts], ["1 : 2, so 22 and 44", "16.4° of the crank"])
        self.assertIsNone(compose(belt)["drive"]["wheels"][1].get("teeth"))
        self.assertEqual(compose(belt)["drive"]["wheels"][0]["teeth"], 22)
        self.assertEqual(compose(belt)["origins"], {"/drive/wheels/0/teeth": {"is": "measured", "note": "counted"}})

    @settings(max_examples=10)
    @given(outlines())
    def test_no_question_is_asked_twice_and_each_says_what_it_costs_or_must_be_known(self, said):
        """Property."""
        asked = questions_of(said)
        self.assertEqual(len({one.key for one in asked}), len(asked))
        self.assertEqual({one.key for one in asked if one.must_be_known}, {"name", "fuel", "layout"})
        self.assertLessEqual({one.key for one in must_be_answered(said)}, {"name", "fuel", "layout"})
        for one in asked:
            answer = said.get(one.key)
            if answer is not None and answer.text is not None and one.key not in ("fires", "rows"):
                self.assertEqual(one.read(one.read(answer.text)), one.read(answer.text))


class ShapeTests(unittest.TestCase):
    def test_wheels_are_found_by_what_tells_them_apart(self):
        shape = shape_of(answers(layout="v", cams="two", drives="chain", passes__chain="crank, left intake, right exhaust cam, idler"))
        self.assertEqual([wheel.shaft for wheel in shape.wheels], ["crank", "left-intake", "right-exhaust", "idler"])
        for name, says in (("intake", "may be any of left intake cam, right intake cam"), ("camel", "is no wheel known here")):
            asked = question_of(answers(layout="v", cams="two", drives="chain"), "passes.chain")
            with self.assertRaisesRegex(ValueError, says):
                asked.read(f"crank, {name}")

    def test_a_shaft_that_two_drives_share_has_a_wheel_for_each(self):
        shape = shape_of(
            answers(cams="one", drives="belt, oil chain", passes__belt="crank, cam", **{"passes__oil-chain": "crank, oil pump"})
        )
        self.assertEqual([wheel.id for wheel in shape.wheels], ["crank-belt", "cam-wheel", "crank-oil-chain", "oil-pump-wheel"])


class StandingTests(unittest.TestCase):
    def test_a_remark_leads_to_the_question_that_settles_it(self):
        said = answers(cams="one", layout="inline", drives="belt", passes__belt="crank, tensioner back, cam", known_by="marks")
        keys = [one.key for one in questions_of(said)]
        standing = standing_of(compose(said), keys)
        leads = {one.path: one.question for one in (*standing.doubtful, *standing.not_known)}
        self.assertEqual(leads["running_direction"], "way")
        self.assertEqual(leads["drive.wheels.0"], "teeth.crank-wheel")
        self.assertEqual(leads["banks.0.cylinders"], "cylinders")
        self.assertEqual(leads["joints.0"], "stages.head")
        self.assertTrue(set(leads.values()) <= {*keys, None})
        self.assertEqual([wheel.id for wheel in standing.front.wheels], ["crank-wheel", "tensioner-wheel", "cam-wheel"])

    def test_what_is_no_document_at_all_has_faults_and_no_front(self):
        for data in ({}, {"drive": 4}, {"stages": [{"steps": [7]}]}, {**compose({}), "joints": "many"}):
            standing = standing_of(data)
            self.assertTrue(standing.faults)
            view, _ = view_of(Draft(data))
            self.assertEqual(view.questions, [])


class ClashTests(unittest.TestCase):
    def test_edits_about_the_same_or_above_or_below_it_clash(self):
        pairs = (
            ({"does": "set", "at": "/joints/head/stages", "value": []}, {"does": "remove", "at": "/joints/head"}, True),
            ({"does": "set", "at": "/joints/head/stages", "value": []}, {"does": "set", "at": "/joints/head-2/stages", "value": []}, False),
            (
                {"does": "add", "to": "/stages/a/steps", "value": {"id": "x"}},
                {"does": "set", "at": "/stages/a/steps/x/says", "value": ""},
                True,
            ),
            ({"does": "answer", "question": "fuel", "text": "gas"}, {"does": "clear", "question": "fuel"}, True),
            ({"does": "answer", "question": "fuel", "text": "gas"}, {"does": "answer", "question": "name", "text": "x"}, False),
            ({"does": "move", "at": "/stages/a/steps/x", "to": "/stages/b/steps"}, {"does": "remove", "at": "/stages/b"}, True),
        )
        for one, other, clashes in pairs:
            with self.subTest(one=one, other=other):
                self.assertEqual(clash_of([Numbered(3, read_edit(one))], read_edit(other)), 3 if clashes else None)
                self.assertEqual(clash_of([Numbered(3, read_edit(other))], read_edit(one)), 3 if clashes else None)

    def test_an_answer_says_where_it_is_from(self):
        _, now = view_of(Draft(None, [Numbered(1, Answer(question="fuel", text="gas", source=None))]))
        self.assertEqual(now.answers["fuel"], Answered("gas"))
