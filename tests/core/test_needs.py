"""What a step may need, in words: everything of a whole document that can be named, each once, and read by the format."""

from unittest import TestCase

from demo.documents import FAMILIES, family_data
from gurvo_core.engine.work import Need
from gurvo_core.writer.needs import names_in, need_words, needable


class NeedsTests(TestCase):
    def test_every_need_of_every_family_is_among_them_and_said_by_name(self):
        for file in FAMILIES.glob("*.json"):
            data = family_data(file.stem)
            names = names_in(data)
            offered = {str(one.need) for one in needable(data)}
            for one in needable(data):
                Need.model_validate(one.need)
            for step in (step for stage in data["stages"] for step in stage["steps"] if isinstance(step, dict)):
                for need in step.get("needs", ()):
                    plain = {key: value for key, value in need.items() if value is not None and key != "place"}
                    with self.subTest(family=file.stem, step=step["id"], need=plain):
                        if "tight" not in plain:  # a joint may be wanted at an earlier stage than its last
                            self.assertIn(str(plain), offered)
                        self.assertNotEqual(need_words(names, need), "something")

    def test_what_is_not_there_is_called_by_its_id(self):
        self.assertEqual(need_words({}, {"tight": {"joint": "head", "stage": 2}}), "head tight, stage 2")
        self.assertEqual(need_words({("thing", "pin"): "Pin"}, {"on": "pin", "place": "crank"}), "Pin, crank on")
        self.assertEqual(need_words({}, {"free_to_turn": True}), "free to turn")
        self.assertEqual(need_words({}, {}), "something")
