"""Whatever happens at a joint, in whatever order: applied entry by entry it is what the whole ledger says, and no walk gets stuck."""

import random
import unittest

from hypothesis import Phase, given, settings
from hypothesis import strategies as st

from gurvo_core.errors import CoreError
from gurvo_core.walk import next_question
from gurvo_core.work import HOUSE
from tests.builds import LEAD, Build

WALKS = settings(max_examples=10, phases=[Phase.explicit, Phase.reuse, Phase.generate])
STRUCK = ("step_done", "joint_ready", "pull", "bolt", "pull_decided", "joint_anew", "joint_left", "step_opened")
STEPS = {"mallow-2": ("plate-tight", ("1", "2")), "wick-1": ("studs", ("1", "2", "3", "4"))}


def odd_entry(family, chance):
    """Something that goes wrong at a joint, or is done out of turn."""
    step, bolts = STEPS[family]
    bolt, stage = chance.choice(bolts), chance.randint(1, 3)
    return chance.choice(
        [
            {"kind": "pull", "step": step, "stage": stage, "fastener": bolt, "torque": {"text": f"{chance.randint(5, 40)}", "unit": "N·m"}},
            {"kind": "pull", "step": step, "stage": 1, "fastener": "all"},
            {"kind": "bolt", "step": step, "fastener": bolt, "found": chance.choice(["loose", "taken_out", "replaced"]), "note": "seen"},
            {"kind": "joint_anew", "step": step, "reason": "the gauge slipped"},
            {"kind": "joint_left", "step": step, "until": "the others are in"},
            {"kind": "step_opened", "step": step, "reason": "undone"},
            {"kind": "pull_decided", "step": step, "stage": stage, "fastener": bolt, "decision": "take_out", "reason": "odd"},
        ]
    )


class WalkTests(unittest.TestCase):
    def walk(self, family, seed, entries=70):
        """An engine on which much goes wrong and some entries are struck; and whether it comes to its end all the same."""
        build, chance = Build(family), random.Random(seed)
        for _ in range(entries):
            try:
                drawn = chance.random()
                if drawn < 0.35:
                    build.enter(**odd_entry(family, chance), because="all the same" if chance.random() < 0.5 else "", by=LEAD)
                elif drawn < 0.42 and any(entry.body.kind in STRUCK for entry in build.folded.entries):
                    struck = chance.choice([entry for entry in build.folded.entries if entry.body.kind in STRUCK])
                    build.enter("strike", strikes=str(struck.id), reason="slip", by=LEAD)
                elif (question := next_question(build.state)) and question.kind != "sign_off":
                    build.answer(question)
            except CoreError:
                continue
        return build

    @WALKS
    @given(st.sampled_from(sorted(STEPS)), st.integers(0, 10**9))
    def test_entry_by_entry_is_the_same_as_all_at_once(self, family, seed):
        """Property: rooms that tell each other of steps leave the same behind, struck entries without a trace."""
        build = self.walk(family, seed)
        whole = HOUSE.fold(build.engine, build.folded.entries)
        self.assertEqual(HOUSE.show(whole).model_dump(), build.state.model_dump())
        for room in ("run", "joints"):
            self.assertEqual(whole.states[room].opened, build.folded.states[room].opened)
        stripped = [entry for entry in build.folded.entries if entry.id not in build.folded.struck and entry.body.kind != "strike"]
        plain = HOUSE.fold(build.engine, stripped)
        self.assertEqual(plain.states["joints"].pulls, build.folded.states["joints"].pulls)
        self.assertEqual(plain.states["run"].done.keys(), build.folded.states["run"].done.keys())

    @WALKS
    @given(st.sampled_from(sorted(STEPS)), st.integers(0, 10**9))
    def test_no_walk_gets_stuck(self, family, seed):
        """Property: spent bolts are replaced, odd ones taken out, and the engine is handed over with nothing left over."""
        build = self.walk(family, seed)
        build.clock = build.clock.replace(year=2027)
        for _ in range(8):
            build.play()
            for end in build.state.loose_ends:
                if end.ends_with and not end.is_after:
                    build.enter(**end.ends_with)
            self.put_right(build)
        self.assertTrue(build.state.signed, build.ends())
        self.assertEqual(build.ends(), [])

    def put_right(self, build):
        """What no question asks for: new bolts, and the lead's word on those that stand apart."""
        now = build.folded.states["joints"]
        for name, judged in now.judged.items():
            step = next(step for step, planned in now.book.steps.items() if planned.joint == name)
            for one in judged:
                decided = now.decided.get((name, one.item.key))
                if decided is None or decided.decision != "accepted":
                    of_it = {"step": step, "stage": one.item.stage, "turn": one.item.turn, "fastener": one.item.fastener}
                    build.enter("pull_decided", **of_it, decision="accepted", reason="seen", by=LEAD, because="seen")
        blocked = [question.blocked for step in build.state.steps for question in step.questions]
        if any(words.startswith("nothing holds") for words in blocked):  # struck after what held it was taken off
            plan = build.folded.states["run"].plan
            holder = next(s.step.id for s in plan.steps if s.step.does == "put_on" and build.engine.thing(s.step.thing).counter_hold)
            build.enter("step_opened", step=holder, reason="needed again", by=LEAD)
        for name, spent in build.folded.states["joints"].spent.items():
            step = next(step for step, planned in now.book.steps.items() if planned.joint == name)
            for fastener in spent:
                build.enter("bolt", step=step, fastener=fastener, found="replaced")
