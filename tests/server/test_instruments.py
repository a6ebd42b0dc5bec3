"""Instruments over the line: the simulated ones, one that lies, one that falls silent; traces from files in pieces."""

import json
import os
import socket
import threading
from itertools import islice
from time import monotonic, sleep
from unittest import mock

from django.contrib.auth.models import User

from instruments import traces
from instruments.reader import Reader
from shop.models import Gauge, Shop
from shop.people import change_person
from standins.serve import serve
from tests.core.test_trace import pulled
from tests.server.cases import JSON, ShopCase
from tools.real_server import free_port


def speaks(*lines, pause=0.01):
    """The address of something that answers with these lines, the first two as they are asked for, and then says nothing."""
    door = socket.create_server(("127.0.0.1", 0))

    def talk():
        other, _ = door.accept()
        try:
            for n, line in enumerate(lines):
                if n < 2:
                    other.recv(100)
                other.sendall(f"{line}\n".encode())
                sleep(pause)
            sleep(4)
        except OSError:
            return

    threading.Thread(target=talk, daemon=True).start()
    return f"socket://127.0.0.1:{door.getsockname()[1]}"


def heard(address, unit="N·m", *, until, seconds=120):
    """The first reading that something holds of."""
    end = monotonic() + seconds
    for reading in Reader(address, unit, 0.1).listen():
        if until(reading):
            return reading
        if monotonic() > end:
            return None
    return None


