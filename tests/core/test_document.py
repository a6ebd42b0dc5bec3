"""The engine document: faults in sentences, all at once, and never a crash."""

import unittest

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from gurvo_core.engine import EngineDocument, read_document
from gurvo_core.errors import DocumentError
from gurvo_core.timing import card_faults
from tests.engines import quern_4, quern_4_copy


def faults_of(data):
    try:
        read_document(data)
    except DocumentError as error:
        return {fault.path: fault.sentence for fault in error.faults}
    return {}


class DocumentTests(unittest.TestCase):
    def test_export_and_import_is_the_identity(self):
        self.assertEqual(read_document(quern_4().model_dump(mode="json")), quern_4())

    def test_each_fault_has_its_path_and_its_sentence(self):
        spoil = {
            "cranktrain.throws": (lambda d: d["cranktrain"]["throws"].pop(2), "Cylinder 3 has no throw"),
            "firing_order": (lambda d: d.update(firing_order=[1, 3, 4, 4]), "every cylinder once"),
            "cranktrain.throws.1.tdc_deg": (lambda d: d["cranktrain"]["throws"][1].update(tdc_deg=90), "fires at 540°"),
            "cranktrain.rod_mm": (lambda d: d["cranktrain"].update(rod_mm=40), "cannot turn over"),
            "profiles.0": (lambda d: d["profiles"][0]["lobe_lift_mm"].__setitem__(20, 9), "without a dip"),
            "camshafts.0.lobes.0.profile": (lambda d: d["camshafts"][0]["lobes"][0].update(profile="none"), "which is not there"),
            "cam_card.0.lift_mm": (lambda d: d["cam_card"][0].update(lift_mm=12), "lifts 9.35 mm at most"),
            "adjustments.0.fitted": (lambda d: d["adjustments"][0].update(fitted="Z"), "no slot Z"),
            "reference_cylinder": (lambda d: d.update(reference_cylinder=7), "no cylinder 7"),
            "colour": (lambda d: d.update(colour="red"), "not known here"),
            "format": (lambda d: d.update(format="other"), "must be 'gurvo-engine'"),
        }
        for path, (change, words) in spoil.items():
            data = quern_4_copy()
            change(data)
            with self.subTest(path=path):
                self.assertIn(words, faults_of(data).get(path, "no such fault"))

    def test_all_faults_are_named_at_once(self):
        data = quern_4_copy()
        data["reference_cylinder"] = 9
        data["adjustments"][0]["fitted"] = "Z"
        data["cranktrain"]["throws"].pop(0)
        self.assertLessEqual({"reference_cylinder", "adjustments.0.fitted", "cranktrain.throws"}, set(faults_of(data)))

    def test_a_card_that_is_not_its_profiles_is_found(self):
        data = quern_4_copy()
        data["cam_card"][0]["opens_deg"] = 24.0
        self.assertEqual([fault.path for fault in card_faults(read_document(data))], ["cam_card.0.opens_deg"])

    @settings(suppress_health_check=[HealthCheck.too_slow], deadline=None, max_examples=150)
    @given(st.data())
    def test_no_mutation_of_a_sound_document_crashes_the_reader(self, data):
        """Property: whatever is put anywhere, the answer is a document or faults."""
        document = quern_4_copy()
        at = document
        while True:
            key = data.draw(st.sampled_from(sorted(at) if isinstance(at, dict) else range(len(at))))
            if not isinstance(at[key], dict | list) or not at[key] or data.draw(st.booleans()):
                break
            at = at[key]
        junk = st.none() | st.booleans() | st.integers(-1000, 10**6) | st.floats() | st.text(max_size=5) | st.just([]) | st.just({})
        at[key] = data.draw(junk)
        try:
            self.assertIsInstance(read_document(document), EngineDocument)
        except DocumentError as error:
            self.assertTrue(all(fault.sentence for fault in error.faults))
