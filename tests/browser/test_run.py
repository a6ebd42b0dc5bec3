"""A whole build through the real interface: the flat four by keyboard alone, the single by touch on a tablet; and what holds it up."""

import re
from datetime import timedelta
from unittest.mock import patch

from django.contrib.auth.models import User
from django.utils import timezone
from playwright.sync_api import expect

from demo.documents import family_data
from demo.player import answer
from engine.services import add_revision
from gurvo_core.walk import next_question
from tests.browser.case import TABLET, BrowserCase
from tests.server.cases import PASSWORD
from tests.server.played import play_until
from work import bridge
from work.models import Engine
from work.services import put_on_stand


class RunCase(BrowserCase):
    def put(self, code, serial):
        """Put an engine on a stand whose book has a whole run."""
        revision = add_revision(family_data(code), by=None)
        self.engine = put_on_stand(serial=serial, family=code, purpose="", stand=7, promised=None, by=User.objects.get(username="bo"))
        self.document = bridge.document_of(revision.pk)

    def at(self, family, key, serial="Q-1"):
        """An engine whose bench asks this; what comes before is played by the server's own door."""
        self.put(family, serial)
        play_until(serial, key)
        self.at_the_bench(serial)

    @property
    def ledger(self):
        return bridge.ledger_of(Engine.objects.at_the_bench().get(pk=self.engine.pk))

    def recorded(self, count):
        """Wait until the ledger has so many entries: what was sent last has been answered."""
        self.see(self.page.locator(f"h2:text-is('Tape · {count}')"))

    def tell_where(self, *told):
        """Shafts one after another, each by its first mark at a clock position, without the mouse; the first not looked at is chosen."""
        self.type("y")
        for shaft, clock in told:
            chosen = self.page.locator("[role=dialog] button:focus[aria-pressed=true]", has_text=shaft)
            self.see(chosen)
            first = self.page.get_by_label("By what it is told").locator("button").first
            self._until(lambda first=first: self._tabbed(first), bool, "its first mark is not reached")
            self.type("Enter")
            field = self.page.get_by_label("stands at, seen from the front")
            self._until(lambda field=field: self._tabbed(field), bool, "its clock position is not reached")
            self.type(clock, "Enter")
        self.page.get_by_role("dialog").wait_for(state="detached")

    def _tabbed(self, to):
        """One Tab further; whether it came there."""
        self.page.keyboard.press("Tab")
        return to.evaluate("it => it === document.activeElement")

    def build(self, until, do):
        """Answer what is asked by ``do``, each time on the screen, until a question comes up."""
        while (question := next_question(self.ledger.shown)) is not None and question.key != until:
            before = len(self.ledger.entries)
            do(question, answer(self.ledger.shown, question, self.document))
            self.recorded(before + 1)
        return question


class Keys(RunCase):
    def by_keys(self, question, body):
        """Answer with keys alone."""
        if question.kind == "turn_seen":
            self.type("1", "0" if question.looks else "1", "Enter")
        elif question.kind == "step_done":
            needed = [field for field in question.fields if field.needed]
            self.type(*(["0"] if question.looks else []))
            for field in needed:
                self.type(self.key_of(field, body["answers"][field.key]), *([] if field.kind == "choice" else ["Enter"]))
            if not needed or needed[-1].kind == "choice":
                self.type("Enter")
        elif question.kind == "hold_point":
            self.sign_as_lead()
        elif question.kind == "found":
            self.type("n")
        elif question.kind in ("variant", "tdc_method"):
            self.type("1")
        elif question.kind == "wheel_setup":
            self.type("x", "Enter")
        elif question.kind in ("tdc_reading", "lift_reading"):
            self.type(body["wheel"]["text"])
            side = self.page.get_by_role("button", name=body["wheel"]["side"], exact=True)
            if side.count() and side.get_attribute("aria-pressed") != "true":
                self.type("b" if body["wheel"]["side"].startswith("before") else "a")
            self.type("Enter")
        elif question.kind == "joint_ready":
            self.see(self.part("Before the first pull"))
            self.type(*(["x"] if question.held_by else []), "t", "Enter")
        elif question.kind == "fits_ready":
            self.asked("with what is the")
            self.type(*(["x"] if question.condition else []), "Enter")
        elif question.kind == "fit_reading":
            self.type(body["reading"]["text"], "Enter")
        elif question.kind == "lash_reading":
            if question.asks_shim:
                self.type(body["shim"]["text"])
                self.page.keyboard.press("ArrowRight")
            self.type(body["goes"]["text"], "Enter")
        elif question.kind == "clearway_move":
            self.type("1", "Enter")
        else:
            self.type("Enter")

    def key_of(self, field, text):
        return str([option.value for option in field.options].index(text) + 1) if field.kind == "choice" else text

    def sign_as_lead(self):
        """Change of person at the bench, the signature, and back again."""
        self.take_over("Lena")
        self.page.get_by_label("Your PIN or password").fill(PASSWORD)
        self.type("Enter")
        expect(self.page.get_by_label("Your PIN or password")).to_have_count(0)
        self.take_over("Bo")

    def take_over(self, name):
        self.page.locator("h1").click()
        self.type("h")
        change = self.page.get_by_role("dialog", name="Change of person")
        change.get_by_role("button", name=name).click()
        change.get_by_label("PIN or password").fill(PASSWORD)
        self.type("Enter")
        expect(change).to_have_count(0)


