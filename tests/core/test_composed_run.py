"""The rules of the trade by which a run is drafted: what waits for what, what comes off again, what is left out where it is not there."""

import unittest

from gurvo_core.reading import doubts_of, read_document
from gurvo_core.timing.lines import cam_lines
from gurvo_core.walk import Robot, walk_right
from gurvo_core.writer.answers import Answered
from gurvo_core.writer.compose.whole import compose

BELT = {
    "layout": "inline",
    "cylinders": "4",
    "cams": "one",
    "drives": "belt",
    "passes.belt": "crank, cam, tensioner back",
    "known_by": "marks",
}
V = {
    "layout": "v",
    "cylinders": "6",
    "rows": "1-2-3 / 4-5-6",
    "cams": "two",
    "valves": "2 + 2",
    "drives": "chain",
    "passes.chain": "crank, left exhaust, left intake, right intake, right exhaust",
}


def composed(*parts, **more):
    """A document of some answers; ``__`` stands for the dot of a key."""
    texts = {key: text for part in parts for key, text in part.items()} | {key.replace("__", "."): text for key, text in more.items()}
    return compose({key: Answered(text) for key, text in texts.items()})


def ids(document):
    return [step["id"] for stage in document["stages"] for step in stage["steps"]]


def step(document, ident):
    return next(one for stage in document["stages"] for one in stage["steps"] if one["id"] == ident)


class RunCase(unittest.TestCase):
    def in_order(self, document, *wanted):
        """These steps are there, in this order."""
        found = [one for one in ids(document) if one in wanted]
        self.assertEqual(found, list(wanted))


class OrderTests(RunCase):
    def test_cams_above_wait_for_the_head_and_covers_for_the_lead(self):
        document = composed(BELT, tensioner__belt="eccentric")
        self.in_order(document, "plugs-out", "park", "on-head-row", "tight-head", "in-cams-row", "tight-caps", "on-cam", "on-belt")
        self.in_order(
            document, "turn-over", "prove-belt", "seen", "on-front", "tight-front", "on-valve-cover", "prime", "plugs-in", "start"
        )
        self.assertTrue(step(document, "seen")["hold_point"])
        self.assertTrue(step(document, "on-front")["covers"])
        self.assertIn({"parked": "mark"}, step(document, "on-belt")["needs"])

    def test_a_cam_in_the_block_goes_in_first_and_its_head_last(self):
        document = composed(
            layout="inline", cylinders="4", cams="block", drives="chain", passes__chain="crank, cam", tensioner__chain="none"
        )
        self.in_order(
            document, "park", "cam-in", "on-chain", "turn-over", "on-head-row", "tight-head", "on-rockers-row", "tight-rockers", "on-front"
        )
        self.assertNotIn("in-cams-row", ids(document))
        self.assertEqual({follower["kind"] for follower in document["camshafts"][0]["followers"]}, {"pushrod"})

    def test_every_bank_has_its_head_and_its_caps(self):
        document = composed(V)
        self.in_order(document, "on-head-left", "tight-head-left", "on-head-right", "tight-head-right", "in-cams-left", "in-cams-right")
        self.assertEqual([bank["cylinders"] for bank in document["banks"]], [[1, 2, 3], [4, 5, 6]])
        self.assertEqual({cam["bank"] for cam in document["camshafts"]}, {"left", "right"})
        lobes = document["camshafts"][0]["lobes"]
        self.assertEqual((len(lobes), {lobe["valve"] for lobe in lobes}, {lobe["cylinder"] for lobe in lobes}), (6, {"intake"}, {1, 2, 3}))

    def test_a_bare_block_has_crank_and_pistons_first(self):
        document = composed(BELT, begins="bare")
        self.in_order(document, "in-crank", "tight-mains", "turns-free", "in-pistons", "tight-rods", "plugs-out")
        self.assertNotIn("in-crank", ids(composed(BELT, begins="short")))
        flat = composed(layout="flat", cylinders="4", begins="bare")
        self.assertEqual(next(joint["name"] for joint in flat["joints"] if joint["id"] == "mains"), "Case bolts")

    def test_clearances_come_when_every_cam_stands_right(self):
        document = composed(BELT, valves="1 + 1", lash__intake="0.15-0.20 by screw", lash__exhaust="hydraulic")
        self.in_order(document, "turn-over", "lash", "on-front")
        self.assertEqual(step(document, "lash")["does"], "lash")
        self.assertEqual([one["set_by"] for one in document["lash"]], ["screw", "hydraulic"])
        self.assertEqual(step(composed(BELT, lash__intake="by screw"), "lash")["does"], "do")  # no valve can be named
        self.assertNotIn("lash", ids(composed(BELT, valves="1 + 1", lash__intake="hydraulic", lash__exhaust="hydraulic")))

    def test_a_cam_is_degreed_where_its_valves_can_be_named(self):
        document = composed(BELT, known_by="marks, degreed", valves="1 + 1", card="16/52 54/14 at 1.00")
        self.in_order(document, "turn-over", "seen", "wheel", "tdc", "degree", "on-front")
        self.assertEqual([line["valve"] for line in document["cam_card"]], ["intake", "exhaust"])
        self.assertNotIn("degree", ids(composed(BELT, known_by="marks, degreed")))

    def test_a_card_is_said_of_the_other_bank_once_the_firing_order_is_known(self):
        answers = {"card": "16/52 54/14 at 1.00", "cams": "one", "passes.chain": "crank, left cam, right cam"}
        self.assertEqual({line["camshaft"] for line in composed(V, answers)["cam_card"]}, {"left-cam"})
        both = composed(V, answers, fires="1-4-2-5-3-6")["cam_card"]
        self.assertEqual({(line["camshaft"], line.get("cylinder")) for line in both}, {("left-cam", None), ("right-cam", 4)})
        read_document(composed(V, answers))


