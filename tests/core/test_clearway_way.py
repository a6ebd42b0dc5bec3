"""Ways: never through anything, looked at ten times finer; never much longer than the shortest that a search of everything finds."""

import heapq
import random
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from gurvo_core.clearway.choose import opens, ways_of
from gurvo_core.clearway.ground import CYCLE, Ground
from gurvo_core.clearway.least import least_on, likely_meetings
from gurvo_core.clearway.rest import load_of, load_together
from gurvo_core.clearway.stands import CRANK, Stands, places_of, terrain_of
from gurvo_core.clearway.way import find_way, turned_deg
from gurvo_core.engine import EngineDocument
from tests.engines import family

COARSE = 10


def ground_of(code) -> Ground:
    return Ground(document=family(code), measured={})


def loads_of(ground):
    return {cam: load for cam in ground.camshafts if (load := load_of(ground, cam))}


def random_stands(ground, draw, step=1) -> Stands:
    return Stands(crank=draw.randrange(0, CYCLE, step), cams={cam: draw.randrange(0, CYCLE, step) for cam in ground.camshafts})


def shortest(ground, stands, goal, level):
    """Every place on a coarse grid, by brute force: the least turned, the camshaft's degrees counted half; None where there is no way."""
    terrain = terrain_of(ground, stands, level)
    begin, end = tuple(places_of(terrain, stands)), tuple(goal[shaft] for shaft in terrain.shafts)
    ends = {end, ((end[0] + 360) % CYCLE, *end[1:])}  # on either stroke: it takes no camshaft along
    if any(terrain.blocked(begin, shaft)[begin[shaft]] for shaft in range(2)):
        return None
    best, waiting = {begin: 0.0}, [(0.0, begin)]
    while waiting:
        cost, at = heapq.heappop(waiting)
        if at in ends:
            return cost
        for shaft, share in ((0, 1.0), (1, 0.5)):
            for by in (COARSE, -COARSE):
                if not terrain.is_clear(at, shaft, by):
                    continue
                there = tuple((place + by) % CYCLE if n == shaft else place for n, place in enumerate(at))
                if cost + COARSE * share < best.get(there, 1e9):
                    best[there] = cost + COARSE * share
                    heapq.heappush(waiting, (best[there], there))
    return None


class AgainstEverythingTests(TestCase):
    def test_of_crank_and_one_camshaft_never_longer_than_the_shortest_by_more_than_its_grid(self):
        draw, found = random.Random(5), 0
        for code in ("quern-4", "garth-d6", "wick-1"):
            ground = ground_of(code)
            for _ in range(12):
                stands, goal = random_stands(ground, draw, COARSE), {CRANK: 0, "cam": 0}
                way = find_way(ground, stands, goal, {})
                if way is None:
                    self.assertIsNone(shortest(ground, stands, goal, "meets"), stands)
                    continue
                found += 1
                every = shortest(ground, stands, goal, way.level)
                if every is not None:
                    self.assertLessEqual(turned_deg(way.moves), every + COARSE)
        self.assertGreater(found, 20)


class ProvenTests(TestCase):
    def walked(self, ground, stands, way):
        """Each move at a tenth of a degree: what is known to be there is never used up."""
        for move in way.moves:
            gap = least_on(ground, stands, move)
            if gap is not None:
                self.assertGreaterEqual(gap.gap.value, gap.gap.expanded - 0.05, (move, gap.words))
            stands = stands.moved(move)
        return stands

    def test_ways_of_all_families_keep_clear_of_everything(self):
        draw = random.Random(11)
        for code in ("teasel-4", "tarn-f4", "corrie-v6", "brae-v8"):
            ground = ground_of(code)
            loads, goal = loads_of(ground), {CRANK: 90, **dict.fromkeys(ground.camshafts, 90)}
            for _ in range(4):
                stands = random_stands(ground, draw)
                way = find_way(ground, stands, goal, loads)
                if way is not None:
                    end = self.walked(ground, stands, way)
                    self.assertEqual((end.crank % 360, dict(end.cams)), (90, dict.fromkeys(ground.camshafts, 90)))

    @settings(max_examples=100, deadline=None)
    @given(
        stroke=st.floats(60, 120),
        rod=st.floats(1.6, 2.4),
        drop=st.floats(0.5, 9.0),
        leaning=st.floats(0, 30),
        places=st.tuples(*[st.integers(0, CYCLE - 1)] * 3),
    )
    def test_of_a_hundred_random_engines_no_way_crosses_what_is_in_the_way(self, stroke, rod, drop, leaning, places):
        document = random_engine(stroke, rod * stroke, drop, leaning)
        ground = Ground(document=document, measured={})
        stands = Stands(crank=places[0], cams={"intake": places[1], "exhaust": places[2]})
        way = find_way(ground, stands, {CRANK: 0, "intake": 0, "exhaust": 0}, loads_of(ground))
        if way is not None:
            self.walked(ground, stands, way)

    def test_with_the_drive_laid_the_crank_takes_its_camshafts_along_and_turns_the_running_way(self):
        ground = ground_of("corrie-v6")
        cams = {"intake-a": 100, "exhaust-a": 100, "intake-b": 240, "exhaust-b": 0}
        stands = Stands(crank=100, cams=cams, coupled=frozenset({"intake-a", "exhaust-a"}), running_only=True)
        goal = {CRANK: 30, "intake-b": 30, "exhaust-b": 30}
        way = find_way(ground, stands, goal, loads_of(ground))
        self.assertTrue(way.moves)
        self.assertTrue(all(move.by > 0 for move in way.moves if move.shaft == CRANK))
        self.assertNotIn("intake-a", [move.shaft for move in way.moves])
        end = self.walked(ground, stands, way)
        self.assertEqual((end.crank, end.cams["intake-a"]), (30, 30))


