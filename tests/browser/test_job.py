"""The main job through the real interface: by keyboard alone, by touch alone, from start to signature."""

import re

from playwright.sync_api import expect

from tests.browser.case import PHONE, TABLET, BrowserCase
from tests.server.cases import PASSWORD, put_row
from work.models import Engine, Entry

OUT = (("20", "opening"), ("48", "closing"), ("58", "opening"), ("10", "closing"))


class KeyboardTests(BrowserCase):
    def test_the_whole_job_by_keyboard_alone(self):
        self.sign_in()
        self.type("1")
        self.find_tdc()
        self.answer("intake valve pass 1.00 mm, opening", "16", "Enter")
        self.answer("intake valve pass 1.00 mm, closing", "51.5", "Enter")
        self.answer("exhaust valve pass 1.00 mm, opening", "54", "Enter")
        self.answer("exhaust valve pass 1.00 mm, closing", "13.5", "Enter")
        self.asked("What will you do?")
        self.see(self.main.get_by_text("in", exact=True))
        self.type("1", "Enter")
        self.asked("Is this engine's timing as it should be?")
        self.reads("The lead signs the record. Hand it over.")
        self.open()
        self.sign_in("lena")
        self.type("1")
        self.answer("Is this engine's timing as it should be?", "not hers", "Enter")
        self.says(self.alert, "neither your password nor your PIN")
        self.page.get_by_label("Your PIN or password").fill("")
        self.type(PASSWORD, "Enter")
        self.asked("Signed. Nothing is left to do here.")
        with self.page.expect_request("**/record.pdf") as request:
            self.page.get_by_role("link", name="Record, PDF").click()
        self.assertEqual(request.value.response().status, 200)

    def test_a_cam_that_is_out_is_moved_and_degreed_again(self):
        self.at_the_bench()
        self.find_tdc()
        for figure, flank in OUT:
            self.answer(f"1.00 mm, {flank}", figure, "Enter")
        self.asked("advanced. What will you do?")
        self.see(self.main.get_by_text("out", exact=True))
        expect(self.page.get_by_role("button", name="Crank sprocket key: R4")).to_have_attribute("aria-pressed", "true")
        self.type("Enter")
        self.asked("intake valve pass 1.00 mm, opening")
        self.says(self.tape.first, "Crank sprocket key: R4")

    def test_leaving_a_cam_that_is_out_wants_a_reason(self):
        self.at_the_bench()
        self.find_tdc()
        for figure, flank in OUT:
            self.answer(f"1.00 mm, {flank}", figure, "Enter")
        self.answer("What will you do?", "1", "Enter")
        self.reads("Not without a few words")
        self.type("the maker allows it")
        self.type("Enter")
        self.asked("Is this engine's timing as it should be?")

    def test_sides_by_keys_and_other_ways_to_come(self):
        self.at_the_bench()
        self.find_tdc()
        before = self.page.get_by_role("button", name="before TDC", exact=True)
        expect(before).to_have_attribute("aria-pressed", "true")  # as the card has it
        self.type("a")
        expect(self.page.get_by_role("button", name="after TDC", exact=True)).to_have_attribute("aria-pressed", "true")
        self.type("d", "b")
        expect(self.page.get_by_role("button", name="before BDC", exact=True)).to_have_attribute("aria-pressed", "true")
        self.type("*", "*", "t", "16", "Enter")
        self.asked("closing")
        self.reads("taken after turning back")
        self.assertEqual(Entry.objects.latest("seq").body["wheel"], {"text": "16", "side": "before TDC"})

    def test_another_question_is_chosen_with_the_arrows(self):
        self.at_the_bench()
        self.find_tdc()
        self.type("ArrowDown", "ArrowDown")
        self.asked("exhaust valve pass 1.00 mm, opening")
        self.type("ArrowUp")
        self.asked("intake valve pass 1.00 mm, closing")

    def test_equal_drops_in_inches(self):
        self.at_the_bench()
        self.answer("How is your wheel numbered", "x", "Enter")
        self.asked("How will you find true TDC")
        self.type("l", "2")
        for place in ("coming up", "going down"):
            self.asked(place)
            self.page.get_by_label("Dial, drop from the top, in").fill("0.2")
            self.page.get_by_label("Wheel reads").fill("30")
            self.type("Enter")
        self.asked("Take over true TDC")
        drop = Entry.objects.filter(kind="tdc_reading").first()
        self.assertEqual((drop.body["drop"], drop.si_values["drop_mm"]), ({"text": "0.2", "unit": "in"}, 5.08))


