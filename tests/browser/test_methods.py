"""The other ways to find true TDC, other wheels, and a long day's lists, through the real interface."""

import uuid

from playwright.sync_api import expect

from gurvo_core.motion import drop_mm
from gurvo_core.motion.frames import slider_of
from tests.browser.case import BrowserCase
from tests.engines import quern_4
from tests.server.cases import put_row
from work import bridge, services
from work.models import Engine, Entry

PLACES = (-50, -35, -20, 20, 35, 50)
WHEEL_ZERO = 3


class MethodTests(BrowserCase):
    def set_up(self, numbering="3", *keys):
        """Set up a wheel by keys and come to the choice of method."""
        self.at_the_bench()
        self.answer("How is your wheel numbered", numbering, *keys, "x", "Enter")
        self.asked("How will you find true TDC")

    def point(self, place, wheel):
        """One reading of the fit: the dial's drop and the wheel."""
        drop = float(drop_mm(place, slider_of(quern_4())))
        self.page.get_by_label("Dial, drop from the top, mm").fill(f"{drop:.2f}")
        self.page.get_by_label("Wheel reads").fill(str(wheel))
        self.type("Enter")

    def test_a_fit_over_many_readings_on_a_wheel_that_reads_down(self):
        """Second method: readings made from the crank; the wheel's zero is 3 degrees out and its figures fall."""
        self.set_up("1", "r")
        self.type("3")
        for count, place in enumerate(PLACES, 1):
            if count <= 4:
                self.asked(f"Reading {count}:")
            else:
                self.type("ArrowUp")
            self.point(place, (360 - place - WHEEL_ZERO) % 360)
            expect(self.tape).to_have_count(2 + count)
        self.asked("Take over true TDC: the pointer is out by +3.00°")
        setup = Entry.objects.get(seq=1).body
        self.assertEqual((setup["numbering"], setup["runs"]), ("0-360", "falls"))
        self.assertEqual(Entry.objects.latest("seq").si_values["wheel_deg"], 53)

    def test_a_misread_point_is_pointed_at(self):
        self.set_up("1")
        self.type("3")
        for count, place in enumerate(PLACES, 1):
            if count > 4:
                self.type("ArrowUp")
            else:
                self.asked(f"Reading {count}:")
            self.point(place, (place + (6 if place == 20 else 0)) % 360)
            expect(self.tape).to_have_count(2 + count)
        self.reads("Reading 4 of the fit does not belong to the others")

    def test_at_the_top_asks_for_both_ends_of_the_dwell(self):
        self.set_up("2")
        self.says(self.page.get_by_role("button", name="At the top"), "both ends of the dwell, 2.2° apart")
        self.type("4")
        self.answer("Where does the dial stop rising?", "0.5", "Enter")
        self.answer("Where does it begin to fall again?", "1.5", "Enter")
        self.asked("Take over true TDC: the pointer is out by +0.50°")
        # by hand: 0.144 of the wheel's step and 1.08 / 4 / sqrt 3 of an end, over sqrt 2; 0.1 of its curve, alike at both; twice
        self.reads("±0.36°")

    def test_a_wheel_without_sides_asks_for_none(self):
        self.set_up("1")
        self.type("1")
        self.answer("Fit the piston stop", "PageDown")
        self.answer("Turn forward", "318,5", "Enter")
        self.answer("Turn back", "400", "Enter")
        expect(self.alert).to_have_text("A 0-360 wheel has no 400°; it reads from 0 to 360.")
        expect(self.page.get_by_label("Side", exact=True)).to_have_count(0)
        self.page.get_by_label("Wheel reads").fill("41")
        self.type("Enter")
        self.asked("Take over true TDC")

    def test_the_wheel_is_drawn_in_its_own_numbering(self):
        self.set_up("1")
        drawing = self.page.get_by_role("img", name="Degree wheel")
        for figure in ("30", "180", "330"):
            self.see(drawing.get_by_text(figure, exact=True))

    def test_plugs_in_is_refused_beside_the_form(self):
        self.at_the_bench()
        self.asked("How is your wheel numbered")
        self.type("Enter")
        self.says(self.alert, "Take the plugs out")
        self.see(self.page.get_by_role("status").filter(has_text="Do not turn"))


class LongListTests(BrowserCase):
    def test_a_long_floor_and_a_long_tape(self):
        first = Engine.objects.get(serial="T-1")
        for n in range(40):
            Engine.objects.create(serial=f"L-{n:02}", revision=first.revision)
        for n in range(1, 91):
            put_row(first, body={"kind": "note", "text": f"note {n}"})
        self.page.goto("/")
        self.page.get_by_label("Name").wait_for()
        self.type("bo", "Tab", "a-long-enough-word", "Enter")
        self.see(self.headed("42 engines, two on stands"))
        expect(self.page.get_by_role("link", name="L-39")).to_have_count(1)
        self.type("/", "L-07")
        expect(self.page.get_by_role("link", name="L-39")).to_have_count(0)
        expect(self.page.get_by_role("link", name="L-07")).to_have_count(1)
        self.bench()
        expect(self.page.get_by_text("note 31", exact=False)).to_have_count(1)
        self.page.get_by_role("button", name="older entries").click()
        expect(self.tape).to_have_count(90)
        expect(self.page.get_by_role("button", name="older entries")).to_have_count(0)
        # somebody else records in the meantime: nothing that was fetched falls off
        for n in range(5):
            body = bridge.HOUSE.bodies.validate_python({"kind": "note", "text": f"more {n}"})
            services.record(first.serial, entry_id=uuid.uuid4(), body=body, by=first.builder)
        expect(self.tape).to_have_count(95)