class DriveTests(RunCase):
    def test_a_cam_whose_cylinders_nobody_knows_to_fire_is_no_dead_end(self):
        v2 = {"layout": "v", "cylinders": "2", "rows": "1 / 2", "cams": "one", "valves": "1 + 1", "known_by": "degreed"}
        v2 |= {"drives": "chain", "passes.chain": "crank, left camshaft, right camshaft"}
        answers = {key: Answered(text) for key, text in v2.items()}
        self.assertEqual({line.camshaft for line in cam_lines(read_document(compose(answers)))}, {"left-cam"})
        self.assertEqual(walk_right(read_document(compose(answers))), "")
        whole = read_document(compose(answers | {"fires": Answered("1-2")}))
        self.assertEqual({line.camshaft for line in cam_lines(whole)}, {"left-cam", "right-cam"})

    def test_a_wheel_with_a_key_is_tight_before_and_one_held_by_its_bolt_after(self):
        before = composed(BELT, fixed__cam_wheel="key")
        self.in_order(composed(BELT, {"fixed.cam-wheel": "key"}), "on-cam", "hold-cam", "tight-bolt-cam", "let-go-cam", "on-belt")
        self.in_order(
            composed(BELT, {"fixed.cam-wheel": "clamped"}), "on-cam", "on-belt", "hold-cam", "tight-bolt-cam", "let-go-cam", "turn-over"
        )
        self.assertNotIn("fixed_by", before["drive"]["wheels"][1])  # of another wheel's name nothing is taken

    def test_what_may_be_pulled_against_is_never_the_lock(self):
        document = composed(BELT, {"fixed.cam-wheel": "clamped"}, known_by="locks", lock__crank="pin", lock__cam="plate")
        self.in_order(
            document, "in-lock-crank", "in-lock-cam", "on-belt", "hold-cam", "tight-bolt-cam", "let-go-cam", "out-lock-crank", "turn-over"
        )
        things = {thing["id"]: thing for thing in document["things"]}
        self.assertTrue(things["holder"]["counter_hold"])
        self.assertFalse(things["lock-cam"].get("counter_hold", False))
        self.assertEqual(things["lock-cam"]["fits_again"], "every_two")
        self.assertIn({"held": "cam"}, step(document, "tight-bolt-cam")["needs"])

    def test_one_plate_across_two_cams_is_one_thing(self):
        answers = {
            "known_by": "locks",
            "lock.crank": "bar",
            "lock.left-intake": "plate",
            "lock.left-exhaust": "same",
            "lock.right-intake": "none",
        }
        document = composed(V, answers)
        locks = {thing["id"]: thing["holds"] for thing in document["things"] if thing["id"].startswith("lock-")}
        self.assertEqual(locks, {"lock-crank": ["crank"], "lock-left-intake": ["left-intake", "left-exhaust"]})

    def test_each_sort_of_tensioner_has_its_steps(self):
        whole = ["in-tensioner-belt", "on-belt", "arm-belt", "prove-belt"]
        wanted = {
            "hydraulic": whole,
            "ratchet": whole,
            "press_and_release": whole,
            "oil_fed": ["in-tensioner-belt", "on-belt"],  # proven by pressure, at the first start
            "eccentric": ["in-tensioner-belt", "bolt-tensioner-belt", "on-belt", "arm-belt", "tight-lock-belt", "prove-belt"],
            "spring_then_lock": ["in-tensioner-belt", "bolt-tensioner-belt", "on-belt", "arm-belt", "tight-lock-belt", "prove-belt"],
            "none": ["on-belt"],
        }
        for sort, steps in wanted.items():
            with self.subTest(sort):
                document = composed(BELT, tensioner__belt=sort)
                of_it = [one for one in ids(document) if one.endswith("belt")]
                self.assertEqual(of_it, steps)
                self.assertEqual(Robot(read_document(document)).walk(), "")

    def test_a_tensioner_in_the_path_works_on_the_run_before_it(self):
        stage = composed(BELT)["drive"]["stages"][0]
        self.assertEqual((stage["tensioner"]["shaft"], stage["tensioner"]["after"]), ("tensioner", "cam-wheel"))
        chain = composed(cams="one", drives="chain", passes__chain="crank, cam", tensioner__chain="hydraulic", after__chain="cam-wheel")
        self.assertEqual(chain["drive"]["stages"][0]["tensioner"]["after"], "cam-wheel")

    def test_gears_mesh_as_they_are_told_and_their_marks_face_each_other(self):
        document = composed(
            {"meet.crank-wheel.idler-wheel": "one dot at 1", "meet.idler-wheel.cam-wheel": "two dots"},
            cams="block",
            drives="gears",
            passes__gears="crank, idler, cam; idler, injection pump",
            known_by="marks",
        )
        meshes = [(mesh["driver"], mesh["driven"]) for mesh in document["drive"]["stages"][0]["meshes"]]
        self.assertEqual(meshes, [("crank-wheel", "idler-wheel"), ("idler-wheel", "cam-wheel"), ("idler-wheel", "injection-pump-wheel")])
        marks = {mark["id"]: mark for mark in document["drive"]["marks"]}
        self.assertEqual(marks["mark-crank-wheel-idler-wheel"]["meets"], "mark-idler-wheel-crank-wheel")
        self.assertEqual(
            (marks["mark-crank-wheel-idler-wheel"]["clock_deg"], marks["mark-idler-wheel-crank-wheel"]["clock_deg"]), (30, 210)
        )
        self.assertEqual(doubts_of(read_document(document)), [])

    def test_a_mark_meets_what_stands_still_and_no_place_is_made_up(self):
        answers = {"mark.crank-wheel": "notch to arrow", "mark.cam-wheel": "dot to line on the head at 12"}
        drive = composed(BELT, answers)["drive"]
        self.assertEqual([pointer["name"] for pointer in drive["pointers"]], ["Arrow", "Line on the head"])
        self.assertEqual([mark.get("clock_deg") for mark in drive["marks"]], [None, 0])
        self.assertTrue(all(mark["decides"] for mark in drive["marks"]))
        self.assertEqual(composed(BELT, answers, known_by="locks")["drive"]["marks"], [])  # it is not by marks that it is known
        two = composed(BELT, {"mark.crank-wheel": "dot to case at 12", "mark.cam-wheel": "dot to case at 12"})["drive"]
        self.assertEqual([pointer.get("clock_deg") for pointer in two["pointers"]], [None])  # seen from two axes: no one place

    def test_coloured_links_stand_on_marks_that_are_looked_at(self):
        document = composed(BELT, known_by="links", links__belt="crank 25, cam")
        stage = document["drive"]["stages"][0]
        self.assertEqual(
            [(link["meets"], link.get("to_next")) for link in stage["marked"]], [("mark-crank-wheel", 25), ("mark-cam-wheel", None)]
        )
        self.assertFalse(any(mark.get("decides") for mark in document["drive"]["marks"]))


