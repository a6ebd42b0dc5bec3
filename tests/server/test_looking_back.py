"""Looking back over many engines: drawn up from their ledgers when somebody looks, again after an entry; and as rows for others."""

import csv
import io
from contextlib import suppress
from unittest.mock import patch

from django.db import connection
from django.test import TestCase

from gurvo_core.errors import EntryRefused
from gurvo_core.ledger.came_to import spread_of
from tests.server.cases import JSON, ShopCase
from tests.server.played import play_until
from work import looking_back
from work.models import FigureSeen, LookedBack
from work.services import put_on_stand
from work.shop_views import VIEWS, put_views, take_views_away

BACK = "/api/back/quern-4"


class LookingBackTests(ShopCase):
    """One family that is built twice, by its robot."""

    @classmethod
    def setUpTestData(cls):
        super().setUpTestData()
        from django.contrib.auth.models import User

        from demo.documents import family_data
        from engine.services import add_revision

        add_revision(family_data("quern-4"), by=None)
        for serial in ("A-1", "A-2"):
            put_on_stand(serial=serial, family="quern-4", purpose="", stand=None, promised=None, by=User.objects.get(username="bo"))
            with suppress(EntryRefused):  # as far as it goes before something must cure
                play_until(serial)

    def look(self):
        return self.client.get(BACK).json()

    def test_every_room_hands_over_what_its_readings_came_to(self):
        """Each place of each engine once, with its gauge, its month, its limits; and the spread is that of the figures."""
        shown = self.look()
        self.assertEqual((shown["engines"], shown["left"]), (4, 0))  # two of them have come to nothing yet
        self.assertGreaterEqual({one["sort"] for one in shown["series"]}, {"clearance", "pull"})
        for one in shown["series"]:
            places = [(point["serial"], point["place"]) for point in one["points"]]
            self.assertEqual(len(places), len(set(places)), one["name"])
            values = [point["value"] for point in one["points"]]
            self.assertEqual(one["spread"]["median"], spread_of(values).median)
            for by in ("by_place", "by_gauge", "by_month"):
                self.assertEqual(sum(group["spread"]["times"] for group in one[by]), len(values))

    def test_nothing_is_drawn_up_twice_and_an_entry_draws_its_engine_up_again(self):
        """What is kept holds as long as nothing was entered; then that engine alone is read."""
        self.look()
        with patch.object(looking_back, "_draw_up", wraps=looking_back._draw_up) as drawn:
            self.look()
            self.assertEqual(drawn.call_count, 0)
            self.must({"kind": "note", "text": "x"}, serial="A-1")
            self.look()
            self.assertEqual([call.args[0].serial for call in drawn.call_args_list], ["A-1"])
        LookedBack.objects.update(rules=1)
        self.assertEqual(self.look()["left"], 0)
        self.assertEqual(LookedBack.objects.exclude(rules=1).count(), 4)

    def test_a_large_shop_is_drawn_up_in_several_askings(self):
        """Whoever asks is answered at once, with how many are left."""
        with patch.object(looking_back, "LONGEST_S", -1.0):
            self.assertEqual(self.look()["left"], 4)

    def test_the_table_has_every_figure(self):
        """As CSV, with its heads, in the same figures."""
        self.look()
        text = b"".join(self.client.get(f"{BACK}/figures.csv")).decode()
        rows = list(csv.DictReader(io.StringIO(text)))
        self.assertEqual(len(rows), FigureSeen.objects.count())
        self.assertEqual({row["serial"] for row in rows}, {"A-1", "A-2"})
        for table, head in (("happenings", "serial,sort,title,because,at"), ("minutes", "serial,step,minutes")):
            text = b"".join(self.client.get(f"{BACK}/{table}.csv")).decode()
            self.assertEqual(text.splitlines()[0], head)
        self.assertEqual(self.client.get(f"{BACK}/people.csv").status_code, 422)

    def test_what_happened_is_counted_with_its_reason(self):
        """A joint opened again, on which engine and why."""
        self.sign_in("lena")
        steps = self.client.get("/api/engines/A-1").json()["state"]["steps"]
        step = next(one["step"] for each in steps for one in each["questions"] if one["status"] == "done" and one["kind"] == "step_done")
        self.assertEqual([one for one in self.look()["happenings"] if one["sort"] == "opened again"], [])
        self.must({"kind": "step_opened", "step": step, "reason": "it dripped"}, serial="A-1")
        found = [one for one in self.look()["happenings"] if one["sort"] == "opened again"]
        self.assertEqual([(one["count"], one["engines"], one["because"]) for one in found], [(1, ["A-1"], ["it dripped"])])

    def test_a_family_that_is_not_there(self):
        """It is said, as of anything else."""
        self.assertEqual(self.client.get("/api/back/nobody").status_code, 404)
        self.client.logout()
        self.assertEqual(self.client.get(BACK).status_code, 401)


class GaugeHistoryTests(ShopCase):
    """How far a gauge was off each time."""

    def test_each_check_says_by_how_much(self):
        """Shown less true, in its own unit; repeats of readings beside it."""
        check = {"against": "M50", "true": 25.0, "shown": 25.012}
        known = [one["code"] for one in self.client.get("/api/gauges").json() if one["unit"] == "mm"]
        check["against"] = next(code for code in known if code != "D2")
        self.assertEqual(self.client.post("/api/gauges/D2/checks", check, content_type=JSON).status_code, 201)
        history = self.client.get("/api/gauges/D2/history").json()
        self.assertEqual([one["off"] for one in history["checks"]], [0.012])
        self.assertEqual((history["scatter"], history["repeats"]), (0.0, 0))


class ViewsTests(TestCase):
    """The shop's tables as others read them."""

    def test_every_view_answers_as_its_page_says(self):
        """Names and columns are those of docs/formats/views.md, and they can be taken away and put back."""
        from pathlib import Path

        page = Path(__file__).parents[2].joinpath("docs/formats/views.md").read_text("utf-8")
        put_views()
        with connection.cursor() as cursor:
            for name in VIEWS:
                self.assertIn(f"`{name}`", page)
                cursor.execute(f"SELECT * FROM {name}")
                for column in cursor.description:
                    self.assertIn(column[0], page)
        take_views_away()
        self.assertFalse([name for name in connection.introspection.table_names(include_views=True) if name in VIEWS])
