"""What is told of a part that was touched, and the small picture by which the Floor shows an engine."""

from xml.etree import ElementTree

from django.contrib.auth.models import User

from demo.player import answer
from engine.services import add_revision
from gurvo_core.sentence import fine
from gurvo_core.walk import next_question
from tests.engines import family_copy_with_run
from tests.server.cases import ShopCase
from work import bridge
from work.models import Engine
from work.services import keep_summary

SVG = "{http://www.w3.org/2000/svg}"
UNTIL = "pistons-in"


class PictureCase(ShopCase):
    @classmethod
    def setUpTestData(cls):
        """Build the bottom end of an engine: its mains measured and pulled."""
        super().setUpTestData()
        revision = add_revision(family_copy_with_run("quern-4"), by=None)
        cls.engine = Engine.objects.create(serial="R-1", revision=revision, builder=User.objects.get(username="bo"))
        keep_summary(cls.engine)

    def build(self, until):
        """Answer everything before a question, as a builder would."""
        while (question := next_question(self.ledger().shown)).key != until:
            shown = self.ledger()
            self.must(answer(shown.shown, question, shown.folded.document), serial="R-1")

    def ledger(self):
        return bridge.ledger_of(Engine.objects.at_the_bench().get(pk="R-1"))

    def told(self, part):
        return self.client.get(f"/api/engines/R-1/parts/{part}").json()


class PartTests(PictureCase):
    def test_a_part_tells_what_it_was_measured_at_and_how_far_its_bolts_are(self):
        self.assertEqual(self.told("mains"), {"came_to": self.told("mains")["came_to"], "loose_ends": [], "entries": []})
        self.build("crank-in")
        measured = next(line for line in self.told("mains")["came_to"] if line.startswith("Main bearing clearance: "))
        for place, value in self.clearances():
            self.assertIn(f"{place} {fine(value)}", measured)
        entries = self.told("mains")["entries"]
        self.assertEqual([one["seq"] for one in entries], sorted((one["seq"] for one in entries), reverse=True))

    def clearances(self):
        """Each place's figure as it was judged."""
        places = self.ledger().folded.states["fits"].places["main-clearance"]
        return [(place, stands.judged.figure.value) for place, stands in places.items()]

    def test_bolts_finger_tight_are_its_loose_end_and_none_has_been_pulled(self):
        self.build("crank-in")
        shown = self.ledger()
        self.must(answer(shown.shown, next_question(shown.shown), shown.folded.document), serial="R-1")
        told = self.told("mains")
        self.assertTrue(any("finger tight" in one for one in told["loose_ends"]), told["loose_ends"])
        self.assertTrue(any(one.endswith(": 0 of 10") for one in told["came_to"]), told["came_to"])

    def test_what_is_no_part_and_who_is_no_one_are_refused(self):
        self.refused(self.client.get("/api/engines/R-1/parts/carburettor"), 404, "", "nothing here")
        self.client.logout()
        self.refused(self.client.get("/api/engines/R-1/parts/mains"), 401, "", "not signed in")
        self.refused(self.client.get("/api/engines/R-1/picture.svg"), 401, "", "not signed in")


class SmallTests(PictureCase):
    def picture(self, **headers):
        return self.client.get("/api/engines/R-1/picture.svg", headers=headers)

    def test_it_is_a_drawing_that_changes_with_the_work_and_is_sent_once(self):
        first = self.picture()
        self.assertEqual(first["Content-Type"], "image/svg+xml")
        drawn = ElementTree.fromstring(first.content)
        self.assertEqual(drawn.tag, f"{SVG}svg")
        self.assertFalse(drawn.findall(f".//{SVG}text"))  # nothing could be read
        self.assertEqual(self.picture(**{"If-None-Match": first["ETag"]}).status_code, 304)
        self.build("crank-in")
        later = self.picture(**{"If-None-Match": first["ETag"]})
        self.assertEqual(later.status_code, 200)
        self.assertNotEqual(later.content, first.content)

    def test_what_was_kept_of_it_may_be_anything_and_it_is_drawn_all_the_same(self):
        for kept in ({}, [], {"step": 7, "stands": None}):
            Engine.objects.get(pk="R-1").summary.__class__.objects.filter(pk="R-1").update(drawn=kept)
            answer = self.picture()
            self.assertEqual(answer.status_code, 200 if isinstance(kept, dict) else 404)

    def test_of_no_engine_there_is_none(self):
        self.refused(self.client.get("/api/engines/R-9/picture.svg"), 404, "", "nothing here")