class PartsTests(RunCase):
    def test_a_joint_that_is_not_there_leaves_its_step_and_no_joint(self):
        document = composed(BELT, stages__caps="none", stages__damper="none")
        self.assertNotIn("caps", [joint["id"] for joint in document["joints"]])
        self.assertIn("in-cams-row", ids(document))
        self.assertNotIn("tight-caps", ids(document))
        self.assertNotIn("hold-crank", ids(document))
        self.assertNotIn("crank-holder", [thing["id"] for thing in document["things"]])

    def test_a_joint_that_nobody_knows_has_a_torque_without_a_figure(self):
        joint = next(one for one in composed(BELT)["joints"] if one["id"] == "head")
        self.assertEqual(joint["stages"], [{"does": "torque"}])
        known = next(
            one for one in composed(BELT, stages__head="20 + 90°", bolts__head="2 x 5 middle outward")["joints"] if one["id"] == "head"
        )
        self.assertEqual((known["fasteners"], known["rule"], known["pattern"]["columns"]), (10, "middle_outward", 5))
        self.assertEqual([stage["does"] for stage in known["stages"]], ["torque", "angle"])

    def test_what_is_new_and_what_goes_back(self):
        kit = {part["name"]: part for part in composed(BELT, new="10 head bolts, water pump", returns="8 followers")["kit"]}
        self.assertEqual((kit["head bolts"]["count"], kit["head bolts"]["one_time"]), (10, True))
        self.assertTrue(kit["water pump"]["one_time"] and kit["belt"]["one_time"])
        self.assertEqual((kit["followers"]["count"], kit["followers"]["returns"]), (8, True))

    def test_whoever_stands_at_the_flywheel_sees_it_run_the_other_way(self):
        for way, runs in (
            ("clockwise from the front", "clockwise"),
            ("clockwise from the flywheel", "counter-clockwise"),
            ("counter-clockwise from the flywheel", "clockwise"),
        ):
            self.assertEqual(composed(way=way)["running_direction"], runs)
        self.assertIsNone(composed()["running_direction"])

    def test_the_crank_stands_where_it_is_said_to(self):
        wanted = {
            "tdc": "TDC of cylinder 1",
            "pin": "where the crank's pin drops in",
            "half": "all pistons half-way",
            "mark": "where the crank's mark meets",
        }
        for position, name in wanted.items():
            document = composed(BELT, position=position)
            self.assertEqual(document["timing_positions"][0]["name"], name)
            self.assertEqual(step(document, "park")["position"], position)

    def test_sizes_and_lean_are_every_banks(self):
        document = composed(V, sizes="86 x 86, rod 143.5", lean="60")
        self.assertEqual([bank["axis_deg"] for bank in document["banks"]], [-30, 30])
        self.assertEqual(
            {tuple(bank["cranktrain"].items()) for bank in document["banks"]}, {(("bore_mm", 86), ("stroke_mm", 86), ("rod_mm", 143.5))}
        )