class KeyboardTests(Keys):
    runs_long = True

    def test_the_flat_four_from_bare_block_to_hand_over(self):
        self.put("tarn-f4", "F-1")
        self.at_the_bench("F-1")
        # before the belt goes on somebody looks where the springs left the cams: they are brought to their marks first
        self.build("park-belt", self.by_keys)
        self.tell_where(("Right camshaft", "half past 10"), ("Left camshaft", "half past 5"))
        self.build("oil-in", self.by_keys)
        self.assertIn("shaft_turned", [entry.body.kind for entry in self.ledger.entries])
        self.type("Enter")
        self.says(self.alert, "cures for another")
        later = patch("work.services.timezone.now", return_value=timezone.now() + timedelta(hours=3))
        later.start()
        self.addCleanup(later.stop)
        last = self.build("sign_off", self.by_keys)
        ends = [end.title for end in self.ledger.shown.loose_ends]
        self.assertEqual((last.kind, ends), ("sign_off", ["Early oil change"]))
        self.take_over("Lena")
        self.page.get_by_label("Your PIN or password").fill(PASSWORD)
        self.type("Enter")
        self.asked("Signed. Nothing is left to do here.")


class TouchTests(RunCase):
    runs_long = True

    def by_touch(self, question, body):
        """Answer with a fingertip alone."""
        if question.kind == "turn_seen":
            self.main.get_by_role("button", name="Turned").tap()
            if not question.looks:
                self.main.get_by_role("button", name="As it should be").tap()
            self.all_meet(question.looks)
            self.main.get_by_role("button", name="Record").tap()
        elif question.kind == "step_done":
            if question.fields or question.looks:  # what was asked before may look alike
                self.see(self.main.get_by_role("region", name=question.title, exact=True))
            self.all_meet(question.looks)
            for field in question.fields:
                if field.needed and field.kind == "choice":
                    label = next(option.label for option in field.options if option.value == body["answers"][field.key])
                    self.main.get_by_role("group", name=field.label, exact=True).get_by_role(
                        "button", name=re.compile(rf"^\d?{label}$")
                    ).tap()
                elif field.needed:
                    self.main.get_by_role("textbox", name=field.label, exact=True).fill(body["answers"][field.key])
            self.main.get_by_role("button", name=question.button, exact=True).tap()
        elif question.kind in ("tdc_reading", "lift_reading"):
            for digit in body["wheel"]["text"]:
                self.main.get_by_role("button", name=digit, exact=True).tap()
            self.main.get_by_role("button", name=body["wheel"]["side"], exact=True).tap()
            self.main.get_by_role("button", name="Record", exact=True).tap()
        elif question.kind in ("hold_point", "sign_off"):
            self.sign_by_touch("Sign the record" if question.kind == "sign_off" else "Sign the hold point")
        elif question.kind == "wheel_setup":
            self.page.get_by_label("Plugs are out, stand is locked").tap()
            self.main.get_by_role("button", name="Record the set-up").tap()
        elif question.kind == "joint_ready":
            if question.held_by:
                self.main.get_by_role("button", name="Press X").tap()
            self.main.get_by_role("button", name=body["threads"]).first.tap()
            self.main.get_by_role("button", name="Looked at and pulled" if question.pulls else "Ready to pull").tap()
        elif question.kind in ("lash_ready", "lash_stop"):
            self.main.get_by_role("button", name="Begin" if question.kind == "lash_ready" else "It stands there").tap()
        elif question.kind == "lash_reading":
            self.asked("what is its clearance")
            for digit in body["goes"]["text"]:
                self.main.get_by_role("button", name=digit, exact=True).tap()
            self.main.get_by_role("button", name="Record", exact=True).tap()
        elif question.kind == "pull":
            self.main.get_by_role("button", name="Pulled" if question.asks_torque else "All finger tight").tap()
        else:
            name = {"tdc_method": "Positive stop", "wheel_zero": "Take it over", "cam_decision": "Leave it"}.get(question.kind)
            self.main.get_by_role("button", name=name or ("The stop is in" if question.fitted else "The stop is out")).last.tap()

    def all_meet(self, looks):
        for look in looks:
            group = self.main.get_by_role("group", name=look.name, exact=True)
            group.get_by_role("button", name=re.compile(r"^\d?(meets|goes in)$")).tap()

    def sign_by_touch(self, button):
        """The lead comes, signs by his PIN, and goes again."""
        self.come("Lena")
        self.page.get_by_label("Your PIN or password").fill(PASSWORD)
        self.main.get_by_role("button", name=button).tap()
        expect(self.page.get_by_label("Your PIN or password")).to_have_count(0)
        self.come("Bo")

    def come(self, name):
        self.page.get_by_role("button", name=re.compile("^(Bo|Lena)$")).first.tap()
        change = self.page.get_by_role("dialog", name="Change of person")
        change.get_by_role("button", name=name).tap()
        change.get_by_label("PIN or password").fill(PASSWORD)
        change.locator("button[type=submit]").tap()
        expect(change).to_have_count(0)

    def test_the_single_from_receiving_to_hand_over_by_touch(self):
        self.put("wick-1", "W-1")
        self.open(TABLET, has_touch=True)
        self.at_the_bench("W-1")
        self.build("plug", self.by_touch)
        self.page.get_by_role("navigation", name="Run of work").get_by_role("button", name="Chain", exact=True).tap()
        self.asked("Rotor line to the case line")
        self.reads("Not yet: “Find true TDC” first")
        self.page.get_by_role("navigation", name="Run of work").get_by_role("button", name="True TDC", exact=True).tap()
        self.build("", self.by_touch)
        self.asked("Signed. Nothing is left to do here.")
        self.says(self.part("Loose ends"), "Early oil change")