class TiedTests(TestCase):
    """Two camshafts that turn each other, the crank by itself."""

    def test_what_turns_together_stays_together_and_keeps_clear(self):
        ground, draw, found = ground_of("corrie-v6"), random.Random(3), 0
        for _ in range(8):
            places = random_stands(ground, draw)
            cams = {**places.cams, "exhaust-a": (places.cams["intake-a"] + 40) % CYCLE}
            stands = Stands(crank=places.crank, cams=cams, tied=(("intake-a", "exhaust-a"),))
            self.assertNotIn("exhaust-a", stands.free)
            way = find_way(ground, stands, {CRANK: 30, "intake-a": 30}, loads_of(ground))
            if way is not None:
                found += 1
                self.assertNotIn("exhaust-a", [move.shaft for move in way.moves])
                end = ProvenTests.walked(self, ground, stands, way)
                self.assertEqual((end.cams["intake-a"], end.cams["exhaust-a"]), (30, 70))
        self.assertGreater(found, 3)

    def test_a_map_of_two_that_are_tied_is_that_of_each_at_its_own_place(self):
        ground, draw = ground_of("teasel-4"), random.Random(8)
        stands = Stands(crank=0, cams={"intake": 100, "exhaust": 340}, tied=(("intake", "exhaust"),))
        terrain = terrain_of(ground, stands, "meets")
        self.assertEqual(terrain.shafts, (CRANK, "intake"))
        meets = ground.heads("intake", "exhaust", "meets")
        for _ in range(300):
            crank, cam = draw.randrange(CYCLE), draw.randrange(CYCLE)
            other = (cam + 240) % CYCLE
            each = ground.piston("intake", "meets")[crank, cam] | ground.piston("exhaust", "meets")[crank, other] | meets[cam, other]
            self.assertEqual(terrain.pairs[0, 1][crank, cam], each)

    def test_their_springs_turn_them_as_one(self):
        ground = ground_of("teasel-4")
        loads = loads_of(ground)
        both = load_together(loads, {"intake": 0, "exhaust": 240})
        self.assertAlmostEqual(both.torque_nm[100], loads["intake"].torque_nm[100] + loads["exhaust"].torque_nm[340])
        self.assertAlmostEqual(float(both.torque_nm.sum()), 0.0, places=6)


def random_engine(stroke, rod, drop, leaning) -> EngineDocument:
    base = family("teasel-4")
    bank = base.banks[0]
    train = bank.cranktrain.model_copy(update={"stroke_mm": stroke, "rod_mm": rod, "pin_offset_mm": 0.0})
    heads = tuple(
        one.model_copy(update={"to_piston_mm": drop, "angle_deg": leaning if one.valve == "intake" else -leaning}) for one in base.valves
    )
    return base.model_copy(update={"banks": (bank.model_copy(update={"cranktrain": train}),), "valves": heads})


class OtherWaysTests(TestCase):
    def test_each_other_way_says_what_it_is_better_for(self):
        ground, draw, said = ground_of("teasel-4"), random.Random(2), 0
        for _ in range(12):
            choices = ways_of(ground, random_stands(ground, draw), {CRANK: 0, "intake": 0, "exhaust": 0}, loads_of(ground))
            said += len(choices[1:])
            self.assertTrue(all(one.better for one in choices[1:]))
        self.assertGreater(said, 1)

    def test_where_there_is_none_it_says_what_would_open_one(self):
        """Crank at TDC, a valve of cylinder 1 wide open on its piston: with that camshaft out it is free."""
        ground = ground_of("teasel-4")
        stands = Stands(crank=0, cams={"intake": 470, "exhaust": 0})
        goal = {CRANK: 90, "intake": 0, "exhaust": 0}
        self.assertEqual(ways_of(ground, stands, goal, loads_of(ground)), [])
        here, without = opens(ground, stands, goal, loads_of(ground))
        self.assertEqual((here[0].words, without), ("intake 1 to piston 1", ["intake"]))

    def test_a_dead_stop_is_where_the_model_has_something_meet(self):
        ground = ground_of("teasel-4")
        stands = Stands(crank=10, cams={"intake": 10, "exhaust": 10})
        terrain = terrain_of(ground, stands, "meets")
        on = terrain.reach(tuple(places_of(terrain, stands)), 1, 1)
        there = Stands(crank=10, cams={"intake": (10 + on + 4) % CYCLE, "exhaust": 10})
        first = likely_meetings(ground, there, "intake", 1)[0]
        self.assertIn(first.words, {"intake 1 on piston 1", "intake 4 on piston 4"})
        self.assertLess(abs(first.off_deg), 15)
