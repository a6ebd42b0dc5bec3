"""The joints of a document, whatever is written in them: refused at their own path, or drawn, pulled and put on paper."""

import json
import unittest

from hypothesis import example, given, settings
from hypothesis import strategies as st

from gurvo_core.engine import EngineDocument
from gurvo_core.engine.plain import plain_document
from gurvo_core.errors import DocumentError
from gurvo_core.joints.job.show import joint_pictures
from gurvo_core.joints.sequence import figures_of, items_of
from gurvo_core.reading import doubts_of, read_document
from gurvo_core.run import run_faults
from tests.builds import Build
from tests.engines import family_copy, family_copy_with_run, family_with_run

torques = st.sampled_from([5, 20, 48.5, 110])
stages = st.one_of(
    st.fixed_dictionaries({"does": st.just("torque")}, optional={"torque_nm": torques, "least_nm": torques, "passes": st.integers(1, 3)}),
    st.fixed_dictionaries(
        {"does": st.just("angle")}, optional={"angle_deg": st.sampled_from([60, 90]), "most_deg": st.sampled_from([50, 95])}
    ),
    st.fixed_dictionaries({"does": st.just("torque_angle"), "angle_deg": st.just(60)}, optional={"torque_nm": torques}),
    st.fixed_dictionaries({"does": st.just("draw_down")}, optional={"draw": st.just({"turn_deg": 90, "gap_mm": 1.5})}),
    st.sampled_from([{"does": "hand"}, {"does": "loosen"}, {"does": "wait", "minutes": 5}, {"does": "wait"}]),
)
NUTS = {"id": "head", "name": "Stud nuts"}
joints = st.fixed_dictionaries(
    {**{key: st.just(value) for key, value in NUTS.items()}, "stages": st.lists(stages, min_size=1, max_size=4)},
    optional={
        "fasteners": st.integers(1, 9),
        "thread": st.sampled_from(["M8", "M10x1.25", "7/16-14", "8 mm", ""]),
        "property_class": st.sampled_from(["8.8", "grade 5"]),
        "thread_state": st.sampled_from(["dry", "oiled"]),
        "pattern": st.fixed_dictionaries(
            {"kind": st.sampled_from(["rows", "circle", "line", "pairs"])}, optional={"columns": st.integers(1, 5)}
        ),
        "rule": st.sampled_from(["middle_outward", "crosswise", "opposing", "round"]),
        "order": st.lists(st.sampled_from("1234"), max_size=5),
        "one_time": st.booleans(),
        "hand": st.just("left"),
        "bolts": st.lists(
            st.fixed_dictionaries({"id": st.sampled_from("abc"), "x_mm": st.integers(-9, 9), "y_mm": st.just(0)}), max_size=3
        ),
        "length_mm": st.just(40),
        "clamped": st.just([{"name": "head", "thickness_mm": 60, "material": "aluminium"}]),
    },
)


class AnyJointTests(unittest.TestCase):
    @settings(max_examples=150)
    @given(joints)
    @example({**NUTS, "thread": "8 mm", "thread_state": "dry", "stages": [{"does": "torque", "torque_nm": 20}]})
    def test_it_is_refused_at_its_own_path_or_can_be_pulled(self, joint):
        """Property: no joint falls over; what is wrong with one is said at that joint or at the step that names its stage."""
        data = family_copy_with_run("wick-1")
        at = next(n for n, one in enumerate(data["joints"]) if one["id"] == "head")
        data["joints"][at] = joint
        try:
            document = read_document(data)
        except DocumentError as error:
            self.assertTrue(
                all(fault.path.startswith((f"joints.{at}", "stages.")) and fault.sentence for fault in error.faults), error.faults
            )
            return
        self.assertIsInstance(doubts_of(document), list)
        self.assertEqual(read_document(json.loads(json.dumps(plain_document(document)))), document)
        for picture in joint_pictures(document):
            self.assertEqual(len({spot.id for spot in picture.spots}), len(picture.spots))
        own = document.joint("head")
        if own.is_figured:
            for item in items_of(document, own):
                self.assertIsNotNone(figures_of(own, item).does)

    @settings(max_examples=12)
    @given(joints)
    def test_and_the_engine_is_built_with_it(self, joint):
        """Property: whatever the joint, the build comes to the step that stands on it."""
        data = family_copy_with_run("wick-1")
        at = next(n for n, one in enumerate(data["joints"]) if one["id"] == "head")
        data["joints"][at] = joint
        try:
            document = read_document(data)
        except DocumentError:
            return
        build = Build(document)
        build.play("turn")
        status = {step.key: step.status for step in build.state.steps}
        self.assertEqual(status["studs"], "done", build.ends())


class WordsTests(unittest.TestCase):
    def test_joints_in_words_stay_as_they_were(self):
        """Documents from before a joint could be in figures: the same document, done as a whole."""
        data = family_copy("brae-v8")
        joint = {"id": "mains", "name": "Main caps", "thread": "eleven by one and a half", "fasteners": 20, "stages": ["snug", "30 N·m"]}
        data["joints"][0] = joint
        document = EngineDocument.model_validate(data)
        self.assertFalse(document.joint("mains").is_figured)
        self.assertEqual(document.joint("mains").stage_words(0, 2), "snug, then 30 N·m")
        self.assertEqual(read_document(data).joint("mains").thread, joint["thread"])

    def test_without_a_count_it_is_done_as_a_whole(self):
        data = family_copy_with_run("wick-1")
        next(one for one in data["joints"] if one["id"] == "head").pop("fasteners")
        build = Build(read_document(data)).to("studs")
        question = next(q for step in build.state.steps if step.key == "studs" for q in step.questions)
        self.assertEqual((question.kind, question.button), ("step_done", "Tightened"))
        self.assertIn("finger tight, then 10 N·m, then 22 N·m", question.hint)

    def test_a_nut_that_holds_two_joints_tightens_both(self):
        """The steps of one joint count for what its fasteners hold as well."""
        data = family_copy_with_run("wick-1")
        next(one for one in data["joints"] if one["id"] == "head")["also_clamps"] = ["cam-cover"]
        build = Build(read_document(data))
        names = [step.id for step in build.folded.states["run"].plan.of_joint["cam-cover"]]
        self.assertIn("studs", names)

    def test_a_hold_point_is_no_pull(self):
        data = family_copy_with_run("wick-1")
        step = next(one for stage in data["stages"] for one in stage["steps"] if isinstance(one, dict) and one["id"] == "studs")
        step["hold_point"] = True
        faults = run_faults(EngineDocument.model_validate(data))
        self.assertIn("add a step after it for the signature", faults[0].sentence)

    def test_the_shipped_families_have_no_doubtful_joints(self):
        for code in ("quern-4", "tarn-f4", "corrie-v6", "sorrel-f4", "garth-d6", "teasel-4", "wick-1"):
            doubts = [fault for fault in doubts_of(family_with_run(code)) if fault.path.startswith("joints")]
            with self.subTest(family=code):
                self.assertEqual(doubts, [])
