"""What is kept with a state is what would be worked out anew: for the pieces, and for whole engines on which much is taken back."""

import random
import unittest
import uuid
from types import SimpleNamespace

from hypothesis import given, settings
from hypothesis import strategies as st

from demo.documents import FAMILIES, family_data
from gurvo_core.errors import CoreError
from gurvo_core.ledger import Beside, kept_last, kept_with
from gurvo_core.ledger.fold import HALT, Places
from gurvo_core.reading import read_document
from gurvo_core.run.job.standing import unmet
from gurvo_core.walk import next_question
from gurvo_core.work import HOUSE
from tests.builds import LEAD, Build


class KeptTests(unittest.TestCase):
    """The two ways of keeping."""

    def setUp(self):
        self.worked = []

    def look(self, state, *more):
        self.worked.append((state.name, *more))
        return [state.name, *more]

    def test_what_follows_from_one_state_is_worked_out_once(self):
        look = kept_with(self.look)
        one, two = SimpleNamespace(name="one"), SimpleNamespace(name="two")
        self.assertIs(look(one, 1), look(one, 1))
        self.assertEqual(look(one, 2), ["one", 2])
        self.assertEqual(look(two, 1), ["two", 1])
        self.assertEqual(self.worked, [("one", 1), ("one", 2), ("two", 1)])

    def test_nothing_is_kept_of_what_failed(self):
        def fail(state):
            self.worked.append(state.name)
            raise ValueError

        look, state = kept_with(fail), SimpleNamespace(name="one")
        for _ in range(2):
            self.assertRaises(ValueError, look, state)
        self.assertEqual(self.worked, ["one", "one"])

    def test_nothing_is_as_good_an_answer_as_any_other(self):
        look, state = kept_with(lambda state: self.worked.append(state.name)), SimpleNamespace(name="one")
        self.assertIsNone(look(state) or look(state))
        self.assertEqual(self.worked, ["one"])

    def test_only_the_last_is_kept_where_much_lies_beside(self):
        state, beside = SimpleNamespace(name="one"), [{}, {}]
        for place in (0, 0, 1, 1, 0):
            found = kept_last(state, "steps", Beside(beside[place], "turn"), lambda place=place: self.look(state, place))
            self.assertEqual(found, ["one", place])
        self.assertEqual(self.worked, [("one", 0), ("one", 1), ("one", 0)])

    def test_two_things_kept_with_one_state_do_not_meet(self):
        state, key = SimpleNamespace(name="one"), Beside("as it is")
        self.assertEqual(
            [kept_last(state, what, key, lambda what=what: what) for what in ("steps", "ends", "steps")], ["steps", "ends", "steps"]
        )

    def test_what_can_hold_nothing_is_worked_out_each_time(self):
        for _ in range(2):
            self.assertEqual(kept_last(None, "steps", Beside("x"), lambda: self.worked.append("again") or "found"), "found")
        self.assertEqual(self.worked, ["again", "again"])

    def test_things_are_the_same_by_identity_and_texts_by_what_they_say(self):
        thing = {"a": 1}
        self.assertEqual(Beside(thing, "".join(("tu", "rn"))), Beside(thing, "turn"))
        self.assertNotEqual(Beside(thing), Beside(dict(thing)))
        self.assertNotEqual(Beside(thing), Beside(thing, thing))
        self.assertNotEqual(Beside("turn"), Beside("tighten"))
        self.assertNotEqual(Beside(thing), thing)