class TouchTests(BrowserCase):
    def tap(self, *names):
        for name in names:
            self.page.get_by_role("button", name=name, exact=True).tap()

    def test_the_job_by_touch_alone_on_a_tablet(self):
        self.open(TABLET, has_touch=True, is_mobile=True)
        self.sign_in()
        self.page.get_by_role("link", name="T-1").tap()
        self.asked("How is your wheel numbered")
        self.page.get_by_label("Plugs are out, stand is locked").tap()
        self.tap("Record the set-up")
        self.asked("How will you find true TDC")
        self.page.get_by_role("button", name="Positive stop").tap()
        self.asked("Fit the piston stop")
        self.tap("The stop is in")
        self.asked("Turn forward")
        self.tap("4", "1", ".", "5", "Record")
        self.asked("Turn back")
        self.tap("4", "2", "Take the last digit back", "1", "Record")
        self.asked("Take over true TDC")
        self.tap("Take it over")
        self.tap("The stop is out")
        self.asked("intake valve pass 1.00 mm, opening")
        self.tap("1", "6", "before TDC", "Record")
        self.asked("intake valve pass 1.00 mm, closing")
        self.says(self.tape.first, "16° before TDC")  # the screen goes on ahead of the ledger; the time of day may say 16
        self.assertEqual(Entry.objects.latest("seq").si_values, {"wheel_deg": 344.0, "lift_mm": 1.0})

    def test_targets_are_large_enough_for_a_glove(self):
        """Practice: at least 44 px, on a phone."""
        self.open(PHONE, has_touch=True, is_mobile=True)
        self.at_the_bench()
        self.find_tdc()
        small = []
        for button in self.page.get_by_label("Reading", exact=True).get_by_role("button").all():
            box = button.bounding_box()
            if box["height"] < 44 or box["width"] < 44:
                small.append((button.text_content(), box["width"], box["height"]))
        self.assertEqual(small, [])

    def test_nothing_is_wider_than_the_screen(self):
        for viewport in (PHONE, TABLET):
            self.open(viewport, has_touch=True, is_mobile=True)
            self.sign_in()
            for path in ("/", "/families", "/gauges", "/bench/T-1"):
                self.page.goto(path)
                self.page.locator("h1").wait_for()
                with self.subTest(path=path, width=viewport["width"]):
                    wide = self.page.evaluate("document.documentElement.scrollWidth")
                    self.assertLessEqual(wide, viewport["width"])

    def test_a_long_record_says_how_far_it_is_and_can_be_stopped(self):
        engine = Engine.objects.get(pk="T-1")
        for n in range(310):
            put_row(engine, body={"kind": "note", "text": f"looked again {n}"})
        self.at_the_bench()
        with self.page.expect_request(lambda request: request.method == "DELETE" and "/api/printing?turn=" in request.url):
            self.page.get_by_role("button", name="Record, PDF").click()
            paper = self.page.get_by_role("dialog", name="Record of T-1")
            paper.get_by_role("button", name="Stop").click()
        expect(paper).to_have_count(0)
        self.see(self.page.get_by_role("button", name="Record, PDF"))
        self.page.get_by_role("button", name="Record, PDF").click()
        self.see(paper.get_by_text("It is ready."))  # the press stands back behind everything else
        expect(paper.get_by_role("link", name="Open it")).to_have_attribute("href", re.compile("^blob:"))
