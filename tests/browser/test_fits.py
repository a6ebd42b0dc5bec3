"""Fits and lash through the real interface: a bottom end by keyboard, one journal that cannot be told, shells, shims, a pasted sheet."""

import os
import re
from unittest.mock import patch

from playwright.sync_api import expect

from shop.models import Gauge, Shop, StockItem
from standins.serve import serve
from tests.browser.case import PHONE
from tests.browser.test_joints import JointCase
from tests.browser.test_run import Keys
from tools.real_server import free_port
from work.record.paper import as_pdf

BORES = {1: "58.016", 2: "58.017", 3: "58.025", 4: "58.016", 5: "58.018"}


class BottomEndTests(JointCase):
    def at_the_mains(self):
        Gauge.objects.create(
            code="M2", name="hundredths", kind="micrometer", resolution=0.01, expanded_uncertainty=0.003, least=50, most=75
        )
        self.at("quern-4", "main-fit")

    def read(self, side, sizes):
        """Every spot of one side, place by place, figure and Enter."""
        for place, size in sizes.items():
            for where in ("front ↕", "front ↔", "rear ↕", "rear ↔"):
                self.focused(f"Main {place} {side}, {where}")
                self.type(size, "Enter")

    def test_five_mains_by_keyboard_and_the_one_that_cannot_be_told_is_settled(self):
        self.at_the_mains()
        self.answer("with what is the bore read", "Enter")
        self.says(self.alert, "First: shells in, caps torqued")
        self.type("x", "Enter")
        self.read("bore", BORES)
        self.asked("with what is the journal read")
        coarse = self.page.get_by_role("button", name="M2 hundredths")
        self.type(coarse.inner_text()[0], "Enter")
        self.read("journal", dict.fromkeys(BORES, "57.97"))
        self.asked("Main 3 cannot be told. What is done about it?")
        self.says(self.part("Loose ends"), "Main 3 cannot be told")
        self.says(self.main.get_by_label("What it comes to"), "can't tell")
        self.says(self.main.get_by_label("What would settle it"), "Read the journal again with M1: U falls to 0.00")
        # that is what is done: the same spots once more, with the finer one
        self.main.get_by_label("Why, and with what").fill("with the finer micrometer")
        self.type("Enter")
        self.read("bore", {3: "58.025"})
        for where in ("front ↕", "front ↔", "rear ↕", "rear ↔"):
            self.focused(f"Main 3 journal, {where}")
            for _ in range(8):
                if self.page.get_by_text("gauge M1 this time").count():
                    break
                self.type("e")
            self.type("57.972", "Enter")
        self.asked("with what is the bore read")
        expect(self.part("Loose ends")).not_to_contain_text("cannot be told")
        with patch("work.record.paper.pdf_of", side_effect=lambda page, *_: page.encode()):
            page = as_pdf(self.ledger_engine()).decode()
        self.assertIn("<h2>Main bearing clearance</h2>", page)
        self.assertIn("gauge M1, gauge M2, gauge P1", page)

    def ledger_engine(self):
        self.engine.refresh_from_db()
        return self.engine

    def test_slips_are_said_beside_the_figure_and_nothing_typed_is_lost(self):
        self.at_the_mains()
        self.answer("with what is the bore read", "x", "Enter")
        self.asked("Main 1: what does the bore measure at the front, up and down?")
        self.type("5.8016", "Enter")
        self.says(self.alert, "did you mean 58.016?")
        field = self.page.get_by_label("Main 1 bore, front ↕", exact=True)
        expect(field).to_have_value("5.8016")
        self.page.reload()
        expect(field).to_have_value("5.8016")
        field.fill("16")
        self.type("n", "Enter")
        self.asked("Main 1: what does the bore measure at the front, across?")
        self.says(self.tape.first, "+16 µm")
        self.page.keyboard.press("ArrowRight")
        self.reads("instead of the next")

    def test_a_sheet_is_pasted_and_says_what_it_took_before_it_is_kept(self):
        self.at_the_mains()
        self.answer("with what is the bore read", "x", "Enter")
        self.asked("Main 1: what does the bore measure")
        before = len(self.ledger.entries)
        self.type("s")
        sheet = self.page.get_by_label("Paste a sheet")
        sheet.fill("place\tbore front up\tbore front across\nmain 1\t58.016\t58.017\nmain 2\t5.8\t58.016")
        self.page.get_by_role("button", name="See what it says").click()
        self.reads("3 of 4 are taken as they are")
        self.reads("did you mean")
        self.assertEqual(len(self.ledger.entries), before)
        self.page.get_by_role("button", name="Keep 3 readings").click()
        self.recorded(before + 3)
        self.asked("Main 1: what does the bore measure at the rear, up and down?")

    def test_on_a_phone_one_place_at_a_time(self):
        self.open(PHONE, has_touch=True)
        self.at_the_mains()
        self.main.get_by_role("button", name="Press X").tap()
        self.main.get_by_role("button", name="Ready to read").tap()
        self.asked("Main 1: what does the bore measure at the front, up and down?")
        for digit in "58.016":
            self.main.get_by_role("button", name=digit, exact=True).tap()
        self.main.get_by_role("button", name="Record", exact=True).tap()
        self.asked("Main 1: what does the bore measure at the front, across?")
        self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), PHONE["width"])