class PlacesTests(unittest.TestCase):
    """Where each entry is in a ledger."""

    @settings(max_examples=40)
    @given(st.lists(st.integers(1, 90), max_size=6))
    def test_pieces_put_together_say_what_one_mapping_says(self, lengths):
        """Property: however many join at once, and whatever was asked before."""
        places, plain = Places(), {}
        for length in lengths:
            more = [uuid.uuid4() for _ in range(length)]
            before = dict(places)
            grown = places.joined(more)
            self.assertEqual(dict(places), before)
            plain |= {one: place for place, one in enumerate(more, len(plain))}
            places = grown
        self.assertEqual((dict(places), len(places), list(places)), (plain, len(plain), list(plain)))
        self.assertNotIn(uuid.uuid4(), places)
        self.assertRaises(KeyError, places.__getitem__, uuid.uuid4())

    def test_a_branch_leaves_the_other_alone(self):
        trunk = Places().joined(uuid.uuid4() for _ in range(HALT - 1))
        left, right = trunk.joined([one := uuid.uuid4()]), trunk.joined([two := uuid.uuid4()])
        self.assertEqual((left[one], right[two], len(trunk)), (HALT - 1, HALT - 1, HALT - 1))
        self.assertNotIn(two, left)


class WholeEngineTests(unittest.TestCase):
    """Nine families, entry by entry, beside a house that has kept nothing."""

    def walk(self, code, seed, entries=60):
        """Somebody builds; now and then an entry is struck, a step opened again or left out, or something is noted."""
        build, chance = Build(code), random.Random(seed)
        for n in range(entries):
            try:
                self.one_entry(build, chance)
            except CoreError:
                continue
            if chance.random() < 0.06 or n == entries - 1:
                yield build

    def one_entry(self, build, chance):
        done = [entry for entry in build.folded.entries if entry.body.kind != "strike" and entry.id not in build.folded.struck]
        drawn = chance.random()
        if done and drawn < 0.1:
            build.enter("strike", strikes=str(chance.choice(done).id), reason="a slip", by=LEAD)
        elif done and drawn < 0.16 and (steps := [entry.body.step for entry in done if entry.body.kind == "step_done"]):
            build.enter("step_opened", step=chance.choice(steps), reason="undone", by=LEAD)
        elif drawn < 0.2:
            build.enter("note", text="wiped and looked again")
        elif (question := next_question(build.state)) and question.kind != "sign_off":
            build.answer(question)

    def test_every_family_shows_what_a_house_shows_that_sees_it_for_the_first_time(self):
        """Whatever was kept on the way: the same document read anew, folded at once, shows the same to the last word."""
        for place, code in enumerate(sorted(file.stem for file in FAMILIES.glob("*.json"))):
            for build in self.walk(code, seed=place):
                fresh = HOUSE.fold(read_document(family_data(code)), build.folded.entries)
                with self.subTest(family=code, entries=len(build.folded.entries)):
                    self.assertEqual(HOUSE.show(fresh).model_dump(), build.state.model_dump())
                    self.assertEqual(HOUSE.summary(fresh, HOUSE.show(fresh)), HOUSE.summary(build.folded, build.state))

    def test_two_engines_of_one_family_side_by_side_do_not_meet(self):
        """They share a document and all that is kept with it; what one does is not seen at the other."""
        one, two = Build("wick-1"), Build("wick-1")
        asked = two.state.model_dump()
        for _ in range(12):
            one.answer(next_question(one.state))
        two.shown = None
        self.assertEqual(two.state.model_dump(), asked)
        for _ in range(12):
            two.answer(next_question(two.state))
        self.assertEqual([step.status for step in two.state.steps], [step.status for step in one.state.steps])

    def test_what_a_step_waits_for_is_told_as_its_needs_have_it(self):
        """Also where it is told by the names of those before it alone, and after steps were opened again."""
        told = 0
        for place, code in enumerate(("brae-v8", "wick-1")):
            for build in self.walk(code, seed=100 + place, entries=30):
                now, facts = build.folded.states["run"], build.folded.facts
                for step in (step for step in build.state.steps if step.does == "run" and step.key in now.plan.by_id):
                    asked = step.questions[0]
                    if asked.kind == "step_done" and asked.status == "open":
                        why = "; ".join(unmet(now, now.plan.by_id[step.key], facts))
                        self.assertTrue(asked.blocked == why or not why, (step.key, asked.blocked, why))
                        told += bool(why)
        self.assertGreater(told, 100)
