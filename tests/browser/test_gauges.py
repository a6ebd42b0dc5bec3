"""Gauges, workings and traces from files through the real interface."""

import re
import tempfile
from pathlib import Path

from playwright.sync_api import Route, expect

from shop.models import Gauge, GaugeUse
from tests.browser.case import PHONE, BrowserCase
from tests.browser.test_joints import JointCase
from tests.core.test_span import as_wav, plucked
from tests.core.test_trace import pulled

NOBODY_ALLOWS_IT = "() => { navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError')) }"


class GaugeTests(BrowserCase):
    def test_the_lead_adds_a_wrench_and_is_told_what_is_wrong_beside_the_field(self):
        self.sign_in("lena", "/gauges")
        self.page.get_by_role("button", name="Add a gauge").click()
        form = self.page.get_by_role("dialog")
        for label, text in (
            ("Code", "T7"),
            ("Name", "long wrench"),
            ("Reads to", "1"),
            ("Uncertainty U", "4"),
            ("Range from", "300"),
            ("Range to", "200"),
        ):
            form.get_by_label(label).fill(text)
        form.get_by_role("button", name="Keep it").click()
        self.says(form.get_by_role("alert"), "A range goes from less to more")
        form.get_by_label("Range from").fill("40")
        form.get_by_role("button", name="Keep it").click()
        expect(form).to_have_count(0)
        self.see(self.page.get_by_role("button", name="T7 long wrench"))
        self.assertEqual(Gauge.objects.get(pk="T7").least, 40)

    def test_a_check_of_the_day_and_what_it_was_used_on(self):
        from django.utils import timezone

        GaugeUse.objects.create(gauge_id="T2", serial="T-1", seq=4, kind="pull", at=timezone.now(), by_name="Bo")
        self.sign_in(path="/gauges")
        self.page.get_by_role("button", name="T2 wrench").click()
        self.reads("Used on 1 engines")
        self.reads("T-1 #4, pull")
        self.page.get_by_label("That showed").fill("20")
        self.page.get_by_label("This showed").fill("20,5")
        self.page.get_by_role("button", name="Record the check").click()
        self.reads("20.5 against 20 N·m")
        expect(self.page.get_by_role("button", name="Add a gauge")).to_have_count(0)

    def test_on_a_phone_the_table_scrolls_and_the_page_does_not(self):
        self.open(PHONE)
        self.sign_in()
        for path in ("/gauges", "/workings"):
            self.page.goto(path)
            self.see(self.page.locator("h1"))
            with self.subTest(path=path):
                self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), PHONE["width"])


class WorkingsTests(BrowserCase):
    def test_a_span_is_worked_out_from_a_recording_of_it(self):
        self.sign_in("vi", "/workings")
        self.page.get_by_label("Free span of the belt, mm").fill("200")
        self.page.get_by_label("Mass of the belt, g a metre").fill("100")
        recording = {"name": "span.wav", "mimeType": "audio/wav", "buffer": as_wav(plucked(158.11))}
        drive = self.page.get_by_label("Belt and chain", exact=True)
        drive.locator("input[type=file]").set_input_files(recording)
        self.says(drive.get_by_role("status"), "It sounds at 158")
        table = self.page.get_by_label("What can be said of span and chain")
        self.says(table, "Its tension")
        self.says(table, re.compile(r"(39\d|40\d) N"))
        drive.locator("input[type=file]").set_input_files({**recording, "buffer": b"not a sound"})
        self.says(drive.get_by_role("status"), "no WAV file")
        self.page.get_by_label("Chain pulled straight, mm").fill("100")
        self.page.get_by_label("Over so many links").fill("16")
        self.page.get_by_label("Pitch when new, mm").fill("9.525")
        self.says(drive.get_by_role("alert"), "count the links again")

    def test_a_span_is_listened_to_where_it_is_allowed(self):
        """The browser's own stand-in for a microphone beeps: what it sends is a recording, whatever is heard in it."""
        self.sign_in("vi", "/workings")
        drive = self.page.get_by_label("Belt and chain", exact=True)
        self.says(self.page.get_by_label("What can be said of it"), "kN")  # the page has come to rest
        self.page.evaluate(NOBODY_ALLOWS_IT)
        drive.get_by_role("button", name="Listen to it now").click()
        self.says(drive.get_by_role("status"), "nobody allowed it")
        self.page.evaluate("delete navigator.mediaDevices.getUserMedia")  # as the browser has it again
        drive.get_by_role("button", name="Listen to it now").click()
        expect(drive.get_by_role("status")).to_have_text("Pluck the span now.")
        expect(drive.get_by_role("status")).not_to_have_text("Pluck the span now.")
        said = drive.get_by_role("status").inner_text()
        self.assertRegex(said, r"It sounds at \d|told|one pitch|quiet|loud", "heard, whether or not it is a span")

    def test_one_bolt_is_worked_out_while_it_is_typed_and_a_wrong_thread_is_said(self):
        self.sign_in("vi")
        self.page.get_by_role("link", name="Workings").click()
        table = self.page.get_by_label("What can be said of it")
        self.says(table, "21.3 to 38.3 kN")
        self.page.get_by_label("Grip, mm").fill("50")
        self.page.get_by_label("Angle after snug").fill("90")
        self.says(table, "Preload added by 90°")
        self.page.get_by_label("Thread, such as").fill("M13")
        self.says(self.alert.first, "coarse pitch of M13 is not known")
        self.page.get_by_label("Thread, such as").fill("3/8-16")
        self.says(table, "ASME B1.1")


class TraceTests(JointCase):
    def file(self, text):
        path = Path(tempfile.mkdtemp()) / "pull.csv"
        path.write_text(text, "utf-8")
        return path

    def test_a_trace_from_a_file_fills_the_pull_and_is_drawn_with_it(self):
        self.at_the_head()
        self.ready()
        self.asked("bolt 1")
        self.type("j")
        chooser = self.page.locator("input[type=file]")
        chooser.set_input_files(self.file("a;b\n1;2\n3;4\n"))
        self.says(self.alert, "hich column is the angle")
        trace = pulled("bottoming", to_nm=60)
        rows = "\n".join(f"{a:.2f};{t:.2f}" for a, t in zip(trace.angle_deg, trace.torque_nm, strict=True))
        chooser.set_input_files(self.file(f"angle deg;torque Nm\n{rows}"))
        self.reads("400 rows, angle from “angle deg”")
        self.reads("With its trace, 400 readings")
        self.page.locator("h1").click()
        self.answered_late(lambda: self.type("Enter"))
        self.asked("bolt 2")
        self.says(self.page.get_by_label("Traces", exact=True), "bolt 1: turns suddenly much harder")

    def answered_late(self, enter):
        """Enter something whose answer comes only when the bench has been looked at and its traces are on their way."""
        held: dict[str, list[Route]] = {"entries": [], "traces": []}

        def hold(route: Route) -> None:
            held[route.request.url.rpartition("/")[2]].append(route)

        self.page.route("**/entries", hold)
        self.page.route("**/traces", hold)
        enter()
        self._until(lambda: held["entries"], bool, "nothing was entered, but")
        answer = held["entries"][0].fetch()
        self._until(lambda: held["traces"], bool, "the traces were not asked for, but")
        held["entries"][0].fulfill(response=answer)
        self.asked("bolt 2")
        for route in held["traces"]:
            route.continue_()
        self.page.unroute_all()
