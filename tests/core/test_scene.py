"""The engine as it is drawn: what each step is about is in the picture, pistons stand where the crank has them, nothing is drawn in that is
not in.
"""

import math
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from demo.documents import FAMILIES
from gurvo_core.motion.twin import snapshot_at
from gurvo_core.scene import cropped, part_stands, scene_of, side_turning
from gurvo_core.scene.asked import looking_at
from gurvo_core.scene.names import kinds_named
from gurvo_core.scene.sizes import sizes_of
from gurvo_core.scene.standing import brought_by
from tests.builds import Build
from tests.engines import family_with_run

CODES = sorted(path.stem for path in FAMILIES.glob("*.json"))
DRAWN_IN_FRONT = {"drive", "pump", "front cover"}  # with the wheels, in the drawing of the front
NAMES = {  # words as shops write them; common practice
    "Main caps": "mains",
    "Rod nuts": "rods",
    "Head bolts, the quarter turn": "heads",
    "Cam sprocket bolt": "drive",
    "Cam cover screws": "cam covers",
    "Rocker shaft bolts": "rockers",
    "Timing cover bolts": "front cover",
    "Crank pulley bolt": "damper",
    "Oil pump bolts": "pump",
    "Sump on, bolts finger tight": "sump",
    "Ring gaps": "rings",
    "Glow plugs in": "plugs",
    "Bead on the case face, halves together": "mains",
    "Buckets, each in its own bore": "followers",
    "Oil in, water in": "oil",
}


def shapes_of(scene, looking, part):
    """All shapes of a part as it is seen from one side."""
    view = next(one for one in scene.views if one.looking == looking)
    return [shape for one in view.parts if one.id == part for shape in one.shapes]


class AskedTests(TestCase):
    def test_what_a_step_is_about_is_in_its_picture(self):
        for code in CODES:
            document = family_with_run(code)
            scene = scene_of(document)
            drawn = {view.looking: {part.id for part in view.parts if part.shapes} for view in scene.views}
            drawn["front"] = DRAWN_IN_FRONT | {f"shaft:{one.id}" for one in document.drive.shafts}
            drawn["front"] |= {f"loop:{stage.id}" for stage in document.drive.stages}
            drawn["cylinder"] = {"valves", "rings"}
            missing = [(code, one.step) for one in scene.steps if one.parts[0] not in drawn[looking_at(one.parts[0])]]
            self.assertEqual(missing, [])
            self.assertFalse({one.looking for one in scene.steps} - drawn.keys())
            self.assertEqual({one.step for one in scene.steps}, {step.id for stage in document.stages for step in stage.listed})

    def test_a_name_means_a_part(self):
        for words, kind in NAMES.items():
            with self.subTest(words):
                self.assertEqual(kinds_named(words)[0], kind)

    def test_finger_tight_is_no_finger_and_nothing_is_named_twice(self):
        self.assertEqual(kinds_named("Rod nuts finger tight"), ("rods",))
        self.assertEqual(kinds_named("Cam covers on"), ("cam covers",))

    def test_a_bank_is_told_by_its_letter_and_an_article_is_none(self):
        about = {one.step: one.parts for one in scene_of(family_with_run("brae-v8")).steps}
        steps = [step for stage in family_with_run("brae-v8").stages for step in stage.listed]
        named = {step.says: about[step.id] for step in steps}
        self.assertEqual(named["Caps B drawn down a little at a time"], ["cam caps:b"])
        self.assertEqual(named["Head A on, new gasket, bolts finger tight"], ["heads:a", "gaskets:a"])
        self.assertEqual(named["Cam covers on"], ["cam covers:a", "cam covers:b"])


