"""The clearway by keyboard: where shafts stand is told, the way is gone move by move, the map is walked, a gap is measured."""

import re

from gurvo_core.walk import next_question
from tests.browser.case import PHONE
from tests.browser.test_run import RunCase
from tests.server.played import play_until


class ClearwayTests(RunCase):
    def tell_both(self):
        """Without touching the mouse."""
        self.tell_where(("Intake cam", "11"), ("Exhaust cam", "1"))

    def test_cams_that_snapped_are_brought_to_their_marks_by_keys_alone(self):
        self.at("teasel-4", "plate-in")
        self.tell_both()
        self.asked("Turn exhaust cam")
        self.see(self.page.get_by_role("img", name=re.compile("Map of crank and Exhaust cam, with the way: Turn exhaust cam")))
        self.no_rule_is_broken("a move on its way")
        record = self.page.get_by_role("button", name="Record")
        self.assertTrue(record.is_disabled())  # nothing is chosen for anybody
        self.build("plate-in", lambda *_: self.type("1", "Enter"))
        self.asked("Plate between the cams")
        stands = self.part("Where everything stands").locator("li")
        self.says(stands.filter(has_text="Intake cam"), "intake mark at 12 o'clock, turned there")

    def test_a_snap_tells_where_to_and_a_way_may_be_left(self):
        self.at("teasel-4", "plate-in")
        self.tell_both()
        self.asked("Turn exhaust cam")
        self.type("3")
        self.page.get_by_role("button", name="exhaust mark", exact=True).click()
        self.page.get_by_label("stands at, seen from the front").fill("noon")
        self.page.get_by_role("button", name="Record").click()
        self.says(self.alert, "no clock position", any_case=True)
        self.page.get_by_label("stands at, seen from the front").fill("half past 1")
        self.page.get_by_role("button", name="Record").click()
        self.asked("Turn exhaust cam")
        self.says(self.part("Where everything stands").locator("li").filter(has_text="Exhaust cam"), "half past 1", any_case=True)
        self.page.get_by_role("button", name="Leave the way").click()
        self.page.get_by_label("How is it brought there").fill("rockers are out")
        self.page.get_by_role("button", name="By feel").click()
        self.asked("Plate between the cams")

    def test_the_map_is_walked_by_keys_and_a_gap_is_measured(self):
        self.at("teasel-4", "plate-in")
        self.type("c")
        self.see(self.page.get_by_role("img", name="Map of crank and Intake cam"))
        self.reads("crank 0°, Intake cam 0°")
        self.page.keyboard.press("ArrowRight")
        self.page.keyboard.press("Shift+ArrowUp")
        self.reads("crank 2°, Intake cam 10°")
        self.reads("nearest")
        self.no_rule_is_broken("clearway")
        self.page.get_by_label("Valve", exact=True).select_option(label="intake 1")
        self.page.get_by_role("button", name="Clay").click()
        self.page.get_by_label("Gap, mm").fill("2.15")
        self.part("Measured").get_by_role("button", name="Record").click()
        self.says(self.part("Measured").locator("li"), "intake 1 least 2.15 ± 0.20 mm by clay, wanted 1.5: in, Bo")
        self.assertEqual(next_question(self.ledger.shown).key, "plate-in")

    def test_on_a_phone_a_move_is_read_and_recorded(self):
        self.open(PHONE, has_touch=True, is_mobile=True)
        self.put("teasel-4", "Q-1")
        play_until("Q-1", "plate-in")
        self.at_the_bench("Q-1")
        self.page.get_by_role("button", name="one stands elsewhere").tap()
        for shaft, clock in (("Intake cam", "11"), ("Exhaust cam", "1")):
            self.see(self.page.locator("button[aria-pressed=true]", has_text=shaft))
            self.page.get_by_role("dialog").get_by_role("button", name=f"{shaft.split()[0].lower()} mark").tap()
            self.page.get_by_label("stands at, seen from the front").fill(clock)
            self.page.get_by_role("button", name="It stands there").tap()
        self.asked("Turn exhaust cam")
        self.page.get_by_role("button", name="It stands there").tap()
        self.page.get_by_role("button", name="Record", exact=True).tap()
        self.asked("Turn intake cam")
