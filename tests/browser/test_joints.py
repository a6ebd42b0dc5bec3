"""Joints through the real interface: by keyboard, by touch, from the simulated wrench; the one bad bolt of ten, on screen and paper."""

import os
import re
from unittest.mock import patch

from playwright.sync_api import expect

from shop.models import Gauge, Shop
from standins.serve import serve
from tests.browser.case import PHONE
from tests.browser.test_run import Keys
from tools.real_server import free_port
from work.record.paper import as_pdf

TORQUES = ("70", "69", "54", "72", "70", "71", "69", "73", "70", "71")


class JointCase(Keys):
    def at_the_head(self, **how):
        """Quern 4 before the last stage of its head, played past by the server's own door."""
        if how:
            self.open(**how)
        self.at("quern-4", "head-angle")

    def ready(self):
        """Say that the threads are as the book has them, once that is asked."""
        self.see(self.part("Before the first pull"))
        self.type("t", "Enter")

    def pull(self, torque, *, record=True):
        """Type the torque at the end, once the angle has the focus: before that a Tab leads elsewhere."""
        self.focused("Turned, degrees")
        self.type("Tab", torque, *(["Enter"] if record else []))


class HeadTests(JointCase):
    def test_ten_bolts_by_keyboard_the_bad_one_is_caught_and_printed(self):
        self.at_the_head()
        self.ready()
        for bolt, torque in enumerate(TORQUES, 1):
            self.asked(f"Cylinder head, bolt {bolt}: turn it 90°")
            if bolt == 4:
                self.says(self.part("What to pull"), "window 85 to 95°")
            self.pull(torque)
        self.asked("Cylinder head, bolt 3 ended 16 N·m below the others")
        self.says(self.main.get_by_label("Torque at the end"), "bolt 3")
        self.type("2")
        self.main.get_by_label("Why").fill("threads clean, the lead is told")
        self.type("Enter")
        self.asked("Pushrods, each in its place")
        self.says(self.part("Loose ends"), "bolt 3 ended 16 N·m below the others")
        with patch("work.record.paper.pdf_of", side_effect=lambda page, *_: page.encode()):
            page = as_pdf(self.engine).decode()
        self.assertIn("bolt 3 ended 16 N·m below the others", page)
        self.assertRegex(page, r'<tr class="because"><td>3</td>.*54 N·m')

    def test_another_bolt_and_another_unit_are_asked_about(self):
        self.at_the_head()
        self.ready()
        self.asked("bolt 1")
        self.page.keyboard.press("ArrowRight")
        self.reads("bolt 2 instead of 1")
        self.pull("70")
        self.says(self.alert, "Cylinder head, bolt 1 is next in the order")
        self.page.get_by_label("Reason").fill("the hoist is in the way")
        self.type("Enter")
        self.says(self.tape.first, "the hoist is in the way")
        self.asked("bolt 1")

    def test_what_was_typed_survives_a_reload_and_the_joint_comes_back_to_the_same_bolt(self):
        self.at_the_head()
        self.ready()
        self.asked("bolt 1")
        self.pull("70")
        self.asked("bolt 2")
        self.pull("68,5", record=False)
        self.page.reload()
        self.asked("bolt 2")
        expect(self.page.get_by_label("Torque at the end", exact=True).last).to_have_value("68,5")

    def test_a_loosening_shows_how_far_in_large_and_nothing_to_measure(self):
        self.at("tarn-f4", "right-head-30:2.1.1")
        target = self.part("What to pull")
        self.says(target, "Turn")
        expect(target.locator("b")).to_have_text("360°")
        expect(self.main.get_by_label("Turned, degrees")).to_have_count(0)

    def test_on_a_phone_bolt_figure_and_one_key(self):
        self.at_the_head(viewport=PHONE, has_touch=True)
        self.main.get_by_role("button", name="oiled").tap()
        self.main.get_by_role("button", name="Ready to pull").tap()
        self.asked("bolt 1: turn it 90°")
        self.main.get_by_role("button", name="Angle reached").tap()
        self.asked("bolt 2: turn it 90°")
        wide = self.page.evaluate("document.documentElement.scrollWidth")
        self.assertLessEqual(wide, PHONE["width"])

    def test_left_until_something_and_a_bolt_found_loose(self):
        self.at_the_head()
        self.asked("Cylinder head: ready to pull")
        self.type("j")
        self.page.get_by_role("button", name="Left finger tight until").click()
        self.page.get_by_label("Until what does it stay so?").fill("the cam is proven")
        self.type("Enter")
        self.says(self.part("Loose ends"), "Cylinder head left as it is")


class WrenchTests(JointCase):
    def setUp(self):
        super().setUp()
        base, self.servers = serve()
        self.enterContext(patch.dict(os.environ, {"GURVO_STANDINS": str(base)}))
        wrench = {"kind": "wrench", "resolution": 0.1, "expanded_uncertainty": 0.5, "least": 5, "most": 135}
        Gauge.objects.create(code="E1", name="electronic wrench", address="standin:wrench", **wrench)

    def tearDown(self):
        super().tearDown()
        for server in self.servers:
            server.shutdown()
            server.server_close()

    def test_three_bolts_from_the_simulated_wrench_each_recorded_by_itself(self):
        self.at_the_head()
        self.asked("Cylinder head: ready to pull")
        self.page.get_by_role("button", name=re.compile("E1")).click()
        self.page.get_by_role("button", name="oiled").click()
        self.page.get_by_role("button", name="Ready to pull").click()
        self.asked("bolt 1: turn it 90°")
        self.type("v")
        self.page.get_by_role("button", name="waits for Enter").click()
        self.see(self.part("Live needle"))
        self.asked("bolt 4: turn it 90°")
        self.page.get_by_role("button", name="records by itself").click()
        expect(self.tape.filter(has_text="with its trace")).to_have_count(3)
        self.see(self.page.get_by_label("Traces", exact=True))

    def test_a_wrench_that_falls_silent_is_said_and_fingers_go_on(self):
        self.at_the_head()
        self.page.get_by_role("button", name=re.compile("E1")).click()
        self.page.get_by_role("button", name="oiled").click()
        self.page.get_by_role("button", name="Ready to pull").click()
        self.asked("bolt 1: turn it 90°")
        Shop.objects.update(instrument_hosts="127.0.0.1")
        Gauge.objects.filter(code="E1").update(address=f"socket://127.0.0.1:{free_port()}")
        self.type("v")
        self.reads("does not answer")
        self.pull("70")
        self.asked("bolt 2: turn it 90°")


class OtherJointTests(JointCase):
    def test_a_left_hand_bolt_says_so_and_asks_what_holds_it(self):
        self.at("teasel-4", "pump-wheel-tight")
        self.asked("Coolant pump wheel bolt: ready to pull")
        self.see(self.part("Before the first pull"))
        self.says(self.part("What to pull"), "Left-hand thread")
        self.type("Enter")
        self.says(self.alert, "let a pin through the wheel hold against the wrench")
        self.type("x", "t", "Enter")
        self.asked("Plate between the cams")
        self.says(self.tape.first, "Coolant pump wheel bolt")
