"""Nothing typed is ever lost: not by a refusal, a reload, a dropped connection or a killed server."""

import uuid
from unittest.mock import patch

from django.contrib.auth.models import User
from django.db import OperationalError
from playwright.sync_api import expect

from gurvo_core.errors import AskFirst
from gurvo_core.work import House
from tests.browser.case import BrowserCase
from tests.engines import SETUP, STOP_IN, STOP_OUT, stop
from work import bridge, services
from work.models import Entry


class BenchReadyCase(BrowserCase):
    """An engine whose true TDC has been found, opened by the builder."""

    def setUp(self):
        super().setUp()
        for body in (SETUP, STOP_IN, stop("before", "41.5")):
            self.record(body)
        zero = self.record(stop("after", "41"))["timing"].tdc.zero_deg
        self.record({"kind": "wheel_zero", "method": "positive_stop", "zero_deg": zero})
        self.record(STOP_OUT)
        self.at_the_bench()

    def record(self, body):
        by = User.objects.get(username="bo")
        body = bridge.HOUSE.bodies.validate_python(body)
        ledger = services.record("T-1", entry_id=uuid.uuid4(), body=body, by=by).ledger
        return vars(bridge.HOUSE.show(ledger.folded))


class NothingIsLostTests(BenchReadyCase):
    def test_a_refusal_keeps_what_was_typed_and_says_why(self):
        self.answer("intake valve pass 1.00 mm, opening", "95", "Enter")
        expect(self.alert).to_have_text("A 0-90-0-90-0 wheel has no 95°; it reads from 0 to 90.")
        figure = self.page.get_by_label("Wheel reads")
        expect(figure).to_have_value("95")
        expect(figure).to_be_focused()
        self.type("Backspace", "Backspace", "16", "Enter")
        self.asked("closing")

    def test_what_is_objected_to_is_recorded_with_a_reason_or_not_at_all(self):
        """No rule of today's rooms has a way out for a reading: one objection is put in their place."""

        def objects(_house, _folded, body, _more, *, because="", is_lead=False):
            if body.kind == "lift_reading" and not because:
                raise AskFirst("wheel", "this is far from the card", "reason")

        with patch.object(House, "check", objects):
            self.answer("intake valve pass 1.00 mm, opening", "16", "Enter")
            self.says(self.alert, "This is far from the card")
            reason = self.page.get_by_label("Reason")
            reason.press("Enter")
            self.assertEqual(Entry.objects.filter(kind="lift_reading").count(), 0)
            reason.fill("the card is of another cam")
            reason.press("Enter")
            self.asked("intake valve pass 1.00 mm, closing")
        self.says(self.tape.first, "the card is of another cam")
        self.assertEqual(Entry.objects.get(kind="lift_reading").because, "the card is of another cam")

    def test_a_full_storage_is_said_and_what_is_typed_still_goes_out(self):
        """A quota that is used up: the browser throws when a row is put."""
        self.page.add_init_script("""
            IDBObjectStore.prototype.put = () => { throw new DOMException('the disk is full', 'QuotaExceededError'); };
            Storage.prototype.setItem = () => { throw new DOMException('the disk is full', 'QuotaExceededError'); };
        """)
        self.page.reload()
        self.asked("intake valve pass 1.00 mm, opening")
        self.context.set_offline(True)
        self.type("16", "Enter")
        self.reads("This browser keeps nothing (the disk is full)")
        self.says(self.tape.first, "not yet sent")
        self.context.set_offline(False)
        expect(self.page.get_by_text("not yet sent; it goes out by itself")).to_have_count(0)
        self.assertEqual(Entry.objects.filter(kind="lift_reading").count(), 1)

    def test_a_full_disk_of_the_server_is_said_and_what_waits_goes_out_when_there_is_room(self):
        with patch.object(services, "record", side_effect=OperationalError("database or disk is full")):
            self.answer("intake valve pass 1.00 mm, opening", "16", "Enter")
            self.asked("intake valve pass 1.00 mm, closing")
            self.answer("closing", "51.5", "Enter")
            self.reads("The disk of Gurvo's machine is full: nothing was taken, nothing is lost.")
            expect(self.page.get_by_text("not yet sent; it goes out by itself")).to_have_count(2)
        self.asked("exhaust valve pass 1.00 mm, opening")
        expect(self.page.get_by_text("The disk of Gurvo's machine is full")).to_have_count(0)
        expect(self.page.get_by_text("not yet sent; it goes out by itself")).to_have_count(0)  # the second follows the first
        self.assertEqual(Entry.objects.filter(kind="lift_reading").count(), 2)

    def test_what_is_being_typed_survives_a_reload(self):
        self.answer("intake valve pass 1.00 mm, opening", "1", "a", "7.5")
        self.page.reload()
        expect(self.page.get_by_label("Wheel reads")).to_have_value("17.5")
        expect(self.page.get_by_role("button", name="after TDC", exact=True)).to_have_attribute("aria-pressed", "true")

    def test_a_reading_sent_while_the_server_is_away_goes_out_later_once(self):
        self.context.set_offline(True)
        self.answer("intake valve pass 1.00 mm, opening", "16", "Enter")
        self.asked("intake valve pass 1.00 mm, closing")
        self.says(self.tape.first, "not yet sent")
        self.answer("closing", "51.5", "Enter")
        expect(self.page.get_by_text("not yet sent; it goes out by itself")).to_have_count(2)
        self.assertEqual(Entry.objects.filter(kind="lift_reading").count(), 0)
        self.context.set_offline(False)
        expect(self.page.get_by_text("not yet sent; it goes out by itself")).to_have_count(0)
        self.asked("exhaust valve pass 1.00 mm, opening")
        kept = Entry.objects.filter(kind="lift_reading").order_by("seq")
        self.assertEqual([entry.body["flank"] for entry in kept], ["opening", "closing"])

    def test_an_answer_that_got_lost_does_not_store_it_twice(self):
        """The server took it, the answer never came, the page is loaded anew."""
        lost = []

        def lose_the_first_answer(route):
            if lost:
                return route.continue_()
            lost.append(route.fetch())
            return route.abort()

        self.page.route("**/entries", lose_the_first_answer)
        self.answer("intake valve pass 1.00 mm, opening", "16", "Enter")
        self.says(self.tape.first, "not yet sent")
        self.page.reload()
        expect(self.page.get_by_text("not yet sent; it goes out by itself")).to_have_count(0)
        self.asked("intake valve pass 1.00 mm, closing")
        self.assertEqual((len(lost), Entry.objects.filter(kind="lift_reading").count()), (1, 1))

    def test_what_waited_and_is_refused_later_stays_on_the_tape_with_the_reason(self):
        self.context.set_offline(True)
        self.answer("intake valve pass 1.00 mm, opening", "95", "Enter")
        self.says(self.tape.first, "not yet sent")
        self.asked("closing")
        self.context.set_offline(False)
        self.says(self.tape.first, "has no 95°")
        self.page.get_by_role("button", name="take off").click()
        expect(self.page.get_by_text("has no 95°")).to_have_count(0)

    def test_a_session_that_ended_asks_to_sign_in_and_then_sends(self):
        self.asked("intake valve pass 1.00 mm, opening")
        self.context.clear_cookies(name="sessionid")
        self.type("16", "Enter")
        self.page.get_by_label("Name").wait_for()
        self.type("bo", "Tab", "a-long-enough-word", "Enter")
        self.asked("intake valve pass 1.00 mm, closing")
        expect(self.page.get_by_text("not yet sent; it goes out by itself")).to_have_count(0)
        self.assertEqual(Entry.objects.filter(kind="lift_reading").count(), 1)


