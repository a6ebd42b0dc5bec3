"""Floor, Families, Gauges, sides, units, roles, and accessibility in light and dark."""

from playwright.sync_api import expect

from tests.browser.case import PHONE, BrowserCase
from tests.browser.test_nothing_is_lost import BenchReadyCase
from work.models import Engine


class DoorTests(BrowserCase):
    def test_a_wrong_password_is_said_beside_the_field(self):
        self.page.goto("/")
        self.page.get_by_label("Name").wait_for()
        self.type("bo", "Tab", "wrong", "Enter")
        self.reads("Name and password do not belong together")
        expect(self.page.get_by_label("Name")).to_have_value("bo")

    def test_a_deep_link_asks_to_sign_in_and_then_opens(self):
        self.page.goto("/bench/T-1")
        self.page.get_by_label("Name").wait_for()
        self.type("bo", "Tab", "a-long-enough-word", "Enter")
        self.asked("How is your wheel numbered")

    def test_signing_out(self):
        self.sign_in()
        self.page.get_by_role("button", name="Sign out").click()
        self.see(self.headed("Who is at the bench?"))

    def test_what_is_not_there_says_so_and_leads_away(self):
        self.sign_in(path="/bench/T-9")
        self.see(self.headed("T-9 cannot be shown"))
        self.page.goto("/nowhere")
        self.see(self.headed("There is nothing here"))
        self.page.get_by_role("link", name="To the Floor").click()
        self.see(self.page.get_by_role("link", name="T-1"))

    def test_a_server_that_does_not_answer_is_said(self):
        self.page.route("**/api/session", lambda route: route.abort())
        self.page.goto("/")
        expect(self.page.get_by_role("heading", name="The server does not answer")).to_be_visible()
        self.page.unroute("**/api/session")
        self.page.get_by_role("button", name="Try again").click()
        self.page.get_by_label("Name").wait_for()


class FloorTests(BrowserCase):
    def test_an_engine_is_put_on_a_stand_by_keyboard(self):
        self.sign_in()
        self.type("n")
        self.page.get_by_label("Serial").wait_for()
        self.type("T-1", "Enter")
        self.reads("There is an engine T-1 already")
        self.type("Backspace", "7", "Enter")
        self.asked("How is your wheel numbered")
        self.assertEqual(Engine.objects.get(serial="T-7").builder.username, "bo")

    def test_a_viewer_is_not_offered_what_he_may_not(self):
        self.sign_in("vi")
        expect(self.page.get_by_role("button", name="Put an engine on a stand")).to_have_count(0)
        self.bench()
        self.reads("You may look. A builder takes the readings.")
        expect(self.page.get_by_role("button", name="Note")).to_have_count(0)

    def test_an_empty_floor_says_what_to_do(self):
        Engine.objects.all().delete()
        self.sign_in()
        self.reads("Put one on a stand to begin.")

    def test_the_keys_are_listed(self):
        self.at_the_bench()
        self.type("?")
        self.says(self.page.get_by_role("dialog"), "front / flywheel")

    def test_families_and_gauges(self):
        self.sign_in()
        self.page.get_by_role("link", name="Families").click()
        self.reads("inline 4, pushrods, single chain")
        self.page.get_by_role("link", name="Quern 4", exact=True).click()
        self.reads("1 - 3 - 4 - 2")
        self.reads("16° before TDC")
        self.reads("A6, A4, A2, S, R2, R4, R6")
        self.see(self.page.get_by_role("img", name="Lift of intake-lobe"))
        self.page.get_by_role("link", name="Gauges").click()
        self.reads("0.008 mm")


class SidesAndUnitsTests(BenchReadyCase):
    def test_the_other_end_turns_words_and_drawing_together(self):
        self.asked("intake valve pass 1.00 mm, opening")
        self.reads("clockwise seen from the front")
        place = "() => document.querySelector('figure circle[r=\"7\"]').getAttribute('cx')"
        from_front = float(self.page.evaluate(place))
        self.type("f")
        self.reads("counter-clockwise seen from the flywheel")
        self.assertAlmostEqual(float(self.page.evaluate(place)), -from_front, places=6)
        self.page.reload()
        self.reads("counter-clockwise seen from the flywheel")

    def test_lengths_in_the_readers_unit(self):
        self.asked("pass 1.00 mm")
        self.type("l")
        self.asked("pass 0.0394 in")
        self.type("l")
        self.asked("pass 39.4 thou")


class AccessibilityTests(BenchReadyCase):
    def test_no_rule_is_broken(self):
        self.open(color_scheme="light", reduced_motion="reduce")
        self.page.goto("/")
        self.page.get_by_label("Name").wait_for()
        self.no_rule_is_broken("sign-in")
        self.sign_in()
        self.no_rule_is_broken("floor")
        self.bench()
        self.asked("opening")
        self.no_rule_is_broken("bench")
        self.bench("T-2")
        self.asked("How is your wheel numbered")
        self.no_rule_is_broken("set-up")
        for path in ("/families/quern-4", "/families", "/gauges"):
            self.page.goto(path)
            self.page.locator("h1").wait_for()
            self.no_rule_is_broken(path)

    def test_no_rule_is_broken_on_a_phone(self):
        self.open(PHONE, has_touch=True, is_mobile=True, reduced_motion="reduce")
        self.at_the_bench()
        self.asked("opening")
        self.no_rule_is_broken("bench, phone")


class HelpTests(BenchReadyCase):
    def test_a_question_says_what_is_meant_and_a_word_what_it_means(self):
        """By key and by finger; a learner keeps it open, on whatever machine he signs in next."""
        self.bench()
        self.type("?")
        topic = self.page.get_by_role("dialog").get_by_role("region", name="What is meant")
        self.see(topic)
        topic.locator("button").first.click()
        self.reads("The small lift at which opening and closing are read")
        with self.page.expect_response("**/api/me"):  # another machine hears of it once it is kept
            topic.get_by_role("checkbox").click()
        topic.get_by_role("checkbox", checked=True).wait_for()
        self.type("Escape")
        self.see(self.main.get_by_role("region", name="What is meant"))
        self.open(PHONE, has_touch=True)
        self.sign_in(path="/bench/T-1")
        self.see(self.main.get_by_role("region", name="What is meant"))
        self.page.get_by_role("button", name="What is meant?").tap()
        self.reads("Keys that work here")


class LookingBackTests(BenchReadyCase):
    def test_a_family_is_looked_back_at_from_its_bench(self):
        """What there is not is said; the page is a link from the bench and from the family."""
        self.sign_in(path="/families/quern-4")
        self.page.get_by_role("button", name="Look back").click()
        self.reads("No engine of this family has come to a figure yet")
        self.reads("Nothing was opened again, moved or decided")