class SideTests(TestCase):
    @given(st.floats(0, 720))
    def test_pistons_stand_where_throw_and_rod_have_them(self, crank_deg):
        """Second method: the closed form of the slider-crank, without an offset."""
        document = family_with_run("quern-4")
        train, scene = document.banks[0].cranktrain, scene_of(document, crank_deg)
        boxes = [shape for shape in shapes_of(scene, "side", "pistons") if shape.form == "box"]
        crowns = [box.y - box.h / 2 for box in boxes]
        throw, rod = train.stroke_mm / 2, train.rod_mm
        top = min(-sizes_of(document, 0).top, 0)
        for number, crown in zip(document.cylinders, crowns, strict=True):
            turned = math.radians(crank_deg - document.firing_deg[number])
            pin = throw * math.cos(turned) + math.sqrt(rod**2 - (throw * math.sin(turned)) ** 2)
            self.assertAlmostEqual(crown - top, throw + rod - pin, delta=1.2)  # its pin is offset a little, and drawn to a tenth

    @given(st.sampled_from(CODES), st.floats(0, 720))
    def test_all_of_it_is_within_its_room(self, code, crank_deg):
        for view in scene_of(family_with_run(code), crank_deg).views:
            for part in view.parts:
                for shape in part.shapes:
                    self.assertTrue(view.left <= shape.x <= view.left + view.width, (code, part.id, shape))
                    self.assertTrue(view.top <= shape.y <= view.top + view.height, (code, part.id, shape))

    def test_each_cylinder_and_main_bearing_once_by_its_number(self):
        for code, mains in (("quern-4", 5), ("brae-v8", 5), ("corrie-v6", 4), ("garth-d6", 7)):
            document = family_with_run(code)
            scene = scene_of(document)
            numbers = [shape.text for shape in shapes_of(scene, "side", "block") if shape.text.isdigit()]
            self.assertEqual(sorted(map(int, numbers)), sorted(document.cylinders))
            self.assertEqual([shape.text for shape in shapes_of(scene, "side", "mains")], [str(n) for n in range(1, mains + 1)])

    def test_what_is_coupled_to_the_crank_moves_as_it_is_drawn_at_each_angle_and_nothing_else_does(self):
        for code in ("quern-4", "brae-v8", "tarn-f4"):
            document = family_with_run(code)
            turned = side_turning(document)
            self.assertEqual(turned.view, scene_of(document).views[0].model_copy(update={"parts": turned.view.parts}))
            self.assertEqual(len(turned.frames) * turned.every_deg, 360)
            for at in (0, 7, 25):
                at_once = scene_of(document, at * turned.every_deg).views[0].parts
                moved = [figure for part in at_once if part.id in turned.moving for shape in part.shapes for figure in (shape.y, shape.h)]
                self.assertEqual(turned.frames[at], moved)
                still = {part.id: part.shapes for part in at_once if part.id not in turned.moving}
                self.assertEqual(still, {part.id: part.shapes for part in turned.view.parts if part.id in still})

    def test_close_to_some_parts_there_is_room_for_them_and_little_more(self):
        view = scene_of(family_with_run("quern-4")).views[0]
        crank = [part for part in view.parts if part.id == "crank"]
        near = cropped(view, crank)
        self.assertTrue(view.left < near.left < min(shape.x for shape in crank[0].shapes))
        self.assertTrue(near.height < view.height / 2)
        self.assertEqual(cropped(view, []), view)

    def test_what_is_not_known_is_said_to_be_sketched(self):
        self.assertEqual(scene_of(family_with_run("quern-4")).views[0].sketched, ["lengths along the engine"])
        self.assertIn("bore", scene_of(family_with_run("heath-4")).views[0].sketched)