class HeldUpTests(Keys):
    def test_a_thing_put_on_is_a_loose_end_until_it_is_off_and_a_step_opened_again_says_why(self):
        self.at("wick-1", "barrel")
        ends = self.part("Loose ends")
        self.says(ends, "Wire on the cam chain on")
        ends.get_by_role("button", name="It is off").click()
        expect(ends).not_to_contain_text("Wire on the cam chain on")
        self.page.get_by_role("navigation", name="Run of work").get_by_role("button", name="Piston to bore").click()
        self.page.get_by_role("button", name="Open it again").click()
        self.page.get_by_label("Why?").fill("measured with the wrong bore gauge")
        self.type("Enter")
        self.says(ends, "Open again: Piston to bore")
        self.says(ends, "measured with the wrong bore gauge")


class RefusedTests(Keys):
    def test_whoever_is_refused_is_brought_back_with_the_sentence_and_what_he_typed(self):
        """The screen had gone on; a figure out of its limits is the lead's, who says why."""
        self.at("wick-1", "bore-fit")
        self.type("0.4", "Enter")
        self.says(self.alert, "the lead decides, with the reason")
        self.asked("Piston to bore")
        expect(self.page.get_by_label("Piston to bore").get_by_role("textbox")).to_have_value("0.4")
        self.page.get_by_role("textbox", name="Piston to bore").fill("0.04")
        self.type("Enter")
        self.asked("Barrel and head on, nuts finger tight")

    def test_somebody_quick_answers_the_next_before_the_first_has_arrived(self):
        self.at("wick-1", "wire-on")
        before = len(self.ledger.entries)
        self.page.route("**/entries", lambda route: (self.page.wait_for_timeout(300), route.continue_()))
        self.type("Enter")
        self.asked("Piston to bore")
        self.type("0.04", "Enter")
        self.recorded(before + 2)
        self.assertEqual([entry.body.step for entry in self.ledger.entries[-2:]], ["wire-on", "bore-fit"])


class PlaceTests(Keys):
    def test_an_engine_is_set_aside_by_keys_and_a_taken_stand_is_refused_beside_its_field(self):
        self.put("wick-1", "W-1")
        self.at_the_bench("W-1")
        self.type("g")
        where = self.page.get_by_role("dialog", name="Where W-1 is")
        where.get_by_label("Stand").select_option("2")
        where.get_by_label("Why").fill("nearer the hoist")
        self.type("Enter")
        self.says(where, "Stand 2 holds T-2; choose a free stand.")
        where.get_by_text("set aside").click()
        where.get_by_label("Why").fill("a head from the foundry")
        self.type("Enter")
        expect(where).to_have_count(0)
        self.see(self.page.get_by_role("button", name="set aside: a head from the foundry"))
        self.type("o")
        self.says(self.page.get_by_role("link", name="W-1"), "set aside: a head from the foundry")

    def test_a_plate_that_must_go_in_again_is_asked_for_before_all_is_said_to_meet(self):
        self.at("mallow-2", "turn")
        record = self.main.get_by_role("button", name="Record")
        self.type("1")
        self.see(self.part("What is seen"))
        for look in next_question(self.ledger.shown).looks:
            self.see(self.main.get_by_role("group", name=look.name, exact=True))
        expect(record).to_be_disabled()  # nothing is taken to meet before somebody says so
        before = len(self.ledger.entries)
        self.type("0", "Enter")
        self.recorded(before + 1)


