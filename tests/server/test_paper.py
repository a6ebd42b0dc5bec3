"""The record on paper says what was typed, whatever was typed, and asks nobody for anything."""

import re
import subprocess
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from shutil import which
from tempfile import TemporaryDirectory
from time import monotonic, sleep
from unittest import skipIf

from django.contrib.auth.models import User

from demo.documents import family_data
from engine.services import add_revision
from press.aside import Stopped, aside, how_far, stop
from press.layout import WhatShips
from press.ledger_rows import LedgerPages, LedgerRow
from press.pdf import PAPER, pdf_of
from tests.engines import family_with_run, lift
from tests.server.cases import ShopCase
from work.models import Engine
from work.record.drawing import FILLS, drawings_on_paper
from work.record.sheets import check_sheet_page
from work.record.turns import one_at_a_time, stop_printing
from work.services import put_on_stand

PATIENCE_S = 120
TYPED = 'kept {mm:.} & <b>bold</b> "}; * { display: none } \\ url(http://elsewhere.example/x) ' + "x" * 200


def _until(holds):
    ends = monotonic() + PATIENCE_S
    while not holds():
        assert monotonic() < ends, "it never came to that"
        sleep(0.02)


@skipIf(which("pdftotext") is None, "pdftotext is not on this machine")
class PaperTests(ShopCase):
    def printed(self):
        """The words on the paper, blanks and breaks taken out."""
        pdf = self.client.get("/api/engines/T-1/record.pdf")
        self.assertEqual((pdf.headers["Content-Type"], pdf.content[:4]), ("application/pdf", b"%PDF"))
        with TemporaryDirectory() as folder:
            file = Path(folder) / "record.pdf"
            file.write_bytes(pdf.content)
            text = subprocess.run(["pdftotext", "-raw", str(file), "-"], capture_output=True, text=True, check=True).stdout
        return re.sub(r"\s+", "", text)

    def test_readings_struck_ones_and_who(self):
        self.find_tdc()
        wrong = self.must(lift("intake", "opening", "72,5", "before TDC"))["tape"][0]["id"]
        self.must({"kind": "strike", "strikes": wrong, "reason": "=misread"})
        head = self.must(lift("intake", "opening", "16", "before TDC"))["engine"]["head"]
        text = self.printed()
        gauges = "W1 U = 0.35°, D2 U = 0.010 mm"
        said = ("T-1", "72,5° before TDC", "struck by Bo: =misread", "U = 0.25°", gauges, "15.8° before TDC", "not signed yet", head)
        for words in (*said, "Every entry fits its seal."):
            with self.subTest(words=words):
                self.assertIn(words.replace(" ", ""), text)

    def test_what_was_typed_is_printed_as_typed(self):
        self.must({"kind": "note", "text": TYPED})
        text = self.printed()
        self.assertIn(TYPED.replace(" ", ""), text)
        self.assertIn("Bo", text)

    def test_a_long_ledger_is_whole_on_numbered_pages_of_the_shops_sheet(self):
        """Every entry once, in order, however many pages it takes, and each page with its number of all."""
        for sheet, high in (("A4", "841.89"), ("Letter", "792")):
            typed = [*((n, f"word{n} " * 30) for n in range(1, 200)), (200, "word200\n" * 30)]
            typed[70] = (71, "word71\n" * 30 * 9)  # several pages of one entry
            rows = tuple(LedgerRow("1 May 2026", str(n), "12:00:00", "Note", said, "", "Bo") for n, said in typed)
            page = f"<style>@page {{ size: {sheet}; @bottom-right {{ content: 'page ' counter(page) }} }}</style><p>first"
            pdf = pdf_of(f"{page}</body>", ledger=LedgerPages(sheet, "Ledger", ("no.", "when", "entry", "value", "who"), rows))
            text = subprocess.run(["pdftotext", "-raw", "-", "-"], input=pdf, capture_output=True, check=True).stdout.decode()
            pages = text.split("\f")[:-1]
            for n, words in enumerate(pages, 1):
                self.assertIn(f"page {n}", words)
            self.assertEqual([word for word in text.split() if word.startswith("word")], " ".join(said for _, said in typed).split())
            about = subprocess.run(["pdfinfo", "-"], input=pdf, capture_output=True, check=True).stdout.decode()
            self.assertRegex(about, rf"Page size: .* x {high}")

    def test_a_person_has_one_record_printed_at_a_time(self):
        with one_at_a_time("bo", "T-1"):
            self.assertEqual(self.client.get("/api/printing").json(), {"serial": "T-1", "pages": 0})
            self.refused(self.client.get("/api/engines/T-1/record.pdf"), 409, "", "still being printed")
        self.printed()
        self.assertIsNone(self.client.get("/api/printing").json())

    def test_who_finds_the_press_taken_is_told_and_comes_again(self):
        self.sign_in("vi")
        with one_at_a_time("bo", "T-1"):
            self.refused(self.client.get("/api/engines/T-1/record.pdf"), 429, "", "Another record is at the press")
            self.assertIsNone(self.client.get("/api/printing").json())
        self.assertEqual(self.client.get("/api/engines/T-1/record.pdf").content[:4], b"%PDF")

    def test_a_stop_that_overtakes_what_it_stops_is_kept_for_it(self):
        self.assertEqual(self.client.delete("/api/printing?turn=a").status_code, 204)
        self.refused(self.client.get("/api/engines/T-1/record.pdf?turn=a"), 409, "", "stopped")
        self.assertEqual(self.client.get("/api/engines/T-1/record.pdf?turn=b").content[:4], b"%PDF")
        with one_at_a_time("bo", "T-1", "c"):
            self.client.delete("/api/printing?turn=b")
            self.refused(self.client.get("/api/engines/T-1/record.pdf?turn=d"), 409, "", "still being printed")

    def test_the_next_paper_comes_once_a_stopped_one_has_left_the_press(self):
        self.sign_in("vi")
        with one_at_a_time("vi", "T-1"):
            stop_printing("vi")
            self.refused(self.client.get("/api/engines/T-1/record.pdf"), 429, "", "at the press")
        self.assertEqual(self.client.get("/api/engines/T-1/record.pdf").content[:4], b"%PDF")

    def test_work_is_stopped_though_its_process_is_still_being_made(self):
        with ThreadPoolExecutor() as pool:
            early = pool.submit(aside, "a sort of its own", pow, 2, 10)
            stop("a sort of its own")
            with self.assertRaises(Stopped):
                early.result(timeout=PATIENCE_S)
        self.assertEqual(aside("a sort of its own", pow, 2, 10), 1024)

    def test_paper_tells_its_pages_and_can_be_stopped_in_the_middle(self):
        pdf_of("the press is warm")
        with ThreadPoolExecutor() as pool:
            long = pool.submit(pdf_of, "<p>line" * 20_000)
            _until(lambda: how_far(PAPER) > 2)
            stop(PAPER)
            with self.assertRaises(Stopped):
                long.result(timeout=PATIENCE_S)
        self.assertEqual(pdf_of("the next")[:4], b"%PDF")

    def test_the_engine_is_drawn_as_it_stands_and_each_stage_by_what_it_is_about(self):
        drawn = [str(one) for one in drawings_on_paper(family_with_run("quern-4"), {"crank": "in", "mains": "loose", "sump": "to come"})]
        self.assertEqual([one.count("<svg") for one in drawn], [1, 1])
        self.assertIn(FILLS["loose"], drawn[0])
        self.assertIn("stroke-dasharray", drawn[0])
        add_revision(family_data("quern-4"), by=None)
        put_on_stand(serial="R-1", family="quern-4", purpose="", stand=None, promised=None, by=User.objects.get(username="bo"))
        page = check_sheet_page(Engine.objects.at_the_bench().get(pk="R-1"))
        stages = re.findall(r"<h2>([^<]*)</h2><div class=.picture.><svg", page)
        self.assertEqual(stages, ["Receive and lay out", "Bottom end", "Camshaft in", "Cylinder head", "Close up", "Hand over"])

    def test_letters_the_fonts_do_not_have_are_named(self):
        self.must({"kind": "note", "text": "冷 shop"})
        self.assertIn("Letters this paper cannot show: U+51B7".replace(" ", ""), self.printed())

    def test_nothing_but_the_shipped_fonts_is_read(self):
        for address in ("http://elsewhere.example/x", "file:///etc/hostname", "data:text/css,x"):
            with self.subTest(address=address), self.assertRaisesRegex(ValueError, "nothing is fetched"):
                WhatShips(Path("/nowhere")).fetch(address)
