"""The help: every question of every room has its topic, short enough to be read with dirty gloves on, in words of the trade alone."""

import re
import unittest
from typing import get_args

from gurvo_core.engine.work import Does
from gurvo_core.help import HELP, topic_of
from gurvo_core.ledger.room import Question
from gurvo_core.work import HOUSE

MOST_LINES = 5
LONGEST = 190


def kinds(of=Question):
    """Every kind of question there is: each is a class of its own."""
    assert HOUSE  # the rooms are there
    found = set()
    for one in of.__subclasses__():
        kind = one.model_fields["kind"].default
        found |= ({kind} if isinstance(kind, str) else set()) | kinds(one)
    return found


class HelpTests(unittest.TestCase):
    def test_every_question_has_its_topic(self):
        missing = [kind for kind in kinds() - {"step_done"} if topic_of(kind) is None and not kind.startswith("toy")]
        self.assertEqual(missing, [])

    def test_a_step_to_be_done_by_whatever_it_does(self):
        self.assertEqual([does for does in get_args(Does) if topic_of("step_done", does) is None], [])

    def test_no_topic_is_left_without_its_question(self):
        named = {*kinds(), *(f"step_done:{does}" for does in get_args(Does))}
        self.assertEqual(set(HELP.topics) - named, set())

    def test_five_lines_and_none_too_long(self):
        for topic in HELP.topics.values():
            lines = [topic.meant, *topic.by_hand, *topic.goes_wrong, *filter(None, [topic.caution])]
            self.assertLessEqual(len(lines), MOST_LINES, topic.id)
            for line in lines:
                self.assertLessEqual(len(line), LONGEST, line)
                self.assertRegex(line, r"[.?]$")

    def test_where_somebody_can_be_hurt_it_says_so(self):
        for sort, topic in HELP.topics.items():
            if re.search(r"turn|plugs|first_start|prime|stop|lay|clearway", sort) and "take" not in sort and sort not in ("lash_stop",):
                self.assertTrue(topic.caution or sort.endswith("plugs_in"), sort)

    def test_a_word_is_told_once_and_by_others(self):
        said = [form.casefold() for word in HELP.words for form in (word.word, *word.forms)]
        self.assertEqual(len(said), len(set(said)))
        for word in HELP.words:
            self.assertNotEqual(word.means.casefold().split(":")[0], word.word.casefold())