class InstrumentTests(ShopCase):
    def setUp(self):
        super().setUp()
        base, self.servers = serve()
        self.enterContext(mock.patch.dict(os.environ, {"GURVO_STANDINS": str(base)}))
        for code, kind, name, resolution in (("E1", "wrench", "wrench", 0.1), ("D3", "dial", "dial", 0.001)):
            Gauge.objects.create(code=code, kind=kind, resolution=resolution, expanded_uncertainty=0.1, address=f"standin:{name}")

    def tearDown(self):
        for server in self.servers:
            server.shutdown()
            server.server_close()

    def test_a_pull_is_read_from_the_wrench_with_its_trace(self):
        answer = self.client.get("/api/instruments/E1/live")
        self.assertEqual(answer["Content-Type"], "text/event-stream")
        events, pull = iter(answer.streaming_content), None
        for n, event in enumerate(islice(events, 1200)):
            if n == 5:
                told = self.client.post("/api/instruments/E1/target", {"torque_nm": 40}, content_type=JSON)
                self.assertEqual(told.status_code, 204)
            pull = json.loads(event.decode().removeprefix("data: ")).get("pull")
            if pull:
                break
        self.assertAlmostEqual(float(pull["torque"]), 40, delta=1.5)
        self.assertGreater(pull["trace"]["points"], 60)
        self.assertEqual(pull["flags"], [])

    def test_one_without_a_port_and_one_that_nobody_has(self):
        self.assertIn("has no port", self.client.get("/api/instruments/T2/live").json()["sentence"])
        self.assertEqual(self.client.get("/api/instruments/NONE/live").status_code, 404)
        self.assertEqual(self.client.post("/api/instruments/D3/zero").status_code, 409)

    def test_a_viewer_looks_and_does_nothing_to_what_others_need(self):
        self.sign_in("vi")
        for ask in (
            lambda: self.client.get("/api/instruments/E1/live"),
            lambda: self.client.post("/api/instruments/E1/target", {"torque_nm": 400}, content_type=JSON),
            lambda: self.client.post("/api/instruments/D3/zero"),
            lambda: self.client.post("/api/traces", {"unit": "N·m"}, content_type=JSON),
        ):
            self.refused(ask(), 403, "", "Only who works here uses the instruments")

    def test_a_stream_ends_with_its_session(self):
        Gauge.objects.create(code="N3", kind="encoder", resolution=0.1, expanded_uncertainty=0.1, address="standin:encoder")
        for end in (lambda: self.client.delete("/api/session"), lambda: change_person(User.objects.get(username="bo"), has_left=True)):
            events = iter(self.client.get("/api/instruments/N3/live").streaming_content)
            next(events)
            with mock.patch("instruments.api.ASKS_EVERY_S", 0.0):
                next(events)
                end()
                self.assertEqual(list(islice(events, 3))[1:], [])
            self.sign_in("lena")
            change_person(User.objects.get(username="bo"), has_left=False)
            self.sign_in("bo")

    def test_an_address_is_a_device_of_this_machine_or_a_host_the_lead_allowed(self):
        Shop.objects.update(instrument_hosts="bench-2.local, 10.0.0.7, 169.254.1.1")
        self.sign_in("lena")
        gauge = {"name": "x", "kind": "dial", "resolution": 0.01, "expanded_uncertainty": 0.01}
        said = {
            "/dev/ttyUSB0": "",
            "socket://10.0.0.7:4000": "",
            "rfc2217://bench-2.local:7000": "",
            "/dev/../etc/passwd": "has no “..”",
            "socket://10.0.0.8:4000": "not among the hosts",
            "socket://127.0.0.1:8701": "not among the hosts",
            "socket://169.254.1.1:80": "nothing is opened there",
            "socket://0.0.0.0:80": "nothing is opened there",
            "standin:lathe": "no simulated instrument",
        }
        for address, words in said.items():
            with self.subTest(address=address):
                answer = self.client.put("/api/gauges/X1", {**gauge, "address": address}, content_type=JSON)
                self.assertEqual(answer.status_code, 422 if words else 200, answer.content)
                self.assertIn(words, answer.json()["sentence"] if words else "")
        Gauge.objects.filter(code="D3").update(address="socket://127.0.0.1:8701")  # one that was entered before there were such rules
        self.refused(self.client.get("/api/instruments/D3/live"), 422, "code", "not among the hosts")

    def test_the_line_protocol(self):
        """The commands of docs/formats/instruments.md, one answer a line."""
        port = self.servers[1].server_address[1]
        with socket.create_connection(("127.0.0.1", port)) as line, line.makefile("rw") as text:
            said = []
            for command in ("*IDN?", "UNIT?", "ZERO", "READ?", "WHISTLE", "STREAM fast"):
                text.write(f"{command}\n")
                text.flush()
                said.append(text.readline().strip())
        self.assertEqual([*said[:3], said[4][:4], said[5][:4]], ["GURVO,STANDIN,dial,1", "mm", "OK", "ERR ", "ERR "])
        self.assertLess(abs(float(said[3])), 0.01)


class TroubleTests(ShopCase):
    def test_a_wrong_unit_nonsense_silence_and_nobody_are_said(self):
        for words, address in (
            ("speaks in deg", speaks("deg")),
            ("speaks in something else", speaks("root:x:0:0:")),
            ("no reading", speaks("N.m", "OK", *["R nonsense"] * 70, pause=0.001)),
            ("broke off", speaks("N.m", "OK", "R 1.0,0.0")),
            ("does not answer", f"socket://127.0.0.1:{free_port()}"),
        ):
            with self.subTest(words=words):
                reading = heard(address, until=lambda one: one.trouble)
                self.assertIn(words, reading.trouble)
                self.assertIn("type the figure", reading.trouble)

    def test_a_figure_that_no_gauge_shows_is_left_out(self):
        reading = heard(speaks("N.m", "OK", "R nan,1", "R 9e99,1", "R 12.5,30"), until=lambda one: one.value is not None)
        self.assertEqual((reading.value, reading.angle_deg), (12.5, 30.0))


