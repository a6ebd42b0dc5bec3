"""The drive through the API: what comes of laying a belt so, and what is likely wrong; who may look, what is refused with its field."""

from django.contrib.auth.models import User

from demo.documents import family_data
from engine.services import add_revision
from tests.server.cases import ShopCase
from tests.server.played import play_until
from work.services import put_on_stand


class LayTests(ShopCase):
    def setUp(self):
        super().setUp()
        self.builder = User.objects.get(username="bo")
        add_revision(family_data("teasel-4"), by=self.builder)
        put_on_stand(serial="L-1", family="teasel-4", purpose="", stand=None, promised=None, by=self.builder)

    def look(self, step="belt-on", **asked):
        return self.client.post(f"/api/engines/L-1/lay/{step}", asked, content_type="application/json")

    def test_a_wrong_count_is_seen_before_anything_is_turned_and_nothing_of_it_is_kept(self):
        before = self.client.get("/api/engines/L-1").json()["entries"]
        seen = self.look(counted={"line-crank": "75", "line-exhaust": "17"}, slack_left=True, turned_deg=30).json()
        self.assertEqual((seen["figure"], seen["off_words"]), ("16.4°", "exhaust cam and intake cam late by one tooth"))
        self.assertEqual(seen["turned_words"], "Crankshaft 30° on: exhaust cam and intake cam 16.4° late")
        self.assertEqual(self.client.get("/api/engines/L-1").json()["entries"], before)

    def test_what_holds_the_shafts_is_known_from_the_run(self):
        self.assertFalse([one for one in self.look().json()["schools"] if one["key"] == "all_held"])
        play_until("L-1", "belt-on")
        first = self.look().json()["schools"][0]
        self.assertEqual((first["key"], first["is_default"]), ("all_held", True))

    def test_refusals_name_the_count(self):
        self.refused(self.look(counted={"line-crank": "many"}), 422, "counted.line-crank", "not a number")
        self.refused(self.look(counted={"line-crank": "152"}), 422, "counted.line-crank", "The whole belt has 152 teeth")
        self.refused(self.look(counted={"other": "3"}), 422, "counted.other", "Nothing called other")
        three = {"line-crank": "77", "line-exhaust": "17", "line-intake": "59"}
        self.refused(self.look(counted=three), 422, "counted.line-intake", "contradicts")
        self.refused(self.look(turned_deg=9999), 422, "turned_deg", "")

    def test_a_step_that_lays_nothing_is_not_there_and_a_stranger_sees_nothing(self):
        self.assertEqual(self.look("pin-in").status_code, 404)
        self.assertEqual(self.look("nowhere").status_code, 404)
        self.client.logout()
        self.assertEqual(self.look().status_code, 401)


class CausesTests(ShopCase):
    """What is likely wrong, through the API."""

    def ask(self, **seen):
        return self.client.post("/api/engines/T-1/causes", {"seen": seen}, content_type="application/json")

    def test_nothing_measured_says_what_to_do_first(self):
        self.assertEqual(self.ask().json()["says"], "Measure a camshaft first.")

    def test_an_engine_as_its_card_has_it_has_nothing_wrong_and_a_look_is_counted(self):
        self.degree()
        found = self.ask().json()
        self.assertEqual((found["causes"][0]["key"], found["check"]), ("none", None))
        moved = self.ask(zero=False).json()
        self.assertLess(moved["causes"][0]["percent"], found["causes"][0]["percent"])
        self.assertEqual(moved["seen"][0]["answer"], "It moved")

    def test_a_look_that_nobody_asks_and_a_stranger_are_refused(self):
        self.refused(self.ask(tasting=True), 422, "seen.tasting", "No check is called tasting")
        self.client.logout()
        self.assertEqual(self.ask().status_code, 401)


class ChangedTests(ShopCase):
    def test_a_worn_chain_is_late_and_figures_that_cannot_be_name_their_field(self):
        worn = self.client.get("/api/engines/T-1/changed", {"longer_percent": 1}).json()
        self.assertIn("late", worn["cams"][0]["words"])
        self.refused(self.client.get("/api/engines/T-1/changed", {"longer_percent": -1}), 422, "longer_percent", "0")
        self.client.logout()
        self.assertEqual(self.client.get("/api/engines/T-1/changed").status_code, 401)