class LittleKnownTests(Keys):
    def test_by_keyboard_what_is_off_is_told_by_name_laid_again_and_proven(self):
        self.at("heath-4", "turn")
        before = len(self.ledger.entries)
        self.type("1", "1", "Enter")  # turned, and the notch meets after one turn
        self.recorded(before + 1)
        self.type("1", "1", "3", "Enter")  # the dot is off by less than a tooth
        self.says(self.part("Loose ends"), "Dot of the cam wheel off by less than a tooth")
        self.asked("Notch to the arrow")
        self.build("sign_off", self.by_keys)
        self.take_over("Lena")
        self.page.get_by_label("Your PIN or password").fill(PASSWORD)
        self.type("Enter")
        self.says(self.main, "dot of the cam wheel met after 2 turns by hand")

    def test_by_keyboard_what_no_book_says_is_counted_once_or_left(self):
        self.at("heath-4", "belt-on:/drive/wheels/crank-wheel/teeth")
        self.type("24", "Enter")
        self.says(self.part("Tape"), "24")
        self.answer("Cam wheel: how many teeth", "43", "Enter")
        self.says(self.alert, "it must be 1/2: correct the tooth counts: count or measure again")
        self.type("n")
        self.says(self.part("Tape"), "not known")
        self.asked("Pump wheel: how many teeth")
        self.type("k")
        self.asked("Belt from the crank")

    def test_no_key_takes_a_mark_for_met_before_somebody_said_so(self):
        self.at("holm-d4", "gears-on")
        before = len(self.ledger.entries)
        self.type("Enter", "Enter")
        self.says(self.main, "Each has to be said.")
        self.assertEqual(len(self.ledger.entries), before)


class PictureTests(RunCase):
    """The engine as it stands, in the middle of the bench."""

    def test_the_part_in_question_is_blue_v_looks_from_elsewhere_and_a_part_says_what_it_is(self):
        self.at("quern-4", "crank-in")
        asked = self.page.locator("main [data-asked=true]")
        expect(asked).to_have_count(2)
        self.assertEqual({one.get_attribute("data-part") for one in asked.all()}, {"crank", "mains"})
        self.see(self.part("Seen from").get_by_role("button", name="side", exact=True, pressed=True))
        self.type("v")
        expect(self.page.locator("main svg title", has_text="The engine from above")).to_have_count(1)
        self.type("v", "v", "v", "v")  # the front, one cylinder, its rings, and round again
        self.page.get_by_role("button", name="Pistons: to come").focus()
        for key in ("Shift+Tab", "Tab"):  # by keys, as it is walked
            self.page.keyboard.press(key)
        self.see(self.part("Pistons").get_by_text("then: Pistons in, rod nuts finger tight"))
        self.page.get_by_role("button", name="Main caps and shells").first.click()
        self.see(self.part("Main caps and shells").get_by_text("Main bearing clearance: main 1 "))  # what they were measured at


class AwayTests(RunCase):
    def test_a_step_is_not_done_twice_and_what_surely_follows_is_asked(self):
        """Away, the screen goes one step ahead, as far as the server has said; then it waits, and nothing is answered a second time."""
        self.at("heath-4", "cam-wheel-on")
        self.asked("Cam wheel on, bolt in")
        self.context.set_offline(True)
        self.type("Enter")
        self.asked("Wrench on the cam's flats")
        self.type("Enter")
        self.reads("Wrench on the cam's flats: kept on this machine")
        self.type("Enter")
        expect(self.page.get_by_text("not yet sent; it goes out by itself")).to_have_count(2)
        self.context.set_offline(False)
        self.asked("Cam wheel bolt: ready to pull?")
        done = [entry.body.step for entry in self.ledger.entries if entry.body.kind == "step_done"]
        self.assertEqual(done[-2:], ["cam-wheel-on", "wrench-on"])
        self.assertEqual(len(done), len(set(done)))

    def test_the_figure_of_a_single_bolt_has_its_own_digits_and_the_keys_come_back_from_a_dialog(self):
        """Digits choose a wrench until the figure is being typed; a dialog that was open gives the keys back to it."""
        self.at("heath-4", "wrench-on")
        self.type("Enter")
        self.asked("Cam wheel bolt: ready to pull?")
        self.type("t", "x")
        self.type("4")
        self.page.keyboard.press("m")
        self.page.get_by_label("Note", exact=True).wait_for()
        self.type("Escape")
        self.page.get_by_role("dialog").wait_for(state="detached")
        self.type("1")
        expect(self.page.get_by_label("torque shown")).to_have_value("41")