class TraceFileTests(ShopCase):
    def setUp(self):
        super().setUp()
        traces._coming.clear()  # what other tests have left half-way

    def text(self, rows=4000):
        trace = pulled("bottoming", points=rows)
        return "angle;torque Nm\n" + "\n".join(f"{a:.3f};{t:.3f}" for a, t in zip(trace.angle_deg, trace.torque_nm, strict=True))

    def begin(self):
        return self.client.post("/api/traces", {"unit": "N·m"}, content_type=JSON).json()["id"]

    def piece(self, name, text, *, is_last=False):
        return self.client.put(f"/api/traces/{name}", {"text": text, "is_last": is_last}, content_type=JSON)

    def test_a_file_in_pieces_becomes_a_trace_with_what_it_says(self):
        text, name = self.text(), self.begin()
        half = len(text) // 2
        self.assertGreater(self.piece(name, text[:half]).json()["rows"], 1000)
        read = self.piece(name, text[half:], is_last=True).json()["read"]
        self.assertEqual(read["rows"], 4000)
        self.assertIn("angle from “angle”", read["columns"])
        self.assertIn("bottoming", " ".join(read["flags"]))
        self.assertEqual(self.piece(name, text).status_code, 404)

    def test_what_is_no_trace_is_refused_and_forgotten(self):
        for text, words in (("a;b\n1;2\n", "which column"), ("", "empty"), ("x" * 5000, "two columns")):
            name = self.begin()
            with self.subTest(words=words):
                answer = self.piece(name, text, is_last=True)
                self.assertEqual(answer.status_code, 422)
                self.assertIn(words, answer.json()["sentence"].lower())
                self.assertEqual(self.piece(name, text).status_code, 404)

    def test_anothers_file_is_nobodys_and_a_stopped_one_is_gone(self):
        name = self.begin()
        self.sign_in("lena")
        self.assertEqual(self.piece(name, self.text()).status_code, 404)
        self.client.delete(f"/api/traces/{name}")
        self.sign_in("bo")
        self.assertEqual(self.piece(name, self.text()).status_code, 200)
        self.assertEqual(self.client.delete(f"/api/traces/{name}").status_code, 204)
        self.assertEqual(self.piece(name, self.text()).status_code, 404)

    def test_of_ones_own_the_oldest_is_forgotten_and_of_others_what_was_left(self):
        """Whoever leaves a file half-way takes nobody's place for ever, and whoever begins many takes nobody's at all."""
        first = self.begin()
        self.sign_in("lena")
        own = [self.begin() for _ in range(traces.MOST_AT_ONCE + 4)]
        self.assertEqual(self.piece(own[0], self.text()).status_code, 404)
        self.assertEqual(self.piece(own[-1], self.text(), is_last=True).json()["read"]["rows"], 4000)
        self.sign_in("bo")
        self.assertEqual(self.piece(first, self.text()).status_code, 200)
        with mock.patch.object(traces, "MOST_AT_ONCE", 2):
            self.sign_in("lena")
            self.refused(self.client.post("/api/traces", {"unit": "N·m"}, content_type=JSON), 409, "", "Too many files")
            with mock.patch.object(traces, "LEFT_AFTER_S", -1.0):
                self.assertEqual(self.piece(self.begin(), self.text()).status_code, 200)

    def test_two_million_rows_stay_within_bounds(self):
        """Held at once: no more than a few pieces, whatever comes; the peak is kept."""
        from gurvo_core.joints.intake import HELD_POINTS, TraceIntake

        intake = TraceIntake(delimiter=";", angle=0, torque=1, has_names=False)
        for piece in range(40):
            begin = piece * 50_000
            lines = [f"{(begin + n) * 1e-4:.4f};{50 + (begin + n) % 7}" for n in range(50_000)]
            lines[777] = lines[777].split(";")[0] + (";99" if piece == 23 else ";50")
            intake.feed("\n".join(lines) + "\n", is_last=piece == 39)
            self.assertLess(sum(map(len, intake._held)), HELD_POINTS + 5_000)
        trace, gaps = intake.trace()
        self.assertEqual((intake.rows, trace.torque_nm.max(), gaps), (2_000_000, 99.0, []))
