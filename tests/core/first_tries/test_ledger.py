"""What a reader would try first of the functions of ``ledger``, each held to its answer."""

import unittest
from dataclasses import dataclass
from datetime import UTC, datetime
from types import SimpleNamespace
from uuid import UUID

from gurvo_core.kept import Beside, kept_last, kept_with
from gurvo_core.ledger.chain import START, content_of, digest_of, misfit, record_misfit, short
from gurvo_core.ledger.changed import changed
from gurvo_core.ledger.entry import LedgerEntry, Strike
from gurvo_core.ledger.fold import apply, fold
from gurvo_core.ledger.room import STEPS_DONE, Facts, may_be_done
from gurvo_core.ledger.versions import upcast
from tests.engines import quern_4


class FirstTriesTests(unittest.TestCase):
    def test_content_of(self):
        at = datetime(2026, 11, 25, tzinfo=UTC)
        self.assertEqual(
            content_of({"at": at, "typed_at": None}, engine="T-1", document="d", before=START)["at"], "2026-11-25T00:00:00+00:00"
        )

    def test_misfit(self):
        content = {"seq": 1, "before": START}
        self.assertEqual(
            (misfit(content, digest_of(content), seq=1, before=START), misfit(content, "x", seq=1, before=START)),
            ("", "entry 1 is not as it was sealed"),
        )

    def test_record_misfit(self):
        self.assertEqual(record_misfit({"entries": [], "documents": {}, "head": START}), "")

    def test_short(self):
        self.assertEqual(short("3f2a91bc" * 8), "3F2A-91BC-3F2A-91BC")

    def test_changed(self):
        @dataclass(frozen=True)
        class Pile:
            stones: int
            colour: str = "grey"

        self.assertEqual(changed(Pile(3), stones=4), Pile(stones=4, colour="grey"))

    def test_fold(self):
        self.assertEqual(fold((), quern_4(), []).entries, ())

    def test_apply(self):
        strike = Strike(kind="strike", strikes=UUID(int=9), reason="none such")
        entry = LedgerEntry(id=UUID(int=1), seq=1, at=datetime.now(UTC), by="x", body=strike)
        self.assertEqual(len(apply(fold((), quern_4(), []), entry).entries), 1)

    def test_kept_with(self):
        look = kept_with(lambda pile, more: [pile.stones + more])
        pile = SimpleNamespace(stones=3)
        self.assertEqual((look(pile, 2) is look(pile, 2), look(pile, 2) is look(pile, 4)), (True, False))

    def test_kept_last(self):
        pile = SimpleNamespace(stones=3)
        self.assertEqual([kept_last(pile, "sum", Beside("more", 2), lambda more=more: pile.stones + more) for more in (2, 4)], [5, 5])

    def test_may_be_done(self):
        self.assertEqual(
            [one.rule for one in may_be_done("float", Facts({STEPS_DONE: {"float"}}), "read it again")],
            ["this step is done; read it again"],
        )

    def test_upcast(self):
        self.assertEqual(upcast({"kind": "decision", "decision": {"subject": "stop_out"}}, 1), {"kind": "piston_stop", "fitted": False})
