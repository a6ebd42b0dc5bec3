"""The one grammar of sentences: what the core writes, paper and web can read."""

import re
import unittest
from pathlib import Path

from hypothesis import given
from hypothesis import strategies as st

from gurvo_core.motion import snapshot_at
from gurvo_core.sentence import AGAINST, RUNNING, TOKENS, Reader, as_words, clock, length, say
from gurvo_core.work import HOUSE
from tests.engines import CODES, SETUP, Ledger, family

PLAIN = Reader(length=lambda mm: f"{mm} mm", fine=lambda mm: f"{mm:.3f} mm", clock=lambda deg: f"{deg} deg", turn=lambda way: way)
SAYING = Path(__file__).parents[2] / "web" / "src" / "app" / "saying.ts"


class SentenceTests(unittest.TestCase):
    def test_every_sentence_of_every_family_is_of_the_grammar(self):
        """Property: questions, hints, warnings and what is seen, of all shipped families, before and after the wheel is set up."""
        ledger = Ledger()
        ledger.add(SETUP)
        for code in CODES:
            for entries in ([], ledger.entries):
                state = HOUSE.show(HOUSE.fold(family(code), entries))
                said = [text for step in state.steps for q in step.questions for text in (q.ask, q.hint, getattr(q, "wheel_detail", ""))]
                for sentence in [*said, *state.warnings, *(snapshot_at(family(code), deg).words for deg in (0, 123.4, 700))]:
                    self.assertNotIn("{", say(sentence, PLAIN), sentence)

    def test_braces_of_people_stay_as_they_are(self):
        for sentence in ("at {degrees:4}", "{mm:.}", "{mm:}", "{turn:sideways}", "{clock:noon}", "{}", "{see page 12}", "{{mm}", "}{"):
            with self.subTest(sentence=sentence):
                self.assertEqual(say(sentence, PLAIN), sentence)

    @given(st.text(alphabet="{}:mfineclockturg5. ", max_size=40))
    def test_what_a_person_typed_is_heard_as_it_stands(self, typed):
        """Property: no brace of his begins a token, and beyond the space that keeps it from that nothing is changed."""
        kept = as_words({"text": [typed, 4]})["text"]
        self.assertEqual(say(kept[0], PLAIN), kept[0])
        self.assertEqual(kept[0].replace(" ", ""), typed.replace(" ", ""))
        self.assertEqual(as_words(kept), kept)

    @given(st.floats(-1e3, 1e3), st.floats(0, 359.9))
    def test_tokens_are_read_as_they_were_written(self, mm, deg):
        """Round trip: to the figures a token keeps."""
        said = say(f"{length(mm)}|{clock(deg)}|{RUNNING}|{AGAINST}", PLAIN).split("|")
        self.assertAlmostEqual(float(said[0].split()[0]), mm, delta=abs(mm) * 1e-5 + 1e-9)
        self.assertAlmostEqual(float(said[1].split()[0]), deg, delta=0.051)
        self.assertEqual(said[2:], ["running", "against"])

    def test_the_web_reads_the_same_tokens(self):
        """The web's table of tokens has the core's names and no other."""
        table = re.search(r"TOKENS = \{(.*?)\n\}", SAYING.read_text("utf-8"), re.S)[1]
        self.assertEqual(set(re.findall(r"^  (\w+):", table, re.M)), set(TOKENS))
