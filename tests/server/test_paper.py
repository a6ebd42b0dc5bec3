"""The record on paper says what was typed, whatever was typed, and asks nobody for anything."""

import re
import subprocess
from pathlib import Path
from shutil import which
from tempfile import TemporaryDirectory
from unittest import skipIf
from unittest.mock import patch

from press.fonts_of import fetch_fonts_alone
from tests.engines import lift
from tests.server.cases import ShopCase
from work.record import paper
from work.record.turns import one_at_a_time

TYPED = 'kept {mm:.} & <b>bold</b> "}; * { display: none } \\ url(http://elsewhere.example/x) ' + "x" * 200


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

    def test_what_was_typed_is_printed_as_typed_in_a_table_and_in_lines(self):
        self.must({"kind": "note", "text": TYPED})
        for long in (300, 0):
            with self.subTest(long=long), patch.object(paper, "LONG", long):
                text = self.printed()
                self.assertIn(TYPED.replace(" ", ""), text)
                self.assertIn("Bo", text)

    def test_a_person_has_one_record_printed_at_a_time(self):
        with one_at_a_time("bo"):
            self.refused(self.client.get("/api/engines/T-1/record.pdf"), 409, "", "still being printed")
            self.sign_in("vi")
            self.printed()
        self.sign_in("bo")
        self.printed()

    def test_letters_the_fonts_do_not_have_are_named(self):
        self.must({"kind": "note", "text": "冷 shop"})
        self.assertIn("Letters this paper cannot show: U+51B7".replace(" ", ""), self.printed())

    def test_nothing_but_the_shipped_fonts_is_read(self):
        for address in ("http://elsewhere.example/x", "file:///etc/hostname", "data:text/css,x"):
            with self.subTest(address=address), self.assertRaisesRegex(ValueError, "nothing is fetched"):
                fetch_fonts_alone(address)
