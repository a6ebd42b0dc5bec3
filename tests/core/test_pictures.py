"""Pictures on the bench: bound to a step, needed before some, left by the lead alone, drawn on beside themselves."""

from unittest import TestCase

from gurvo_core.errors import AskFirst, CoreError, EntryRefused
from gurvo_core.ledger import OPENED_LAST
from gurvo_core.pictures.job.state import as_they_stand, wanting, wants_picture
from gurvo_core.reading import read_document
from gurvo_core.walk import next_question
from gurvo_core.work import HOUSE
from tests.builds import BUILDER, LEAD, Build
from tests.engines import CODES, family_copy_with_run, family_with_run

RING = {"is_a": "ring", "x": 0.25, "y": 0.5, "says": "the notch"}
SHOT = {"digest": "a" * 64, "width": 1600, "height": 1200}


def needing(code, step):
    """A family in whose run a picture is needed before a step."""
    data = family_copy_with_run(code)
    for stage in data["stages"]:
        for one in stage["steps"]:
            if isinstance(one, dict) and one.get("id") == step:
                one.update(picture="the front, all marks seen", picture_is="needed")
    return Build(read_document(data))


class WantedTests(TestCase):
    def test_a_cover_wants_one_and_what_is_named_does(self):
        wanted = [(step, wants) for code in CODES for step, wants in wanting(family_with_run(code)).values()]
        self.assertGreater(len(wanted), len(CODES))
        self.assertEqual({wants for _, wants in wanted}, {"wanted"})
        self.assertTrue(all(step.covers or step.picture for step, _ in wanted))
        cover = next(step for step, _ in wanted if step.covers)
        self.assertEqual(wants_picture(cover.model_copy(update={"picture_is": "needed"})), "needed")

    def test_what_is_wanted_is_shown_and_blocks_nothing(self):
        build = Build("quern-4")
        wanted = build.state.pictures.wanted
        step = next(iter(wanted))
        build.to(step)
        self.assertEqual(next_question(build.state).key, step)
        build.enter("picture", step=step, **SHOT)
        self.assertNotIn(step, build.state.pictures.wanted)
        self.assertEqual(build.state.pictures.count, 1)


class NeededTests(TestCase):
    def setUp(self):
        self.step = next(iter(wanting(family_with_run("quern-4"))))

    def test_what_is_needed_is_asked_first_and_the_step_is_not_done_without(self):
        build = needing("quern-4", self.step).to(f"{self.step}:picture")
        self.assertIn("the front, all marks seen", next_question(build.state).ask)
        with self.assertRaisesRegex(CoreError, "picture is needed"):
            build.enter("step_done", step=self.step)
        build.enter("picture", step=self.step, **SHOT)
        self.assertEqual(next_question(build.state).key, self.step)

    def test_struck_it_is_asked_again(self):
        build = needing("quern-4", self.step).to(f"{self.step}:picture")
        build.enter("picture", step=self.step, **SHOT)
        build.enter("strike", strikes=str(build.folded.entries[-1].id), reason="of another engine")
        self.assertEqual(next_question(build.state).key, f"{self.step}:picture")

    def test_once_the_step_is_opened_again_it_is_asked_again_and_the_old_one_told_apart(self):
        """What was taken before shows what stands no more; so does doing without."""
        build = needing("quern-4", "sump-on").to("sump-on:picture")
        build.enter("picture", step="sump-on", **SHOT)
        build.enter("step_done", step="sump-on")
        self.assertNotIn("sump-on", build.state.pictures.wanted)
        build.enter("step_opened", step="sump-on", reason="the gasket was dry", by=LEAD)
        build.to("sump-on:picture")
        self.assertIn("sump-on", build.state.pictures.wanted)
        shown = as_they_stand(build.folded.states["pictures"], build.folded.facts.get(OPENED_LAST) or {})
        self.assertEqual([one.is_past for one in shown], [True])
        build.enter("picture_left", step="sump-on", reason="no camera", by=LEAD)
        self.assertEqual(next_question(build.state).key, "sump-on")

    def test_the_lead_does_without_for_a_reason_and_nobody_else(self):
        build = needing("quern-4", self.step).to(f"{self.step}:picture")
        with self.assertRaises(CoreError):
            build.enter("picture_left", step=self.step, reason="", by=LEAD)
        build.enter("picture_left", step=self.step, reason="no camera on the stand", by=LEAD)
        self.assertEqual(next_question(build.state).key, self.step)
        left = build.folded.entries[-1].body
        self.assertTrue(HOUSE.needs_lead(build.folded, left))

    def test_the_robot_gets_through_a_run_that_needs_pictures(self):
        build = needing("quern-4", self.step).play()
        self.assertTrue(build.state.signed)


class DrawnTests(TestCase):
    def test_rings_and_words_are_kept_beside_it_and_the_last_ones_hold(self):
        build = Build("quern-4")
        build.enter("picture", place="cylinder 3", shows="scored", drawn=[RING], **SHOT)
        build.enter("picture_drawn_on", digest=SHOT["digest"], drawn=[{**RING, "is_a": "arrow"}, RING])
        (picture,) = build.folded.states["pictures"].taken
        self.assertEqual((picture.shows, [one.is_a for one in picture.drawn]), ("scored", ["arrow", "ring"]))
        self.assertEqual(picture.by, BUILDER)

    def test_what_cannot_be_is_refused_in_a_sentence(self):
        build = Build("quern-4")
        build.enter("picture", **SHOT)
        for kind, body, field in (
            ("picture", {**SHOT}, "digest"),
            ("picture_drawn_on", {"digest": "c" * 64, "drawn": [RING]}, "digest"),
            ("picture_drawn_on", {"digest": SHOT["digest"]}, "drawn"),
            ("picture_left", {"step": "nowhere", "reason": "x"}, "step"),
        ):
            with self.subTest(kind=kind, field=field), self.assertRaises((EntryRefused, AskFirst)) as refused:
                build.enter(kind, **body)
            self.assertEqual(refused.exception.field, field)
