"""What a customer is handed: the head of papers, for whom it was built, the first page, by the shop's own clock."""

from django.contrib.auth.models import User
from django.core.files.uploadedfile import SimpleUploadedFile
from django.template.loader import render_to_string

from demo.documents import family_data
from engine.services import add_revision
from shop.daybook import daybook_faults
from shop.letterhead import in_shops_time
from tests.server.cases import ShopCase
from tests.server.played import play_until
from tests.server.test_pictures import photo
from work.models import Engine
from work.record.paper import shown_on_paper
from work.services import put_on_stand


class HandedOverCase(ShopCase):
    def page(self, serial="T-1"):
        with in_shops_time():
            return render_to_string("work/first_page.html", shown_on_paper(Engine.objects.at_the_bench().get(pk=serial)))

    def letterhead(self, **said):
        return self.client.put("/api/letterhead", {"name": "Cold Works", **said}, content_type="application/json")


class LetterheadTests(HandedOverCase):
    def test_the_lead_says_what_stands_at_the_head_of_papers_and_by_whose_clock(self):
        self.assertEqual(self.client.get("/api/letterhead").json(), {"name": "", "address": "", "zone": "", "paper": "A4", "mark": ""})
        self.refused(self.letterhead(), 403, "", "The lead says")
        self.client.force_login(User.objects.get(username="lena"))
        self.refused(self.letterhead(zone="Nowhere/Here"), 422, "zone", "no time zone")
        self.refused(self.letterhead(name=""), 422, "name", "")
        self.assertEqual(self.letterhead(address="Ridge 2", zone="Asia/Kolkata").status_code, 200)
        with in_shops_time():
            page = self.page()
        self.assertIn("Cold Works", page)
        self.assertIn("Ridge 2", page)

    def test_the_shops_own_mark_stands_there_and_what_is_no_picture_is_refused(self):
        sent = {"file": SimpleUploadedFile("mark.png", photo(width=300, height=200))}
        self.assertEqual(self.client.post("/api/letterhead/mark", sent).status_code, 403)
        self.client.force_login(User.objects.get(username="lena"))
        self.refused(self.client.post("/api/letterhead/mark", {"file": SimpleUploadedFile("x", b"Dear sir")}), 422, "file", "no picture")
        large = SimpleUploadedFile("mark.bmp", b"x" * 1_000_001)
        self.refused(self.client.post("/api/letterhead/mark", {"file": large}), 422, "file", "1 MB at most")
        sent["file"].seek(0)
        mark = self.client.post("/api/letterhead/mark", sent).json()["mark"]
        self.assertIn(mark, self.page())
        self.assertEqual(list(daybook_faults()), [])
        self.assertEqual(self.client.get("/api/engines/T-1/record.pdf").status_code, 200)
        self.assertEqual(self.client.delete("/api/letterhead/mark").json()["mark"], "")

    def test_nothing_that_nobody_said_is_printed(self):
        page = self.page()
        for words in ("job", "came in", "Accepted with a reason", "Pictures", "None", "not known"):
            self.assertNotIn(words, page)


class CameInTests(HandedOverCase):
    def test_how_it_came_in_stands_beside_how_it_leaves(self):
        add_revision(family_data("holm-d4"), by=None)
        put_on_stand(serial="D-1", family="holm-d4", purpose="", stand=None, promised=None, by=User.objects.get(username="bo"))
        self.assertNotIn("As it came in", self.page("D-1"))
        self.must({"kind": "step_done", "step": "as-found", "answers": {"cam-dots": "off", "play": "0.18"}}, serial="D-1")
        page = self.page("D-1")
        self.assertIn("Two dots between idler and cam: off</p>", page)  # nobody has looked again
        self.assertIn("0.18 mm", page)
        play_until("D-1", "sign_off")
        self.assertRegex(self.page("D-1"), r"Two dots between idler and cam: off <strong>→ met")


class OrderTests(HandedOverCase):
    def test_for_whom_it_is_stands_on_the_first_page_and_the_last_word_holds(self):
        for said in ({"customer": "the growers", "job": "26-1"}, {"customer": "the upper growers", "job": "26-1", "complaint": "smokes"}):
            self.assertEqual(self.enter({"kind": "for_whom", **said}).status_code, 201)
        page = self.page()
        for words in ("for the upper growers", "job 26-1", "came in: smokes"):
            self.assertIn(words, page)
        self.refused(self.enter({"kind": "for_whom"}), 422, "entry.customer", "for whom")
        again = {"kind": "for_whom", "customer": "the upper growers", "job": "26-1", "complaint": "smokes"}
        self.refused(self.enter(again), 422, "entry.customer", "stands already")


class JudgedTests(HandedOverCase):
    def test_what_was_judged_and_what_is_new_and_still_open_stand_there(self):
        add_revision(family_data("teasel-4"), by=None)
        put_on_stand(serial="V-1", family="teasel-4", purpose="tractor", stand=None, promised=None, by=User.objects.get(username="bo"))
        play_until("V-1", "belt-on")
        page = self.page("V-1")
        self.assertIn("Not proven yet: intake cam and exhaust cam", page)
        self.assertIn("Timing belt", page)
        self.assertIn("Coolant pump wheel bolt", page)
        self.assertIn("30 N·m", page)
        self.assertIn("Still open", page)
        self.assertIn("s at most", page)
