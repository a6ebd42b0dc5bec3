"""What the bench is sent after an entry: what changed, brought together with what the page had, is what the bench shows."""

import uuid
from datetime import UTC, datetime
from unittest.mock import Mock, patch

from django.contrib.auth.models import User

from demo.player import answer
from engine.services import add_revision
from gurvo_core.walk import next_question
from tests.engines import family_copy_with_run
from tests.server.cases import ShopCase
from work import bridge
from work.models import Engine
from work.services import keep_summary

AT_WORK = datetime(2026, 11, 26, 10, 30, tzinfo=UTC)  # a working day, in the shop's hours


def brought_together(had, change):
    """As the page does it: steps that are not sent stay, new lines come first, struck ones take the place of theirs."""
    steps = {step["key"]: step for step in (*had["state"]["steps"], *change["state"]["steps"])}
    sent = {line["id"]: line for line in change["tape"]}
    newest = had["tape"][0]["seq"] if had["tape"] else 0
    return {
        **{key: value for key, value in change.items() if key not in ("kind", "order")},
        "state": {**change["state"], "steps": [steps[key] for key in change["order"] or (step["key"] for step in had["state"]["steps"])]},
        "tape": [
            *(line for line in change["tape"] if line["seq"] > newest),
            *(sent.get(line["id"], line) for line in had["tape"]),
        ],
    }


class ChangeTest(ShopCase):
    """A page that names what it has is sent what changed; any other, everything."""

    def setUp(self):
        """Put an engine with a whole run on the bench; the clock by which it is told when it will be done stands still."""
        super().setUp()
        still = patch("work.showing.timezone", Mock(localtime=lambda: AT_WORK))
        still.start()
        self.addCleanup(still.stop)
        revision = add_revision(family_copy_with_run("quern-4"), by=None)
        keep_summary(Engine.objects.create(serial="R-1", revision=revision, builder=User.objects.get(username="bo")))

    def look(self):
        """All that the bench shows."""
        return self.client.get("/api/engines/R-1").json()

    def send(self, entry, has=None, key=None):
        """Make an entry; return what came back."""
        return self.must(entry, serial="R-1", entry_id=key, has=has)

    def test_a_job_entry_by_entry_is_shown_as_it_is_looked_at_anew(self):
        had, sent, changes = self.look(), [], 0
        for _ in range(24):
            ledger = bridge.ledger_of(Engine.objects.at_the_bench().get(pk="R-1"))
            question = next_question(ledger.shown)
            came = self.send(answer(ledger.shown, question, ledger.folded.document), had["tag"])
            sent.append(came["tape"][0]["id"])
            self.assertLessEqual(len(came["state"]["steps"]), len(had["state"]["steps"]))
            changes += len(came["state"]["steps"]) < len(had["state"]["steps"])
            had = brought_together(had, came)
            self.assertEqual(had, self.look())
        self.assertGreater(changes, 5)
        came = self.send({"kind": "strike", "strikes": sent[len(sent) // 2], "reason": "misread"}, had["tag"])
        self.assertEqual(came["tape"][0]["kind"], "strike")
        self.assertEqual(brought_together(had, came), self.look())

    def test_who_has_something_else_is_sent_all(self):
        had = self.look()
        note = {"kind": "note", "text": "wiped the wheel"}
        key = uuid.uuid4()
        first = self.send(note, had["tag"], key)
        self.assertEqual(first["kind"], "change")
        for has, again in ((None, None), (had["tag"], None), ('"made up"', None), (had["tag"], key)):
            came = self.send(note, has, again)
            self.assertNotIn("kind", came)
            self.assertEqual(came, self.look())

    def test_a_look_under_the_tag_that_came_with_a_change_is_answered_with_nothing(self):
        came = self.send({"kind": "note", "text": "wiped the wheel"}, self.look()["tag"])
        response = self.client.get("/api/engines/R-1", headers={"If-None-Match": came["tag"]})
        self.assertEqual((response.status_code, response.content), (304, b""))
