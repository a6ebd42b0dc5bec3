"""All families through their ways: cams left where their springs let them rest, brought to their marks, laid, turned over and signed."""

import random
from unittest import TestCase

from gurvo_core.clearway.job.thought import thought_of
from gurvo_core.clearway.least import gaps_at
from gurvo_core.clearway.stands import Stands
from gurvo_core.errors import AskFirst
from gurvo_core.ledger import SHAFTS
from gurvo_core.motion.told import clock_of, told_by
from gurvo_core.walk import next_question
from tests.builds import Build

MOVES = ("lay", "put_on", "park")
# camshafts that turn by themselves before a drive is laid
FREE = {"brae-v8": 4, "corrie-v6": 4, "sorrel-f4": 2, "tarn-f4": 2, "teasel-4": 2}


def thought(build):
    return thought_of(build.folded.states["clearway"], build.folded.facts.get(SHAFTS))


def to_first_free(code):
    """Where camshafts are in and a step wants them somewhere."""
    build = Build(code)
    while question := next_question(build.state):
        cams = [one for one in (build.state.clearway.shafts if build.state.clearway else ()) if one.how == "not known"]
        if len(cams) == FREE[code] and question.kind == "step_done" and question.does in MOVES:
            return build
        build.answer(question)
    raise AssertionError(f"{code}: no camshaft turns by itself")


def let_rest(build, draw):
    """Each camshaft somewhere its springs let it stay, and where nothing meets with the crank as it is."""
    now, cams = thought(build), {}
    crank = round(now.where.crank.place_deg)
    for cam in now.where.cams:
        load = now.loads[cam.shaft]
        places = [place for place in range(0, 720, 5) if load.at(place).stays == "stays"]
        draw.shuffle(places)
        for place in places:
            stands = Stands(crank=crank, cams={**cams, cam.shaft: place})
            if all(gap.gap.value > gap.gap.expanded + 1.0 for gap in gaps_at(now.ground, stands)):
                cams[cam.shaft] = place
                break
    for cam, place in cams.items():
        of = told_by(build.engine, cam)[0].of
        build.enter("shaft_seen", shaft=cam, at={"of": of, "clock": f"{clock_of(build.engine, cam, of, place):.1f}°"})
    return cams


class WalkTests(TestCase):
    def test_every_family_is_brought_to_its_marks_and_signed(self):
        draw, moved = random.Random(4), 0
        for code, count in FREE.items():
            with self.subTest(code):
                build = to_first_free(code)
                self.assertEqual(len(let_rest(build, draw)), count)
                while question := next_question(build.state):
                    if question.kind == "clearway_move" and question.ways:
                        moved += 1
                        for move in question.ways[0].moves:
                            self.assertTrue(move.gap is None or move.gap.gap_mm > 0, (move.words, move.gap))
                    build.answer(question)
                self.assertTrue(build.state.signed)
        self.assertGreater(moved, 8)

    def test_whatever_would_bend_a_valve_is_refused(self):
        draw, refused = random.Random(9), 0
        for code in FREE:
            build = to_first_free(code)
            let_rest(build, draw)
            for one in thought(build).reached:
                if one.forward is None:
                    continue
                shaft = thought(build).where.crank.shaft if one.shaft == "crank" else one.shaft
                with self.assertRaises(AskFirst, msg=(code, shaft)) as said:
                    build.enter("shaft_turned", shaft=shaft, by_deg=one.forward_deg + 10, then="stands")
                self.assertIn("meets", said.exception.rule)
                refused += 1
        self.assertGreater(refused, 8)