class StrikeAndNoteTests(BenchReadyCase):
    def test_the_last_reading_is_struck_with_a_reason_by_keys(self):
        self.answer("intake valve pass 1.00 mm, opening", "72.5", "Enter")
        self.asked("closing")
        self.type("u")
        self.page.get_by_label("Why?").wait_for()
        self.type("1", "Enter")
        self.asked("intake valve pass 1.00 mm, opening")
        struck = self.page.locator('[data-struck="true"]')
        self.says(struck, "72.5° before TDC")
        self.says(struck, "struck by Bo: misread the wheel")

    def test_a_strike_without_a_reason_is_refused(self):
        self.asked("intake valve pass 1.00 mm, opening")
        self.type("u")
        self.page.get_by_label("Why?").wait_for()
        self.type("Enter")
        self.reads("Say why it is struck, in a word or two.")
        self.type("Escape")
        self.assertFalse(Entry.objects.filter(kind="strike").exists())

    def test_a_note_survives_a_reload_and_is_recorded(self):
        self.asked("intake valve pass 1.00 mm, opening")
        self.type("m")
        self.page.get_by_label("Note", exact=True).fill("oil on the lobes")
        self.page.reload()
        self.asked("intake valve pass 1.00 mm, opening")
        self.type("m")
        expect(self.page.get_by_label("Note", exact=True)).to_have_value("oil on the lobes")
        self.page.get_by_role("button", name="Record the note").click()
        self.says(self.tape.first, "oil on the lobes")
