"""Whatever kind of entry names a gauge: the gate asks whether there is such a one, of the right sort, and whether its calibration holds."""

import unittest
from datetime import UTC, date, datetime

from gurvo_core.errors import AskFirst, EntryRefused
from gurvo_core.ledger import GAUGES, MAKER, NOW
from gurvo_core.ledger.versions import ENTRY_VERSION
from gurvo_core.work import HOUSE
from tests.engines import DIAL, SETUP, WHEEL, quern_4

TODAY = datetime(2026, 11, 23, 8, tzinfo=UTC)


class NamedGaugeTests(unittest.TestCase):
    def set_up(self, *gauges, because="", **otherwise):
        """The wheel's set-up: every kind that names a gauge comes through the same gate."""
        known = {GAUGES: {gauge.id: gauge for gauge in gauges}, NOW: TODAY, MAKER: "Della"}
        HOUSE.check(HOUSE.fold(quern_4(), ()), HOUSE.read({**SETUP, **otherwise}, ENTRY_VERSION), known, because=because)

    def test_one_that_is_not_there_or_of_another_sort_is_no_matter_of_reasons(self):
        for words, gauges in {
            "there is no wheel called W1; choose one of the gauges": (DIAL,),
            "there is no dial called D2; choose one of the gauges": (WHEEL, WHEEL.model_copy(update={"id": "D2"})),
        }.items():
            with self.subTest(words), self.assertRaises(EntryRefused) as refused:
                self.set_up(*gauges, because="it lies here")
            self.assertIn(words.lower(), str(refused.exception).lower())

    def test_one_whose_calibration_ran_out_is_taken_for_a_reason_from_the_next_day_on(self):
        self.set_up(WHEEL.model_copy(update={"due": date(2026, 11, 23)}), DIAL)
        late = WHEEL.model_copy(update={"due": date(2026, 11, 22)})
        with self.assertRaises(AskFirst) as asked:
            self.set_up(late, DIAL)
        self.assertEqual(asked.exception.field, "wheel_gauge")
        self.assertIn("ran out on 22 nov 2026", str(asked.exception).lower())
        self.set_up(late, DIAL, because="checked against the other wheel today")

    def test_what_cannot_be_is_said_before_what_may_be_for_a_reason(self):
        with self.assertRaises(EntryRefused) as refused:
            self.set_up(WHEEL.model_copy(update={"due": date(2026, 1, 1)}), DIAL, plugs_out=False)
        self.assertEqual(refused.exception.field, "plugs_out")

    def test_every_kind_with_a_field_for_a_gauge_names_it_to_the_gate(self):
        for name, kind in HOUSE.kinds.items():
            fields = {field for field in kind.body.model_fields if field in ("gauge", "wrench") or field.endswith("_gauge")}
            body = kind.body.model_construct(**{**dict.fromkeys(kind.body.model_fields), **dict.fromkeys(fields, "X1"), "kind": name})
            with self.subTest(kind=name):
                self.assertEqual({named.field for named in kind.gauges(body)}, fields)
