"""Two people, two tabs, two persons at one browser, and a page loaded while the server is away."""

import uuid

from django.contrib.auth.models import User
from playwright.sync_api import expect

from tests.browser.test_nothing_is_lost import BenchReadyCase
from tests.engines import lift
from tests.server.cases import PASSWORD
from work import bridge, services
from work.models import Entry

NOT_SENT = "not yet sent; it goes out by itself"


class TogetherTests(BenchReadyCase):
    def record_as(self, name, body):
        """Somebody else makes an entry elsewhere."""
        body = bridge.HOUSE.bodies.validate_python(body)
        services.record("T-1", entry_id=uuid.uuid4(), body=body, by=User.objects.get(username=name))

    def test_anothers_entry_is_seen_on_bench_and_floor_without_asking(self):
        self.asked("intake valve pass 1.00 mm, opening")
        self.record_as("lena", lift("intake", "opening", "16", "before TDC"))
        expect(self.page.locator("h1")).to_contain_text("closing")
        self.page.goto("/")
        self.says(self.page.get_by_role("link", name="T-1"), "intake, closing side")
        self.record_as("lena", lift("intake", "closing", "51.5", "after BDC"))
        expect(self.page.get_by_role("link", name="T-1")).to_contain_text("exhaust, opening side")

    def test_what_waits_in_one_tab_is_sent_once_by_whichever_tab_is_first(self):
        other = self.context.new_page()
        other.goto("/bench/T-1")
        self.says(other.locator("h1"), "opening")
        self.context.set_offline(True)
        self.answer("intake valve pass 1.00 mm, opening", "16", "Enter")
        expect(self.page.get_by_text(NOT_SENT)).to_have_count(1)
        expect(other.get_by_text(NOT_SENT)).to_have_count(1)  # the other tab shows it too
        self.context.set_offline(False)
        expect(other.get_by_text(NOT_SENT)).to_have_count(0)
        expect(self.page.get_by_text(NOT_SENT)).to_have_count(0)
        self.assertEqual(Entry.objects.filter(kind="lift_reading").count(), 1)

    def test_what_one_person_typed_waits_for_him_when_another_signs_in(self):
        self.asked("intake valve pass 1.00 mm, opening")
        self.context.clear_cookies(name="sessionid")
        self.type("16", "Enter")
        self.page.get_by_label("Name").wait_for()
        self.type("lena", "Tab", PASSWORD, "Enter")
        expect(self.page.get_by_text(NOT_SENT)).to_have_count(1)  # shown, since it was typed at this bench
        self.page.wait_for_timeout(4_000)  # a sender would have tried by now
        self.assertEqual(Entry.objects.filter(kind="lift_reading").count(), 0)
        self.context.clear_cookies(name="sessionid")
        self.at_the_bench(name="bo")
        expect(self.page.get_by_text(NOT_SENT)).to_have_count(0)
        self.asked("intake valve pass 1.00 mm, closing")
        self.assertEqual(Entry.objects.get(kind="lift_reading").by.username, "bo")

    def test_a_damaged_storage_never_blanks_the_page(self):
        """An outbox and a draft of earlier days that are no JSON, and one that is."""
        self.page.evaluate("""() => {
            localStorage.setItem('gurvo.draft.T-1.lift:cam:intake:1:opening', '{broken');
            localStorage.setItem('gurvo.outbox', '[{"id": 3}, "x"');
        }""")
        self.page.reload()
        self.answer("intake valve pass 1.00 mm, opening", "16", "Enter")
        self.asked("closing")

    def test_entries_of_the_first_outbox_are_taken_over_and_sent(self):
        wheel = {"text": "16", "side": "before TDC"}
        entry = {**lift("intake", "opening", "16", "before TDC"), "wheel": wheel, "turned": "running way"}
        item = {"id": str(uuid.uuid4()), "serial": "T-1", "by": "bo", "at": "2026-11-24T10:00:00Z", "question": "q", "title": "t"}
        self.page.goto("/mark.svg")  # a page of ours without the app, so that the database is not open yet
        self.page.evaluate("async () => indexedDB.deleteDatabase('gurvo')")
        self.page.evaluate(
            "(item) => localStorage.setItem('gurvo.outbox', JSON.stringify([item]))", {**item, "value": "16", "entry": entry}
        )
        self.bench()
        self.asked("intake valve pass 1.00 mm, closing")
        self.assertEqual(Entry.objects.get(kind="lift_reading").body["approach"], "running way")


class AwayTests(BenchReadyCase):
    def open(self, viewport=None, **how):
        super().open(**({"viewport": viewport} if viewport else {}), **{"service_workers": "allow", **how})

    def test_the_page_loads_while_the_server_is_away_and_nothing_is_lost(self):
        self.page.evaluate("() => navigator.serviceWorker.ready.then(() => true)")
        self.context.set_offline(True)
        self.answer("intake valve pass 1.00 mm, opening", "16", "Enter")
        expect(self.page.get_by_text(NOT_SENT)).to_have_count(1)
        self.page.reload()
        self.answer("intake valve pass 1.00 mm, closing", "51.5", "Enter")  # it goes on as it stood when the page went
        expect(self.page.get_by_text(NOT_SENT)).to_have_count(2)
        self.context.set_offline(False)
        expect(self.page.get_by_text(NOT_SENT)).to_have_count(0)
        self.asked("exhaust valve pass 1.00 mm, opening")
        self.assertEqual(Entry.objects.filter(kind="lift_reading").count(), 2)

    def test_a_new_tab_while_the_server_is_away_shows_nothing_of_the_shop(self):
        self.page.evaluate("() => navigator.serviceWorker.ready.then(() => true)")
        self.context.set_offline(True)
        self.answer("intake valve pass 1.00 mm, opening", "16", "Enter")
        other = self.context.new_page()
        other.goto(self.page.url)
        expect(other.get_by_text("1 entry is kept on this machine")).to_be_visible()
        other.close()
        self.context.set_offline(False)
        self.asked("intake valve pass 1.00 mm, closing")
        self.says(self.tape.first, "Intake opens, 1.00 mm")  # as the ledger has it
        self.assertEqual(Entry.objects.filter(kind="lift_reading").count(), 1)