class AboveTests(TestCase):
    def test_a_lobe_points_to_the_side_on_which_its_nose_stands(self):
        """Second method: the twin's own clock of each nose; three o'clock is to the engine's right, which is below, front to the left."""
        document = family_with_run("quern-4")
        reach = 0.15 * sizes_of(document, 0).bore
        for crank_deg in (0, 200, 470):
            scene, twin = scene_of(document, crank_deg), snapshot_at(document, crank_deg)
            middle = next(shape.y for shape in shapes_of(scene, "above", "cams:row"))
            across = sorted((nose.y - middle) / reach for nose in shapes_of(scene, "above", "noses:row"))
            told = sorted(math.sin(math.radians(one.clock_deg)) for one in twin.lobes)
            for drawn, right in zip(across, told, strict=True):
                self.assertAlmostEqual(drawn, right, delta=0.02)

    def test_the_gaps_of_the_rings_are_where_the_document_has_them(self):
        document = family_with_run("quern-4")
        marks = [shape for shape in shapes_of(scene_of(document), "rings", "rings") if shape.text.isdigit()]
        gaps = next(part.gaps_deg for part in document.kit if part.gaps_deg)
        found = [math.degrees(math.atan2(-mark.y, -mark.x)) % 360 for mark in marks]  # front is to the left, clockwise goes up from there
        self.assertEqual([mark.text for mark in marks], ["1", "2", "3"])
        for gap, at in zip(gaps, found, strict=True):
            self.assertAlmostEqual(gap, at, delta=0.5)
        self.assertEqual([view.looking for view in scene_of(family_with_run("brae-v8")).views], ["side", "above"])  # none says it


class StandingTests(TestCase):
    def test_the_bottom_end_grows_as_it_is_built(self):
        build = Build("quern-4").to("crank-in")
        self.assertEqual(self.stands(build, "crank", "mains", "pistons"), ["to come"] * 3)
        build.answer(next(one for step in build.state.steps for one in step.questions if one.key == "crank-in"))
        self.assertEqual(self.stands(build, "crank", "mains", "pistons"), ["in", "loose", "to come"])
        build.play("")
        self.assertEqual(self.stands(build, "crank", "mains", "pistons", "heads:row", "sump", "oil"), ["in"] * 6)

    def test_what_is_opened_again_is_undone(self):
        build = Build("quern-4").play("")
        document, steps = build.folded.states["run"].document, build.folded.states["run"].plan.steps
        brings = brought_by(document, [one.step for one in steps])
        head = [step for step, parts in brings if "heads:row" in parts]
        stands = part_stands(document, brings, {one.step.id for one in steps} - set(head), set(head))
        self.assertEqual((stands["heads:row"], stands["crank"]), ("undone", "in"))

    def test_nobody_knows_how_a_cam_stands_before_its_drive_is_laid(self):
        build = Build("quern-4").to("chain-on")
        self.assertEqual(self.stands(build, "cams:row", "loop:chain"), ["in", "to come"])
        self.assertNotIn("noses:row", self.all_stands(build))
        self.assertEqual(self.stands(build.play(""), "noses:row"), ["in"])

    def test_a_bead_is_there_once_it_is_closed_a_gasket_comes_with_its_head_a_seal_by_itself(self):
        build = Build("sorrel-f4").to("case-bead")
        self.assertEqual(self.stands(build, "bead:mains", "gaskets:left"), ["to come", "to come"])
        build.play("")
        self.assertEqual(self.stands(build, "bead:mains", "gaskets:left"), ["in", "in"])
        build = Build("quern-4").to("seal-in")
        build.answer(next(one for step in build.state.steps for one in step.questions if one.key == "seal-in"))
        self.assertEqual(self.stands(build, "seals", "front cover"), ["in", "to come"])

    def test_what_a_run_says_nothing_of_is_not_said_to_be_in(self):
        """A head and a belt are put on an engine that was there: its sump is neither in nor to come."""
        stands = self.all_stands(Build("heath-4"))
        self.assertEqual((stands["crank"], stands["heads:row"], stands["loop:belt"]), ("in", "to come", "to come"))
        self.assertFalse({"sump", "cam covers:row", "oil pump"} & stands.keys())

    def test_what_is_on_for_a_while_is_there_and_holds_its_shafts(self):
        build = Build("brae-v8").play("")
        document = build.folded.states["run"].document
        thing = next(one for one in document.things if one.holds)
        stands = part_stands(document, (), (), (), {thing.id: []})
        self.assertEqual((stands[f"shaft:{thing.holds[0]}"], stands[f"thing:{thing.id}"]), ("held", "held"))

    def all_stands(self, build):
        return build.state.run.stands

    def stands(self, build, *parts):
        known = self.all_stands(build)
        return [known[part] for part in parts]