class ShellTests(JointCase):
    def test_shells_come_from_stock_and_are_gone_from_it(self):
        for size, count in (("B", 8), ("C", 8)):
            StockItem.objects.create(part="Corrie main shells", size=size, count=count)
        self.at("corrie-v6", "main-fit:main-clearance:sizes")
        self.asked("Corrie main shells: which go where?")
        expect(self.page.get_by_label("Size for main 1")).to_have_value("C")
        self.says(self.main, "Spread")
        self.type("Enter")
        self.asked("Crank in")
        self.page.goto("/stock")
        row = self.page.get_by_role("row").filter(has_text="Q-1: 8")
        self.says(row, "C")
        row.get_by_role("button", name="Count").click()
        self.page.get_by_label("Free on the shelf").fill("6")
        self.type("Enter")
        expect(row.get_by_role("cell").nth(1)).to_have_text("6")
        self.page.get_by_label("Size", exact=True).fill("C")
        self.page.get_by_label("Free on the shelf").fill("many")
        self.type("Enter")
        self.says(self.alert, "whole number of pieces")


class LashTests(JointCase):
    def test_the_twin_cams_shims_change_places_by_keyboard(self):
        self.at("teasel-4", "lash")
        self.answer("Valve clearances, cold, by shims: ready?", "Enter")
        found = {"Cylinder 1 intake": ("0.30", "2.40"), "Cylinder 2 intake": ("0.10", "2.50")}
        for stop, valves in ((1, 4), (2, 4)):
            self.answer(f"Turn the crank to cylinder {1 if stop == 1 else 4} at firing TDC", "Enter")
            for _ in range(valves):
                self.asked("what is its clearance?")
                name = self.page.locator("h1").inner_text().split(":")[0]
                goes, shim = found.get(name, ("0.20" if "intake" in name else "0.25", "2.50"))
                self.focused("Shim that is in, mm")
                self.type(shim)
                self.page.keyboard.press("ArrowRight")
                before = len(self.ledger.entries)
                self.type(goes, "Enter")
                self.recorded(before + 1)
        self.asked("Which shim goes where?")
        self.says(self.main, "2 moved within the engine, 0 from stock, 0 to buy")
        self.type("Enter")
        self.says(self.part("Loose ends"), "another shim, not read again")
        self.answer("Turn the crank to cylinder 1", "Enter")
        for _ in range(2):
            self.asked("read it again")
            before = len(self.ledger.entries)
            self.type("0.20", "Enter")
            self.recorded(before + 1)
        self.asked("Turn once over and listen")
        self.page.get_by_role("navigation", name="Run of work").get_by_role("button", name="Valve clearances, cold, by shims").click()
        self.page.get_by_role("button", name="Open it again").click()
        self.page.get_by_label("Why?").fill("a bucket was out again")
        self.type("Enter")
        self.asked("Valve clearances, cold, by shims: ready?")

    def test_a_valve_near_its_limit_is_set_again_or_accepted_by_the_lead(self):
        self.at("wick-1", "lash")
        self.answer("Both valves, cold: ready?", "Enter")
        self.answer("Turn the crank to cylinder 1", "Enter")
        self.answer("Cylinder 1 intake: what is its clearance?", "0.10", "Enter")
        self.asked("Cylinder 1 intake: read it again")
        self.says(self.main, "too near a limit to be told")
        self.type("0.15", "Enter")
        self.says(self.main, "Screw in by 0.09 of a turn")
        self.type("0.08", "Enter")
        self.asked("Cylinder 1 exhaust: what is its clearance?")


