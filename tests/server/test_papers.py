"""Every paper of an engine: what stands on it, on the shop's own sheet, and that its pages look as they did when somebody last looked.

The pictures beside this are of pages as they were looked at, small and grey. After a change that is meant:
``GURVO_KEEP_PAPERS=1 ./gurvo test tests.server.test_papers``, and look at every one of them.
"""

import os
import re
import subprocess
import tempfile
import zipfile
from io import BytesIO
from pathlib import Path
from unittest.mock import patch

import numpy as np
from django.contrib.auth.models import User
from django.utils import timezone
from PIL import Image

from demo.documents import family_data
from engine.services import add_revision
from tests.server.cases import JSON, ShopCase
from tests.server.played import play_until
from work.models import Engine
from work.record.first_page import first_page
from work.record.sheets import check_sheet_page
from work.services import put_on_stand

LOOKED_AT = Path(__file__).parent / "data" / "papers"
DPI = 26
MOST_APART = 0.025  # share of dots that may differ plainly: days, seals and square codes do
PAPERS = ("record", "run", "first-start", "stand-card", "parts-tags", "labels")
A4, LETTER = (595, 842), (612, 792)


class PapersTests(ShopCase):
    """One engine, half built, and its papers."""

    @classmethod
    def setUpTestData(cls):
        super().setUpTestData()
        add_revision(family_data("teasel-4"), by=None)
        put_on_stand(serial="V-1", family="teasel-4", purpose="tractor", stand=7, promised=None, by=User.objects.get(username="bo"))
        play_until("V-1", "belt-on")

    def setUp(self):
        super().setUp()
        self.must({"kind": "for_whom", "customer": "the growers", "job": "26-1", "complaint": "smokes"}, serial="V-1")

    def paper(self, name):
        answer = self.client.get(f"/api/engines/V-1/{name}.pdf")
        self.assertEqual(answer.status_code, 200, answer.content)
        return answer.content

    def test_pages_look_as_they_were_looked_at(self):
        for name in PAPERS:
            with self.subTest(name):
                now, file = drawn(self.paper(name)), LOOKED_AT / f"{name}.png"
                if os.environ.get("GURVO_KEEP_PAPERS"):
                    now.save(file, optimize=True)
                before = Image.open(file).convert("L")
                self.assertEqual(now.size, before.size, "another number of pages, or another sheet")
                apart = np.abs(np.asarray(now, dtype=int) - np.asarray(before, dtype=int)) > 96
                self.assertLess(apart.mean(), MOST_APART)

    def test_the_first_page_is_whole_however_long_a_figure_is(self):
        """A joint of many stages is told on the first page, beside everything else of it, and no letter stands by itself."""
        words = text_of(self.paper("record"), "-l", "1")
        for said in ("V-1", "for the growers", "Before it runs", "head of the record"):
            self.assertIn(said, words)
        alone = [line for line in words.splitlines() if len(line.strip()) == 1 and line.strip().isalpha()]
        self.assertEqual(alone, [])

    def test_the_first_page_is_one_page_however_much_there_is_to_say(self):
        """Set closer until it fits; where nothing fits it goes on, and no page is left blank."""

        def with_more(count):
            accepted = {"words": "Cam wheel bolt", "why": "the wrench is out", "by": "Bo", "at": timezone.now()}
            return lambda *given: first_page(*given) | {"accepted": [accepted] * count}

        for count, follows in ((2, "V-1, in full"), (12, "V-1, in full"), (60, "Cam wheel bolt")):
            with self.subTest(count), patch("work.record.paper.first_page", with_more(count)):
                pdf = self.paper("record")
                self.assertIn("Build record", text_of(pdf, "-l", "1"))
                self.assertIn(follows, text_of(pdf, "-f", "2", "-l", "2"))
                self.assertEqual("head of the record" in text_of(pdf, "-l", "1"), count < 60)

    def test_words_without_a_blank_stay_on_the_sheet(self):
        self.must({"kind": "for_whom", "customer": "x" * 60, "job": "j" * 30, "complaint": "y" * 120}, serial="V-1")
        self.must({"kind": "note", "text": "z" * 300}, serial="V-1")
        ends = [float(end) for end in re.findall(r'xMax="([\d.]+)"', text_of(self.paper("record"), "-bbox"))]
        self.assertGreater(len(ends), 100)
        self.assertLess(max(ends), A4[0] - 40)

    def test_the_shop_has_its_own_sheets(self):
        """Letter where the shop says so; nothing of it on A4 then."""
        self.assertEqual(sheet_of(self.paper("run")), A4)
        self.sign_in("lena")
        said = {"name": "Cold Works", "address": "", "zone": "", "paper": "Letter"}
        self.assertEqual(self.client.put("/api/letterhead", said, content_type=JSON).status_code, 200)
        for name in ("run", "record", "parts-tags"):
            self.assertEqual(sheet_of(self.paper(name)), LETTER)
        self.assertEqual(self.client.put("/api/letterhead", {**said, "paper": "A3"}, content_type=JSON).status_code, 422)

    def test_the_check_sheet_is_filled_from_what_stands(self):
        """Who did a step and when, what it came to, how tight it is wanted, and what is still to be signed."""
        words = text_of(self.paper("run"))
        self.assertIn("Bo, ", words)
        # what was laid out of the kit is ticked as the steps are
        ticked = check_sheet_page(Engine.objects.get(pk="V-1")).partition("Tools at hand")[0]
        self.assertRegex(ticked, r"box done[^\n]*head bolts")
        self.assertIn("N·m", words)

    def test_the_stands_card_leads_to_its_bench(self):
        """For whom, with what it came in, and the address by which the card was asked for."""
        words = text_of(self.paper("stand-card"))
        for said in ("V-1", "stand 7", "the growers", "26-1", "smokes", "Do not turn"):
            self.assertIn(said, words)

    def test_the_record_is_one_page_that_fetches_nothing(self):
        """As a file to be opened elsewhere; it is in the zip too."""
        answer = self.client.get("/api/engines/V-1/record.html")
        page = answer.content.decode()
        self.assertIn("attachment", answer["Content-Disposition"])
        self.assertIn("the growers", page)
        for fetched in ("picture:", "http://", "https://", "<script", "<link", "url("):
            self.assertNotIn(fetched, page.replace('xmlns="http://www.w3.org/2000/svg"', ""), fetched)
        packed = zipfile.ZipFile(BytesIO(self.client.get("/api/engines/V-1/record.zip").content))
        tables = {f"V-1/{one['name']}.csv" for one in self.client.get("/api/engines/V-1/tables").json()}
        self.assertTrue(tables)
        self.assertLessEqual({"V-1/record.html", *tables}, set(packed.namelist()))


def drawn(pdf: bytes) -> Image.Image:
    """Up to four pages beside each other, small and grey."""
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "paper.pdf"
        file.write_bytes(pdf)
        subprocess.run(["pdftoppm", "-r", str(DPI), "-l", "4", "-gray", "-png", file, Path(folder) / "page"], check=True)
        pages = [Image.open(one).copy() for one in sorted(Path(folder).glob("page*.png"))]
    whole = Image.new("L", (sum(page.width for page in pages), max(page.height for page in pages)), 255)
    at = 0
    for page in pages:
        whole.paste(page, (at, 0))
        at += page.width
    return whole


def sheet_of(pdf: bytes) -> tuple[int, int]:
    """The size of the first page in points."""
    said = subprocess.run(["pdfinfo", "-"], input=pdf, capture_output=True, check=True).stdout.decode()
    wide, _, high = next(line for line in said.splitlines() if line.startswith("Page size")).split(":")[1].split()[:3]
    return round(float(wide)), round(float(high))


def text_of(pdf: bytes, *pages: str) -> str:
    """Its words."""
    return subprocess.run(["pdftotext", "-layout", *pages, "-", "-"], input=pdf, capture_output=True, check=True).stdout.decode()