class DoneTests(Keys):
    def test_a_place_is_read_again_once_the_step_is_done(self):
        self.at("quern-4", "rod-fit")
        self.page.get_by_role("navigation", name="Run of work").get_by_role("button", name="Main bearings").click()
        self.part("Which place").select_option("main 4")
        self.part("Why it is read again").fill("a burr at the parting line")
        self.type("Enter")
        self.asked("Main 4: what does the bore measure")


class LiveTests(JointCase):
    """The simulated bore gauge: what it shows is taken with a key; one that falls silent is said, and fingers go on."""

    def setUp(self):
        super().setUp()
        base, self.servers = serve()
        self.enterContext(patch.dict(os.environ, {"GURVO_STANDINS": str(base)}))
        Gauge.objects.filter(code="P1").update(address="standin:bore")

    def tearDown(self):
        super().tearDown()
        for server in self.servers:
            server.shutdown()
            server.server_close()

    def test_a_bore_is_read_from_the_gauge(self):
        self.at("quern-4", "main-fit")
        self.answer("with what is the bore read", "x", "Enter")
        self.asked("Main 1: what does the bore measure at the front, up and down?")
        self.type("v")
        self.says(self.page.get_by_text("P1 shows"), re.compile(r"P1 shows \d+\.\d{3} mm"))
        self.type("i")
        field = self.page.get_by_label("Main 1 bore, front ↕", exact=True)
        expect(field).to_have_value(re.compile(r"^\d+\.\d{3}$"))
        Shop.objects.update(instrument_hosts="127.0.0.1")
        Gauge.objects.filter(code="P1").update(address=f"socket://127.0.0.1:{free_port()}")
        self.page.reload()
        self.reads("does not answer")
        field.fill("58.016")
        self.type("Enter")
        self.asked("Main 1: what does the bore measure at the front, across?")


class ChamberTests(JointCase):
    def test_the_gasket_by_the_highest_piston_and_what_if(self):
        self.at("garth-d6", "heights:protrusion:cylinder 6|gap|rear|")
        self.asked("Cylinder 6: what does the height measure at the rear?")
        self.type("0.55", "Enter")
        self.asked("Tappets")  # the bench has gone on to the next stage
        run = self.page.get_by_role("navigation", name="Run of work")
        run.get_by_role("button", name="Bottom end").click()
        run.get_by_role("button", name="How far each piston").click()
        chamber = self.part("Gasket and compression")
        self.says(chamber, "Gasket 3: Cylinder 6 stands 0.5")
        chamber.get_by_label("What if gasket").select_option("1")
        self.says(chamber, "higher than this gasket is for (0.4 mm)")
        chamber.get_by_label("Skimmed, mm").fill("0.3")
        self.says(chamber, "What if gasket 1")
